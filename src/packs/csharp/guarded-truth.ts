import { condition, guarded, holes, rule, takenSafely, text, trialsIn, unknown, yes } from "../../core.js";
import type { Match, Segment } from "../../core.js";
import { testedOnce } from "../family/conditions.js";
import { asksForNull, assignsNothing, mayBeExpressionTree, membersOfValue } from "./values.js";
import { typeOfMember } from "./member-types.js";

const { subject, read, fallback } = holes({
  subject: "expression",
  read: "expression",
  fallback: "expression",
});

/** How the truth of what is read is compared, so that what is missing comes out as before. */
function compared({ chain: { kind, role } }: Match): string {
  if (kind === "and") return role === "negated" ? "== false" : "== true";
  return role === "negated" ? "!= false" : "!= true";
}

const { rewrites, ignores, holds } = trialsIn("csharp");
const HIVE =
  "class Hive { public bool IsOpen; public Hive Next; public bool Has(int n) { return false; } }\n";
const inTest = (test: string): string => `${HIVE}class A { bool F(Hive h) { return ${test}; } }`;

export const guardedTruth = rule({
  id: "csharp/guarded-truth",
  kind: "idiom",
  title: "Use ?. to ask a value that may be null for a truth",
  why: "The object is written twice, once to be tested and once to be asked.",
  taste: true,
  target: "6.0",
  was: guarded(subject, read, fallback, {
    as: ["and", "or"],
    asks: ["missing"],
    roles: ["value", "negated"],
  }),
  given: [
    testedOnce(),
    asksForNull(),
    membersOfValue(),
    condition("what is read is a `bool`", ({ chain, node }) =>
      typeOfMember(chain.use) === "bool"
        ? yes("type.is", `\`${chain.use.text}\` is a \`bool\``, chain.use)
        : unknown("type.is", `\`${chain.use.text}\` could be of a type with a truth of its own`, node),
    ),
    condition("it gives no variable its value", ({ chain }) => assignsNothing(chain.use)),
    condition("the code is compiled and not read as an expression tree", (match) =>
      mayBeExpressionTree(match.node),
    ),
  ],
  becomes: (match): Segment[] => [
    ...takenSafely({ ...match.chain, last: match.chain.use }),
    text(` ${compared(match)}`),
  ],
  trials: [
    rewrites(inTest("h != null && h.IsOpen"), inTest("h?.IsOpen == true")),
    rewrites(inTest("h != null && !h.IsOpen"), inTest("h?.IsOpen == false")),
    rewrites(inTest("h == null || h.IsOpen"), inTest("h?.IsOpen != false")),
    rewrites(inTest("h == null || !h.IsOpen"), inTest("h?.IsOpen != true")),
    rewrites(inTest("(h != null) && !h.Has(1)"), inTest("h?.Has(1) == false")),
    rewrites(inTest("h != null && h.Next != null && !h.Next.IsOpen"), inTest("h?.Next?.IsOpen == false")),
    rewrites(inTest("x && h != null && h.IsOpen"), inTest("x && h?.IsOpen == true")),
    rewrites(
      "class A { bool F(IHive h) { return h != null && h.IsOpen; } }",
      "class A { bool F(IHive h) { return h?.IsOpen == true; } }",
      "likely",
    ),
    holds(inTest("Take() != null && Take().IsOpen"), "calls something"),
    holds(inTest("h != null && h.Find(1, out var n) && n > 0"), "is given a value only where"),
    holds(inTest("h != null && h.Has(x is int n ? n : 0) && n > 0"), "is given a value only where"),
    holds(
      "class A { DateTime? d; bool F() { return d != null && d.Value.IsDaylightSavingTime(); } }",
      "has no `Value`",
    ),
    ignores(inTest("h == null && h.IsOpen")),
    ignores(inTest("h != null || h.IsOpen")),
    ignores(inTest("h != null && !x")),
    ignores(inTest("h != null && h.IsOpen == x")),
    trialsIn("csharp", "5").ignores(inTest("h != null && h.IsOpen")),
  ],
});
