/**
 * A whole project by the command line: one worker against several, a second run against the first, a run after one edit, a project
 * in which few files have anything to do, and how memory grows. Ratios are of one run.
 *
 *   npx jiti bench/project.ts [FOLDER] [FILES]
 *
 * FOLDER is the code, the standard library of Python where nothing is said; FILES is how many files the large project has.
 */
import { execFileSync, spawnSync } from "node:child_process";
import {
  appendFileSync,
  cpSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { availableParallelism, tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { performance } from "node:perf_hooks";

const MAIN = resolve("dist/program/uvran.js");
const [folder = pythonLibrary(), files = "100000"] = process.argv.slice(2);

interface Run {
  readonly seconds: number;
  /** The most memory that the process had, in megabytes. */
  readonly megabytes: number;
  readonly out: string;
}

/** Runs a survey; `time` tells the memory. */
function survey(root: string, ...args: string[]): Run {
  const start = performance.now();
  const script = `process.on("exit", () => require("fs").writeSync(2, "MOST " + process.resourceUsage().maxRSS + "\\n"));`;
  const watch = join(root, "..", "watch.cjs");
  writeFileSync(watch, script);
  const { stdout, stderr, status } = spawnSync(
    process.execPath,
    ["--require", watch, MAIN, "survey", "--as", "json", ...args],
    { cwd: root, encoding: "utf8", maxBuffer: 1 << 30 },
  );
  if (status !== 0) throw new Error(stderr);
  const most = Number(/^MOST (\d+)$/m.exec(stderr)?.[1]) / 1024;
  return { seconds: (performance.now() - start) / 1000, megabytes: most, out: stdout };
}

const said = ({ seconds, megabytes }: Run): string =>
  `${seconds.toFixed(1).padStart(7)} s ${megabytes.toFixed(0).padStart(6)} MB`;
const row = (what: string, run: Run, ratio = ""): void =>
  console.log(`${what.padEnd(34)}${said(run)}   ${ratio}`);
const times = (one: Run, other: Run): string => `${(one.seconds / other.seconds).toFixed(2)} × as fast`;

function pythonLibrary(): string {
  return execFileSync("python3", ["-c", "import os; print(os.path.dirname(os.__file__))"], {
    encoding: "utf8",
  }).trim();
}

function ofProject(): void {
  const top = mkdtempSync(join(tmpdir(), "uvran-bench-"));
  const root = join(top, "code");
  const isWanted = (path: string): boolean =>
    !/(^|\/)(node_modules|__pycache__|test|\.git|\.uvran)$/.test(path);
  cpSync(folder, root, { recursive: true, filter: isWanted });
  const all = readdirSync(root, { recursive: true, encoding: "utf8" }).map((name) => join(root, name));
  const bytes = all
    .map((path) => statSync(path))
    .reduce((sum, stat) => sum + (stat.isFile() ? stat.size : 0), 0);
  console.log(
    `${folder}: ${all.length} files, ${(bytes / 1e6).toFixed(1)} MB, ${availableParallelism()} cores`,
  );
  const one = survey(root, "--no-cache", "--workers", "1");
  row("one worker", one);
  const two = survey(root, "--no-cache", "--workers", "2");
  row("two workers", two, times(one, two));
  if (two.out !== one.out) throw new Error("two workers find something else than one");
  const first = survey(root);
  row("as it chooses, to be remembered", first, times(one, first));
  const second = survey(root);
  row("again, unchanged", second, times(first, second));
  if (second.out !== one.out) throw new Error("what was remembered is something else than what is found");
  appendFileSync(
    all.find((path) => path.endsWith(".py") || path.endsWith(".js"))!,
    "\n",
  );
  const edited = survey(root);
  row("again, after one edit", edited, times(first, edited));
  rmSync(top, { recursive: true, force: true });
}

/** Many small files, of which one in fifty has something to do. */
function large(count: number): Run {
  const top = mkdtempSync(join(tmpdir(), "uvran-bench-"));
  const root = join(top, "code");
  const plain = "export function weigh(scale) {\n  return scale.read() * 2;\n}\n".repeat(20);
  const old = `${plain}export const lot = (jar) => Math.pow(jar, 2);\n`;
  for (let i = 0; i < count; i++) {
    const below = join(root, `p${i % 200}`);
    if (i < 200) mkdirSync(below, { recursive: true });
    writeFileSync(join(below, `f${i}.js`), i % 50 === 0 ? old : plain);
  }
  const start = performance.now();
  for (const name of readdirSync(root, { recursive: true, encoding: "utf8" }))
    if (name.endsWith(".js")) readFileSync(join(root, name));
  const bytes = { seconds: (performance.now() - start) / 1000, megabytes: 0, out: "" };
  const first = survey(root, "--rule", "javascript/power-operator", "--no-cache");
  const ratio = (first.seconds / bytes.seconds).toFixed(2);
  row(`${count} files, few with work`, first, `${ratio} × reading them`);
  const remembered = survey(root, "--rule", "javascript/power-operator");
  const again = survey(root, "--rule", "javascript/power-operator");
  row("  again, unchanged", again, times(remembered, again));
  rmSync(top, { recursive: true, force: true });
  return first;
}

ofProject();
const [small, big] = [large(Number(files) / 10), large(Number(files))];
console.log(`memory: ${(big.megabytes / small.megabytes).toFixed(2)} × for ten times as many files`);
