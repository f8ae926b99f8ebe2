import { collected, condition, copy, holes, rule, text, trialsIn, yes } from "../../../core.js";
import type { Answer, Match, Segment } from "../../../core.js";
import { isNotSeenGrowing, partsOf } from "../../family/collecting.js";
import { isNotAskedByName, isOfLanguage } from "../values.js";
import {
  areApart,
  areOnLines,
  block,
  isCallable,
  isUnseen,
  isWalkedAlike,
  runsThrough,
  sievedBy,
  whole,
} from "./walked.js";

const { hash, items, value } = holes({
  hash: { kind: "name", node: "identifier" },
  items: "expression",
  value: "expression",
});

/** `hash = items.to_h { |item| [key, value] }`, of the items that pass the test. */
function called({ collecting }: Match): Segment[] {
  const { items: walks, key, value: added } = collecting;
  const [first, second, ...more] = collecting.item?.parts ?? [];
  const isPair = first?.text === key!.text && second?.text === added.text && more.length === 0;
  if (isPair && collecting.sieves.length > 0)
    return [copy(walks.start, walks.end), ...sievedBy(collecting), text(".to_h")];
  const pair = [text("["), ...whole(key!), text(", "), ...whole(added), text("]")];
  return [copy(walks.start, walks.end), ...sievedBy(collecting), ...block("to_h", collecting, pair)];
}

/** Both forms make a hash of the language. */
function isPlainHash({ collecting: { empty } }: Match): Answer {
  return empty.is("hash") ? yes("name.library", "it is a hash", empty) : isOfLanguage("Hash", empty);
}

const { rewrites, ignores, holds } = trialsIn("ruby");

export const mappedHash = rule({
  id: "ruby/mapped-hash",
  kind: "idiom",
  title: "Use to_h with a block to make a hash from a list",
  why: "One call says what the hash is made of, and nobody has to see that nothing else is done to it.",
  was: collected({ list: hash, items, value, gathers: ["map"] }),
  given: [
    condition("a call with a block can stand in its place", (match) => isCallable(match.collecting)),
    condition("what the loop comes to is not used", (match) => isUnseen(match.collecting)),
    // A hash hands a key and a value to `to_h`, and to `each` a pair.
    condition("what is walked has `to_h`", ({ collecting, tree }) => isWalkedAlike(collecting, tree, true)),
    condition("it is a hash of the language", isPlainHash),
    condition("each part stands on one line", (match) => areOnLines(partsOf(match))),
    ...isNotSeenGrowing(),
    condition("nothing asks for the hash by its name", isNotAskedByName),
    condition("nothing leaves the block early", (match) => runsThrough(partsOf(match))),
    condition(
      "tests and values do not see what the others do",
      ({ collecting: { key, value: added, sieves } }) => areApart([key!, added], sieves),
    ),
  ],
  becomes: called,
  trials: [
    rewrites(
      "def f\n  sizes = {}\n  ['a', 'b'].each { |n| sizes[n] = n.size }\n  sizes\nend\n",
      "def f\n  sizes = ['a', 'b'].to_h { |n| [n, n.size] }\n  sizes\nend\n",
    ),
    rewrites(
      "def f(hives)\n  by_name = Hash.new\n  hives.each do |hive|\n    by_name[hive.name] = hive\n  end\n  by_name\nend\n",
      "def f(hives)\n  by_name = hives.to_h { |hive| [hive.name, hive] }\n  by_name\nend\n",
      "likely",
    ),
    rewrites(
      "def f(hives)\n  kg = {}\n  hives.each { |name, hive| kg[name] = hive.kg if hive.full? }\n  kg\nend\n",
      "def f(hives)\n  kg = hives.select { |name, hive| hive.full? }.to_h { |name, hive| [name, hive.kg] }\n  kg\nend\n",
      "likely",
    ),
    rewrites(
      "def f(kg)\n  heavy = {}\n  kg.each { |name, all| heavy[name] = all if all > 3 }\n  heavy\nend\n",
      "def f(kg)\n  heavy = kg.select { |name, all| all > 3 }.to_h\n  heavy\nend\n",
      "likely",
    ),
    holds(
      "def f(names)\n  ids = {}\n  names.each { |name| ids[name] = $1 if name =~ /(x.)/ }\n  ids\nend\n",
      "has found",
    ),
    holds("def f(hives)\n  kg = {}\n  hives.each { |hive| kg[hive.name] = 1 }\nend\n", "comes to is used"),
    holds(
      "def f(hives)\n  kg = {}\n  hives.each { |hive| kg[hive.name] = hive.kg || break }\n  kg\nend\n",
      "leaves the block",
    ),
    holds(
      "def f(hives)\n  kg = {}\n  for hive in hives do\n    kg[hive.name] = hive.kg\n  end\n  kg\nend\n",
      "keeps its names",
    ),
    holds(
      "def f(hives)\n  kg = {}\n  hives.each { |hive| kg[hive.name] = weigh(hive) if hive.full? }\n  kg\nend\n",
      "between two tests",
    ),
    holds("def f\n  kg = {}\n  { 1 => 2 }.each { |pair| kg[pair] = 1 }\n  kg\nend\n", "a key and a value"),
    // What gives a value to missing keys would be lost.
    ignores("def f(hives)\n  kg = Hash.new(0)\n  hives.each { |hive| kg[hive.name] = hive.kg }\n  kg\nend\n"),
    ignores("def f(hives)\n  kg = {}\n  hives.each { |hive| kg[hive.name] += hive.kg }\n  kg\nend\n"),
    ignores("def f(hives)\n  kg = {}\n  hives.each { |hive| kg[hive.name] = kg.size }\n  kg\nend\n"),
    ignores("def f(hives)\n  kg = {}\n  hives.each { |hive| kg[hive.name] ||= hive.kg }\n  kg\nend\n"),
    ignores("def f(hives)\n  kg = { 1 => 2 }\n  hives.each { |hive| kg[hive.name] = hive.kg }\n  kg\nend\n"),
  ],
});
