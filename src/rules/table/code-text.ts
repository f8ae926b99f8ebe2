import { Hole, need, Need, Snippet, type Part } from "../../pattern/index.js";
import { HOLE_KINDS, type HoleKind, type LanguageId } from "../../syntax/index.js";

/** A hole that a row declares, with the class whose objects it stands for. */
export interface Declared {
  readonly hole: Hole;
  readonly type?: { readonly name: string; readonly module?: string };
}

/** What the names in the code of a row stand for. */
export interface Names {
  readonly holes: ReadonlyMap<string, Declared>;
  readonly needs: ReadonlyMap<string, Need>;
}

/** What is wrong with a cell of a table. */
export class CellError extends Error {
  override readonly name = "CellError";
}

/** Any number of arguments. */
const REST = "…";

const isKind = (word: string): word is HoleKind => HOLE_KINDS.some((kind) => kind === word);

/**
 * Reads a list of holes: `hive: Hive from combwork, kg, rest: arguments`. A hole without more is an expression. Throws a
 * CellError for what cannot be read.
 */
export function holesIn(cell: string, module: string | undefined): Map<string, Declared> {
  const found = new Map<string, Declared>();
  for (const item of itemsOf(cell)) {
    const parts = /^(\$?[\p{L}_][\p{L}\p{N}_]*)(?:\s*:\s*(.+))?$/u.exec(item);
    if (!parts) throw new CellError(`"${item}" is no name, and no name with what it stands for`);
    const [, name = "", says = "expression"] = parts;
    if (found.has(name)) throw new CellError(`"${name}" stands there twice`);
    if (isKind(says)) {
      found.set(name, { hole: new Hole(name, says) });
      continue;
    }
    const origin = originIn(says, module);
    const type = origin.module === undefined ? { name: origin.name } : origin;
    found.set(name, { hole: new Hole(name, "expression"), type: type as Declared["type"] & object });
  }
  return found;
}

/** Reads a list of names and where they come from: `Hive from combwork, default as Yard from combwork/yard`. */
export function needsIn(cell: string, module: string | undefined): Map<string, Need> {
  const found = new Map<string, Need>();
  for (const item of itemsOf(cell)) {
    const { name, local, module: from } = originIn(item, module);
    if (from === undefined)
      throw new CellError(`"${item}" does not say where it comes from: write "${item} from MODULE"`);
    const shown = local ?? name;
    found.set(shown, local === undefined ? need(from, name) : need(from, name, { as: local }));
  }
  return found;
}

function itemsOf(cell: string): string[] {
  return cell
    .split(",")
    .map((item) => item.trim())
    .filter((item) => item !== "");
}

function originIn(
  item: string,
  preset: string | undefined,
): { name: string; local?: string; module?: string } {
  const parts = /^(\S+)(?:\s+as\s+(\S+))?(?:\s+from\s+(\S+))?$/.exec(item);
  if (!parts) throw new CellError(`"${item}" is no name, and no name with the module that it comes from`);
  const [, name = "", local, module = preset] = parts;
  return { name, ...(local === undefined ? {} : { local }), ...(module === undefined ? {} : { module }) };
}

const STRING = /"(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*'|`(?:\\.|[^`\\])*`/.source;
const WORD = /\$?[\p{L}_][\p{L}\p{N}_]*(?:::[\p{L}_][\p{L}\p{N}_]*)*/u.source;
const PIECE = new RegExp(`(${STRING})|(${WORD}|${REST})`, "gu");

/**
 * Code of a row as a snippet. A word counts as a name of the row where it is neither a member (`.word`) nor the name of an
 * argument or a key (`word:`, `word=`), and outside of strings.
 */
export function snippetIn(code: string, language: LanguageId, { holes, needs }: Names): Snippet {
  const texts: string[] = [""];
  const parts: Part[] = [];
  let at = 0;
  let restsSoFar = 0;
  const put = (part: Part, start: number, end: number): void => {
    texts[texts.length - 1] += code.slice(at, start);
    parts.push(part);
    texts.push("");
    at = end;
  };
  for (const found of code.matchAll(PIECE)) {
    const word = found[2];
    if (word === undefined) continue;
    const name = [...prefixesOf(word)].find((one) => needs.has(one)) ?? word.split("::")[0]!;
    const [start, end] = [found.index, found.index + name.length];
    const [ahead, behind] = [code.slice(0, start).trimEnd(), code.slice(end)];
    if (/((?<!\.)\.|->|::|\\)$/.test(ahead)) continue;
    const isLabel = /^\s*(:(?!:)|=(?![=>]))/.test(behind) && /(^|[({,])$/.test(ahead);
    if (isLabel && ahead !== "") continue;
    const part = word === REST ? rest(holes, restsSoFar++) : (holes.get(name)?.hole ?? needs.get(name));
    if (part) put(part, start, end);
  }
  texts[texts.length - 1] += code.slice(at);
  return new Snippet(language, texts, parts);
}

/** `a::b::c`, `a::b`, `a`. */
function* prefixesOf(word: string): Generator<string> {
  const parts = word.split("::");
  for (let n = parts.length; n > 0; n--) yield parts.slice(0, n).join("::");
}

const rests = new WeakMap<Names["holes"], Hole[]>();

/** The hole that the nth `…` stands for, the same one in all code of a row. */
function rest(holes: Names["holes"], n: number): Hole {
  const known = rests.get(holes) ?? [];
  rests.set(holes, known);
  return (known[n] ??= new Hole(n === 0 ? REST : `${REST}${n + 1}`, "arguments"));
}

/** How many lists of anything the code has. */
export function restsIn({ parts }: Snippet): number {
  return new Set(parts.filter((part) => part instanceof Hole && part.name.startsWith(REST))).size;
}

/** What the code is, where it is nothing but one name that comes from elsewhere. */
export function loneName({ texts, parts }: Snippet): Need | undefined {
  const [only] = parts;
  const isAlone = parts.length === 1 && texts.every((text) => text.trim() === "");
  return isAlone && only instanceof Need ? only : undefined;
}

/**
 * Code in the text form of tables as a snippet, for what is written in a config: `…` stands for any arguments, `from` says where
 * its names come from as the column of that name does, and each word of `holes` stands for what its hole takes. Throws a
 * CellError or a SnippetError for what cannot be read.
 */
export function writtenCode(
  code: string,
  language: LanguageId,
  { from = "", holes = {} }: { readonly from?: string; readonly holes?: Readonly<Record<string, Hole>> },
): { readonly snippet: Snippet; readonly needs: readonly Need[] } {
  const declared = new Map(Object.entries(holes).map(([name, hole]) => [name, { hole }]));
  const needs = needsIn(from, undefined);
  const snippet = snippetIn(code, language, { holes: declared, needs });
  const idle = [...needs].find(([, one]) => !snippet.parts.includes(one));
  if (idle) throw new CellError(`"${idle[0]}" comes from elsewhere by \`from\`, and is not in the code`);
  return { snippet, needs: [...needs.values()] };
}
