import {
  condition,
  holes,
  no,
  python,
  referencesAt,
  rule,
  trialsIn,
  typeOf,
  unknown,
  valuesGiven,
  weakest,
  yes,
} from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import {
  fitsInString,
  isForLogOrTranslation,
  oncePerMatch,
  refusal,
  written,
  type Filled,
} from "./f-string.js";
import { piecesOf } from "./literal.js";
import { directivesIn, fieldFor, type Directive } from "./percent.js";

const { format, values } = holes({
  format: { kind: "expression", node: ["string", "concatenated_string"] },
  values: "expression",
});

interface Read {
  readonly filled: readonly Filled[];
  readonly answers: readonly Answer[];
  readonly given: readonly SyntaxNode[];
}

/** The values by the names or places that the format asks for; undefined where the code does not list them. */
function givenBy(operand: SyntaxNode, isNamed: boolean): Map<string, SyntaxNode> | undefined {
  const inner = operand.is("parenthesized_expression") ? operand.firstPart! : operand;
  if (isNamed) {
    if (!inner.is("dictionary")) return undefined;
    const pairs = inner.parts.map((part) => [part.child("key"), part.child("value")] as const);
    if (!pairs.every(([key, value]) => key?.is("string") && value)) return undefined;
    return new Map(pairs.map(([key, value]) => [key!.text.replace(/^['"]|['"]$/g, ""), value!]));
  }
  if (!inner.is("tuple")) return new Map([["0", inner]]);
  if (inner.parts.some((part) => part.is("list_splat"))) return undefined;
  return new Map(inner.parts.map((part, i) => [String(i), part]));
}

/** The format with its values in their places, or why that cannot be. Undefined where it is no such format. */
const read = oncePerMatch((match): Read | string | undefined => {
  const pieces = piecesOf(match.the(format));
  const parsed = pieces?.map(({ content }) =>
    /\\N\{|\\x25|\\45/.test(content) ? undefined : directivesIn(content),
  );
  if (!pieces || !parsed?.every((one) => one !== undefined)) return undefined;
  const directives = parsed.flat().filter((part): part is Directive => typeof part !== "string");
  const [first] = directives;
  if (!first || directives.some(({ key }) => (key === undefined) !== (first.key === undefined)))
    return undefined;
  const given = givenBy(match.the(values), first.key !== undefined);
  if (!given) return "the values are not listed here";
  if (first.key === undefined && given.size !== directives.length)
    return `the format has ${directives.length} places, and there are ${given.size} values`;
  const answers: Answer[] = [];
  let next = 0;
  let refused: string | undefined;
  const filled = pieces.map((piece, i): Filled => ({
    piece,
    parts: parsed[i]!.map((part) => {
      if (typeof part === "string") return part;
      const value = given.get(part.key ?? String(next++));
      const found = value && fieldFor(part, value);
      if (!value) refused ??= `no value goes by the name \`${part.key}\``;
      else if (!found)
        refused ??= `no field of an f-string says what \`%${part.flags}${part.width}${part.precision && `.${part.precision}`}${part.letter}\` says here`;
      else refused ??= refusal(value, piece);
      if (!found) return "";
      answers.push(found.answer);
      return found.field;
    }),
  }));
  return refused ?? { filled, answers, given: [...given.values()] };
});

/** A single value that is a tuple would be taken for several. */
function isOneValue(match: Match): Answer {
  const operand = match.the(values);
  const inner = operand.is("parenthesized_expression") ? operand.firstPart! : operand;
  if (inner.is(["tuple", "dictionary"])) return yes("value.kind", "the values are listed");
  const type = typeOf(inner);
  const isPlain =
    inner.is([
      "string",
      "binary_operator",
      "comparison_operator",
      "list",
      "list_comprehension",
      "integer",
      "float",
    ]) ||
    (type &&
      ["str", "int", "float", "bool", "list", "dict", "set", "bytes"].includes(type.name) &&
      !type.declared);
  if (type?.name === "tuple")
    return no("value.kind", `${type.why}, which is taken for several values`, type.at);
  return isPlain
    ? yes("value.kind", `\`${inner.text}\` is one value`, inner)
    : unknown("value.kind", `\`${inner.text}\` could be a tuple, which is taken for several values`, inner);
}

/** What a function gives could well be a tuple, and so could a variable that is given such a thing. */
function isNoResult(match: Match): Answer {
  const operand = match.the(values);
  const inner = operand.is("parenthesized_expression") ? operand.firstPart! : operand;
  const to = inner.is("identifier") ? referencesAt(inner).find((one) => one.to)?.to : undefined;
  const given = [inner, ...((to && valuesGiven(to)) ?? [])];
  const open = given.find(
    (one) => one.is(["call", "await", "conditional_expression", "boolean_operator"]) && !typeOf(one),
  );
  return open
    ? unknown(
        "value.kind",
        `\`${open.text.split("\n")[0]}\` could give a tuple, which is taken for several values`,
        open,
      )
    : yes("value.kind", "no result of a function stands alone");
}

const { rewrites, ignores, holds } = trialsIn("python");

export const percentFormat = rule({
  id: "python/percent-format",
  kind: "idiom",
  title: "Use an f-string in place of the % operator",
  why: "The reader must count the places of the format to see which value goes where.",
  was: python`${format} % ${values}`,
  where: [(match) => read(match) !== undefined, (match) => !isForLogOrTranslation(match.node)],
  given: [
    ...fitsInString(read),
    condition("it is one value, or they are listed", isOneValue),
    condition("no result of a function stands alone", isNoResult, { unknownIs: "possible" }),
    condition("each gives the same text", (match) => {
      const found = read(match);
      const [first, ...rest] = typeof found === "object" ? found.answers : [];
      return first ? weakest([first, ...rest]) : yes("value.result", "there is nothing to lay out");
    }),
  ],
  becomes: (match) => written((read(match) as Read).filled),
  trials: [
    rewrites('n = 3\ns = "hive %d" % n\n', 'n = 3\ns = f"hive {n}"\n'),
    rewrites('s = "hive %s" % name\n', 's = f"hive {name}"\n', "likely"),
    rewrites('s = "%s: %s" % (a.b, c[1])\n', 's = f"{a.b}: {c[1]}"\n', "likely"),
    rewrites('s = "%r" % (x,)\n', 's = f"{x!r}"\n'),
    rewrites('s = "%5s|%-5s|%.3s" % (x, y, z)\n', 's = f"{x!s:>5}|{y!s:<5}|{z!s:.3}"\n'),
    rewrites('n = 3\ns = "%05d %+d %x" % (n, n, n)\n', 'n = 3\ns = f"{n:05d} {n:+d} {n:x}"\n'),
    rewrites('w = 2.5\ns = "%.2f kg" % w\n', 'w = 2.5\ns = f"{w:.2f} kg"\n'),
    rewrites('s = "%.2f kg" % (w,)\n', 's = f"{w:.2f} kg"\n', "likely"),
    rewrites('s = "%d" % (x,)\n', 's = f"{x:d}"\n', "likely"),
    rewrites('s = "100%% of {%r}" % (x,)\n', 's = f"100% of {{{x!r}}}"\n'),
    rewrites('s = "%(a)r %(b)r" % {"a": x, "b": y}\n', 's = f"{x!r} {y!r}"\n'),
    rewrites("s = '%r' % (d['a'],)\n", "s = f'{d[\"a\"]!r}'\n"),
    rewrites('s = r"\\d%r" % (x,)\n', 's = fr"\\d{x!r}"\n'),
    rewrites('s = u"%r" % (x,)\n', 's = f"{x!r}"\n'),
    rewrites('s = ("a %r "\n     "b 100%% " % (x,))\n', 's = (f"a {x!r} "\n     "b 100% ")\n'),
    rewrites('raise ValueError("no %r" % (x,))\n', 'raise ValueError(f"no {x!r}")\n'),
    rewrites('s = "%r" % (lambda: 1,)\n', 's = f"{(lambda: 1)!r}"\n'),
    rewrites('f("%r" % (\n    a if b else c,\n))\n', 'f(f"{a if b else c!r}")\n'),
    rewrites('s = "%s" % f()\n', 's = f"{f()}"\n', "possible"),
    rewrites('x = f()\ns = "%s" % x\n', 'x = f()\ns = f"{x}"\n', "possible"),
    holds("s = f\"{'%r of' % (a,)} {b}\"\n", "inside another string"),
    holds('try:\n    s = "%d" % n\nexcept TypeError:\n    s = ""\n', "tell apart"),
    holds('t = (1, 2)\ns = "%s" % t\n', "taken for several values"),
    holds('s = "%s %s" % pair\n', "2 places"),
    holds('s = "%c" % (n,) + "%d" % (1.5,)\n', "no field"),
    holds('s = "%(a)s" % row\n', "not listed"),
    holds("s = '%r' % (x['a\\n'],)\n", "backslash"),
    holds('s = "%(b)r %(a)r" % {"a": f(), "b": g()}\n', "calls something"),
    holds('s = "%d%%" % (100 * a / b)\n', "no field"),
    ignores('s = b"%s" % x\n'),
    ignores('s = "%c" % x\n'),
    ignores('log.info("hive %s" % x)\n'),
    ignores('s = _("hive %s" % x)\n'),
    ignores("s = n % 3\n"),
    ignores('s = "50%" % ()\n'),
    ignores('s = f"{a}%s" % x\n'),
    trialsIn("python", "3.5").ignores('s = "%r" % (x,)\n'),
  ],
});
