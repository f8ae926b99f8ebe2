import { join } from "node:path";
import { hashText, type Explanation } from "../engine/index.js";
import { Problem, type Project, type Sources } from "../node/index.js";
import type { Rule } from "../rules/index.js";
import { languageOf } from "../syntax/index.js";
import { AskedWords } from "./asked-words.js";
import { Examiner, isOfCompiler, type FileState, type Ground } from "./examiner.js";
import type { LookedAt } from "./looking.js";
import type { Kept, Memory } from "./memory.js";
import { OutsideFiles } from "./outside-files.js";
import { hashOf, sizeOf, stampOf } from "./stamp.js";
import { workersFor } from "./worker-count.js";
import type { Workers } from "./workers.js";

/** What results may be worked out with. */
export interface Helpers {
  /** Where results are remembered from one run to the next; nowhere without it. */
  readonly memory?: Memory | undefined;
  /** Begins threads that work files out; without it, all is done in this one. */
  readonly workers?: ((sources: Sources, threads: number) => Promise<Workers>) | undefined;
  /** How many threads to use; as many as pay where it is not said. */
  readonly threads?: number | undefined;
}

type Whole = Ground & Pick<Project, "journeys">;

/**
 * What the rules say of each file of a project. A result is kept until its file changes, or another one that it looked
 * at.
 */
export class Results {
  readonly #ground: Whole;
  readonly #helpers: Helpers;
  readonly #examiner: Examiner;
  readonly #kept: Map<string, Kept>;
  readonly #asked: AskedWords;
  readonly #outside: OutsideFiles;
  #sources: Sources;
  /** The stamps of all files of the project when they were last looked over. */
  #stamps: ReadonlyMap<string, string>;
  /** The hashes of files without a state, from an earlier run. */
  #hashes: ReadonlyMap<string, string>;
  /** Files that were written after they were looked over and before they were worked out: others may rest on what they were. */
  readonly #moved = new Set<string>();
  #hasNews = false;
  /** Counts the changes that were taken in: what was begun before one of them may be about something that is past. */
  #epoch = 0;
  /** What is worked out at the moment, and those that wait for it. */
  #working: Promise<unknown> = Promise.resolve();

  constructor(ground: Whole, sources: Sources, helpers: Helpers = {}) {
    this.#ground = ground;
    this.#helpers = helpers;
    this.#sources = sources;
    this.#examiner = new Examiner(ground, sources);
    const remembered = helpers.memory?.load();
    this.#kept = new Map(remembered?.kept);
    this.#asked = remembered?.asked ?? new AskedWords();
    this.#outside = new OutsideFiles(ground.root, remembered?.outside);
    this.#hashes = remembered?.hashes ?? new Map();
    this.#stamps = remembered?.stamps ?? this.#stampsOf(sources);
    if (remembered) this.refresh(sources);
  }

  /**
   * The text of any file of the project, as it is on the disk. Throws a Problem where something was said of it and it has
   * changed since.
   */
  text(path: string): string {
    const text = this.#examiner.files.text(path);
    const known = this.#kept.get(path)?.textHash;
    if (known !== undefined && known !== hashText(text))
      throw new Problem(`${path} has changed since it was looked at. Run again.`, 1);
    return text;
  }

  /** Is this one of the sources? */
  has(path: string): boolean {
    return this.#sources.paths.includes(path);
  }

  /**
   * Looks over all files again. Gives the paths whose results do not hold any more: those of changed files, and of files
   * whose results looked at something that changed.
   */
  refresh(sources: Sources): string[] {
    const stamps = this.#stampsOf(sources);
    return this.#takeIn(sources, stamps, [...this.#stamps.keys(), ...stamps.keys()]);
  }

