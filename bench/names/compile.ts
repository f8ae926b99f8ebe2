/**
 * Does a compiler complain after renames? `npm run build && npx jiti bench/names/compile.ts FOLDER ENDING "COMMAND"`
 * gives all locals and parameters of the files below the folder new names in a copy, and runs the command, with `FILE`
 * for each file's path (or once, where it says no `FILE`), in the old folder and in the new.
 */
import { spawnSync } from "node:child_process";
import { cpSync, mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { isMember, languageOfFile, loadGrammars } from "uvran/core";
import { decode, findSources } from "uvran/node";
import { renameAll } from "./renamer.js";

const [folder = ".", ending = "", command = ""] = process.argv.slice(2);
const root = resolve(folder);
const copy = join(mkdtempSync(join(tmpdir(), "uvran-compile-")), "new");
cpSync(root, copy, { recursive: true });
const paths = findSources(root, [], root, []).paths.filter((path) => path.endsWith(ending));
let count = 0;
let left = 0;
const compiled: string[] = [];
const oneByOne = command.includes("FILE");
const complaint = oneByOne ? "" : complaints(root, "");
if (complaint !== "") throw new Error(`the old code does not compile: ${complaint}`);
for (const path of paths) {
  const language = languageOfFile(path)!;
  await loadGrammars([language]);
  const renamed = renameAll(
    decode(readFileSync(join(root, path))),
    language,
    (declaration) =>
      (declaration.as === "local" || declaration.as === "parameter") &&
      !isMember(declaration) &&
      !declaration.scope.same(declaration.scope.tree.root),
  );
  left += renamed.left;
  if (renamed.count === 0 || (oneByOne && complaints(root, path) !== "")) continue;
  count += renamed.count;
  compiled.push(path);
  writeFileSync(join(copy, path), renamed.text);
}
let worse = 0;
for (const path of oneByOne ? compiled : [""]) {
  const after = complaints(copy, path);
  if (after === "") continue;
  if (worse++ < Number(process.env["SHOW"] ?? 5)) console.log(`${path}\n${after}`);
}
console.log(
  `${compiled.length} files: ${count} renamed, ${left} left since not all uses are known; ${oneByOne ? `${worse} files no longer compile` : worse > 0 ? "it no longer compiles" : "it compiles"}`,
);
if (worse > 0) process.exitCode = 1;

function complaints(within: string, path: string): string {
  const { status, stdout, stderr } = spawnSync("sh", ["-c", command.replaceAll("FILE", path)], {
    cwd: within,
    encoding: "utf8",
  });
  return status === 0
    ? ""
    : (stdout + stderr)
        .split("\n")
        .filter((line) => /error/i.test(line))
        .slice(0, 3)
        .join("\n") || "failed";
}
