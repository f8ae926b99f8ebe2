import type { SyntaxNode } from "../../syntax/index.js";
import { surroundingsOf } from "../project.js";
import { originOf } from "../types/origin.js";
import type { LibraryValues } from "./facts.js";
import { tableOf } from "./table.js";

/** What a library's table says of a value that is read: `os.environ`. */
export function valueOfLibrary(expression: SyntaxNode): LibraryValues | undefined {
  const { language } = expression.tree;
  const { values } = tableOf(language, surroundingsOf(expression.tree).library);
  if (values.size === 0 || !(expression.isLeaf || expression.is(language.memberReads))) return undefined;
  const name = expression.isLeaf ? expression.text : expression.lastPart?.text;
  // Under another name the table would have to be asked for each import.
  const row = name === undefined ? undefined : values.get(name);
  const origin = row && originOf(expression);
  return origin?.module === row?.in && origin?.name === name ? row : undefined;
}
