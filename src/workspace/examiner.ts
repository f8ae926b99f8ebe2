import { Engine, hashText, type Explanation, type FileResult } from "../engine/index.js";
import {
  decode,
  hasWord,
  inspect,
  messageOf,
  ProjectFiles,
  ProjectTargets,
  TypeScriptTypes,
  type Project,
  type Sources,
} from "../node/index.js";
import type { Rule, TargetSource } from "../rules/index.js";
import { Looking, type LookedAt } from "./looking.js";
import { hashOf } from "./stamp.js";

/** What a project is, as far as results depend on it. */
export type Ground = Pick<Project, "root" | "rules" | "targets" | "fileTime" | "library">;

/** What is known of a file. */
export interface FileState {
  readonly path: string;
  /** Of its bytes; empty where it could not be read. */
  readonly hash: string;
  /** Why it was left out on purpose. */
  readonly skipped?: string;
  /** Why it could not be read. */
  readonly unreadable?: string;
  /** What the engine says of it; undefined where no rule has anything to do in it. */
  readonly result?: FileResult;
  /** Of its text, as plans have it, where something was said of it. */
  readonly textHash?: string;
  readonly lookedAt: LookedAt;
}

/** The time in milliseconds after which a file is given up, where the config does not say it. */
export const MOST_TIME = 60_000;
/** Files that the compiler may read. */
const OF_THE_COMPILER = /\.([cm]?[jt]sx?|json)$/;
const NOTHING: FileResult = { changes: [], heldBack: [] };
const NOT_LOOKED: LookedAt = {
  words: [],
  styles: false,
  outline: false,
  contents: false,
  types: false,
  targets: [],
  lineLimits: {},
};

/** The rules at work on the files of a project, one file after the other, in one thread. It remembers no results. */
export class Examiner {
  readonly #ground: Ground;
  readonly #looking = new Looking();
  readonly files: ProjectFiles;
  #types: TypeScriptTypes;
  #targets: ProjectTargets;
  #engine: Engine | undefined;

  constructor(ground: Ground, sources: Pick<Sources, "paths" | "manifests" | "styles">) {
    this.#ground = ground;
    this.files = new ProjectFiles(ground.root, sources);
    this.#types = new TypeScriptTypes(ground.root);
    this.#targets = new ProjectTargets(ground.root, ground.targets);
    this.#engine = this.#newEngine();
  }

  /** What the manifests say of versions, as they were when it began or was last told of changes. */
  get targets(): TargetSource {
    return this.#targets;
  }

  /** The files outside of the project's sources that were read: by the compiler, and manifests of installed packages. */
  outsideFiles(): string[] {
    return [...this.#types.files(), ...this.files.installedManifests];
  }

  /** Takes in that files have changed, are new or gone, and that the compiler must read anew; the project has these sources now. */
  update(
    sources: Pick<Sources, "paths" | "manifests" | "styles">,
    changed: ReadonlySet<string>,
    compilesAnew: boolean,
  ): void {
    this.files.update(sources, changed);
    if (compilesAnew) this.#types = new TypeScriptTypes(this.#ground.root);
    this.#targets = new ProjectTargets(this.#ground.root, this.#ground.targets);
    // What the engine knows of the project as a whole is out of date.
    this.#engine = this.#newEngine();
  }

  /** Why a rule does at a line of a file what it does; undefined for a file that holds no code that is read. */
  explain(rule: Rule, path: string, line: number): Promise<Explanation[] | undefined> {
    return this.#engine!.explain(rule, path, this.files.text(path), line);
  }

  /** Works a file out. One call at a time. */
  async examine(path: string): Promise<FileState> {
    this.#looking.begin();
    let source: ReturnType<ProjectFiles["source"]>;
    try {
      source = this.files.source(path);
    } catch (error) {
      return { path, hash: "", unreadable: messageOf(error), lookedAt: NOT_LOOKED };
    }
    const { bytes, unsaved } = source;
    const what = { path, hash: hashOf(bytes) };
    const verdict = inspect(bytes);
    if (verdict) {
      const why = "skip" in verdict ? { skipped: verdict.skip } : { unreadable: verdict.bad };
      return { ...what, ...why, lookedAt: NOT_LOOKED };
    }
    const has = unsaved === undefined ? hasWord(bytes) : (word: string) => unsaved.includes(word);
    if (!(await this.#engine!.mayMatch(path, has))) return { ...what, lookedAt: NOT_LOOKED };
    const text = unsaved ?? decode(bytes);
    const result = (await this.#engine!.file(path, text)) ?? NOTHING;
    const { changes, heldBack, advice = [] } = result;
    const isEmpty = changes.length + heldBack.length + advice.length === 0;
    const lookedAt = this.#looking.seen();
    return { ...what, result, ...(isEmpty ? {} : { textHash: hashText(text) }), lookedAt };
  }

  #newEngine(): Engine {
    const { rules, library, fileTime = MOST_TIME } = this.#ground;
    const surroundings = {
      files: this.#looking.files(this.files),
      types: this.#looking.types(this.#types),
      targets: this.#looking.targets(this.#targets),
      library,
      fileTime,
    };
    return new Engine(rules, surroundings, this.#engine);
  }
}

/** A file that was given up as a whole. */
export function failedState(path: string, says: string): FileState {
  return { path, hash: "", result: { ...NOTHING, failures: [{ path, says }] }, lookedAt: NOT_LOOKED };
}

/** Does the compiler read a file of this name? */
export const isOfCompiler = (path: string): boolean => OF_THE_COMPILER.test(path);
