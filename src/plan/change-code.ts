import { hashText } from "../engine/index.js";
import type { PlanChange } from "./plan.js";

/** The text of a file as it was when the plan was made; undefined where it is not known any more. */
export type TextOf = (path: string) => string | undefined;

const codes = new WeakMap<PlanChange, string>();

/** What stands for the old and the new code of a change, wherever it stands; undefined where its files are other ones now. */
export function codeOf(change: PlanChange, textOf: TextOf): string | undefined {
  const known = codes.get(change);
  if (known !== undefined) return known;
  const { path, edits, elsewhere, needs } = change;
  const parts: [string, string][][] = [];
  for (const part of [{ path, edits }, ...elsewhere]) {
    const text = part.edits.length > 0 ? textOf(part.path) : "";
    if (text === undefined) return undefined;
    parts.push(part.edits.map((edit) => [text.slice(edit.start, edit.end), edit.text]));
  }
  const code = hashText(JSON.stringify([parts, needs])).slice(0, 16);
  codes.set(change, code);
  return code;
}
