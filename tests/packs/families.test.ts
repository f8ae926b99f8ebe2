import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { basename, join } from "node:path";
import { countErrors, Engine, filesNaming, languageOfFile, loadGrammars, textAfter } from "uvran/core";
import "uvran/node";
import { SHIPPED } from "uvran/packs";
import { testWith } from "../toolchains.js";

const FOLDER = "tests/golden/families";
/** Programs full of cases in which a careless rewrite means something else; what runs them, `{}` being the file. */
const PROGRAMS: readonly (readonly [file: string, tools: readonly string[], run: string | undefined])[] = [
  ["Traps.java", ["javac", "java"], "javac -d . {} && java -cp . Traps"],
  ["traps.cpp", ["g++"], "g++ -std=c++17 -Wall -Werror -pthread -o traps {} && ./traps out.txt"],
  ["Traps.cs", ["mcs", "mono"], "mcs -langversion:7.2 -nowarn:67 -out:traps.exe {} && mono traps.exe"],
  ["traps.php", ["php"], "php {}"],
  ["traps.rb", ["ruby"], "ruby {} out.txt"],
  ["traps.py", ["python3"], "python3 -W ignore {}"],
  ["traps.mjs", [], `${process.execPath} {}`],
  ["traps.ps1", [], undefined],
  ["Moves.java", ["javac", "java"], "javac -d . {} && java -cp . Moves"],
  ["moves.cpp", ["g++"], "g++ -std=c++17 -Wall -Werror -Wno-sign-compare -o moves {} && ./moves"],
  ["Moves.cs", ["mcs", "mono"], "mcs -langversion:7.2 -out:moves.exe {} && mono moves.exe"],
  ["moves.php", ["php"], "php {}"],
  ["moves.rb", ["ruby"], "ruby {}"],
];
/** What the toolchains above understand. */
const TARGETS: Readonly<Record<string, string>> = { cpp: "17", csharp: "7.2", php: "8.0", java: "8" };

const engine = new Engine(
  SHIPPED.flatMap(({ rules }) => rules),
  {
    files: filesNaming([]),
    targets: {
      meansAssumed: true,
      targetOf: ({ language }) => {
        const version = TARGETS[language.id];
        return version === undefined ? undefined : { version, says: "by the test" };
      },
    },
  },
);

function printed(code: string, file: string, run: string): string {
  const folder = mkdtempSync(join(tmpdir(), "uvran-families-"));
  writeFileSync(join(folder, file), code);
  const { stdout, stderr, status } = spawnSync("sh", ["-c", run.replaceAll("{}", file)], {
    cwd: folder,
    encoding: "utf8",
  });
  rmSync(folder, { recursive: true });
  return `${stdout}${stderr}exit ${status}`;
}

for (const [file, tools, run] of PROGRAMS) {
  const [name, ending] = basename(file).split(".") as [string, string];
  testWith(tools, `${file} becomes what it should, and does the same`, async () => {
    const before = readFileSync(join(FOLDER, `${name}.before.${ending}`), "utf8");
    const language = languageOfFile(file)!;
    await loadGrammars([language]);
    const found = await engine.file(file, before);
    const sure = found?.changes.filter(({ trust }) => trust === "certain") ?? [];
    const after = await textAfter(file, before, sure);
    const golden = join(FOLDER, `${name}.after.${ending}`);
    if (process.env["UPDATE_GOLDEN"] || !existsSync(golden)) writeFileSync(golden, after);
    expect(after).toBe(readFileSync(golden, "utf8"));
    expect(countErrors(after, language)).toBe(0);
    // What was less than certain before may be certain now that other changes are made.
    const known = new Set(found?.changes.map(({ rules, title }) => `${rules.join()} ${title}`));
    const again = (await engine.file(file, after))?.changes
      .filter(({ trust }) => trust === "certain")
      .map(({ rules, title }) => `${rules.join()} ${title}`);
    expect(again?.filter((one) => !known.has(one))).toEqual([]);
    if (run === undefined) return;
    expect(printed(before, file, run)).toMatch(/exit 0$/);
    expect(printed(after, file, run)).toBe(printed(before, file, run));
  });
}
