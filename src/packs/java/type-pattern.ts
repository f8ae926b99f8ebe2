import {
  classesNamed,
  condition,
  copy,
  holes,
  isSideEffectFree,
  no,
  ofKind,
  removal,
  rule,
  sameCode,
  shortened,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Edit, Match, Segment, SyntaxNode, SyntaxTree } from "../../core.js";
import { withoutParentheses } from "../family/parentheses.js";

const { branch } = holes({ branch: { kind: "statement", node: "if_statement" } });

/** A test for a class, and the variable that takes the value as an object of it. */
interface Tested {
  readonly test: SyntaxNode;
  readonly value: SyntaxNode;
  readonly type: SyntaxNode;
  readonly declaration: SyntaxNode;
  readonly name: SyntaxNode;
  /** Does the declaration stand behind a branch that leaves where the test fails? */
  readonly isBehind: boolean;
}

/** The tests that all hold where a condition does, or that all fail where it does not hold. */
function testsIn(node: SyntaxNode, joins: "&&" | "||"): SyntaxNode[] {
  const plain = withoutParentheses(node);
  if (plain.is("binary_expression") && plain.child("operator")?.text === joins)
    return [...testsIn(plain.child("left")!, joins), ...testsIn(plain.child("right")!, joins)];
  if (joins === "&&") return [plain];
  const inner =
    plain.is("unary_expression") && plain.has("!")
      ? withoutParentheses(plain.child("operand") ?? plain.lastPart!)
      : undefined;
  return inner ? [inner] : [];
}

function testedAt(node: SyntaxNode): Tested | undefined {
  const [condition, body] = [node.child("condition"), node.child("consequence")];
  if (!condition || !body) return undefined;
  const first = body.is("block") ? body.firstPart : undefined;
  const inside = first && declaredFrom(first, testsIn(condition, "&&"));
  if (inside) return { ...inside, isBehind: false };
  const next = node.nextPart;
  const last = body.is("block") ? body.lastPart : body;
  const leaves =
    last?.is(["return_statement", "throw_statement", "continue_statement", "break_statement"]) === true;
  const behind =
    next && leaves && !node.child("alternative") ? declaredFrom(next, testsIn(condition, "||")) : undefined;
  return behind && { ...behind, isBehind: true };
}

/** Reads `Hive h = (Hive) o;` with the test that asks for the same. */
function declaredFrom(
  statement: SyntaxNode,
  tests: readonly SyntaxNode[],
): Omit<Tested, "isBehind"> | undefined {
  if (!statement.is("local_variable_declaration")) return undefined;
  const declarators = statement.parts.filter((part) => part.is("variable_declarator"));
  const [only, ...more] = declarators;
  const [name, cast, type] = [only?.child("name"), only?.child("value"), statement.child("type")];
  if (!name || !type || more.length > 0 || !cast?.is("cast_expression") || only!.child("dimensions"))
    return undefined;
  const [to, value] = [cast.child("type"), cast.child("value")];
  const test = tests.find((one) => {
    const [left, right] = [one.child("left"), one.child("right")];
    const isPlain =
      one.is("instanceof_expression") && left && right && !one.child("name") && !one.child("pattern");
    return (
      isPlain === true &&
      to !== undefined &&
      right.text === to.text &&
      value !== undefined &&
      sameCode(withoutParentheses(left), withoutParentheses(value))
    );
  });
  const isSame = type.text === "var" || type.text === to?.text;
  return test && value && isSame
    ? { test, value: withoutParentheses(value), type: test.child("right")!, declaration: statement, name }
    : undefined;
}

/** The rest of the condition may not mean another variable by the name. */
function isFree(match: Match): Answer {
  const node = match.the(branch);
  const { name, test } = testedAt(node)!;
  const use = node
    .child("condition")!
    .mentions(name.text)
    .find((one) => !test.holds(one) && one.field !== "field" && one.field !== "name");
  return use
    ? no("name.free", `\`${name.text}\` means something else here`, use)
    : yes("name.free", `\`${name.text}\` is not used in the condition`);
}

/** Until version 21 the language refuses a test that always holds. */
function mayFail(match: Match): Answer {
  const { value, type } = testedAt(match.the(branch))!;
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

/** A statement behind another one, with the gap between them. */
function goneBehind(node: SyntaxNode, { start, end, tree }: SyntaxNode): Edit {
  const isApart = tree.text.slice(node.end, start).trim() !== "";
  return { start: isApart ? start : node.end, end, text: "" };
}

function tested(match: Match): Segment[] {
  const { type, name, declaration, isBehind } = testedAt(match.the(branch))!;
  const isFinal = /^final\b/.test(declaration.text);
  const edits: Edit[] = [
    ...(isFinal ? [{ start: type.start, end: type.start, text: "final " }] : []),
    { start: type.end, end: type.end, text: ` ${name.text}` },
    isBehind ? goneBehind(match.the(branch), declaration) : removal(declaration),
  ];
  const [first, last] = [match.nodes[0]!, match.nodes.at(-1)!];
  const end = Math.max(last.end, edits.at(-1)!.end);
  return [copy(first.start, end, edits)];
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
    when: (node) => testedAt(node) !== undefined,
    together: (node) => (testedAt(node)!.isBehind ? [node, node.nextPart!] : [node]),
  }),
  mentions: ["instanceof"],
  given: [
    condition("the name is free in the condition", isFree),
    condition("the test may fail", mayFail),
    condition("the object is the same when it is asked once", (match) =>
      isSideEffectFree(testedAt(match.the(branch))!.value),
    ),
  ],
  becomes: tested,
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
