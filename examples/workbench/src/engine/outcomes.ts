import { changeLines, offsetOf, type FileResult, type TextRange } from "uvran/core";
import type { Asked, Outcome, Place, Sample } from "./protocol";

/** What came of each place of a sample that a rule found, as the page shows it beside the code; in the order of the code. */
export function outcomesOf({ path, text }: Sample, result: FileResult, places: readonly Place[]): Outcome[] {
  const spot = ({ start, end }: TextRange) => ({ start: offsetOf(text, start), end: offsetOf(text, end) });
  const answersAt = (start: number, rules: readonly string[]): readonly Asked[] =>
    places.find((place) => place.start === start && rules.includes(place.rule))?.answers ?? [];
  const found: Outcome[] = [];
  for (const {
    trust,
    rules,
    title,
    line,
    range,
    edits,
    elsewhere,
    evidence,
    cautions,
    notes,
  } of result.changes) {
    const at = spot(range);
    found.push({
      is: trust,
      ...at,
      line,
      rules,
      says: title,
      lines: changeLines(text, edits, 0).filter(({ mark }) => mark !== " "),
      answers: evidence.map(({ answer, says, line }) => ({ must: undefined, is: answer, says, line })),
      cautions: cautions.map(({ says }) => says),
      notes: [...notes, ...elsewhere.map(({ path }) => `It changes ${path} as well.`)],
    });
  }
  for (const { rule, line, range, reason } of result.heldBack) {
    const at = spot(range);
    const answers = answersAt(at.start, [rule]);
    found.push({ is: "held", ...at, line, rules: [rule], says: reason, answers, ...PLAIN });
  }
  for (const { rule, line, range, says, evidence } of result.advice ?? [])
    found.push({
      is: "advice",
      ...spot(range),
      line,
      rules: [rule],
      says,
      answers: evidence.map(({ answer, says, line }) => ({ must: undefined, is: answer, says, line })),
      ...PLAIN,
    });
  for (const { rule, start, end, line, answers } of places) {
    const isSaid = found.some((one) => one.rules.includes(rule) && one.start < end && one.end > start);
    if (!isSaid)
      found.push({
        is: "same",
        start,
        end,
        line,
        rules: [rule],
        says: "The old code fits here, and the new code is the same.",
        answers,
        ...PLAIN,
      });
  }
  for (const { rule, says, line = 1 } of result.failures ?? [])
    found.push({
      is: "failed",
      ...lineSpot(text, line),
      line,
      rules: rule === undefined ? [path] : [rule],
      says,
      answers: [],
      ...PLAIN,
    });
  return found.sort((a, b) => a.start - b.start || a.end - b.end);
}

const PLAIN = { lines: [], cautions: [], notes: [] } as const;

function lineSpot(text: string, line: number): { readonly start: number; readonly end: number } {
  const lines = text.split("\n");
  const start = lines.slice(0, line - 1).reduce((sum, one) => sum + one.length + 1, 0);
  return { start, end: start + (lines[line - 1]?.length ?? 0) };
}
