import {
  caution,
  condition,
  guarded,
  holes,
  isOnlyTested,
  no,
  rule,
  ruby,
  shortened,
  unknown,
  givesSomething,
} from "../../core.js";
import { takenSafely, trialsIn, yes } from "../../core.js";
import type { Answer, Match, SyntaxNode } from "../../core.js";
import { everyTest } from "../family/conditions.js";
import { asksForNilAlone, isNeverFalse, readOnce } from "./values.js";

const { subject, read, otherwise } = holes({
  subject: { kind: "expression", unlike: ruby.expression`self` },
  read: { kind: "expression", node: "call" },
  otherwise: { kind: "expression", node: "nil" },
});

/** `&.` gives nil where it stops. What the operators gave there is nil as well, false, or true. */
function resultAlike({ node, chain }: Match): Answer {
  if (chain.kind === "choice" || chain.kind === "statement")
    return yes("value.result", "where it stops, the result is nil as before");
  if (isOnlyTested(node)) return yes("value.result", "only whether the result is true matters here", node);
  const [{ test }] = chain.links as [(typeof chain.links)[number]];
  const was = chain.kind === "or" ? "true" : test.asks === "truth" ? "nil" : "false";
  const now = chain.kind === "or" ? "true" : chain.role === "value" ? "nil" : "false";
  return was === now
    ? yes("value.result", `where it stops, the result is ${was} as before`)
    : no("value.result", `where it stopped, the result was ${was} and would be ${now}`, node);
}

/** Methods that by agreement give something for every object. */
const CONVERTS = /^(to_(s|a|h|i|f|sym|str|ary)|inspect)$/;

/**
 * The calls between the first and the last one of which the next one is made without `&.`, as far as the library does not
 * say that they give something.
 */
const between = ({ chain }: Match): readonly SyntaxNode[] =>
  chain.links.flatMap(({ steps }) =>
    steps.slice(0, -1).filter((step, i) => !steps[i + 1]!.has("&.") && !givesSomething(step)),
  );

/** Each call is made through `&.`: where one gives nil, the old code failed, and the new one gives nil. */
function givesNoNil(match: Match): Answer {
  const [step] = between(match);
  return step
    ? unknown("value.null", `\`${shortened(step.text)}\` could be nil, for which the old code failed`, step)
    : yes("value.null", "nothing is called in between that could be nil");
}

const { rewrites, ignores, holds } = trialsIn("ruby");

export const guardedCall = rule({
  id: "ruby/guarded-call",
  kind: "idiom",
  title: "Use &. to call a method on a value that may be nil",
  why: "The object is written twice, once to be tested and once to be called.",
  target: "2.3",
  was: guarded(subject, read, otherwise, { as: ["statement", "choice", "and", "or"], copied: true }),
  where: [
    // A second test must not ask something of nil.
    ({ chain }) => chain.links.length === 1,
    // Each call is made through `&.`, which would hide that one in between gives nil.
    (match) => between(match).every((step) => CONVERTS.test(step.child("method")?.text ?? "")),
    // An assignment through `&.` is another form.
    (match) => !match.node.parent?.is(["assignment", "operator_assignment"]) || match.node.field !== "left",
  ],
  given: [
    readOnce(),
    asksForNilAlone(),
    everyTest("the object is never false", (_match, { asks, subject: node }) =>
      asks === "truth" ? isNeverFalse(node) : yes("value.falsy", "false is not taken for nil"),
    ),
    condition("the result is the same where the chain stops", resultAlike),
    condition("what is called in between never gives nil", givesNoNil),
  ],
  cautions: (match) =>
    match.tests
      .filter(({ asks, subject: node }) => asks === "truth" && isNeverFalse(node).is !== "yes")
      .map(({ subject: node }) =>
        caution(
          "value.falsy",
          `when \`${shortened(node.text)}\` is false, the old code stopped and the new one calls the method`,
        ),
      ),
  becomes: (match) => takenSafely(match.chain),
  trials: [
    rewrites("def f(hive)\n  hive && hive.queen\nend\n", "def f(hive)\n  hive&.queen\nend\n", "likely"),
    rewrites(
      "def f(hive)\n  unless hive.nil?\n    queen = hive.queen\n    queen.mark unless queen.nil?\n  end\nend\n",
      "def f(hive)\n  hive&.queen&.mark\nend\n",
    ),
    rewrites(
      "def f(name)\n  name ? name.to_s.strip : nil\nend\n",
      "def f(name)\n  name&.to_s&.strip\nend\n",
      "likely",
    ),
    rewrites("x = [1]\ny = x && x.reverse.first\n", "x = [1]\ny = x&.reverse&.first\n"),
    rewrites("def f(hive)\n  hive.open(1) unless hive.nil?\nend\n", "def f(hive)\n  hive&.open(1)\nend\n"),
    rewrites("def f(hive)\n  hive.nil? ? nil : hive.queen\nend\n", "def f(hive)\n  hive&.queen\nend\n"),
    rewrites("def f(hive)\n  hive ? hive.queen : nil\nend\n", "def f(hive)\n  hive&.queen\nend\n", "likely"),
    rewrites(
      "x = @hive.queen if !@hive.nil?\n@hive.open { |x| x } unless @hive.nil?\n",
      "x = @hive.queen if !@hive.nil?\n@hive&.open { |x| x }\n",
    ),
    rewrites(
      `
      def f(hive)
        unless hive.nil?
          # in spring
          hive.open
        end
      end
      `,
      `
      def f(hive)
        # in spring
        hive&.open
      end
      `,
    ),
    rewrites(
      "def f(hive)\n  if !hive.nil? && hive.open?\n    1\n  end\nend\n",
      "def f(hive)\n  if hive&.open?\n    1\n  end\nend\n",
    ),
    rewrites(
      "def f(h)\n  x = h.queen && h.queen.name\nend\n",
      "def f(h)\n  x = h.queen&.name\nend\n",
      "likely",
    ),
    rewrites(
      "def f(hive)\n  x = !hive.nil? && !hive.queen.nil?\nend\n",
      "def f(hive)\n  x = !hive&.queen.nil?\nend\n",
    ),
    holds("def f(hive)\n  x = !hive.nil? && hive.open?\nend\n", "would be nil"),
    holds("x = find(1) && find(1).queen\n", "once instead of twice"),
    holds("x = list.shift! && list.shift!.queen\n", "changes something"),
    // Behind nil the second call would fail.
    ignores("x = hive && hive.queen.name\n"),
    ignores("x = hive && hive.age > 3\n"),
    ignores("x = hive && !hive.open?\n"),
    ignores("x = hive && hives.open?\n"),
    ignores("hive.queen = 1 if hive\n"),
    ignores("hive[1] if hive\n"),
    ignores("if hive\n  hive.open\nelse\n  close\nend\n"),
    ignores("if hive\n  hive.open\n  count\nend\n"),
    ignores("x = a && a.b && a.b.c\n"),
    trialsIn("ruby", "2.2").ignores("hive.open(1) unless hive.nil?\n"),
  ],
});
