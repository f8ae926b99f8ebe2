import {
  collected,
  condition,
  copy,
  holes,
  indentUnit,
  no,
  reindent,
  rule,
  text,
  trialsIn,
} from "../../../core.js";
import type { Answer, Match, Segment } from "../../../core.js";
import { isNotSeenGrowing, partsOf } from "../../family/collecting.js";
import { mostInLine } from "../../family/limits.js";
import { isNotAskedByName } from "../values.js";
import {
  areApart,
  block,
  isCallable,
  isUnseen,
  isWalkedAlike,
  runsThrough,
  sievedBy,
  whole,
} from "./walked.js";

const { list, items, value } = holes({
  list: { kind: "name", node: "identifier" },
  items: "expression",
  value: "expression",
});

/** Is what is added the item itself? */
function addsItem({ collecting: { item, value: added } }: Match): boolean {
  const [only, ...more] = item?.parts ?? [];
  return only !== undefined && more.length === 0 && only.is("identifier") && only.text === added.text;
}

/** The form that a block method of Ruby can take. */
function fits(match: Match): Answer {
  const { loop, sieves } = match.collecting;
  const callable = isCallable(match.collecting);
  if (callable.is === "no") return callable;
  return sieves.length === 0 && addsItem(match)
    ? no("form.fits", "the list is only copied, for which there are shorter ways", loop)
    : isUnseen(match.collecting);
}

/** `list = items.select { |item| test }.map { |item| value }`, as far as it needs both. */
function called(match: Match): Segment[] {
  const { items: walks, item, value: added, sieves, loop } = match.collecting;
  const { tree } = match;
  const names = item ? `${item.text} ` : "";
  const given: Segment[] = [copy(walks.start, walks.end), ...sievedBy(match.collecting)];
  if (sieves.length > 0 && addsItem(match)) return given;
  const base = tree.indentAt(loop.start);
  const onOne = [...given, ...block("map", match.collecting, whole(added))];
  const length = onOne.reduce((sum, one) => sum + ("text" in one ? one.text.length : one.end - one.start), 0);
  const ahead = tree.placeAt(match.place.start).column - 1;
  const isShort = ahead + length <= mostInLine(match) && !added.text.includes("\n");
  if (isShort || sieves.length > 0) return onOne;
  const deeper = base + indentUnit(tree, base);
  return [
    ...given,
    text(`.map do ${names.trim()}`.trimEnd() + `\n${deeper}`),
    copy(added.start, added.end, reindent(tree, added.start, added.end, tree.indentAt(added.start), deeper)),
    text(`\n${base}end`),
  ];
}

const { rewrites, ignores, holds } = trialsIn("ruby");

