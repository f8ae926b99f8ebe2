import type { PlanChange } from "../plan/index.js";
import { median, type Account, type Figure, type Proof, type SetAside } from "../prove/index.js";
import type { Trust } from "../rules/index.js";
import { plural, shownPath, type Paint } from "../report/index.js";

/** What the account of a proof is about. */
export interface About {
  /** How many changes there are; undefined where old code is compared with what an apply wrote. */
  readonly changes: number | undefined;
  /** Are those that are set aside marked in the decisions? */
  readonly isMarked: boolean;
  /** How sure changes without a decision had to be. */
  readonly trust: Trust;
  readonly milliseconds: number;
}

const VERDICTS = {
  same: "green",
  different: "red",
  skipped: "yellow",
  failing: "yellow",
  flaky: "magenta",
} as const;
const WIDTH = "different".length;
const INDENT = " ".repeat(WIDTH + 2);
const MOST_LINES = 12;
const MOST_SET_ASIDE = 50;

/** The account of a proof, for a person. */
export function accountText(account: Account, about: About, paint: Paint): string {
  const { proofs, setAside, unsettled, unreadable, kept, final } = account;
  const width = Math.max(...proofs.map(({ check }) => check.name.length)) + 2;
  const out = proofs.flatMap((proof) => proofLines(proof, width, paint));
  if (setAside.length > 0) {
    out.push("", `Set aside: ${plural(setAside.length, "change")}`);
    for (const one of setAside.slice(0, MOST_SET_ASIDE)) out.push(...setAsideLines(one, paint));
    if (setAside.length > MOST_SET_ASIDE) out.push(`  and ${setAside.length - MOST_SET_ASIDE} more`);
  }
  for (const { check, why } of unsettled)
    out.push("", `${paint.red("not settled")}  ${paint.bold(check)}: ${why}`);
  out.push("", ...sentences(account, about, paint));
  if (unreadable.length > 0)
    out.push(`Not in the copies, because it cannot be read: ${unreadable.map(shownPath).join(", ")}`);
  const proven = final.some(({ verdict }) => verdict === "same") && unsettled.length === 0;
  if (setAside.length > 0 && about.isMarked)
    out.push(`What is set aside is marked "later": look at it with uvran review.`);
  if (about.changes !== undefined && proven && kept.length > 0)
    out.push(
      `Write what passed with: uvran apply --proven${about.trust === "certain" ? "" : ` --trust ${about.trust}`}`,
    );
  return out.join("\n").replace(/^\n+/, "") + "\n";
}

function proofLines(
  { check, before, after, verdict, why, compared, figures }: Proof,
  width: number,
  paint: Paint,
): string[] {
  const word = paint[VERDICTS[verdict]](verdict.padEnd(WIDTH));
  const head = `${word}  ${paint.bold(check.name.padEnd(width))}`;
  const command = paint.dim(check.run);
  if (verdict === "skipped" || verdict === "failing" || verdict === "flaky")
    return [
      `${head} ${why ?? ""}  ${command}`,
      ...(verdict === "flaky" ? shownLines(compared.lines, paint) : []),
    ];
  const times = `${seconds(before.milliseconds)} → ${seconds(after.milliseconds)}`;
  const shown = figures.length > 0 ? "" : `, ${times}`;
  return [
    `${head} ${compared.summary}${shown}  ${command}`,
    ...figures.map((figure) => INDENT + figureText(figure, paint)),
    ...(verdict === "same" ? [] : shownLines(compared.lines, paint)),
  ];
}

function figureText({ what, before, after, is }: Figure, paint: Paint): string {
  const unit = what === "time" ? seconds : megabytes;
  const shown = (numbers: readonly number[]): string =>
    `${unit(median(numbers))} (${unit(Math.min(...numbers))} to ${unit(Math.max(...numbers))})`;
  const share = (median(after) / median(before)).toFixed(2);
  const words = { time: ["faster", "slower"], memory: ["less memory", "more memory"] }[what];
  const said =
    is === "alike"
      ? paint.dim("no difference beyond chance")
      : is === "less"
        ? paint.green(`${words[0]}: ${share} ×`)
        : paint.red(`${words[1]}: ${share} ×`);
  return `${what} ${shown(before)} → ${shown(after)} in ${before.length} runs each: ${said}`;
}

