import { countBy } from "../plan/index.js";
import type { Difference, Examples, Tried } from "../prove/index.js";
import { plural, shownPath, type Paint } from "../report/index.js";

const WIDTH = "different".length;
const INDENT = " ".repeat(WIDTH + 2);
const LONGEST = 600;

/** What calling the changed functions came to, for a person. */
export function examplesText(
  { tried, untried, others }: Examples,
  milliseconds: number,
  paint: Paint,
): string {
  const out: string[] = [];
  const different = tried.filter(({ difference }) => difference !== undefined);
  for (const one of tried) out.push(...triedLines(one, paint));
  if (untried.length > 0) {
    out.push("", `Not tried: ${plural(untried.length, "place")}`);
    const reasons = [...countBy(untried, ({ why }) => why)].sort((a, b) => b[1] - a[1]);
    for (const [why, count] of reasons) {
      const [first] = untried.filter((one) => one.why === why);
      const more = count > 1 ? `, and ${count - 1} more` : "";
      out.push(`  ${why}  ${paint.dim(`${shownPath(first!.path)}:${first!.line}${more}`)}`);
    }
  }
  for (const [language, count] of others)
    out.push(`  ${plural(count, "change")} in ${language}, whose functions are not tried`);
  const inputs = tried.reduce((sum, one) => sum + one.inputs, 0);
  const cost = paint.dim(`${plural(inputs, "input")}, ${(milliseconds / 1000).toFixed(2)} s`);
  out.push("");
  if (tried.length === 0)
    out.push(paint.red("No changed function could be tried, so nothing is said of them."));
  else if (different.length === 0)
    out.push(
      `${plural(tried.length, "changed function")} did the same with every input that was tried. ${cost}`,
    );
  else
    out.push(
      `${different.length} of ${plural(tried.length, "changed function")} did something else. ${cost}`,
    );
  return out.join("\n").replace(/^\n+/, "") + "\n";
}

function triedLines({ path, name, line, inputs, results, difference }: Tried, paint: Paint): string[] {
  const place = `${shownPath(path)}:${line}  ${paint.bold(name)}`;
  if (!difference)
    return [
      `${paint.green("same".padEnd(WIDTH))}  ${place}  ${paint.dim(`${plural(inputs, "input")}, ${plural(results, "result")}`)}`,
    ];
  return [`${paint.red("different")}  ${place}  ${difference.what}`, ...differenceLines(difference, paint)];
}

function differenceLines({ program, old, now, changes, what }: Difference, paint: Paint): string[] {
  const side = (word: string, { result, after, printed }: Difference["old"]): string => {
    const parts =
      what === "its arguments afterwards"
        ? [after]
        : what === "what it prints"
          ? [JSON.stringify(printed)]
          : [result];
    return `${word}  ${parts.join(" ").slice(0, LONGEST)}`;
  };
  return [
    ...program
      .split("\n")
      .filter((line) => line !== "")
      .map((line) => INDENT + line),
    INDENT + paint.red(side("old", old)),
    INDENT + paint.green(side("new", now)),
    ...changes.map(
      (change) => INDENT + paint.dim(`line ${change.line}  ${change.rules.join(" + ")} · ${change.id}`),
    ),
  ];
}

/** The same as data. */
export function examplesJson({ tried, untried, others }: Examples): object {
  return {
    tried: tried.map(({ changes, difference, ...one }) => ({
      ...one,
      changes: changes.map(({ id }) => id),
      difference: difference && {
        ...difference,
        args: undefined,
        changes: difference.changes.map(({ id }) => id),
      },
    })),
    untried,
    others: Object.fromEntries(others),
  };
}
