import { readdirSync, readFileSync } from "node:fs";
import { countErrors, languageOfFile, textAfter } from "uvran/core";
import { isInstalled } from "../toolchains.js";
import { engineFor, outcomes, printed, readProgram, runOf } from "./programs.js";

const FOLDER = "tests/fixed/programs";

/** Each file is a fault that was mended, named after what went wrong. */
test.each(readdirSync(FOLDER))("%s", async (file) => {
  const program = readProgram(file, readFileSync(`${FOLDER}/${file}`, "utf8"));
  const { path, text, expected } = program;
  const language = languageOfFile(path)!;
  const engine = engineFor(program);
  const result = (await engine.file(path, text))!;
  expect(countErrors(text, language)).toBe(0);
  const got = outcomes(result, expected);
  const wrong: string[] = [];
  for (const line of new Set([...expected.keys(), ...got.keys()])) {
    const wanted = expected.get(line);
    const code = `${line}: ${text.split("\n")[line - 1]!.trim()}`;
    const seen = got.get(line)?.join("; ") ?? "nothing";
    const fits =
      wanted === undefined
        ? seen === "nothing"
        : wanted.startsWith("held")
          ? seen.startsWith("held") && seen.includes(wanted.slice("held:".length).trim())
          : seen.startsWith(wanted) || seen.split("; ").some((one) => one.startsWith(wanted));
    if (!fits)
      wrong.push(`${code}\n  expected ${wanted ?? "nothing"}, got ${seen}\n${grounds(result, line)}`);
  }
  expect(wrong.join("\n")).toBe("");
  const sure = result.changes.filter(({ trust }) => trust === "certain");
  const after = await textAfter(path, text, sure);
  expect(countErrors(after, language)).toBe(0);
  const again = ((await engine.file(path, after))?.changes ?? []).filter(({ trust }) => trust === "certain");
  expect(again.map(({ line, rules }) => `${line} ${rules.join()}`)).toEqual([]);
  const how = runOf(program);
  if (!program.runs || !how || !how.tools.every(isInstalled)) return;
  const before = printed(program, text, how.run);
  expect(before).toMatch(/exit 0$/);
  if (after !== text) expect(printed(program, after, how.run)).toBe(before);
});

function grounds(
  {
    changes,
  }: { changes: readonly { line: number; evidence: readonly { answer: string; says: string }[] }[] },
  at: number,
): string {
  return changes
    .filter(({ line }) => line === at)
    .flatMap(({ evidence }) => evidence.map(({ answer, says }) => `    ${answer}: ${says}`))
    .join("\n");
}
