import {
  escaped,
  condition,
  copy,
  holes,
  nameInFile,
  no,
  ofKind,
  referencesAt,
  rule,
  shortened,
  text,
  trialsIn,
  yes,
} from "../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../core.js";
import { hasNoEquality } from "./values.js";

const { declared } = holes({ declared: { kind: "statement", node: "local_declaration_statement" } });

/** A conversion that may give null, and the branch that asks for it at once. */
interface Converted {
  readonly name: SyntaxNode;
  readonly value: SyntaxNode;
  readonly type: SyntaxNode;
  readonly branch: SyntaxNode;
  readonly test: SyntaxNode;
}

function convertedAt(statement: SyntaxNode): Converted | undefined {
  const declaration = statement.firstPart;
  if (declaration?.start !== statement.start) return undefined;
  const [kind, only, ...more] = declaration?.parts ?? [];
  const cast = only?.lastPart;
  const [name, branch] = [only?.child("name"), statement.nextPart];
  if (
    !declaration?.is("variable_declaration") ||
    !kind ||
    more.length > 0 ||
    !name ||
    !cast?.is("as_expression")
  )
    return undefined;
  const [value, type] = [cast.child("left"), cast.child("right")];
  const test = branch?.is("if_statement") ? branch.child("condition") : undefined;
  if (!value || !type || !branch || !test || !(kind.is("implicit_type") || kind.text === type.text))
    return undefined;
  // `int?` is no type that a pattern may name.
  return new RegExp(`^${escaped(name.text)} (?:!=|is not) null$`).test(test.text) && !type.text.endsWith("?")
    ? { name, value, type, branch, test }
    : undefined;
}

/** Behind the branch, and where the test fails, the variable is not there any more. */
function isUsedInside(match: Match): Answer {
  const { name, branch } = convertedAt(match.the(declared))!;
  const to = referencesAt(name).find((one) => one.to)?.to;
  const uses = to
    ? nameInFile(to.name, match.tree).references.filter((one) => one.to === to && !one.node.same(name))
    : [];
  const inside = branch.child("consequence");
  const outside = uses.find(({ node }) => !inside?.holds(node) && !branch.child("condition")!.holds(node));
  if (!to) return no("name.not-resolved", `what declares \`${name.text}\` is not known`, name);
  return outside
    ? no(
        "resource.used-after",
        `\`${shortened(outside.node.parent!.text)}\` uses it where it could be null`,
        outside.node,
      )
    : yes("resource.used-after", `\`${name.text}\` is used in the branch only`);
}

function tested(match: Match): Segment[] {
  const { name, value, type, branch, test } = convertedAt(match.the(declared))!;
  return [
    copy(branch.start, test.start),
    copy(value.start, value.end),
    text(` is ${type.text} ${name.text}`),
    copy(test.end, branch.end),
  ];
}

const { rewrites, ignores, holds } = trialsIn("csharp");
const inMethod = (code: string): string =>
  `class Hive\n{\n}\nclass A\n{\n    bool F(object o)\n    {\n        ${code}\n    }\n}\n`;

export const typePattern = rule({
  id: "csharp/type-pattern",
  kind: "idiom",
  title: "Use a type pattern instead of as and a null check",
  why: "A conversion that may give null, and a test that must not be forgotten, are one question.",
  target: "7.0",
  was: ofKind(declared, {
    when: (node) => convertedAt(node) !== undefined,
    together: (node) => [node, node.nextPart!],
  }),
  mentions: ["as"],
  given: [
    condition("the variable is used in the branch only", isUsedInside),
    condition("null is asked for as the language does", (match) => {
      const { type, test } = convertedAt(match.the(declared))!;
      return test.text.includes("!=")
        ? hasNoEquality(type.text, type, type, `it is a \`${type.text}\``)
        : yes("type.operator", "no operator is asked", test);
    }),
  ],
  becomes: tested,
  trials: [
    rewrites(
      inMethod(
        "var hive = o as Hive;\n        if (hive != null)\n        {\n            return hive.Full;\n        }\n        return false;",
      ),
      inMethod(
        "if (o is Hive hive)\n        {\n            return hive.Full;\n        }\n        return false;",
      ),
    ),
    rewrites(
      inMethod(
        "Hive hive = Find(o) as Hive; // perhaps\n        if (hive is not null) return hive.Full;\n        else return true;",
      ),
      inMethod("// perhaps\n        if (Find(o) is Hive hive) return hive.Full;\n        else return true;"),
    ),
    holds(
      inMethod("var hive = o as Hive;\n        if (hive != null) hive.Feed();\n        return hive != null;"),
      "could be null",
    ),
    holds(
      inMethod(
        "var hive = o as Hive;\n        if (hive != null) hive.Feed(); else Use(hive);\n        return true;",
      ),
      "could be null",
    ),
    ignores(
      inMethod("var hive = o as Hive;\n        if (hive == null) return false;\n        return hive.Full;"),
    ),
    ignores(inMethod("var n = o as int?;\n        if (n != null) return true;\n        return false;")),
    ignores(
      inMethod(
        "var hive = o as Hive;\n        Log();\n        if (hive != null) return true;\n        return false;",
      ),
    ),
    ignores(
      inMethod("IHive hive = o as Hive;\n        if (hive != null) return true;\n        return false;"),
    ),
    trialsIn("csharp", "6.0").ignores(
      inMethod("var hive = o as Hive;\n        if (hive != null) return true;\n        return false;"),
    ),
  ],
});
