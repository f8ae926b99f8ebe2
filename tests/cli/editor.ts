import { spawn, type ChildProcess } from "node:child_process";
import { resolve } from "node:path";
import { pathToFileURL } from "node:url";
import {
  createProtocolConnection,
  StreamMessageReader,
  StreamMessageWriter,
  type CodeAction,
  type Diagnostic,
  type ProtocolConnection,
  type PublishDiagnosticsParams,
  type ShowMessageParams,
} from "vscode-languageserver-protocol/node";
import { TextDocument } from "vscode-languageserver-textdocument";
import type { Sandbox } from "./run.js";

/** An editor that speaks the protocol with `uvran lsp`, as far as tests need one. */
export class Editor {
  readonly messages: string[] = [];
  readonly #process: ChildProcess;
  readonly #sandbox: Sandbox;
  readonly #connection: ProtocolConnection;
  readonly #documents = new Map<string, TextDocument>();
  readonly #published = new Map<string, PublishDiagnosticsParams>();

  private constructor(sandbox: Sandbox) {
    this.#sandbox = sandbox;
    this.#process = spawn(process.execPath, [resolve("dist/program/uvran.js"), "lsp", "--stdio"], {
      cwd: sandbox.root,
    });
    const { stdin, stdout } = this.#process;
    this.#connection = createProtocolConnection(
      new StreamMessageReader(stdout!),
      new StreamMessageWriter(stdin!),
    );
    this.#connection.onNotification("textDocument/publishDiagnostics", (told: PublishDiagnosticsParams) => {
      this.#published.set(told.uri, told);
    });
    this.#connection.onNotification("window/showMessage", ({ message }: ShowMessageParams) => {
      this.messages.push(message);
    });
    this.#connection.onRequest("client/registerCapability", () => null);
    this.#connection.listen();
  }

  static async open(sandbox: Sandbox, asksForEdits = false): Promise<Editor> {
    const editor = new Editor(sandbox);
    const rootUri = pathToFileURL(sandbox.root).href;
    await editor.request("initialize", {
      processId: process.pid,
      rootUri,
      workspaceFolders: [{ uri: rootUri, name: "yard" }],
      capabilities: {
        workspace: { didChangeWatchedFiles: { dynamicRegistration: true } },
        textDocument: asksForEdits ? { codeAction: { resolveSupport: { properties: ["edit"] } } } : {},
      },
    });
    await editor.#connection.sendNotification("initialized", {});
    return editor;
  }

  request<T>(method: string, params?: object): Promise<T> {
    return this.#connection.sendRequest(method, params ?? {});
  }

  notify(method: string, params: object): Promise<void> {
    return this.#connection.sendNotification(method, params);
  }

  uri(path: string): string {
    return pathToFileURL(this.#sandbox.path(path)).href;
  }

  /** Opens a file, or types a text in place of the one that it had; gives what is found in it. */
  async type(path: string, text = this.#sandbox.read(path)): Promise<Diagnostic[]> {
    const uri = this.uri(path);
    const known = this.#documents.get(uri);
    const version = (known?.version ?? 0) + 1;
    this.#documents.set(uri, TextDocument.create(uri, "", version, text));
    if (!known)
      await this.notify("textDocument/didOpen", { textDocument: { uri, languageId: "", version, text } });
    else
      await this.notify("textDocument/didChange", {
        textDocument: { uri, version },
        contentChanges: [{ text }],
      });
    return this.told(path, (one) => one.version === version);
  }

  /** What the server has told of a file, once it fits. */
  async told(path: string, fits: (told: PublishDiagnosticsParams) => boolean): Promise<Diagnostic[]> {
    for (let tries = 0; tries < 600; tries++) {
      const told = this.#published.get(this.uri(path));
      if (told && fits(told)) return told.diagnostics;
      await new Promise((go) => setTimeout(go, 50));
    }
    throw new Error(
      `nothing like that is told of ${path}: ${JSON.stringify(this.#published.get(this.uri(path)))}`,
    );
  }

  /** The actions at a place that holds a piece of code. */
  async actions(path: string, code: string, only?: string[]): Promise<CodeAction[]> {
    const document = this.#documents.get(this.uri(path))!;
    const at = document.getText().indexOf(code);
    const range = { start: document.positionAt(at), end: document.positionAt(at + code.length) };
    const { diagnostics } = this.#published.get(document.uri)!;
    const context = { diagnostics, ...(only ? { only } : {}) };
    return this.request("textDocument/codeAction", { textDocument: { uri: document.uri }, range, context });
  }

  /** What an action makes of a file; undefined where it does nothing in it. */
  after({ edit }: CodeAction, path: string): string | undefined {
    const uri = this.uri(path);
    for (const change of edit?.documentChanges ?? []) {
      if (!("edits" in change) || change.textDocument.uri !== uri) continue;
      const document = this.#documents.get(uri) ?? TextDocument.create(uri, "", 0, this.#sandbox.read(path));
      const expected = this.#documents.get(uri)?.version ?? null;
      if (change.textDocument.version !== expected)
        throw new Error(`meant for ${change.textDocument.version}`);
      return TextDocument.applyEdits(document, change.edits as Parameters<typeof TextDocument.applyEdits>[1]);
    }
    return undefined;
  }

  async close(): Promise<number | null> {
    await this.request("shutdown");
    const ended = new Promise<number | null>((go) => this.#process.on("exit", go));
    await this.notify("exit", {});
    return ended;
  }
}
