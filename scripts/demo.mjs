// The main job on the demo data: copies the Thistledown codebase aside and walks through every step on it, then takes a
// small program from one version of its framework to the next.
import { spawnSync } from "node:child_process";
import { cpSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

const repository = fileURLToPath(new URL("..", import.meta.url));
const aside = join(repository, ".demo");
const copy = join(aside, "thistledown");
const yard = join(aside, "combwork", "yard-py");
const uvran = join(repository, "dist", "program", "uvran.js");
const PREVIEW = 46;

for (const name of ["thistledown", "combwork"]) {
  rmSync(join(aside, name), { recursive: true, force: true });
  cpSync(join(repository, "examples", name), join(aside, name), { recursive: true });
}

/** Says what comes, runs one command of Uvran, and ends the demo if it does not exit as foretold. */
function step(text, args, { exit = 0, cwd = copy } = {}) {
  console.log(`\n━━ ${text}`);
  run(`uvran ${args.join(" ")}`, process.execPath, [uvran, ...args], { exit, cwd });
}

function run(shown, command, args, { exit = 0, cwd, env = {} }) {
  console.log(`$ ${shown}\n`);
  const { status } = spawnSync(command, args, { cwd, stdio: "inherit", env: { ...process.env, ...env } });
  if (status !== exit) {
    console.error(`\nThe demo expected exit code ${exit} here and got ${status}.`);
    process.exit(1);
  }
}

console.log(`The co-operative's code was copied to ${copy}; nothing else is touched.`);
step("Take stock: what is outdated, how much, how sure? Nothing is changed.", ["survey"]);
step("Work out the changes into a plan. The reading copy goes to a file.", [
  "propose",
  "--out",
  "proposal.txt",
]);
console.log(`\nIt begins like this; the rest is in ${join(copy, "proposal.txt")}:\n`);
console.log(readFileSync(join(copy, "proposal.txt"), "utf8").split("\n").slice(0, PREVIEW).join("\n"));
step("Prove it: run the project's own checks on the old code and on the new.", ["prove"]);
step(
  "What if one trusted everything? An empty remark is not a missing one: the checks see it, and prove finds the change.",
  ["prove", "--trust", "possible"],
  { exit: 1 },
);
step(
  "So somebody who knows the remarks decides: that change is dropped, with a note. `uvran review` is the page for it.",
  ["review", "market/src/archive.ts", "--decide", "drop", "--note", "an empty remark is not a missing one"],
);
step("Changed functions can be called, old and new, with inputs made for them.", ["prove", "--by-example"]);
step("Write what the checks passed, and only what is certain, with a journal.", ["apply", "--proven"]);
step("Prove again, now with what was written.", ["prove"]);
step("And take it all back.", ["undo"]);
step("Nothing is left of it: the same places are found as before.", ["survey"]);

/** Installs a version of the framework, and runs the program with it. */
function withVersion(version) {
  writeFileSync(join(yard, "requirements.txt"), `combwork==${version}\n`);
  console.log(`\n━━ combwork ${version} is installed. The program prints:`);
  const env = { PYTHONPATH: join(yard, "..", "python", version) };
  run("python3 main.py", "python3", ["-B", "main.py"], { cwd: yard, env });
}

console.log(`\n\nAnother program, in ${yard}, was written for version 1.4 of its framework.`);
withVersion("1.4");
step(
  "What has to be done to get to version 3.0? The framework's list of changes is a table, moves/python.yaml.",
  ["survey", "--to", "combwork@3.0"],
  { cwd: yard },
);
step("The first step goes to 2.0.", ["propose", "--to", "combwork@3.0", "--as", "diff"], { cwd: yard });
step("Write what is certain.", ["apply"], { cwd: yard });
withVersion("2.0");
step("The second step goes to 3.0.", ["propose", "--to", "combwork@3.0"], { cwd: yard });
step("Write what is certain.", ["apply"], { cwd: yard });
const main = join(yard, "main.py");
const byHand = readFileSync(main, "utf8")
  .replace("drain(hives[1])", "hives[1].mass()")
  .replace(/\bdrain, /, "");
console.log("\n━━ One place was left to a person, who now writes hives[1].mass() for drain(hives[1]).");
writeFileSync(main, byHand);
withVersion("3.0");
step("Nothing is left to be done.", ["survey", "--to", "combwork@3.0"], { cwd: yard });