  /**
   * Takes a text for that of one of the files, as long as it is not undefined. Gives the paths whose results do not hold any more,
   * as `refresh` does.
   */
  setUnsaved(path: string, text: string | undefined): string[] {
    if (!this.has(path)) return [];
    this.#examiner.files.setUnsaved(path, text);
    const stamps = new Map(this.#stamps).set(path, this.#stampOf(path));
    return this.#takeIn(this.#sources, stamps, [path]);
  }

  /** Takes in the stamps that files have now, of which some may have changed. */
  #takeIn(sources: Sources, stamps: ReadonlyMap<string, string>, suspects: readonly string[]): string[] {
    const changed = new Set(suspects.filter((path) => this.#hasChanged(path, stamps)));
    this.#hasNews ||= suspects.some((path) => this.#stamps.get(path) !== stamps.get(path));
    const styled = [...this.#sources.styles, ...sources.styles].some((path) => changed.has(path));
    const outlined =
      [...this.#sources.manifests, ...sources.manifests].some((path) => changed.has(path)) ||
      (this.#sources !== sources && this.#sources.paths.join("\n") !== sources.paths.join("\n"));
    const compiled = this.#outside.haveChanged() || [...changed].some(isOfCompiler);
    this.#sources = sources;
    this.#stamps = stamps;
    this.#hashes = new Map();
    this.#moved.clear();
    if (changed.size > 0 || compiled) {
      this.#examiner.update(sources, changed, compiled);
      this.#epoch++;
    }
    const touched = new Set<string>();
    for (const path of changed)
      for (const word of this.#asked.changed(path, this.#examiner.files.wordsOf(path, this.#asked.all)))
        touched.add(word);
    const stale = [...this.#kept.values()].filter(
      ({ path, products, lookedAt }) =>
        changed.has(path) ||
        (lookedAt.types && compiled) ||
        (lookedAt.styles && styled) ||
        (lookedAt.outline && outlined) ||
        (lookedAt.contents && (changed.size > 0 || compiled)) ||
        lookedAt.words.some((word) => touched.has(word)) ||
        !this.#hasVersions(lookedAt) ||
        products.join() !== this.#productsAt(path).join(),
    );
    for (const { path } of stale) this.#kept.delete(path);
    return stale.map(({ path }) => path).sort();
  }

  /** What is known of a file, worked out where it is not yet. */
  of(path: string): Promise<FileState> {
    return this.#next(async () => {
      const known = this.#kept.get(path);
      if (known) return known;
      let [state, begun] = [undefined as FileState | undefined, -1];
      while (!state || begun !== this.#epoch) {
        begun = this.#epoch;
        state = await this.#examiner.examine(path);
      }
      this.#keep(state);
      for (const word of this.#asked.unknownOf(state.lookedAt.words))
        this.#asked.learn(word, this.#examiner.files.having(word));
      this.#outside.add(this.#examiner.outsideFiles(), (own) => this.#stamps.has(own));
      return state;
    });
  }

  /** Works out all of some files that are not known yet, on several cores where that pays; tells how many are done. */
  async workOut(paths: readonly string[], progress: (done: number) => void): Promise<void> {
    const missing = paths.filter((path) => !this.#kept.has(path));
    const bytes = missing.reduce((sum, path) => sum + this.#sizeOf(path), 0);
    const { workers, threads } = this.#helpers;
    const count = threads === undefined ? workersFor(bytes) : Math.min(threads, missing.length);
    let done = paths.length - missing.length;
    const isOnDisk = !this.#examiner.files.hasUnsaved;
    if (workers && count > 1 && isOnDisk)
      return this.#next(() => this.#byWorkers(missing, count, done, progress));
    for (const path of missing) {
      progress(done++);
      await this.of(path);
      if (done % 50 === 0) await new Promise(setImmediate);
    }
  }

  /** Stores what is known, where there is something new to be remembered. Throws what the file system throws. */
  remember(): void {
    if (!this.#helpers.memory || !this.#hasNews || this.#examiner.files.hasUnsaved) return;
    const { manifests, styles } = this.#sources;
    const holds = ({ path, hash, result }: Kept): boolean =>
      hash !== "" && !this.#moved.has(path) && !result?.failures?.length;
    const kept = new Map([...this.#kept].filter(([, state]) => holds(state)));
    const byContent = [...manifests, ...styles].map((path) => [path, this.#hashAsLookedOver(path)] as const);
    this.#helpers.memory.store({
      kept,
      stamps: new Map([...this.#stamps].map(([path, stamp]) => [path, this.#moved.has(path) ? "" : stamp])),
      hashes: new Map(byContent),
      asked: this.#asked,
      outside: this.#outside.stamps,
    });
    this.#hasNews = false;
  }

  /** Why a rule does at a line of a file what it does; undefined for a file that holds no code that is read. */
  explain(rule: Rule, path: string, line: number): Promise<Explanation[] | undefined> {
    return this.#examiner.explain(rule, path, line);
  }

  async #byWorkers(
    paths: readonly string[],
    threads: number,
    before: number,
    progress: (done: number) => void,
  ): Promise<void> {
    const workers = await this.#helpers.workers!(this.#sources, threads);
    try {
      const asked = new Set<string>();
      const begun = this.#epoch;
      await workers.examine(
        paths,
        (path) => this.#sizeOf(path),
        (state) => {
          if (begun === this.#epoch) this.#keep(state);
          for (const word of state.lookedAt.words) asked.add(word);
        },
        (done) => progress(before + done),
      );
      const words = this.#asked.unknownOf(asked);
      const having = await workers.having(words);
      words.forEach((word, i) => this.#asked.learn(word, having[i]!));
      this.#outside.add(workers.outsideFiles, (own) => this.#stamps.has(own));
    } finally {
      await workers.stop();
    }
  }

  #keep(state: FileState): void {
    const { path } = state;
    this.#kept.set(path, { ...state, products: this.#productsAt(path) });
    if (this.#stampOf(path) !== this.#stamps.get(path)) this.#moved.add(path);
    this.#hasNews = true;
  }

  /** One thing after the other. */
  #next<T>(work: () => Promise<T>): Promise<T> {
    const next = this.#working.then(work);
    this.#working = next.catch(() => undefined);
    return next;
  }

  /** Are the versions that were asked for still the same, and how wide lines may be? */
  #hasVersions({ targets, lineLimits }: LookedAt): boolean {
    const now = this.#examiner.targets;
    const text = (path: string): string => this.#textOf(path);
    return (
      targets.every(({ path, language, target }) => {
        const file = {
          path,
          language: languageOf(language),
          get text() {
            return text(path);
          },
        };
        return isSame(now.targetOf(file), target);
      }) &&
      Object.entries(lineLimits).every(([path, limit]) => isSame(now.lineLimitOf?.(path) ?? null, limit))
    );
  }

  #textOf(path: string): string {
    try {
      return this.#examiner.files.text(path);
    } catch {
      return "";
    }
  }

  #productsAt(path: string): string[] {
    return this.#ground.journeys.map(({ versionAt }) => versionAt(path) ?? "");
  }

  #hasChanged(path: string, stamps: ReadonlyMap<string, string>): boolean {
    const [stamp, now] = [this.#stamps.get(path), stamps.get(path)];
    if (this.#moved.has(path)) return true;
    if (stamp === now && now !== "") return false;
    const known = this.#kept.get(path)?.hash ?? this.#hashes.get(path) ?? "";
    return known === "" || now === undefined || this.#hashOf(path) !== known;
  }

  #hashOf(path: string): string {
    try {
      return hashOf(this.#examiner.files.source(path).bytes);
    } catch {
      return "";
    }
  }

  /** The hash of a file that is still as it was when it was looked over; empty for another one. */
  #hashAsLookedOver(path: string): string {
    const hash = this.#hashOf(path);
    return this.#stampOf(path) === this.#stamps.get(path) ? hash : "";
  }

  #sizeOf(path: string): number {
    return sizeOf(this.#stamps.get(path) ?? "");
  }

  #stampsOf({ paths, manifests, styles }: Sources): Map<string, string> {
    const all = [...paths, ...manifests, ...styles];
    return new Map(all.map((path) => [path, this.#stampOf(path)]));
  }

  /** Empty for a file that is not there, and for text that is not saved: only its content tells whether it has changed. */
  #stampOf(path: string): string {
    if (this.#examiner.files.isUnsaved(path)) return "";
    return stampOf(join(this.#ground.root, path)) ?? "";
  }
}

const isSame = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other);
