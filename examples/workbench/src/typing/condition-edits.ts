import ts from "typescript";
import { importing } from "./import-edits";
import { ruleAt, ruleFile, valueOf } from "./rule-parts";
import { appendTo, applied, propertyBehind } from "./text-edits";

/** The file with one more condition of a rule. */
export function asking(text: string, index: number, source: string, imports: readonly string[]): string {
  const known = ruleFile(text);
  const { file } = known;
  const { spec } = ruleAt(known, index);
  const given = valueOf(spec, "given");
  if (given && ts.isArrayLiteralExpression(given))
    return importing(applied(text, [appendTo(given.elements, given, source, file)]), imports);
  if (given) throw new Error("What is `given` is worked out by code here; write the condition there.");
  return importing(
    applied(text, [propertyBehind(spec, ["where", "was"], `given: [${source}]`, file)]),
    imports,
  );
}

/** The file without a condition of a rule. */
export function notAsking(text: string, index: number, source: string): string {
  const known = ruleFile(text);
  const { file } = known;
  const given = valueOf(ruleAt(known, index).spec, "given");
  if (!given || !ts.isArrayLiteralExpression(given)) return text;
  const i = given.elements.findIndex((one) => one.getText(file) === source);
  const node = given.elements[i];
  if (!node) return text;
  if (given.elements.length === 1) {
    const property = given.parent;
    const end = file.text[property.end] === "," ? property.end + 1 : property.end;
    return applied(text, [{ from: property.getFullStart(), to: end, insert: "" }]);
  }
  const next = given.elements[i + 1];
  const range = next
    ? { from: node.getStart(file), to: next.getStart(file) }
    : { from: given.elements[i - 1]!.end, to: node.end };
  return applied(text, [{ ...range, insert: "" }]);
}
