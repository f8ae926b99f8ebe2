import {
  classesNamed,
  condition,
  holes,
  no,
  ofKind,
  rule,
  shortened,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match, SyntaxTree } from "../../core.js";
import {
  testedTypeAt,
  testedTypeConditions,
  withCast,
  withTypePattern,
  type TypeSpelling,
} from "../family/tested-type.js";

const { branch } = holes({ branch: { kind: "statement", node: "if_statement" } });

const SPELLING: TypeSpelling = {
  test(node) {
    const [value, type] = [node.child("left"), node.child("right")];
    const isPlain = node.is("instanceof_expression") && !node.child("name") && !node.child("pattern");
    return isPlain && value && type ? { value, type } : undefined;
  },
  cast(statement) {
    if (!statement.is("local_variable_declaration")) return undefined;
    const [only, ...more] = statement.parts.filter((part) => part.is("variable_declarator"));
    const [name, cast, written] = [only?.child("name"), only?.child("value"), statement.child("type")];
    if (!name || !written || more.length > 0 || !cast?.is("cast_expression") || only!.child("dimensions"))
      return undefined;
    const [type, value] = [cast.child("type"), cast.child("value")];
    const isSame = written.text === "var" || written.text === type?.text;
    return type && value && isSame ? { type, value, name } : undefined;
  },
};

/** Until version 21 the language refuses a test that always holds. */
function mayFail(match: Match): Answer {
  const { value, type } = testedTypeAt(match.the(branch), SPELLING)!;
  const known = typeOf(value);
  const shown = shortened(value.text);
  const name = type.text.replace(/<.*/s, "");
  const doubt = unknown("type.not-known", `\`${shown}\` could always be a \`${name}\``, value);
  if (!known) return doubt;
  if (known.name === name || isDerived(known.name, name, value.tree))
    return no("type.is", `\`${shown}\` is always a \`${name}\``, value);
  // What everything is derived from, or what the class is derived from, may be of another class.
  return known.name === "Object" || isDerived(name, known.name, value.tree)
    ? yes("type.is", `\`${shown}\` is a \`${known.name}\``, value)
    : doubt;
}

/** Do the classes of the project say that one is derived from another? */
function isDerived(name: string, from: string, tree: SyntaxTree, depth = 0): boolean {
  return (
    depth < 7 &&
    classesNamed(tree, name).classes.some(({ parents }) =>
      parents.some((parent) => parent === from || isDerived(parent, from, tree, depth + 1)),
    )
  );
}

const { rewrites, ignores, holds } = trialsIn("java", "17");
const inMethod = (code: string): string =>
  `class A {\n    boolean f(Object o, Hive other) {\n        ${code}\n    }\n}\n`;

export const typePattern = rule({
  id: "java/type-pattern",
  kind: "idiom",
  title: "Use a type pattern instead of a test and a cast",
  why: "Test, cast and declaration name the same class three times, and one of them is changed without the others.",
  target: "16",
  was: ofKind(branch, {
    when: (node) => testedTypeAt(node, SPELLING) !== undefined,
    together: (node) => withCast(node, SPELLING),
  }),
  mentions: ["instanceof"],
  given: [...testedTypeConditions(branch, SPELLING), condition("the test may fail", mayFail)],
  becomes: (match) => withTypePattern(match, branch, SPELLING),
  trials: [
    rewrites(
      inMethod(
        "if (o instanceof Hive) {\n            Hive hive = (Hive) o;\n            return hive.full();\n        }\n        return false;",
      ),
      inMethod(
        "if (o instanceof Hive hive) {\n            return hive.full();\n        }\n        return false;",
      ),
    ),
    rewrites(
      inMethod(
        "if (o != null && o instanceof Hive && ready()) {\n            final Hive hive = (Hive) o; // cast\n            return hive.full();\n        }\n        return false;",
      ),
      inMethod(
        "if (o != null && o instanceof final Hive hive && ready()) {\n            // cast\n            return hive.full();\n        }\n        return false;",
      ),
    ),
    rewrites(
      inMethod(
        "if (!(o instanceof Hive)) {\n            return false;\n        }\n        Hive hive = (Hive) o;\n        return hive.full();",
      ),
      inMethod(
        "if (!(o instanceof Hive hive)) {\n            return false;\n        }\n        return hive.full();",
      ),
    ),
    rewrites(
      inMethod(
        "if (this == o) return true;\n        if (o == null || !(o instanceof Hive)) return false;\n        Hive that = (Hive) o;\n        return that.full();",
      ),
      inMethod(
        "if (this == o) return true;\n        if (o == null || !(o instanceof Hive that)) return false;\n        return that.full();",
      ),
    ),
    holds(
      inMethod(
        "if (other instanceof Hive) {\n            Hive hive = (Hive) other;\n            return hive.full();\n        }\n        return false;",
      ),
      "always a",
    ),
    holds(
      inMethod(
        "if (find() instanceof Hive) {\n            Hive hive = (Hive) find();\n            return hive.full();\n        }\n        return false;",
      ),
      "calls something",
    ),
    holds(
      `class Tall extends Hive {}\n${inMethod("Tall tall = find();\n        if (tall instanceof Hive) {\n            Hive hive = (Hive) tall;\n            return hive.full();\n        }\n        return false;")}`,
      "always a",
    ),
    rewrites(
      inMethod(
        "if (place instanceof Hive) {\n            Hive hive = (Hive) place;\n            return hive.full();\n        }\n        return false;",
      ),
      inMethod(
        "if (place instanceof Hive hive) {\n            return hive.full();\n        }\n        return false;",
      ),
      "likely",
    ),
    ignores(
      inMethod(
        "if (o instanceof Hive) {\n            Box hive = (Box) o;\n            return hive.full();\n        }\n        return false;",
      ),
    ),
    ignores(
      inMethod(
        "if (o instanceof Hive || ready()) {\n            Hive hive = (Hive) o;\n            return hive.full();\n        }\n        return false;",
      ),
    ),
    ignores(
      inMethod(
        "if (!(o instanceof Hive)) {\n            ready();\n        }\n        Hive hive = (Hive) o;\n        return hive.full();",
      ),
    ),
    ignores(
      inMethod(
        "if (o instanceof Hive) {\n            ready();\n            Hive hive = (Hive) o;\n            return hive.full();\n        }\n        return false;",
      ),
    ),
    trialsIn("java", "11").ignores(
      inMethod(
        "if (o instanceof Hive) {\n            Hive hive = (Hive) o;\n            return hive.full();\n        }\n        return false;",
      ),
    ),
  ],
});
