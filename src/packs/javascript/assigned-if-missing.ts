import {
  condition,
  filled,
  holes,
  isMissing,
  javascript,
  no,
  referencesAt,
  rule,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match } from "../../core.js";
import { testedOnce } from "../family/conditions.js";
import { asksForMissing, byTruth, differsFor } from "./presence-tests.js";

const { place, value } = holes({
  place: { kind: "expression", node: ["identifier", "member_expression", "subscript_expression"] },
  value: "expression",
});

const asks = asksForMissing();
const differs = differsFor("kept it", "fills it in");
const js = trialsIn("javascript", "2021");
const ts = trialsIn("typescript", "2021");

/** TypeScript works the type of a variable without one out from what is assigned plainly, and not from `??=`. */
function hasType(match: Match): Answer {
  const node = match.the(place);
  const code = "type.not-known";
  const to = node.is("identifier") ? referencesAt(node).find((one) => one.to)?.to : undefined;
  const declarator = to?.at[0]?.parent;
  const value = declarator?.child("value");
  return declarator?.is("variable_declarator") && !declarator.child("type") && (!value || isMissing(value))
    ? no(
        code,
        `\`${node.text}\` is declared without a type, which TypeScript works out from plain assignments`,
        node,
      )
    : yes(code, "its type is not worked out from this", node);
}

export const assignedIfMissing = rule({
  id: "javascript/assigned-if-missing",
  kind: "idiom",
  title: "Use ??= to assign a missing value",
  why: "What is filled in is written twice, and the reader must check that both are the same.",
  target: "2021",
  was: filled(place, value, { or: ["truth"] }),
  given: [
    testedOnce(),
    condition("TypeScript knows the type of what is assigned", hasType, {
      when: ({ tree }) => tree.language.id !== "javascript",
    }),
    condition("a function gets no other name", (match) => {
      const node = match.the(value);
      const isNameless =
        node.is(["arrow_function", "function_expression", "class", "generator_function"]) &&
        !node.child("name");
      const wasNamed = node.parent?.is("assignment_expression") === true;
      return isNameless && !wasNamed && match.the(place).is("identifier")
        ? unknown("name.scope", `what is assigned alone is called \`${match.textOf(place)}\``, node)
        : yes("value.result", "nothing is named by the assignment, or it was before");
    }),
    condition(
      "the test is for being missing, or stays one for being false",
      (match) => (byTruth(match) ? yes("value.falsy", "||= asks for the same") : asks.ask(match)),
      { unknownIs: "possible" },
    ),
  ],
  cautions: (match) => (byTruth(match) ? [] : differs(match)),
  becomes: (match) =>
    byTruth(match)
      ? javascript.expression`${place} ||= ${value}`
      : javascript.expression`${place} ??= ${value}`,
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
    js.rewrites("if (!x) x = {};", "x ||= {};"),
    js.rewrites("x = x || {};", "x ||= {};"),
    js.rewrites("x || (x = {});", "x ||= {};"),
    js.rewrites("const y = x ?? (x = {});", "const y = x ??= {};"),
    js.rewrites(
      "function f() { if (memo != null) return memo; memo = make(); return memo; }",
      "function f() { return memo ??= make(); }",
    ),
    js.rewrites("if (null == x) { x = 1; } else {}", "x ??= 1;"),
    js.rewrites("if (x === undefined) x = 1;", "x ??= 1;", "possible"),
    ts.rewrites(
      "function f(x?: string[]) { if (!x) x = make(); }",
      "function f(x?: string[]) { x ??= make(); }",
    ),
    ts.rewrites("function f(x?: number) { if (!x) x = 1; }", "function f(x?: number) { x ||= 1; }"),
    ts.holds(
      "function f(xs: string[][]) { let all; for (const x of xs) { if (!all) all = x.slice(); } return all; }",
      "declared without a type",
    ),
    ts.holds("function f(x?: number | null) { if (x === undefined) x = 1; }", "would do something else"),
    js.holds("if (hives[next()] == null) hives[next()] = 1;", "calls something"),
    js.holds("if (x == null) { x = 1; } else { y(); }", "is done as well"),
    js.holds("if (x == null) { x = 1; y(); }", "is done as well"),
    js.rewrites("function f(x) { g(); if (x != null) return; x = 1; }", "function f(x) { g(); x ??= 1; }"),
    js.rewrites("const f = (x) => { if (x) { return; } x = 1; };", "const f = (x) => { x ||= 1; };"),
    js.ignores("function f(x) { if (x != null) return; x = 1; g(x); }"),
    js.ignores("function f(x) { if (x != null) return 2; x = 1; }"),
    js.ignores("function f(x) { for (const y of x) { if (x != null) return; x = 1; } }"),
    js.ignores("function f(x) { if (x == null) return; x = 1; }"),
    js.ignores("if (x == null) { z = 1; }"),
    js.ignores("if (x == 0) x = 1;"),
    js.ignores("x = y ?? x;"),
    trialsIn("javascript", "2020").ignores("if (x == null) { x = 1; }"),
  ],
});
