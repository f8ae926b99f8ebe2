import {
  caution,
  condition,
  holes,
  isOnlyTested,
  javascript,
  no,
  rule,
  shortened,
  trialsIn,
  unknown,
  valuesOf,
  yes,
} from "../../core.js";
import type { Answer, Match } from "../../core.js";

const { value, fallback } = holes({ value: "expression", fallback: "expression" });

const DEFAULTS = ["string", "template_string", "number", "array", "object", "regex"];
const READS = ["identifier", "member_expression", "subscript_expression", "call_expression"];

/** The false values that `||` replaces and `??` keeps, leaving out the one that the fallback is itself. */
function replaced(match: Match, candidates: readonly string[]): string[] {
  const own = match.textOf(fallback).replace("''", '""');
  return candidates.filter((candidate) => candidate !== own);
}

const isContainer = (match: Match): boolean => match.the(fallback).is(["array", "object", "regex"]);

function neverFalsy(match: Match): Answer {
  const name = shortened(match.textOf(value));
  const type = valuesOf(match, match.the(value));
  if (!type) {
    const seen = replaced(match, ["0", '""', "false"]).join(", ");
    return unknown("value.falsy", `\`${name}\` could be ${seen}, which \`||\` replaces`, match.node);
  }
  const lost = replaced(match, type.falsy);
  return lost.length > 0
    ? no(
        "value.falsy",
        `\`${name}\` is ${type.how} \`${type.text}\`: for ${lost.join(", ")} the old code fell back`,
        type.at,
      )
    : yes(
        "value.falsy",
        `\`${name}\` is ${type.how} \`${type.text}\`, which falls back only when it is missing`,
        type.at,
      );
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const falsyFallback = rule({
  id: "javascript/falsy-fallback",
  kind: "idiom",
  title: "Use ?? instead of || for a default value",
  why: "|| also replaces 0, the empty string and false, which are often values somebody meant.",
  was: javascript`${value} || ${fallback}`,
  where: [
    (match) => match.the(value).is(READS),
    // Of two names either may be meant as a truth, unless the types say otherwise.
    (match) =>
      match.the(fallback).is(DEFAULTS) || (match.the(fallback).is(READS) && neverFalsy(match).is === "yes"),
    (match) => !isOnlyTested(match.node),
    (match) => !match.node.parent?.is("binary_expression"),
  ],
  given: [
    condition("the value is never false without being missing", neverFalsy, { when: isContainer }),
    condition("the value is never 0, an empty string or false", neverFalsy, {
      when: (match) => !isContainer(match),
      unknownIs: "possible",
    }),
  ],
  cautions: (match) => {
    if (valuesOf(match, match.the(value))) return [];
    const lost = replaced(match, ["0", '""', "false", "NaN"]).join(", ");
    return [
      caution(
        "value.falsy",
        `when \`${shortened(match.textOf(value))}\` is ${lost}, the old code fell back and the new one keeps it`,
      ),
    ];
  },
  becomes: javascript`${value} ?? ${fallback}`,
  trials: [
    js.rewrites("const label = lot.label || 'unnamed';", "const label = lot.label ?? 'unnamed';", "possible"),
    js.rewrites("options = options || {};", "options = options ?? {};", "likely"),
    js.rewrites("f(find(1) || []);", "f(find(1) ?? []);", "likely"),
    ts.rewrites(
      "function f(jars?: string[]) { return jars || []; }",
      "function f(jars?: string[]) { return jars ?? []; }",
    ),
    ts.rewrites(
      'function f(label: string | null) { return label || ""; }',
      'function f(label: string | null) { return label ?? ""; }',
    ),
    ts.holds("function f(weight?: number) { return weight || 10; }", "for 0, NaN the old code fell back"),
    ts.holds("function f(count?: number) { return count || 0; }", "for NaN"),
    ts.holds("class Lot { label?: string; show() { return this.label || 'none'; } }", 'for "" the old code'),
    ts.rewrites(
      `
      function outer(jars: number) {
        return (jars: string[] | undefined) => jars || [];
      }
      `,
      `
      function outer(jars: number) {
        return (jars: string[] | undefined) => jars ?? [];
      }
      `,
    ),
    ts.rewrites(
      "function f(jars: string[]) { for (const jars of all) g(jars || []); }",
      "function f(jars: string[]) { for (const jars of all) g(jars ?? []); }",
      "likely",
    ),
    ts.rewrites(
      "function f(a: Lot | undefined, b: Lot) { return a || b; }\nclass Lot { n = 1; }",
      "function f(a: Lot | undefined, b: Lot) { return a ?? b; }\nclass Lot { n = 1; }",
    ),
    ts.rewrites(
      "function f(jars?: string[]) { return jars || find(); }",
      "function f(jars?: string[]) { return jars ?? find(); }",
    ),
    ts.ignores("function f(a: boolean | undefined, b: boolean) { return a || b; }"),
    ts.ignores("function f(a: any, b: string) { return a || b; }"),
    ts.ignores("function f(a: string | undefined, b: string) { return a || b; }"),
    js.ignores("if (a || 'x') y();"),
    js.ignores("const y = a || b;"),
    js.ignores("const y = a && b || 'x';"),
    js.ignores("const y = a || 'x' || c;"),
    js.ignores("const y = a > b || 'x';"),
  ],
});
