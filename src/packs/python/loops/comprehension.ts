import {
  collected,
  condition,
  copy,
  holes,
  isSeenElsewhere,
  isUsedAfter,
  no,
  referencesAt,
  rule,
  text,
  weakest,
} from "../../../core.js";
import { trialsIn, unknown, yes } from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { isNotSeenGrowing, partsOf } from "../../family/collecting.js";
import { mostInLine } from "../../family/limits.js";
import { isContrary, negated } from "../negated.js";

const { list, items, value } = holes({ list: "name", items: "expression", value: "expression" });

const namesIn = (node: SyntaxNode): SyntaxNode[] =>
  [...node.descendants()].filter((one) => one.is("identifier"));

/** The names of the loop end with it from now on. */
function areUsedNowhere(match: Match): Answer {
  const { loop, item } = match.collecting;
  for (const name of namesIn(item!)) {
    const to = referencesAt(name).find((one) => one.to)?.to;
    if (!to) return unknown("name.not-resolved", `what declares \`${name.text}\` is not known`, name);
    if (loop.closest(["function_definition"]) === undefined && isSeenElsewhere(to))
      return unknown("flow.used-later", `\`${name.text}\` can be seen by other files`, name);
    const used = isUsedAfter(to, loop);
    if (used.is === "yes") return no("flow.used-later", used.evidence.says, used.evidence);
    if (used.is === "unknown") return used;
  }
  return yes("flow.used-later", "the names of the loop are not used afterwards");
}

/** What may not stand in a comprehension, or means something else there. */
function mayStand(match: Match): Answer {
  const parts = partsOf(match);
  const { item } = match.collecting;
  if (!item!.is(["identifier", "pattern_list", "tuple_pattern", "list_pattern"]))
    return no("form.fits", `the loop gives its items to \`${item!.text}\``, item);
  const bad = parts
    .flatMap((part) => [...part.descendants()])
    .find((node) => node.is(["yield", "await", "named_expression"]));
  if (bad)
    return no(
      "form.fits",
      `\`${bad.text.split("\n")[0]}\` may not stand in a comprehension, or means something else there`,
      bad,
    );
  const frame = parts
    .flatMap((part) => [...part.descendants()])
    .find(
      (node) =>
        node.is("call") && /^(super|locals|vars|dir|eval|exec)$/.test(node.child("function")?.text ?? ""),
    );
  if (frame) return no("name.scope", `\`${frame.text}\` asks for the function that it stands in`, frame);
  const made = parts.flatMap((part) => [...part.descendants()]).find((node) => node.is("lambda"));
  if (made) return no("name.scope", "a function that is made in the loop keeps the names of the loop", made);
  const inClass = [...match.node.ancestors()].find((above) =>
    above.is(["class_definition", "function_definition"]),
  );
  if (inClass?.is("class_definition"))
    return no("name.scope", "a comprehension does not see the names of the class body around it", inClass);
  return yes("form.fits", "it may stand in a comprehension");
}

/** The parts of the comprehension: what is collected, what is walked, what is asked. */
function clausesOf({ collecting: { items: walks, item, value: added, sieves } }: Match): Segment[][] {
  const whole = ({ start, end }: SyntaxNode): Segment => copy(start, end);
  const asked = sieves.map(({ test, isTrue }) => (isTrue ? bracketed(test) : negated(test)));
  return [
    [whole(added)],
    [text("for "), whole(item!), text(" in "), ...bracketed(walks)],
    ...asked.map((test) => [text("if "), ...test]),
  ];
}

/** What may not stand bare in a clause. */
function bracketed(node: SyntaxNode): Segment[] {
  const code = copy(node.start, node.end);
  return node.is(["conditional_expression", "lambda", "expression_list"])
    ? [text("("), code, text(")")]
    : [code];
}

const codeOf = (match: Match, segments: readonly Segment[]): string =>
  segments.map((one) => ("text" in one ? one.text : match.tree.text.slice(one.start, one.end))).join("");

/** On one line where that is short enough, else each part on its own. */
function inBrackets(match: Match): Segment[] {
  const { first, empty, loop } = match.collecting;
  const parts = clausesOf(match);
  const indent = match.tree.indentAt(match.found.start);
  const onOne = [
    copy(first.start, empty.start),
    text("["),
    ...parts.flatMap((part, i) => (i === 0 ? part : [text(" "), ...part])),
    text("]"),
  ];
  if (indent.length + codeOf(match, onOne).length <= mostInLine(match)) return onOne;
  const deeper = match.tree.indentAt(loop.child("body")!.start).slice(indent.length) || "    ";
  const lines = parts.map((part) => `${indent}${deeper}${codeOf(match, part)}`);
  const start = match.tree.text.slice(first.start, empty.start);
  return [text([`${start}[`, ...lines, `${indent}]`].join("\n"))];
}

/** Parts that stand on several lines would have to be laid out anew. */
function isOnLines(match: Match): Answer {
  const long = clausesOf(match).find((part) => codeOf(match, part).includes("\n"));
  return long
    ? no("form.fits", "one of the parts stands on several lines", match.node)
    : yes("form.fits", "each part stands on one line");
}

const { rewrites, ignores, holds } = trialsIn("python");

export const comprehension = rule({
  id: "python/comprehension",
  kind: "idiom",
  title: "Use a comprehension to fill a list",
  why: "Three lines say what one can, and the reader must see that nothing else is done to the list.",
  was: collected({ list, items, value }),
  given: [
    ...isNotSeenGrowing(),
    condition("a test that is turned round is the contrary", ({ collecting: { sieves } }) =>
      weakest([
        yes("value.result", "no test is turned round"),
        ...sieves.flatMap(({ test, isTrue }) => (isTrue ? [] : [isContrary(test)])),
      ]),
    ),
    condition("the names of the loop are not used afterwards", areUsedNowhere),
    condition("it may stand in a comprehension", mayStand),
    condition("each part stands on one line", isOnLines),
  ],
  becomes: inBrackets,
  trials: [
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
    ignores("def f(jars):\n    names = []\n    g()\n    for jar in jars:\n        names.append(jar)\n"),
    ignores(
      "def f(jars):\n    names = []\n    for jar in jars:\n        if jar:\n            names.append(jar)\n        else:\n            g()\n",
    ),
    ignores("def f(jars):\n    names = []\n    for jar in jars:\n        other.append(jar)\n"),
  ],
});
