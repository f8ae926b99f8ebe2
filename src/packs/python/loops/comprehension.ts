import {
  condition,
  copy,
  holes,
  isSeenElsewhere,
  isUsedAfter,
  no,
  python,
  referencesAt,
  referencesOf,
  rule,
  text,
} from "../../../core.js";
import { trialsIn, unknown, yes } from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { mostInLine } from "../limits.js";

const { list, target, items, value, test } = holes({
  list: "name",
  target: { kind: "expression", node: ["identifier", "pattern_list", "tuple_pattern"] },
  items: "expression",
  value: "expression",
  test: "expression",
});

const PLAIN = python`
  ${list} = []
  for ${target} in ${items}:
      ${list}.append(${value})
`;
const TESTED = python`
  ${list} = []
  for ${target} in ${items}:
      if ${test}:
          ${list}.append(${value})
`;

const namesIn = (node: SyntaxNode): SyntaxNode[] =>
  [...node.descendants()].filter((one) => one.is("identifier"));

/** The list is not looked at while it grows. */
function isNotRead(match: Match): Answer {
  const name = match.textOf(list);
  const parts = [
    match.the(items),
    match.the(value),
    ...(match.has(test) ? [match.the(test)] : []),
    match.the(target),
  ];
  const read = parts.flatMap((part) => part.mentions(name))[0];
  if (read) return no("flow.order", `\`${name}\` is read while it is filled`, read);
  const to = referencesAt(match.the(list)).find((one) => one.to)?.to;
  const seen = to ? referencesOf(to).find((one) => one.captured) : undefined;
  const isOpen = !to || seen !== undefined || isSeenElsewhere(to);
  return isOpen
    ? unknown("flow.order", `what is called meanwhile could read \`${name}\``, seen?.node ?? match.node)
    : yes("flow.order", `\`${name}\` is not read while it is filled`);
}

/** The names of the loop end with it from now on. */
function areUsedNowhere(match: Match): Answer {
  const loop = match.nodes.at(-1)!;
  for (const name of namesIn(match.the(target))) {
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
  const parts = [match.the(items), match.the(value), ...(match.has(test) ? [match.the(test)] : [])];
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
  const loop = match.nodes.at(-1)!;
  if (loop.has("async")) return no("form.fits", "the loop waits for its items", loop);
  return yes("form.fits", "it may stand in a comprehension");
}

/** Where something throws halfway, a handler that reads the list finds what it held before. */
function isSafe(match: Match): Answer {
  const name = match.textOf(list);
  const around = match.node.closest(["try_statement"]);
  const handlers = around?.parts.slice(1) ?? [];
  const read = handlers.flatMap((part) => part.mentions(name))[0];
  return read && !handlers.some((part) => part.holds(match.node))
    ? no("flow.throws", `where the loop throws, \`${name}\` is read here`, read)
    : yes("flow.throws", "no handler reads the list");
}

/** The parts of the comprehension: what is collected, what is walked, what is asked. */
function partsOf(match: Match): Segment[][] {
  const whole = ({ start, end }: SyntaxNode): Segment => copy(start, end);
  const walks = match.the(items);
  const bracketed = walks.is(["conditional_expression", "lambda", "expression_list"]);
  return [
    [whole(match.the(value))],
    [
      text("for "),
      whole(match.the(target)),
      text(bracketed ? " in (" : " in "),
      whole(walks),
      ...(bracketed ? [text(")")] : []),
    ],
    ...(match.has(test) ? [[text("if "), whole(match.the(test))]] : []),
  ];
}

const codeOf = (match: Match, segments: readonly Segment[]): string =>
  segments.map((one) => ("text" in one ? one.text : match.tree.text.slice(one.start, one.end))).join("");

/** On one line where that is short enough, else each part on its own. */
function inBrackets(match: Match): Segment[] {
  const name = match.the(list);
  const parts = partsOf(match);
  const indent = match.tree.indentAt(match.found.start);
  const onOne = [
    copy(name.start, name.end),
    text(" = ["),
    ...parts.flatMap((part, i) => (i === 0 ? part : [text(" "), ...part])),
    text("]"),
  ];
  if (indent.length + codeOf(match, onOne).length <= mostInLine(match)) return onOne;
  const loop = match.nodes.at(-1)!;
  const deeper = match.tree.indentAt(loop.child("body")!.start).slice(indent.length) || "    ";
  const lines = parts.map((part) => `${indent}${deeper}${codeOf(match, part)}`);
  return [text([`${name.text} = [`, ...lines, `${indent}]`].join("\n"))];
}

/** Parts that stand on several lines would have to be laid out anew. */
function isOnLines(match: Match): Answer {
  const long = partsOf(match).find((part) => codeOf(match, part).includes("\n"));
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
  was: [PLAIN, TESTED],
  given: [
    condition("the list is not read while it is filled", isNotRead),
    condition("the names of the loop are not used afterwards", areUsedNowhere),
    condition("it may stand in a comprehension", mayStand),
    condition("no handler reads the list half filled", isSafe),
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
      "likely",
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
    ignores("def f(jars):\n    names = [1]\n    for jar in jars:\n        names.append(jar)\n"),
    ignores("def f(jars):\n    names = []\n    g()\n    for jar in jars:\n        names.append(jar)\n"),
    ignores(
      "def f(jars):\n    names = []\n    for jar in jars:\n        if jar:\n            names.append(jar)\n        else:\n            g()\n",
    ),
    ignores("def f(jars):\n    names = []\n    for jar in jars:\n        other.append(jar)\n"),
  ],
});
