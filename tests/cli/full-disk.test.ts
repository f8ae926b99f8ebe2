import { spawnSync } from "node:child_process";
import { mkdirSync, readdirSync, readFileSync, rmSync, statfsSync, writeFileSync } from "node:fs";
import { NEW_JS, OLD_JS, Sandbox } from "./run.js";

const FILES = 30;
const disk = new Sandbox();
mkdirSync(disk.path("src"));
const isSmall = spawnSync("mount", ["-t", "tmpfs", "-o", "size=4m", "tmpfs", disk.root]).status === 0;
if (!isSmall) console.warn("no small disk can be mounted here, so a full disk was not tested");
afterAll(() => {
  if (isSmall) spawnSync("umount", [disk.root]);
});

/** Leaves only so many bytes, runs a command, and gives the space back. */
function withLeft(bytes: number, command: string): ReturnType<Sandbox["uvran"]> {
  const { bavail, bsize } = statfsSync(disk.root);
  writeFileSync(disk.path("filler"), Buffer.alloc(Math.max(0, bavail * bsize - bytes)));
  const answered = disk.uvran(command);
  rmSync(disk.path("filler"));
  return answered;
}

const texts = (): Set<string> =>
  new Set(readdirSync(disk.path("src")).map((name) => readFileSync(disk.path(`src/${name}`), "utf8")));

(isSmall ? test : test.skip)(
  "on a disk that is full nothing is lost, nothing is left behind, and it is said in a line",
  () => {
    const [old, now] = [OLD_JS.repeat(40), NEW_JS.repeat(40)];
    for (let i = 0; i < FILES; i++) disk.write(`src/hive${i}.js`, old);
    disk.write("package.json", '{ "engines": { "node": ">=18" } }\n');
    expect(withLeft(0, "propose").err).toContain("There is no space left on the disk");
    expect(disk.uvran("propose", "--no-cache").exit).toBe(0);
    for (const left of [0, 8_000, 60_000]) {
      const { exit, err } = withLeft(left, "apply");
      expect(exit).toBe(1);
      expect(err).toMatch(/^(There is no space left on the disk|Nothing was done: ENOSPC)[^\n]*\n$/);
      expect(texts()).toEqual(new Set([old]));
      expect(readdirSync(disk.path(".uvran")).filter((name) => /lock|tmp/.test(name))).toEqual([]);
    }
    expect(disk.uvran("apply").exit).toBe(0);
    expect(texts()).toEqual(new Set([now]));
    expect(withLeft(0, "undo").exit).toBe(1);
    expect(texts()).toEqual(new Set([now]));
    expect(disk.uvran("undo").exit).toBe(0);
    expect(texts()).toEqual(new Set([old]));
  },
  120_000,
);
