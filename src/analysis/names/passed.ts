import type { SyntaxNode } from "../../syntax/index.js";
import { calledFromLibrary } from "../library/called.js";
import { referencesAt } from "./declarations.js";
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
  const ways = to.at.map((at) => takenAt(at, place));
  if (ways.includes("reference")) return "reference";
  return ways.includes("unknown") ? "unknown" : "value";
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

/** How a function takes what is given for a parameter; nobody knows for one that takes any number. */
function takenAt(name: SyntaxNode, place: number): "value" | "reference" | "unknown" {
  const { parameterLists, binding } = name.tree.language;
  for (let at = name.parent; at; at = at.parent) {
    const list = at.parts.find((part) => part.is(parameterLists));
    if (!list) continue;
    const parameter = list.parts[place];
    if (!parameter || /\.\.\./.test(list.text)) return "unknown";
    return binding.takesReference(parameter) ? "reference" : "value";
  }
  return "unknown";
}
