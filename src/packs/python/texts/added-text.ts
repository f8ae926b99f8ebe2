import { condition, holes, isBuiltin, no, python, rule, shortened, trialsIn, typeOf } from "../../../core.js";
import { unknown, weakest, yes } from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { fitsInString, isForLogOrTranslation, oncePerMatch, refusal, written } from "./f-string.js";
import type { Field, Filled } from "./f-string.js";
import { piecesOf } from "./literal.js";

const { left, right } = holes({ left: "expression", right: "expression" });

const isSum = (node: SyntaxNode | undefined): boolean =>
  node?.is("binary_operator") === true && node.child("operator")?.text === "+";

/** The operands of a row of `+`, from left to right. */
const operandsOf = (node: SyntaxNode): SyntaxNode[] =>
  isSum(node) ? [...operandsOf(node.child("left")!), node.child("right")!] : [node];

/** What `str` is called with. */
function turnedIntoText(node: SyntaxNode): SyntaxNode | undefined {
  const callee = node.is("call") ? node.child("function")! : undefined;
  const [value, more] = node.child("arguments")?.parts ?? [];
  const isText = callee?.text === "str" && isBuiltin("str", callee).is === "yes" && more === undefined;
  return isText && value && !value.is(["keyword_argument", "list_splat"]) ? value : undefined;
}

interface Read {
  readonly filled: readonly Filled[];
  readonly given: readonly SyntaxNode[];
  readonly answers: readonly Answer[];
}

/** A whole row on one line, with a string in it and something to put in. */
function isWorthwhile({ node }: Match): boolean {
  if (isSum(node.parent) && node.field === "left") return false;
  const operands = operandsOf(node);
  const strings = operands.filter((one) => one.is("string"));
  const areTexts = strings.every((one) => piecesOf(one) !== undefined);
  return areTexts && strings.length > 0 && strings.length < operands.length && !node.text.includes("\n");
}

/** The row as one string, or why it cannot be one. */
const read = oncePerMatch(({ node }): Read | string | undefined => {
  const operands = operandsOf(node);
  const literals = operands.flatMap((one) => (one.is("string") ? (piecesOf(one) ?? [undefined]) : []));
  const [first] = literals;
  if (!first || literals.some((one) => !one || one.quote.length > 1 || one.prefix !== first.prefix))
    return "the strings are not written in the same way";
  if (/r/i.test(first.prefix)) return "a raw string is easier to read without braces in it";
  let refused: string | undefined;
  const answers: Answer[] = [];
  const given: SyntaxNode[] = [];
  const parts = operands.map((operand): string | Field => {
    if (operand.is("string")) {
      const [{ content, quote }] = piecesOf(operand) as [NonNullable<typeof first>];
      if (quote !== first.quote && content.includes(first.quote))
        refused ??= "a string has the quotes of another one in it";
      return content;
    }
    const converted = turnedIntoText(operand);
    const value = converted ?? operand;
    refused ??= refusal(value, first) ?? stringIn(value);
    given.push(value);
    answers.push(converted ? laidOutAlike(value) : isText(value));
    return { value };
  });
  return refused ?? { filled: [{ piece: first, parts }], given, answers };
});

/** A string within a string is harder to read than what is added up. */
function stringIn(value: SyntaxNode): string | undefined {
  const inside = [...value.descendants()].find((node) => node.is("string"));
  return inside && `\`${shortened(inside.text)}\` would be a string in a string`;
}

const PLAIN = ["str", "int", "float", "bool", "None"];

function laidOutAlike(value: SyntaxNode): Answer {
  const type = typeOf(value);
  const isPlain = type && type.module === undefined && !type.declared && PLAIN.includes(type.name);
  return isPlain
    ? yes("value.result", `\`${value.text}\` gives the same text`, value)
    : unknown(
        "value.result",
        `\`${shortened(value.text)}\` could be of a class with a \`__format__\` of its own`,
        value,
      );
}

