/**
 * Do npm packages still pass their own tests after renames? `npm run build && npx jiti bench/names/run-npm.ts
 * "COMMAND" PACKAGE…` gives every local, parameter and private function of each package (tests too) another name in
 * a copy, and runs the command in the old folder and in the new.
 */
import { spawnSync } from "node:child_process";
import { cpSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { basename, dirname, join, resolve } from "node:path";
import { isSeenElsewhere, languageOfFile, loadGrammars } from "uvran/core";
import { decode, findSources } from "uvran/node";
import { renameAll } from "./renamer.js";

const [command = "", ...packages] = process.argv.slice(2);
for (const folder of packages.map((path) => resolve(path))) {
  // Beside the old one, so that both find the same packages.
  const copy = join(dirname(folder), `${basename(folder)}-renamed`);
  rmSync(copy, { recursive: true, force: true });
  cpSync(folder, copy, { recursive: true });
  let count = 0;
  let left = 0;
  for (const path of findSources(copy, [], copy, []).paths) {
    const language = languageOfFile(path);
    if (language?.id !== "javascript") continue;
    await loadGrammars([language]);
    const text = decode(readFileSync(join(copy, path)));
    const renamed = renameAll(text, language, (declaration) => !isSeenElsewhere(declaration));
    count += renamed.count;
    left += renamed.left;
    writeFileSync(join(copy, path), renamed.text);
  }
  const before = outcome(folder);
  const after = outcome(copy);
  const same = before === after ? "same result" : `DIFFERENT:\n  ${before}\n  ${after}`;
  console.log(`${basename(folder)}: ${count} renamed, ${left} left; ${before}; ${same}`);
  if (before !== after) process.exitCode = 1;
  else rmSync(copy, { recursive: true, force: true });
}

function outcome(folder: string): string {
  const { stdout, status } = spawnSync("sh", ["-c", command], {
    cwd: folder,
    encoding: "utf8",
    timeout: 300_000,
    maxBuffer: 1 << 28,
  });
  const counts = stdout.match(/^# (tests|pass|fail) +\d+/gm) ?? [stdout.slice(-300)];
  return `${counts.join(", ").replaceAll("# ", "")}, exit ${status}`;
}
