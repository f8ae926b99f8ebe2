import {
  caution,
  condition,
  copy,
  exitsOf,
  functionAround,
  holes,
  isDefinedInProject,
  isValueSeen,
  jumpOf,
  mentionsOf,
  no,
  oneOrMany,
  referencesAt,
  rule,
  sameCode,
  shortened,
  text,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../core.js";
import { withoutParentheses } from "../family/parentheses.js";
import { isNeverFalse, isOfLanguage, isReadTwice } from "./values.js";

const { value } = holes({ value: "expression" });

/** The list that all cases become, with what is done with each of its items. */
interface Path {
  /** What stands behind the list: `.each { |x| … }`; nothing where the list itself is what is wanted. */
  readonly walk: { readonly start: number; readonly end: number } | undefined;
  /** What is done with a single thing, where it is more than to put it into a list. */
  readonly body: readonly SyntaxNode[];
}

const NO_PATH = "a list, a single thing and nil are not treated alike";

/** The one path that all cases can take; the reason where there is none. */
function pathOf({ oneOrMany: { subject, values, done, tellsNone, isThere } }: Match): Path | string {
  if (!values) {
    const [walk, ...more] = done.many;
    const isNothing = done.none.every(({ text: code }) => code === "nil");
    if (!walk || more.length > 0) return NO_PATH;
    if (tellsNone && !isThere && !isNothing) return "something is done for nil";
    if (!tellsNone && !isThere) return "nil is treated like a single thing";
    return isDoneAlike(walk, subject, done.one) ? { walk: behind(walk, subject), body: done.one } : NO_PATH;
  }
  const { many, one, none } = values;
  const inner = onlyItem(one);
  if (!inner) return NO_PATH;
  const isEmpty = tellsNone ? /^(?:\[\s*\]|Array\.new)$/.test(none.text) : sameCode(none, one);
  if (!isEmpty && !isThere) return `\`${shortened(none.text)}\` is given for nil, and not an empty list`;
  if (sameCode(withoutParentheses(many), subject))
    return sameCode(withoutParentheses(inner), subject) ? { walk: undefined, body: [] } : NO_PATH;
  const isMapped = /^(?:map|collect)$/.test(many.child("method")?.text ?? "") && (tellsNone || isThere);
  return isMapped && isDoneAlike(many, subject, [inner])
    ? { walk: behind(many, subject), body: [inner] }
    : NO_PATH;
}

/** What is written behind what is walked. */
const behind = (walk: SyntaxNode, subject: SyntaxNode): { start: number; end: number } => ({
  start: walk.start + subject.text.length,
  end: walk.end,
});

/** `[x]`: the only item of a list. */
function onlyItem(list: SyntaxNode): SyntaxNode | undefined {
  const [only, ...more] = list.is("array") ? list.parts : [];
  return only && more.length === 0 && !only.is(["splat_argument", "pair"]) ? only : undefined;
}

/** Is the same done with a single thing as a walk does with each item? */
function isDoneAlike(walk: SyntaxNode, subject: SyntaxNode, one: readonly SyntaxNode[]): boolean {
  const block = walk.child("block");
  const [item, ...more] = block?.child("parameters")?.parts ?? [];
  const body = block?.child("body");
  if (!walk.text.startsWith(subject.text) || !body || !item?.is("identifier") || more.length > 0)
    return false;
  if (body.mentions(subject.text).length > 0) return false;
  // `lot = lots; weigh(lot)`.
  const [first, ...rest] = one;
  const isNamed = first?.is("assignment") && first.text.replace(/\s/g, "") === `${item.text}=${subject.text}`;
  if (isNamed) return isSame(wordsOf(body.parts), wordsOf(rest));
  const items = mentionsOf(body, item.text).filter((node) => node.is("identifier"));
  const replaced = leavesOf(body.parts).flatMap((leaf) =>
    items.some((node) => node.same(leaf)) ? wordsOf([subject]) : [leaf.text],
  );
  return isSame(replaced, wordsOf(one));
}

const leavesOf = (code: readonly SyntaxNode[]): SyntaxNode[] =>
  code.flatMap((part) => [...part.descendants()]).filter(({ isLeaf }) => isLeaf);

const wordsOf = (code: readonly SyntaxNode[]): string[] => leavesOf(code).map(({ text: word }) => word);

const isSame = (one: readonly string[], other: readonly string[]): boolean =>
  one.length === other.length && one.every((word, i) => word === other[i]);

/** Classes of things that `Array()` leaves as they are, or makes a list of. */
const PLAIN = ["Array", "String", "NilClass", "Integer", "Symbol"];

/** Is it something else, which `Array()` takes apart? */
function isTakenApart(match: Match): Answer {
  const type = typeOf(match.the(value));
  const name = shortened(match.textOf(value));
  if (!type)
    return unknown(
      "value.kind",
      `\`${name}\` could be a hash, which \`Array()\` turns into pairs`,
      match.node,
    );
  const isOwn = type.declared !== undefined || isDefinedInProject(type.name, match.tree) !== undefined;
  return !isOwn && PLAIN.includes(type.name)
    ? yes("value.kind", type.why, type.at)
    : no("value.kind", `${type.why}, which \`Array()\` takes apart`, type.at);
}

/** `x = [x] unless x.is_a?(Array)` makes a new variable where there is none, and the `x` in it is nil. */
function isThere(match: Match): Answer {
  const node = match.the(value);
  const to = referencesAt(node).find((one) => one.to)?.to;
  const isMade = to !== undefined && to.as === "local" && to.at[0]!.start >= match.found.start;
  return isMade
    ? no("flow.assigned", `\`${node.text}\` has no value before this`, node)
    : yes("flow.assigned", "it has its value before this");
}

/** What is done with a single thing becomes the body of a block. */
function mayBeBlock(match: Match): Answer {
  const path = pathOf(match);
  const body = typeof path === "string" ? [] : path.body;
  const jump = exitsOf(body).find((exit) => ["break", "continue", "anywhere"].includes(jumpOf(exit) ?? ""));
  if (jump) return no("name.scope", `\`${jump.text}\` would end the block and not the loop around it`, jump);
  const named = body
    .flatMap((part) => [...part.descendants()])
    .flatMap((node) => (node.is("assignment") ? [node.child("left")!] : []));
  const around = functionAround(match.node) ?? match.tree.root;
  for (const name of named) {
    const use = around.mentions(name.text).find((one) => one.start >= match.found.end);
    if (use) return no("name.scope", `\`${use.text}\` is used behind what becomes a block`, use);
  }
  return yes("name.scope", "what is named in the block is used only there");
}

/** What a walk comes to is the list, whatever came of the single thing. */
function isUnseen({ node, oneOrMany: { values, done } }: Match): Answer {
  if (values || !isValueSeen(node)) return yes("value.result", "what it comes to is the same, or not used");
  return unknown(
    "value.result",
    `what comes of \`${shortened(done.one[0]?.text ?? "")}\` is given otherwise`,
    node,
  );
}

/** Nothing that was put into a list as one thing is left out from now on. */
function tellsNone(match: Match): Answer {
  const { oneOrMany: found } = match;
  const name = shortened(match.textOf(value));
  if (found.isThere) return yes("value.null", "the code above makes sure that it is not nil");
  if (found.tellsNone) return yes("value.null", "nil is treated apart from a single thing");
  const type = typeOf(match.the(value));
  return type && type.name !== "NilClass"
    ? yes("value.null", type.why, type.at)
    : unknown(
        "value.null",
        `\`${name}\` could be nil, which came to \`[nil]\` and comes to \`[]\``,
        match.node,
      );
}

const { rewrites, ignores, holds } = trialsIn("ruby");

export const asList = rule({
  id: "ruby/as-list",
  kind: "idiom",
  title: "Use Array() to make a list of one value or several",
  why: "One path for a list, one for a single thing and one for nothing say the same thing three times.",
  was: oneOrMany(value),
  given: [
    condition("all cases can take one path", (match) => {
      const path = pathOf(match);
      return typeof path === "string"
        ? no("form.fits", path, match.node)
        : yes("form.fits", "a list, a single thing and nil are treated alike");
    }),
    condition("`Array()` is the one of the language", (match) => isOfLanguage("Array", match.node)),
    condition("it has its value before this", isThere),
    condition("evaluating the value once makes no difference", (match) => isReadTwice(match.the(value))),
    condition("what becomes a block stands by itself", mayBeBlock),
    condition("what it comes to is not used", isUnseen),
    condition("the value is never false", (match) => isNeverFalse(match.the(value)), {
      when: ({ oneOrMany: { byTruth } }) => byTruth,
    }),
    condition("the value is a list, nothing, or one thing that is no hash", isTakenApart),
    condition("nil gives the same list", tellsNone, { unknownIs: "possible" }),
  ],
  cautions: (match) => {
    const name = shortened(match.textOf(value));
    return isTakenApart(match).is === "yes"
      ? []
      : [
          caution(
            "value.kind",
            `when \`${name}\` is a hash, the old code took it for one thing and the new one for a list of pairs`,
          ),
        ];
  },
  becomes: (match): Segment[] => {
    const { start, end } = match.the(value);
    const path = pathOf(match);
    const walk = typeof path === "string" ? undefined : path.walk;
    return [text("Array("), copy(start, end), text(")"), ...(walk ? [copy(walk.start, walk.end)] : [])];
  },
  trials: [
    holds("def f\n  return if x.nil?\n  x = [x] unless x.is_a?(Array)\n  g(x)\nend\n", "has no value before"),
    rewrites(
      "def f(x)\n  x.nil? ? [] : (x.is_a?(Array) ? x : [x])\nend\n",
      "def f(x)\n  Array(x)\nend\n",
      "likely",
    ),
    rewrites(
      "def f(x)\n  x.is_a?(Array) ? x : (x.nil? ? [] : [x])\nend\n",
      "def f(x)\n  Array(x)\nend\n",
      "likely",
    ),
    rewrites("x = 'a'\ny = x.is_a?(Array) ? x : (x.nil? ? [] : [x])\n", "x = 'a'\ny = Array(x)\n"),
    rewrites(
      `
      def f(lots)
        if lots.is_a?(Array)
          lots.each do |lot|
            weigh(lot)
          end
        elsif lots
          lot = lots
          weigh(lot)
        end
      end
      `,
      `
      def f(lots)
        Array(lots).each do |lot|
          weigh(lot)
        end
      end
      `,
      "likely",
    ),
    rewrites(
      "def f(x)\n  return [] if x.nil?\n  return x if x.kind_of?(Array)\n  [x]\nend\n",
      "def f(x)\n  Array(x)\nend\n",
      "likely",
    ),
    rewrites(
      "def f(x)\n  if x.is_a?(Array)\n    x\n  elsif x == nil\n    []\n  else\n    [x]\n  end\nend\n",
      "def f(x)\n  Array(x)\nend\n",
      "likely",
    ),
    rewrites(
      "def f(x)\n  case x\n  when Array then x\n  when nil then []\n  else [x]\n  end\nend\n",
      "def f(x)\n  Array(x)\nend\n",
      "likely",
    ),
    rewrites(
      "def f(x)\n  all =\n    case x\n    when NilClass\n      []\n    when Array\n      x\n    else\n      [x]\n    end\n  g(all)\nend\n",
      "def f(x)\n  all =\n    Array(x)\n  g(all)\nend\n",
      "likely",
    ),
    rewrites(
      "def f(x)\n  if x.nil?\n    all = []\n  elsif !x.is_a?(Array)\n    all = [x]\n  else\n    all = x\n  end\n  g(all)\nend\n",
      "def f(x)\n  all = Array(x)\n  g(all)\nend\n",
      "likely",
    ),
    rewrites(
      "def f(x)\n  unless x.nil?\n    return Array === x ? x : [x]\n  end\n  return []\nend\n",
      "def f(x)\n  return Array(x)\nend\n",
      "likely",
    ),
    rewrites(
      "def f(x)\n  names = x.is_a?(Array) ? x.map { |one| one.name } : x.nil? ? [] : [x.name]\n  g(names)\nend\n",
      "def f(x)\n  names = Array(x).map { |one| one.name }\n  g(names)\nend\n",
      "likely",
    ),
    rewrites(
      "def f(hives)\n  case hives\n  when Array then hives.each { |hive| puts hive.name }\n  when nil then nil\n  else puts hives.name\n  end\n  g\nend\n",
      "def f(hives)\n  Array(hives).each { |hive| puts hive.name }\n  g\nend\n",
      "likely",
    ),
    rewrites(
      "def f(hives)\n  if hives.is_a?(Array)\n    hives.each { |hive| puts hive }\n  elsif hives.nil?\n    # nothing to do\n  else\n    puts hives\n  end\n  g\nend\n",
      "def f(hives)\n  # nothing to do\n  Array(hives).each { |hive| puts hive }\n  g\nend\n",
      "likely",
    ),
    // What the method gives is hardly meant.
    rewrites(
      "def f(keepers)\n  case keepers\n  when Array then keepers.each { |k| mail(k) }\n  when nil then nil\n  else mail(keepers)\n  end\nend\n",
      "def f(keepers)\n  Array(keepers).each { |k| mail(k) }\nend\n",
      "likely",
    ),
    // Nothing came to `[nil]` here.
    rewrites(
      "def f(x)\n  x = [x] unless x.is_a?(Array)\n  x.each { |one| g(one) }\nend\n",
      "def f(x)\n  x = Array(x)\n  x.each { |one| g(one) }\nend\n",
      "possible",
    ),
    rewrites("x = 'a'\ny = x.is_a?(Array) ? x : [x]\n", "x = 'a'\ny = Array(x)\n"),
    rewrites("y = x.is_a?(Array) ? x : [x]\n", "y = Array(x)\n", "possible"),
    // Nothing is left as it is.
    holds("def f(x)\n  return x if x.nil? || x.is_a?(Array)\n  [x]\nend\n", "not an empty list"),
    holds("def f(x)\n  x.is_a?(Array) ? x : (x.nil? ? nil : [x])\nend\n", "not an empty list"),
    holds(
      "def f(x)\n  if x.is_a?(Array)\n    x.each { |one| g(one) }\n  elsif x.nil?\n    h\n  else\n    g(x)\n  end\n  i\nend\n",
      "something is done for nil",
    ),
    holds(
      "def f(x)\n  if x.is_a?(Array)\n    x.each { |one| g(one) }\n  else\n    g(x)\n  end\n  i\nend\n",
      "nil is treated like a single thing",
    ),
    holds(
      "def f(x)\n  if x.is_a?(Array)\n    x.each { |one| g(one) }\n  elsif x\n    h(x)\n  end\n  i\nend\n",
      "not treated alike",
    ),
    holds(
      "def f(x)\n  x.is_a?(Array) ? x.select { |one| one.old? } : (x.nil? ? [] : [x])\nend\n",
      "not treated alike",
    ),
    // It goes on with another item, and not with another part of the list.
    ignores(
      "def f(xs)\n  xs.each do |x|\n    if x.is_a?(Array)\n      x.each { |one| next if one.old? }\n    elsif x\n      next if x.old?\n    end\n    g\n  end\nend\n",
    ),
    rewrites(
      "def f(x)\n  return if x.nil?\n  x = [x] unless x.is_a?(Array)\n  g(x)\nend\n",
      "def f(x)\n  return if x.nil?\n  x = Array(x)\n  g(x)\nend\n",
      "likely",
    ),
    // There is nothing behind this guard.
    rewrites(
      "def f(x)\n  return g(x) if x\n  x = [x] unless x.is_a?(Array)\n  g(x)\nend\n",
      "def f(x)\n  return g(x) if x\n  x = Array(x)\n  g(x)\nend\n",
      "possible",
    ),
    rewrites(
      "def f(x)\n  if x\n    all = x.is_a?(Array) ? x : [x]\n    g(all)\n  end\nend\n",
      "def f(x)\n  if x\n    all = Array(x)\n    g(all)\n  end\nend\n",
      "likely",
    ),
    // A text is no name.
    holds(
      'def f(lots)\n  if lots.is_a?(Array)\n    lots.each { |lot| puts "lot" }\n  elsif lots.nil?\n    nil\n  else\n    puts "lots"\n  end\n  g\nend\n',
      "not treated alike",
    ),
    holds("x = { a: 1 }\ny = x.is_a?(Array) ? x : (x.nil? ? [] : [x])\n", "takes apart"),
    holds("y = g(1).is_a?(Array) ? g(1) : (g(1).nil? ? [] : [g(1)])\n", "once instead of twice"),
    holds("y = x.is_a?(Array) ? x : [y]\n", "not treated alike"),
    ignores("y = x.is_a?(Hash) ? x : (x.nil? ? [] : [x])\n"),
  ],
});
