import { unknown } from "../../analysis/index.js";
import { placesOfWord, textWord } from "../../readings/index.js";
import { copy, text, type Segment } from "../../rewrite/index.js";
import { condition, type Condition } from "../condition.js";
import type { Match } from "../match.js";
import { RuleError, type RuleSpec } from "../rule.js";
import { needsIn } from "./code-text.js";
import { cell } from "./read-row.js";
import type { ChangeRow, Table } from "./row.js";

/** What a word in a text means is only told by its look. */
const meansIt = (word: string): Condition =>
  condition("the word means what the table speaks of", ({ node }) =>
    unknown("name.reflection", `\`${word}\` is a word in a text, and only its look says what it means`, node),
  );

/** What a row looks for and writes that speaks of words in texts. Throws a RuleError for a name that `from` does not have. */
export function textRow(
  { old, new: now, from = "", inText = "" }: ChangeRow,
  { module }: Table,
  where: string,
): Pick<RuleSpec, "was" | "given" | "becomes"> {
  const needs = cell(where, "from", () => needsIn(from, module));
  const takers = inText.split(",").map((name) => {
    const found = needs.get(name.trim());
    if (!found) throw new RuleError(`${where}, inText: "${name.trim()}" is not in \`from\``);
    return found;
  });
  return {
    was: textWord(old, takers),
    given: [meansIt(old)],
    ...(now === undefined ? {} : { becomes: (match: Match) => withWord(match, old, now) }),
  };
}

function withWord({ node }: Match, old: string, now: string): Segment[] {
  const segments: Segment[] = [];
  let at = node.start;
  for (const { start, end } of placesOfWord(node, old)) {
    segments.push(copy(at, start), text(now));
    at = end;
  }
  return [...segments, copy(at, node.end)];
}
