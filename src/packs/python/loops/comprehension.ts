import {
  collected,
  condition,
  copy,
  holes,
  isSideEffectFree,
  rule,
  shortened,
  text,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { isNotSeenGrowing } from "../../family/collecting.js";
import { areOnLines, asked, bracketed, forClause, itselfOr, laidOut } from "./clauses.js";
import { areBuiltin, endsNames, isEachContrary, mayStand, namesIn } from "./may-stand.js";

const { list, items, value } = holes({ list: "name", items: "expression", value: "expression" });

/** The parts of the comprehension: what is collected, what is walked, what is asked. */
function clausesOf({ collecting }: Match): Segment[][] {
  const { value: added, key, sieves } = collecting;
  const whole = ({ start, end }: SyntaxNode): Segment => copy(start, end);
  const first = key ? [...bracketed(key), text(": "), ...bracketed(added)] : bracketed(added);
  const isAlone = key === undefined && !added.is("expression_list");
  return itselfOr(collecting, key ? "" : added.text, [
    isAlone ? [whole(added)] : first,
    forClause(collecting),
    ...sieves.map((sieve) => [text("if "), ...asked(sieve)]),
  ]);
}

/** The key of an item is worked out ahead of its value from now on. */
function areApart({ collecting: { key, value: added, item } }: Match): Answer {
  const own = namesIn(item!).map(({ text: name }) => name);
  // What the loop calls an item is changed by nothing that is called.
  const isFixed = (node: SyntaxNode): boolean =>
    node.is(node.tree.language.plainValues) || (node.is("identifier") && own.includes(node.text));
  const both = [added, key!];
  const open = both.find((node) => isSideEffectFree(node).is !== "yes");
  return !open || both.some(isFixed)
    ? yes("effect.evaluated", "it makes no difference which of the two is evaluated first", key)
    : unknown("effect.evaluated", `\`${shortened(open.text)}\` could change what the other one reads`, open);
}

/** The functions of the language that make what is filled, in the old code and in the new. */
function madeBy(match: Match): string[] {
  const { empty, gathers } = match.collecting;
  return [...(empty.is("call") ? [empty.child("function")!.text] : []), ...(isCopy(match) ? [gathers] : [])];
}

/** Are all items taken as they are, so that there is nothing to say about them? */
const isCopy = (match: Match): boolean => match.collecting.gathers !== "map" && clausesOf(match).length === 1;

/** `list` asks what it is given for its length, if it has one. */
function hasPlainLength({ collecting: { items: walks } }: Match): Answer {
  const type = typeOf(walks);
  return type && type.declared === undefined && type.module === undefined
    ? yes("type.is", type.why, type.at)
    : unknown("type.is", `\`${shortened(walks.text)}\` could have a length that cannot be asked for`, walks);
}

/** What stands around the clauses. */
function bracketsOf(match: Match): [string, string] {
  const { gathers } = match.collecting;
  if (isCopy(match)) return [`${gathers}(`, ")"];
  return gathers === "list" ? ["[", "]"] : ["{", "}"];
}

const { rewrites, ignores, holds } = trialsIn("python");

export const comprehension = rule({
  id: "python/comprehension",
  kind: "idiom",
  title: "Use a comprehension to fill a list, a set or a dictionary",
  why: "Three lines say what one can, and the reader must see that nothing else is done to it.",
  was: collected({ list, items, value, gathers: ["list", "set", "map"] }),
  given: [
    ...isNotSeenGrowing(),
    condition("a test that is turned round is the contrary", ({ collecting: { sieves } }) =>
      isEachContrary(sieves),
    ),
    condition("key and value can be evaluated in either order", areApart, {
      when: ({ collecting: { key } }) => key !== undefined,
    }),
    condition("its type is the built-in one", (match) => areBuiltin(madeBy(match), match.node), {
      when: (match) => madeBy(match).length > 0,
    }),
    condition("what is walked may be asked for its length", hasPlainLength, {
      when: (match) => isCopy(match) && match.collecting.gathers === "list",
    }),
    condition("the names of the loop are not used afterwards", ({ collecting }) => endsNames(collecting)),
    condition("it may stand in a comprehension", ({ collecting }) =>
      mayStand(collecting, [collecting.value, ...(collecting.key ? [collecting.key] : [])]),
    ),
    condition("each part stands on one line", (match) => areOnLines(match, clausesOf(match))),
  ],
  becomes: (match) => laidOut(match, bracketsOf(match), clausesOf(match)),
  trials: [
    rewrites(
      "def f(jars):\n    names = []\n    for jar in jars:\n        name = jar.name.strip()\n        names.append(name)\n    return names\n",
      "def f(jars):\n    names = [jar.name.strip() for jar in jars]\n    return names\n",
    ),
    ignores(
      "def f(jars):\n    names = []\n    for jar in jars:\n        name = jar.name\n        names.append(name)\n    return names, name\n",
    ),
    rewrites(
      "def f(jars):\n    names = []\n    for jar in jars:\n        names.append(jar.name)\n    return names\n",
      "def f(jars):\n    names = [jar.name for jar in jars]\n    return names\n",
    ),
    rewrites(
      "def f(jars):\n    names = []\n    for i, jar in enumerate(jars):\n        if jar.full:\n            names.append((i, jar))\n    return names\n",
      "def f(jars):\n    names = [(i, jar) for i, jar in enumerate(jars) if jar.full]\n    return names\n",
    ),
    rewrites(
      `
      def f(jars_of_the_cooperative):
          names = []
          for jar in jars_of_the_cooperative:
              if jar.is_full_and_sealed and jar.has_label:
                  names.append(jar.name)
          return names
      `,
      `
      def f(jars_of_the_cooperative):
          names = [
              jar.name
              for jar in jars_of_the_cooperative
              if jar.is_full_and_sealed and jar.has_label
          ]
          return names
      `,
    ),
    rewrites(
      "def f(jars):\n    names = []\n    for jar in jars:\n        names.append(g(jar))\n    return lambda: names\n",
      "def f(jars):\n    names = [g(jar) for jar in jars]\n    return lambda: names\n",
    ),
    rewrites(
      "def f(jars):\n    names = []\n    for jar in jars:\n        if not jar.full:\n            continue\n        names.append(jar.name)\n    return names\n",
      "def f(jars):\n    names = [jar.name for jar in jars if jar.full]\n    return names\n",
    ),
    rewrites(
      "def f(jars):\n    names: list = []\n    for jar in jars:\n        if jar is None:\n            continue\n        if a if b else c:\n            names.append(jar)\n    return names\n",
      "def f(jars):\n    names: list = [jar for jar in jars if jar is not None if (a if b else c)]\n    return names\n",
    ),
    rewrites(
      "def f(jars):\n    names = []\n    for jar in jars:\n        if jar == EMPTY:\n            continue\n        names.append(jar)\n    return names\n",
      "def f(jars):\n    names = [jar for jar in jars if jar != EMPTY]\n    return names\n",
      "likely",
    ),
    rewrites(
      "def f(path):\n    with open(path) as file:\n        lines = []\n        for line in file:\n            lines.append(line.strip())\n    return lines\n",
      "def f(path):\n    with open(path) as file:\n        lines = [line.strip() for line in file]\n    return lines\n",
    ),
    rewrites(
      "def f(jars, quiet):\n    with quiet:\n        lines = []\n        for jar in jars:\n            lines.append(jar.name)\n    return lines\n",
      "def f(jars, quiet):\n    with quiet:\n        lines = [jar.name for jar in jars]\n    return lines\n",
      "likely",
    ),
    rewrites(
      "def f(jars):\n    try:\n        names = []\n        for jar in jars:\n            names.append(jar.name)\n    except E:\n        raise F\n    return names\n",
      "def f(jars):\n    try:\n        names = [jar.name for jar in jars]\n    except E:\n        raise F\n    return names\n",
    ),
    rewrites(
      "def f(jars):\n    names = []\n    for jar in jars:\n        if jar.a == 1 or jar == b:\n            continue\n        names.append(jar)\n    return names\n",
      "def f(jars):\n    names = [jar for jar in jars if jar.a != 1 and jar != b]\n    return names\n",
      "likely",
    ),
    rewrites(
      "def f(jars):\n    kinds = set()\n    for jar in jars:\n        kinds.add(jar.kind)\n    return kinds\n",
      "def f(jars):\n    kinds = {jar.kind for jar in jars}\n    return kinds\n",
    ),
    rewrites(
      'def f(jars):\n    by_id = {}\n    for jar in jars:\n        if jar.full:\n            by_id[jar["id"]] = jar\n    return by_id\n',
      'def f(jars):\n    by_id = {jar["id"]: jar for jar in jars if jar.full}\n    return by_id\n',
    ),
    rewrites(
      "def f(jars):\n    sizes = dict()\n    for i, jar in enumerate(jars):\n        sizes[i] = (len(jar), jar)\n    return sizes\n",
      "def f(jars):\n    sizes = {i: (len(jar), jar) for i, jar in enumerate(jars)}\n    return sizes\n",
    ),
    rewrites(
      "def f(jars):\n    all = []\n    for jar in jars.of(1):\n        all.append(jar)\n    return all\n",
      "def f(jars):\n    all = list(jars.of(1))\n    return all\n",
      "likely",
    ),
    rewrites(
      "def f():\n    all = []\n    for i in range(3):\n        all.append(i)\n    return all\n",
      "def f():\n    all = list(range(3))\n    return all\n",
    ),
    // What the value does is done ahead of the key in the old code.
    rewrites(
      "def f(jars):\n    d = {}\n    for jar in jars:\n        d[jar.next()] = jar.next()\n    return d\n",
      "def f(jars):\n    d = {jar.next(): jar.next() for jar in jars}\n    return d\n",
      "likely",
    ),
    rewrites(
      "KIND = 1\n\n\ndef f(jars):\n    d = {}\n    for jar in jars:\n        d[KIND] = jar.next()\n    return d\n",
      "KIND = 1\n\n\ndef f(jars):\n    d = {KIND: jar.next() for jar in jars}\n    return d\n",
      "likely",
    ),
    // The name of the loop is one of the module.
    rewrites(
      "def f(jars):\n    global jar\n    names = []\n    for jar in jars:\n        names.append(jar.name)\n    return names\n",
      "def f(jars):\n    global jar\n    names = [jar.name for jar in jars]\n    return names\n",
      "likely",
    ),
    // Other work stands between the two.
    rewrites(
      "def f(path):\n    names = []\n    jars = load(path)\n    limit = 3\n    for jar in jars:\n        if jar.size > limit:\n            names.append(jar.name)\n    return names\n",
      "def f(path):\n    jars = load(path)\n    limit = 3\n    names = [jar.name for jar in jars if jar.size > limit]\n    return names\n",
    ),
    holds(
      "names = {}\nfor n, hive in enumerate(load()):\n    names[hive] = n\n\ndel n, hive\n",
      "`n` is read later",
    ),
    holds(
      "def set():\n    return G\n\n\ndef f(jars):\n    kinds = set()\n    for jar in jars:\n        kinds.add(jar.kind)\n    return kinds\n",
      "`set`",
    ),
    holds(
      "def f(jars):\n    seen = set()\n    for jar in jars:\n        if jar.id not in seen:\n            seen.add(jar.id)\n    return seen\n",
      "is read while",
    ),
    ignores("def f(jars):\n    d = {}\n    for jar in jars:\n        d[jar.id] += jar\n"),
    ignores("def f(jars):\n    d = set()\n    for jar in jars:\n        d.append(jar)\n"),
    ignores("def f(jars):\n    d = []\n    for i, jar in enumerate(jars):\n        d[i] = jar\n"),
    ignores("def f(jars):\n    d = []\n    g(d)\n    for jar in jars:\n        d.append(jar)\n"),
    ignores(
      "def f(jars):\n    d = []\n    if not jars:\n        return d\n    for jar in jars:\n        d.append(jar)\n",
    ),
    holds(
      "def f(jars, strict):\n    try:\n        names = []\n        for jar in jars:\n            names.append(jar.name)\n    except E:\n        if strict:\n            raise\n    return names\n",
      "is read after this",
    ),
    holds(
      "def f(jars):\n    try:\n        g()\n    except E:\n        names = []\n        for jar in jars:\n            names.append(jar.name)\n    finally:\n        h(names)\n",
      "is read here",
    ),
    holds(
      "def f(jars):\n    try:\n        names = []\n        for jar in jars:\n            names.append(jar.name)\n    except E:\n        pass\n    return names\n",
      "is read after this",
    ),
    holds(
      "def f(jars, box):\n    names = []\n    for box.jar in jars:\n        names.append(1)\n    return names\n",
      "gives its items to",
    ),
    ignores(
      "def f(jars):\n    names = []\n    for jar in jars:\n        names.append(*jar)\n    return names\n",
    ),
    holds(
      "def f(jars):\n    names = []\n    for jar in jars:\n        if jar not in names:\n            names.append(jar)\n    return names\n",
      "is read while",
    ),
    holds(
      "def f(jars):\n    names = []\n    for jar in jars:\n        names.append(jar)\n    return names, jar\n",
      "is read later",
    ),
    holds(
      "def f(jars):\n    jobs = []\n    for jar in jars:\n        jobs.append(lambda: jar)\n    return jobs\n",
      "keeps the names",
    ),
    holds(
      "class A(B):\n    def f(self, jars):\n        out = []\n        for jar in jars:\n            out.append(super().g(jar))\n        return out\n",
      "that it stands in",
    ),
    holds("class A:\n    names = []\n    for jar in JARS:\n        names.append(jar)\n", "class body"),
    holds(
      "async def f(jars):\n    names = []\n    for jar in jars:\n        names.append(await jar)\n    return names\n",
      "may not stand",
    ),
    ignores(
      "def f(jars):\n    names = []\n    for jar in jars:\n        names.append(jar)\n    else:\n        g()\n",
    ),
    holds(
      "def f(jars):\n    try:\n        names = []\n        for jar in jars:\n            names.append(g(jar))\n    except E:\n        h(names)\n",
      "where the loop throws",
    ),
    ignores(
      "def f(jars):\n    names = []\n    for jar in jars:\n        names.append(jar)\n        g(jar)\n",
    ),
    ignores(
      "async def f(jars):\n    names = []\n    async for jar in jars:\n        names.append(jar)\n    return names\n",
    ),
    ignores("def f(jars):\n    names = [1]\n    for jar in jars:\n        names.append(jar)\n"),
    ignores(
      "def f(jars):\n    names = []\n    for jar in jars:\n        if jar:\n            names.append(jar)\n        else:\n            g()\n",
    ),
    ignores("def f(jars):\n    names = []\n    for jar in jars:\n        other.append(jar)\n"),
  ],
});
