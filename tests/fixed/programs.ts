import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { Engine, filesNaming, languageOfFile, yes, type FileResult, type LanguageId } from "uvran/core";
import "uvran/node";
import { SHIPPED } from "uvran/packs";

/**
 * A small program that shows something that once went wrong. What is expected of a line stands behind `!` in a comment
 * at its end, and is taken out before the program is looked at:
 *
 *     x ?? y //! certain
 *     x ?? y //! likely csharp/value-or-fallback
 *     x ?? y //! held: has an operator
 *
 * A line without one is changed by no rule. Lines of their own: `//! file PATH` begins another file of the project,
 * `//! target VERSION` sets the version of the language, `//! rules ID, …` switches on what is a matter of taste,
 * `//! run` has the program compiled and run before and after what is certain.
 */
export interface FixedProgram {
  readonly path: string;
  readonly text: string;
  readonly others: readonly { readonly path: string; readonly text: string }[];
  readonly expected: ReadonlyMap<number, string>;
  readonly target: string | undefined;
  readonly rules: readonly string[];
  readonly runs: boolean;
}

const MARK = /[ \t]*(?:\/\/|#)! ?(.*)$/;

export function readProgram(file: string, source: string): FixedProgram {
  const files: { path: string; lines: string[] }[] = [{ path: file, lines: [] }];
  const expected = new Map<number, string>();
  let target: string | undefined;
  let rules: readonly string[] = [];
  let runs = false;
  for (const line of source.split("\n")) {
    const [mark, says = ""] = MARK.exec(line) ?? [];
    const code = mark === undefined ? line : line.slice(0, line.length - mark.length);
    const { lines } = files.at(-1)!;
    const [word, rest = ""] = says.split(/ (.*)/s) as [string, string?];
    if (mark !== undefined && code === "" && word === "file") {
      files.push({ path: rest, lines: [] });
      continue;
    }
    if (mark !== undefined && code === "" && /^(target|rules|run)$/.test(word)) {
      if (word === "target") target = rest;
      if (word === "rules") rules = rest.split(/,\s*/);
      if (word === "run") runs = true;
      lines.push("");
      continue;
    }
    lines.push(code);
    if (mark !== undefined && files.length === 1) expected.set(lines.length, says);
  }
  const [own, ...others] = files.map(({ path, lines }) => ({ path, text: lines.join("\n") }));
  return { path: own!.path, text: own!.text, others, expected, target, rules, runs };
}

const ALL = SHIPPED.flatMap(({ rules }) => rules);

export function engineFor({ path, text, others, target, rules }: FixedProgram): Engine {
  return new Engine(
    ALL.filter(({ id, taste }) => !taste || rules.includes(id)),
    {
      files: filesNaming([{ path, text }, ...others]),
      types: {
        strictNulls: () => yes("type.strict-null", "`strict` is on in the test"),
        typeAt: () => undefined,
        declarationAt: () => undefined,
      },
      targets: {
        meansAssumed: true,
        targetOf: () => (target === undefined ? undefined : { version: target, says: "by the test" }),
      },
    },
  );
}

/** What became of each line, in the words of the expectations. */
export function outcomes(
  { changes, heldBack, advice = [] }: FileResult,
  expected: ReadonlyMap<number, string>,
) {
  const result = new Map<number, string[]>();
  const add = (line: number, what: string): void => {
    result.set(line, [...(result.get(line) ?? []), what]);
  };
  for (const { line, trust, rules } of changes) add(line, `${trust} ${rules.join(" + ")}`);
  for (const { line, reason, rule } of heldBack)
    if (/^held/.test(expected.get(line) ?? "")) add(line, `held: ${reason} (${rule})`);
  for (const { line, says } of advice)
    if (/^advice/.test(expected.get(line) ?? "")) add(line, `advice: ${says}`);
  return result;
}

/** What runs a program of each language; `{}` is the file. */
const RUNS: Readonly<Partial<Record<LanguageId, { tools: readonly string[]; run: string }>>> = {
  javascript: { tools: [], run: `${process.execPath} {}` },
  python: { tools: ["python3"], run: "python3 -W ignore {}" },
  java: { tools: ["javac", "java"], run: "javac -nowarn -Xlint:none -d . *.java && java -cp . Main" },
  cpp: { tools: ["g++"], run: "g++ -std=c++17 -pthread -o program {} && ./program" },
  csharp: {
    tools: ["mcs", "mono"],
    run: "mcs -langversion:7.2 -nowarn:67,168,219,649 -out:program.exe *.cs && mono program.exe",
  },
  php: { tools: ["php"], run: "php -d display_errors=stderr {}" },
  ruby: { tools: ["ruby"], run: "ruby {}" },
};

export function runOf({ path }: FixedProgram) {
  return RUNS[languageOfFile(path)!.id];
}

/** All that a program prints. */
export function printed({ path, others }: FixedProgram, text: string, run: string): string {
  const folder = mkdtempSync(join(tmpdir(), "uvran-fixed-"));
  for (const file of [{ path, text }, ...others]) {
    mkdirSync(join(folder, dirname(file.path)), { recursive: true });
    writeFileSync(join(folder, file.path), file.text);
  }
  const options = { cwd: folder, encoding: "utf8" as const, timeout: 60_000 };
  const { stdout, stderr, status } = spawnSync("sh", ["-c", run.replaceAll("{}", path)], options);
  rmSync(folder, { recursive: true });
  return `${stdout}${stderr}exit ${status}`;
}
