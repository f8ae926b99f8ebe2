import { readFileSync, statSync } from "node:fs";
import { InvalidArgumentError, type Command } from "commander";
import "../node/grammars.js";
import { languageOnDisk } from "../node/file-language.js";
import { messageOf, Problem } from "../node/problem.js";
import { decode } from "../node/encoding.js";
import { inspect } from "../node/read.js";
import { allLanguages, loadGrammars, parseFile, type SyntaxNode } from "../syntax/index.js";
import { saidAt, statementAround } from "../readings/index.js";
import type { Paint } from "../report/index.js";
import { printable } from "./deliver.js";
import { examples, paintFor } from "./terminal.js";

interface Place {
  readonly line: number;
  readonly column: number;
}

interface Options {
  readonly at?: Place;
  readonly tokens?: boolean;
  readonly json?: boolean;
}

export function describeOutline(command: Command): void {
  command
    .description(
      "Shows the syntax tree of a file. With --at, the way down to the node at a position, where its name comes " +
        "from, what the code around it reads as, and the tree of the statement it stands in, with the node marked.",
    )
    .argument("<file>")
    .option("--at <line:column>", "a position, both counted from 1", place)
    .option("--tokens", "show tokens such as ( and return too")
    .option("--json", "the tree as JSON")
    .addHelpText("after", examples("uvran outline src/lots.ts", "uvran outline src/lots.ts --at 12:9"))
    .action(outline);
}

function place(text: string): Place {
  const match = /^(\d+):(\d+)$/.exec(text);
  if (!match) throw new InvalidArgumentError("Write it as LINE:COLUMN, both counted from 1.");
  return { line: Number(match[1]), column: Number(match[2]) };
}

async function outline(file: string, options: Options): Promise<void> {
  const language = languageOnDisk(file);
  if (!language) {
    const { mayHoldCode } = await import("../embed/index.js");
    if (mayHoldCode(file)) {
      throw new Problem(
        `${file} has code in it, but outline shows files that are code as a whole. Save the code alone.`,
      );
    }
    const endings = allLanguages().flatMap((known) => known.extensions);
    throw new Problem(`${file} is of a kind that Uvran does not read. It reads ${endings.join(", ")}.`);
  }
  let bytes: Buffer;
  try {
    if (!statSync(file).isFile()) throw new Error("it is no file");
    bytes = readFileSync(file);
  } catch (error) {
    throw new Problem(`Cannot read ${file}: ${messageOf(error)}`);
  }
  const verdict = inspect(bytes);
  if (verdict && "bad" in verdict) throw new Problem(`Cannot read ${file}: ${verdict.bad}`);
  await loadGrammars([language]);
  const tree = parseFile(decode(bytes), language);
  const paint = paintFor(process.stdout);
  const out: string[] = [];
  let root = tree.root;
  let marked: SyntaxNode | undefined;
  if (options.at) {
    const { line, column } = options.at;
    const offset = tree.lineStart(line) + column - 1;
    if (line === 0 || column === 0)
      throw new Problem(`${line}:${column} is no position: lines and columns are counted from 1.`);
    if (line > tree.lineCount || offset > tree.text.length) {
      throw new Problem(`${file} has no position ${line}:${column}; it has ${tree.lineCount} lines.`);
    }
    root = tree.nodeAt(offset);
    if (!options.json) {
      const way = [...root.ancestors()].reverse().map((node) => node.kind);
      out.push(paint.dim(`${[...way, ""].join(" › ")}`) + paint.bold(root.kind));
      const { origin, reads } = saidAt(root);
      if (origin !== undefined) out.push(paint.cyan(origin));
      for (const { line, says, reading } of reads)
        out.push(paint.cyan(`line ${line} reads as ${says}\n  ${reading}`));
      marked = root;
      root = statementAround(root);
    }
  }
  if (options.json) {
    const said = options.at ? saidAt(root) : {};
    out.push(JSON.stringify({ ...asData(root, options.tokens ?? false), ...said }, null, 1));
  } else show(root, 0, { tokens: options.tokens ?? false, marked, paint, out });
  process.stdout.write(printable(out.join("\n") + "\n"));
  if (tree.errors.length > 0) {
    process.stderr.write(`${file}:${tree.lineAt(tree.starts[tree.errors[0]!]!)}: syntax error\n`);
    process.exitCode = 2;
  }
}

const LONGEST = 50;

interface View {
  readonly tokens: boolean;
  readonly marked: SyntaxNode | undefined;
  readonly paint: Paint;
  readonly out: string[];
}

function show(node: SyntaxNode, depth: number, view: View): void {
  const { tree, field } = node;
  const { tokens, marked, paint, out } = view;
  const column = node.start - tree.lineStart(node.line) + 1;
  const label = field ? paint.dim(`${field}: `) : "";
  const code = node.isLeaf || node.parts.length === 0 ? ` ${paint.green(clip(node.text))}` : "";
  const kind = node.named ? node.kind : JSON.stringify(node.kind);
  const isMarked = node.same(marked);
  const place = paint.dim(`${node.line}:${column}`.padEnd(9));
  out.push(
    `${place}${"  ".repeat(depth)}${label}${isMarked ? paint.bold(kind) : kind}${code}${isMarked ? paint.bold("  ◀") : ""}`,
  );
  for (const child of node.children) {
    if (tokens || child.named || child.same(marked)) show(child, depth + 1, view);
  }
}

function clip(code: string): string {
  const line = code.replace(/\s+/g, " ");
  return line.length > LONGEST ? line.slice(0, LONGEST - 1) + "…" : line;
}

function asData(node: SyntaxNode, tokens: boolean): object {
  const children = node.children
    .filter((child) => tokens || child.named)
    .map((child) => asData(child, tokens));
  return {
    kind: node.kind,
    ...(node.field ? { field: node.field } : {}),
    start: node.start,
    end: node.end,
    ...(children.length > 0 ? { children } : { text: node.text }),
  };
}
