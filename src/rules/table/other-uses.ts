import type { Need, Snippet } from "../../pattern/index.js";
import { named } from "../../readings/index.js";
import type { LanguageId } from "../../syntax/index.js";
import { inside } from "../around.js";
import { not } from "../conditions.js";
import { rule, type Rule } from "../rule.js";
import type { Trial } from "../trial.js";
import type { ChangeRow } from "./row.js";

/** A row that rewrites calls and the like of a name that goes, and what it calls that name. */
export interface Going {
  readonly row: ChangeRow;
  readonly shown: string;
  readonly what: Need;
  readonly old: Snippet;
}

/**
 * A rule that reports the uses of a name that goes, of which no row says what they become: handed on instead of called, or
 * called in another way. Nothing of them would be seen otherwise.
 */
export function otherUsesRule(id: string, language: LanguageId, going: readonly [Going, ...Going[]]): Rule {
  const [{ row, shown, what }] = going;
  const { link, since } = row;
  const notes = [...new Set(going.map((one) => one.row.note))].join(" ");
  const trial: Trial = { language, was: row.example.old, now: row.example.old };
  return rule({
    id,
    kind: row.kind,
    title: `\`${shown}\` is used in a way that the table of changes does not speak of`,
    why: notes,
    ...(link === undefined ? {} : { link }),
    ...(since === undefined ? {} : { since }),
    was: named(what),
    where: going.map(({ old }) => not(inside(old))),
    advice: `\`${shown}\` goes, and no row of the table fits this use of it: ${notes}`,
    // The example is what a row speaks of, so there is nothing to report in it.
    trials: [trial],
  });
}
