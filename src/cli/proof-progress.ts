import type { Progress } from "../prove/index.js";

/** What somebody waits for. */
type Event =
  Progress | { readonly is: "calling"; readonly file: string; readonly done: number; readonly total: number };

const QUIET_MILLISECONDS = 1000;

/** Tells on stderr what a proof is at, once it takes longer than a second; in one line that goes when it is done. */
export class ProofProgress {
  readonly #started = Date.now();
  #isShown = false;

  show(event: Event): void {
    if (!process.stderr.isTTY || Date.now() - this.#started < QUIET_MILLISECONDS) return;
    const seconds = Math.round((Date.now() - this.#started) / 1000);
    const text =
      event.is === "running"
        ? `${event.check}, ${event.on} code`
        : event.is === "calling"
          ? `${event.file}, file ${event.done + 1} of ${event.total}`
          : `${event.check}: which of ${event.changes} changes? ${event.runs} runs so far`;
    this.#clear();
    process.stderr.write(`${seconds} s  ${text}`.slice(0, (process.stderr.columns ?? 80) - 1));
    this.#isShown = true;
  }

  end(): void {
    if (this.#isShown) this.#clear();
  }

  #clear(): void {
    process.stderr.write("\r\u001B[2K");
  }
}
