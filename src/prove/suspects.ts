import { join } from "node:path/posix";
import { editsFor } from "../engine/index.js";
import { byPath, pathsOf, type PlanChange, type TextOf } from "../plan/index.js";
import type { Place } from "./messages.js";

/** What places in new code point at. */
export interface Suspects {
  /** Changes whose new lines a place is in. */
  readonly exact: ReadonlySet<PlanChange>;
  /** All changes of a file in which a place is in no change's lines. */
  readonly near: ReadonlySet<PlanChange>;
}

/** The changes that places in new code point at. `folder` is the one that paths are relative to, beside the root. */
export async function suspectsOf(
  places: readonly Place[],
  changes: readonly PlanChange[],
  textOf: TextOf,
  folder: string,
): Promise<Suspects> {
  const exact = new Set<PlanChange>();
  const near = new Set<PlanChange>();
  const parts = byPath(changes);
  const byId = new Map(changes.map((change) => [change.id, change]));
  for (const [path, own] of parts) {
    const lines = new Set(
      places.filter((place) => isPathOf(place.file, path, folder)).map(({ line }) => line),
    );
    const text = lines.size > 0 ? textOf(path) : undefined;
    if (text === undefined) continue;
    const spans = await newLines(path, text, own);
    for (const line of lines) {
      const hit = own.filter(({ id }) => spans.get(id)?.some(([from, to]) => from <= line && line <= to));
      for (const { id } of hit) exact.add(byId.get(id)!);
      if (hit.length === 0) for (const { id } of own) near.add(byId.get(id)!);
    }
  }
  return { exact, near };
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
