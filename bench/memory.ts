/**
 * Shows that a survey's memory and time keep in step with the number of files:
 *
 *   npx jiti bench/memory.ts
 *
 * Once over folders that each have a `tsconfig.json`, and once over files that all declare the same names.
 */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { SHIPPED } from "uvran/packs";
import { Workspace } from "uvran/workspace";

const rules = SHIPPED.flatMap((pack) => pack.rules).filter(({ taste }) => !taste);

async function measure(
  what: string,
  counts: readonly number[],
  write: (root: string, i: number) => void,
): Promise<void> {
  console.log(`\n${what}`);
  let before: number | undefined;
  for (const count of counts) {
    const root = mkdtempSync(join(tmpdir(), "uvran-memory-"));
    for (let i = 0; i < count; i++) write(root, i);
    global.gc?.();
    let most = 0;
    const watch = setInterval(() => (most = Math.max(most, process.memoryUsage().rss)), 20);
    const start = performance.now();
    const { plan } = await new Workspace({ root, rules }).examine();
    const time = performance.now() - start;
    most = Math.max(most, process.memoryUsage().rss);
    clearInterval(watch);
    rmSync(root, { recursive: true });
    console.log(
      `  ${String(count).padStart(6)} ${String(plan.changes.length).padStart(6)} changes ${time.toFixed(0).padStart(7)} ms ` +
        `${(most / 1e6).toFixed(0).padStart(6)} MB  ${before === undefined ? "" : `${(time / before).toFixed(2)} × the time of the row above`}`,
    );
    before = time;
  }
}

await measure("folders with a tsconfig.json of their own", [25, 50, 100], (root, i) => {
  const folder = join(root, `part${i}`);
  mkdirSync(folder);
  writeFileSync(
    join(folder, "tsconfig.json"),
    '{ "compilerOptions": { "strict": true, "target": "es2022" } }',
  );
  writeFileSync(
    join(folder, "jar.ts"),
    "interface Jar { lots: string[] | undefined }\n" +
      "export function lotsOf(jar: Jar): string[] {\n  const { lots } = jar;\n  return lots || [];\n}\n",
  );
});

if (!process.argv.includes("--programs"))
  await measure("files that declare and use the same names", [2_500, 5_000, 10_000], (root, i) => {
    const folder = join(root, `part${i % 100}`);
    mkdirSync(folder, { recursive: true });
    writeFileSync(
      join(folder, `hive${i}.py`),
      "class Hive:\n    def weigh(self, scale):\n        if scale is None:\n            scale = 1\n        return scale\n\n" +
        "def helper(jars):\n    log = open('log')\n    text = log.read()\n    log.close()\n    counts = {}\n" +
        "    for i in range(len(jars)):\n        print(jars[i])\n    return text, Hive().weigh(1)\n",
    );
  });
