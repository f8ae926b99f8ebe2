import { condition, copy, holes, indentUnit, ofKind, rule, text, trialsIn, yes } from "../../../core.js";
import type { Match, Segment, SyntaxNode } from "../../../core.js";
import { mostInLine } from "../../family/limits.js";

const { chain } = holes({ chain: { kind: "expression", node: "call" } });

const LEAST_STEPS = 3;

/** The calls of a chain, from the first to the last: each a method of what the one before gives. */
function stepsOf(node: SyntaxNode): SyntaxNode[] {
  const steps: SyntaxNode[] = [];
  let at: SyntaxNode | undefined = node;
  while (at?.is(["call", "attribute", "subscript"])) {
    if (at.is("call")) steps.unshift(at);
    const inner: SyntaxNode | undefined = at.is("call") ? at.child("function") : at.firstPart;
    if (at.is("call") && !inner?.is("attribute")) break;
    at = inner;
  }
  return steps.filter((step) => step.child("function")!.is("attribute"));
}

/** The whole of a value that a statement assigns, returns or throws away. */
const isWhole = ({ parent, field }: SyntaxNode): boolean =>
  parent?.is(["return_statement", "expression_statement"]) === true ||
  (parent?.is("assignment") === true && field === "right");

/** How long the line of a statement is without what stands behind it, in characters. */
const lengthOf = ({ node, tree }: Match): number => tree.placeAt(node.end).column - 1;

const isTooLong = (match: Match): boolean => lengthOf(match) > mostInLine(match);

/** Each step on a line of its own, in parentheses. */
function broken(match: Match): Segment[] {
  const { tree, node } = match;
  const base = tree.indentAt(node.start);
  const deeper = base + indentUnit(tree, base);
  // The first call stays beside a name that it is called on.
  const [first, ...rest] = stepsOf(node);
  const object = first!.child("function")!.child("object")!;
  const edits = (object.is("identifier") ? rest : [first!, ...rest]).map((step) => {
    const dot = tree.text.lastIndexOf(".", step.child("function")!.child("attribute")!.start);
    return { start: dot, end: dot, text: `\n${deeper}` };
  });
  return [text(`(\n${deeper}`), copy(node.start, node.end, edits), text(`\n${base})`)];
}

const { rewrites, ignores } = trialsIn("python");
const LONG = "frame.groupby('keeper_of_the_hive').agg({'kg': 'sum'}).reset_index().head(10)";
const APART =
  "frame.groupby('keeper_of_the_hive')\n    .agg({'kg': 'sum'})\n    .reset_index()\n    .head(10)";

export const longChain = rule({
  id: "python/long-chain",
  kind: "idiom",
  title: "Break a long chain of calls over lines",
  why: "One step on each line can be read from top to bottom, and changed without touching the others.",
  taste: true,
  was: ofKind(chain, {
    when: (node) => isWhole(node) && !node.text.includes("\n") && stepsOf(node).length >= LEAST_STEPS,
  }),
  where: [isTooLong],
  given: [
    condition("the line is too long", (match) =>
      yes(
        "form.fits",
        `the line has ${lengthOf(match)} characters, and ${mostInLine(match)} are usual`,
        match.node,
      ),
    ),
  ],
  becomes: broken,
  trials: [
    rewrites(`heaviest = ${LONG}\n`, `heaviest = (\n    ${APART}\n)\n`),
    rewrites(
      `def f(frame):\n    return ${LONG}\n`,
      `def f(frame):\n    return (\n        ${APART.replaceAll("\n", "\n    ")}\n    )\n`,
    ),
    rewrites(
      `rows = load('the hives of the cooperative.csv').rename(a=1).sort_values('kilograms').head(3)\n`,
      `rows = (\n    load('the hives of the cooperative.csv')\n    .rename(a=1)\n    .sort_values('kilograms')\n    .head(3)\n)\n`,
    ),
    rewrites(`rows = ${LONG}  # the ten heaviest\n`, `rows = (\n    ${APART}\n)  # the ten heaviest\n`),
    ignores("heaviest = frame.groupby('keeper').agg({'kg': 'sum'}).head(10)\n"),
    ignores(`heaviest = (${LONG})\n`),
    ignores(
      "x = f.a().b().c().d()  # a remark that makes the line longer than all others, and no code at all\n",
    ),
    ignores(`show(${LONG})\n`),
    ignores(
      "text = make_a_rather_long_name_of_a_function('one two three four five six seven eight nine ten').upper()\n",
    ),
    ignores(
      "heaviest = frame.groupby('keeper_of_the_hive').agg({\n    'kg': 'sum'}).reset_index().sort_values('kg').head(10)\n",
    ),
  ],
});
