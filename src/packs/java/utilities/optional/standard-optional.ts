import {
  condition,
  holes,
  no,
  ofKind,
  rule,
  surroundingsOf,
  targetAllows,
  Together,
  unknown,
  yes,
} from "../../../../core.js";
import type { Answer, Match, SyntaxTree } from "../../../../core.js";
import { callsItOptional, FULL_NAME } from "./library-optional.js";
import { trials } from "./trials.js";
import { type Verdict, verdictOn } from "./verdict.js";

const { file } = holes({ file: { kind: "statement", node: "program" } });

/** By the files of a project, which are other ones as soon as any of them changes. */
const known = new WeakMap<object, WeakMap<SyntaxTree, Map<boolean, Verdict | undefined>>>();

function verdictAt(tree: SyntaxTree, hasOr: boolean): Verdict | undefined {
  const files: object = surroundingsOf(tree).files ?? tree;
  let verdicts = known.get(files);
  if (!verdicts) known.set(files, (verdicts = new WeakMap()));
  let found = verdicts.get(tree);
  if (!found) verdicts.set(tree, (found = new Map()));
  if (!found.has(hasOr)) found.set(hasOr, verdictOn(tree, hasOr));
  return found.get(hasOr);
}

const verdict = (match: Match): Verdict => verdictAt(match.tree, targetAllows("9", match))!;

function moved(match: Match): Exclude<Verdict, { readonly refused: unknown }> {
  const found = verdict(match);
  if ("refused" in found) throw found.refused;
  return found;
}

function answer(match: Match): Answer {
  const found = verdict(match);
  if (!("refused" in found)) return found.says;
  const { refused, others } = found;
  const more = others === 0 ? "" : `, and something in ${others} more ${others === 1 ? "file" : "files"}`;
  return no(refused.code, `${refused.why}${more}`, refused.at);
}

export const standardOptional = rule({
  id: "java/standard-optional",
  kind: "idiom",
  title: "Use the standard library's Optional in place of Guava's",
  why: "Two types for the same thing must be told apart and turned into one another; the one of the language is known to every library.",
  taste: true,
  once: true,
  target: "8",
  was: ofKind(file, {
    when: ({ tree }) =>
      (callsItOptional(tree) || tree.text.includes(FULL_NAME)) && verdictAt(tree, true) !== undefined,
  }),
  mentions: ["Optional"],
  given: [
    condition("everything that the type is used for is understood", answer),
    condition(
      "the new code takes what it is given",
      (match) =>
        moved(match).doubts.possible ??
        yes("type.is", "the receivers are known, and `orElse` is given values"),
      { unknownIs: "possible" },
    ),
    condition("nothing reads the objects without the project's code", () =>
      unknown("name.other-uses", "what reads objects by reflection was not looked at"),
    ),
  ],
  cautions: (match) => moved(match).doubts.likely.map(({ evidence }) => evidence),
  uses: (match) => new Together(moved(match).files),
  trials,
});
