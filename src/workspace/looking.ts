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
import type { VersionAsked } from "../report/index.js";
import type { Target, TargetSource } from "../rules/index.js";

/** What was looked at beside a file itself while its result was worked out. */
export interface LookedAt {
  /** Words whose files were asked for: a change of any file that has one of them before or after counts. */
  readonly words: Set<string>;
  /** Was the compiler asked, which reads files of its own choice? */
  types: boolean;
  /** The versions that were asked for, each by its wording. */
  readonly versions: Map<string, VersionAsked>;
}

export function nothingLookedAt(): LookedAt {
  return { words: new Set(), types: false, versions: new Map() };
}

/** Writes down what a result rests on while it is worked out; one result at a time. */
export class Looking {
  #at: LookedAt = nothingLookedAt();

  /** From here on what is asked belongs to another result. */
  begin(): LookedAt {
    return (this.#at = nothingLookedAt());
  }

  files(files: SourceFiles & { readonly trees: TreeStore }): SourceFiles {
    const note = (word: string): void => void this.#at.words.add(word);
    return {
      naming(word: string): Iterable<NamingFile> {
        note(word);
        return files.naming(word);
      },
      *styling(word: string): Generator<Pick<NamingFile, "path" | "text">> {
        note(word);
        yield* files.styling?.(word) ?? [];
      },
      restsOn: note,
      trees: files.trees,
    };
  }

  types(types: TypeSource): TypeSource {
    const asked = <T>(answer: T): T => {
      this.#at.types = true;
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
        const { title, assumedVersion } = file.language;
        const asked = { version: `${title} ${target?.version ?? assumedVersion}`, says: target?.says };
        this.#at.versions.set(`${asked.version} ${asked.says ?? ""}`, asked);
        return target;
      },
      lineLimitOf: (path) => targets.lineLimitOf?.(path),
    };
  }
}
