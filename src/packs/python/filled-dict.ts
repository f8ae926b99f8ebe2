import {
  escaped,
  caution,
  condition,
  countedItem,
  filledItem,
  holes,
  isBuiltin,
  isOfTrait,
  isPlainValue,
  item,
  madeInSight,
  no,
  python,
  referencesAt,
  referencesOf,
  rule,
  shortened,
  sideEffectFree,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match, SyntaxNode } from "../../core.js";
import { valuesGivenTo } from "../family/members.js";
import { isOwnMethod } from "./lookup-or-default.js";

const { dict, key, value, count } = holes({
  dict: "expression",
  key: "expression",
  value: "expression",
  count: "expression",
});

const counts = (match: Match): boolean => match.keyed.does === "counts";
/** Was the value looked up and tested, rather than the key? */
const asksForValue = (match: Match): boolean => match.tests[0]!.asks !== "key";

/** The read whose value is tested; where a local holds it, what the local was given. */
function readOf({ tests, keyed }: Match): SyntaxNode {
  const { subject } = tests[0]!;
  return subject.isLeaf ? keyed.frame.value : subject;
}

const DICT = {
  what: "dict",
  methods: ["get", "setdefault", "__getitem__", "__setitem__", "__contains__", "__missing__"],
};

function isDict(match: Match): Answer {
  const node = match.the(dict);
  const type = typeOf(node);
  const shown = shortened(node.text);
  const own = isOwnMethod(node);
  if (own) return own;
  const filler = valuesGivenTo(node)?.find((value) => /^(collections\.)?defaultdict\(/.test(value.text));
  if (filler) return no("type.is", `\`${shown}\` is a defaultdict, which fills itself`, filler);
  if (!type) return unknown("type.is", `\`${shown}\` could be something else than a dict`, node);
  if (type.name === "defaultdict" || type.name === "DefaultDict")
    return no("type.is", `${type.why}, which fills itself`, type.at);
  const answer = isOfTrait(node, "map", DICT);
  return answer.is === "no"
    ? unknown("type.is", `${type.why}, which may be something else than a dict`, type.at)
    : answer;
}

/** Does the dict hold nothing but numbers, as all that is put into it here says? Only for one that nobody else sees. */
function holdsNumbers(match: Match): Answer {
  const node = match.the(dict);
  const shown = shortened(node.text);
  const doubt = unknown("type.operator", `\`${shown}\` could hold something with a \`+\` of its own`, node);
  const to = node.is("identifier") ? referencesAt(node).find((one) => one.to)?.to : undefined;
  const made = madeInSight(node);
  const isEmpty =
    valuesGivenTo(node)?.every((value) => /^(\{\}|dict\(\))$/.test(value.text.replace(/\s/g, ""))) === true;
  if (!to || !made || !isEmpty) return doubt;
  for (const { node: use, does } of referencesOf(to)) {
    if (does === "write" || does === "declare") continue;
    const item = use.parent;
    const isItem = item?.is("subscript") === true && item.child("value")?.same(use) === true;
    const holder = item?.parent;
    if (isItem && holder?.is(["assignment", "augmented_assignment"]) && holder.child("left")?.same(item)) {
      const value = holder.child("right");
      if (value && (isPlainValue(value) || isGet(value, to.name))) continue;
      return doubt;
    }
    const isRead =
      isItem ||
      item?.is(["comparison_operator", "for_statement", "for_in_clause", "return_statement"]) ||
      (item?.is("expression_list") && item.parent?.is("return_statement"));
    const isMethod =
      item?.is("attribute") === true &&
      /^(get|items|keys|values|copy)$/.test(item.child("attribute")?.text ?? "");
    const isSeen =
      item?.is("argument_list") === true &&
      /^(len|sorted|print|list|max|min|sum|str)$/.test(item.parent?.child("function")?.text ?? "");
    if (!isRead && !isMethod && !isSeen) return doubt;
  }
  return yes("value.kind", `only numbers are put into \`${shown}\``, to.at[0]);
}

/** `d.get(k, 0) + 1`. */
function isGet(value: SyntaxNode, name: string): boolean {
  return new RegExp(`^${escaped(name)}\\.get\\([^()]*, 0\\) \\+ `).test(value.text);
}

/** What is put into the dict is made each time now, whether it is needed or not. */
function isCheap(match: Match): Answer {
  if (counts(match)) return yes("value.kind", "a number is added");
  const node = match.the(value);
  const isEmpty = /^(\[\]|\{\}|\(\)|(list|dict|set)\(\))$/.test(node.text.replace(/\s/g, ""));
  const isLiteral =
    node.is(["integer", "float", "string", "true", "false", "none"]) && !/^[fF]["']/.test(node.text);
  const called = /^(list|dict|set)\(/.exec(node.text)?.[1];
  if (called !== undefined && isBuiltin(called, node).is !== "yes") return isBuiltin(called, node);
  if (isEmpty || isLiteral)
    return yes("effect.could-fail", `\`${shortened(node.text)}\` costs nothing to make`, node);
  return no(
    "effect.could-fail",
    `\`${shortened(node.text)}\` would be worked out although it is not needed`,
    node,
  );
}

const { rewrites, holds, ignores } = trialsIn("python");

export const filledDict = rule({
  id: "python/filled-dict",
  kind: "idiom",
  title: "Use setdefault and get to fill in and count in a dict",
  why: "Look up, test and put are one thing to do, and the key is written three times.",
  was: [countedItem(item(dict, key), count), filledItem(item(dict, key), value)],
  // `d[k]` of a key that is not there fails, so what it gives is there, and setdefault would leave it.
  where: [(match) => !asksForValue(match) || readOf(match).is("call")],
  given: [
    condition("it is a dict", isDict, { unknownIs: "possible" }),
    sideEffectFree(dict),
    sideEffectFree(key),
    condition("what is put in costs nothing to make", isCheap),
    condition("a key that is there has a value", (match) =>
      asksForValue(match)
        ? unknown(
            "value.which-missing",
            `\`${shortened(match.textOf(dict))}\` could hold None for the key`,
            match.node,
          )
        : yes("value.which-missing", "only the key is asked for"),
    ),
    condition("what is counted is a number", (match) => {
      if (!counts(match)) return yes("value.kind", "nothing is counted");
      const node = match.the(count);
      const type = typeOf(node)?.name;
      const isNumber =
        node.is(["integer", "float"]) || /^(int|float)$/.test(type ?? "") || /^len\(/.test(node.text);
      return isNumber
        ? holdsNumbers(match)
        : no(
            "value.kind",
            `\`${shortened(node.text)}\` could be no number, and cannot be added to 0 then`,
            node,
          );
    }),
  ],
  cautions: (match) =>
    asksForValue(match)
      ? [
          caution(
            "value.which-missing",
            `when \`${shortened(match.textOf(dict))}\` holds None for the key, the old code replaced it and the new one keeps it`,
          ),
        ]
      : [],
  becomes: (match) =>
    counts(match)
      ? python`${dict}[${key}] = ${dict}.get(${key}, 0) + ${count}`
      : python.expression`${dict}.setdefault(${key}, ${value})`,
  trials: [
    rewrites(
      `
      lots = {}
      for jar in jars:
          if jar.lot not in lots:
              lots[jar.lot] = []
          lots[jar.lot].append(jar)
      `,
      `
      lots = {}
      for jar in jars:
          lots.setdefault(jar.lot, []).append(jar)
      `,
      "likely",
    ),
    rewrites(
      "lots = {}\nif key not in lots:\n    lots[key] = []\nlots[key].append(1)\n",
      "lots = {}\nlots.setdefault(key, []).append(1)\n",
    ),
    rewrites("d = {}\nif k not in d:\n    d[k] = 0\n", "d = {}\nd.setdefault(k, 0)\n"),
    rewrites("d = {}\nif k in d:\n    d[k] += 1\nelse:\n    d[k] = 1\n", "d = {}\nd[k] = d.get(k, 0) + 1\n"),
    rewrites("d = {}\nif k not in d:\n    d[k] = 0\nd[k] += 2\n", "d = {}\nd[k] = d.get(k, 0) + 2\n"),
    rewrites(
      "x = d.get(k)\nif x is None:\n    x = []\n    d[k] = x\n",
      "x = d.setdefault(k, [])\n",
      "possible",
    ),
    rewrites("x = d.get(k)\nif x is None:\n    x = d[k] = {}\n", "x = d.setdefault(k, {})\n", "possible"),
    holds("d = {}\nif k in d:\n    d[k] += ']'\nelse:\n    d[k] = ']'\n", "could be no number"),
    holds("d = {}\nif k in d:\n    d[k] += n\nelse:\n    d[k] = n\n", "could be no number"),
    holds("d = {}\nif k not in d:\n    d[k] = read(k)\n", "although it is not needed"),
    holds("d = {}\nif k not in d:\n    d[k] = a + b\n", "although it is not needed"),
    holds("d = {}\nif next(k) not in d:\n    d[next(k)] = 0\n", "calls something"),
    holds(
      "from collections import defaultdict\nd = defaultdict(list)\nif k not in d:\n    d[k] = 0\n",
      "fills itself",
    ),
    holds(
      "class D(dict):\n    def setdefault(self, k, v):\n        if k not in self:\n            self[k] = []\n        return self[k]\n",
      "would call itself",
    ),
    ignores("k = d.get(k)\nif k is None:\n    k = []\n    d[k] = k\n"),
    ignores("d = {}\nif d[k] is None:\n    d[k] = 0\n"),
    ignores("x = d[k]\nif x is None:\n    x = d[k] = 0\n"),
    ignores("if k not in d:\n    d[j] = 0\n"),
    ignores("if k not in d:\n    d[k] = 0\n    n += 1\n"),
    ignores("if k in d:\n    d[k] = 0\n"),
    ignores("if k not in d:\n    d[k] = 0\nelse:\n    n += 1\n"),
  ],
});
