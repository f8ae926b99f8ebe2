import { unknown } from "../../analysis/index.js";
import type { Need, Snippet } from "../../pattern/index.js";
import { named } from "../../readings/index.js";
import type { LanguageId } from "../../syntax/index.js";
import { inside } from "../around.js";
import { condition } from "../condition.js";
import { not } from "../conditions.js";
import { rule, type Rule } from "../rule.js";
import type { Trial } from "../trial.js";
import { isBlindCall } from "./blind-call.js";
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
  unknown("form.worthwhile", "whether the call is written in the old way is not known", node),
);
