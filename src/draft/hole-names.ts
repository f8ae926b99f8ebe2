import type { Import } from "../syntax/index.js";
import { textOfRun, type Run } from "./run.js";

/** A name, or names with dots and calls between them. */
const PATH = /^[@$&*]*[\p{L}_][\p{L}\p{N}_]*(?:(?:\.|->|::|\?\.|\(\))[\p{L}\p{N}_]*)*$/u;

/** Words of TypeScript. */
const WORDS =
  "await break case catch class const continue debugger default delete do else enum export extends false finally for function if implements import in instanceof interface let new null package private protected public return static super switch this throw true try typeof var void while with yield eval arguments";
/** What a rule file imports, and what it names itself. */
const IMPORTED =
  "all any builtin choice condition countedItem cpp csharp drafted each escapes exactly filled filledItem fresh guarded hasKey holds holes ignores item java javascript leavesEarly match maybe missing need neverWritten not onlyIf onlyUse php powershell present python rewrites ruby rule sideEffectFree takenSafely tested trialsIn truthy typescript unchangedDuring usedAfter";
const RESERVED = new Set([...WORDS.split(" "), ...IMPORTED.split(" ")]);

/** A name of JavaScript that means nothing else in a rule file. */
export function nameOfOwn(wish: string): string {
  return RESERVED.has(wish) ? `${wish}Code` : wish;
}

/** Names for the holes of a rule, each once: after the code that they stand for, or its place. */
export class HoleNames {
  readonly #taken = new Set<string>();
  readonly #needs = new Map<string, string>();

  forRun(run: Run, list: string | undefined): string {
    if (list === "statements") return this.#free("body");
    if (list === "arguments") return this.#free("args");
    if (list !== undefined) return this.#free(list);
    const { tree, nodes } = run;
    const field = tree.fieldOf(nodes[0]!);
    const text = textOfRun(run);
    const last = /([\p{L}_][\p{L}\p{N}_]*)\W*$/u.exec(text)?.[1] ?? "";
    const byText = text.length <= 40 && PATH.test(text) ? last : "";
    return this.#free(byText || named(field) || "value");
  }

  forNeed({ module, name, local }: Import): string {
    const key = `${module} ${name ?? ""}`;
    let known = this.#needs.get(key);
    if (known === undefined) this.#needs.set(key, (known = this.#free(local ?? name ?? "module")));
    return known;
  }

  #free(wish: string): string {
    const letters = wish.replace(/[^\p{L}\p{N}_]/gu, "");
    const camel = letters
      .replace(/^_+/, "")
      .replace(/_+(\p{L})/gu, (_, letter: string) => letter.toUpperCase());
    const base = /^\p{L}/u.test(camel) ? camel : "value";
    const safe = nameOfOwn(base);
    let name = safe;
    for (let i = 2; this.#taken.has(name); i++) name = `${safe}${i}`;
    this.#taken.add(name);
    return name;
  }
}

/** What the place of a piece is called. */
const PLACES: Readonly<Record<string, string>> = {
  object: "object",
  function: "callee",
  left: "left",
  right: "right",
  condition: "test",
  consequence: "then",
  alternative: "otherwise",
  index: "index",
  key: "key",
  name: "name",
  value: "value",
  type: "type",
  operator: "operator",
};

const named = (field: string | undefined): string => PLACES[field ?? ""] ?? "";