export const mappedList = rule({
  id: "ruby/mapped-list",
  kind: "idiom",
  title: "Use map or select to make a list from another",
  why: "One call says what the list is made of, and nobody has to see that nothing else is done to it.",
  was: collected({ list, items, value }),
  given: [
    condition("a call with a block can stand in its place", fits),
    condition("what is walked has `map` and `select`", ({ collecting, tree }) =>
      isWalkedAlike(collecting, tree, collecting.sieves.length > 0),
    ),
    ...isNotSeenGrowing(),
    condition("nothing asks for the list by its name", isNotAskedByName),
    condition("nothing leaves the block early", (match) => runsThrough(partsOf(match))),
    condition("tests and values do not see what the others do", (match) =>
      areApart(addsItem(match) ? [] : [match.collecting.value], match.collecting.sieves),
    ),
  ],
  becomes: called,
  trials: [
    rewrites(
      "def names\n  all = []\n  [1, 2].each do |n|\n    all << n.to_s\n  end\n  all\nend\n",
      "def names\n  all = [1, 2].map { |n| n.to_s }\n  all\nend\n",
    ),
    rewrites(
      "def names(hives)\n  all = []\n  hives.each { |hive| all.push(hive.name) }\n  all\nend\n",
      "def names(hives)\n  all = hives.map { |hive| hive.name }\n  all\nend\n",
      "likely",
    ),
    rewrites(
      "def pairs\n  all = []\n  { 1 => 2 }.each { |k, v| all << [v, k] }\n  all\nend\n",
      "def pairs\n  all = { 1 => 2 }.map { |k, v| [v, k] }\n  all\nend\n",
    ),
    rewrites(
      "def full\n  all = []\n  (1..9).each { |i| all << i if i.odd? }\n  all\nend\n",
      "def full\n  all = (1..9).select { |i| i.odd? }\n  all\nend\n",
    ),
    rewrites(
      "def full(hives)\n  all = []\n  hives.each do |hive|\n    next if !hive.full?\n    all << hive\n  end\n  all\nend\n",
      "def full(hives)\n  all = hives.select { |hive| hive.full? }\n  all\nend\n",
      "likely",
    ),
    rewrites(
      "def full\n  all = []\n  [1, nil].each do |n|\n    all << [n] unless n.nil?\n  end\n  all\nend\n",
      "def full\n  all = [1, nil].reject { |n| n.nil? }.map { |n| [n] }\n  all\nend\n",
      "likely",
    ),
    rewrites(
      "def f\n  all = []\n  [1].each do |n|\n    all << g(\n      n\n    )\n  end\n  all\nend\n",
      "def f\n  all = [1].map do |n|\n    g(\n      n\n    )\n  end\n  all\nend\n",
    ),
    // What the loop comes to is what the method gives.
    holds("def f\n  all = []\n  [1].each { |n| all << n.to_s }\nend\n", "comes to is used"),
    holds(
      "def f(a)\n  all = []\n  a.each { |n| all << n unless all.include?(n) }\n  all\nend\n",
      "is read while the loop runs",
    ),
    rewrites(
      "def f\n  all = []\n  (1..9).each { |i| all << (i + 1) }\n  all.each { |i| g { all } }\n  all\nend\n",
      "def f\n  all = (1..9).map { |i| i + 1 }\n  all.each { |i| g { all } }\n  all\nend\n",
    ),
    holds(
      "def f(a)\n  all = []\n  a.each do |n|\n    if jar = n.jar\n      all << jar\n    end\n  end\n  all\nend\n",
      "between two tests",
    ),
    holds("def f(a)\n  all = []\n  a.each { |n| all << $1 if n =~ /(x.)/ }\n  all\nend\n", "has found"),
    holds(
      "def f(a)\n  all = []\n  a.each { |n| all << delete(n) if n.old? }\n  all\nend\n",
      "between two tests",
    ),
    holds(
      "def f(a)\n  all = []\n  a.each { |n| all << n.jar if yield n }\n  all\nend\n",
      "between two tests",
    ),
    rewrites(
      "def f(a)\n  all = []\n  g = -> { all }\n  all = []\n  a.each { |n| all << n.jar(g) }\n  all\nend\n",
      "def f(a)\n  all = []\n  g = -> { all }\n  all = a.map { |n| n.jar(g) }\n  all\nend\n",
      "likely",
    ),
    holds("def f(a)\n  all = []\n  a.each { |n| all << (n || break) }\n  all\nend\n", "leaves the block"),
    holds(
      "def f(a)\n  all = []\n  a.each { |n| all << (g(n) rescue next) }\n  all\nend\n",
      "leaves the block",
    ),
    holds(
      "def f\n  all = []\n  { 1 => 2 }.each { |pair| all << pair if pair[0] }\n  all\nend\n",
      "makes a hash",
    ),
    holds(
      "def f\n  all = []\n  { 1 => 2 }.each { |pair| all << 1 if pair }\n  all\nend\n",
      "a key and a value",
    ),
    rewrites(
      "def f\n  all = []\n  { 1 => 2 }.each { |k, v| all << v if k }\n  all\nend\n",
      "def f\n  all = { 1 => 2 }.select { |k, v| k }.map { |k, v| v }\n  all\nend\n",
    ),
    holds("def f(a)\n  all = []\n  a.each { |n| all << n }\n  all\nend\n", "only copied"),
    holds(
      "def f(a)\n  all = []\n  a.each { |n| all << n.to_s }\n  all\nrescue E\n  all\nend\n",
      "is read here",
    ),
    holds(
      "def f(a)\n  begin\n    all = []\n    a.each { |n| all << n.to_s }\n  rescue E\n    nil\n  end\n  all\nend\n",
      "is read after this",
    ),
    holds("def f(a)\n  all = []\n  for n in a do\n    all << n.to_s\n  end\n  all\nend\n", "keeps its names"),
    holds(
      "def f(a)\n  all = []\n  a.each do |n|\n    next if n.nil?\n    all << n if n.odd?\n  end\n  all\nend\n",
      "several tests",
    ),
    holds("def f\n  all = []\n  [1].each { |n| all << eval(n) }\n  all\nend\n", "eval"),
    ignores("def f(a)\n  all = []\n  a&.each { |n| all << n.to_s }\n  all\nend\n"),
    ignores("def f(a)\n  all = []\n  a.each { |n| all.push(*n) }\n  all\nend\n"),
    ignores("def f(a)\n  all = []\n  a.each { |n| all.push(n, 1) }\n  all\nend\n"),
    ignores("def f(a)\n  all = []\n  a.each { |n| all << n << 1 }\n  all\nend\n"),
    ignores("def f(a)\n  all = []\n  a.each(2) { |n| all << n }\n  all\nend\n"),
    ignores("def f(a)\n  all = [1]\n  a.each { |n| all << n.to_s }\n  all\nend\n"),
    ignores("def f(a)\n  all = []\n  a.each { |n| all << n.to_s; g(n) }\n  all\nend\n"),
    ignores("def f(a)\n  all = []\n  a.each do |n|\n    all << g(n)\n  rescue E\n    h\n  end\n  all\nend\n"),
    ignores("def f(a)\n  @all = []\n  a.each { |n| @all << n.to_s }\n  @all\nend\n"),
  ],
});
