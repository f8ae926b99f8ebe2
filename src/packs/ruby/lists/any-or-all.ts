import { condition, copy, flagged, holes, rule, trialsIn } from "../../../core.js";
import type { Match, Segment, SyntaxNode } from "../../../core.js";
import { isNotSeenFlagging, needNotAskAll } from "../../family/collecting.js";
import { isNotAskedByName } from "../values.js";
import {
  areOnLines,
  askedBy,
  block,
  isCallable,
  isUnseen,
  isWalkedAlike,
  onlyAsks,
  runsThrough,
  together,
} from "./walked.js";

const { items } = holes({ items: "expression" });

const testsOf = ({ flagged: { sieves } }: Match): SyntaxNode[] => sieves.map(({ test }) => test);

/** `items.any? { |item| test }`, or `all?` or `none?` where nothing may be found. */
function called(match: Match): Segment[] {
  const { flagged: found } = match;
  const { items: walks, sieves, isFound } = found;
  const given = [copy(walks.start, walks.end)];
  const [only, ...more] = sieves;
  if (only && more.length === 0) {
    const { code, isTrue } = askedBy(only);
    if (isTrue) return [...given, ...block(isFound ? "any?" : "none?", found, code)];
    if (!isFound) return [...given, ...block("all?", found, code)];
  }
  return [...given, ...block(isFound ? "any?" : "none?", found, together(sieves))];
}

const { rewrites, ignores, holds } = trialsIn("ruby");

export const anyOrAll = rule({
  id: "ruby/any-or-all",
  kind: "idiom",
  title: "Use any?, all? or none? to ask whether items pass a test",
  why: "The name of the method says what the loop is for, and the reader need not see where it is left.",
  was: flagged(items),
  given: [
    condition("a call with a block can stand in its place", (match) => isCallable(match.flagged, true)),
    condition("what the loop comes to is not used", (match) => isUnseen(match.flagged)),
    condition("what is walked has the method", ({ flagged: found, tree }) =>
      isWalkedAlike(found, tree, false),
    ),
    condition("each test stands on one line", (match) => areOnLines(testsOf(match))),
    ...isNotSeenFlagging(),
    condition("nothing asks for the variable by its name", isNotAskedByName),
    condition("nothing leaves the block early", (match) => runsThrough(testsOf(match))),
    needNotAskAll(onlyAsks),
  ],
  becomes: called,
  trials: [
    rewrites(
      "def f\n  found = false\n  [1, 2].each { |n| found = true if n > 1 }\n  found\nend\n",
      "def f\n  found = [1, 2].any? { |n| n > 1 }\n  found\nend\n",
      "likely",
    ),
    rewrites(
      "def f\n  found = false\n  (1..9).each do |n|\n    if n.odd?\n      found = true\n      break\n    end\n  end\n  found\nend\n",
      "def f\n  found = (1..9).any? { |n| n.odd? }\n  found\nend\n",
    ),
    rewrites(
      "def f(hives)\n  hives.each do |hive|\n    return true if hive.full?\n  end\n  false\nend\n",
      "def f(hives)\n  hives.any? { |hive| hive.full? }\nend\n",
      "likely",
    ),
    rewrites(
      "def f(hives)\n  hives.each { |hive| return false unless hive.full? }\n  true\nend\n",
      "def f(hives)\n  hives.all? { |hive| hive.full? }\nend\n",
      "likely",
    ),
    rewrites(
      "def f(hives)\n  hives.each { |hive| return false if hive.old? }\n  return true\nend\n",
      "def f(hives)\n  return hives.none? { |hive| hive.old? }\nend\n",
      "likely",
    ),
    rewrites(
      "def f(hives)\n  hives.each do |hive|\n    next if hive.old?\n    return true if hive.full? || hive.heavy?\n  end\n  false\nend\n",
      "def f(hives)\n  hives.any? { |hive| !hive.old? && (hive.full? || hive.heavy?) }\nend\n",
      "likely",
    ),
    holds(
      "def f(hives)\n  found = false\n  hives.each { |hive| found = true unless hive.save }\n  found\nend\n",
      "no longer evaluated",
    ),
    holds(
      "def f(hives)\n  found = false\n  hives.each { |hive| found = true if !found && hive.full? }\n  found\nend\n",
      "is read while",
    ),
    holds(
      "def f(hives)\n  for hive in hives do\n    return true if hive.full?\n  end\n  false\nend\n",
      "keeps its names",
    ),
    // What the loop comes to is what the method gives.
    holds(
      "def f(hives)\n  found = false\n  hives.each { |hive| found = true if hive.full? }\nend\n",
      "comes to is used",
    ),
    // The `return` leaves more than the block that the answer is the last of.
    // The parameter of the block is another variable.
    ignores("def f(all)\n  found = false\n  all.each { |found| found = true if found.odd? }\n  found\nend\n"),
    ignores(
      "def f(hives)\n  g do\n    hives.each { |hive| return true if hive.full? }\n    false\n  end\nend\n",
    ),
    ignores("def f(hives)\n  hives.each { |hive| return true if hive.full? }\n  nil\nend\n"),
    ignores("def f(hives)\n  hives.each { |hive| return true }\n  false\nend\n"),
    ignores("def f(hives)\n  hives.each { |hive| return hive if hive.full? }\n  false\nend\n"),
    ignores(
      "def f(hives)\n  @found = false\n  hives.each { |hive| @found = true if hive.full? }\n  nil\nend\n",
    ),
  ],
});
