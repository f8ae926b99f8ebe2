import { spawnSync } from "node:child_process";

const known = new Map<string, boolean>();

/** Is a command of another language's tools on this machine? */
export function isInstalled(command: string): boolean {
  let found = known.get(command);
  if (found === undefined) {
    found = spawnSync("sh", ["-c", `command -v ${command}`]).status === 0;
    known.set(command, found);
  }
  return found;
}

/** `test`, or where a tool is missing a test that is skipped and says which. */
export function testWith(commands: readonly string[], title: string, run: () => Promise<void>): void {
  const missing = commands.filter((command) => !isInstalled(command));
  if (missing.length === 0) test(title, run);
  else test.skip(`${title} (not run: ${missing.join(", ")} not installed)`, run);
}
