import { calledFromLibrary, changesOf, referencesAt, shortened, unknown, usesOf, yes } from "../../core.js";
import type { Answer, SyntaxNode } from "../../core.js";

/** Has every place of a list been filled? Methods of the language leave out the others, which a loop sees as undefined. */
export function isFilled(node: SyntaxNode, depth = 0): Answer {
  const code = "value.kind";
  const says = `\`${shortened(node.text)}\` could have places that were never filled, which the language leaves out`;
  const open = unknown(code, says, node);
  if (depth > 5) return open;
  if (node.is("parenthesized_expression") && node.firstPart) return isFilled(node.firstPart, depth);
  if (node.is("array"))
    return /^\[\s*,|,\s*,/.test(node.parts.length < 50 ? withoutParts(node) : "")
      ? open
      : yes(code, `every place of \`${shortened(node.text)}\` is filled`, node);
  if (node.is("call_expression")) {
    const row = calledFromLibrary(node);
    if (row?.gives !== "Array") return open;
    const read = node.child("function")!;
    const isKept = /^(map|slice|concat)$/.test(read.child("property")?.text ?? "") && row.in === undefined;
    if (isKept) return isFilled(read.child("object")!, depth + 1);
    return yes(code, `\`${shortened(node.text)}\` gives a list whose places are all filled`, node);
  }
  const to = node.is("identifier") ? referencesAt(node).find(({ member }) => !member)?.to : undefined;
  if (!to || to.as === "parameter" || to.as === "import" || usesOf(to).doubts.length > 0) return open;
  const changes = changesOf(to);
  for (const { node: at } of changes) {
    const declarator = at.parent?.is("variable_declarator") ? at.parent : undefined;
    const value = declarator?.child("name")?.same(at) ? declarator.child("value") : undefined;
    const given = value ?? (at.parent?.is("assignment_expression") ? at.parent.child("right") : undefined);
    if (!given || isFilled(given, depth + 1).is !== "yes") return open;
  }
  const isSet = node.tree.root.mentions(node.text).some(isItemSet);
  return isSet || changes.length === 0 ? open : yes(code, `every place of \`${node.text}\` is filled`, node);
}

const withoutParts = (list: SyntaxNode): string =>
  list.children.map((child) => (child.named && !child.is("comment") ? "x" : child.text)).join("");

/** Is an item of a list set by its position or deleted, or its length set? */
function isItemSet(name: SyntaxNode): boolean {
  const read = name.parent;
  if (!read?.is(["subscript_expression", "member_expression"]) || !read.child("object")?.same(name))
    return false;
  if (read.is("member_expression") && read.child("property")?.text !== "length") return false;
  return isWrittenTo(read);
}

/** Is a member or an item written, deleted or counted up? */
export function isWrittenTo(read: SyntaxNode): boolean {
  const around = read.parent;
  return (
    (around?.is(["assignment_expression", "augmented_assignment_expression"]) === true &&
      around.child("left")?.same(read) === true) ||
    around?.is(["update_expression", "unary_expression"]) === true
  );
}
