import {
  countErrors,
  draft,
  languageOfFile,
  languageOfRule,
  loadGrammars,
  shownCode,
  usual,
} from "uvran/core";
import type { DraftAnswer, DraftWay, Sample } from "./protocol";

const nothing = (problem: string): DraftAnswer => ({ moves: [], unexplained: [], problem });

/** The rules that say what was done to one piece of code by hand; the samples count as code beside it. */
export async function drafted(
  path: string,
  before: string,
  after: string,
  samples: readonly Sample[],
): Promise<DraftAnswer> {
  const language = languageOfFile(path);
  if (!language) return nothing(`${path} is of a kind that no rule can be drafted for.`);
  await loadGrammars([language]);
  for (const [what, text] of [
    ["old", before],
    ["new", after],
  ] as const)
    if (countErrors(text, language) > 0) return nothing(`The ${what} code has a syntax error.`);
  if (before.trim() === after.trim()) return nothing("Change the new code: what differs becomes a rule.");
  const beside = samples.flatMap((sample) => {
    const known = languageOfFile(sample.path);
    return known && languageOfRule(known) === languageOfRule(language)
      ? [{ ...sample, language: known }]
      : [];
  });
  const { moves, unexplained } = await draft({ pairs: [{ path, language, before, after }], beside });
  const answer = [];
  for (const { edits, weigh, source } of moves) {
    const weighed = await weigh();
    const chosen = usual(weighed);
    const ways: DraftWay[] = [];
    for (const one of weighed)
      ways.push({
        width: one.width,
        usual: one === chosen,
        was: one.old?.source ?? shownCode(one.drafted.was),
        becomes: one.old?.becomes ?? shownCode(one.drafted.becomes),
        holes: one.drafted.opened.map(({ hole }) => hole.name),
        given: one.conditions.map((condition) => condition.source),
        others: one.others.map(({ path, line, trust, reason }) => ({
          path,
          line,
          reason: trust === undefined ? reason : undefined,
        })),
        source: await source(one),
      });
    answer.push({ id: weighed[0]?.spec.id ?? "", edits, ways });
  }
  return { moves: answer, unexplained, problem: undefined };
}
