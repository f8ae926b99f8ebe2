import { statSync } from "node:fs";

const EVERY_MILLISECONDS = 1000;

/** Calls back when any of the files has another time or size, comes or goes; until the function that is given is called. */
export function watchFiles(files: () => readonly string[], changed: (files: string[]) => void): () => void {
  let known = stampsOf(files());
  const timer = setInterval(() => {
    const now = stampsOf(files());
    const others = [...now.keys()].filter((file) => known.has(file) && known.get(file) !== now.get(file));
    known = now;
    if (others.length > 0) changed(others);
  }, EVERY_MILLISECONDS);
  timer.unref();
  return () => clearInterval(timer);
}

function stampsOf(files: readonly string[]): Map<string, string> {
  return new Map(
    files.map((file) => {
      const stat = statSync(file, { throwIfNoEntry: false });
      return [file, stat ? `${stat.mtimeMs} ${stat.size} ${stat.ino}` : ""];
    }),
  );
}
