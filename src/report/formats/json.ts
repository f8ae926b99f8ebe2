import type { Stock } from "../stock/stock.js";
import type { Survey } from "../survey.js";
import type { Heading } from "./format.js";

/** A survey for programs, and for a later one to be compared with. `made` is the day, as `2031-03-14`. */
export function jsonReport(
  found: Survey,
  stock: Stock,
  { journey, compared }: Heading,
  made: string,
): string {
  const places = found.changes.map(
    ({ id, rules, kind, trust, path, line, range, title, evidence, cautions }) => {
      return { id, rules, kind, trust, path, line, range, title, evidence, cautions };
    },
  );
  const { filesRead, heldBack, advice, unparsed, idleKeeps, unreadable, skipped, notCovered } = found;
  const { silenced, versions, failures, unread } = found;
  const { all, bySteps, byKind, byRule, byFolder, byOwner, effort } = stock;
  const rest = {
    heldBack,
    advice,
    silenced,
    versions,
    unparsed,
    unread,
    failures,
    idleKeeps,
    unreadable,
    skipped,
    notCovered: Object.fromEntries(notCovered),
    journey,
    compared,
    stock: { all, bySteps, byKind, byRule, byFolder, byOwner, effort },
  };
  return JSON.stringify({ made, filesRead, places, ...rest }, null, 1) + "\n";
}