function setAsideLines({ change, check, lines }: SetAside, paint: Paint): string[] {
  const place = `${shownPath(change.path)}:${change.line}`;
  return [
    `  ${paint.bold(place)}  ${change.rules.join(" + ")} ${paint.dim(`· ${change.id}`)}`,
    `  ${paint.yellow(`"${check}" is different with it`)}`,
    ...shownLines(lines, paint, "    "),
  ];
}

function shownLines(lines: readonly string[], paint: Paint, indent = INDENT): string[] {
  const shown = lines.slice(0, MOST_LINES).map((line) => indent + painted(line, paint));
  return lines.length > MOST_LINES
    ? [...shown, `${indent}and ${lines.length - MOST_LINES} more lines`]
    : shown;
}

function painted(line: string, paint: Paint): string {
  return line.startsWith("-") ? paint.red(line) : line.startsWith("+") ? paint.green(line) : line;
}

function sentences({ proofs, final, kept, setAside, runs }: Account, about: About, paint: Paint): string[] {
  const is = (verdict: Proof["verdict"], list = final): number =>
    list.filter((one) => one.verdict === verdict).length;
  const out: string[] = [];
  const cost = paint.dim(`${plural(runs, "run")} of checks, ${seconds(about.milliseconds)}`);
  if (is("same") === 0 && is("different") === 0)
    out.push(paint.red("No check ran to its end, so nothing is proved."));
  else if (about.changes === undefined)
    out.push(
      is("different") === 0
        ? `All is as before the apply. ${cost}`
        : `Not all is as before the apply. ${cost}`,
    );
  else if (is("different") === 0)
    out.push(
      `${setAside.length > 0 ? `${kept.length} of ${plural(about.changes, "change")}` : plural(kept.length, "change")} passed ` +
        `${plural(is("same"), "check")} together. ${cost}`,
    );
  else out.push(`${plural(kept.length, "change")}, with which not all checks are the same. ${cost}`);
  const idle = is("skipped", proofs) + is("failing", proofs) + is("flaky", proofs);
  if (idle > 0 && idle < proofs.length) {
    const parts = (["skipped", "failing", "flaky"] as const).flatMap((verdict) =>
      is(verdict, proofs) > 0 ? [`${is(verdict, proofs)} ${WORDS[verdict]}`] : [],
    );
    out.push(`${plural(idle, "check")} proved nothing: ${parts.join(", ")}.`);
  }
  return out;
}

const WORDS = {
  skipped: "did not run",
  failing: "failed on the old code already",
  flaky: "did not do the same twice",
} as const;

function seconds(milliseconds: number): string {
  return `${(milliseconds / 1000).toFixed(2)} s`;
}

function megabytes(bytes: number): string {
  return `${(bytes / 1e6).toFixed(0)} MB`;
}

/** Of what a check printed, how much goes into the JSON. */
const MOST_PRINTED = 100_000;

/** The account as data. */
export function accountJson({ proofs, final, kept, setAside, unsettled, runs, unreadable }: Account): object {
  return {
    checks: proofs.map(proofJson),
    kept: kept.map(({ id }) => id),
    final: final === proofs ? undefined : final.map(proofJson),
    setAside: setAside.map(({ change, check, lines }) => ({ ...placeOf(change), check, lines })),
    unsettled,
    runs,
    unreadable,
  };
}

function placeOf({ id, path, line, rules }: PlanChange): object {
  return { id, path, line, rules };
}

function proofJson({ check, before, after, verdict, why, compared, figures }: Proof): object {
  const side = ({ exit, output, errors, milliseconds, stopped, memory }: Proof["before"]): object => ({
    exit,
    stopped,
    milliseconds,
    memory,
    output: output.slice(0, MOST_PRINTED),
    errors: errors.slice(0, MOST_PRINTED),
  });
  const { name, run } = check;
  return {
    name,
    run,
    verdict,
    why,
    summary: compared.summary,
    lines: compared.lines,
    figures,
    before: side(before),
    after: side(after),
  };
}
