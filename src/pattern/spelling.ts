import { languageOf, type Language } from "../syntax/index.js";
import { Hole, Maybe, Replacing, type Part, type Snippet } from "./hole.js";
import { linesOf } from "./snippet-text.js";

const MOST_SPELLINGS = 512;

/** Text of a snippet with its parts spelt out, and where each part stands in it. */
export interface Spelt {
  readonly code: string;
  /** By part; offsets in `code`. */
  readonly ranges: readonly { readonly start: number; readonly end: number }[];
}

/** The snippet as plain code, with `fill` giving the text of each part. */
export function spell(snippet: Snippet, fill: (part: number) => string): Spelt {
  const step = languageOf(snippet.language).indentUnit;
  const ranges: { start: number; end: number }[] = snippet.parts.map(() => ({ start: 0, end: 0 }));
  let code = "";
  linesOf(snippet).forEach(({ level, items }, i) => {
    if (i > 0) code += "\n";
    if (items.length > 0) code += step.repeat(level);
    items.forEach((item, k) => {
      if (typeof item === "string") {
        code += item;
        return;
      }
      let text = fill(item);
      // Its author wrote the separator that the hole's spelling brings too.
      const next = items[k + 1];
      const { statementSeparator } = languageOf(snippet.language);
      if (
        text.endsWith(statementSeparator) &&
        typeof next === "string" &&
        next.startsWith(statementSeparator)
      ) {
        text = text.slice(0, -statementSeparator.length);
      }
      ranges[item] = { start: code.length, end: code.length + text.length };
      code += text;
    });
  });
  return { code, ranges };
}

/** The snippet as plain code, with `fill` giving the text of each part. */
export function snippetCode(snippet: Snippet, fill: (part: number) => string): string {
  return spell(snippet, fill).code;
}

/**
 * All ways to spell the parts of a snippet in a language, in the order in which they are to be tried. Places
 * of the same hole have the same name, so that the code reads as it is meant. Each spelling comes with the
 * choice of operators it makes, since those are alternatives.
 */
export function* spellings(
  snippet: Snippet,
  language: Language,
): Generator<{ readonly parts: readonly string[]; readonly operators: string }> {
  const choices = snippet.parts.map((part) => language.holes[kindOf(part)] ?? []);
  if (choices.some((options) => options.length === 0)) return;
  const isOperator = snippet.parts.map((part) => kindOf(part) === "operator");
  const operatorCombinations = product(choices.map((options, i) => (isOperator[i] ? options.length : 1)));
  for (const operators of operatorCombinations) {
    for (const others of product(choices.map((options, i) => (isOperator[i] ? 1 : options.length)))) {
      yield {
        parts: choices.map((options, i) =>
          named(options[isOperator[i] ? operators[i]! : others[i]!]!, snippet, i),
        ),
        operators: operators.join(),
      };
    }
  }
}

/** What a part stands like to the parser. */
export function kindOf(part: Part): Hole["kind"] {
  if (part instanceof Hole) return part.kind;
  if (part instanceof Replacing) return part.hole.kind;
  if (part instanceof Maybe) throw new TypeError("an optional part must be resolved before it is spelt");
  return "name";
}

function named(spelling: string, snippet: Snippet, i: number): string {
  const number = snippet.parts.indexOf(snippet.parts[i]!);
  return spelling.replace(/\bhole\b/g, `uvranHole${number}z`).replace(/\bHole\b/g, `UvranHole${number}z`);
}

/** All index tuples below the given counts, the first place changing slowest. */
function* product(counts: readonly number[]): Generator<number[]> {
  const total = Math.min(
    MOST_SPELLINGS,
    counts.reduce((all, count) => all * count, 1),
  );
  for (let n = 0; n < total; n++) {
    let rest = n;
    const tuple = new Array<number>(counts.length);
    for (let i = counts.length - 1; i >= 0; i--) {
      tuple[i] = rest % counts[i]!;
      rest = Math.floor(rest / counts[i]!);
    }
    yield tuple;
  }
}
