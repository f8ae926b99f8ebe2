import ts from "typescript";
import type { TextChange } from "./protocol";
import { nameOf } from "./rule-parts";

/** A text with changes made in it, whose places do not overlap. */
export function applied(text: string, changes: readonly TextChange[]): string {
  return [...changes]
    .sort((a, b) => b.from - a.from || b.to - a.to)
    .reduce((now, { from, to, insert }) => now.slice(0, from) + insert + now.slice(to), text);
}

/** One more entry in a list in braces or brackets. */
export function appendTo(
  list: ts.NodeArray<ts.Node>,
  around: ts.Node,
  entry: string,
  file: ts.SourceFile,
): TextChange {
  const last = list.at(-1);
  if (!last) {
    const at = around.getStart(file) + 1;
    return { from: at, to: around.end - 1, insert: file.text[at - 1] === "[" ? entry : ` ${entry} ` };
  }
  const isBelow = file.text.slice(last.end, around.end).includes("\n");
  const indent = /[ \t]*$/.exec(file.text.slice(0, last.getStart(file)))![0];
  return { from: last.end, to: last.end, insert: isBelow ? `,\n${indent}${entry}` : `, ${entry}` };
}

/** A property put behind the first of some that a rule has. */
export function propertyBehind(
  spec: ts.ObjectLiteralExpression,
  names: readonly string[],
  property: string,
  file: ts.SourceFile,
): TextChange {
  const behind = names
    .map((name) => spec.properties.find((one) => one.name && nameOf(one.name) === name))
    .find((one) => one !== undefined);
  const last = behind ?? spec.properties.at(-1);
  if (!last) return { from: spec.getStart(file) + 1, to: spec.getStart(file) + 1, insert: ` ${property} ` };
  const indent = /[ \t]*$/.exec(file.text.slice(0, last.getStart(file)))![0];
  return { from: last.end, to: last.end, insert: `,\n${indent}${property}` };
}

/** Is this one name of TypeScript, and no word of the language? */
export function isName(text: string): boolean {
  const scanner = ts.createScanner(ts.ScriptTarget.ES2022, true, ts.LanguageVariant.Standard, text);
  return scanner.scan() === ts.SyntaxKind.Identifier && scanner.getTokenEnd() === text.length;
}
