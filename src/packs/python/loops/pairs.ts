import {
  escaped,
  condition,
  copy,
  fresh,
  holes,
  isTarget,
  isUnchanged,
  neverWritten,
  no,
  referencesAt,
  rule,
  runsLater,
  singular,
  trialsIn,
  unchangedDuring,
  valuesGiven,
  weakest,
  walked,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";

const { index, items, body } = holes({ index: "name", items: "expression", body: "statements" });
const item = fresh("item", { singularOf: items });

/** The reads of another list at the same position: `weights[i]` beside `jars[i]`. Undefined where the position has other uses. */
function partnersIn({ loop }: Match): SyntaxNode[] | undefined {
  const reads = loop.others.map((mention) => {
    const read = mention.parent?.is("subscript") ? mention.parent : undefined;
    return read &&
      read.parts.length === 2 &&
      read.parts[1]!.same(mention) &&
      read.parts[0]!.is(["identifier", "attribute"])
      ? read
      : undefined;
  });
  if (reads.length === 0 || !reads.every((read) => read !== undefined)) return undefined;
  const names = new Set(reads.map((read) => read.parts[0]!.text));
  return names.size === 1 && !names.has(loop.items.text) ? reads : undefined;
}

const partnerOf = (match: Match): SyntaxNode => partnersIn(match)![0]!.parts[0]!;

/** Does the loop walk two lists that are known to be as long as each other? */
export function walksPairs(match: Match): boolean {
  return match.loop.positions !== undefined && partnersIn(match) !== undefined && isAsLong(match).is !== "no";
}

/** Is the other list at least as long, for a reason that can be seen? Of one that is shorter the tail would be dropped in silence. */
function isAsLong(match: Match): Answer {
  const [list, other] = [match.loop.items, partnerOf(match)];
  const code = "value.result";
  const said = sizeTest(match, list, other) ?? madeFrom(list, other) ?? madeFrom(other, list);
  return (
    said ??
    no(
      code,
      `\`${other.text}\` could be shorter than \`${list.text}\`: the old loop fails there, and zip would stop in silence`,
      other,
    )
  );
}

/** `assert len(a) == len(b)`, or a way out where they differ, ahead of the loop. */
function sizeTest({ node }: Match, list: SyntaxNode, other: SyntaxNode): Answer | undefined {
  const both = (operator: string): string[] => [
    `len(${list.text}) ${operator} len(${other.text})`,
    `len(${other.text}) ${operator} len(${list.text})`,
  ];
  const between: SyntaxNode[] = [];
  for (let at = node.previousPart; at; at = at.previousPart) {
    const test = at.is("assert_statement") ? at.firstPart?.text : undefined;
    const guard = at.is("if_statement") && !at.child("alternative") ? at.child("condition")?.text : undefined;
    const leaves = at.child("consequence")?.lastPart?.is(["raise_statement", "return_statement"]) ?? false;
    if (
      (test !== undefined && both("==").includes(test)) ||
      (guard !== undefined && leaves && both("!=").includes(guard))
    ) {
      const kept = weakest([isUnchanged(list, between), isUnchanged(other, between)]);
      if (between.length > 0 && kept.is !== "yes") return kept.is === "no" ? undefined : kept;
      return yes("value.result", "both lists are known to have the same length", at);
    }
    between.unshift(at);
    const written = [list, other].some((one) => at.mentions(one.text).some((use) => isTarget(use)));
    if (written) return undefined;
  }
  return undefined;
}

/** Is one list made of the other, item by item, and never changed since? */
function madeFrom(made: SyntaxNode, source: SyntaxNode): Answer | undefined {
  if (!made.is("identifier") || !source.is("identifier")) return undefined;
  const [to, from] = [made, source].map((one) => referencesAt(one).find((reference) => reference.to)?.to);
  const [value, ...more] = (to && valuesGiven(to)) ?? [];
  if (!value || more.length > 0 || !from || !isOneForOne(value, source.text)) return undefined;
  const statement = value.closest(["expression_statement"]);
  const block = statement?.parent;
  const place = block?.parts.find((part) => part.holds(made));
  if (!statement || !block || !place) return undefined;
  const between = block.parts.filter((part) => part.start > statement.start && part.end < place.start);
  const keeps = [made, source].every((one) => isUnchanged(one, between).is === "yes");
  return keeps
    ? yes("value.result", `\`${made.text}\` has an item for each of \`${source.text}\``, value)
    : undefined;
}

function isOneForOne(value: SyntaxNode, source: string): boolean {
  const code = value.text.replace(/\s+/g, " ");
  if (value.is("list_comprehension")) {
    const clauses = value.parts.slice(1);
    return (
      clauses.length === 1 && clauses[0]!.is("for_in_clause") && clauses[0]!.child("right")?.text === source
    );
  }
  return (
    [
      `list(${source})`,
      `sorted(${source})`,
      `${source}.copy()`,
      `${source}[:]`,
      `list(reversed(${source}))`,
    ].includes(code) || new RegExp(`^\\[[^\\],]*\\] \\* len\\(${escaped(source)}\\)$`).test(code)
  );
}

function paired(match: Match): readonly Segment[] {
  const { loop } = match;
  const reads = partnersIn(match)!;
  const other = partnerOf(match);
  const first = match.named(item);
  const wished = singular(other.text);
  const wishes = [...(wished === undefined ? [] : [wished]), "other", "partner"];
  const second = match.names.choose(wishes, match.found.start, match.found.end);
  const place = loop.positions!;
  const edits = [
    ...loop.lookUps.map(({ start, end }) => ({ start, end, text: first })),
    ...reads.map(({ start, end }) => ({ start, end, text: second })),
    { start: loop.index.start, end: loop.index.end, text: `${first}, ${second}` },
    { start: place.start, end: place.end, text: `zip(${loop.items.text}, ${other.text})` },
  ].sort((a, b) => a.start - b.start);
  return [copy(match.nodes[0]!.start, match.nodes.at(-1)!.end, edits)];
}

const { rewrites, ignores, holds } = trialsIn("python");

export const pairs = rule({
  id: "python/pairs",
  kind: "idiom",
  title: "Walk two lists together with zip",
  why: "One index for two lists hides that they belong together.",
  was: walked({ index, items, body }),
  where: [
    ({ loop }) => loop.from === 0 && loop.positions !== undefined,
    (match) => /^[\p{L}_][\p{L}\p{N}_.]*$/u.test(match.textOf(items)),
    (match) => partnersIn(match) !== undefined,
  ],
  given: [
    condition("both lists have the same length", isAsLong),
    neverWritten(index, { in: body }),
    unchangedDuring(items, { during: body }),
    condition("the other list is not changed meanwhile", (match) => {
      const written = partnersIn(match)!.find(isTarget);
      return written
        ? no("flow.written", `\`${written.text}\` is written`, written)
        : isUnchanged(partnerOf(match), match.all(body));
    }),
    condition("nothing is looked up later", ({ loop }) => {
      const all = [...loop.lookUps, ...loop.others];
      const later = all.find((at) => loop.body.some((part) => part.holds(at) && runsLater(at, part)));
      return later
        ? no("resource.used-after", "an item is looked up in a function that may run later", later)
        : yes("resource.used-after", "all look-ups run in the loop");
    }),
    condition("the position is not used elsewhere", ({ loop, node }) =>
      loop.form !== "clause" &&
      (loop.outside.length > 0 || node.closest(["function_definition"]) === undefined)
        ? no("resource.used-after", `\`${loop.index.text}\` could be used behind the loop`, loop.index)
        : yes("resource.used-after", `\`${loop.index.text}\` is used in the loop only`),
    ),
  ],
  becomes: paired,
  trials: [
    rewrites(
      `
      def total(jars: list, weights: list):
          if len(jars) != len(weights):
              raise ValueError("not as many")
          n = 0
          for i in range(len(jars)):
              n = n + jars[i] * weights[i]
          return n
      `,
      `
      def total(jars: list, weights: list):
          if len(jars) != len(weights):
              raise ValueError("not as many")
          n = 0
          for jar, weight in zip(jars, weights):
              n = n + jar * weight
          return n
      `,
    ),
    rewrites(
      `
      def pairs(jars: list):
          weights = [0] * len(jars)
          return [(jars[i], weights[i]) for i in range(len(jars))]
      `,
      `
      def pairs(jars: list):
          weights = [0] * len(jars)
          return [(jar, weight) for jar, weight in zip(jars, weights)]
      `,
    ),
    rewrites(
      `
      def show(jars: list):
          lids = [jar.lid for jar in jars]
          for k in range(len(jars)):
              print(jars[k], lids[k])
      `,
      `
      def show(jars: list):
          lids = [jar.lid for jar in jars]
          for item, other in zip(jars, lids):
              print(item, other)
      `,
    ),
    // What happens between the test and the loop counts.
    holds(
      "def f(a: list, b: list):\n    assert len(a) == len(b)\n    a.append(1)\n    for i in range(len(a)):\n        print(a[i], b[i])\n",
      "could be shorter",
    ),
    rewrites(
      "def f(a: list, b: list):\n    assert len(a) == len(b)\n    g(b)\n    for i in range(len(a)):\n        print(a[i], b[i])\n",
      "def f(a: list, b: list):\n    assert len(a) == len(b)\n    g(b)\n    for item, other in zip(a, b):\n        print(item, other)\n",
      "likely",
    ),
    holds(
      "def f(a: list, b: list):\n    for i in range(len(a)):\n        print(a[i], b[i])\n",
      "could be shorter",
    ),
    holds(
      "def f(a: list):\n    b = [x for x in a if x]\n    for i in range(len(a)):\n        print(a[i], b[i])\n",
      "could be shorter",
    ),
    holds(
      "def f(a: list):\n    b = list(a)\n    b.append(1)\n    for i in range(len(a)):\n        print(a[i], b[i])\n",
      "could be shorter",
    ),
    holds(
      "def f(a: list):\n    b = list(a)\n    for i in range(len(a)):\n        b[i] = a[i]\n",
      "is written",
    ),
    ignores("def f(a: list, b: list):\n    for i in range(len(a)):\n        print(i, a[i], b[i])\n"),
    ignores(
      "def f(a: list, b: list, c: list):\n    for i in range(len(a)):\n        print(a[i], b[i], c[i])\n",
    ),
    ignores("def f(a: list, b: list):\n    for i in range(len(a)):\n        print(a[i], b[i + 1])\n"),
  ],
});
