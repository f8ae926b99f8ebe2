import { condition, holes, java, no, rule, trialsIn, unknown, usedAfter, yes } from "../../core.js";
import type { Answer, Match } from "../../core.js";
import { staysQuiet, usesOnlyFinal } from "./lambdas.js";
import { isOfType, isOptional, typeArguments } from "./types.js";

const { maybe, type, name, error, fallback, body } = holes({
  maybe: "expression",
  type: "type",
  name: "name",
  error: "expression",
  fallback: "expression",
  body: "statements",
});

type Shape = "throws" | "falls back" | "runs" | "present" | "absent";
const FORMS: readonly { readonly shape: Shape; readonly was: ReturnType<typeof java> }[] = [
  {
    shape: "throws",
    was: java`
      ${type} ${name} = ${maybe}.orElse(null);
      if (${name} == null) {
        throw ${error};
      }
    `,
  },
  {
    shape: "falls back",
    was: java`
      ${type} ${name} = ${maybe}.orElse(null);
      if (${name} == null) {
        ${name} = ${fallback};
      }
    `,
  },
  {
    shape: "runs",
    was: java`
      ${type} ${name} = ${maybe}.orElse(null);
      if (${name} != null) {
        ${body}
      }
    `,
  },
  { shape: "present", was: java.expression`${maybe}.orElse(null) != null` },
  { shape: "absent", was: java.expression`${maybe}.orElse(null) == null` },
];
const shapeOf = (match: Match): Shape => FORMS[match.alternative]!.shape;
const isLiteral = (match: Match): boolean => {
  const node = match.the(fallback);
  return node.is(node.tree.language.literals);
};

/** What moves into a lambda. */
const moved = (match: Match) =>
  shapeOf(match) === "runs"
    ? match.all(body)
    : shapeOf(match) === "throws"
      ? [match.the(error)]
      : shapeOf(match) === "falls back" && !isLiteral(match)
        ? [match.the(fallback)]
        : [];

/** In a lambda the variable is a parameter, which nothing behind the branch can see. */
function isOnlyThere(match: Match): Answer {
  if (shapeOf(match) !== "runs") return yes("name.scope", "the variable stays");
  const later = usedAfter(name).ask(match);
  return later.is === "no"
    ? yes(later.evidence.code, later.evidence.says)
    : no("name.scope", `\`${match.textOf(name)}\` is used behind the branch`, match.node);
}

const { rewrites, holds, ignores } = trialsIn("java");
const inMethod = (code: string): string =>
  `class A {\n    int f(java.util.Optional<Queen> queen) {\n        ${code}\n    }\n}\n`;

export const optionalOrNull = rule({
  id: "java/optional-or-null",
  kind: "idiom",
  title: "Use the methods of Optional instead of a null check",
  why: "Taking null out of an Optional to test for it is the old test by another way.",
  target: "8",
  was: FORMS.map(({ was }) => was),
  given: [
    condition("it is an Optional", (match) => isOptional(match.the(maybe)), { unknownIs: "possible" }),
    condition("the variable is of the type that the Optional holds", (match) => {
      if (!match.has(type)) return yes("name.scope", "there is no variable");
      const [held] = typeArguments(match.the(maybe));
      const declared = match.textOf(type);
      return declared === "var" || declared === held
        ? yes("type.same", "both have the same type")
        : unknown(
            "type.same",
            `\`${match.textOf(maybe)}\` may hold another type than \`${declared}\``,
            match.the(type),
          );
    }),
    condition("what is worked out where there is nothing does not use the variable", (match) => {
      const parts = [error, fallback].flatMap((hole) => (match.has(hole) ? [match.the(hole)] : []));
      const use = match.has(name) ? parts.flatMap((part) => part.mentions(match.textOf(name)))[0] : undefined;
      return use
        ? no("name.scope", `\`${use.text}\` has no value yet where this is worked out now`, use)
        : yes("name.scope", "it does not use the variable");
    }),
    condition("the default is of the type that the Optional holds", (match) =>
      shapeOf(match) === "falls back"
        ? isOfType(match.the(fallback), typeArguments(match.the(maybe))[0])
        : yes("name.scope", "there is no default"),
    ),
    condition("what moves into a lambda uses only variables that never change", (match) =>
      usesOnlyFinal(moved(match)),
    ),
    condition("what moves into a lambda throws nothing that must be declared, and leaves nothing", (match) =>
      staysQuiet(moved(match)),
    ),
    condition("the variable is used only in the branch", isOnlyThere),
    condition("the default is not null", (match) =>
      shapeOf(match) === "falls back" && match.the(fallback).is("null_literal")
        ? no("value.null", "the default is null", match.the(fallback))
        : yes("value.null", "it is not null"),
    ),
  ],
  becomes: (match) => {
    switch (shapeOf(match)) {
      case "throws":
        return java`${type} ${name} = ${maybe}.orElseThrow(() -> ${error});`;
      case "falls back":
        return isLiteral(match)
          ? java`${type} ${name} = ${maybe}.orElse(${fallback});`
          : java`${type} ${name} = ${maybe}.orElseGet(() -> ${fallback});`;
      case "runs":
        return java`
          ${maybe}.ifPresent(${name} -> {
            ${body}
          });
        `;
      case "present":
        return java`${maybe}.isPresent()`;
      case "absent":
        return java`!${maybe}.isPresent()`;
    }
  },
  trials: [
    rewrites(
      inMethod(
        "Queen q = queen.orElse(null);\n        if (q == null) {\n            throw new IllegalStateException();\n        }\n        return q.age();",
      ),
      inMethod("Queen q = queen.orElseThrow(() -> new IllegalStateException());\n        return q.age();"),
    ),
    rewrites(
      inMethod(
        "Queen q = queen.orElse(null);\n        if (q == null) q = new Queen();\n        return q.age();",
      ),
      inMethod("Queen q = queen.orElseGet(() -> new Queen());\n        return q.age();"),
      "likely",
    ),
    rewrites(
      inMethod(
        "Queen q = queen.orElse(null);\n        if (q != null) {\n            n += 1; // marked\n        }\n        return 1;",
      ),
      inMethod("queen.ifPresent(q -> {\n            n += 1; // marked\n        });\n        return 1;"),
    ),
    rewrites(
      inMethod("return queen.orElse(null) != null ? 1 : 0;"),
      inMethod("return queen.isPresent() ? 1 : 0;"),
    ),
    rewrites(
      inMethod("if (queen.orElse(null) == null) return 1;\n        return 0;"),
      inMethod("if (!queen.isPresent()) return 1;\n        return 0;"),
    ),
    holds(
      inMethod(
        "Queen q = queen.orElse(null);\n        if (q != null) {\n            n++;\n        }\n        return q == null ? 1 : 2;",
      ),
      "behind the branch",
    ),
    holds(
      inMethod(
        "int n = 0;\n        Queen q = queen.orElse(null);\n        if (q != null) {\n            n++;\n        }\n        return n;",
      ),
      "more than once",
    ),
    holds(
      inMethod(
        "Queen q = queen.orElse(null);\n        if (q != null) {\n            return 1;\n        }\n        return 0;",
      ),
      "cannot leave",
    ),
    ignores(
      inMethod(
        "Queen q = queen.orElse(null);\n        if (q == null) {\n            n++;\n            throw new IllegalStateException();\n        }\n        return 1;",
      ),
    ),
    ignores(
      inMethod(
        "Queen q = queen.orElse(other);\n        if (q == null) throw new IllegalStateException();\n        return 1;",
      ),
    ),
  ],
});
