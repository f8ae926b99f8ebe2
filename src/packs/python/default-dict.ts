import {
  condition,
  everyUseOf,
  functionAround,
  holes,
  need,
  no,
  python,
  rule,
  Snippet,
  trialsIn,
  unknown,
  use,
  usesOf,
  yes,
} from "../../core.js";
import { declarationOfHole } from "../../core.js";
import type { Answer, Match, SyntaxNode } from "../../core.js";

const { dict, key, what, empty } = holes({
  dict: "name",
  key: "expression",
  what: "expression",
  empty: { kind: "expression", text: /^(\[\]|\{\}|0|set\(\))$/ },
});

const FACTORIES: Readonly<Record<string, string>> = {
  "[]": "list",
  "{}": "dict",
  "0": "int",
  "set()": "set",
};

/** What is put in for a missing key, wherever that is done; undefined where it is not the same everywhere. */
function filledWith(match: Match): string | undefined {
  const to = declarationOfHole(match, dict);
  const found = new Set<string>();
  for (const { node } of to ? usesOf(to).references : []) {
    const branch = node.closest(["if_statement"]);
    const test = branch?.child("condition");
    if (!branch || !test?.holds(node) || !/\bnot in\b/.test(test.text)) continue;
    const put = /=\s*(\[\]|\{\}|0|set\(\))\s*$/.exec(branch.text)?.[1];
    if (put === undefined) return undefined;
    found.add(put);
  }
  return found.size === 1 ? [...found][0] : undefined;
}

/** Is each item that something is done with filled in by the statement right before? A missing one failed, and is made now. */
function isFilledBefore(match: Match): Answer {
  const to = declarationOfHole(match, dict);
  for (const { node } of to ? usesOf(to).references : []) {
    const item = node.parent;
    if (!item?.is("subscript") || !item.child("value")?.same(node)) continue;
    const branch = item.closest(["if_statement"]);
    if (branch && /\bnot in\b/.test(branch.child("condition")?.text ?? "")) continue;
    let statement: SyntaxNode = item;
    while (statement.parent && !statement.parent.is(["block", "module"])) statement = statement.parent;
    const before = statement.parent?.parts.filter((part) => part.end <= statement.start).at(-1);
    const test = before?.is("if_statement") ? before.child("condition") : undefined;
    const key = item.child("subscript")?.text ?? "";
    const isFilled = test?.text.replace(/\s+/g, " ") === `${key} not in ${node.text}`;
    if (!isFilled)
      return unknown(
        "value.which-missing",
        `where \`${item.text}\` is missing, the old code failed and the new one makes it`,
        item,
      );
  }
  return yes("value.which-missing", "each was filled in by the statement before");
}

const { rewrites, holds, ignores } = trialsIn("python");

export const defaultDict = rule({
  id: "python/default-dict",
  kind: "idiom",
  title: "Use a defaultdict to fill in missing values",
  why: "The same test for a missing key stands in front of every use.",
  taste: true,
  was: python`${dict} = {}`,
  where: [(match) => functionAround(match.node) !== undefined, (match) => filledWith(match) !== undefined],
  given: [
    condition("every item that is used was filled in before", isFilledBefore),
    condition("the same is put in everywhere", (match) =>
      filledWith(match) === undefined
        ? no("value.which-missing", "different things are put in")
        : yes("value.which-missing", "the same is put in everywhere"),
    ),
  ],
  uses: everyUseOf(dict, [
    use(python`
      if ${key} not in ${dict}:
          ${dict}[${key}] = ${empty}
    `)
      .around()
      .goes(),
    use(python`${dict}[${key}].append(${what})`).stays(),
    use(python`${dict}[${key}].add(${what})`).stays(),
    use(python`${dict}[${key}].extend(${what})`).stays(),
    use(python`${dict}[${key}] += ${what}`).stays(),
    use(python`${dict}.items()`).stays(),
    use(python`${dict}.values()`).stays(),
    use(python`${dict}.keys()`).stays(),
    use(python`${dict}.get(${key})`).stays(),
    use(python`${key} in ${dict}`).stays(),
    use(python`len(${dict})`).stays(),
    use(python`sorted(${dict})`).stays(),
    use(python`dict(${dict})`).stays(),
    use(python`return ${dict}`).becomes(python`return dict(${dict})`),
  ]),
  becomes: (match) =>
    new Snippet(
      "python",
      ["", " = ", `(${FACTORIES[filledWith(match)!]})`],
      [dict, need("collections", "defaultdict")],
    ),
  trials: [
    rewrites(
      `
      def by_lot(jars):
          lots = {}
          for jar in jars:
              if jar.lot not in lots:
                  lots[jar.lot] = []
              lots[jar.lot].append(jar)
          return lots
      `,
      `
      from collections import defaultdict

      def by_lot(jars):
          lots = defaultdict(list)
          for jar in jars:
              lots[jar.lot].append(jar)
          return dict(lots)
      `,
    ),
    rewrites(
      `
      def count(jars):
          seen = {}
          for jar in jars:
              if jar not in seen:
                  seen[jar] = 0
              seen[jar] += 1
          print(sorted(seen), len(seen))
      `,
      `
      from collections import defaultdict

      def count(jars):
          seen = defaultdict(int)
          for jar in jars:
              seen[jar] += 1
          print(sorted(seen), len(seen))
      `,
    ),
    holds(
      `
      def f(jars):
          d = {}
          for j in jars:
              if j not in d:
                  d[j] = []
              d[j].append(1)
          keep(d)
      `,
      "does not know",
    ),
    // Reading what is missing would fill it in.
    holds(
      `
      def f(jars):
          d = {}
          if jars not in d:
              d[jars] = 0
          return d[1]
      `,
      "does not know",
    ),
    ignores("def f(j):\n    d = {}\n    if j not in d:\n        d[j] = read(j)\n"),
    ignores(
      "def f(j):\n    d = {}\n    if j not in d:\n        d[j] = []\n    if 1 not in d:\n        d[1] = 0\n",
    ),
    ignores("d = {}\nif j not in d:\n    d[j] = []\n"),
    ignores("def f(j):\n    d = {}\n    d[j] = []\n"),
  ],
});
