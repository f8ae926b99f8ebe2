import { existsSync } from "node:fs";
import { join } from "node:path";
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
  type Hover,
} from "vscode-languageserver/node";
import { loadDecisions, messageOf, Problem, shownVersion } from "../node/index.js";
import { standingsOf, type Decision, type Plan } from "../plan/index.js";
import { actionsAt, DECIDE, FIX_ALL, withEdits, type Wanted } from "./actions.js";
import { meet, rangeOf } from "./convert.js";
import { diagnosticsOf, SOURCE } from "./diagnostics.js";
import { hoverOfChange, hoverOfHeldBack, hoverOfPlace } from "./hover.js";
import type { OpenFile } from "./open-file.js";
import { Projects, type Place } from "./projects.js";

/** So long after the last key an open file is looked at. */
const QUIET_MILLISECONDS = 120;

/** Answers an editor over a connection until it ends. What is typed counts as it stands, saved or not. */
export function serveEditor(connection: Connection): void {
  const documents = new TextDocuments(TextDocument);
  const files = new Map<string, OpenFile>();
  const waiting = new Map<string, NodeJS.Timeout>();
  let projects = new Projects([]);
  let told: string | undefined;
  let canWatch = false;
  /** Does the editor ask for the edits of the one action that is chosen? */
  let asksForEdits = false;

  connection.onInitialize(({ workspaceFolders, rootUri, capabilities }) => {
    const folders = workspaceFolders?.map(({ uri }) => uri) ?? (rootUri ? [rootUri] : []);
    projects = new Projects(folders.filter(isFile).map((uri) => fileURLToPath(uri)));
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

  documents.onDidChangeContent(({ document }) => lookSoon(document.uri));
  documents.onDidSave(({ document }) => changedOnDisk([document.uri]).catch(complain));
  documents.onDidClose(({ document: { uri } }) => void forget(uri));
  connection.onDidChangeWatchedFiles(({ changes }) =>
    changedOnDisk(changes.map(({ uri }) => uri)).catch(complain),
  );

  connection.onHover(async ({ textDocument, position }, token): Promise<Hover | undefined> => {
    const file = await current(textDocument.uri);
    if (!file || token.isCancellationRequested) return undefined;
    const at = { start: position, end: position };
    const { changes, advice, heldBack } = file.plan;
    const change = changes.find(({ range }) => meet(rangeOf(range), at));
    const advised = advice.find(({ range }) => meet(rangeOf(range), at));
    const held = heldBack.find(({ range }) => meet(rangeOf(range), at));
    const hit = change ?? advised ?? held;
    if (!hit) return undefined;
    const { allRules } = file.workspace.project;
    const value = change
      ? hoverOfChange(
          change,
          file.text,
          await file.workspace.edits(change).catch(() => change.edits),
          allRules.find(({ id }) => id === change.rules[0]),
        )
      : advised
        ? hoverOfPlace(advised, advised.title)
        : hoverOfHeldBack(held!);
    return { contents: { kind: MarkupKind.Markdown, value }, range: rangeOf(hit.range) };
  });

  connection.onCodeAction(async ({ textDocument, range, context }, token) => {
    const file = await current(textDocument.uri);
    if (!file || token.isCancellationRequested) return [];
    const actions = actionsAt(file, range, context.only, context.diagnostics);
    if (asksForEdits) return actions;
    const done = await Promise.all(actions.map((action) => resolved(action)));
    return done.filter((action) => action.edit !== undefined || action.command !== undefined);
  });
  connection.onCodeActionResolve((action) => resolved(action));

  connection.onExecuteCommand(async ({ command, arguments: given = [] }) => {
    const [uri, id, decision] = given as [string, string, Decision["decision"]];
    const file = command === DECIDE ? files.get(uri) : undefined;
    if (!file) return;
    try {
      await file.workspace.review(file.plan).decide([{ id, decision }]);
      await look(uri);
    } catch (error) {
      show(messageOf(error));
    }
  });

  documents.listen(connection);
  connection.listen();

  /** An action with its edits, where it has any and they can be written. */
  async function resolved(action: CodeAction): Promise<CodeAction> {
    if (action.command !== undefined) return action;
    const file = files.get((action.data as Wanted).uri);
    const versionOf = (uri: string): number | null => documents.get(uri)?.version ?? null;
    return (file && (await withEdits(action, file, versionOf))) ?? action;
  }

  function lookSoon(uri: string): void {
    clearTimeout(waiting.get(uri));
    waiting.set(
      uri,
      setTimeout(() => void look(uri), QUIET_MILLISECONDS),
    );
  }

  /** What was found in a file, in the text that the editor has now; looked at where that is not done yet. */
  async function current(uri: string): Promise<OpenFile | undefined> {
    const document = documents.get(uri);
    if (document && files.get(uri)?.version !== document.version) await look(uri);
    const file = files.get(uri);
    return file && file.version === documents.get(uri)?.version ? file : undefined;
  }

  /** Looks at a file as it is in the editor, and tells what is found. */
  async function look(uri: string): Promise<void> {
    clearTimeout(waiting.get(uri));
    waiting.delete(uri);
    const document = documents.get(uri);
    const place = document && (await placeOf(uri));
    if (!document || !place) return;
    const { workspace, path } = place;
    const { version } = document;
    try {
      const stale = workspace.setUnsaved(path, document.getText());
      const found = await workspace.fileNow(path);
      // Meanwhile more was typed, or the file was closed: another look is on its way.
      if (documents.get(uri)?.version !== version) return;
      const text = document.getText();
      const isSaved = workspace.isSaved(path, text);
      const plan = found && withoutDropped(place, found.plan, text);
      if (!plan) files.delete(uri);
      else files.set(uri, { ...place, uri, version, text, plan, isSaved });
      const ruleOf = (id: string) => workspace.project.allRules.find((rule) => rule.id === id);
      const diagnostics = plan ? diagnosticsOf(plan, workspace.root, ruleOf) : [];
      await connection.sendDiagnostics({ uri, version, diagnostics });
      for (const [other, file] of files)
        if (other !== uri && file.workspace === workspace && stale.includes(file.path)) lookSoon(other);
    } catch (error) {
      complain(error);
    }
  }

  /** Where a file is; undefined for one that is in no project, or whose config fails, which is told once. */
  async function placeOf(uri: string): Promise<Place | undefined> {
    if (!isFile(uri)) return undefined;
    try {
      const place = await projects.placeOf(fileURLToPath(uri));
      if (place) told = undefined;
      return place;
    } catch (error) {
      complain(error);
      return undefined;
    }
  }

  function complain(error: unknown): void {
    const says = messageOf(error);
    if (says === told) return;
    told = says;
    if (error instanceof Problem) show(says);
    else connection.console.error(error instanceof Error ? (error.stack ?? says) : says);
  }

  /** As a message that needs no answer: not all editors know requests for one. */
  function show(says: string): void {
    connection
      .sendNotification(ShowMessageNotification.type, { type: MessageType.Error, message: `Uvran: ${says}` })
      .catch(() => undefined);
  }

  /** Takes in that files have changed on the disk: what rests on them is looked at again, with other rules where these have changed. */
  async function changedOnDisk(uris: readonly string[]): Promise<void> {
    const paths = uris.filter(isFile).map((uri) => fileURLToPath(uri));
    const hasOtherRules = await projects.forget(paths);
    for (const workspace of await projects.all()) {
      const stale = new Set(workspace.refresh());
      for (const [uri, file] of files)
        if (file.workspace === workspace && stale.has(file.path)) lookSoon(uri);
    }
    for (const { uri } of documents.all())
      if (hasOtherRules || !files.has(uri) || uris.includes(uri)) lookSoon(uri);
  }

  async function forget(uri: string): Promise<void> {
    clearTimeout(waiting.get(uri));
    waiting.delete(uri);
    files.delete(uri);
    const place = await placeOf(uri);
    if (place && !documents.get(uri)) place.workspace.setUnsaved(place.path, undefined);
    await connection.sendDiagnostics({ uri, diagnostics: [] }).catch(() => undefined);
  }
}

const isFile = (uri: string): boolean => uri.startsWith("file:");

/** A plan without the changes that somebody has decided to drop. */
function withoutDropped({ workspace, path }: Place, plan: Plan, text: string): Plan {
  const decisions = loadDecisions(workspace.root);
  if (decisions.length === 0) return plan;
  const standings = standingsOf(plan, decisions, {
    textOf: (other) => (other === path ? text : workspace.text(other)),
    isThere: (other) => existsSync(join(workspace.root, other)),
  });
  const isDropped = ({ id }: { readonly id: string }): boolean => {
    const { decision, misfit } = standings.of(id);
    return misfit === undefined && decision === "drop";
  };
  return { ...plan, changes: plan.changes.filter((change) => !isDropped(change)) };
}
