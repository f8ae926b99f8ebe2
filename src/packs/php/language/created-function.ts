import { condition, holes, no, php, rule, shortened, text, trialsIn, unknown, yes } from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { isOfPhp } from "../values.js";
import { callableTaker } from "./callables.js";

const { parameters, body } = holes({
  parameters: { kind: "expression", node: ["string", "encapsed_string"] },
  body: { kind: "expression", node: ["string", "encapsed_string"] },
});

/** The text that a literal without escapes and without values in it stands for. */
function plainText(node: SyntaxNode): string | undefined {
  const inside = node.text.slice(1, -1);
  return /\\/.test(inside) || (node.is("encapsed_string") && inside.includes("$")) ? undefined : inside;
}

/** Both texts are code as it stands. */
function areCode(match: Match): Answer {
  const odd = [match.the(parameters), match.the(body)].find((node) => plainText(node) === undefined);
  if (odd) return no("form.fits", `\`${shortened(odd.text)}\` has escapes or values in it`, odd);
  const code = plainText(match.the(body))!;
  if (/\/\/|#|\/\*/.test(code)) return no("form.fits", "there may be a comment in the code", match.the(body));
  return /\?>|__FUNCTION__|\bfunc_get_args\b|\$this\b/.test(code)
    ? no("form.fits", "the code asks for what is another thing in a closure", match.the(body))
    : yes("form.fits", "both texts are code as it stands", match.the(body));
}

/** The code was read outside of all namespaces, where names of classes mean other ones. */
function meansTheSame(match: Match): Answer {
  const code = plainText(match.the(body)) ?? "";
  const at = match.the(body);
  if (match.tree.ofKinds(["namespace_definition"]).length === 0)
    return yes("name.scope", "the file is outside of all namespaces", at);
  if (/\bnew\b|::|\binstanceof\b|\bcatch\b/.test(code))
    return no("name.scope", "the code names classes, which it did outside of this namespace", at);
  return /(?<![$>\w])[a-z_]\w*\s*\(/i.test(code)
    ? unknown("name.scope", "this namespace may have functions of the names that the code calls", at)
    : yes("name.scope", "it names the same things", at);
}

/** The old function was a text, the name of a new function; what only calls it takes a closure as well. */
function isOnlyCalled(match: Match): Answer {
  const { node } = match;
  const taker = callableTaker(node);
  return taker && isOfPhp(taker.name, match).is === "yes"
    ? yes("type.is", `\`${taker.name}\` calls it`, taker.call)
    : unknown("type.is", "a closure is no text, which somebody may expect here", node);
}

const { rewrites, holds, ignores } = trialsIn("php");
const code = (text: string): string => `<?php\n${text}\n`;

export const createdFunction = rule({
  id: "php/created-function",
  kind: "breaks",
  title: "Use a closure instead of create_function",
  why: "PHP 8 has no `create_function` any more; and code in a text is seen by no tool.",
  was: php`create_function(${parameters}, ${body})`,
  given: [
    condition("the function is the language's", (match) => isOfPhp("create_function", match)),
    condition("both texts are code as it stands", areCode),
    condition("the code means the same here", meansTheSame),
    condition("the function is only called", isOnlyCalled),
  ],
  becomes: (match) => {
    const inside = plainText(match.the(body))!.trim();
    return [text(`static function (${plainText(match.the(parameters))!.trim()}) { ${inside} }`)];
  },
  trials: [
    rewrites(
      code("usort($jars, create_function('$a, $b', 'return $a->age - $b->age;'));"),
      code("usort($jars, static function ($a, $b) { return $a->age - $b->age; });"),
    ),
    rewrites(
      code("$all = array_map(create_function('$n', 'return $n * 2;'), $all);"),
      code("$all = array_map(static function ($n) { return $n * 2; }, $all);"),
    ),
    rewrites(
      code("$f = create_function('', 'global $n; return $n;');"),
      code("$f = static function () { global $n; return $n; };"),
      "likely",
    ),
    rewrites(
      code("namespace Shop;\n$f = array_map(create_function('$n', 'return $n * 2;'), $all);"),
      code("namespace Shop;\n$f = array_map(static function ($n) { return $n * 2; }, $all);"),
    ),
    holds(
      code("namespace Shop;\nusort($a, create_function('$a', 'return new Jar($a);'));"),
      "outside of this namespace",
    ),
    holds(code("usort($a, create_function('$a', \"return $a * 2;\"));"), "values in it"),
    holds(code("usort($a, create_function('$a', 'return \\'x\\';'));"), "escapes"),
    holds(code("usort($a, create_function('$a', 'return $a +;'));"), "syntax error"),
    holds(code("usort($a, create_function('$a', 'return __FUNCTION__;'));"), "another thing"),
    holds(code("usort($a, create_function('$a', 'return 1; // all alike'));"), "a comment"),
    rewrites(
      code("namespace Shop;\nusort($a, create_function('$a', 'return weigh($a);'));"),
      code("namespace Shop;\nusort($a, static function ($a) { return weigh($a); });"),
      "likely",
    ),
    rewrites(
      code("usort($a, [create_function('$a', 'return 1;')]);"),
      code("usort($a, [static function ($a) { return 1; }]);"),
      "likely",
    ),
    ignores(code("usort($a, create_function($p, 'return 1;'));")),
    ignores(code("usort($a, create_function('$a', 'return ' . $x . ';'));")),
    ignores(code("$x->create_function('$a', 'return 1;');")),
  ],
});
