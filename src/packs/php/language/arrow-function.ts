import { condition, copy, holes, no, ofKind, rule, shortened, text, trialsIn, yes } from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { reachingByName } from "../by-name.js";

const { fn } = holes({ fn: { kind: "expression", node: "anonymous_function" } });

/** The expression that a function comes to, where it does nothing else. */
function valueOf(node: SyntaxNode): SyntaxNode | undefined {
  const body = node.child("body");
  const [only, ...more] = body?.parts ?? [];
  if (!body || !only?.is("return_statement") || more.length > 0) return undefined;
  if (node.tree.commentsIn(body.start, body.end).length > 0) return undefined;
  return only.firstPart;
}

const captures = (node: SyntaxNode): SyntaxNode | undefined =>
  node.parts.find((part) => part.is("anonymous_function_use_clause"));

const takesReferences = (clause: SyntaxNode | undefined): boolean =>
  [...(clause?.descendants() ?? [])].some((one) => one.is("by_ref"));

function fits(node: SyntaxNode): boolean {
  const value = valueOf(node);
  const isMarked = node.tree.text.slice(node.start, node.child("parameters")!.start).includes("#[");
  return value !== undefined && !isMarked && !value.text.includes("\n") && !takesReferences(captures(node));
}

/** An arrow sees all variables around it by their values, and what it sets is gone when it is over. */
function seesTheSame(match: Match): Answer {
  const node = match.the(fn);
  const value = valueOf(node)!;
  const odd = reachingByName([value]);
  if (odd) return no("name.reflection", `\`${shortened(odd.text)}\` reaches variables by their names`, odd);
  const own = new Set(
    [
      ...(captures(node)?.text ?? "").matchAll(/\$\w+/g),
      ...(node.child("parameters")?.text ?? "").matchAll(/\$\w+/g),
    ].map(([name]) => name),
  );
  for (const one of value.descendants()) {
    if (!one.is("variable_name") || one.text === "$this" || own.has(one.text)) continue;
    // A variable of a function in it is that function's.
    if (
      [...one.ancestors()].some(
        (above) => value.holds(above) && above.is(["anonymous_function", "arrow_function"]),
      )
    )
      continue;
    return no(
      "name.scope",
      `\`${one.text}\` is not set in the function, and would be the one around it`,
      one,
    );
  }
  return yes("name.scope", "it sees the same variables");
}

function arrow(match: Match): Segment[] {
  const node = match.the(fn);
  const value = valueOf(node)!;
  const list = node.child("parameters")!;
  const type = node.child("return_type");
  const ref = node.parts.some((part) => part.is("reference_modifier")) ? "&" : "";
  const lead = node.parts.some((part) => part.is("static_modifier")) ? "static " : "";
  return [
    text(`${lead}fn${ref}`),
    copy(list.start, list.end),
    ...(type ? [text(": "), copy(type.start, type.end)] : []),
    text(" => "),
    copy(value.start, value.end),
  ];
}

const { rewrites, ignores, holds } = trialsIn("php", "8.1");
const php = (code: string): string => `<?php\n${code}\n`;

export const arrowFunction = rule({
  id: "php/arrow-function",
  kind: "idiom",
  title: "Use an arrow function for one expression",
  why: "`function`, `use`, `return` and braces hide the one expression that the function is.",
  target: "7.4",
  was: ofKind(fn, { when: fits }),
  mentions: ["function"],
  given: [condition("it sees the same variables", seesTheSame)],
  becomes: arrow,
  trials: [
    rewrites(php("$f = function ($x) use ($y) { return $x + $y; };"), php("$f = fn($x) => $x + $y;")),
    rewrites(
      php("$a = array_map(static function (int $x): int {\n    return $x * 2;\n}, $b);"),
      php("$a = array_map(static fn(int $x): int => $x * 2, $b);"),
    ),
    rewrites(php("$f = function () { return $this->age; };"), php("$f = fn() => $this->age;")),
    rewrites(
      php("$f = function ($x) use ($y) { return function ($z) use ($x, $y) { return $x + $y + $z; }; };"),
      php("$f = fn($x) => fn($z) => $x + $y + $z;"),
    ),
    holds(php("$f = function ($x) { return $x + $y; };"), "would be the one around it"),
    holds(php("$f = function ($x) { return compact('x'); };"), "by their names"),
    ignores(php("$f = function ($x) use (&$y) { return $y++; };")),
    ignores(php("$f = function ($x) use (&/* ours */ $y) { return $y++; };")),
    ignores(php("$f = function ($x) { f($x); };")),
    ignores(php("$f = function ($x) { return; };")),
    ignores(php("$f = function ($x) { $y = 1; return $y; };")),
    ignores(php("$f = function ($x) { return $x; /* x */ };")),
    ignores(php("$f = #[Pure] function ($x) { return $x; };")),
    ignores(php("function f($x) { return $x; }")),
    trialsIn("php", "7.3").ignores(php("$f = function ($x) { return $x; };")),
  ],
});
