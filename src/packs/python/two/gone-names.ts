import { holes, nameInFile, ofKind, rule, text, trialsIn } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";

/** Names that Python 2 had, and what does the same in Python 3. */
const NAMES: Readonly<Record<string, string>> = {
  basestring: "str",
  long: "int",
  raw_input: "input",
  unichr: "chr",
  unicode: "str",
  xrange: "range",
};

const { name } = holes({
  name: { kind: "name", node: "identifier" },
});

/** Does nothing in the file give the name a meaning, nor stand ready for it to have none? */
function isGone(node: SyntaxNode): boolean {
  if (!Object.hasOwn(NAMES, node.text)) return false;
  const { declarations, references } = nameInFile(node.text, node.tree);
  if (declarations.length > 0 || references.some((one) => one.unknown !== undefined && !one.member))
    return false;
  const use = references.find((one) => one.node.same(node));
  if (!use || use.member || use.named || use.does !== "read") return false;
  const around = node.closest(["try_statement"]);
  return (
    !(around && /except[^\n]*(NameError|:\s*$)/m.test(around.text)) &&
    !/\bPY[23]\b|version_info/.test(node.tree.text)
  );
}

const { rewrites, ignores } = trialsIn("python");

export const goneNames = rule({
  id: "python/gone-names",
  kind: "breaks",
  title: "Use the names that Python 3 has",
  why: "The old ones are gone, and code that comes to one of them fails.",
  was: ofKind(name, { when: isGone }),
  mentions: Object.keys(NAMES),
  target: "3",
  becomes: (match) => [text(NAMES[match.textOf(name)]!)],
  trials: [
    rewrites("for i in xrange(3):\n    f(i)\n", "for i in range(3):\n    f(i)\n"),
    rewrites(
      "s = unicode(x)\nis_text = isinstance(x, basestring)\n",
      "s = str(x)\nis_text = isinstance(x, str)\n",
    ),
    rewrites('name = raw_input("who? ")\n', 'name = input("who? ")\n'),
    ignores("from six.moves import xrange\nfor i in xrange(3):\n    f(i)\n"),
    ignores("try:\n    xrange\nexcept NameError:\n    xrange = range\n"),
    ignores("hive.unicode = 1\nf(long=2)\n"),
    ignores("import sys\nif sys.version_info[0] == 2:\n    text = unicode\n"),
    ignores("def f(long):\n    return long\n"),
  ],
});
