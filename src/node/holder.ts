import { readFileSync } from "node:fs";
import { hostname } from "node:os";
import { z } from "zod";

const holder = z.object({
  pid: z.int(),
  /** When the process started, as the system counts; another process may have its number later. */
  started: z.string().optional(),
  host: z.string(),
  command: z.string(),
  since: z.string(),
});

/** A process that something belongs to: a lock, a scratch folder. */
export type Holder = z.infer<typeof holder>;

/** This process. */
export function ownHolder(command: string): Holder {
  const { pid } = process;
  return { pid, started: startOf(pid), host: hostname(), command, since: new Date().toISOString() };
}

/** Who holds what a file stands for; undefined where nobody does. */
export function readHolder(file: string): Holder | "unreadable" | undefined {
  let json: string;
  try {
    json = readFileSync(file, "utf8");
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ENOENT") return undefined;
    throw error;
  }
  try {
    return holder.parse(JSON.parse(json));
  } catch {
    return "unreadable";
  }
}

/** Is the process there? One of another machine is taken to be. */
export function isAlive({ pid, started, host }: Holder): boolean {
  if (host !== hostname()) return true;
  if (started !== undefined && startOf(pid) !== started) return false;
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === "EPERM";
  }
}

/** When a process started, in the system's own count; undefined where the system does not say. */
function startOf(pid: number): string | undefined {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, "utf8");
    // The name of the program, in parentheses, may have spaces in it.
    return stat.slice(stat.lastIndexOf(")") + 2).split(" ")[19];
  } catch {
    return undefined;
  }
}
