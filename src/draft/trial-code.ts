import { Engine, textAfter } from "../engine/index.js";
import { dedented } from "../rewrite/index.js";
import { assumedVersions, isAtLeast, TRUSTS, type Rule, type Trial, type Trust } from "../rules/index.js";
import {
  countErrors,
  noveltiesIn,
  parseFile,
  type Language,
  type NodeId,
  type SyntaxTree,
} from "../syntax/index.js";
import type { Instance } from "./instances.js";
import { engineFor, type DraftPlace, type Source } from "./probe.js";
import { endOf, listKind, startOf, type Run } from "./run.js";

/** Code of more lines than this is no trial that somebody reads. */
const MOST_LINES = 30;

/** So many places that the rule leaves alone become trials. */
const MOST_HELD = 4;

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
  const target = await targetFor(made, instances);
  const trials: Trial[] = [];
  const add = (trial: Trial | undefined): void => {
    if (trial && !trials.some(({ was }) => was === trial.was)) trials.push(trial);
  };
  for (const { before } of instances) add(await surest(made, before, target));
  for (const { path, start, end } of held.slice(0, MOST_HELD)) {
    const source = sources.find((one) => one.path === path)!;
    const [was = ""] = surroundings(parseFile(source.text, source.language), start, end);
    const result = await engineOf(made, target).file(fileOf(source.language), was);
    const [because] = result?.heldBack ?? [];
    if (because && result?.changes.length === 0)
      add({ language: source.language.id, ...versioned(target), was, now: was, because: because.reason });
  }
  return trials;
}

const versioned = (target: string | undefined) => (target === undefined ? {} : { target });

/** An engine as a trial has it. */
const engineOf = (made: Rule, target: string | undefined): Engine =>
  target === undefined ? new Engine([made], { targets: assumedVersions }) : engineFor(made, target);

/** The version that the new code needs, where it is newer than what every project is taken to run on. */
async function targetFor(made: Rule, instances: readonly Instance[]): Promise<string | undefined> {
  let newest: string | undefined;
  for (const { file, after } of instances) {
    if ((await new Engine([made]).file(file.path, file.before.text))?.changes.length) continue;
    const here = after.nodes.flatMap((n) =>
      noveltiesIn(after.tree, after.tree.starts[n], after.tree.ends[n]),
    );
    for (const { since } of here) if (newest === undefined || isAtLeast(since, newest)) newest = since;
  }
  return newest;
}

/** The trial around an edit of which the rule is surest; of several the smallest. */
async function surest(made: Rule, run: Run, target: string | undefined): Promise<Trial | undefined> {
  let best: (Trial & { readonly trust: Trust }) | undefined;
  for (const was of surroundings(run.tree, startOf(run), endOf(run))) {
    const trial = await rewritten(made, was, run.tree.language, target);
    if (trial && (!best || TRUSTS.indexOf(trial.trust) < TRUSTS.indexOf(best.trust))) best = trial;
  }
  return best;
}

const fileOf = ({ extensions }: Language): string => `trial${extensions[0]!}`;

/** A trial of what a rule makes of some code; undefined where it makes nothing of it, or is not equally sure of all of it. */
async function rewritten(
  made: Rule,
  was: string,
  language: Language,
  target: string | undefined,
): Promise<(Trial & { readonly trust: Trust }) | undefined> {
  if (countErrors(was, language) > 0) return undefined;
  const result = await engineOf(made, target).file(fileOf(language), was);
  const changes = result?.changes ?? [];
  const [first] = changes;
  if (!first || changes.some(({ trust }) => trust !== first.trust)) return undefined;
  const now = await textAfter(fileOf(language), was, changes);
  // A trial's first line break is that of the template it stands in.
  if (now.startsWith("\n") || now.trim() === "") return undefined;
  return { language: language.id, ...versioned(target), was, now, trust: first.trust };
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
    const code = tree.indentAt(tree.starts[n]!) + tree.textOf(n).trimEnd();
    const text = dedented(code.replace(/\r\n/g, "\n"));
    if (text.split("\n").length > MOST_LINES || text === last) continue;
    last = text;
    yield `${header}${text}\n`;
    if (imports !== "" && !text.includes(imports)) yield `${header}${imports}\n\n${text}\n`;
  }
  yield tree.text;
}
