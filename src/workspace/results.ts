import { createHash } from "node:crypto";
import { readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import { Engine, type Explanation, type FileResult } from "../engine/index.js";
import type { Rule } from "../rules/index.js";
import {
  decode,
  hasWord,
  inspect,
  isManifest,
  messageOf,
  ProjectFiles,
  ProjectTargets,
  TypeScriptTypes,
  type Project,
  type Sources,
} from "../node/index.js";
import { Looking, nothingLookedAt, type LookedAt } from "./looking.js";

/** What is known of a file. */
export interface FileState {
  readonly path: string;
  /** Why it was left out on purpose. */
  readonly skipped?: string;
  /** Why it could not be read. */
  readonly unreadable?: string;
  /** What the engine says of it; undefined where no rule has anything to do in it. */
  readonly result?: FileResult;
  /** Its text, where something was said of it. */
  readonly text?: string;
  readonly lookedAt: LookedAt;
}

interface Kept extends FileState {
  /** Time, size and place on the disk, which change with the content. */
  readonly stamp: string;
  readonly hash: string;
}

/** What a project is, as far as results depend on it. */
export type Ground = Pick<Project, "root" | "rules" | "targets" | "fileTime" | "library">;

/** The time in milliseconds after which a file is given up, where the config does not say it. */
const MOST_TIME = 60_000;
/** Files that the compiler may read. */
const OF_THE_COMPILER = /\.([cm]?[jt]sx?|json)$/;
const NOTHING: FileResult = { changes: [], heldBack: [] };

/**
 * What the rules say of each file of a project. A result is kept until its file changes, or another one that it looked
 * at.
 */
export class Results {
  readonly #ground: Ground;
  readonly #files: ProjectFiles;
  readonly #looking = new Looking();
  readonly #kept = new Map<string, Kept>();
  /** The stamps of all files of the project when they were last looked over. */
  #stamps: ReadonlyMap<string, string>;
  #types: TypeScriptTypes;
  #engine: Engine;
  /** The file that is worked out at the moment, and those that wait for it. */
  #working: Promise<unknown> = Promise.resolve();

  constructor(ground: Ground, { paths, manifests, styles }: Sources) {
    this.#ground = ground;
    this.#files = new ProjectFiles(ground.root, paths, styles);
    this.#types = new TypeScriptTypes(ground.root);
    this.#engine = this.#newEngine();
    this.#stamps = this.#stampsOf([...paths, ...manifests, ...styles]);
  }

  /** The text of any file of the project, as it is on the disk. */
  text(path: string): string {
    return this.#kept.get(path)?.text ?? this.#files.text(path);
  }

  /**
   * Looks over all files again. Gives the paths whose results do not hold any more: those of changed files, and of files
   * whose results looked at something that changed.
   */
  refresh({ paths, manifests, styles }: Sources): string[] {
    const stamps = this.#stampsOf([...paths, ...manifests, ...styles]);
    const changed = new Set(
      [...this.#stamps.keys(), ...stamps.keys()].filter((path) => this.#hasChanged(path, stamps)),
    );
    this.#stamps = stamps;
    if (changed.size === 0) return [];
    const words = this.#files.update(paths, styles, changed);
    const manifest = [...changed].some(isManifest);
    const compiled = [...changed].some((path) => OF_THE_COMPILER.test(path));
    const stale = [...this.#kept.values()].filter(
      ({ path, lookedAt }) =>
        changed.has(path) ||
        (lookedAt.types && compiled) ||
        (lookedAt.versions.size > 0 && manifest) ||
        [...lookedAt.words].some((word) => words.has(word)),
    );
    for (const { path } of stale) this.#kept.delete(path);
    if (compiled) this.#types = new TypeScriptTypes(this.#ground.root);
    // What the engine knows of the project as a whole is out of date.
    this.#engine = this.#newEngine();
    return stale.map(({ path }) => path).sort();
  }

  /** What is known of a file, worked out where it is not yet. */
  of(path: string): Promise<FileState> {
    const next = this.#working.then(async () => {
      const known = this.#kept.get(path);
      if (known) return known;
      const state = await this.#workOut(path);
      this.#kept.set(path, state);
      return state;
    });
    this.#working = next.catch(() => undefined);
    return next;
  }

  /** Why a rule does at a line of a file what it does; undefined for a file that holds no code that is read. */
  explain(rule: Rule, path: string, line: number): Promise<Explanation[] | undefined> {
    return this.#engine.explain(rule, path, this.text(path), line);
  }

  async #workOut(path: string): Promise<Kept> {
    const lookedAt = this.#looking.begin();
    const file = join(this.#ground.root, path);
    const stamp = stampOf(file) ?? "";
    let bytes: Buffer;
    try {
      bytes = readFileSync(file);
    } catch (error) {
      return { path, stamp, hash: "", unreadable: messageOf(error), lookedAt: nothingLookedAt() };
    }
    const what = { path, stamp, hash: hashOf(bytes), lookedAt };
    const verdict = inspect(bytes);
    if (verdict)
      return { ...what, ...("skip" in verdict ? { skipped: verdict.skip } : { unreadable: verdict.bad }) };
    if (!(await this.#engine.mayMatch(path, hasWord(bytes)))) return what;
    const text = decode(bytes);
    const result = (await this.#engine.file(path, text)) ?? NOTHING;
    const { changes, heldBack, advice = [] } = result;
    const isEmpty = changes.length + heldBack.length + advice.length === 0;
    return { ...what, result, ...(isEmpty ? {} : { text }) };
  }

  #newEngine(): Engine {
    const { root, rules, targets, library, fileTime = MOST_TIME } = this.#ground;
    return new Engine(rules, {
      files: this.#looking.files(this.#files),
      types: this.#looking.types(this.#types),
      targets: this.#looking.targets(new ProjectTargets(root, targets)),
      library,
      fileTime,
    });
  }

  #hasChanged(path: string, stamps: ReadonlyMap<string, string>): boolean {
    if (stamps.get(path) === this.#stamps.get(path)) return false;
    const known = this.#kept.get(path);
    if (!known || !stamps.has(path)) return true;
    try {
      return hashOf(readFileSync(join(this.#ground.root, path))) !== known.hash;
    } catch {
      return true;
    }
  }

  #stampsOf(paths: readonly string[]): Map<string, string> {
    return new Map(paths.map((path) => [path, stampOf(join(this.#ground.root, path)) ?? ""]));
  }
}

function stampOf(file: string): string | undefined {
  try {
    const { mtimeMs, ctimeMs, size, ino } = statSync(file);
    return `${mtimeMs} ${ctimeMs} ${size} ${ino}`;
  } catch {
    return undefined;
  }
}

function hashOf(bytes: Uint8Array): string {
  return createHash("sha256").update(bytes).digest("base64");
}
