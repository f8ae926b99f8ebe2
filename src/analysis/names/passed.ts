import type { SyntaxNode } from "../../syntax/index.js";
import { calledFromLibrary } from "../library/called.js";
import { nameInFile, referencesAt } from "./declarations.js";
import { targetAround } from "./use.js";

/**
 * How a call takes a variable: as a value, or by a reference through which it can change it; by what is known of the
 * library, or by the function where it stands in this file.
 */
export function howPassed(name: SyntaxNode): "value" | "reference" | "unknown" {
  const { language } = name.tree;
  const argument = argumentAround(name);
  const list = argument?.parent;
  const call = list?.parent;
  if (!argument || !list || !call?.is(language.calls)) return "unknown";
  const row = calledFromLibrary(call);
  if (row && row.effect !== "changes") return "value";
  const callee = call.firstPart;
  const to = callee?.isLeaf ? referencesAt(callee).find((one) => one.to)?.to : undefined;
  if (to?.as !== "function") return "unknown";
  const place = list.parts.findIndex((part) => part.same(argument));
  return to.at.every((at) => takesValue(at, place)) ? "value" : "reference";
}

/** Is a variable that is passed to a call certainly left alone by it? */
export const isPassedByValue = (name: SyntaxNode): boolean => howPassed(name) === "value";

/** What stands in the list of arguments and is, but for parentheses and the like, the variable. */
function argumentAround(name: SyntaxNode): SyntaxNode | undefined {
  const { argumentLists, notExpressions } = name.tree.language;
  const target = targetAround(name);
  const above = target.parent;
  const argument = above?.is(notExpressions) ? above : target;
  return argument.parent?.is(argumentLists) ? argument : undefined;
}

/** Does a function take what is given for a parameter as a value? */
function takesValue(name: SyntaxNode, place: number): boolean {
  const { parameterLists, binding } = name.tree.language;
  for (let at = name.parent; at; at = at.parent) {
    const list = at.parts.find((part) => part.is(parameterLists));
    if (!list) continue;
    const { parts } = list;
    const parameter = parts[Math.min(place, parts.length - 1)];
    return parameter !== undefined && !/\.\.\./.test(list.text) && !binding.takesReference(parameter);
  }
  return false;
}

/** The names that read, set or make variables by their names as text, where they stand in some code. */
export function reflectionIn(code: readonly SyntaxNode[]): SyntaxNode | undefined {
  const [first] = code;
  if (!first) return undefined;
  const { tree } = first;
  const isIn = (node: SyntaxNode): boolean => code.some((one) => one.holds(node));
  for (const n of tree.ofKinds(tree.language.namesWorkedOut ?? [])) {
    const node = tree.node(n);
    if (isIn(node)) return node;
  }
  for (const word of tree.language.reflection) {
    const { references } = nameInFile(tree.language.binding.bareText(word), tree);
    const found = references.find(({ node, to, member }) => !to && !member && isIn(node));
    if (found) return found.node;
  }
  return undefined;
}
