import {
  condition,
  copy,
  functionAround,
  holes,
  isSideEffectFree,
  isWrittenBetween,
  no,
  ofKind,
  referencesAt,
} from "../../../core.js";
import { referencesOf, rule, text, textAt, trialsIn, typeOf, unknown, weakest, yes } from "../../../core.js";
import type { Answer, Declaration, Match, Segment, SyntaxNode } from "../../../core.js";

const { early } = holes({ early: { kind: "statement", node: "expression_statement" } });

/** As many statements between a definition and its first use are too many to keep in mind. */
const APART = 3;

/** A variable that is defined, and the statement of its block that is the first to use it. */
interface Early {
  readonly value: SyntaxNode;
  readonly name: SyntaxNode;
  readonly to: Declaration;
  readonly between: readonly SyntaxNode[];
  readonly use: SyntaxNode;
}

function earlyAt(node: SyntaxNode): Early | undefined {
  const assignment = node.firstPart;
  const name = assignment?.is("assignment") ? assignment.child("left") : undefined;
  const value = assignment?.child("right");
  const block = node.parent;
  if (!name?.is("identifier") || !value || !block?.is("block") || !functionAround(node)) return undefined;
  const to = referencesAt(name).find((one) => one.to)?.to;
  if (!to || to.as === "parameter") return undefined;
  const uses = referencesOf(to).filter((one) => !one.node.same(name));
  const [first] = uses;
  const isLocal = uses.every(
    ({ node: use, does, captured }) => does === "read" && !captured && block.holds(use),
  );
  if (!first || !isLocal || first.node.start < node.end) return undefined;
  const rest = block.parts.filter((part) => part.start >= node.end);
  const index = rest.findIndex((part) => part.holds(first.node));
  return index >= APART ? { value, name, to, between: rest.slice(0, index), use: rest[index]! } : undefined;
}

const foundIn = (match: Match): Early => earlyAt(match.the(early))!;

/** Values that nothing changes in place. */
const FIXED: ReadonlySet<string> = new Set(["int", "float", "str", "bool", "bytes", "tuple", "None"]);

/** Is nothing that the value is worked out of changed on the way? */
function isSameThere(match: Match): Answer {
  const node = match.the(early);
  const { value, between, use } = foundIn(match);
  const called = between.flatMap((one) => [...one.descendants()]).find((one) => one.is("call"));
  const answers = [...value.descendants()].flatMap((one): Answer[] => {
    if (one.is(["attribute", "subscript"]))
      return called
        ? [unknown("flow.written", `\`${called.text.split("\n")[0]}\` could change \`${one.text}\``, called)]
        : [];
    if (!one.is("identifier") || one.field === "attribute") return [];
    const to = referencesAt(one).find((reference) => reference.to)?.to;
    if (!to) return [unknown("name.not-resolved", `what declares \`${one.text}\` is not known`, one)];
    const written = isWrittenBetween(to, node, use);
    if (written.is === "yes") return [no("flow.written", written.evidence.says, written.evidence)];
    if (written.is === "unknown") return [written];
    const isFixed = value.same(one) || FIXED.has(typeOf(one)?.name ?? "") || !called;
    return isFixed
      ? []
      : [
          unknown(
            "flow.written",
            `\`${called.text.split("\n")[0]}\` could change what \`${one.text}\` holds`,
            called,
          ),
        ];
  });
  const [first, ...rest] = answers;
  return first
    ? weakest([first, ...rest])
    : yes("flow.written", "nothing that goes into the value changes on the way");
}

function moved(match: Match): Segment[] {
  const node = match.the(early);
  const { between, use } = foundIn(match);
  const { tree } = node;
  const indent = tree.indentAt(use.start);
  const [first, last] = [between[0]!, between.at(-1)!];
  return [
    copy(first.start, last.end),
    text(tree.text.slice(last.end, use.start)),
    text(`${textAt(tree, node, indent)}\n${indent}`),
    copy(use.start, use.end),
  ];
}

const { rewrites, holds, ignores } = trialsIn("python");

export const lateDefinition = rule({
  id: "python/late-definition",
  kind: "idiom",
  title: "Define a variable where it is first used",
  why: "The reader keeps a value in mind that nothing needs for a long while.",
  taste: true,
  was: ofKind(early, {
    when: (node) => earlyAt(node) !== undefined,
    together: (node) => {
      const { between, use } = earlyAt(node)!;
      return [node, ...between, use];
    },
  }),
  mentions: ["="],
  given: [
    condition("working the value out does nothing else", (match) => isSideEffectFree(foundIn(match).value)),
    condition("it would be the same value there", isSameThere),
    condition("the first use runs whenever the definition did", (match) => {
      const { value, between } = foundIn(match);
      const isLiteral = value.is(["integer", "float", "string", "true", "false", "none"]);
      return isLiteral
        ? yes("flow.throws", "the value cannot fail")
        : unknown(
            "flow.throws",
            `where \`${value.text.split("\n")[0]}\` fails, it does so later`,
            between[0],
          );
    }),
    condition("no comment belongs to one of the two", (match) => {
      const node = match.the(early);
      const { between, use } = foundIn(match);
      const { tree } = use;
      const above = tree.text.slice(node.previousPart?.end ?? node.parent!.start, node.start);
      const gap = tree.text.slice(between.at(-1)!.end, use.start);
      const said = gap.includes("#") ? use : above.includes("#") ? node : undefined;
      return said
        ? no("form.fits", "a comment stands above, and would stand above something else", said)
        : yes("form.fits", "no comment belongs to one of the two");
    }),
  ],
  becomes: moved,
  trials: [
    rewrites(
      "def f(a):\n    limit = 3\n    b = g(a)\n    h(b)\n    log(b)\n    if b > limit:\n        h(limit)\n    return b\n",
      "def f(a):\n    b = g(a)\n    h(b)\n    log(b)\n    limit = 3\n    if b > limit:\n        h(limit)\n    return b\n",
    ),
    rewrites(
      "def f(a):\n    n = a + 1\n    g()\n    h()\n\n    log()\n    return n\n",
      "def f(a):\n    g()\n    h()\n\n    log()\n    n = a + 1\n    return n\n",
      "likely",
    ),
    holds("def f(a):\n    n = a + 1\n    g()\n    a = 2\n    log()\n    return n\n", "`a`"),
    holds("def f(a):\n    n = g()\n    g()\n    h()\n    log()\n    return n\n", "calls something"),
    holds(
      "def f(a):\n    g()\n    # so many\n    n = 1\n    g()\n    h()\n    log()\n    return n\n",
      "comment",
    ),
    holds("def f(a):\n    n = 1\n    g()\n    h()\n    log()\n    # all\n    return n\n", "comment"),
    ignores("def f(a):\n    n = 1\n    g()\n    return n\n"),
    ignores("def f(a):\n    n = 1\n    g()\n    h()\n    n = 2\n    log()\n    return n\n"),
    ignores("def f(a):\n    n = 1\n    g()\n    h()\n    log()\n    return lambda: n\n"),
    ignores("n = 1\ng()\nh()\nlog()\nh(n)\n"),
  ],
});
