import {
  condition,
  copy,
  functionAround,
  holes,
  nameInFile,
  no,
  ofKind,
  rule,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";

const { clause } = holes({ clause: { kind: "statement", node: "except_clause" } });

/** What is caught, and the name that it is given: `except IOError, error`. */
function partsOf(node: SyntaxNode): { type: SyntaxNode; name: SyntaxNode } | undefined {
  const [type, name, body, ...more] = node.parts.filter((part) => !part.is("comment"));
  const isOld =
    /^except\b[^\n]*,/.test(node.text) && name?.is("identifier") && body?.is("block") && more.length === 0;
  return type && name && isOld ? { type, name } : undefined;
}

const partsIn = (match: Match): { type: SyntaxNode; name: SyntaxNode } => partsOf(match.the(clause))!;

/** Newer versions take two names side by side for two classes. */
function isName(match: Match): Answer {
  const { name } = partsIn(match);
  const code = "name.other-uses";
  if (/^_*\p{Lu}/u.test(name.text))
    return no(code, `\`${name.text}\` may be a class that is caught as well`, name);
  const { declarations } = nameInFile(name.text, name.tree);
  const other = declarations.find(({ as }) => ["class", "import"].includes(as));
  return other
    ? no(code, `\`${name.text}\` may be a class that is caught as well`, other.at[0]!)
    : yes(code, `\`${name.text}\` is a name for what is caught`, name);
}

/** Python 3 forgets the name at the end of the handler. */
function isUsedInside(match: Match): Answer {
  const { name } = partsIn(match);
  const code = "resource.used-after";
  const node = match.the(clause);
  const around = functionAround(node) ?? node.tree.root;
  const behind = around.mentions(name.text).find((use) => {
    // Ahead of the handler too: a loop may come there again.
    if (node.holds(use)) return false;
    const own = use.closest(["except_clause"]);
    return !own || partsOf(own)?.name.text !== name.text;
  });
  if (behind)
    return unknown(
      code,
      `\`${name.text}\` is used outside of the handler, at whose end Python 3 forgets it`,
      behind,
    );
  return yes(code, `\`${name.text}\` is used in the handler only`, name);
}

function withAs(match: Match): Segment[] {
  const node = match.the(clause);
  const { type, name } = partsIn(match);
  const edits = [{ start: type.end, end: name.start, text: " as " }];
  return [copy(node.start, node.end, edits)];
}

const { rewrites, ignores, holds } = trialsIn("python");

export const caughtAs = rule({
  id: "python/caught-as",
  kind: "breaks",
  title: "Name what is caught with as",
  why: "Python 3 takes the comma for a mistake, and Python 3.14 for a second class.",
  was: ofKind(clause, { when: (node) => partsOf(node) !== undefined }),
  mentions: ["except"],
  target: "2.6",
  given: [
    condition("it is a name, and no second class", isName),
    condition("the name is used in the handler only", isUsedInside),
  ],
  becomes: withAs,
  trials: [
    rewrites(
      "try:\n    f()\nexcept IOError, error:\n    print(error)\nexcept (A, B), error:\n    g(error)  # both\n",
      "try:\n    f()\nexcept IOError as error:\n    print(error)\nexcept (A, B) as error:\n    g(error)  # both\n",
    ),
    rewrites(
      "def f():\n    try:\n        g()\n    except E, e:\n        pass\n    return e\n",
      "def f():\n    try:\n        g()\n    except E as e:\n        pass\n    return e\n",
      "likely",
    ),
    rewrites(
      "try:\n    f()\nexcept hive.Lost, why:  # often\n    # said once\n    g(why)\n\n    h()\n",
      "try:\n    f()\nexcept hive.Lost as why:  # often\n    # said once\n    g(why)\n\n    h()\n",
    ),
    rewrites(
      "def f():\n    e = None\n    while e is None:\n        try:\n            g()\n        except E, e:\n            pass\n",
      "def f():\n    e = None\n    while e is None:\n        try:\n            g()\n        except E as e:\n            pass\n",
      "likely",
    ),
    holds("try:\n    f()\nexcept IOError, OSError:\n    pass\n", "may be a class"),
    holds("from hive import swarm\ntry:\n    f()\nexcept E, swarm:\n    pass\n", "may be a class"),
    ignores("try:\n    f()\nexcept (A, B):\n    pass\n"),
    ignores("try:\n    f()\nexcept A as e:\n    pass\n"),
    ignores("try:\n    f()\nexcept:\n    pass\n"),
  ],
});
