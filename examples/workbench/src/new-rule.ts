/** A rule file whose old code is a piece of code, which is also what it becomes: the start of a rule by pointing. */
export function ruleFromCode(language: string, code: string): string {
  const lines = dedented(code).split("\n");
  const snippet =
    lines.length === 1
      ? lines[0]!
      : `\n${lines.map((line) => (line === "" ? "" : `    ${line}`)).join("\n")}\n  `;
  const safe = snippet.replace(/`/g, "\\`").replace(/\$\{/g, "\\${");
  return fileWith(language, {
    imports: [language, "rule"],
    holes: [],
    was: `${language}\`${safe}\``,
    end: `becomes: ${language}\`${safe}\`,`,
  });
}

/** A rule file whose old code is a reading, as `outline` writes it; it reports, until its author says what the code becomes. */
export function ruleFromReading(language: string, reading: string): string {
  const words = [...reading.replace(/"[^"]*"/g, "").matchAll(/([A-Za-z_]\w*)(\s*[(:])?/g)];
  const imports = words.filter(([, , sign]) => sign?.includes("(")).map(([, word]) => word!);
  const holes = words.filter(([, , sign]) => sign === undefined).map(([, word]) => word!);
  return fileWith(language, {
    imports: [...new Set([...imports, "holes", "rule"])].sort(),
    holes: [...new Set(holes)].map((name) => [name, KINDS[name] ?? "expression"]),
    was: `${reading}`,
    end: `advice: "Say what to do instead, or write \`becomes\` in the place of this line.",`,
  });
}

/** The holes of readings that are no expressions. */
const KINDS: Readonly<Record<string, string>> = { index: "name", body: "statements" };

interface Pieces {
  readonly imports: readonly string[];
  readonly holes: readonly (readonly [name: string, kind: string])[];
  readonly was: string;
  readonly end: string;
}

function fileWith(language: string, { imports, holes, was, end }: Pieces): string {
  const names = holes.map(([name]) => name).join(", ");
  const specs = holes.map(([name, kind]) => `${name}: "${kind}"`).join(", ");
  const declared = holes.length === 0 ? "" : `const { ${names} } = holes({ ${specs} });\n\n`;
  return `import { ${imports.join(", ")} } from "uvran";

${declared}export const newRule = rule({
  id: "${language}/new-rule",
  kind: "idiom",
  title: "Say in one line what the rule does",
  why: "Say here what is wrong with the old code.",
  was: ${was},
  ${end}
  trials: [],
});
`;
}

/** Code without the indentation that all its lines but the first have in common. */
function dedented(code: string): string {
  const [first = "", ...rest] = code.trimEnd().split("\n");
  const depths = rest.filter((line) => line.trim() !== "").map((line) => /^[ \t]*/.exec(line)![0].length);
  const closing = depths.at(-1) ?? 0;
  const least = Math.min(closing, ...depths);
  return [first.trimStart(), ...rest.map((line) => line.slice(Math.min(least, line.length)))].join("\n");
}