/** What is added to a string is one, or the old code raises an error; but some classes add themselves in another way. */
function isText(value: SyntaxNode): Answer {
  const type = typeOf(value);
  const name = shortened(value.text);
  if (type && type.module === undefined && !type.declared)
    return type.name === "str"
      ? yes("value.kind", `\`${name}\` is a string`, type.at)
      : no("value.kind", `${type.why}, which cannot be added to a string`, type.at);
  return unknown(
    "value.kind",
    `\`${name}\` could be something that a string is added to in another way`,
    value,
  );
}

const { rewrites, ignores, holds } = trialsIn("python");

export const addedText = rule({
  id: "python/added-text",
  kind: "idiom",
  title: "Use an f-string in place of strings that are added up",
  why: "Quotes, plus signs and conversions hide the text that comes out.",
  was: python`${left} + ${right}`,
  where: [isWorthwhile, (match) => read(match) !== undefined, (match) => !isForLogOrTranslation(match.node)],
  target: "3.6",
  given: [
    ...fitsInString(read),
    condition(
      "what is added is text",
      (match) => {
        const found = read(match);
        const kinds =
          typeof found === "object"
            ? found.answers.filter(({ evidence }) => evidence.code === "value.kind")
            : [];
        const [first, ...rest] = kinds;
        return first ? weakest([first, ...rest]) : yes("value.kind", "all of it is turned into text");
      },
      { unknownIs: "possible" },
    ),
    condition("each gives the same text", (match) => {
      const found = read(match);
      const [first, ...rest] =
        typeof found === "object"
          ? found.answers.filter(({ evidence }) => evidence.code === "value.result")
          : [];
      return first ? weakest([first, ...rest]) : yes("value.result", "nothing else is turned into text");
    }),
  ],
  becomes: (match) => written((read(match) as Read).filled),
  trials: [
    rewrites('n = 3\ns = "hive " + str(n) + " of " + str(2.5)\n', 'n = 3\ns = f"hive {n} of {2.5}"\n'),
    rewrites('s = "hive " + str(n)\n', 's = f"hive {n}"\n', "likely"),
    rewrites(
      'def f(name: str):\n    return name + ".txt"\n',
      'def f(name: str):\n    return f"{name}.txt"\n',
    ),
    rewrites('s = name + ".txt"\n', 's = f"{name}.txt"\n', "possible"),
    rewrites("s = 'a {' + str(d[1]) + '}'\n", "s = f'a {{{d[1]}}}'\n", "likely"),
    holds("s = 'a' + str(d['k'])\n", "a string in a string"),
    holds('s = r"\\d" + str(n)\n', "raw string"),
    rewrites("n = 3\ns = \"a\" + str(n) + 'b'\n", 'n = 3\ns = f"a{n}b"\n'),
    rewrites('s = "[" + str([x for x in y]) + "]"\n', 's = f"[{[x for x in y]}]"\n', "likely"),
    rewrites('s = "x" + str(a if b else c)\n', 's = f"x{a if b else c}"\n', "likely"),
    rewrites('n = 3\nraise ValueError("no " + str(n))\n', 'n = 3\nraise ValueError(f"no {n}")\n'),
    holds('s = "a" + 1\n', "cannot be added to a string"),
    holds("s = 'say \"' + str(n) + \"'\"\n", "quotes of another one"),
    holds('s = "a\\n" + str(d["a\\n"])\n', "backslash"),
    holds('s = "a" + str({1: 2})\n', "brace"),
    holds('s = r"\\d" + str(n) + "\\n"\n', "same way"),
    holds("s = f\"{'a' + str(n)}\"\n", "inside another string"),
    ignores('s = b"a" + x\n'),
    ignores('s = "a" + "b"\n'),
    ignores('s = f"a" + x\n'),
    ignores('log.info("hive " + str(n))\n'),
    rewrites('from a import str\ns = "a" + str(n)\n', 'from a import str\ns = f"a{str(n)}"\n', "possible"),
    ignores("s = a + b\n"),
    trialsIn("python", "3.5").ignores('s = "a" + str(n)\n'),
  ],
});
