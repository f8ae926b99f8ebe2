import type { LanguageId } from "uvran/core";
import { behaviours } from "../respell/behave.js";
import { isSame, goneNames, mayBeRun } from "../respell/same.js";
import type { Seed } from "./seeds.js";

/** Code before and after its `certain` changes. */
export interface Run {
  readonly path: string;
  readonly was: string;
  readonly now: string;
  readonly rules: readonly string[];
}

const RUNNABLE: readonly string[] = [".js", ".py", ".rb", ".php"];
/** Their old code is for Python 2, or what differs is nobody's business. */
const NOT_COMPARED =
  /python\/(old-numbers|caught-as|print-call|raise-call|needless-base|data-class)|\/gone-\w+/;
/** What goes on for ever, or reaches out of the program. */
const NOT_RUN =
  /\b(while|until|loop|for\s*\(\s*;|open|remove|unlink|rmtree|system|exec|spawn|popen|import|require|include|sleep|exit|kill|write\w*|File|Dir|IO|Process|eval|os|sys|shutil|subprocess|fopen|delete|f\w*put\w*|goto)\b/;

/** Can the code of a trial be run without harm? */
export function mayRun({ path, text, rule }: Seed): boolean {
  return (
    rule !== undefined &&
    mayBeRun(rule) &&
    RUNNABLE.some((ending) => path.endsWith(ending)) &&
    !NOT_RUN.test(text)
  );
}

/** Names that only one of the two has. */
const differing = ({ was, now }: Run): string[] => [...goneNames(was, now), ...goneNames(now, was)];

/** Which of these programs do something else afterwards, with what they did before and after. */
export function compareRuns(
  language: LanguageId,
  runs: readonly Run[],
): { readonly run: Run; readonly old: string; readonly fresh: string }[] {
  const safe = runs.filter(({ was, rules }) => !NOT_RUN.test(was) && !NOT_COMPARED.test(rules.join()));
  let did: readonly string[] | undefined;
  try {
    did = behaviours(language, [...safe.map(({ was }) => was), ...safe.map(({ now }) => now)]);
  } catch {
    // One of them ended the program that runs them: each half by itself.
    if (runs.length < 2) return [];
    const middle = runs.length >> 1;
    return [...compareRuns(language, runs.slice(0, middle)), ...compareRuns(language, runs.slice(middle))];
  }
  if (!did) return [];
  return safe.flatMap((run, i) => {
    const [old, fresh] = [did[i]!, did[safe.length + i]!];
    if (/SYNTAX|ParseError|SyntaxError/.test(old) || isSame(old, fresh, differing(run))) return [];
    const [was, now] = [old.split("\n"), fresh.split("\n")];
    const at = was.findIndex((line, k) => line !== now[k]);
    return [{ run, old: was[at] ?? "", fresh: now[at] ?? "" }];
  });
}
