import {
  condition,
  functionAround,
  holes,
  nameInFile,
  no,
  ofKind,
  referencesAt,
  rule,
  trialsIn,
  yes,
} from "../../core.js";
import type { Answer, Match } from "../../core.js";
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
    if (node.is("is_expression")) {
      const [value, type] = [node.child("left"), node.child("right")];
      return value && type ? { value, type } : undefined;
    }
    const [value, pattern] = [node.child("expression"), node.child("pattern")];
    // A class that is only named reads like a constant.
    const type = node.is("is_pattern_expression") && pattern?.is("constant_pattern") && pattern.firstPart;
    return value && type ? { value, type } : undefined;
  },
  cast(statement) {
    const declaration = statement.is("local_declaration_statement") ? statement.firstPart : undefined;
    if (!declaration?.is("variable_declaration") || declaration.start !== statement.start) return undefined;
    const [written, only, ...more] = declaration.parts;
    const [name, cast] = [only?.child("name"), only?.lastPart];
    if (!written || !name || !cast || more.length > 0) return undefined;
    const value = cast.is("cast_expression") ? cast.child("value") : cast.child("left");
    const type = cast.is("cast_expression") ? cast.child("type") : cast.child("right");
    if (!cast.is(["cast_expression", "as_expression"]) || !value || !type) return undefined;
    const isSame = written.is("implicit_type") || written.text === type.text;
    // `int?` is no type that a pattern may name.
    return isSame && !type.text.endsWith("?") ? { value, type, name } : undefined;
  },
};

/** A variable of a pattern is there in the whole block around the branch, and may not have the name of another one. */
function isOnlyOne(match: Match): Answer {
  const { name } = testedTypeAt(match.the(branch), SPELLING)!;
  const around = functionAround(name) ?? match.tree.root;
  const to = referencesAt(name).find((one) => one.to)?.to;
  const other = nameInFile(name.text, match.tree).references.find(
    (one) => !one.member && one.to !== to && around.holds(one.node),
  );
  return other
    ? no("name.free", `\`${name.text}\` means something else in this function`, other.node)
    : yes("name.free", `nothing else in this function is called \`${name.text}\``);
}

const { rewrites, holds, ignores } = trialsIn("csharp");
const inMethod = (code: string): string =>
  `class A\n{\n    bool F(object o)\n    {\n        ${code}\n    }\n}\n`;

export const testedType = rule({
  id: "csharp/tested-type",
  kind: "idiom",
  title: "Use a type pattern instead of a test and a cast",
  why: "The type is written twice, and a cast that stands apart from its test fails when one of the two is changed.",
  target: "7.0",
  was: ofKind(branch, {
    when: (node) => testedTypeAt(node, SPELLING) !== undefined,
    together: (node) => withCast(node, SPELLING),
  }),
  mentions: ["is"],
  given: [
    ...testedTypeConditions(branch, SPELLING),
    condition("the name is free in the function", isOnlyOne),
  ],
  becomes: (match) => withTypePattern(match, branch, SPELLING),
  trials: [
    rewrites(
      inMethod(
        "if (o is Hive)\n        {\n            var hive = (Hive)o;\n            return hive.Full;\n        }\n        return false;",
      ),
      inMethod(
        "if (o is Hive hive)\n        {\n            return hive.Full;\n        }\n        return false;",
      ),
    ),
    rewrites(
      inMethod("if (o is Hive) { Hive hive = (Hive)o; /* hers */ return hive.Full; } else { return false; }"),
      inMethod("if (o is Hive hive) { /* hers */ return hive.Full; } else { return false; }"),
    ),
    rewrites(
      inMethod("if (o is Hive) { var hive = o as Hive; hive.Open(); hive = null; }\n        return false;"),
      inMethod("if (o is Hive hive) { hive.Open(); hive = null; }\n        return false;"),
    ),
    rewrites(
      inMethod("if (!(o is Hive)) return false;\n        var hive = (Hive)o;\n        return hive.Full;"),
      inMethod("if (!(o is Hive hive)) return false;\n        return hive.Full;"),
    ),
    rewrites(
      inMethod("if (o is Hive && n > 3) { var hive = (Hive)o; hive.Open(); }\n        return false;"),
      inMethod("if (o is Hive hive && n > 3) { hive.Open(); }\n        return false;"),
    ),
    holds(
      inMethod(
        "if (o is Hive) { var h = (Hive)o; h.Open(); }\n        if (o is Queen) { var h = (Queen)o; h.Mark(); }\n        return false;",
      ),
      "means something else",
    ),
    holds(
      inMethod("if (Next() is Hive) { var hive = (Hive)Next(); hive.Open(); }\n        return false;"),
      "calls something",
    ),
    ignores(inMethod("if (o is Hive) { var hive = (Queen)o; hive.Open(); }\n        return false;")),
    ignores(inMethod("if (o is Hive) { var hive = (Hive)p; hive.Open(); }\n        return false;")),
  ],
});
