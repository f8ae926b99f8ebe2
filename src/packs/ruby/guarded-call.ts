import {
  caution,
  condition,
  holes,
  isOnlyTested,
  no,
  rule,
  ruby,
  shortened,
  trialsIn,
  yes,
} from "../../index.js";
import type { Answer, Match, SyntaxNode } from "../../index.js";
import { stepsFrom } from "../../index.js";
import { formOf, type Form } from "../family/conditions.js";
import { readSafely, type SafeStep } from "../family/guarded.js";
import { asksForNil, isNeverFalse, isReadTwice } from "./values.js";

const { subject, read } = holes({ subject: "expression", read: { kind: "expression", node: "call" } });

/** What a form asks: whether something is nil, or whether it counts as true. */
const FORMS: readonly Form<"nil" | "true">[] = [
  { tests: "true", was: ruby.expression`${subject} && ${read}` },
  { tests: "nil", was: ruby.expression`!${subject}.nil? && ${read}` },
  { tests: "true", was: ruby.expression`${subject} ? ${read} : nil` },
  { tests: "nil", was: ruby.expression`${subject}.nil? ? nil : ${read}` },
  { tests: "true", was: ruby`${read} if ${subject}` },
  { tests: "nil", was: ruby`${read} unless ${subject}.nil?` },
  { tests: "nil", was: ruby`${read} if !${subject}.nil?` },
  {
    tests: "true",
    was: ruby`
      if ${subject}
        ${read}
      end
    `,
  },
  {
    tests: "nil",
    was: ruby`
      unless ${subject}.nil?
        ${read}
      end
    `,
  },
];

const SAFE: SafeStep = { tokens: { ".": "&." } };

/** `&.` asks nil only; the value of a chain of `&&` that stops at nil is nil too, or for `!x.nil?` false. */
function resultAlike(match: Match): Answer {
  const { node } = match;
  if (!/^!/.test(node.text)) return yes("value.result", "where it stops, the result is nil as before");
  return isOnlyTested(node)
    ? yes("value.result", "only whether the result is true matters here", node)
    : no("value.result", "where it stopped, the result was false and would be nil", node);
}

const steps = (match: Match): SyntaxNode[] => stepsFrom(match.the(subject), match.the(read));

const { rewrites, ignores, holds } = trialsIn("ruby");

export const guardedCall = rule({
  id: "ruby/guarded-call",
  kind: "idiom",
  title: "Call what may be nil with &.",
  why: "The object is written twice, once to be tested and once to be called.",
  target: "2.3",
  was: FORMS.map(({ was }) => was),
  where: [
    // `nil&.a.b` still calls b, so only a single step is safe.
    (match) => steps(match).length === 1,
    (match) =>
      steps(match)[0]!.child("operator")?.text === "." ||
      steps(match)[0]!.children.some((c) => c.text === "."),
    (match) => match.the(subject).text !== "self",
    // What `&&` or `||` goes on with must be read as a whole first.
    (match) =>
      !match.node.parent?.is("binary") || !/^(&&|and)$/.test(match.node.parent.child("operator")?.text ?? ""),
    // An assignment through `&.` is another form.
    (match) => !match.node.parent?.is(["assignment", "operator_assignment"]) || match.node.field !== "left",
  ],
  given: [
    condition("evaluating the object once instead of twice makes no difference", (match) =>
      isReadTwice(match.the(subject)),
    ),
    condition("the object is never false", (match) =>
      formOf(FORMS, match).tests === "nil"
        ? asksForNil(match.the(subject))
        : isNeverFalse(match.the(subject)),
    ),
    condition("the result is the same where the chain stops", (match) =>
      match.found.pattern?.snippet === FORMS[1]!.was
        ? resultAlike(match)
        : yes("value.result", "where it stops, the result is nil as before"),
    ),
  ],
  cautions: (match) =>
    formOf(FORMS, match).tests === "nil" || isNeverFalse(match.the(subject)).is === "yes"
      ? []
      : [
          caution(
            "value.falsy",
            `when \`${shortened(match.textOf(subject))}\` is false, the old code stopped and the new one calls the method`,
          ),
        ],
  becomes: (match) => readSafely(match.the(subject), match.the(read), SAFE),
  trials: [
    rewrites("def f(hive)\n  hive && hive.queen\nend\n", "def f(hive)\n  hive&.queen\nend\n", "likely"),
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
