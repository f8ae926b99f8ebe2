import { availableParallelism } from "node:os";

/** So many bytes of sources pay for a thread, which must load rules and grammars first, and be warmed up by the engine. */
const BYTES_PER_WORKER = 1_500_000;

/** How many threads a number of bytes is worth; none where this thread does it sooner by itself. */
export function workersFor(bytes: number, most = availableParallelism()): number {
  const worth = Math.min(most, Math.floor(bytes / BYTES_PER_WORKER));
  return worth > 1 ? worth : 0;
}
