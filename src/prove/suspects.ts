import { join } from "node:path/posix";
import type { Check } from "../node/index.js";
import { editsFor } from "../engine/index.js";
import { byPath, pathsOf, plannedText, type PlanChange, type TextOf } from "../plan/index.js";
import type { Place } from "./messages.js";

/** What places in new code point at. */
export interface Suspects {
  /**
   * Changes whose new lines a place is in, or that make the name which the message speaks of, or that alone make a name which
   * the line uses; with what is said of these.
   */
  readonly exact: ReadonlyMap<PlanChange, readonly string[]>;
  /** Changes that make names which are used at a place; all of the file where there are none. */
  readonly near: ReadonlySet<PlanChange>;
}

/** The changes that places in new code point at. `folder` is the one that paths are relative to, beside the root. */
export async function suspectsOf(
  places: readonly Place[],
  changes: readonly PlanChange[],
  textOf: TextOf,
  folder: string,
): Promise<Suspects> {
  const exact = new Map<PlanChange, string[]>();
  const near = new Set<PlanChange>();
  const parts = byPath(changes);
  const byId = new Map(changes.map((change) => [change.id, change]));
  for (const [path, own] of parts) {
    const here = places.filter((place) => isPathOf(place.file, path, folder));
    const text = here.length > 0 ? textOf(path) : undefined;
    if (text === undefined) continue;
    const lines = new NewLines(await plannedText(path, text, own), await newLines(path, text, own), own);
    for (const { line, says } of here) {
      const about = lines.mostLike(lines.naming(lines.wordsAt(line), line), quotedWords(says ?? ""));
      const hits = [
        lines.at(line),
        lines.naming(quotedIn(says ?? ""), line),
        about.length === 1 ? about : [],
      ];
      const named = hits.find(({ length }) => length > 0) ?? [];
      for (const { id } of named) {
        const change = byId.get(id)!;
        exact.set(change, [...(exact.get(change) ?? []), ...(says === undefined ? [] : [says])]);
      }
      if (named.length > 0) continue;
      for (const { id } of about.length > 0 ? about : own) near.add(byId.get(id)!);
    }
  }
  return { exact, near };
}

