/** Of how many repetitions the texts are on which an expression is tried, and the time that one may take. */
const LENGTHS = [14, 18, 22, 26, 30, 34, 38];
const MOST_MILLISECONDS = 40;

/**
 * A text on which a regular expression takes time that doubles with each character; undefined where none was found. Only
 * expressions with a repetition inside a repetition can be like that, and those are tried on growing texts of the
 * characters that they speak of.
 */
export function endlessOn(expression: RegExp): string | undefined {
  if (!hasNestedRepetition(expression.source)) return undefined;
  for (const unit of unitsOf(expression.source)) {
    for (const length of LENGTHS) {
      const text = unit.repeat(length) + "\u0001";
      const own = new RegExp(expression.source, expression.flags.replace(/[gy]/g, ""));
      // What else the machine does may take time once, but not three times over.
      if ([1, 2, 3].every(() => takesLong(own, text))) return text.slice(0, -1);
    }
  }
  return undefined;
}

function takesLong(expression: RegExp, text: string): boolean {
  const start = performance.now();
  expression.test(text);
  return performance.now() - start > MOST_MILLISECONDS;
}

/** Is there a group that repeats without a bound, with something in it that does too, or with a choice? */
function hasNestedRepetition(source: string): boolean {
  const plain = source.replace(/\\./g, "x").replace(/\[[^\]]*\]/g, "x");
  const open: { risky: boolean }[] = [];
  for (let i = 0; i < plain.length; i++) {
    const char = plain[i]!;
    if (char === "(") open.push({ risky: false });
    else if (char === "|" && open.length > 0) open.at(-1)!.risky = true;
    const repeats = /^(\*|\+|\{\d+,\d*\})/.test(plain.slice(i + (char === ")" ? 1 : 0)));
    if (char === ")") {
      const group = open.pop();
      if (group?.risky && repeats) return true;
      if (group && (group.risky || repeats) && open.length > 0) open.at(-1)!.risky = true;
    } else if (repeats && open.length > 0) open.at(-1)!.risky = true;
  }
  return false;
}

/** Texts to repeat: single characters that the expression names or that its classes stand for, and pairs of them. */
function unitsOf(source: string): string[] {
  const named = source.replace(/\\[a-z]/gi, "").match(/[\p{L}\p{N}_ .,:;=<>"'-]/gu) ?? [];
  const single = [...new Set(["a", "0", " ", "_", ...named])].slice(0, 12);
  return [...single, ...single.slice(0, 5).flatMap((x) => single.slice(0, 5).map((y) => x + y))];
}
