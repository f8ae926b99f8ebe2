import {
  errorsIn,
  parse,
  regionsOf,
  textAfter,
  type Change,
  type Engine,
  type FileResult,
  type TextRange,
} from "uvran/core";
import type { Random } from "./random.js";

/** A promise of the engine that an input breaks. */
export interface Broken {
  readonly promise: string;
  readonly says: string;
  /** The rules that had to do with it. */
  readonly rules: readonly string[];
}

const rulesOf = (changes: readonly Change[]): string[] =>
  [...new Set(changes.flatMap(({ rules }) => rules))].sort();

/**
 * What of the promises an input breaks: layout stays, no comment is lost, no file parses worse (for all changes and for
 * some of them), again changes nothing, the order of rules does not count, and nothing throws. `other` has the rules of
 * `engine` in another order.
 */
export async function brokenPromises(
  engine: Engine,
  other: Engine,
  path: string,
  text: string,
  random: Random,
): Promise<{ readonly broken: Broken[]; readonly result: FileResult; readonly after: string }> {
  const broken: Broken[] = [];
  const result = (await engine.file(path, text))!;
  const { changes, failures = [] } = result;
  const say = (promise: string, says: string, of: readonly Change[]): void =>
    void broken.push({ promise, says, rules: rulesOf(of) });

  for (const { rule, says } of failures)
    broken.push({ promise: "nothing throws", says, rules: rule === undefined ? [] : [rule] });
  if (changes.length + result.heldBack.length > 0 && random.below(4) === 0) {
    const again = (await other.file(path, text))!;
    if (JSON.stringify(again) !== JSON.stringify(result))
      say("the order of rules does not count", "another result", [...changes, ...again.changes]);
  }
  for (const { range, rule } of result.heldBack)
    if (!isInside(range, text))
      broken.push({ promise: "ranges lie in the file", says: JSON.stringify(range), rules: [rule] });
  if (changes.length === 0) return { broken, result, after: text };

  const subsets = [
    changes,
    ...(changes.length > 1 ? [random.some(changes, 2), random.some(changes, 3)] : []),
  ];
  let after = text;
  for (const [i, subset] of subsets.entries()) {
    if (subset.length === 0) continue;
    let now: string;
    try {
      now = await textAfter(path, text, subset);
    } catch (error) {
      say("any subset can be kept", String(error), subset);
      continue;
    }
    if (i === 0) after = now;
    if (now === text) say("a change changes something", "the text is as it was", subset);
    if ((await errorsIn(path, now)) > (await errorsIn(path, text)))
      say("no file parses worse", "more syntax errors", subset);
    const lost = await lostComments(path, text, now);
    if (lost.length > 0) say("no comment is lost", lost.join(" "), subset);
    const layout = otherLayout(text, now);
    if (layout !== undefined) say("layout stays", layout, subset);
  }
  const again = (await engine.file(path, after))!;
  const waited = new Set(result.heldBack.flatMap(({ rule, code }) => (code === "edit.clash" ? [rule] : [])));
  const isLater = ({ trust, rules }: Change): boolean =>
    trust === "possible" && rules.some((one) => waited.has(one));
  if (!again.changes.every(isLater))
    say("again changes nothing", again.changes.map(({ title }) => title).join("; "), again.changes);
  return { broken, result, after };
}

function isInside({ start, end }: TextRange, text: string): boolean {
  const lines = text.split("\n");
  return [start, end].every(
    ({ line, column }) =>
      line >= 1 && line <= lines.length && column >= 1 && column <= lines[line - 1]!.length + 1,
  );
}

/** Comments that stand less often in the new text. */
async function lostComments(path: string, was: string, now: string): Promise<string[]> {
  const left = new Map<string, number>();
  for (const comment of await commentsIn(path, now)) left.set(comment, (left.get(comment) ?? 0) + 1);
  return (await commentsIn(path, was)).filter((comment) => {
    const count = left.get(comment) ?? 0;
    left.set(comment, count - 1);
    return count === 0;
  });
}

async function commentsIn(path: string, text: string): Promise<string[]> {
  return ((await regionsOf(path, text)) ?? []).flatMap((region) => {
    const tree = parse(region.text, region.language);
    return tree.comments.map((n) => tree.textOf(n).replace(/\s+/g, " ").trim());
  });
}

function otherLayout(was: string, now: string): string | undefined {
  const bare = /(?<!\r)\n/;
  if (was.includes("\r\n") && !bare.test(was) && bare.test(now)) return "another line end";
  if (!was.includes("\r") && now.includes("\r")) return "another line end";
  if (was.startsWith("\uFEFF") !== now.startsWith("\uFEFF")) return "the byte-order mark";
  if (/\n$/.test(was) !== /\n$/.test(now)) return "the line end at the end of the file";
  return undefined;
}