/** Names that a message puts into quotes. */
const quotedIn = (says: string): string[] =>
  [...says.matchAll(/[‘'"`](?<name>[\p{L}_$][\p{L}\p{N}_$]*)[’'"`]|\bvariable (?<variable>\w+)/gu)].map(
    ({ groups }) => (groups!["name"] ?? groups!["variable"])!,
  );
/** All words that a message puts into quotes: of types too. */
const quotedWords = (says: string): Set<string> =>
  new Set([...says.matchAll(/[‘'"`]([^‘’'"`]*)[’'"`]/gu)].flatMap((match) => wordsOf(match[1]!)));
/** A word in more than this share of the changed lines says nothing of any. */
const COMMON = 0.2;

/** The changed lines of a file in its new text. */
class NewLines {
  readonly #lines: readonly string[];
  readonly #spans: ReadonlyMap<string, readonly (readonly [number, number])[]>;
  readonly #changes: readonly PlanChange[];
  /** By the words in changed lines: the changes, with their first lines. */
  readonly #byWord = new Map<string, { readonly from: number; readonly change: PlanChange }[]>();

  constructor(
    text: string,
    spans: ReadonlyMap<string, readonly (readonly [number, number])[]>,
    changes: readonly PlanChange[],
  ) {
    this.#lines = text.split("\n");
    this.#spans = spans;
    this.#changes = changes;
    for (const change of changes)
      for (const [from, to] of spans.get(change.id) ?? [])
        for (const word of new Set(this.#lines.slice(from - 1, to).flatMap(wordsOf)))
          this.#byWord.set(word, [...(this.#byWord.get(word) ?? []), { from, change }]);
  }

  /** The changes whose lines one is among. */
  at(line: number): PlanChange[] {
    return this.#changes.filter(({ id }) =>
      this.#spans.get(id)?.some(([from, to]) => from <= line && line <= to),
    );
  }

  wordsAt(line: number): string[] {
    return wordsOf(this.#lines[line - 1] ?? "");
  }

  /** Those of some changes in whose lines most of some words are. */
  mostLike(changes: readonly PlanChange[], words: ReadonlySet<string>): readonly PlanChange[] {
    if (changes.length < 2) return changes;
    const scores = changes.map(({ id }) => {
      const lines = (this.#spans.get(id) ?? []).flatMap(([from, to]) => this.#lines.slice(from - 1, to));
      return new Set(lines.flatMap(wordsOf).filter((word) => words.has(word))).size;
    });
    const most = Math.max(...scores);
    return changes.filter((_, i) => scores[i] === most);
  }

  /** For each of some names the last change ahead of a line that has it in its lines. */
  naming(names: readonly string[], line: number): PlanChange[] {
    const found = names.flatMap((name) => {
      const known = this.#byWord.get(name) ?? [];
      if (known.length > 2 && known.length > COMMON * this.#changes.length) return [];
      const ahead = known.filter(({ from }) => from <= line);
      return ahead.length === 0 ? [] : [ahead.reduce((a, b) => (b.from > a.from ? b : a)).change];
    });
    return [...new Set(found)];
  }
}

function wordsOf(line: string): string[] {
  return line.match(/[\p{L}_$][\p{L}\p{N}_$]*/gu) ?? [];
}

/** The changes in folders that a check names in its command, or that it runs in. */
export function namedBy({ run, in: folder = "" }: Check, changes: readonly PlanChange[]): Set<PlanChange> {
  const words = new Set([...run.split(/[^\p{L}\p{N}_.-]+/u), folder.split("/")[0]!]);
  return new Set(
    changes.filter((change) =>
      pathsOf(change).some((path) => path.includes("/") && words.has(path.split("/")[0]!)),
    ),
  );
}

/** The files of the changes that places are in; undefined where one of them is in no such file. */
export function filesOf(
  places: readonly Place[],
  changes: readonly PlanChange[],
  folder: string,
): Set<string> | undefined {
  const paths = [...new Set(changes.flatMap(pathsOf))];
  const found = new Set<string>();
  for (const { file } of places) {
    const path = paths.find((one) => isPathOf(file, one, folder));
    if (path === undefined) return undefined;
    found.add(path);
  }
  return found;
}

function isPathOf(named: string, path: string, folder: string): boolean {
  return named === path || named === `./${path}` || join(folder, named) === path;
}

/** For each change of a file the stretches of lines in the new text that its edits make, counted from 1. */
async function newLines(
  path: string,
  text: string,
  changes: readonly PlanChange[],
): Promise<Map<string, [number, number][]>> {
  const result = new Map<string, [number, number][]>();
  let line = 1;
  let at = 0;
  for (const { start, end, text: added } of await editsOf(path, text, changes)) {
    line += breaks(text.slice(at, start));
    const last = line + breaks(added);
    // An edit may be several changes' where imports stand between them.
    for (const { id, edits } of changes)
      if (edits.some((edit) => edit.start >= start && edit.end <= end))
        result.set(id, [...(result.get(id) ?? []), [line, last]]);
    line = last;
    at = end;
  }
  return result;
}

async function editsOf(
  path: string,
  text: string,
  changes: readonly PlanChange[],
): ReturnType<typeof editsFor> {
  const edits = await editsFor(path, text, changes);
  return [...edits].sort((a, b) => a.start - b.start || a.end - b.end);
}

function breaks(text: string): number {
  return text.split("\n").length - 1;
}

/** Numbers for the changes: the same where they have files in common, directly or over others. */
export function cellsOf(changes: readonly PlanChange[]): number[] {
  const parent = changes.map((_, i) => i);
  const rootOf = (i: number): number => (parent[i] === i ? i : (parent[i] = rootOf(parent[i]!)));
  const first = new Map<string, number>();
  for (const [i, change] of changes.entries())
    for (const path of pathsOf(change)) {
      const known = first.get(path);
      if (known === undefined) first.set(path, i);
      else parent[rootOf(i)] = rootOf(known);
    }
  return changes.map((_, i) => rootOf(i));
}
