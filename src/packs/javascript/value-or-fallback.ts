import {
  caution,
  byType,
  condition,
  holes,
  javascript,
  no,
  rule,
  shortened,
  sideEffectFree,
} from "../../index.js";
import { trialsIn, unknown, valuesOf, yes, type Match, type Snippet } from "../../index.js";

import { isDeclared } from "./presence-tests.js";

const { value, fallback } = holes({ value: "expression", fallback: "expression" });

/** Which of null and undefined a form tests for. */
type Tests = "both" | "null" | "undefined" | "typeof";

/** The conditional forms, with what each tests for. */
const FORMS: readonly { readonly tests: Tests; readonly was: Snippet }[] = [
  { tests: "both", was: javascript`${value} !== null && ${value} !== undefined ? ${value} : ${fallback}` },
  { tests: "both", was: javascript`${value} !== undefined && ${value} !== null ? ${value} : ${fallback}` },
  { tests: "both", was: javascript`${value} === null || ${value} === undefined ? ${fallback} : ${value}` },
  { tests: "both", was: javascript`${value} === undefined || ${value} === null ? ${fallback} : ${value}` },
  { tests: "both", was: javascript`${value} != null ? ${value} : ${fallback}` },
  { tests: "both", was: javascript`${value} != undefined ? ${value} : ${fallback}` },
  { tests: "both", was: javascript`${value} == null ? ${fallback} : ${value}` },
  { tests: "both", was: javascript`${value} == undefined ? ${fallback} : ${value}` },
  { tests: "undefined", was: javascript`${value} !== undefined ? ${value} : ${fallback}` },
  { tests: "undefined", was: javascript`${value} === undefined ? ${fallback} : ${value}` },
  { tests: "null", was: javascript`${value} !== null ? ${value} : ${fallback}` },
  { tests: "null", was: javascript`${value} === null ? ${fallback} : ${value}` },
  { tests: "typeof", was: javascript`typeof ${value} !== "undefined" ? ${value} : ${fallback}` },
  { tests: "typeof", was: javascript`typeof ${value} === "undefined" ? ${fallback} : ${value}` },
];

/** The missing value that a form does not test for, and lets through. */
function letThrough(match: Match): "null" | "undefined" | undefined {
  const { tests } = FORMS[match.alternative]!;
  return tests === "both" ? undefined : tests === "null" ? "undefined" : "null";
}

const pure = sideEffectFree(value);
const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const valueOrFallback = rule({
  id: "javascript/value-or-fallback",
  kind: "idiom",
  title: "Fall back with ?? where the value is missing",
  why: "The value is written up to three times, and the reader must check that all three are the same.",
  was: FORMS.map((form) => form.was),
  given: [
    condition("the value is evaluated once instead of several times, and nobody notices", (match) =>
      pure.ask(match),
    ),
    condition("the value is declared", (match) => {
      const node = match.the(value);
      return FORMS[match.alternative]!.tests === "typeof" && !isDeclared(node)
        ? no(
            "name.undeclared",
            `\`${node.text}\` may not be declared at all, for which only \`typeof\` does not fail`,
            node,
          )
        : yes("value.which-missing", "the old code read it too");
    }),
    condition(
      "both null and undefined are meant",
      (match) => {
        const other = letThrough(match);
        if (!other) return yes("value.null", "the test is for null and undefined alike", match.node);
        const name = shortened(match.textOf(value));
        const type = valuesOf(match, match.the(value));
        if (!type)
          return unknown(
            "value.which-missing",
            `\`${name}\` could be ${other}, which the old code let through`,
            match.node,
          );
        const can = other === "null" ? type.canBeNull : type.canBeUndefined;
        return can
          ? no(
              "value.which-missing",
              `\`${name}\` is ${type.how} \`${type.text}\`, and the old code let ${other} through`,
              type.at,
            )
          : byType(
              "value.which-missing",
              type,
              `\`${name}\` is ${type.how} \`${type.text}\`, which is never ${other}`,
            );
      },
      { unknownIs: "possible" },
    ),
  ],
  cautions: (match) => {
    const other = letThrough(match);
    if (!other || valuesOf(match, match.the(value))) return [];
    return [
      caution(
        "value.which-missing",
        `when \`${shortened(match.textOf(value))}\` is ${other}, the old code kept it and the new one falls back`,
      ),
    ];
  },
  becomes: javascript`${value} ?? ${fallback}`,
  trials: [
    js.rewrites("f(x !== null && x !== undefined ? x : 1);", "f(x ?? 1);"),
    js.rewrites("const y = x == null ? [] : x;", "const y = x ?? [];"),
    js.rewrites("const y = (null != x) ? x : (a, b);", "const y = x ?? (a, b);"),
    js.rewrites("const y = x != null ? x : a || b;", "const y = x ?? (a || b);"),
    js.rewrites("const y = x != null ? x : a && b;", "const y = x ?? (a && b);"),
    js.rewrites("const y = x != null ? x : a ? b : c;", "const y = x ?? (a ? b : c);"),
    js.rewrites("const y = x != null ? x : () => 1;", "const y = x ?? (() => 1);"),
    js.rewrites("const y = x != null ? x : /* none */ 0;", "const y = x ?? /* none */ 0;"),
    js.rewrites(
      `
      const y = x != null // weighed
        ? x
        : 0;
      `,
      `
      const y = x // weighed
        ?? 0;
      `,
    ),
    js.rewrites("const y = a || (x != null ? x : 1);", "const y = a || (x ?? 1);"),
    js.rewrites("const y = hive.age != null ? hive.age : 1;", "const y = hive.age ?? 1;", "likely"),
    js.rewrites("const y = x !== undefined ? x : 1;", "const y = x ?? 1;", "possible"),
    ts.rewrites(
      "const f = (x: number | undefined) => (x !== undefined ? x : 1);",
      "const f = (x: number | undefined) => (x ?? 1);",
    ),
    ts.holds("const f = (x?: number | null) => (x !== undefined ? x : 1);", "let null through"),
    js.rewrites(
      'const f = (x) => (typeof x !== "undefined" ? x : 1);',
      "const f = (x) => (x ?? 1);",
      "possible",
    ),
    ts.rewrites(
      'const f = (x?: string[]) => (typeof x === "undefined" ? [] : x);',
      "const f = (x?: string[]) => (x ?? []);",
    ),
    js.holds('const y = typeof module !== "undefined" ? module : null;', "may not be declared"),
    js.holds("const y = take() != null ? take() : 1;", "calls something"),
    js.ignores("const y = x != null ? z : 1;"),
    js.ignores("const y = x !== null && z !== undefined ? x : 1;"),
    js.ignores("const y = x != null && x > 0 ? x : 1;"),
    js.ignores("const y = x !== 0 ? x : 1;"),
  ],
});
