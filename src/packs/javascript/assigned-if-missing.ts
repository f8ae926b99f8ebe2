import {
  caution,
  condition,
  holes,
  javascript,
  rule,
  shortened,
  trialsIn,
  unknown,
  yes,
} from "../../index.js";
import type { Match, Snippet } from "../../index.js";
import { differing, presenceTests, readOnce, sameAsMissing, type Asks } from "./presence-tests.js";

const { place, value } = holes({
  place: { kind: "expression", node: ["identifier", "member_expression", "subscript_expression"] },
  value: "expression",
});

interface Form {
  readonly asks: Asks;
  readonly was: Snippet;
}
const FORMS: readonly Form[] = [
  ...presenceTests(place).map(({ asks, gone }) => ({
    asks,
    was: javascript`if (${gone}) { ${place} = ${value}; }`,
  })),
  { asks: "both", was: javascript`${place} = ${place} ?? ${value};` },
];
const asksOf = (match: Match): Asks => FORMS[match.alternative]!.asks;

const js = trialsIn("javascript", "2021");
const ts = trialsIn("typescript", "2021");

export const assignedIfMissing = rule({
  id: "javascript/assigned-if-missing",
  kind: "idiom",
  title: "Assign with ??= where a value is missing",
  why: "What is filled in is written twice, and the reader must check that both are the same.",
  target: "2021",
  was: FORMS.map(({ was }) => was),
  given: [
    condition("what is filled in is read once instead of twice, and nobody notices", (match) =>
      readOnce(match.the(place)),
    ),
    condition("a function gets no other name", (match) => {
      const node = match.the(value);
      const isNameless =
        node.is(["arrow_function", "function_expression", "class", "generator_function"]) &&
        !node.child("name");
      const wasNamed = match.alternative !== FORMS.length - 1 || !match.the(place).is("identifier");
      return isNameless && !wasNamed
        ? unknown(
            "name.scope",
            `what is assigned alone is called \`${match.textOf(place)}\`, and had no name behind ??`,
            node,
          )
        : yes("value.result", "nothing is named by the assignment, or it was before");
    }),
    condition(
      "the test is for being missing, and nothing else",
      (match) => sameAsMissing(match, match.the(place), asksOf(match)),
      { unknownIs: "possible" },
    ),
  ],
  cautions: (match) => {
    const asks = asksOf(match);
    if (sameAsMissing(match, match.the(place), asks).is !== "unknown") return [];
    const name = shortened(match.textOf(place));
    return asks === "truth"
      ? [
          caution(
            "value.falsy",
            `when \`${name}\` is 0, "" or false, the old code filled it in and the new one keeps it`,
          ),
        ]
      : [
          caution(
            "value.which-missing",
            `when \`${name}\` is ${differing(asks)[0]}, the old code kept it and the new one fills it in`,
          ),
        ];
  },
  becomes: javascript`${place} ??= ${value};`,
  trials: [
    js.rewrites("if (x == null) { x = 1; }", "x ??= 1;"),
    js.rewrites("if (x === undefined || x === null) x = [];", "x ??= [];"),
    js.rewrites("x = x ?? y;", "x ??= y;"),
    js.rewrites(
      `
      if (this.all == null) {
        // read once
        this.all = read();
      }
      `,
      `
      // read once
      this.all ??= read();
      `,
      "likely",
    ),
    js.rewrites("if (hives[id] == null) hives[id] = [];", "hives[id] ??= [];", "likely"),
    js.rewrites("if (!x) x = {};", "x ??= {};", "possible"),
    js.rewrites("if (x === undefined) x = 1;", "x ??= 1;", "possible"),
    ts.rewrites(
      "function f(x?: string[]) { if (!x) x = make(); }",
      "function f(x?: string[]) { x ??= make(); }",
    ),
    ts.holds("function f(x?: number) { if (!x) x = 1; }", "would do something else"),
    ts.holds("function f(x?: number | null) { if (x === undefined) x = 1; }", "would do something else"),
    js.holds("if (hives[next()] == null) hives[next()] = 1;", "once instead of twice"),
    js.ignores("if (x == null) { x = 1; } else { y(); }"),
    js.ignores("if (x == null) { x = 1; y(); }"),
    js.ignores("if (x == null) { z = 1; }"),
    js.ignores("if (x == 0) x = 1;"),
    js.ignores("x = y ?? x;"),
    trialsIn("javascript", "2020").ignores("if (x == null) { x = 1; }"),
  ],
});
