import {
  condition,
  copy,
  holes,
  isDefinedInProject,
  ofKind,
  rule,
  text,
  trialsIn,
  yes,
} from "../../../core.js";
import type { Match, Segment, SyntaxNode } from "../../../core.js";
import { isOfPhp } from "../values.js";

const { comparison } = holes({ comparison: { kind: "expression", node: "binary_expression" } });

interface Asked {
  readonly call: SyntaxNode;
  readonly function: string;
  readonly isTurned: boolean;
  readonly whole: SyntaxNode;
  readonly part: SyntaxNode;
}

/** What a comparison of a position asks for: whether a text holds, begins with, or ends with another. */
function askedAt(node: SyntaxNode): Asked | undefined {
  const operator = node.child("operator")?.text;
  const [left, right] = [node.child("left"), node.child("right")];
  if (!left || !right || (operator !== "===" && operator !== "!==")) return undefined;
  const [call, value] = left.is("function_call_expression") ? [left, right] : [right, left];
  if (!call.is("function_call_expression")) return undefined;
  const isEqual = operator === "===";
  const name = call.child("function")!.text.replace(/^\\/, "").toLowerCase();
  const parts = call.child("arguments")!.parts;
  if (parts.some((one) => one.is("argument") || one.is("variadic_unpacking"))) return undefined;
  const [whole, part, third] = parts;
  if (!whole || !part) return undefined;
  if (name === "strpos" && parts.length === 2) {
    if (/^false$/i.test(value.text))
      return { call, whole, part, function: "str_contains", isTurned: isEqual };
    return value.text === "0"
      ? { call, whole, part, function: "str_starts_with", isTurned: !isEqual }
      : undefined;
  }
  const isPlain = part.is([
    "variable_name",
    "string",
    "encapsed_string",
    "name",
    "class_constant_access_expression",
  ]);
  if (name === "strncmp" && parts.length === 3 && value.text === "0" && isPlain)
    return third!.text.replace(/\s/g, "") === `strlen(${part.text})`
      ? { call, whole, part, function: "str_starts_with", isTurned: !isEqual }
      : undefined;
  if (name !== "substr") return undefined;
  const size = value.is("string") ? literalLength(value) : undefined;
  if (size === undefined || size === 0) return undefined;
  if (parts.length === 3 && part.text === "0" && third!.text === String(size))
    return { call, whole, part: value, function: "str_starts_with", isTurned: !isEqual };
  return parts.length === 2 && part.text.replace(/\s/g, "") === `-${size}`
    ? { call, whole, part: value, function: "str_ends_with", isTurned: !isEqual }
    : undefined;
}

/** The length in bytes of a text in single quotes without escapes; undefined for others. */
function literalLength(node: SyntaxNode): number | undefined {
  const inner = /^'([^'\\]*)'$/.exec(node.text)?.[1];
  return inner === undefined ? undefined : new TextEncoder().encode(inner).length;
}

function asked(match: Match): Segment[] {
  const { function: name, isTurned, whole, part, call } = askedAt(match.the(comparison))!;
  const lead = call.child("function")!.text.startsWith("\\") ? "\\" : "";
  return [
    text(`${isTurned ? "!" : ""}${lead}${name}(`),
    copy(whole.start, whole.end),
    text(", "),
    copy(part.start, part.end),
    text(")"),
  ];
}

const { rewrites, ignores, holds } = trialsIn("php", "8.1");
const php = (code: string): string => `<?php\n${code}\n`;

export const contains = rule({
  id: "php/contains",
  kind: "idiom",
  title: "Use str_contains, str_starts_with or str_ends_with",
  why: "A position that is 0 counts as false, so that the comparison must be written just so.",
  target: "8.0",
  was: ofKind(comparison, { when: (node) => askedAt(node) !== undefined }),
  mentions: ["strpos", "strncmp", "substr"],
  given: [
    condition("the function is the language's", (match) => {
      const name = askedAt(match.the(comparison))!.call.child("function")!;
      return name.text.startsWith("\\")
        ? yes("name.library", "it is named in full", name)
        : isOfPhp(name.text, match);
    }),
    condition("no function of the project stands in for the new one", (match) => {
      const { function: name, call } = askedAt(match.the(comparison))!;
      const isFull = call.child("function")!.text.startsWith("\\");
      const own = isFull ? undefined : isDefinedInProject(name, match.tree);
      return own ?? yes("name.free", `\`${name}\` is the language's`);
    }),
  ],
  becomes: asked,
  trials: [
    rewrites(php("if (strpos($s, 'x') !== false) f();"), php("if (str_contains($s, 'x')) f();")),
    rewrites(php("if (false === strpos($s, $n)) f();"), php("if (!str_contains($s, $n)) f();")),
    rewrites(php("return strpos($s, 'x') === 0;"), php("return str_starts_with($s, 'x');")),
    rewrites(php("return \\strpos($s, 'x') !== 0 && $b;"), php("return !\\str_starts_with($s, 'x') && $b;")),
    rewrites(php("return strncmp($s, $n, strlen($n)) === 0;"), php("return str_starts_with($s, $n);")),
    rewrites(php("return substr($s, -4) === '.php';"), php("return str_ends_with($s, '.php');")),
    rewrites(php("return substr($s, 0, 2) !== 'ab';"), php("return !str_starts_with($s, 'ab');")),
    rewrites(
      php(
        "namespace Shop;\n\nuse function strpos;\n\nreturn strpos($s, 'x') === 0 || strpos($s, 'y') === 1;",
      ),
      php(
        "namespace Shop;\n\nuse function strpos;\n\nreturn str_starts_with($s, 'x') || strpos($s, 'y') === 1;",
      ),
    ),
    holds(php("function strpos($a, $b) { return 1; }\nreturn strpos($s, 'x') === 0;"), "of its own"),
    ignores(php("return strncmp($s, next($n), strlen(next($n))) === 0;")),
    ignores(php("return strpos($s, 'x', 3) !== false;")),
    ignores(php("return strpos($s, 'x') != false;")),
    ignores(php("return strpos($s, 'x') === 1;")),
    ignores(php("return substr($s, -3) === '.php';")),
    ignores(php("return stripos($s, 'x') !== false;")),
    trialsIn("php", "7.4").ignores(php("return strpos($s, 'x') !== false;")),
  ],
});
