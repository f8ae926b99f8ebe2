import {
  condition,
  copy,
  cpp,
  holes,
  nameInFile,
  no,
  rule,
  shortened,
  text,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match, SyntaxNode } from "../../core.js";
import { withoutParentheses } from "../family/parentheses.js";
import { onlyCppReads } from "./read-by-c.js";
import { writtenType } from "./written-type.js";

const { type, value } = holes({
  type: "type",
  value: "expression",
});

/** Types of numbers by their names. */
const NUMBER =
  /^(?:(?:unsigned|signed|long|short|int|char|bool|float|double)(?:\s+(?:long|int|char|double))*|(?:std::)?(?:s?size_t|ssize_t|ptrdiff_t|u?int(?:_fast|_least)?\d+_t|u?intmax_t))$/;

const isNumberType = (written: string): boolean => NUMBER.test(written.replace(/\bconst\b/g, "").trim());

/** Operators that make a number of two numbers. */
const COUNTS = /^[-+*/%&|^]$|^<<$|^>>$/;

/** Is an expression a number, by its form or by a declaration? */
function isNumber(node: SyntaxNode): Answer {
  const at = withoutParentheses(node);
  const shown = shortened(at.text);
  if (at.is(["number_literal", "char_literal", "true", "false", "sizeof_expression"]))
    return yes("type.is", `\`${shown}\` is a number`, at);
  if (at.is("cast_expression") && isNumberType(at.child("type")!.text))
    return yes("type.is", `\`${shown}\` is a number`, at);
  if (at.is("binary_expression") && COUNTS.test(at.child("operator")?.text ?? "")) {
    const sides = [at.child("left"), at.child("right")].map((one) => one && isNumber(one));
    if (sides.every((one) => one?.is === "yes")) return sides[0]!;
  }
  if (at.is("unary_expression") && /^[-+~]$/.test(at.child("operator")?.text ?? ""))
    return isNumber(at.child("argument")!);
  const declared = writtenType(at);
  if (!declared) return unknown("type.not-known", `\`${shown}\` could be a pointer`, at);
  if (declared.isPointer) return no("type.is", `\`${at.text}\` is a pointer`, declared.at);
  return isNumberType(declared.text)
    ? yes("type.is", declared.why, declared.at)
    : unknown("type.not-known", `${declared.why}, which could stand for a pointer`, declared.at);
}

/** Functions that give memory of which nobody has said what it holds. */
const GIVE_MEMORY = /^(?:std::)?(?:malloc|calloc|realloc|aligned_alloc)$/;

const isPointerType = (node: SyntaxNode): boolean =>
  node.child("declarator")?.text.replace(/\s/g, "") === "*";

/** A number that is made another one, or a pointer to memory that nobody has typed. */
function isPlainCast({ node }: Match): boolean {
  const to = node.child("type")!;
  const from = withoutParentheses(node.child("value")!);
  if (isPointerType(to)) return from.is("call_expression") && GIVE_MEMORY.test(from.child("function")!.text);
  return isNumberType(to.text);
}

function isTheCast({ node }: Match): Answer {
  const from = withoutParentheses(node.child("value")!);
  if (!isPointerType(node.child("type")!)) return isNumber(from);
  const callee = from.child("function")!;
  return nameInFile(callee.text, node.tree).declarations.length === 0
    ? yes("type.is", `\`${shortened(from.text)}\` gives memory without a type`, from)
    : unknown("name.library", `this file has a \`${callee.text}\` of its own`, callee);
}

const { rewrites, ignores, holds } = trialsIn("cpp");
const inFunction = (code: string): string =>
  `void f(int n, double kg, Hive* hive, Scale scale) {\n  ${code}\n}\n`;

export const namedCast = rule({
  id: "cpp/named-cast",
  kind: "idiom",
  title: "Use static_cast for a cast that only turns numbers into others",
  why: "A cast in brackets does whatever makes the code compile, and cannot be searched for.",
  taste: true,
  was: cpp.expression`(${type})${value}`,
  where: [isPlainCast],
  given: [condition("a number is made of a number", isTheCast), onlyCppReads()],
  becomes: (match) => {
    const [to, from] = [match.the(type), withoutParentheses(match.the(value))];
    return [text("static_cast<"), copy(to.start, to.end), text(">("), copy(from.start, from.end), text(")")];
  },
  trials: [
    rewrites(inFunction("use((int)kg);"), inFunction("use(static_cast<int>(kg));")),
    rewrites(inFunction("double d = (double)n / 3;"), inFunction("double d = static_cast<double>(n) / 3;")),
    rewrites(
      inFunction("use((unsigned char)(n + 1));"),
      inFunction("use(static_cast<unsigned char>(n + 1));"),
    ),
    rewrites(inFunction("use((std::size_t)-n);"), inFunction("use(static_cast<std::size_t>(-n));")),
    rewrites(
      inFunction("char* p = (char*)malloc(n);\n  use(p);"),
      inFunction("char* p = static_cast<char*>(malloc(n));\n  use(p);"),
    ),
    rewrites(
      "struct Jar { float kg; int whole() const { return (int)kg; } };\n",
      "struct Jar { float kg; int whole() const { return static_cast<int>(kg); } };\n",
    ),
    rewrites(inFunction("use((int)scale);"), inFunction("use(static_cast<int>(scale));"), "likely"),
    rewrites(inFunction("use((long)weigh());"), inFunction("use(static_cast<long>(weigh()));"), "likely"),
    holds(inFunction("use((long)hive);"), "is a pointer"),
    holds('extern "C" {\nint f(double kg) { return (int)kg; }\n}\n', "C may read"),
    // An array stands for a pointer to its first item.
    rewrites(
      "int f() { int ns[3]; return (int)ns; }\n",
      "int f() { int ns[3]; return static_cast<int>(ns); }\n",
      "likely",
    ),
    ignores(inFunction("use((Wooden*)hive);")),
    ignores(inFunction("(void)n;")),
    ignores(inFunction("use((Grams)n);")),
    ignores(inFunction("use(static_cast<int>(kg));")),
    ignores(inFunction("use(int(kg));")),
  ],
});
