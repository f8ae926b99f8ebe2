import {
  builtin,
  choice,
  condition,
  copy,
  hasMember,
  holes,
  isSideEffectFree,
  no,
  rule,
  text,
  trialsIn,
  yes,
} from "../../core.js";
import type { Answer, Match, Segment } from "../../core.js";
import { cheapDefault } from "../family/conditions.js";

const { value, fallback } = holes({ value: "expression", fallback: "expression" });

/** Inside a class `self.__x` is written for another name, and the text is not. */
function isTheSameName(match: Match): Answer {
  const name = match.the(value).lastPart!;
  const isMangled = /^__\w*(?<!__)$/.test(name.text) && name.closest(["class_definition"]) !== undefined;
  return isMangled
    ? no("value.result", `\`${name.text}\` is another name inside of a class, and the text is not`, name)
    : yes("value.result", `the text names \`${name.text}\``, name);
}

const { rewrites, holds, ignores } = trialsIn("python");

export const attributeOrDefault = rule({
  id: "python/attribute-or-default",
  kind: "idiom",
  title: "Use getattr with a default for an attribute that may be missing",
  why: "The attribute is written twice, once as text and once as code, and one can be changed without the other.",
  was: choice(hasMember(value), value, fallback),
  given: [
    builtin("hasattr"),
    builtin("getattr"),
    condition("the text and the code name the same attribute", isTheSameName),
    condition("reading the attribute once instead of twice makes no difference", (match) =>
      isSideEffectFree(match.the(value)),
    ),
    cheapDefault(fallback),
  ],
  becomes: (match): Segment[] => {
    const { subject, key } = match.tests[0]!;
    const other = match.the(fallback);
    return [
      text("getattr("),
      copy(subject.start, subject.end),
      text(", "),
      copy(key!.start, key!.end),
      text(", "),
      copy(other.start, other.end),
      text(")"),
    ];
  },
  trials: [
    rewrites(
      "unit = hive.unit if hasattr(hive, 'unit') else 'kg'\n",
      "unit = getattr(hive, 'unit', 'kg')\n",
      "likely",
    ),
    rewrites(
      `
      def f(hive):
          if hasattr(hive, "unit"):
              unit = hive.unit  # as it was weighed
          else:
              unit = "kg"
          return unit
      `,
      `
      def f(hive):
          # as it was weighed
          unit = getattr(hive, "unit", "kg")
          return unit
      `,
      "likely",
    ),
    rewrites(
      `
      def f(hive):
          if not hasattr(hive, "queen"):
              return None
          return hive.queen
      `,
      `
      def f(hive):
          return getattr(hive, "queen", None)
      `,
      "likely",
    ),
    rewrites(
      `
      unit = None
      if hasattr(self.hive, "unit"):
          unit = self.hive.unit
      `,
      `
      unit = getattr(self.hive, "unit", None)
      `,
      "likely",
    ),
    // The default would be worked out in any case.
    holds("unit = hive.unit if hasattr(hive, 'unit') else ask()\n", "calls something"),
    holds("unit = find().unit if hasattr(find(), 'unit') else 'kg'\n", "calls something"),
    holds(
      "class A:\n    def f(self):\n        return self.__n if hasattr(self, '__n') else 0\n",
      "another name inside of a class",
    ),
    holds("def hasattr(o, n): return True\nunit = hive.unit if hasattr(hive, 'unit') else 'kg'\n", "hasattr"),
    ignores("unit = hive.units if hasattr(hive, 'unit') else 'kg'\n"),
    ignores("unit = hive.unit if hasattr(other, 'unit') else 'kg'\n"),
    ignores("unit = hive.unit if hasattr(hive, name) else 'kg'\n"),
    ignores("unit = hive.unit.short if hasattr(hive, 'unit') else 'kg'\n"),
    ignores("if hasattr(hive, 'unit'):\n    weigh(hive.unit)\n"),
    ignores("n = 'kg' if hasattr(hive, 'unit') else hive.unit\n"),
  ],
});
