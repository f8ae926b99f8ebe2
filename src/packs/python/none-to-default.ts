import { condition, holes, no, python, rule, bodyAround, trialsIn, yes } from "../../core.js";
import { mostInLine } from "../family/limits.js";

const { name, fallback } = holes({ name: "name", fallback: "expression" });
const { rewrites, ignores, holds } = trialsIn("python");

export const noneToDefault = rule({
  id: "python/none-to-default",
  kind: "idiom",
  taste: true,
  title: "Use one expression to replace None by a default",
  why: "The variable is set in one place, where its value and its default can be read together.",
  was: python`
    if ${name} is None:
        ${name} = ${fallback}
  `,
  where: [
    (match) => !match.textOf(fallback).includes("\n"),
    (match) => !/ if | else |\blambda\b|\byield\b|\bawait\b/.test(match.textOf(fallback)),
  ],
  given: [
    condition("it fits on one line", (match) => {
      const indent = match.tree.indentAt(match.found.start).length;
      const spelt = " =  if  is None else ".length + match.textOf(fallback).length;
      const length = indent + 3 * match.textOf(name).length + spelt;
      const most = mostInLine(match);
      return length <= most
        ? yes("form.fits", "it fits on one line")
        : no("form.fits", `the line would be ${length} characters long, of ${most} at most`, match.node);
    }),
    condition("setting the variable to itself is not seen by anyone", (match) => {
      const scope = bodyAround(match.node);
      if (scope.is("class_definition")) {
        return no(
          "name.scope",
          "in a class body this would make an attribute that may not have been there",
          match.node,
        );
      }
      return match.tree.language.builtins.includes(match.textOf(name))
        ? no("name.library", `\`${match.textOf(name)}\` may be the built-in one`, match.node)
        : yes("name.library", `\`${match.textOf(name)}\` is a plain variable`);
    }),
  ],
  becomes: python`${name} = ${fallback} if ${name} is None else ${name}`,
  trials: [
    rewrites(
      `
      def weigh(unit=None):
          if unit is None:
              unit = "kg"
          return unit
      `,
      `
      def weigh(unit=None):
          unit = "kg" if unit is None else unit
          return unit
      `,
    ),
    rewrites(
      `
      def weigh(unit=None):
          if unit is None: unit = "kg"  # by default
          return unit
      `,
      `
      def weigh(unit=None):
          unit = "kg" if unit is None else unit  # by default
          return unit
      `,
    ),
    ignores(`
      if unit is None:
          other = "kg"
    `),
    ignores(`
      if self.unit is None:
          self.unit = "kg"
    `),
    ignores(`
      if unit is None:
          unit = "kg"
      else:
          unit = unit.lower()
    `),
    holds(
      `
      class Scale:
          if unit is None:
              unit = "kg"
      `,
      "attribute",
    ),
  ],
});
