import { condition, cpp, holes, no, rule, shortened, trialsIn, typeOf, unknown, yes } from "../../../core.js";
import { isConstant, isMadeAlike, isNumber } from "./once.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";

const { type, name, test, one, other } = holes({
  type: "type",
  name: "name",
  test: "expression",
  one: "expression",
  other: "expression",
});

const LITERALS: Readonly<Record<string, string>> = { true: "bool", false: "bool", char_literal: "char" };

/** The type of a value by its form. */
function typeName(node: SyntaxNode): string | undefined {
  if (node.is("number_literal"))
    return /^(?:\d+|0x[\da-f]+)$/i.test(node.text)
      ? "int"
      : /^[\d.]+(e[-+]?\d+)?$/i.test(node.text)
        ? "double"
        : undefined;
  if (node.is("unary_expression")) return typeName(node.child("argument")!);
  return LITERALS[node.kind] ?? typeOf(node)?.name;
}

/** The operator makes both values one type, before that of the variable is made of it. */
function areAlike(match: Match): Answer {
  const [a, b] = [match.the(one), match.the(other)];
  const [first, second] = [typeName(a), typeName(b)];
  if (first !== undefined && first === second) return yes("type.same", `both values are \`${first}\``, a);
  if (a.is("string_literal") && b.is("string_literal")) return yes("type.same", "both values are texts", a);
  const numbers = ["int", "double", "char", "bool"];
  if (
    first !== undefined &&
    second !== undefined &&
    numbers.includes(first) &&
    numbers.includes(second) &&
    match.textOf(type) === "double"
  )
    return yes("type.same", "both become a `double`", a);
  return unknown(
    "type.same",
    `\`${shortened(a.text)}\` and \`${shortened(b.text)}\` could be of types that the operator makes something else of`,
    b,
  );
}

/** Neither the test nor the values may speak of the variable, which is not there yet. */
function isNotAsked(match: Match): Answer {
  const own = match.textOf(name);
  const use = [test, one, other].flatMap((hole) => match.the(hole).mentions(own))[0];
  return use
    ? no("flow.order", `\`${own}\` is read before it has its value`, use)
    : yes("flow.order", "its value is worked out without it");
}

const { rewrites, ignores, holds } = trialsIn("cpp");
const inFunction = (code: string): string => `void f(int a, bool b) {\n  ${code}\n}\n`;

export const initialisedOnce = rule({
  id: "cpp/initialised-once",
  kind: "idiom",
  title: "Initialise a variable where it is declared",
  why: "Between the declaration and the branches the variable holds anything, and it cannot be a constant.",
  was: cpp`
    ${type} ${name};
    if (${test}) {
      ${name} = ${one};
    } else {
      ${name} = ${other};
    }
  `,
  where: [
    (match) =>
      !/\?|\n|=[^=]/.test(match.textOf(one)) &&
      !/\?|\n|=[^=]/.test(match.textOf(other)) &&
      !match.textOf(test).includes("\n"),
    (match) =>
      match.textOf(type).length +
        match.textOf(name).length +
        match.textOf(test).length +
        match.textOf(one).length +
        match.textOf(other).length <
      90,
    (match) =>
      !/\b(static|extern|const|thread_local)\b/.test(match.textOf(type)) &&
      !match.node.parts.some((part) => part.is("storage_class_specifier")),
    (match) => !match.the(one).is("initializer_list") && !match.the(other).is("initializer_list"),
  ],
  given: [
    condition("both values are of one type", areAlike),
    condition("the variable is made of its value as it was assigned it", (match) =>
      isMadeAlike(match.the(type)),
    ),
    condition("its value is worked out without it", isNotAsked),
  ],
  becomes: (match) =>
    isConstant(match, match.the(name), isNumber(match.the(type)) ? "scalar" : "object")
      ? cpp`const ${type} ${name} = ${test} ? ${one} : ${other};`
      : cpp`${type} ${name} = ${test} ? ${one} : ${other};`,
  trials: [
    rewrites(
      inFunction("int n;\n  if (a > 1) {\n    n = 1;\n  } else {\n    n = 2;\n  }\n  return n + 1;"),
      inFunction("const int n = a > 1 ? 1 : 2;\n  return n + 1;"),
    ),
    rewrites(
      inFunction("int n;\n  if (b)\n    n = 1;\n  else\n    n = 2;\n  n++;"),
      inFunction("int n = b ? 1 : 2;\n  n++;"),
    ),
    rewrites(
      inFunction("double d;\n  if (b) d = 1; else d = 0.5;\n  use(d);"),
      inFunction("double d = b ? 1 : 0.5;\n  use(d);"),
    ),
    rewrites(
      inFunction('std::string s;\n  if (b) s = name(); else s = "none";\n  if (s == t) return;'),
      inFunction('const std::string s = b ? name() : "none";\n  if (s == t) return;'),
      "likely",
    ),
    // -1 becomes a number without a sign beside one.
    rewrites(
      inFunction("long n;\n  if (b) n = -1; else n = 2u;\n  return n;"),
      inFunction("const long n = b ? -1 : 2u;\n  return n;"),
      "likely",
    ),
    holds(inFunction("int n;\n  if (ask(&n)) n = 1; else n = 2;"), "before it has its value"),
    ignores(inFunction("int n;\n  if (b) n = 1;")),
    ignores(inFunction("int n;\n  if (b) n = 1; else m = 2;")),
    ignores(inFunction("int n;\n  if (b) { n = 1; log(); } else n = 2;")),
    ignores(inFunction("int n = 0;\n  if (b) n = 1; else n = 2;")),
    ignores(inFunction("int n;\n  log();\n  if (b) n = 1; else n = 2;")),
    ignores(inFunction("static int n;\n  if (b) n = 1; else n = 2;")),
  ],
});
