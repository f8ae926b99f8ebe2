import { spawn, type ChildProcess } from "node:child_process";
import { existsSync, mkdirSync, writeFileSync } from "node:fs";
import { resolve } from "node:path";
import { setImmediate as turn, setTimeout as sleep } from "node:timers/promises";
import type { Sandbox } from "../cli/run.js";
import { FALLBACK, planned, processesWith, proved } from "./project.js";

const scratchOf = (sandbox: Sandbox): string => sandbox.path(".uvran/scratch");

async function until(holds: () => boolean, seconds = 10): Promise<void> {
  for (let i = 0; i < seconds * 50 && !holds(); i++) await sleep(20);
  expect(holds()).toBe(true);
}

/** Starts a proof whose check never ends by itself, and waits until its copies are being made. */
async function started(
  sandbox: Sandbox,
): Promise<{ child: ChildProcess; ended: Promise<number | null>; said(): string }> {
  const main = resolve("dist/program/uvran.js");
  const child = spawn(process.execPath, [main, "prove", "--trust", "possible"], { cwd: sandbox.root });
  let said = "";
  child.stderr.on("data", (data) => (said += String(data)));
  const ended = new Promise<number | null>((done) => child.on("exit", done));
  // The very moment in which the folder is there: who would remove it must be there already.
  for (const end = Date.now() + 10_000; !existsSync(scratchOf(sandbox)) && Date.now() < end;) await turn();
  expect(existsSync(scratchOf(sandbox))).toBe(true);
  return { child, ended, said: () => said };
}

/** A number that stands in the command line of what the check starts, and of nothing else. */
let number = 5_550_000;
function endless(): { sandbox: Sandbox; mark: string } {
  const mark = String(++number);
  const files = Object.fromEntries(Array.from({ length: 200 }, (_, i) => [`data/${i}.txt`, "hive\n"]));
  const run = `setsid sleep ${mark} & sleep ${mark}`;
  return { sandbox: planned({ ...files, "a.js": FALLBACK }, [{ name: "endless", run }]), mark };
}

test.each([
  ["SIGINT", [0, 30, 300]],
  ["SIGTERM", [100]],
  ["SIGKILL", [0, 30, 300]],
] as const)("%s at any moment leaves no process and no copy", async (signal, moments) => {
  for (const moment of moments) {
    const { sandbox, mark } = endless();
    const { child, ended, said } = await started(sandbox);
    await sleep(moment);
    child.kill(signal);
    const exit = await ended;
    await until(() => !existsSync(scratchOf(sandbox)) && processesWith(mark).length === 0);
    if (signal !== "SIGKILL") expect([exit, said()]).toEqual([1, expect.stringContaining("was interrupted")]);
    expect(sandbox.read("a.js")).toBe(FALLBACK);
  }
});

test("what even the watching process could not remove, the next proof does", async () => {
  const { sandbox, mark } = endless();
  const { child, ended } = await started(sandbox);
  await until(() => processesWith(mark).length >= 2);
  for (const pid of processesWith(scratchOf(sandbox))) process.kill(Number(pid), "SIGKILL");
  child.kill("SIGKILL");
  await ended;
  await sleep(200);
  expect([existsSync(scratchOf(sandbox)), processesWith(mark).length > 0]).toEqual([true, true]);
  // A folder that has just been made may be somebody's who is only starting.
  mkdirSync(sandbox.path(".uvran/scratch/new"));
  const checks = [{ name: "ends", run: "true" }];
  writeFileSync(sandbox.path("uvran.config.json"), JSON.stringify({ checks }));
  expect(proved(sandbox).checks[0]!.verdict).toBe("same");
  expect(processesWith(mark)).toEqual([]);
  expect(existsSync(sandbox.path(".uvran/scratch/new"))).toBe(true);
});
