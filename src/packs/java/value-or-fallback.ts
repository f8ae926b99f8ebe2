import { choice, condition, holes, java, need, no, present, rule, trialsIn, yes } from "../../core.js";
import type { Match } from "../../core.js";
import { isNeverNull } from "./create-if-absent.js";
import { testedOnce } from "../family/conditions.js";
import { objectsOfJava } from "./types.js";
import { staysQuiet, usesOnlyFinal } from "./lambdas.js";

const { value, fallback } = holes({ value: "expression", fallback: "expression" });

const Objects = need("java.util", "Objects");

const isLiteral = (match: Match): boolean => {
  const node = match.the(fallback);
  return node.is(node.tree.language.literals) && !node.is("null_literal");
};
const moved = (match: Match) => (isLiteral(match) ? [] : [match.the(fallback)]);

const { rewrites, holds, ignores } = trialsIn("java", "9");
const inMethod = (code: string): string =>
  `import java.util.Objects;\n\nclass A {\n    String f(String name) {\n        ${code}\n    }\n}\n`;

export const valueOrFallback = rule({
  id: "java/value-or-fallback",
  kind: "idiom",
  title: "Use Objects.requireNonNullElse for a default value",
  why: "The value is written twice, and the reader must check that both are the same.",
  // It is longer, and boxes what was a primitive.
  taste: true,
  target: "9",
  was: choice(present(value), value, fallback),
  // Which overload is called hangs on the type of what is passed.
  where: [(match) => !match.found.isStatements || match.place.parent?.is("argument_list") !== true],
  given: [
    testedOnce(),
    objectsOfJava(),
    condition("the default is never null, for which the new code throws", (match) => {
      const node = match.the(fallback);
      return isLiteral(match) || isNeverNull(node)
        ? yes("value.null", `\`${node.text}\` is never null`, node)
        : no("value.null", "the default could be null", node);
    }),
    condition("what moves into a lambda uses only variables that never change", (match) =>
      usesOnlyFinal(moved(match)),
    ),
    condition("what moves into a lambda throws nothing that must be declared", (match) =>
      staysQuiet(moved(match)),
    ),
    condition("the value is an object", (match) =>
      /^(decimal|hex|octal|binary|character|true|false)/.test(match.the(fallback).kind)
        ? no("type.same", "the default is a primitive, which would be boxed", match.the(fallback))
        : yes("type.same", "the default is an object"),
    ),
  ],
  becomes: (match) =>
    isLiteral(match)
      ? java.expression`${Objects}.requireNonNullElse(${value}, ${fallback})`
      : java.expression`${Objects}.requireNonNullElseGet(${value}, () -> ${fallback})`,
  trials: [
    rewrites(
      inMethod('return name != null ? name : "nobody";'),
      inMethod('return Objects.requireNonNullElse(name, "nobody");'),
    ),
    rewrites(
      inMethod('return name == null ? new String("a") : name;'),
      inMethod('return Objects.requireNonNullElseGet(name, () -> new String("a"));'),
    ),
    rewrites(
      inMethod('if (Objects.isNull(name)) {\n            return "a";\n        }\n        return name;'),
      inMethod('return Objects.requireNonNullElse(name, "a");'),
    ),
    holds(inMethod("return name != null ? name : other;"), "could be null"),
    holds(inMethod('return next() != null ? next() : "a";'), "calls something"),
    holds(inMethod("Integer n = 1; int m = n != null ? n : 0; return null;"), "boxed"),
    trialsIn("java", "21").rewrites(
      inMethod('return switch (name) { case null -> "a"; default -> name; };'),
      inMethod('return Objects.requireNonNullElse(name, "a");'),
    ),
    trialsIn("java", "21").ignores(inMethod('return switch (name) { case null, default -> "a"; };')),
    ignores(inMethod('return name != null ? other : "a";')),
    ignores(inMethod('return name != "" ? name : "a";')),
    trialsIn("java", "8").ignores(inMethod('return name != null ? name : "nobody";')),
  ],
});
