import type {
  Answer,
  AskedFile,
  NamingFile,
  ResolvedTo,
  SourceFiles,
  TreeStore,
  TypeFacts,
  TypeSource,
} from "../analysis/index.js";
import type { Target, TargetSource } from "../rules/index.js";
import type { LanguageId } from "../syntax/index.js";

/** Which version a file must run on was asked, and this was the answer. */
export interface AskedTarget {
  readonly path: string;
  readonly language: LanguageId;
  /** Undefined where nothing says it. */
  readonly target?: Target | undefined;
}

/** What was looked at beside a file itself while its result was worked out: the result holds as long as this does. */
export interface LookedAt {
  /** Words whose files were asked for: a change of any file that has one of them before or after counts. */
  readonly words: readonly string[];
  /** Were style sheets looked through? */
  readonly styles: boolean;
  /** Was it asked which files and manifests there are, or what a manifest says? */
  readonly outline: boolean;
  /** Was any file read for what is in it, whatever its words, or the manifest of an installed package? */
  readonly contents: boolean;
  /** Was the compiler asked, which reads files of its own choice? */
  readonly types: boolean;
  readonly targets: readonly AskedTarget[];
  /** How wide the lines of files may be, by their paths; null where nothing says it. */
  readonly lineLimits: Readonly<Record<string, unknown>>;
}

/** Writes down what a result rests on while it is worked out; one result at a time. */
export class Looking {
  #words = new Set<string>();
  #styles = false;
  #outline = false;
  #contents = false;
  #types = false;
  readonly #targets = new Map<string, AskedTarget>();
  readonly #lineLimits = new Map<string, unknown>();

  /** From here on what is asked belongs to another result. */
  begin(): void {
    this.#words = new Set();
    this.#styles = this.#outline = this.#contents = this.#types = false;
    this.#targets.clear();
    this.#lineLimits.clear();
  }

  /** What was asked since the beginning. */
  seen(): LookedAt {
    return {
      words: [...this.#words],
      styles: this.#styles,
      outline: this.#outline,
      contents: this.#contents,
      types: this.#types,
      targets: [...this.#targets.values()],
      lineLimits: Object.fromEntries(this.#lineLimits),
    };
  }

  files(files: SourceFiles & { readonly trees: TreeStore }): SourceFiles {
    const note = (word: string): void => void this.#words.add(word);
    const noteStyles = (): void => void (this.#styles = true);
    const noteContents = (): void => void (this.#contents = true);
    const noteOutline = (): void => void (this.#outline = true);
    return {
      naming(word: string): Iterable<NamingFile> {
        note(word);
        return files.naming(word);
      },
      *styling(word: string): Generator<Pick<NamingFile, "path" | "text">> {
        noteStyles();
        yield* files.styling?.(word) ?? [];
      },
      listed(): Iterable<string> {
        noteOutline();
        return files.listed?.() ?? [];
      },
      at(path: string): NamingFile | undefined {
        noteContents();
        return files.at?.(path);
      },
      installed(name: string, from: string): string | undefined {
        noteContents();
        return files.installed?.(name, from);
      },
      manifest(path: string): string | undefined {
        noteOutline();
        return files.manifest?.(path);
      },
      restsOn: note,
      trees: files.trees,
    };
  }

  types(types: TypeSource): TypeSource {
    const asked = <T>(answer: T): T => {
      this.#types = true;
      return answer;
    };
    return {
      strictNulls: (path: string): Answer => asked(types.strictNulls(path)),
      typeAt: (file: AskedFile, start: number, end: number): TypeFacts | undefined =>
        asked(types.typeAt(file, start, end)),
      declarationAt: (file: AskedFile, start: number, end: number): ResolvedTo | undefined =>
        asked(types.declarationAt(file, start, end)),
    };
  }

  targets(targets: TargetSource): TargetSource {
    return {
      targetOf: (file): Target | undefined => {
        const target = targets.targetOf(file);
        const { path, language } = file;
        this.#targets.set(`${language.id} ${path}`, { path, language: language.id, target });
        return target;
      },
      lineLimitOf: (path) => {
        const limit = targets.lineLimitOf?.(path);
        this.#lineLimits.set(path, limit ?? null);
        return limit;
      },
    };
  }
}
