import {
  compile,
  condition,
  copy,
  csharp,
  holes,
  isSideEffectFree,
  isTypeOfTrait,
  matchOneAt,
  operatorOf,
  presenceOf,
  rule,
  sameCode,
  shortened,
  text as newText,
  trialsIn,
  typeOf,
  unknown,
  unnegated,
  weakest,
  yes,
} from "../../core.js";
import type { Answer, KnownType, Match, SyntaxNode } from "../../core.js";
import { bareTypeOf } from "./member-types.js";

const { first, second, text } = holes({ first: "expression", second: "expression", text: "expression" });

/** What asks for being empty; after it, what asks for the opposite. */
const EMPTY = [
  csharp.expression`${text} == ""`,
  csharp.expression`${text} == string.Empty`,
  csharp.expression`${text} == String.Empty`,
  csharp.expression`${text}.Length == 0`,
  csharp.expression`${text}.Equals("")`,
  csharp.expression`${text}.Equals(string.Empty)`,
];
const FULL = [
  csharp.expression`${text} != ""`,
  csharp.expression`${text} != string.Empty`,
  csharp.expression`${text} != String.Empty`,
  csharp.expression`${text}.Length != 0`,
  csharp.expression`${text}.Length > 0`,
  csharp.expression`!${text}.Equals("")`,
  csharp.expression`!${text}.Equals(string.Empty)`,
];
const OR = 0;

/** The operand ahead of the second, where several are joined by the same operator. */
function firstOf(match: Match): SyntaxNode {
  let at = match.the(first);
  while (at.is("binary_expression") && operatorOf(at) === operatorOf(match.node)) at = at.lastPart!;
  return at;
}

/** What both sides ask about: the first for being null, the second for being empty; undefined where they ask otherwise. */
function asked(match: Match): SyntaxNode | undefined {
  const isOr = match.alternative === OR;
  const test = presenceOf(firstOf(match));
  if (test.asks !== "missing" || test.isThere === isOr || test.key) return undefined;
  const { test: asksToo, isTrue } = unnegated(match.the(second));
  const patterns = (isOr === isTrue ? EMPTY : FULL).flatMap((one) => compile(one, "csharp"));
  const subject = matchOneAt(patterns, asksToo.tree, asksToo.id)?.captures.get(text)?.nodes[0];
  if (subject === undefined || !sameCode(asksToo.tree.node(subject), test.subject)) return undefined;
  // A list has a length as well.
  const type = typeOf(test.subject);
  if (type) return isStringType(type, test.subject) ? test.subject : undefined;
  return /^([sS]tring)?$/.test(bareTypeOf(test.subject) ?? "") ? test.subject : undefined;
}

/** Is a type the string of the language, and no class of the project? */
const isStringType = (type: KnownType, at: SyntaxNode): boolean =>
  /^[sS]tring$/.test(type.name) && isTypeOfTrait(type, "plain-equality", at, { what: "string" }).is === "yes";

/** Is the length asked for, which lists have too? */
const asksLength = (match: Match): boolean => /\.Length\b/.test(match.textOf(second));

/** Only a string is asked for its length, or compared with one, in this way; other types have another `==`. */
function isString(match: Match): Answer {
  const subject = asked(match)!;
  const shown = shortened(subject.text);
  const type = typeOf(subject);
  if (type) return yes("type.is", type.why, type.at);
  return bareTypeOf(subject) === "string"
    ? yes("type.is", `\`${shown}\` is a \`string\``, subject)
    : unknown("type.not-known", `the type of \`${shown}\` is not known`, subject);
}

const { rewrites, holds, ignores } = trialsIn("csharp");
const inClass = (code: string): string => `class A { bool F(string s, A a, int[] n) { ${code} } }`;

export const nullOrEmpty = rule({
  id: "csharp/null-or-empty",
  kind: "idiom",
  title: "Use string.IsNullOrEmpty instead of two tests",
  why: "The string is named twice, and the reader must check that both tests ask for the same one.",
  was: [csharp.expression`${first} || ${second}`, csharp.expression`${first} && ${second}`],
  where: [(match) => asked(match) !== undefined],
  given: [
    condition("it is a string", isString, { when: (match) => !asksLength(match) }),
    condition("it is a string, and no list", isString, { when: asksLength, unknownIs: "possible" }),
    condition("evaluating it once instead of twice makes no difference", (match) =>
      weakest([isSideEffectFree(asked(match)!)]),
    ),
  ],
  becomes: (match) => {
    const { start, end } = asked(match)!;
    const sign = match.alternative === OR ? "" : "!";
    return [
      copy(match.node.start, firstOf(match).start),
      newText(`${sign}string.IsNullOrEmpty(`),
      copy(start, end),
      newText(")"),
    ];
  },
  trials: [
    rewrites(
      "class Hive { public string Name; } class A { bool F(Hive h) { return h.Name == null || h.Name.Length == 0; } }",
      "class Hive { public string Name; } class A { bool F(Hive h) { return string.IsNullOrEmpty(h.Name); } }",
    ),
    ignores(
      "class Hive { public byte[] Mark; } class A { bool F(Hive h) { return h.Mark == null || h.Mark.Length == 0; } }",
    ),
    rewrites(inClass('return s == null || s == "";'), inClass("return string.IsNullOrEmpty(s);")),
    rewrites(inClass("return s is null || s.Length == 0;"), inClass("return string.IsNullOrEmpty(s);")),
    rewrites(
      inClass("if (null != s && string.Empty != s) { return true; } return false;"),
      inClass("if (!string.IsNullOrEmpty(s)) { return true; } return false;"),
    ),
    rewrites(
      inClass('return a is not null && s is not null && s != "";'),
      inClass("return a is not null && !string.IsNullOrEmpty(s);"),
    ),
    rewrites(inClass('return (s == null) || s.Equals("");'), inClass("return string.IsNullOrEmpty(s);")),
    rewrites(
      inClass('return a == null || s == null || s == "";'),
      inClass("return a == null || string.IsNullOrEmpty(s);"),
    ),
    rewrites(inClass('return g == null || g == "";'), inClass("return string.IsNullOrEmpty(g);"), "likely"),
    rewrites(
      inClass("return g == null || g.Length == 0;"),
      inClass("return string.IsNullOrEmpty(g);"),
      "possible",
    ),
    rewrites(inClass('return s != null && !(s == "");'), inClass("return !string.IsNullOrEmpty(s);")),
    rewrites(
      inClass("if (!(s == null) && !(s.Length == 0)) { return true; } return false;"),
      inClass("if (!string.IsNullOrEmpty(s)) { return true; } return false;"),
    ),
    ignores(inClass('return s == null || !(s == "");')),
    ignores(inClass("return n == null || n.Length == 0;")),
    holds(inClass('return G() == null || G() == "";'), "calls something"),
    ignores('class String {} class A { bool F(String s) { return s == null || s == ""; } }'),
    ignores(inClass('return s == "" || s == null;')),
    ignores(inClass('return s == null && s == "";')),
    ignores(inClass('return s != null || s == "";')),
    ignores(inClass('return a == null || s == "";')),
    ignores(inClass('return s == null || s == "a";')),
  ],
});
