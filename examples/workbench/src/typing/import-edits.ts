import ts from "typescript";
import { partsOf, ruleFile } from "./rule-parts";
import { appendTo, applied } from "./text-edits";

/** Where what follows the imports begins. */
export function afterImports({ statements, text }: ts.SourceFile): number {
  const last = statements.findLast(ts.isImportDeclaration);
  if (!last) return 0;
  const line = text.indexOf("\n", last.end);
  return line < 0 ? text.length : line + 1;
}

/** The file with names imported from `uvran`. */
export function importing(text: string, names: readonly string[]): string {
  const { file, imports } = ruleFile(text);
  const known = new Set(imports?.elements.map(({ name }) => name.text));
  const missing = names.filter((name) => !known.has(name));
  if (missing.length === 0) return text;
  if (!imports) return `import { ${missing.join(", ")} } from "uvran";\n${text}`;
  return missing.reduce((now, name) => {
    const again = ruleFile(now);
    const { elements } = again.imports!;
    const next = elements.find((one) => one.name.text.localeCompare(name) > 0);
    if (!next) return applied(now, [appendTo(elements, again.imports!, name, again.file)]);
    const at = next.getStart(again.file);
    return applied(now, [{ from: at, to: at, insert: `${name}, ` }]);
  }, file.text);
}

/** The file with the languages imported whose tags it uses. */
export function importingTags(text: string): string {
  const tags = partsOf(text)
    .rules.flatMap(({ was, becomes }) => [...was, ...becomes])
    .map(({ language }): string => language);
  return importing(text, [...new Set(tags)]);
}
