import type { LanguageId } from "uvran/core";

/** How a language writes what the respellings need; code goes in by name. */
export interface Writing {
  not(test: string): string;
  /** Statements in the ways of a branch; each is one statement, as the language ends it. */
  ifElse(test: string, yes: string, no: string): string;
  ifOnly(test: string, yes: string): string;
  /** `t ? a : b`; undefined where there is none, or not in all versions. */
  conditional?(test: string, yes: string, no: string): string;
  /** An unrelated statement, and a comment on a line of its own. */
  readonly noise: string;
  comment(text: string): string;
  /** The statement with everything in a function, a loop, a further block. */
  readonly wraps: Readonly<Record<string, (code: string) => string>>;
  /** Does the language let a statement of a branch stand without braces? */
  readonly bare?: (test: string, yes: string, no: string | undefined) => string;
  /** May the sides of a comparison with a missing value be swapped? */
  readonly swaps: boolean;
  /** Ends a statement. */
  readonly end: string;
  /** What asks for null alone, with the code that is asked as its only group; and a `switch` that asks the same. */
  readonly asksForNull?: RegExp;
  switched?(subject: string, gone: string, there: string, isExpression: boolean): string | undefined;
  /** Declares a variable without a value. */
  declare?(name: string): string;
}

const indented = (code: string, by: string): string =>
  code
    .split("\n")
    .map((line) => (line.trim() === "" ? line : by + line))
    .join("\n");

const braces = {
  not: (test: string) => `!(${test})`,
  ifElse: (test: string, yes: string, no: string) => `if (${test}) {\n    ${yes}\n} else {\n    ${no}\n}`,
  ifOnly: (test: string, yes: string) => `if (${test}) {\n    ${yes}\n}`,
  conditional: (test: string, yes: string, no: string) => `${test} ? ${yes} : ${no}`,
  comment: (text: string) => `// ${text}`,
  bare: (test: string, yes: string, no: string | undefined) =>
    no === undefined ? `if (${test}) ${yes}` : `if (${test}) ${yes}\nelse ${no}`,
  swaps: true,
  end: ";",
};

const ended = (statement: string): string =>
  /^(return|throw)\b/.test(statement) ? statement : `${statement}\n        break;`;

const javascript: Writing = {
  ...braces,
  asksForNull: /^([\w.$]+) == null$/,
  switched: (subject, gone, there, isExpression) =>
    isExpression
      ? undefined
      : `switch (${subject}) {\n    case null:\n    case undefined:\n        ${ended(gone)}\n    default:\n        ${ended(there)}\n}`,
  noise: "note(1);",
  declare: (name) => `let ${name};`,
  wraps: {
    function: (code) => `function wrapped() {\n${indented(code, "    ")}\n}`,
    loop: (code) => `for (const one of [1]) {\n${indented(code, "    ")}\n}`,
    arrow: (code) => `const wrapped = () => {\n${indented(code, "  ")}\n};`,
  },
};

const csharp: Writing = {
  ...braces,
  asksForNull: /^([\w.]+) == null$/,
  switched: (subject, gone, there, isExpression) =>
    isExpression
      ? `(${subject} switch { null => ${gone}, _ => ${there} })`
      : `switch (${subject}) {\n    case null:\n        ${ended(gone)}\n    default:\n        ${ended(there)}\n}`,
  noise: "Note(1);",
  wraps: {},
};
const java: Writing = { ...braces, noise: "note(1);", wraps: {} };
const php: Writing = {
  ...braces,
  asksForNull: /^([\w.$>-]+) === null$/,
  switched: (subject, gone, there, isExpression) =>
    isExpression ? `match (${subject}) { null => ${gone}, default => ${there} }` : undefined,
  noise: "note(1);",
  wraps: {},
};

const python: Writing = {
  not: (test) => `not (${test})`,
  ifElse: (test, yes, no) => `if ${test}:\n    ${yes}\nelse:\n    ${no}`,
  ifOnly: (test, yes) => `if ${test}:\n    ${yes}`,
  conditional: (test, yes, no) => `${yes} if ${test} else ${no}`,
  noise: "note(1)",
  comment: (text) => `# ${text}`,
  wraps: {
    function: (code) => `def wrapped():\n${indented(code, "    ")}`,
    loop: (code) => `for one in [1]:\n${indented(code, "    ")}`,
  },
  swaps: false,
  end: "",
};

const ruby: Writing = {
  asksForNull: /^([\w.@]+)\.nil\?$/,
  switched: (subject, gone, there, isExpression) =>
    isExpression
      ? `(case ${subject} when nil then ${gone} else ${there} end)`
      : `case ${subject}\nwhen nil\n  ${gone}\nelse\n  ${there}\nend`,
  not: (test) => `!(${test})`,
  ifElse: (test, yes, no) => `if ${test}\n  ${yes}\nelse\n  ${no}\nend`,
  ifOnly: (test, yes) => `if ${test}\n  ${yes}\nend`,
  conditional: (test, yes, no) => `(${test}) ? ${yes} : ${no}`,
  noise: "note(1)",
  comment: (text) => `# ${text}`,
  wraps: { loop: (code) => `[1].each do |one|\n${indented(code, "  ")}\nend` },
  swaps: false,
  end: "",
};

const powershell: Writing = {
  not: (test) => `-not (${test})`,
  ifElse: (test, yes, no) => `if (${test}) {\n    ${yes}\n} else {\n    ${no}\n}`,
  ifOnly: (test, yes) => `if (${test}) {\n    ${yes}\n}`,
  noise: "Write-Verbose 'a note'",
  comment: (text) => `# ${text}`,
  wraps: {
    function: (code) => `function Wrapped {\n${indented(code, "    ")}\n}`,
    loop: (code) => `foreach ($one in 1) {\n${indented(code, "    ")}\n}`,
  },
  swaps: false,
  end: "",
};

/** By language; one that is not here is not respelt. */
export const WRITING: Partial<Record<LanguageId, Writing>> = {
  javascript,
  typescript: javascript,
  python,
  java,
  csharp,
  php,
  ruby,
  powershell,
};
