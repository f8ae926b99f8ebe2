import {
  condition,
  copy,
  holes,
  no,
  ofKind,
  rule,
  shortened,
  surroundingsOf,
  text,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { onlyCppReads } from "../read-by-c.js";

const { macro } = holes({ macro: { kind: "statement", node: "preproc_def" } });

/** A constant with the type that its literal has. */
interface Constant {
  readonly name: SyntaxNode;
  /** Where its value ends; a comment may follow. */
  readonly end: number;
  readonly value: string;
  readonly type: string;
}

const SUFFIXES: Readonly<Record<string, string>> = {
  "": "int",
  u: "unsigned",
  l: "long",
  ul: "unsigned long",
  lu: "unsigned long",
  ll: "long long",
  ull: "unsigned long long",
};
const MOST = 2 ** 31;

/** The type of a literal; undefined for what is none, or has another type where numbers are smaller. */
function typeOfLiteral(literal: string): string | undefined {
  if (/^(true|false)$/.test(literal)) return "bool";
  if (/^'(?:[^'\\]|\\[^x\d]|\\x[\da-f]{1,2}|\\[0-7]{1,3})'$/i.test(literal)) return "char";
  const whole = /^-?(0x[\da-f]+|\d+)(u?l{0,2}|lu)$/i.exec(literal);
  if (whole) return Number(whole[1]) < MOST ? SUFFIXES[whole[2]!.toLowerCase()] : undefined;
  const part = /^-?(?:\d+\.\d*|\.\d+|\d+(?=e))(?:e[-+]?\d+)?([fl]?)$/i.exec(literal);
  return part ? { "": "double", f: "float", l: "long double" }[part[1]!.toLowerCase()] : undefined;
}

