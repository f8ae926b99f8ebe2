import { spawnSync } from "node:child_process";
import { fileURLToPath } from "node:url";
import type { LanguageId } from "uvran/core";

/**
 * What each of several pieces of code does with each of a few sets of values; undefined where nothing can run them.
 * Throws where they end what runs them, or go on for a minute.
 */
export function behaviours(language: LanguageId, codes: readonly string[]): readonly string[] | undefined {
  const runner = RUNNERS[language];
  if (!runner || codes.length === 0) return undefined;
  const [command, script] = runner;
  const path = fileURLToPath(new URL(script, import.meta.url));
  const done = spawnSync(command, [path], {
    input: JSON.stringify(codes),
    encoding: "utf8",
    maxBuffer: 1 << 28,
    timeout: 60_000,
  });
  if (done.error && "code" in done.error && done.error.code === "ENOENT") return undefined;
  if (done.error) throw done.error;
  if (done.status !== 0) throw new Error(`${command} ${script}: ${done.stderr.slice(0, 2000)}`);
  return JSON.parse(done.stdout) as string[];
}

const RUNNERS: Partial<Record<LanguageId, readonly [command: string, script: string]>> = {
  javascript: [process.execPath, "run.cjs"],
  python: ["python3", "run.py"],
  ruby: ["ruby", "run.rb"],
  php: ["php", "run.php"],
};
