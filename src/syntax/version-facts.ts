import type { SyntaxNode } from "./node.js";
import { oncePerTree } from "./once-per-tree.js";
import type { SyntaxTree } from "./tree.js";

/** Something a language has not always had, with the version it came in. */
export interface Novelty {
  readonly since: string;
  /** For a sentence: "`??=`", "a lambda". */
  readonly what: string;
  /** Syntax, without which a file cannot even be read. */
  readonly isSyntax: boolean;
}

/** A version, or how to tell it of a node; undefined for one that is as old as the language. */
type Since = string | ((node: SyntaxNode) => string | undefined);

/** In which version each piece of syntax and each function of the library came in, as far as new code may use it. */
export interface VersionFacts {
  /** Kinds of node, with what they are called. */
  readonly kinds: Readonly<Record<string, readonly [since: Since, what: string]>>;
  /** Operators and words of the language. */
  readonly tokens: Readonly<Record<string, string>>;
  /**
   * Names of the library by the version they came in, parted by spaces: `merge` for one that nothing older has,
   * `Objects.requireNonNullElse` where only what it is read of tells.
   */
  readonly names: Readonly<Record<string, string>>;
  /** The library comes with what reads the syntax, so that syntax of a version tells that its library is there. */
  readonly bringsLibrary?: true;
  /** The last version of each line that has ended, where scripts name only the line: `python2`. */
  readonly lastOf?: Readonly<Record<string, string>>;
}

type Named = Novelty & { readonly of: string };

const byName = new WeakMap<VersionFacts, ReadonlyMap<string, readonly Named[]>>();

/** The names of a table, by the last part of each. */
function namesOf(facts: VersionFacts): ReadonlyMap<string, readonly Named[]> {
  let result = byName.get(facts);
  if (result) return result;
  const table = new Map<string, Named[]>();
  for (const [since, names] of Object.entries(facts.names)) {
    for (const full of names.split(" ")) {
      const at = full.lastIndexOf(".");
      const name = full.slice(at + 1);
      const entry = { since, what: `\`${full}\``, isSyntax: false, of: at < 0 ? "" : full.slice(0, at) };
      table.set(name, [...(table.get(name) ?? []), entry]);
    }
  }
  byName.set(facts, (result = table));
  return result;
}

/** What stands in a range of a file and has a version, each as often as it stands there. */
export function noveltiesIn(tree: SyntaxTree, start = 0, end = tree.text.length): Novelty[] {
  const { versions } = tree.language;
  const names = namesOf(versions);
  const result: Novelty[] = [];
  for (let n = tree.firstFrom(start); n < tree.size && tree.starts[n]! <= end; n++) {
    if (tree.ends[n]! > end) continue;
    const kind = tree.kind(n);
    const isNamed = tree.isNamed(n);
    const [since, what] = (isNamed ? versions.kinds[kind] : undefined) ?? [];
    const version = typeof since === "function" ? since(tree.node(n)) : since;
    if (version !== undefined) result.push({ since: version, what: what!, isSyntax: true });
    if (!tree.isLeaf(n)) continue;
    const text = tree.textOf(n);
    const token = isNamed ? undefined : versions.tokens[text];
    if (token !== undefined) result.push({ since: token, what: `\`${text}\``, isSyntax: true });
    const found = isNamed
      ? names.get(text)?.find(({ of }) => of === "" || of === readOf(tree, n))
      : undefined;
    if (found) result.push(found);
  }
  return result;
}

/** The last name of what a name is read of: `Objects` of `java.util.Objects.hash`. */
function readOf(tree: SyntaxTree, n: number): string | undefined {
  const start = tree.starts[n]!;
  const before = tree.text.slice(Math.max(0, start - 120), start);
  return /([\p{L}\p{N}_$]+)\s*(?:\.|::|->)\s*$/u.exec(before)?.[1];
}

/** The syntax of a file that has a version, each once; none where there is an `#if`, behind which some compilers never read. */
export const syntaxIn = oncePerTree((tree): readonly Novelty[] => {
  if (/^[ \t]*#[ \t]*if/m.test(tree.text)) return [];
  const found = noveltiesIn(tree).filter(({ isSyntax }) => isSyntax);
  return [...new Map(found.map((one) => [one.what, one])).values()];
});
