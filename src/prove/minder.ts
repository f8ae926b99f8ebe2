/** Watches a proof: when that has ended, however it did, what it started ends too, and its copies are removed. */
import { endMarked } from "./processes.js";
import { removeFolder } from "./remove.js";

const [folder, mark] = process.argv.slice(2);
for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) process.on(signal, () => undefined);
process.stdin.resume();
process.stdin.once("close", () => {
  if (folder === undefined || mark === undefined) return;
  endMarked(mark);
  removeFolder(folder);
});
