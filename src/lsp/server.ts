import { fileURLToPath } from "node:url";
import { TextDocument } from "vscode-languageserver-textdocument";
import {
  CodeActionKind,
  DidChangeWatchedFilesNotification,
  MarkupKind,
  MessageType,
  ShowMessageNotification,
  TextDocuments,
  TextDocumentSyncKind,
  type CodeAction,
  type Connection,
} from "vscode-languageserver/node";
import { messageOf, Problem, shownVersion } from "../node/index.js";
import type { Decision } from "../plan/index.js";
import { actionsAt, DECIDE, FIX_ALL, withEdits, type Wanted } from "./actions.js";
import { diagnosticsOf, SOURCE } from "./diagnostics.js";
import { hoverAt } from "./hover.js";
import { isFile, OpenFiles } from "./open-files.js";
import { Projects } from "./projects.js";

/** Answers an editor over a connection until it ends. */
export function serveEditor(connection: Connection): void {
  const documents = new TextDocuments(TextDocument);
  let files = open([]);
  let said: string | undefined;
  let canWatch = false;
  /** Does the editor ask for the edits of the one action that is chosen? */
  let asksForEdits = false;

  connection.onInitialize(({ workspaceFolders, rootUri, capabilities }) => {
    const folders = workspaceFolders?.map(({ uri }) => uri) ?? (rootUri ? [rootUri] : []);
    files = open(folders.filter(isFile).map((uri) => fileURLToPath(uri)));
    canWatch = capabilities.workspace?.didChangeWatchedFiles?.dynamicRegistration === true;
    const later = capabilities.textDocument?.codeAction?.resolveSupport?.properties ?? [];
    asksForEdits = later.includes("edit");
    return {
      serverInfo: { name: SOURCE, version: shownVersion() },
      capabilities: {
        textDocumentSync: { openClose: true, change: TextDocumentSyncKind.Incremental, save: true },
        codeActionProvider: { codeActionKinds: [CodeActionKind.QuickFix, FIX_ALL], resolveProvider: true },
        hoverProvider: true,
        executeCommandProvider: { commands: [DECIDE] },
      },
    };
  });
  connection.onInitialized(() => {
    const watchers = [{ globPattern: "**/*" }];
    if (canWatch)
      connection.client.register(DidChangeWatchedFilesNotification.type, { watchers }).catch(complain);
  });

  documents.onDidChangeContent(({ document }) => files.lookSoon(document.uri));
  documents.onDidSave(({ document }) => files.changedOnDisk([document.uri]).catch(complain));
  documents.onDidClose(({ document }) => files.close(document.uri).catch(complain));
  connection.onDidChangeWatchedFiles(({ changes }) =>
    files.changedOnDisk(changes.map(({ uri }) => uri)).catch(complain),
  );

  connection.onHover(async ({ textDocument, position }, token) => {
    const file = await files.current(textDocument.uri);
    const hit = file && !token.isCancellationRequested ? await hoverAt(file, position) : undefined;
    return hit && { contents: { kind: MarkupKind.Markdown, value: hit.says }, range: hit.range };
  });

  connection.onCodeAction(async ({ textDocument, range, context }, token) => {
    const file = await files.current(textDocument.uri);
    if (!file || token.isCancellationRequested) return [];
    const actions = actionsAt(file, range, context.only, context.diagnostics);
    if (asksForEdits) return actions;
    const done = await Promise.all(actions.map(resolved));
    return done.filter((action) => action.edit !== undefined || action.command !== undefined);
  });
  connection.onCodeActionResolve(resolved);

  connection.onExecuteCommand(async ({ command, arguments: given = [] }) => {
    const [uri, id, decision] = given as [string, string, Decision["decision"]];
    const file = command === DECIDE ? files.known(uri) : undefined;
    if (!file) return;
    try {
      await file.workspace.review(file.plan).decide([{ id, decision }]);
      await files.look(uri);
    } catch (error) {
      show(messageOf(error));
    }
  });

  documents.listen(connection);
  connection.listen();

  function open(folders: readonly string[]): OpenFiles {
    return new OpenFiles(documents, new Projects(folders), {
      wrong: complain,
      found: async (uri, version, file) => {
        if (file) said = undefined;
        const diagnostics = file ? diagnosticsOf(file) : [];
        await connection.sendDiagnostics({
          uri,
          diagnostics,
          ...(version === undefined ? {} : { version }),
        });
      },
    });
  }

  /** An action with its edits, where it has any and they can be written. */
  async function resolved(action: CodeAction): Promise<CodeAction> {
    if (action.command !== undefined) return action;
    const file = files.known((action.data as Wanted).uri);
    return (file && (await withEdits(action, file, files.versionOf))) ?? action;
  }

  /** Tells what is wrong, once: a config that fails does so for every file. */
  function complain(error: unknown): void {
    const says = messageOf(error);
    if (says === said) return;
    said = says;
    if (error instanceof Problem) show(says);
    else connection.console.error(error instanceof Error ? (error.stack ?? says) : says);
  }

  /** As a message that needs no answer: not all editors know requests for one. */
  function show(says: string): void {
    connection
      .sendNotification(ShowMessageNotification.type, { type: MessageType.Error, message: `Uvran: ${says}` })
      .catch(() => undefined);
  }
}
