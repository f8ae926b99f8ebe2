import type { Mask, Obstacle } from "./mask.js";

/** Comments, strings and directives of a text; only directives are of interest, and the rest hides what looks like them. */
const PARTS =
  /\/\/[^\n]*|\/\*[^]*?\*\/|@"(?:""|[^"])*"|R"\(([^]*?)\)"|"(?:\\[^]|[^"\\\n])*"|'(?:\\[^]|[^'\\\n])*'|^[ \t]*#[ \t]*(if|ifdef|ifndef|elif|elifdef|elifndef|else|endif)\b((?:\\\r?\n|[^\n])*)/gm;

interface Directive {
  readonly word: string;
  readonly condition: string;
  readonly line: number;
  readonly start: number;
  readonly end: number;
}

interface Open {
  readonly directives: Directive[];
}

/**
 * The conditionals of the preprocessor in a text. What is hidden of one are its directives, and all of its branches but
 * one: the first that may be compiled, or as many further as `later` says. Those that are not closed are none.
 */
export function conditionals(text: string, later = 0): Obstacle[] {
  const result: Obstacle[] = [];
  const open: Open[] = [];
  let line = 1;
  let counted = 0;
  for (const { 0: whole, 2: word, 3: condition = "", index } of text.matchAll(PARTS)) {
    if (word === undefined) continue;
    for (; counted < index; counted++) if (text[counted] === "\n") line++;
    const end = index + whole.trimEnd().length;
    const directive: Directive = { word, condition: condition.trim(), line, start: index, end };
    if (word.startsWith("if")) open.push({ directives: [directive] });
    else if (word !== "endif") open.at(-1)?.directives.push(directive);
    else {
      const group = open.pop();
      if (!group) return [];
      result.push(obstacleOf([...group.directives, directive], later));
    }
  }
  return open.length > 0 ? [] : result;
}

function obstacleOf(directives: readonly Directive[], later: number): Obstacle {
  const whole = { start: directives[0]!.start, end: directives.at(-1)!.end };
  const branches = directives.filter((one) => one.word !== "endif" && !/^(0|false)$/.test(one.condition));
  const kept = branches[Math.min(later, branches.length - 1)];
  const what = `the conditional at line ${directives[0]!.line}`;
  const masks = directives.map((one, i): Mask => {
    const next = directives[i + 1];
    const end = !next || one === kept ? one.end : next.start;
    return { start: one.start, end, what, isMark: false, whole };
  });
  return { ...whole, masks };
}

/** The most branches of any conditional in a text. */
export function mostBranches(text: string): number {
  return conditionals(text).reduce((most, { masks }) => Math.max(most, masks.length - 1), 0);
}
