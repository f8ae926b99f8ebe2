import {
  caution,
  byType,
  condition,
  copy,
  holes,
  isOnlyTested,
  isOnPrimitives,
  javascript,
  no,
  rule,
  shortened,
} from "../../index.js";
import { text, trialsIn, unknown, valuesOf, weakest, yes } from "../../index.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../index.js";
import { isAnd, operandsOf, optionalSteps, type Operand } from "./access.js";
import { readOnce } from "./presence-tests.js";

const { left, right } = holes({ left: "expression", right: "expression" });

/** One test and the steps that the next operand takes from what was tested. */
interface Link {
  readonly test: Operand;
  readonly steps: readonly SyntaxNode[];
}

/** The tests that protect the last operand, and each the next; empty when there is no such chain. */
function linksOf(and: SyntaxNode): Link[] {
  const operands = operandsOf(and);
  const links: Link[] = [];
  for (let k = operands.length - 1; k > 0; k--) {
    const test = operands[k - 1]!;
    const steps = optionalSteps(test.subject, operands[k]!.subject);
    if (steps.length === 0) break;
    links.unshift({ test, steps });
  }
  return links;
}

/** Does the `&&` around this one go on from where it ends? Then that one is the place to look at. */
function goesOn(and: SyntaxNode): boolean {
  const { parent } = and;
  if (!parent || !isAnd(parent) || !parent.child("left")?.same(and)) return false;
  const [last, following] = operandsOf(parent).slice(-2);
  return (
    last !== undefined && following !== undefined && optionalSteps(last.subject, following.subject).length > 0
  );
}

/** Does the chain end in a test (`a && a.b != null`)? Its result would not be what is read. */
function endsInTest(match: Match): boolean {
  return operandsOf(match.node).at(-1)?.exact === true;
}

/** Tests are read once instead of twice. */
function areReadOnce(match: Match): Answer {
  const answers = linksOf(match.node).map(({ test: { subject } }): Answer => readOnce(subject));
  const [first = yes("form.fits", "nothing is tested"), ...rest] = answers;
  return weakest([first, ...rest]);
}

/** Where the chain stops early, the old result was the tested value and the new one is undefined. */
function resultUnseen(match: Match): Answer {
  const { node } = match;
  if (isOnlyTested(node)) return yes("value.result", "only whether the result is true matters here", node);
  const answers = linksOf(node).map(({ test }): Answer => {
    const name = shortened(test.subject.text);
    if (test.exact)
      return no("value.result", `\`${name}\` missing gave \`false\` and would give \`undefined\``, node);
    const type = valuesOf(match, test.subject);
    if (!type)
      return unknown(
        "value.null",
        `the result is used as a value, and \`${name}\` could be null, 0, "" or false`,
        node,
      );
    const others = [...(type.canBeNull ? ["null"] : []), ...type.falsy];
    return others.length > 0
      ? no(
          "value.result",
          `\`${name}\` is ${type.how} \`${type.text}\`: for ${others.join(", ")} the result would change`,
          type.at,
        )
      : byType(
          "value.result",
          type,
          `\`${name}\` is ${type.how} \`${type.text}\`, so it is an object or undefined`,
        );
  });
  const [first = yes("form.fits", "nothing is tested"), ...rest] = answers;
  return weakest([first, ...rest]);
}

/** `?.` goes on where `&&` stopped at 0, "" or false. Does that change anything? */
function falsyStops(match: Match): Answer {
  const answers = linksOf(match.node).map(({ test, steps }): Answer => {
    const name = shortened(test.subject.text);
    if (test.exact) return yes("value.which-missing", `\`${name}\` is tested for being missing`, test.node);
    const type = valuesOf(match, test.subject);
    const [step] = steps;
    const property = step?.child("property")?.text;
    const missingAnyway = steps.length === 1 && property !== undefined && !isOnPrimitives(property);
    if (type && type.falsy.length === 0) {
      return yes(
        "value.falsy",
        `\`${name}\` is ${type.how} \`${type.text}\`, which is true whenever it is there`,
        type.at,
      );
    }
    if (missingAnyway && isOnlyTested(match.node)) {
      return yes("value.falsy", `0, "" and false have no \`${property}\``, step);
    }
    if (type)
      return no(
        "value.falsy",
        `\`${name}\` is ${type.how} \`${type.text}\`: for ${type.falsy.join(", ")} the code would go on`,
        type.at,
      );
    return unknown(
      "value.falsy",
      `\`${name}\` could be 0, "" or false, where the old code stopped`,
      test.node,
    );
  });
  const [first = yes("form.fits", "nothing is tested"), ...rest] = answers;
  return weakest([first, ...rest]);
}

function chained(match: Match): Segment[] {
  const links = linksOf(match.node);
  const result: Segment[] = [copy(match.node.start, links[0]!.test.subject.end)];
  for (const { steps } of links) {
    const first = steps[0]!;
    const end = steps.at(-1)!.end;
    const from = first.child("object") ?? first.child("function")!;
    const dot = first.children.find((child) => child.kind === ".");
    if (dot) result.push(text("?."), copy(dot.end, end));
    else if (first.child("optional_chain") ?? first.children.find((c) => c.kind === "?.")) {
      result.push(copy(from.end, end));
    } else result.push(text("?."), copy(from.end, end));
  }
  return result;
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const guardedRead = rule({
  id: "javascript/guarded-read",
  kind: "idiom",
  title: "Read through what may be missing with ?.",
  why: "Each further && repeats the whole path before it, and a change to the path must be made in every copy.",
  was: javascript`${left} && ${right}`,
  where: [
    (match) => linksOf(match.node).length > 0,
    (match) => !goesOn(match.node),
    (match) => !endsInTest(match),
  ],
  given: [
    condition("each test is read once instead of twice, and nobody notices", areReadOnce),
    condition("it makes no difference that the result is undefined where the chain stops", resultUnseen, {
      unknownIs: "possible",
    }),
    condition("what is tested is an object or missing", falsyStops),
  ],
  cautions: (match) =>
    linksOf(match.node).flatMap(({ test }) => {
      const name = shortened(test.subject.text);
      const type = valuesOf(match, test.subject);
      if (test.exact || (type && type.falsy.length === 0 && !type.canBeNull)) return [];
      if (isOnlyTested(match.node)) return [];
      return [
        caution(
          "value.result",
          `when \`${name}\` is null, 0, "" or false, the old result was that value and the new one is undefined`,
        ),
      ];
    }),
  becomes: chained,
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
    js.holds("if (a.b && a.b.next() && a.b.next().hive) mark();", "once instead of twice"),
    js.holds("if (next() && next().hive) mark();", "once instead of twice"),
    js.holds("const has = hive != null && hive.queen;", "gave `false`"),
    js.ignores("if (a && b.a) mark();"),
    js.ignores("if (a && ab.c) mark();"),
    js.ignores("if (a.b && a) mark();"),
    js.ignores("if (a && a.b`x`) mark();"),
    js.ignores("class A { #b; f(a) { if (a && a.#b) mark(); } }"),
    js.ignores("if (a && (a.b = 1)) mark();"),
    js.ignores("if (a && a.b !== 1) mark();"),
  ],
});
