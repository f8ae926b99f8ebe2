import {
  decisionsText,
  linesFor,
  readDesk,
  standingsOf,
  withSaid,
  type Decision,
  type Desk,
  type PlanChange,
  type Said,
} from "uvran/core";

/** What a page is told while it is open. */
export type News =
  | { readonly news: "decisions"; readonly by?: string }
  | { readonly news: "files"; readonly outdated: readonly string[] }
  | { readonly news: "plan" }
  | { readonly news: "gone" };

/** Where a review comes from, and where what is decided goes. */
export interface Source {
  /** Can the plan be made again, and is each decision stored at once? */
  readonly isServer: boolean;
  load(): Promise<{ desk: Desk; outdated: readonly string[] }>;
  decisions(): Promise<Decision[]>;
  /** All that a change does to its own file, its imports too; undefined where that is not known here. */
  edits(id: string): Promise<PlanChange["edits"] | undefined>;
  /** Stores what was said, and gives its lines as they are stored. Throws where it was not. */
  decide(said: readonly Said[]): Promise<Decision[]>;
  propose(): Promise<{ desk: Desk; outdated: readonly string[] }>;
  /** Calls back with what happens, until the function that is given is called. */
  listen(told: (news: News) => void): () => void;
}

/** An answer of the server that is no success, in its own words. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message);
  }
}

const RETRIES = 5;
const RETRY_MILLISECONDS = 700;

/** The server of `uvran review`. */
export class ServerSource implements Source {
  readonly isServer = true;
  readonly #page = crypto.randomUUID();

  constructor(readonly key: string) {}

  load(): Promise<{ desk: Desk; outdated: readonly string[] }> {
    return this.#ask("desk");
  }

  async decisions(): Promise<Decision[]> {
    return (await this.#ask<{ decisions: Decision[] }>("decisions")).decisions;
  }

  async edits(id: string): Promise<PlanChange["edits"]> {
    return (await this.#ask<{ edits: PlanChange["edits"] }>(`edits/${id}`)).edits;
  }

  async decide(said: readonly Said[]): Promise<Decision[]> {
    return (await this.#ask<{ decisions: Decision[] }>("decide", { said, page: this.#page })).decisions;
  }

  propose(): Promise<{ desk: Desk; outdated: readonly string[] }> {
    return this.#ask("propose", {});
  }

  listen(told: (news: News) => void): () => void {
    const stop = new AbortController();
    void this.#follow(told, stop.signal);
    return () => stop.abort();
  }

  async #follow(told: (news: News) => void, signal: AbortSignal): Promise<void> {
    for (let failures = 0; failures < RETRIES; failures++) {
      try {
        const answer = await fetch("api/news", { headers: this.#headers(), signal });
        const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
        let rest = "";
        for (;;) {
          const { done, value } = await reader.read();
          if (done) break;
          failures = 0;
          const lines = (rest + value).split("\n");
          rest = lines.pop()!;
          for (const line of lines) {
            if (line === "") continue;
            const news = JSON.parse(line) as News;
            if (!("by" in news) || news.by !== this.#page) told(news);
          }
        }
      } catch {
        // Tried again below.
      }
      if (signal.aborted) return;
      await new Promise((resolve) => setTimeout(resolve, RETRY_MILLISECONDS));
    }
    told({ news: "gone" });
  }

  async #ask<T>(what: string, body?: object): Promise<T> {
    const answer = await fetch(`api/${what}`, {
      headers: { ...this.#headers(), ...(body ? { "content-type": "application/json" } : {}) },
      ...(body ? { method: "POST", body: JSON.stringify(body) } : {}),
    }).catch(() => {
      throw new Refused("The server of this review does not answer. Start it again with: uvran review", 0);
    });
    const data = (await answer.json()) as T & { error?: string };
    if (!answer.ok) throw new Refused(data.error ?? `The server answered ${answer.status}.`, answer.status);
    return data;
  }

  #headers(): Record<string, string> {
    return { "x-uvran-key": this.key };
  }
}

/** A file that holds a whole review. What is decided stays in the page until it is saved as a file. */
export class FileSource implements Source {
  readonly isServer = false;
  #desk: Desk;
  #decisions: readonly Decision[];
  isSaved = true;

  constructor(json: string) {
    this.#desk = readDesk(json);
    this.#decisions = this.#desk.decisions;
  }

  load(): Promise<{ desk: Desk; outdated: readonly string[] }> {
    return Promise.resolve({ desk: { ...this.#desk, decisions: [...this.#decisions] }, outdated: [] });
  }

  decisions(): Promise<Decision[]> {
    return Promise.resolve([...this.#decisions]);
  }

  decide(said: readonly Said[]): Promise<Decision[]> {
    const { plan, texts, gone } = this.#desk;
    const textOf = (path: string): string | undefined => texts[path];
    const standings = standingsOf(plan, this.#decisions, { textOf, isThere: (path) => !gone.includes(path) });
    const added = linesFor(plan, said, textOf);
    this.#decisions = withSaid(this.#decisions, standings, said, added);
    this.isSaved = false;
    return Promise.resolve(added);
  }

  edits(): Promise<undefined> {
    return Promise.resolve(undefined);
  }

  propose(): Promise<never> {
    return Promise.reject(new Refused("A file cannot be proposed again. Run: uvran propose", 0));
  }

  listen(): () => void {
    return () => {};
  }

  /** All decisions as they are stored in a project. */
  saved(): string {
    this.isSaved = true;
    return decisionsText(this.#decisions);
  }
}
