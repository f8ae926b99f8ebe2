// The main job on the demo data: copies the Thistledown codebase aside and walks through every step on it.
import { spawnSync } from "node:child_process";
import { cpSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

const repository = fileURLToPath(new URL("..", import.meta.url));
const copy = join(repository, ".demo", "thistledown");
const uvran = join(repository, "dist", "program", "uvran.js");
const PREVIEW = 46;

rmSync(copy, { recursive: true, force: true });
cpSync(join(repository, "examples", "thistledown"), copy, { recursive: true });

/** Says what comes, runs one command, and ends the demo if it does not exit as foretold. */
function step(text, args, { exit = 0 } = {}) {
  console.log(`\n━━ ${text}\n$ uvran ${args.join(" ")}\n`);
  const { status } = spawnSync(process.execPath, [uvran, ...args], { cwd: copy, stdio: "inherit" });
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
