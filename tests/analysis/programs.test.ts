import { readdirSync } from "node:fs";
import { languageOfFile, loadGrammars } from "uvran";
import "uvran/node";
import { programsIn, told } from "./programs.js";

const FOLDER = new URL("./programs/", import.meta.url);
const files = readdirSync(FOLDER).sort();
await loadGrammars(files.map((file) => languageOfFile(file)!));

/** How many programs each language has at least: more where it has more users. */
const LEAST: Readonly<Record<string, number>> = { php: 20, ruby: 20, powershell: 20 };

describe.each(files)("%s", (file) => {
  const programs = programsIn(`./programs/${file}`);

  test("has enough programs", () => {
    expect(programs.length).toBeGreaterThanOrEqual(LEAST[languageOfFile(file)!.id] ?? 40);
  });

  test.each(programs.map((program) => [program.title, program] as const))("%s", (_title, program) => {
    expect(program.tree.errors).toEqual([]);
    const expected = program.expectations.map(({ line, says }) => `${line}: ${says}`);
    const answers = program.expectations.map((one) => `${one.line}: ${told(program, one)}`);
    expect(answers).toEqual(expected);
    expect(expected.length).toBeGreaterThan(0);
  });
});
