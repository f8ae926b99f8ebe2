import type { Progress } from "../prove/index.js";

const QUIET_MILLISECONDS = 1000;

/** Tells on stderr what a proof is at, once it takes longer than a second; in one line that goes when it is done. */
export class ProofProgress {
  readonly #started = Date.now();
  #isShown = false;

  show(event: Progress): void {
    if (!process.stderr.isTTY || Date.now() - this.#started < QUIET_MILLISECONDS) return;
    const seconds = Math.round((Date.now() - this.#started) / 1000);
    const text =
      event.is === "running"
        ? `${event.check}, ${event.on} code`
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
