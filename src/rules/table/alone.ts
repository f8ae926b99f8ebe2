import { no, unknown, yes, type Answer } from "../../analysis/index.js";
import { condition } from "../condition.js";
import type { Match } from "../match.js";

/** Is the new code of a row several statements? */
export function isSeveral(code: string): boolean {
  return code
    .trim()
    .split("\n")
    .some((line, i) => i > 0 && /^[^\s)\]},.;]/.test(line));
}

/** Several statements take the place of one that stands alone, and whose value nobody asks for. */
export const standsAlone = condition("it is a statement of its own", valueUnused, {
  // A pattern that is a statement itself is settled where its place is looked at.
  when: ({ found }) => !found.isStatements,
});

function valueUnused({ node }: Match): Answer {
  const { expressionStatement, statementLists } = node.tree.language;
  const statement = node.parent?.is(expressionStatement) ? node.parent : node;
  const list = statement.parent;
  if (!list?.is(statementLists))
    return no(
      "value.result",
      `the value of \`${node.text}\` is used, and several statements have none`,
      node,
    );
  const givesLast = expressionStatement === "" && list.parts.at(-1)?.same(statement);
  return givesLast
    ? unknown("value.result", `\`${node.text}\` may be what the code around gives back`, node)
    : yes("value.result", "nobody asks for its value");
}
