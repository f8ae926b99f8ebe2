import type { RuleFacts } from "uvran/core";
import contents from "virtual:contents";

export const PACKS = contents.packs;
const BY_ID = new Map(PACKS.flatMap(({ rules }) => rules.map((rule) => [rule.id, rule] as const)));

export function ruleOf(id: string): RuleFacts | undefined {
  return BY_ID.get(id);
}

/** Packs and languages as people call them. */
export const LANGUAGE_NAMES: Readonly<Record<string, string>> = {
  javascript: "JavaScript and TypeScript",
  typescript: "TypeScript",
  python: "Python",
  java: "Java",
  cpp: "C++",
  csharp: "C#",
  php: "PHP",
  ruby: "Ruby",
  powershell: "PowerShell",
};

const ENDINGS: Readonly<Record<string, string>> = {
  javascript: "js",
  typescript: "ts",
  tsx: "tsx",
  python: "py",
  java: "java",
  cpp: "cpp",
  csharp: "cs",
  php: "php",
  ruby: "rb",
  powershell: "ps1",
};

/** A name for a file of this language, which a code block may name by the ending of its files. */
export function fileOf(language: string): string {
  return `old.${ENDINGS[language] ?? language}`;
}
