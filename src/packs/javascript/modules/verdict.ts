import { surroundingsOf, treeOfOther, yes } from "../../../core.js";
import type { Answer, FileTogether, SourceFiles, SyntaxTree } from "../../../core.js";
import type { CodeFile } from "./code-file.js";
import { circlesOf } from "./cycles.js";
import { Doubts } from "./doubts.js";
import { Forms } from "./forms.js";
import type { Whereabouts } from "./loaded.js";
import { withModules } from "./manifest.js";
import { NotAModule } from "./not-a-module.js";
import { isModule, refuseImports, refuseMixture, refuseOther } from "./other-modules.js";
import { isConverted, type Package } from "./packages.js";
import { type Reading, readingOf } from "./reading.js";
import { asScript } from "./scripts.js";
import { strictnessOf } from "./strict.js";
import { refuseReplaced, refuseTools, refuseUsersOutside, startedAs } from "./surrounding.js";
import { writtenAsModule } from "./written.js";

/** What becomes of a package: its files as modules, or the first thing that stands against it. */
export type Verdict = Moved | Refused;

export interface Moved {
  readonly files: readonly FileTogether[];
  readonly says: Answer;
  readonly doubts: Pick<Doubts, "likely" | "possible">;
}

export interface Refused {
  readonly refused: NotAModule;
  /** Where more stands against it, one place in each of the other files: `lib/jar.js:3`. */
  readonly others: readonly string[];
}

/** Works out what becomes of a package; undefined where it has nothing to change. `tree` is that of the file that leads it. */
export function verdictOn(owner: Package, tree: SyntaxTree): Verdict | undefined {
  return new Judge(owner, tree).verdict();
}

class Judge {
  readonly #owner: Package;
  /** That of the file that leads the package. */
  readonly #tree: SyntaxTree;
  readonly #files: SourceFiles;
  readonly #where: Whereabouts;
  readonly #doubts = new Doubts();
  readonly #refused: { why: NotAModule; path: string }[] = [];
  /** The modules that are there already. */
  readonly #modules: CodeFile[] = [];

  constructor(owner: Package, tree: SyntaxTree) {
    this.#owner = owner;
    this.#tree = tree;
    const { files, path } = surroundingsOf(tree);
    this.#files = files!;
    const sources = new Set(owner.files.filter(isConverted));
    const listed = new Set([...files!.listed!(), path]);
    this.#where = {
      has: (one) => listed.has(one),
      isOwn: (one) => sources.has(one),
      manifest: (one) => files!.manifest!(one),
      installed: (name, from) => files!.installed?.(name, from),
    };
  }

  verdict(): Verdict | undefined {
    const { path, manifest, files } = this.#owner;
    const { isOwn, has } = this.#where;
    const own = new Set(files);
    this.#attempt(path, () => this.#doubts.likely.push(...startedAs(manifest, path, has)));
    const readings = files.flatMap((one) => this.#attempt(one, () => this.#reading(one)) ?? []);
    this.#attempt(path, () => refuseUsersOutside(this.#files, (one) => own.has(one), isOwn, manifest));
    if (this.#refused.length > 0) return this.#refusal();
    const forms = new Forms(readings);
    const written = readings.flatMap((one) => this.#attempt(one.path, () => this.#written(one, forms)) ?? []);
    for (const one of [...this.#modules, ...readings])
      this.#attempt(one.path, () => refuseImports(one, this.#where, forms));
    this.#attempt(path, () => this.#doubts.possible.push(...circlesOf(readings)));
    if (this.#refused.length > 0) return this.#refusal();
    if (written.length === 0) return undefined;
    const many = written.length === 1 ? "file becomes an ES module" : "files become ES modules";
    const says = yes("form.fits", `${written.length} ${many}, of ${readings.length} in the package`);
    return { files: [...written, ...this.#manifestEdits()], says, doubts: this.#doubts };
  }

  #attempt<T>(path: string, work: () => T): T | undefined {
    try {
      return work();
    } catch (error) {
      if (!(error instanceof NotAModule)) throw error;
      this.#refused.push({ why: error, path });
      return undefined;
    }
  }

  #refusal(): Refused {
    const [first] = this.#refused;
    const places = this.#refused.map(
      ({ why: { at }, path }) => [path, at ? `${path}:${at.line}` : path] as const,
    );
    const others = [...new Map(places)].filter(([path]) => path !== first!.path);
    return { refused: first!.why, others: others.map(([, place]) => place) };
  }

  /** What a file loads and exports; undefined for one that is no CommonJS module. Throws a NotAModule where it stands against it. */
  #reading(path: string): Reading | undefined {
    if (/\.d\.[cm]?ts$/.test(path)) return undefined;
    const file = this.#fileAt(path);
    const isTypeScript = /tsx?$/.test(path);
    if (!isTypeScript && (path.endsWith(".mjs") || isModule(file))) {
      this.#modules.push(file);
      refuseMixture(file, this.#owner.manifest);
      return undefined;
    }
    if (!isConverted(path)) {
      refuseOther(file, this.#where);
      return undefined;
    }
    this.#doubts.likely.push(
      ...refuseTools(file),
      ...asScript(path, this.#owner.manifest),
      ...strictnessOf(file.tree),
    );
    const reading = readingOf(file, this.#where);
    refuseReplaced(reading);
    return reading;
  }

  #fileAt(path: string): CodeFile {
    const around = surroundingsOf(this.#tree);
    const isLeader = path === around.path;
    const text = isLeader ? this.#tree.text : this.#files.at!(path)?.text;
    if (text === undefined) throw new NotAModule(undefined, `${path} cannot be read`);
    const tree = isLeader ? this.#tree : treeOfOther(path, text, around)!;
    const [error] = tree.errors;
    if (error !== undefined)
      throw new NotAModule(tree.node(error), "the parser could not read this file", "file.syntax-error");
    return { path, tree };
  }

  /** Undefined where a file is a module as it stands. */
  #written(file: Reading, forms: Forms): FileTogether | undefined {
    this.#doubts.addOf(file, forms);
    const edits = writtenAsModule(file, forms);
    if (edits.length === 0) return undefined;
    const { path, tree } = file;
    const leftOut = this.#files.at!(path)?.leftOut;
    if (leftOut !== undefined)
      throw new NotAModule(undefined, `${path} is not to be changed: it is ${leftOut}`);
    return { path, text: tree.text, edits };
  }

  /** The manifest says what its files are. */
  #manifestEdits(): FileTogether[] {
    const { path, manifest } = this.#owner;
    if (manifest.type === "module") return [];
    const text = this.#files.manifest!(path)!;
    return [{ path, text, edits: withModules(text) }];
  }
}
