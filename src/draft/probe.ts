import { Engine, fitting, type Change, type FileResult } from "../engine/index.js";
import { applyEdits, type Edit } from "../rewrite/index.js";
import { rule, type Match, type Rule, type RuleSpec, type Trust } from "../rules/index.js";
import {
  importStatements,
  offsetOf,
  parse,
  unwrapped,
  type Language,
  type NodeId,
  type SyntaxTree,
} from "../syntax/index.js";
import type { Edited, Instance } from "./instances.js";
import type { Keys } from "./keys.js";
import { endOf, startOf, type Run } from "./run.js";

/** A file in whose code a draft is tried. */
export interface Source {
  readonly path: string;
  readonly text: string;
  readonly language: Language;
}

/** A place that a drafted rule fits. */
export interface DraftPlace {
  readonly path: string;
  readonly line: number;
  /** Offsets of the code it caught. */
  readonly start: number;
  readonly end: number;
  /** The first line of that code. */
  readonly code: string;
  /** Undefined where the change is held back. */
  readonly trust: Trust | undefined;
  readonly reason?: string;
}

/** Is what a rule makes of the old code of each instance what the author made of it? */
export async function doesTheSame(made: Rule, instances: readonly Instance[], keys: Keys): Promise<boolean> {
  const engine = engineFor(made);
  const results = new Map<Edited, FileResult | undefined>();
  for (const instance of instances) {
    const { file } = instance;
    if (!results.has(file)) results.set(file, await engine.file(file.path, file.before.text));
    if (!isSameFor(instance, results.get(file), keys)) return false;
  }
  return true;
}

function isSameFor({ file, before, after }: Instance, result: FileResult | undefined, keys: Keys): boolean {
  const { text } = file.before;
  const [start, end] = [startOf(before), endOf(before)];
  const isHere = (change: Change): boolean =>
    change.edits.some((edit) => edit.start <= end && edit.end >= start);
  const edits = (result?.changes ?? []).filter(isHere).flatMap((change) => change.edits);
  if (edits.length === 0) return false;
  // What stands around in the file is the same in both.
  const around = outermostAround(before, edits);
  const inside = (all: readonly Edit[]): string =>
    applyEdits(
      text.slice(around.start, around.end),
      all.map((edit) => ({ ...edit, start: edit.start - around.start, end: edit.end - around.start })),
    );
  const [from, to] = withBrackets(before);
  const [first, last] = withBrackets(after);
  const wanted = inside([{ start: from, end: to, text: after.tree.text.slice(first, last) }]);
  const [a, b] = [inside(edits), wanted].map((code) => said(parse(code, before.tree.language), keys));
  return a === b;
}

/** The statements of the file, with all that stands in them, in which a run and some edits stand. */
export function outermostAround(
  run: Run,
  edits: readonly Edit[],
): { readonly start: number; readonly end: number } {
  const { tree } = run;
  const start = Math.min(startOf(run), ...edits.map((edit) => edit.start));
  const end = Math.max(endOf(run), ...edits.map((edit) => edit.end));
  const all = tree.children(0);
  const isMasked = tree.masks.length > 0 || tree.text.startsWith("<?");
  const first = all.findLast((n) => tree.starts[n]! <= start && tree.isNamed(n));
  const last = all.find((n) => tree.ends[n]! >= end && tree.isNamed(n));
  if (isMasked || first === undefined || last === undefined) return { start: 0, end: tree.text.length };
  return { start: tree.starts[first]!, end: tree.ends[last]! };
}

/** The range of a run, with parentheses that stand around it alone. */
function withBrackets(run: Run): readonly [start: number, end: number] {
  const { tree, nodes } = run;
  let [n] = nodes;
  if (n === undefined) return [0, 0];
  if (nodes.length > 1) return [startOf(run), endOf(run)];
  const inner = unwrapped(tree, n);
  while (tree.parents[n]! >= 0 && unwrapped(tree, tree.parents[n]!) === inner) n = tree.parents[n]!;
  return [tree.starts[n]!, tree.ends[n]!];
}

/** Newer than any version. */
const ANY_VERSION = "9999";

/**
 * An engine for code that runs on a version; without one it may be as new as it likes: the author of an edit has written the new
 * code, so it is no question whether it may be written.
 */
export function engineFor(made: Rule, version = ANY_VERSION): Engine {
  return new Engine([made], targetsOf(version));
}

const targetsOf = (version: string) => ({ targets: { targetOf: () => ({ version, says: "by the edit" }) } });

/** What a file says beside its imports. */
function said(tree: SyntaxTree, keys: Keys): string {
  const imports = importStatements(tree).map(({ node }) => node.id);
  const isImport = (n: NodeId): boolean =>
    imports.some((id) => n <= id && id < tree.after[n]! && tree.textOf(n).trim() === tree.textOf(id).trim());
  return tree
    .children(0)
    .filter((n) => !isImport(n) && !tree.language.comments.includes(tree.kind(n)))
    .map((n) => keys.of(tree, n))
    .join(" ");
}

/** All places in some files that a rule fits, in their order. */
export async function placesOf(made: Rule, sources: readonly Source[]): Promise<DraftPlace[]> {
  const engine = engineFor(made);
  const found: DraftPlace[] = [];
  for (const { path, text } of sources) {
    if (!(await engine.mayMatch(path, (word) => text.includes(word)))) continue;
    const result = await engine.file(path, text);
    const all = [
      ...(result?.changes ?? []).map(({ line, range, trust }) => ({ line, range, trust })),
      ...(result?.heldBack ?? []).map(({ line, range, reason }) => ({
        line,
        range,
        reason,
        trust: undefined,
      })),
    ].sort((a, b) => a.line - b.line || a.range.start.column - b.range.start.column);
    const lines = text.split("\n");
    for (const { range, ...one } of all)
      found.push({
        path,
        ...one,
        start: offsetOf(text, range.start),
        end: offsetOf(text, range.end),
        code: (lines[one.line - 1] ?? "").trim(),
      });
  }
  return found;
}

/** The matches of a rule at the given places, as its conditions see them. */
export async function matchesOf(
  spec: RuleSpec,
  sources: readonly Source[],
): Promise<{ readonly path: string; readonly match: Match }[]> {
  const found: { path: string; match: Match }[] = [];
  const made = rule(spec);
  for (const { path, text } of sources)
    for (const { match } of await fitting([made], path, text, targetsOf(ANY_VERSION)))
      found.push({ path, match });
  return found;
}
