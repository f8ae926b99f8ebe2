/**
 * Does `javac` complain after renames? `npm run build && npx jiti bench/names/java.ts FOLDER [CLASSPATH]` gives all
 * locals, parameters and private members of all files below the folder new names at once, compiles old and new,
 * and compares the messages.
 */
import { spawnSync } from "node:child_process";
import { cpSync, mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { isSeenElsewhere, languageOf, loadGrammars } from "uvran/core";
import { findSources } from "uvran/node";
import { renameAll } from "./renamer.js";

const [folder = ".", classpath = ""] = process.argv.slice(2);
const root = resolve(folder);
const java = languageOf("java");
await loadGrammars([java]);
const work = mkdtempSync(join(tmpdir(), "uvran-java-"));
cpSync(root, join(work, "new"), { recursive: true });
const paths = findSources(root, [], root, []).paths.filter(
  (path) => path.endsWith(".java") && !/(package|module)-info\.java$/.test(path),
);
let count = 0;
let left = 0;
for (const path of paths) {
  const renamed = renameAll(
    readFileSync(join(root, path), "utf8"),
    java,
    (declaration) =>
      ["local", "parameter", "field", "method"].includes(declaration.as) && !isSeenElsewhere(declaration),
  );
  count += renamed.count;
  left += renamed.left;
  writeFileSync(join(work, "new", path), renamed.text);
}
const before = messages(root);
const after = messages(join(work, "new"));
console.log(`${paths.length} files: ${count} renamed, ${left} left since not all uses are known`);
console.log(`javac: ${before.length} errors before, ${after.length} after`);
for (const message of after.slice(0, Number(process.env["SHOW"] ?? 10))) console.log(message);
if (after.length > before.length) process.exitCode = 1;

function messages(folder: string): string[] {
  const options = [
    "-proc:none",
    "-nowarn",
    "-Xmaxerrs",
    "100000",
    "-encoding",
    "UTF-8",
    "-d",
    join(work, "classes"),
  ];
  const classes = classpath === "" ? [] : ["-cp", classpath];
  const { stderr } = spawnSync("javac", [...options, ...classes, ...paths], {
    cwd: folder,
    encoding: "utf8",
    maxBuffer: 1 << 30,
  });
  return stderr.split("\n").filter((line) => / error: /.test(line));
}
