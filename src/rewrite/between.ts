import { Hole, linesOf, Replacing, type Part, type PatternMatch, type Snippet } from "../pattern/index.js";
import { tokensOf } from "./tokens.js";

/** One of the ends of a snippet, seen as a neighbour of its first or last part. */
const EDGE = Symbol("edge");
type Neighbour = Hole | typeof EDGE;

/** What the pattern says between two neighbours. */
interface Wanted {
  readonly left: Neighbour;
  readonly right: Neighbour;
  readonly text: string;
  readonly tokens: string;
}

interface Stretch {
  readonly start: number;
  readonly end: number;
}

/**
 * The text between neighbouring holes of a match. Where a replacement reads the same between two neighbours as
 * the pattern did, in either order, the author meant that to stay, so it is taken from the file as it is: with
 * its own white space, comments, quotes and brackets.
 */
export class Between {
  readonly #match: PatternMatch;
  readonly #wanted: readonly Wanted[];

  constructor(match: PatternMatch) {
    this.#match = match;
    this.#wanted = match.pattern ? stretchesOf(match.pattern.snippet) : [];
    this.#others = this.#wanted.flatMap(({ left, right, tokens }) => {
      const stretch = this.#inFile(left, right);
      if (!stretch || !this.#says(stretch, tokens, "any")) return [];
      return this.#says(stretch, tokens, "needed") ? [] : [stretch];
    });
  }

  /**
   * May text be taken from the file that reads otherwise than the pattern, for want of brackets that can be left
   * out? They come in pairs, so either every such text is taken or none.
   */
  takesOther = true;
  readonly #others: readonly Stretch[];
  readonly #taken = new Set<number>();

  /** Was text taken that reads otherwise, and other such text not? */
  get isTorn(): boolean {
    return this.#taken.size > 0 && this.#others.some(({ start }) => !this.#taken.has(start));
  }

  /** Where the file has what this text between two parts stands for; undefined when the pattern had other text. */
  find(text: string, left: Part | "edge" | undefined, right: Part | "edge" | undefined): Stretch | undefined {
    const before = neighbour(left);
    const after = neighbour(right);
    if (before === undefined || after === undefined || before === after) return undefined;
    const tokens = shape(text);
    const same = this.#wanted.some(
      (w) =>
        w.tokens === tokens &&
        ((w.left === before && w.right === after) ||
          (w.left === after && w.right === before && before !== EDGE && after !== EDGE)),
    );
    const stretch = same ? this.#inFile(before, after) : undefined;
    if (stretch && !this.#says(stretch, tokens, "any")) return undefined;
    if (!stretch || !this.#others.some(({ start }) => start === stretch.start)) return stretch;
    this.#taken.add(stretch.start);
    return this.takesOther ? stretch : undefined;
  }

  /**
   * One operator in the place of another, with the white space that the file has around the old one; undefined
   * where the pattern has more than an operator there.
   */
  inPlaceOf(
    text: string,
    left: Part | "edge" | undefined,
    right: Part | "edge" | undefined,
  ): string | undefined {
    const before = neighbour(left);
    const after = neighbour(right);
    if (before === undefined || after === undefined || before === EDGE || after === EDGE) return undefined;
    const own = this.#wanted.find(
      (w) => (w.left === before && w.right === after) || (w.left === after && w.right === before),
    );
    const stretch = own && this.#inFile(before, after);
    if (!stretch) return undefined;
    const old = this.#match.tree.text.slice(stretch.start, stretch.end);
    const isOne = [text, own.text, old].every((code) =>
      /^\s*[^\s\p{L}\p{N}_$()[\]{},;:"'`]\S*\s*$/u.test(code),
    );
    const isSpacedAlike =
      /^\s/.test(text) === /^\s/.test(own.text) && /\s$/.test(text) === /\s$/.test(own.text);
    if (!isOne || !isSpacedAlike || shape(old).toLowerCase() !== own.tokens.toLowerCase()) return undefined;
    return old.replace(old.trim(), () => text.trim());
  }

  /**
   * Does the file say there what the pattern says, quotes and trailing commas aside, and with brackets or without?
   * It need not: where a comparison fitted with its sides swapped, what stood behind a hole stands ahead of it.
   */
  #says({ start, end }: Stretch, tokens: string, brackets: "needed" | "any"): boolean {
    const { tree } = this.#match;
    let code = "";
    let at = start;
    for (const n of tree.commentsIn(start, end)) {
      code += `${tree.text.slice(at, tree.starts[n])} `;
      at = tree.ends[n]!;
    }
    code += tree.text.slice(at, end);
    const anyCase = tree.language.ignoresCase === "everywhere";
    return meaning(shape(code), brackets, anyCase) === meaning(tokens, brackets, anyCase);
  }

  /** The file's text between the two, if nothing else stands there. */
  #inFile(a: Neighbour, b: Neighbour): Stretch | undefined {
    const { start, end, tree } = this.#match;
    const captures = new Map([...this.#match.captures].filter(([, capture]) => capture.tree === tree));
    const left = a === EDGE ? { start, end: start } : captures.get(a);
    const right = b === EDGE ? { start: end, end } : captures.get(b);
    if (!left || !right) return undefined;
    const [first, second] = left.start <= right.start ? [left, right] : [right, left];
    if (second.start < first.end) return undefined;
    const apart = { start: first.end, end: second.start };
    const others = [...captures].filter(([hole]) => hole !== a && hole !== b);
    const isFree = others.every(([, c]) => c.end <= apart.start || c.start >= apart.end);
    return isFree ? apart : undefined;
  }
}

function neighbour(part: Part | "edge" | undefined): Neighbour | undefined {
  if (part === "edge") return EDGE;
  return part instanceof Replacing ? part.hole : part instanceof Hole ? part : undefined;
}

/** What a snippet says between neighbouring parts of the same line. */
function stretchesOf(snippet: Snippet): Wanted[] {
  const lines = linesOf(snippet);
  // Of a hole that occurs twice, only one place is known.
  const isOnce = (hole: Neighbour): boolean =>
    hole === EDGE || snippet.parts.filter((part) => neighbour(part) === hole).length === 1;
  return lines.flatMap(({ items }, row) =>
    items.flatMap((item, i) => {
      if (typeof item !== "string") return [];
      const left = neighbour(partBeside(snippet, items[i - 1], row === 0));
      const right = neighbour(partBeside(snippet, items[i + 1], row === lines.length - 1));
      if (left === undefined || right === undefined || !isOnce(left) || !isOnce(right)) return [];
      return [{ left, right, tokens: shape(item), text: item }];
    }),
  );
}

/** The part an item of a line stands for; the edge where there is none on the snippet's first or last line. */
export function partBeside(
  snippet: Snippet,
  item: string | number | undefined,
  isOutermost: boolean,
): Part | "edge" | undefined {
  if (typeof item === "number") return snippet.parts[item];
  return item === undefined && isOutermost ? "edge" : undefined;
}

/** Tokens as they are compared: one kind of quotes, no comma before a closing bracket, no semicolon at the end. */
function meaning(tokens: string, brackets: "needed" | "any", anyCase: boolean): string {
  const plain = tokens
    .replace(/'([^'"\\]*)'/g, '"$1"')
    .replace(/, ([)\]}])/g, "$1")
    .replace(/ ?;$/, "");
  const bare = brackets === "any" ? plain.replace(/[()]/g, " ") : plain;
  const result = bare.replace(/\s+/g, " ").trim();
  return anyCase ? result.toLowerCase() : result;
}

function shape(text: string): string {
  return tokensOf(text)
    .map((token) => token.text)
    .join(" ");
}
