import { textAfter } from "../engine/index.js";
import type { Rule, Trial } from "../rules/index.js";
import { countErrors, type NodeId, type SyntaxTree } from "../syntax/index.js";
import type { Instance } from "./instances.js";
import { engineFor, type DraftPlace, type Source } from "./probe.js";
import { endOf, listKind, startOf } from "./run.js";

/** Code of more lines than this is no trial that somebody reads. */
const MOST_LINES = 30;

/**
 * The edits as trials of a rule: the code around each of them, as small as it still means the same to the rule; and places
 * that the rule finds and leaves alone. What a trial expects is what the rule does there, which was found to be what the
 * author did.
 */
export async function trialsFor(
  made: Rule,
  instances: readonly Instance[],
  held: readonly DraftPlace[],
  sources: readonly Source[],
): Promise<Trial[]> {
  const trials: Trial[] = [];
  const add = (trial: Trial | undefined): void => {
    if (trial && !trials.some(({ was }) => was === trial.was)) trials.push(trial);
  };
  for (const { before } of instances) {
    const sure = ["certain", "likely", "possible"];
    let best: Trial | undefined;
    for (const was of surroundings(before.tree, startOf(before), endOf(before))) {
      const trial = await rewritten(made, was, before.tree);
      const isSurer =
        trial && (!best || sure.indexOf(trial.trust ?? "possible") < sure.indexOf(best.trust ?? "possible"));
      if (isSurer) best = trial;
    }
    add(best);
  }
  for (const { path, start, end, reason } of held) {
    const source = sources.find((one) => one.path === path);
    if (!source || reason === undefined || trials.length > instances.length + 4) continue;
    const tree = instances[0]!.before.tree.text === source.text ? instances[0]!.before.tree : undefined;
    const was = tree ? [...surroundings(tree, start, end)][0] : undefined;
    if (was === undefined) continue;
    const result = await engineFor(made).file(fileOf(tree!), was);
    const said = result?.heldBack[0]?.reason;
    if (said !== undefined && result?.changes.length === 0)
      add({ language: tree!.language.id, was, now: was, because: said });
  }
  return trials;
}

const fileOf = ({ language }: SyntaxTree): string => `trial${language.extensions[0]!}`;

async function rewritten(made: Rule, was: string, tree: SyntaxTree): Promise<Trial | undefined> {
  if (countErrors(was, tree.language) > 0) return undefined;
  const result = await engineFor(made).file(fileOf(tree), was);
  const [first, ...more] = result?.changes ?? [];
  if (!first) return undefined;
  const trust = more.every((one) => one.trust === first.trust) ? { trust: first.trust } : {};
  const now = await textAfter(fileOf(tree), was, [first, ...more]);
  // A trial's first line break is that of the template it stands in.
  if (now.startsWith("\n") || now.trim() === "") return undefined;
  return { language: tree.language.id, was, now, ...trust };
}

/** Pieces of a file with a place in them, from the statement around it to the whole; imports stay ahead. */
function* surroundings(tree: SyntaxTree, start: number, end: number): Generator<string> {
  const { language } = tree;
  const imports = language.imports
    .read(tree)
    .map(({ node }) => tree.textOf(node.id).trimEnd())
    .join("\n");
  const header = /^\s*<\?php\b/.test(tree.text) ? "<?php\n" : "";
  let last = "";
  for (let n: NodeId = tree.nodeAt(start, end).id; n > 0; n = tree.parents[n]!) {
    const parent = tree.parents[n]!;
    const isListed = parent >= 0 && ["statements", "members"].includes(listKind(tree, parent) ?? "");
    if (!isListed && parent !== 0) continue;
    const text = dedented(tree.indentAt(tree.starts[n]!) + tree.textOf(n).trimEnd());
    if (text.split("\n").length > MOST_LINES || text === last) continue;
    last = text;
    yield `${header}${text}\n`;
    if (imports !== "" && !text.includes(imports)) yield `${header}${imports}\n\n${text}\n`;
  }
  yield tree.text;
}

/** Code without the indentation that all its lines have. */
export function dedented(code: string): string {
  const lines = code.replace(/\r\n/g, "\n").split("\n");
  const depths = lines
    .filter((line) => line.trim() !== "")
    .map((line) => line.length - line.trimStart().length);
  const least = Math.min(...depths);
  return lines.map((line) => line.slice(Math.min(least, line.length - line.trimStart().length))).join("\n");
}
