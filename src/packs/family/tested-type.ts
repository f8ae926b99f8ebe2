import {
  condition,
  copy,
  isSideEffectFree,
  jumpOf,
  no,
  operatorOf,
  removal,
  sameCode,
  shapeOf,
  yes,
} from "../../core.js";
import type { Answer, Condition, Edit, Hole, Match, Segment, SyntaxNode } from "../../core.js";
import { withoutParentheses } from "./parentheses.js";

/** A value that is tested for a class, or turned into an object of it. */
export interface OfType {
  readonly value: SyntaxNode;
  readonly type: SyntaxNode;
}

/** How a language spells what a type pattern says at once. */
export interface TypeSpelling {
  /** A plain test for a class. */
  test(node: SyntaxNode): OfType | undefined;
  /** A statement that declares a variable for a value as an object of a class, and nothing else. */
  cast(statement: SyntaxNode): (OfType & { readonly name: SyntaxNode }) | undefined;
}

/** A test for a class, and the variable that takes the value as an object of it. */
export interface TestedType extends OfType {
  readonly test: SyntaxNode;
  readonly declaration: SyntaxNode;
  readonly name: SyntaxNode;
  /** Does the declaration stand behind a branch that leaves where the test fails? */
  readonly isBehind: boolean;
}

/** The tests that all hold where a condition does, or that all fail where it does not hold. */
function testsIn(node: SyntaxNode, joins: "&&" | "||"): SyntaxNode[] {
  const plain = withoutParentheses(node);
  if (plain.is("binary_expression") && operatorOf(plain) === joins)
    return [...testsIn(plain.child("left")!, joins), ...testsIn(plain.child("right")!, joins)];
  if (joins === "&&") return [plain];
  const inner = shapeOf(plain)?.is === "negation" ? withoutParentheses(plain.lastPart!) : undefined;
  return inner ? [inner] : [];
}

/** The test and the cast of a branch; undefined where it has none. */
export function testedTypeAt(node: SyntaxNode, spelling: TypeSpelling): TestedType | undefined {
  const [condition, body] = [node.child("condition"), node.child("consequence")];
  if (!condition || !body) return undefined;
  const first = body.is("block") ? body.firstPart : undefined;
  const inside = first && declaredFrom(first, testsIn(condition, "&&"), spelling);
  if (inside) return { ...inside, isBehind: false };
  const next = node.nextPart;
  const last = body.is("block") ? body.lastPart : body;
  const leaves = last !== undefined && jumpOf(last) !== undefined;
  const isAlone = next && leaves && !node.child("alternative");
  const behind = isAlone ? declaredFrom(next, testsIn(condition, "||"), spelling) : undefined;
  return behind && { ...behind, isBehind: true };
}

/** Reads `Hive h = (Hive) o;` with the test that asks for the same. */
function declaredFrom(
  statement: SyntaxNode,
  tests: readonly SyntaxNode[],
  spelling: TypeSpelling,
): Omit<TestedType, "isBehind"> | undefined {
  const cast = spelling.cast(statement);
  if (!cast) return undefined;
  const value = withoutParentheses(cast.value);
  for (const test of tests) {
    const asked = spelling.test(test);
    if (asked && asked.type.text === cast.type.text && sameCode(withoutParentheses(asked.value), value))
      return { test, value, type: asked.type, declaration: statement, name: cast.name };
  }
  return undefined;
}

/** What must hold of a test and a cast in every language. */
export function testedTypeConditions(branch: Hole, spelling: TypeSpelling): Condition[] {
  return [
    condition("the name is free in the condition", (match) => isFree(match.the(branch), spelling)),
    condition("the object is the same when it is asked once", (match) =>
      isSideEffectFree(testedTypeAt(match.the(branch), spelling)!.value),
    ),
  ];
}

/** The rest of the condition may not mean another variable by the name. */
function isFree(node: SyntaxNode, spelling: TypeSpelling): Answer {
  const { name, test } = testedTypeAt(node, spelling)!;
  const use = node
    .child("condition")!
    .mentions(name.text)
    .find((one) => !test.holds(one) && one.field !== "field" && one.field !== "name");
  return use
    ? no("name.free", `\`${name.text}\` means something else here`, use)
    : yes("name.free", `\`${name.text}\` is not used in the condition`);
}

/** A statement behind another one, with the gap between them. */
function goneBehind(node: SyntaxNode, { start, end, tree }: SyntaxNode): Edit {
  const isApart = tree.text.slice(node.end, start).trim() !== "";
  return { start: isApart ? start : node.end, end, text: "" };
}

/** The branch with the name in its test, and without the declaration. */
export function withTypePattern(match: Match, branch: Hole, spelling: TypeSpelling): Segment[] {
  const node = match.the(branch);
  const { type, name, declaration, isBehind } = testedTypeAt(node, spelling)!;
  const final = /^final\b/.test(declaration.text) ? "final " : "";
  const edits: Edit[] = [
    { start: type.start, end: type.end, text: `${final}${type.text} ${name.text}` },
    isBehind ? goneBehind(node, declaration) : removal(declaration),
  ];
  const [first, last] = [match.nodes[0]!, match.nodes.at(-1)!];
  const end = Math.max(last.end, edits.at(-1)!.end);
  return [copy(first.start, end, edits)];
}

/** The nodes that the branch and the declaration take. */
export function withCast(node: SyntaxNode, spelling: TypeSpelling): readonly SyntaxNode[] {
  return testedTypeAt(node, spelling)!.isBehind ? [node, node.nextPart!] : [node];
}
