import { dedented } from "../rewrite/index.js";

/** Longer lines are broken. */
export const WIDTH = 110;

/** What a rule file consists of, from the top to the bottom. */
export interface RuleFile {
  /** The names that it imports from `uvran`. */
  readonly uses: Iterable<string>;
  /** Holes, new names, functions for trials: whole lines. */
  readonly declared: readonly string[];
  /** The name of the rule as a value. */
  readonly exported: string;
  /** The properties of the rule, each with its comma. */
  readonly body: readonly string[];
}

/** A rule file as a person would write it. */
export function ruleFile({ uses, declared, exported, body }: RuleFile): string {
  const imports = [...new Set(uses)].sort((a, b) => a.localeCompare(b));
  const short = `import { ${imports.join(", ")} } from "uvran";`;
  const long = `import {\n${imports.map((one) => `  ${one},\n`).join("")}} from "uvran";`;
  return [
    short.length <= WIDTH ? short : long,
    "",
    ...declared,
    ...(declared.length === 0 ? [] : [""]),
    `export const ${exported} = rule({`,
    ...body.map((line) => `  ${line}`),
    "});",
    "",
  ].join("\n");
}

/** Code in a template after its tag; several lines stand below, one step deeper than a line that is `depth` deep. */
export function snippetSource(tag: string, code: string, depth: number): string {
  const text = dedented(code);
  if (!text.includes("\n")) return `${tag}\`${text}\``;
  const pad = " ".repeat(depth);
  const inner = text
    .split("\n")
    .map((line) => (line.trim() === "" ? "" : `${pad}  ${line}`))
    .join("\n");
  return `${tag}\`\n${inner}\n${pad}\``;
}

/** Code as it stands in a template: backslashes are its own there. */
export const escapedCode = (text: string): string => text.replace(/`/g, "\\`").replace(/\$\{/g, "\\${");

/** The line that declares holes; broken where it is too long. */
export function holesSource(kinds: readonly (readonly [name: string, kind: string])[]): string[] {
  const names = kinds.map(([name]) => name).join(", ");
  const specs = kinds.map(([name, kind]) => `${name}: ${JSON.stringify(kind)}`);
  const short = `const { ${names} } = holes({ ${specs.join(", ")} });`;
  if (short.length <= WIDTH) return [short];
  return [`const { ${names} } = holes({`, ...specs.map((one) => `  ${one},`), "});"];
}
