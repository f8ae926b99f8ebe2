import { namesWanted, surroundingsOf, type Answer, type Code, type Evidence } from "../analysis/index.js";
import { applyEdits, CannotRewrite, clash, withLineEnds, type Edit } from "../rewrite/index.js";
import { isRead } from "../readings/index.js";
import { lower, Match, versionVerdict, type Condition, type Rule, type Trust } from "../rules/index.js";
import type { Novelty } from "../syntax/index.js";
import { aroundName } from "./uses/around-name.js";
import type { Advice, Ground, HeldBack, Silenced } from "./change.js";
import { newlyNeeded } from "./needed-version.js";
import type { Entry } from "./entry.js";
import { rewritten } from "./rewritten.js";
import { swappedSides } from "./swapped.js";
import type { Candidate } from "./candidate.js";

/** The match with all holes that narrowing it fills; undefined where it does not fit after all. */
export function narrowed(match: Match, { where = [] }: Rule): Match | undefined {
  for (const narrowing of where) {
    const outcome = narrowing(match);
    if (outcome === false) return undefined;
    if (outcome !== true) match = outcome;
  }
  return match;
}

/**
 * Puts the version that the new code needs at the head of the evidence. Gives how sure that leaves a change, or the outcome
 * where the version may not be needed.
 */
function settleVersion(
  { id, title, target }: Rule,
  match: Match,
  novelties: readonly Novelty[],
  evidence: Ground[],
): Omit<Silenced, "path"> | Unplaced<HeldBack> | Trust {
  const verdict = versionVerdict([...novelties, { since: target }], match);
  if (!verdict) return "certain";
  const { answer, isTooOld, needs } = verdict;
  const { line } = match.node;
  const { code, says } = answer.evidence;
  if (isTooOld) return { rule: id, title, line, needs, asked: says };
  if (answer.is === "no") return { rule: id, line, code, reason: says };
  evidence.unshift({ answer: answer.is, ...answer.evidence });
  return answer.is === "yes" ? "certain" : "likely";
}

/** What must hold for the spelling that was found to mean the same as the rule's own. */
function answered(answers: readonly Answer[]): Pick<Condition, "ask" | "unknownIs" | "when">[] {
  return answers.map((answer) => ({ ask: () => answer, unknownIs: "likely" }));
}

/** What the pattern names by `need` is what comes from there. */
function origins({ found: { captures } }: Match): Pick<Condition, "ask" | "unknownIs" | "when">[] {
  return [...captures].flatMap(([{ limits }, { tree, nodes }]) => {
    const { origin } = limits;
    const [node] = nodes;
    if (!origin || node === undefined) return [];
    return [{ ask: () => namesWanted(tree.node(node), origin), unknownIs: "possible" as const }];
  });
}

/** A line that becomes longer than the project allows, and than it was. */
function tooLong(match: Match, edits: readonly Edit[]): string[] {
  const { lineLimit, tree } = match;
  const [first, last] = [edits[0], edits.at(-1)];
  if (!lineLimit || !first || !last) return [];
  const start = tree.lineStart(tree.lineAt(first.start));
  const end = tree.text.indexOf("\n", last.end);
  const old = tree.text.slice(start, end < 0 ? undefined : end);
  const moved = edits.map((edit) => ({ ...edit, start: edit.start - start, end: edit.end - start }));
  const longest = (text: string): number =>
    Math.max(...text.split("\n").map((line) => line.trimEnd().length));
  const [was, is] = [longest(old), longest(applyEdits(old, moved))];
  return is > lineLimit.most && is > was
    ? [`a line becomes ${is} characters long, of ${lineLimit.most} at most (${lineLimit.says})`]
    : [];
}

/** Evidence with the file that it is about only where that is another one than the match's. */
function elsewhereOnly<T extends Evidence | Ground>(evidence: T, { node }: Match): T {
  const { path, ...own } = evidence;
  return path === undefined || path === surroundingsOf(node.tree).path ? (own as T) : evidence;
}

type Unplaced<T> = Omit<T, "id" | "range" | "path">;

type Outcome = Candidate | Unplaced<HeldBack> | Unplaced<Advice> | Omit<Silenced, "path">;

/** What becomes of a match: a change, advice, or the reason why neither. */
export function judge({ rule, order }: Entry, match: Match): Outcome {
  const line = match.node.line;
  const evidence: Ground[] = [];
  let trust: Trust = "certain";
  const asked = [
    ...origins(match),
    ...(isRead(match.found) ? answered(match.found.spelling) : answered(swappedSides(match))),
    ...(rule.given ?? []),
  ];
  for (const given of asked) {
    if (given.when?.(match) === false) continue;
    const answer = given.ask(match);
    if (answer.is === "no") {
      const { code, says, line: at, range, path } = elsewhereOnly(answer.evidence, match);
      return {
        rule: rule.id,
        line,
        code,
        reason: says,
        ...(at === undefined ? {} : { at }),
        ...(range === undefined ? {} : { atRange: range }),
        ...(path === undefined ? {} : { atPath: path }),
      };
    }
    if (answer.is === "unknown") trust = lower(trust, given.unknownIs);
    evidence.push({ answer: answer.is, ...elsewhereOnly(answer.evidence, match) });
  }
  if (rule.advice !== undefined) {
    const { id, title, kind, advice } = rule;
    const says = typeof advice === "string" ? advice : advice(match);
    const settled = settleVersion(rule, match, [], evidence);
    if (typeof settled === "object") return settled;
    return { rule: id, title, kind, trust: lower(trust, settled), line, says, evidence };
  }
  try {
    const own = rewritten(rule, match);
    const uses = aroundName(rule, match);
    if (clash(uses.edits, own.edits))
      throw new CannotRewrite("edit.clash", "a use stands in the code that is rewritten");
    trust = lower(trust, uses.trust);
    const unordered = withLineEnds(match.tree.text, [...own.edits, ...uses.edits]);
    const edits = unordered.sort((a, b) => a.start - b.start || a.end - b.end);
    if (edits.some(({ start }, i) => i > 0 && start < edits[i - 1]!.end))
      throw new CannotRewrite("edit.clash", "two parts of the change want the same text");
    const settled = settleVersion(rule, match, newlyNeeded(match, edits), evidence);
    if (typeof settled === "object") return settled;
    trust = lower(trust, settled);
    const cautions = (rule.cautions?.(match) ?? []).map((one) => elsewhereOnly(one, match));
    const notes = [...(rule.notes?.(match) ?? []), ...tooLong(match, edits)];
    // What behaves differently in a case that is not ruled out is not certain, whatever the conditions say.
    if (cautions.length > 0) trust = lower(trust, "likely");
    const { start, end } = match.found;
    const needs = [...own.needs, ...uses.needs];
    const { elsewhere } = uses;
    return {
      rule,
      order,
      start,
      end,
      line,
      trust,
      evidence: [...evidence, ...uses.evidence.map((one) => elsewhereOnly(one, match))],
      cautions,
      notes,
      edits,
      elsewhere,
      needs,
    };
  } catch (error) {
    if (!(error instanceof CannotRewrite)) throw error;
    const { code, message, place } = error;
    const at = { ...(place.line === undefined ? {} : { at: place.line }) };
    const atRange = { ...(place.range === undefined ? {} : { atRange: place.range }) };
    return { rule: rule.id, line, code: code as Code, reason: message, ...at, ...atRange };
  }
}
