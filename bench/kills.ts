/**
 * Kills apply and undo at random moments, and looks at what is left:
 *
 *   npx jiti bench/kills.ts [--applies N] [--undos N] [--files N] [--seed N]
 *
 * Every file must be wholly old or wholly new, nothing may lie about beside the sources, an apply that was cut off must
 * be named by the next command, and undo must bring everything back.
 */
import { spawn, spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { parseArgs } from "node:util";

const { values } = parseArgs({
  options: {
    applies: { type: "string", default: "300" },
    undos: { type: "string", default: "50" },
    files: { type: "string", default: "200" },
    seed: { type: "string", default: "1" },
  },
});
const MAIN = resolve("dist/program/uvran.js");
const OLD = "if (hive && hive.queen) mark(hive);\n";
const NEW = "if (hive?.queen) mark(hive);\n";
const root = mkdtempSync(join(tmpdir(), "uvran-kills-"));
const names = Array.from({ length: Number(values.files) }, (_, i) => join("src", `hive${i}.js`));
mkdirSync(join(root, "src"));
let seed = Number(values.seed);
const random = (): number => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;
const counts = { kills: 0, cutOff: 0, torn: 0, strangers: 0, unnamed: 0, notRestored: 0 };

const uvran = (command: string) =>
  spawnSync(process.execPath, [MAIN, command], { cwd: root, encoding: "utf8" });
const texts = (): string[] => names.map((name) => readFileSync(join(root, name), "utf8"));

function look(): number {
  const all = texts();
  if (!all.every((text) => text === OLD || text === NEW)) counts.torn++;
  if (readdirSync(join(root, "src")).length !== names.length) counts.strangers++;
  return all.filter((text) => text === NEW).length;
}

/** Every other kill comes at any moment; those between come while files are written, which is a small part of it. */
async function kill(command: string, usual: number): Promise<void> {
  const child = spawn(process.execPath, [MAIN, command], { cwd: root, stdio: "ignore" });
  const gone = new Promise((done) => child.on("exit", done));
  let isGone = false;
  void gone.then(() => (isGone = true));
  if (counts.kills % 2 === 0) await new Promise((next) => setTimeout(next, random() * usual));
  else {
    const first = names.at(-1 - Math.floor(random() * names.length))!;
    const was = statSync(join(root, first)).ino;
    while (!isGone && statSync(join(root, first)).ino === was) await new Promise(setImmediate);
  }
  child.kill("SIGKILL");
  await gone;
  counts.kills++;
}

function restore(): void {
  const said = look() > 0 ? uvran("undo").stderr : "";
  if (texts().every((text) => text === OLD)) return;
  counts.notRestored++;
  console.log(`undo: ${said}`);
  uvran("undo");
}

for (const name of names) writeFileSync(join(root, name), OLD);
uvran("propose");
const timed = (command: string): number => {
  const start = performance.now();
  uvran(command);
  return performance.now() - start;
};
const usual = { apply: timed("apply"), undo: timed("undo") };
for (let i = 0; i < Number(values.applies); i++) {
  await kill("apply", usual.apply);
  const written = look();
  if (written > 0 && written < names.length) {
    counts.cutOff++;
    if (!uvran("survey").stderr.includes("An apply was interrupted")) counts.unnamed++;
  }
  restore();
}
for (let i = 0; i < Number(values.undos); i++) {
  uvran("apply");
  await kill("undo", usual.undo);
  const left = look();
  if (left > 0 && left < names.length) counts.cutOff++;
  restore();
}
rmSync(root, { recursive: true });
console.log(
  `${counts.kills} kills, ${counts.cutOff} of them between two files; ${counts.torn} times a torn file, ` +
    `${counts.strangers} times something left beside the sources, ${counts.unnamed} times the state was not said, ` +
    `${counts.notRestored} times undo did not bring everything back`,
);
if (counts.torn + counts.strangers + counts.unnamed + counts.notRestored > 0) process.exitCode = 1;
