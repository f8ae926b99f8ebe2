import { Writable } from "node:stream";
import type { Command } from "commander";
import { createConnection, StreamMessageReader, StreamMessageWriter } from "vscode-languageserver/node";
import { serveEditor } from "../lsp/index.js";
import { examples } from "./terminal.js";

export function describeLsp(command: Command): void {
  command
    .description(
      "A language server for editors: what the rules find in open files, saved or not, with each change as an action. It speaks " +
        "over standard input and output, and is started by the editor.",
    )
    .option("--stdio", "the same; many editors say it")
    .addHelpText("after", examples("uvran lsp"))
    .action(lsp);
}

function lsp(): void {
  const write = process.stdout.write.bind(process.stdout);
  const answers = new Writable({ write: (chunk, _, done) => void write(chunk as Buffer, () => done()) });
  // A rule or a config that prints would break what is said to the editor.
  process.stdout.write = process.stderr.write.bind(process.stderr);
  serveEditor(createConnection(new StreamMessageReader(process.stdin), new StreamMessageWriter(answers)));
}
