import { placeIn, shortened, type Answer } from "../analysis/index.js";
import { compile, mismatchAt, Snippet } from "../pattern/index.js";
import { FreshNames } from "../rewrite/index.js";
import { Match, type Around, type Rule } from "../rules/index.js";
import { parseFile, type Language } from "../syntax/index.js";
import { patternFinder, readingFinder, type Entry, type Finder } from "./entry.js";
import { judge } from "./judge.js";
import { isUnderstoodIn } from "./prepare.js";

/** What a rule makes of one place. */
export interface Explanation {
  /** The code that the rule looked at. */
  readonly code: string;
  readonly line: number;
  /** One sentence for each step, from the old code to the outcome. */
  readonly says: readonly string[];
}

/** The marks of answers, as a plan shows them. */
const MARKS = { yes: "✓", unknown: "?", no: "✗" } as const;

/** So many explanations of what does not fit are given, those first that fit furthest. */
const MOST = 3;

/**
 * Why a rule does at a line of a file what it does, or why it does nothing there: which part of it does not fit, which
 * narrowing is false, what its conditions answer. Lines are 1-based. Only this file is looked at, and only its code in this language.
 */
export function explain(
  rule: Rule,
  around: Around,
  text: string,
  language: Language,
  line: number,
): readonly Explanation[] {
  const tree = around.files?.trees?.treeOf(around.path, text, language) ?? parseFile(text, language);
  placeIn(tree, around);
  const names = new FreshNames(tree, []);
  const finders = rule.alternatives.flatMap((old, alternative): [Finder, number, typeof old][] => {
    if (!isUnderstoodIn(old, rule, language.id)) return [];
    if (!(old instanceof Snippet)) return [[readingFinder(old, language.id), alternative, old]];
    return compile(old, language.id).map((pattern) => [patternFinder(pattern), alternative, old]);
  });
  const found: Explanation[] = [];
  const missed: { fitting: number; it: Explanation }[] = [];
  for (let n = 0; n < tree.size; n++) {
    const node = tree.node(n);
    const isHere = node.line === line;
    for (const [finds, alternative, old] of finders) {
      if (!finds.rootKinds.includes(tree.kindIds[node.id]!)) continue;
      const match = finds.at(tree, node.id);
      const code = shortened(node.text);
      // What was found may begin above the node by which it was found.
      if (match ? !isHere && tree.lineAt(match.start) !== line : !isHere) continue;
      if (match) {
        const entry = { rule, order: 0, alternative, finds };
        found.push({ code, line, says: outcomeOf(entry, new Match(match, names, alternative, around)) });
      } else if (old instanceof Snippet) {
        for (const pattern of compile(old, language.id)) {
          const apart = pattern.rootKind === tree.kindIds[node.id] && mismatchAt(pattern, tree, node.id);
          if (!apart) continue;
          const has = shortened(tree.textOf(apart.at));
          const says = [`the code has \`${has}\` where the rule has \`${shortened(apart.wanted)}\``];
          missed.push({ fitting: apart.fitting, it: { code, line, says } });
        }
      } else {
        const says = old.whyNot(node);
        if (says !== undefined) missed.push({ fitting: node.text.length, it: { code, line, says: [says] } });
      }
    }
  }
  if (found.length > 0) return found;
  const seen = new Set<string>();
  return missed
    .sort((a, b) => b.fitting - a.fitting)
    .map(({ it }) => it)
    .filter(({ code, says }) => !seen.has(`${code} ${says.join()}`) && seen.add(`${code} ${says.join()}`))
    .slice(0, MOST);
}

/** What becomes of code that fits: the narrowing that is false, or each condition with its answer, and the outcome. */
function outcomeOf(entry: Entry, match: Match): string[] {
  const { where = [], given = [] } = entry.rule;
  for (const [i, narrowing] of where.entries()) {
    const outcome = narrowing(match);
    if (outcome === false)
      return ["the code fits", `narrowing ${i + 1} of ${where.length} in \`where\` is false`];
    if (outcome !== true) match = outcome;
  }
  const asked: string[] = [];
  let isRefused = false;
  for (const condition of given) {
    let answer: Answer;
    try {
      if (condition.when?.(match) === false) continue;
      answer = condition.ask(match);
    } catch (error) {
      // The engine asks none after one that does not hold, so that a condition may rest on the ones before it.
      if (!isRefused) throw error;
      continue;
    }
    const { is, evidence } = answer;
    isRefused ||= is === "no";
    const at = evidence.line === undefined ? "" : ` (line ${evidence.line})`;
    asked.push(`${MARKS[is]} ${condition.must}: ${evidence.says}${at}`);
  }
  const outcome = judge(entry, match);
  const comes =
    "asked" in outcome
      ? `nothing is done: the new code needs ${outcome.needs}, and ${outcome.asked}`
      : "says" in outcome
        ? `it is reported: ${outcome.says}`
        : "reason" in outcome
          ? `it is held back: ${outcome.reason}`
          : `it is rewritten, ${outcome.trust}`;
  return ["the code fits", ...asked, comes];
}
