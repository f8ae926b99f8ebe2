import { readdirSync, readFileSync } from "node:fs";

/** The environment variable by which the processes of a proof are known, whatever group or session they move to. */
export const MARK = "UVRAN_PROOF";

const ROUNDS = 50;

/** Ends all processes that were started with this mark, or with one below it (`mark/…`). Where the system does not show environments, it finds none. */
export function endMarked(mark: string): void {
  // Whoever forks while others are ended is found in the next round.
  for (let round = 0; round < ROUNDS; round++) {
    const found = marked(mark);
    if (found.length === 0) return;
    for (const pid of found) end(pid);
  }
}

/** Ends a process, or with a negative number its group, where it is still there. */
export function end(pid: number): void {
  try {
    process.kill(pid, "SIGKILL");
  } catch {
    // It has ended by itself.
  }
}

function marked(mark: string): number[] {
  const wanted = `${MARK}=${mark}`;
  return allProcesses().filter((pid) => {
    if (pid === process.pid) return false;
    try {
      // The environment of a process that has ended and that nobody has asked after is empty.
      const variables = readFileSync(`/proc/${pid}/environ`, "latin1").split("\0");
      return variables.some((one) => one === wanted || one.startsWith(`${wanted}/`));
    } catch {
      return false;
    }
  });
}

/** Memory in bytes that the processes of a session have now; undefined where the system does not tell. */
export function memoryOf(session: number): number | undefined {
  let sum: number | undefined;
  for (const pid of allProcesses()) {
    try {
      const stat = readFileSync(`/proc/${pid}/stat`, "latin1");
      // The name of the program, in parentheses, may have spaces in it; the session is the fourth field behind it.
      if (Number(stat.slice(stat.lastIndexOf(")") + 2).split(" ")[3]) !== session) continue;
      const status = readFileSync(`/proc/${pid}/status`, "latin1");
      sum = (sum ?? 0) + Number(/^VmRSS:\s+(\d+) kB/m.exec(status)?.[1] ?? 0) * 1024;
    } catch {
      continue; // it has ended meanwhile
    }
  }
  return sum;
}

function allProcesses(): number[] {
  try {
    return readdirSync("/proc")
      .filter((name) => /^\d+$/.test(name))
      .map(Number);
  } catch {
    return [];
  }
}