function constantAt(node: SyntaxNode): Constant | undefined {
  const [name, at] = [node.child("name"), node.child("value")];
  if (!name || !at || name.text.startsWith("_") || !isAtTop(node)) return undefined;
  const whole = at.text.replace(/\s+\/[/*].*$/s, "").trimEnd();
  const value = whole
    .trim()
    .replace(/^\((.*)\)$/, "$1")
    .trim();
  const type = typeOfLiteral(value);
  return type === undefined ? undefined : { name, end: at.start + whole.length, value, type };
}

/** Does it stand in no namespace and under no condition, but for the one that keeps a header from being read twice? */
function isAtTop(node: SyntaxNode): boolean {
  const { parent } = node;
  if (!parent?.parent) return true;
  if (
    !parent.is("preproc_ifdef") ||
    parent.parent.parent ||
    parent.parts.some((one) => one.is("preproc_else"))
  )
    return false;
  const [, first] = parent.parts;
  return (
    first?.is("preproc_def") === true &&
    first.child("name")?.text === parent.child("name")?.text &&
    !first.same(node)
  );
}

const DIRECTIVE = (name: string): RegExp =>
  new RegExp(String.raw`^[ \t]*#[^\n]*(?:\\\r?\n[^\n]*)*\b${name}\b.*$`, "gm");

/** All that is done with the macro is to read its value in code. */
function isOnlyRead({ node }: Match): Answer {
  const { name } = constantAt(node)!;
  const { files, path } = surroundingsOf(node.tree);
  const used = node.tree.root.mentions(name.text).filter((one) => !node.holds(one));
  const early = used.find((one) => one.start < node.start);
  if (early) return no("flow.order", `\`${name.text}\` is used ahead of it`, early);
  const own = directiveWith(node.tree.text, name.text, node.line);
  if (own !== undefined)
    return no("name.other-uses", `the preprocessor uses it: \`${shortened(own)}\``, node);
  let others = 0;
  for (const file of files?.naming(name.text) ?? []) {
    if (file.path === path) continue;
    others++;
    const found = directiveWith(file.text, name.text);
    if (found !== undefined)
      return no("name.other-uses", `the preprocessor uses it in ${file.path}: \`${shortened(found)}\``, node);
    if (/\.c$/.test(file.path)) return no("version.target", `C reads it in ${file.path}`, node);
  }
  return isHeader(path)
    ? unknown("name.other-uses", `another project could ask for \`${name.text}\` with \`#ifdef\``, node)
    : others > 0
      ? unknown("name.other-uses", `\`${name.text}\` stands in other files as well`, node)
      : yes("name.other-uses", `\`${name.text}\` is only read in code`, node);
}

/** A macro that nothing asks for may be there for somebody else. */
function isUsed({ node }: Match): boolean {
  const { name } = constantAt(node)!;
  const { files, path } = surroundingsOf(node.tree);
  const isHere = node.tree.root.mentions(name.text).some((one) => !node.holds(one));
  return isHere || [...(files?.naming(name.text) ?? [])].some((file) => file.path !== path);
}

const isHeader = (path: string | undefined): boolean => !/\.(cc|cpp|cxx)$/.test(path ?? ".cpp");

/** A directive with a name in it; none on the line where the macro itself is defined. */
function directiveWith(code: string, name: string, line?: number): string | undefined {
  for (const { 0: found, index } of code.matchAll(DIRECTIVE(name)))
    if (code.slice(0, index).split("\n").length !== line) return found.trim();
  return undefined;
}

/** A file that is included further down may ask for the macro. */
function configuresNothing({ node }: Match): Answer {
  const rest = node.tree.text.slice(node.end);
  const included = /^[ \t]*#[ \t]*(?:include|import)\b.*$/m.exec(rest)?.[0];
  return included === undefined
    ? yes("flow.order", "nothing is included behind it")
    : no("flow.order", `\`${included.trim()}\` could ask for it`, node);
}

/** 0 is a null pointer where it stands as a number, and not behind a name. */
function isNoPointer({ node }: Match): Answer {
  const { value } = constantAt(node)!;
  return value === "false" || Number(value.replace(/[ul]+$/i, "")) === 0
    ? unknown("type.is", "it could stand for a null pointer", node)
    : yes("type.is", `\`${value}\` is no pointer`, node);
}

const { rewrites, ignores, holds } = trialsIn("cpp", "11");

export const constantMacro = rule({
  id: "cpp/constant-macro",
  kind: "idiom",
  title: "Use constexpr for a macro that is a constant",
  why: "A macro has no type and no scope, and a debugger does not know it.",
  target: "11",
  was: ofKind(macro, { when: (node) => constantAt(node) !== undefined, together: (node) => [node] }),
  mentions: ["define"],
  where: [isUsed],
  given: [
    condition("the macro is only read in code", isOnlyRead),
    condition("nothing that is included asks for it", configuresNothing),
    onlyCppReads(),
    condition("the value is no null pointer", isNoPointer),
  ],
  becomes: ({ node }) => {
    const { name, end, value, type } = constantAt(node)!;
    return [text(`constexpr ${type} ${name.text} = ${value};`), copy(end, node.end)];
  },
  trials: [
    rewrites(
      "#include <vector>\n#define MOST 10\n\nint f(int n) { return n < MOST ? n : MOST; }\n",
      "#include <vector>\nconstexpr int MOST = 10;\n\nint f(int n) { return n < MOST ? n : MOST; }\n",
    ),
    rewrites(
      "#define TARE (-0.25) // kg\ndouble f(double kg) { return kg + TARE; }\n",
      "constexpr double TARE = -0.25; // kg\ndouble f(double kg) { return kg + TARE; }\n",
    ),
    rewrites(
      "#define MASK 0xFFu\nbool f(unsigned n) { return n & MASK; }\n",
      "constexpr unsigned MASK = 0xFFu;\nbool f(unsigned n) { return n & MASK; }\n",
    ),
    rewrites(
      "#define COMMA ','\nvoid f() { put(COMMA); }\n",
      "constexpr char COMMA = ',';\nvoid f() { put(COMMA); }\n",
    ),
    rewrites(
      "#define NONE 0\nint f(int n) { return n == NONE; }\n",
      "constexpr int NONE = 0;\nint f(int n) { return n == NONE; }\n",
      "likely",
    ),
    rewrites(
      "#define NONE 0x0u\nint f(int n) { return n == NONE; }\n",
      "constexpr unsigned NONE = 0x0u;\nint f(int n) { return n == NONE; }\n",
      "likely",
    ),
    holds("#define MOST 10\n#if MOST > 3\nint n = MOST;\n#endif\n", "the preprocessor uses it"),
    holds("#define MOST 10\n#define TWICE (MOST * 2)\nint n = TWICE + MOST;\n", "the preprocessor uses it"),
    holds("#define MOST 10\nint n = MOST;\n#undef MOST\n", "the preprocessor uses it"),
    holds('#define MOST 10\n#include "jars.h"\nint n = MOST;\n', "could ask for it"),
    ignores("#define MOST 10\n"),
    holds("#define MOST 10\n#ifdef __cplusplus\nint n = MOST;\n#endif\n", "C may read"),
    holds("int f(int MOST) { return MOST; }\n#define MOST 10\nint n = MOST;\n", "is used ahead of it"),
    ignores("#ifndef MOST\n#define MOST 10\n#endif\nint n = MOST;\n"),
    ignores("#define MOST n + 1\nint f(int n) { return MOST; }\n"),
    ignores("#define MOST 4294967295\nlong n = MOST;\n"),
    ignores('#define NAME "jar"\nauto n = NAME "s";\n'),
    ignores("#define _MOST 10\nint n = _MOST;\n"),
    ignores("namespace a {\n#define MOST 10\nint n = MOST;\n}\n"),
    ignores("#define MOST(n) 10\nint n = MOST(1);\n"),
    trialsIn("cpp", "98").ignores("#define MOST 10\nint n = MOST;\n"),
  ],
});
