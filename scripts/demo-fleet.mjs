/**
 * The parts of the demo codebase as a fleet: each part becomes a repository of its own, and one command works all of them
 * through. `npm run demo:fleet` says where they are.
 */
import { execFileSync, spawnSync } from "node:child_process";
import { cpSync, mkdirSync, mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";

const PARTS = ["apiary", "reports", "shop", "queens", "kiosk", "notices", "ledger", "jars"];
const PROGRAM = resolve("dist/program/uvran.js");
const root = mkdtempSync(join(tmpdir(), "thistledown-fleet-"));
const env = { ...process.env };
for (const role of ["AUTHOR", "COMMITTER"]) {
  env[`GIT_${role}_NAME`] ??= "Thistledown Beekeepers' Co-operative";
  env[`GIT_${role}_EMAIL`] ??= "code@thistledown.example";
}
const git = (part, ...args) => execFileSync("git", ["-C", join(root, part), ...args], { env });

for (const part of PARTS) {
  mkdirSync(join(root, part));
  cpSync(`examples/thistledown/${part}`, join(root, part, part), { recursive: true });
  cpSync("examples/thistledown/check.sh", join(root, part, "check.sh"));
  const run = part === "apiary" ? "python3 -B apiary/main.py" : `sh check.sh ${part}`;
  writeFileSync(join(root, part, "run.sh"), `${run}\n`);
  git(part, "init", "--quiet", "--initial-branch=main");
  git(part, "add", "--all");
  git(part, "commit", "--quiet", "--message", "As it is");
}
writeFileSync(
  join(root, "uvran.config.mjs"),
  'export default {\n  checks: [{ name: "prints", run: "sh run.sh" }],\n};\n',
);
writeFileSync(
  join(root, "uvran.fleet.yaml"),
  `# The config, with its checks, counts for all of them.\nconfig: uvran.config.mjs\nbranch: uvran/newer-idioms\nrepositories:\n${PARTS.map((part) => `  - ${part}\n`).join("")}`,
);
console.log(`$ cd ${root}\n$ uvran fleet`);
const { status } = spawnSync(process.execPath, [PROGRAM, "fleet"], { cwd: root, env, stdio: "inherit" });
process.exitCode = status ?? 1;
