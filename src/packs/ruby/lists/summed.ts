import {
  collected,
  condition,
  copy,
  holes,
  no,
  rule,
  shortened,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment } from "../../../core.js";
import { isNotSeenGrowing, partsOf } from "../../family/collecting.js";
import { isNotAskedByName } from "../values.js";
import {
  areApart,
  areOnLines,
  block,
  isCallable,
  isUnseen,
  isWalkedAlike,
  runsThrough,
  sievedBy,
  together,
  whole,
} from "./walked.js";

const { total, items, value } = holes({
  total: { kind: "name", node: "identifier" },
  items: "expression",
  value: "expression",
});

/** Is one added for each item that passes a test? */
const counts = ({ collecting: { value: added, sieves } }: Match): boolean =>
  added.text === "1" && sieves.length > 0;

/** Whole numbers come to the same sum however they are added up. */
function areWhole({ collecting: { value: added } }: Match): Answer {
  const type = typeOf(added);
  const shown = shortened(added.text);
  if (type?.name === "Integer" && type.declared === undefined) return yes("type.is", type.why, type.at);
  const says = "a float, and `sum` rounds floats in another way";
  return type?.name === "Float"
    ? no("type.is", `\`${shown}\` is ${says}`, added)
    : unknown("type.is", `\`${shown}\` could be ${says}`, added);
}

/** One for each item, of all items, is what `size` is for. */
function countsSome({ collecting: { value: added, sieves }, node }: Match): Answer {
  return added.text === "1" && sieves.length === 0
    ? no("form.fits", "all items are counted, for which there are shorter ways", node)
    : yes("form.fits", "it is a sum");
}

/** `items.sum { |item| value }`, `items.count { |item| test }`. */
function called(match: Match): Segment[] {
  const { collecting } = match;
  const { items: walks, value: added, sieves } = collecting;
  const given = [copy(walks.start, walks.end)];
  return counts(match)
    ? [...given, ...block("count", collecting, together(sieves))]
    : [...given, ...sievedBy(collecting), ...block("sum", collecting, whole(added))];
}

const { rewrites, ignores, holds } = trialsIn("ruby");

export const summed = rule({
  id: "ruby/summed",
  kind: "idiom",
  title: "Use sum or count to add up or count items",
  why: "The name of the method says what the loop is for.",
  was: collected({ list: total, items, value, gathers: ["total"] }),
  given: [
    condition("a call with a block can stand in its place", (match) =>
      isCallable(match.collecting, counts(match)),
    ),
    condition("it is a sum", countsSome),
    condition("what the loop comes to is not used", (match) => isUnseen(match.collecting)),
    condition("what is walked has the method", (match) =>
      isWalkedAlike(match.collecting, match.tree, !counts(match) && match.collecting.sieves.length > 0),
    ),
    condition("each part stands on one line", (match) => areOnLines(partsOf(match))),
    condition("what is added are whole numbers", areWhole, { unknownIs: "possible" }),
    ...isNotSeenGrowing(),
    condition("nothing asks for the variable by its name", isNotAskedByName),
    condition("nothing leaves the block early", (match) => runsThrough(partsOf(match))),
    condition("tests and values do not see what the others do", (match) =>
      areApart(counts(match) ? [] : [match.collecting.value], match.collecting.sieves),
    ),
  ],
  becomes: called,
  trials: [
    rewrites(
      "def f\n  n = 0\n  ['a', 'bc'].each { |name| n += name.to_i }\n  n\nend\n",
      "def f\n  n = ['a', 'bc'].sum { |name| name.to_i }\n  n\nend\n",
      "possible",
    ),
    rewrites(
      "def f(hives)\n  n = 0\n  hives.each { |hive| n += 1 if hive.full? }\n  n\nend\n",
      "def f(hives)\n  n = hives.count { |hive| hive.full? }\n  n\nend\n",
      "likely",
    ),
    rewrites(
      "def f\n  n = 0\n  (1..9).each do |i|\n    n = n + 1 if i.odd?\n  end\n  n\nend\n",
      "def f\n  n = (1..9).count { |i| i.odd? }\n  n\nend\n",
    ),
    rewrites(
      "def f\n  n = 0\n  (1..9).each { |i| n += 1 unless i.odd? }\n  n\nend\n",
      "def f\n  n = (1..9).count { |i| !i.odd? }\n  n\nend\n",
    ),
    rewrites(
      "def f(hives)\n  kg = 0\n  hives.each { |hive| kg += hive.kg if hive.full? }\n  kg\nend\n",
      "def f(hives)\n  kg = hives.select { |hive| hive.full? }.sum { |hive| hive.kg }\n  kg\nend\n",
      "possible",
    ),
    holds("def f\n  kg = 0\n  [1, 2].each { |n| kg += 1.5 }\n  kg\nend\n", "is a float"),
    holds("def f(hives)\n  n = 0\n  hives.each { |hive| n += 1 }\n  n\nend\n", "all items are counted"),
    holds("def f(hives)\n  n = 0\n  hives.each { |hive| n += 2 + n }\n  n\nend\n", "is read while"),
    holds("def f(hives)\n  n = 0\n  hives.each { |hive| n += 1 if hive.full? }\nend\n", "comes to is used"),
    ignores("def f(hives)\n  n = 0.0\n  hives.each { |hive| n += hive.kg }\n  n\nend\n"),
    ignores("def f(hives)\n  n = 0\n  hives.each { |hive| n -= hive.kg }\n  n\nend\n"),
    ignores("def f(hives)\n  n = 0\n  hives.each { |hive| n = hive.kg - n }\n  n\nend\n"),
    ignores("def f(hives)\n  @n = 0\n  hives.each { |hive| n += hive.kg }\n  n\nend\n"),
  ],
});
