import { isMissing, operatorOf, referencesAt } from "../../analysis/index.js";
import { jumpOf, partsOf, shapeOf, type SyntaxNode } from "../../syntax/index.js";

/**
 * Where a use stands: an argument of a call; what a member is read of; what is read through a pointer, of which both signs
 * count (`p->x`, `*p`); what is returned; a statement by itself; what a branch or a comparison with nothing asks for; one side
 * of a comparison; what is given a value; what has its address taken; what a function within sees.
 */
export type UsePlace =
  | "argument"
  | "receiver"
  | "dereferenced"
  | "returned"
  | "statement"
  | "tested"
  | "compared"
  | "assigned"
  | "address"
  | "captured";

/** Does a use stand in a place? `name` is the name itself in code that may be more: `this->hive`. */
export function standsIn(place: UsePlace | undefined, node: SyntaxNode, name: SyntaxNode): boolean {
  const { language } = node.tree;
  const { parent } = node;
  if (place === undefined) return true;
  if (!parent) return false;
  switch (place) {
    case "argument":
      return parent.is(language.argumentLists);
    case "receiver":
      return isReceiver(node, parent);
    case "dereferenced":
      return isDereferenced(node, parent);
    case "returned":
      return jumpOf(parent) === "return";
    case "statement":
      return parent.is(language.expressionStatement);
    case "tested":
      return isTested(node, parent);
    case "compared":
      return parent.is(language.binary) && COMPARES.test(operatorOf(parent));
    case "assigned":
      return referencesAt(name).some(({ does }) => does === "write" || does === "update");
    case "address":
      return referencesAt(name).some(({ does }) => does === "address");
    case "captured":
      return referencesAt(name).some(({ captured }) => captured);
  }
}

const COMPARES = /^(===?|!==?|<>|<=?|>=?|is|is not|-(c|i)?(eq|ne|lt|le|gt|ge))$/;
const EQUALITY = /^(===?|!==?|<>|is|is not|-(c|i)?(eq|ne))$/;

function isReceiver(node: SyntaxNode, parent: SyntaxNode): boolean {
  return parent.is(parent.tree.language.memberReads) && parent.firstPart?.same(node) === true;
}

function isDereferenced(node: SyntaxNode, parent: SyntaxNode): boolean {
  const { pointers } = node.tree.language;
  if (!pointers) return isReceiver(node, parent);
  if (isReceiver(node, parent)) return parent.children.some((child) => pointers.steps.includes(child.kind));
  return parent.children[0]?.kind === pointers.signs[parent.kind];
}

/** Is a value asked for being there or true: by a branch, by an operator between tests, or beside a missing value? */
function isTested(node: SyntaxNode, parent: SyntaxNode): boolean {
  const { binary, parenthesized } = node.tree.language;
  const shape = shapeOf(parent);
  if (shape?.is === "negation" || shape?.is === "shortCircuit") return true;
  if (shape?.is === "branch" || shape?.is === "loop")
    return shape.test !== undefined && partsOf(parent, shape.test).some((test) => test.same(node));
  if (parent.is(binary)) {
    const other = parent.parts.find((part) => !part.same(node));
    return EQUALITY.test(operatorOf(parent)) && other !== undefined && isMissing(other);
  }
  const isWrapped = parent.is(parenthesized) || /_clause$|_condition$/.test(parent.kind);
  return (
    isWrapped && parent.parts.length === 1 && parent.parent !== undefined && isTested(parent, parent.parent)
  );
}
