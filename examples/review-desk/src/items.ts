import { standsAs, type PlanChange, type Standing } from "uvran/core";
import type { Item } from "./List.js";
import { groupOf, tailOf, TRUST_SIGN, WORDS, type Advice, type HeldBack, type View } from "./model.js";

const lines = new WeakMap<object, Map<string, string[]>>();

/** The first line of the code of a change, without its indentation. */
export function firstLineOf(texts: Readonly<Record<string, string>>, { path, line }: PlanChange): string {
  const known = lines.get(texts) ?? new Map<string, string[]>();
  lines.set(texts, known);
  const own = known.get(path) ?? (texts[path] ?? "").split("\n");
  known.set(path, own);
  return (own[line - 1] ?? "").trim();
}

/** A change as a line of the list. */
export function itemOf(change: PlanChange, standing: Standing, { by }: View, code: string): Item {
  const mark = standsAs(standing);
  return {
    id: change.id,
    group: by === "file" ? tailOf(change.path) : groupOf(change, by),
    sign: TRUST_SIGN[change.trust],
    kind: change.trust,
    mark,
    said: mark === "open" ? "" : mark === "again" ? "decide again" : WORDS[mark].toLowerCase(),
    first: by === "rule" ? code : change.title,
    second: by === "file" ? `${change.line}: ${code}` : `${tailOf(change.path)}:${change.line}`,
  };
}

/** A place as a line of the list. */
export function itemOfPlace(place: HeldBack | Advice, standing: Standing): Item {
  const { decision } = standing;
  return {
    id: place.id,
    group: tailOf(place.path),
    sign: "reason" in place ? "⊘" : "i",
    kind: "held",
    mark: decision ?? "open",
    said: decision === undefined ? "" : WORDS[decision].toLowerCase(),
    first: "reason" in place ? place.reason : place.title,
    second: `line ${place.line} · ${place.rule}`,
  };
}
