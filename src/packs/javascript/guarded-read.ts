import {
  byType,
  caution,
  condition,
  guarded,
  holes,
  isOnlyTested,
  isOnPrimitives,
  no,
  rule,
  shortened,
} from "../../core.js";
import { takenSafely, trialsIn, unknown, valuesOf, weakest, yes } from "../../core.js";
import type { Answer, Link, Match } from "../../core.js";
import { testedOnce } from "../family/conditions.js";
import { sameAsMissing } from "./presence-tests.js";
import { seenThrough } from "./types/seen-through.js";

const { subject, read, otherwise } = holes({
  subject: "expression",
  read: "expression",
  otherwise: "expression",
});

function eachLink(match: Match, ask: (link: Link) => Answer): Answer {
  const [first, ...rest] = match.chain.links.map(ask);
  return weakest([first!, ...rest]);
}

/** Where the chain stops early, the old result was the tested value, true or false; the new one comes of undefined. */
function resultUnseen(match: Match): Answer {
  const { node, chain } = match;
  if (isOnlyTested(node)) return yes("value.result", "only whether the result is true matters here", node);
  if (chain.kind === "or") return yes("value.result", "where it stops, the result is true as before", node);
  return eachLink(match, ({ test }): Answer => {
    const name = shortened(test.subject.text);
    if (test.asks !== "truth") {
      return chain.role === "value"
        ? no("value.result", `\`${name}\` missing gave \`false\` and would give \`undefined\``, node)
        : yes("value.result", "where it stops, the result is false as before", node);
    }
    if (chain.role !== "value")
      return no("value.result", `\`${name}\` missing was the result, which would be \`false\``, node);
    const type = valuesOf(match, test.subject);
    if (!type)
      return unknown(
        "value.null",
        `the result is used as a value, and \`${name}\` could be null, 0, "" or false`,
        node,
      );
    const others = [...(type.canBeNull ? ["null"] : []), ...type.falsy];
    const is = `\`${name}\` is ${type.how} \`${type.text}\``;
    return others.length > 0
      ? no("value.result", `${is}: for ${others.join(", ")} the result would change`, type.at)
      : byType("value.result", type, `${is}, so it is an object or undefined`);
  });
}

/** `?.` goes on where `&&` stopped at 0, "" or false. Does that change anything? */
function stopsAlike(match: Match): Answer {
  return eachLink(match, ({ test, steps }): Answer => {
    if (test.asks !== "truth") return sameAsMissing(match, test);
    const name = shortened(test.subject.text);
    const type = valuesOf(match, test.subject);
    const is = type && `\`${name}\` is ${type.how} \`${type.text}\``;
    if (type?.falsy.length === 0)
      return yes("value.falsy", `${is}, which is true whenever it is there`, type.at);
    const [step] = steps;
    const property = step?.child("property")?.text;
    const missingAnyway = steps.length === 1 && property !== undefined && !isOnPrimitives(property);
    if (missingAnyway && isOnlyTested(match.node))
      return yes("value.falsy", `0, "" and false have no \`${property}\``, step);
    return type
      ? no("value.falsy", `${is}: for ${type.falsy.join(", ")} the code would go on`, type.at)
      : unknown("value.falsy", `\`${name}\` could be 0, "" or false, where the old code stopped`, test.test);
  });
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const guardedRead = rule({
  id: "javascript/guarded-read",
  kind: "idiom",
  title: "Use ?. to read from a value that may be missing",
  why: "Each further && repeats the whole path before it, and a change to the path must be made in every copy.",
  target: "2020",
  was: guarded(subject, read, otherwise, { as: ["and", "or"] }),
  given: [
    testedOnce(),
    condition("it makes no difference that the result is undefined where the chain stops", resultUnseen, {
      unknownIs: "possible",
    }),
    condition("what is tested is an object or missing", stopsAlike),
    seenThrough,
  ],
  cautions: (match) =>
    match.tests.flatMap((test) => {
      const type = valuesOf(match, test.subject);
      if (test.asks !== "truth" || (type && type.falsy.length === 0 && !type.canBeNull)) return [];
      if (isOnlyTested(match.node)) return [];
      return [
        caution(
          "value.result",
          `when \`${shortened(test.subject.text)}\` is null, 0, "" or false, the old result was that value and the new one is undefined`,
        ),
      ];
    }),
  becomes: (match) => takenSafely(match.chain),
  trials: [
    js.rewrites("if (hive && hive.queen) mark();", "if (hive?.queen) mark();"),
    js.rewrites(
      "if (hive && hive.queen && hive.queen.age) mark();",
      "if (hive?.queen?.age) mark();",
      "likely",
    ),
    js.rewrites("while (a && hive && hive.queen) mark();", "while (a && hive?.queen) mark();"),
    js.rewrites("if (hive != null && hive.queen) mark();", "if (hive?.queen) mark();"),
    js.rewrites("hive && hive.open(1);", "hive?.open(1);", "likely"),
    js.rewrites("if (a && a.b && a.b(x)) y();", "if (a?.b?.(x)) y();", "likely"),
    js.rewrites("if (a && a['b'] && a['b'][0]) y();", "if (a?.['b']?.[0]) y();", "likely"),
    js.rewrites("if (a && /* still */ a.b) y();", "if (a /* still */ ?.b) y();"),
    js.rewrites("const q = hive && hive.queen;", "const q = hive?.queen;", "possible"),
    js.rewrites("const q = hive && hive.queen || 'none';", "const q = hive?.queen || 'none';"),
    ts.rewrites(
      `
      interface Hive { queen: string }
      const read = (hive: Hive | undefined) => hive && hive.queen;
      `,
      `
      interface Hive { queen: string }
      const read = (hive: Hive | undefined) => hive?.queen;
      `,
    ),
    ts.holds(
      `
      interface Hive { queen: string }
      const read = (hive: Hive | null) => hive && hive.queen;
      `,
      "for null the result would change",
    ),
    ts.holds("function f(label: string) { label && label.trim(); }", "the code would go on"),
    js.holds("if (a.b && a.b.next() && a.b.next().hive) mark();", "calls something"),
    js.holds("if (next() && next().hive) mark();", "calls something"),
    js.holds("const has = hive != null && hive.queen;", "gave `false`"),
    ts.holds(
      `
      interface Hive { isOpen(): boolean; close(): void }
      function f(hive?: Hive) { const open = hive && hive.isOpen(); if (open) hive.close(); }
      `,
      "would no longer know that `hive` is there",
    ),
    ts.holds(
      `
      interface Pair { ready: boolean }
      declare function pair(a: string, b: string): Pair | undefined;
      function f(a?: string, b?: string) { const both = a && b && pair(a, b); if (!both || !both.ready) return 0; return a.length; }
      `,
      "no longer see for `a`",
    ),
    ts.rewrites(
      `
      interface Hive { isWet: boolean; close(): void }
      function f(hive?: Hive) { const wet = hive && hive.isWet; if (wet) hive.close(); }
      `,
      `
      interface Hive { isWet: boolean; close(): void }
      function f(hive?: Hive) { const wet = hive?.isWet; if (wet) hive.close(); }
      `,
    ),
    js.ignores("if (a && b.a) mark();"),
    js.ignores("if (a && ab.c) mark();"),
    js.ignores("if (a.b && a) mark();"),
    js.ignores("if (a && a.b`x`) mark();"),
    js.ignores("class A { #b; f(a) { if (a && a.#b) mark(); } }"),
    js.ignores("if (a && (a.b = 1)) mark();"),
    js.ignores("if (a && a.b !== 1) mark();"),
  ],
});
