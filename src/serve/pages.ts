import type { ServerResponse } from "node:http";

/** How long to wait for a page that has gone away, as one that is loaded again does. */
const GRACE_MILLISECONDS = 4000;
/** How often to write to a page that has nothing to be told, so that one that is gone is noticed. */
const BEAT_MILLISECONDS = 10_000;

/** The pages that are open, each by the answer on which it is told what has happened. */
export class Pages {
  readonly #open = new Set<ServerResponse>();
  readonly #beat: NodeJS.Timeout;
  #gone: NodeJS.Timeout | undefined;

  /** `onLast` is called when the last page has been gone for a while. */
  constructor(readonly onLast: () => void) {
    this.#beat = setInterval(() => this.#write("\n"), BEAT_MILLISECONDS);
    this.#beat.unref();
  }

  add(answer: ServerResponse): void {
    clearTimeout(this.#gone);
    this.#open.add(answer);
    answer.on("close", () => {
      this.#open.delete(answer);
      if (this.#open.size === 0) this.#gone = setTimeout(this.onLast, GRACE_MILLISECONDS);
    });
  }

  /** Tells all pages something, in one line of JSON. */
  tell(news: object): void {
    this.#write(`${JSON.stringify(news)}\n`);
  }

  close(): void {
    clearInterval(this.#beat);
    clearTimeout(this.#gone);
    for (const answer of this.#open) answer.destroy();
  }

  #write(text: string): void {
    for (const answer of this.#open) answer.write(text);
  }
}
