import { unknown } from "../../analysis/index.js";
import type { Need, Snippet } from "../../pattern/index.js";
import { named } from "../../readings/index.js";
import type { LanguageId, SyntaxNode } from "../../syntax/index.js";
import { inside, type Narrowing } from "../around.js";
import { condition } from "../condition.js";
import { not } from "../conditions.js";
import { rule, type Rule } from "../rule.js";
import type { Trial } from "../trial.js";
import type { ChangeRow } from "./row.js";

/** A row that rewrites calls and the like of a name, and what it calls that name. */
export interface Going {
  readonly row: ChangeRow;
  readonly shown: string;
  readonly what: Need;
  readonly old: Snippet;
  readonly now: Snippet | undefined;
  /** Is the name in the new code too? */
  readonly stays: boolean;
}

/**
 * A rule that reports the uses of a name, of which no row says what they become. Where the name goes, that is each: handed on
 * instead of called, or called in another way. Where it stays, it is each call whose arguments cannot be seen. Nothing of them
 * would be said otherwise.
 */
export function otherUsesRule(id: string, language: LanguageId, going: readonly [Going, ...Going[]]): Rule {
  const [{ row, shown, what }] = going;
  const { link, since } = row;
  const stays = going.some((one) => one.stays);
  const notes = [...new Set(going.map((one) => one.row.note))].join(" ");
  const trial: Trial = { language, was: row.example.old, now: row.example.old };
  const code = going.flatMap(({ old, now }) => (stays && now ? [old, now] : [old]));
  return rule({
    id,
    kind: row.kind,
    title: `\`${shown}\` is used in a way that the table of changes does not speak of`,
    why: notes,
    ...(link === undefined ? {} : { link }),
    ...(since === undefined ? {} : { since }),
    was: named(what),
    where: [
      ...code.map((one) => not(inside(one))),
      ...(stays ? [isBlindCall(going.map((one) => one.row.old))] : []),
    ],
    given: stays ? [mayBeOld] : [],
    advice: stays
      ? `What \`${shown}\` is given cannot be seen here: ${notes}`
      : `\`${shown}\` goes, and no row of the table fits this use of it: ${notes}`,
    // The example is what a row speaks of, so there is nothing to report in it.
    trials: [trial],
  });
}

const mayBeOld = condition("the call is written in the old way", ({ node }) =>
  unknown("form.fits", "whether the call is written in the old way is not known", node),
);

/**
 * Is it a call with an argument that stands for several, or one with something else where all the rows write an object or a
 * list out, or with the keys of a row in another order?
 */
function isBlindCall(olds: readonly string[]): Narrowing {
  const written = olds.map(argumentsIn);
  return ({ node }) => {
    const { calls, argumentLists, spreads, stores } = node.tree.language;
    const call = node.parent?.is(calls) && node.parent.firstPart?.same(node) ? node.parent : undefined;
    const list = call?.parts.find((part) => part.is(argumentLists));
    if (!list) return false;
    const isSpread = (part: SyntaxNode): boolean =>
      part.is(spreads) || (part.is(stores) && part.parts.some((one) => one.is(spreads)));
    const isWrittenOut = (i: number): boolean => written.every((one) => /^[[{]/.test(one[i] ?? ""));
    const hasKeys = (part: SyntaxNode, i: number): boolean =>
      written.some(
        (one) =>
          keysIn(one[i] ?? "").length > 1 && keysIn(one[i]!).every((key) => keysOf(part).includes(key)),
      );
    return list.parts.some(
      (part, i) => isSpread(part) || (isWrittenOut(i) && (!part.is(stores) || hasKeys(part, i))),
    );
  };
}

/** The arguments of the first call in the code of a row. */
function argumentsIn(code: string): string[] {
  const found = [""];
  let depth = 0;
  for (const sign of code.slice(code.indexOf("(") + 1)) {
    if (depth === 0 && (sign === ")" || sign === ",")) {
      if (sign === ")") break;
      found.push("");
      continue;
    }
    if (/[([{]/.test(sign)) depth++;
    if (/[)\]}]/.test(sign)) depth--;
    found[found.length - 1] += sign;
  }
  return found.map((one) => one.trim());
}

/** The keys of an object in the code of a row. */
const keysIn = (code: string): string[] =>
  [...code.matchAll(/(?<=[{,]\s*)[\w$]+(?=\s*:)/g)].map(([key]) => key);

/** The keys of an object that is written out. */
const keysOf = (object: SyntaxNode): string[] =>
  object.parts.map((part) => (part.isLeaf ? part.text : (part.firstPart?.text ?? "")));
