import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createInterface } from "node:readline";
import { Problem } from "../../node/index.js";

/** A line of text, typed with the usual keys; "" where it is given up. */
export async function ask(question: string): Promise<string> {
  process.stdin.setRawMode(false);
  const asking = createInterface({ input: process.stdin, output: process.stdout });
  process.stdout.write("\n");
  try {
    const answer = await new Promise<string>((resolve) => {
      asking.once("close", () => resolve(""));
      asking.once("SIGINT", () => asking.close());
      asking.question(question, resolve);
    });
    return answer.trim();
  } finally {
    asking.close();
    process.stdin.setRawMode(true);
    process.stdin.resume();
  }
}

/** Lets the user write on a text in their editor, as git does. Throws a Problem where that does not work. */
export function inEditor(text: string, ending: string): string {
  const editor = process.env["VISUAL"] || process.env["EDITOR"] || "vi";
  const folder = mkdtempSync(join(tmpdir(), "uvran-lines-"));
  const file = join(folder, `lines${ending}`);
  try {
    writeFileSync(file, `${text}\n`);
    process.stdin.setRawMode(false);
    const { status, error } = spawnSync(`${editor} "${file}"`, { shell: true, stdio: "inherit" });
    if (status !== 0)
      throw new Problem(`The editor ${editor} failed: ${error?.message ?? `exit code ${status}`}`, 1);
    const written = readFileSync(file, "utf8");
    return written.endsWith("\n") ? written.slice(0, -1) : written;
  } finally {
    process.stdin.setRawMode(true);
    rmSync(folder, { recursive: true, force: true });
  }
}
