import {
  annotationOf,
  condition,
  copy,
  holes,
  no,
  referencesAt,
  rule,
  shortened,
  switched,
  text,
  trialsIn,
  typeOf,
} from "../../../core.js";
import { unknown, yes } from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { asExpression } from "../../family/switch-values.js";

const { subject } = holes({ subject: "expression" });

/** What PHP takes for a number when it compares two texts. */
const NUMERIC = /^\s*[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?\s*$/i;

/** The type of a constant that is written out, with no escapes that make another text of it. */
function literalType(label: SyntaxNode): string | undefined {
  if (label.is("integer")) return "int";
  if (label.is("string") || (label.is("encapsed_string") && !/[$\\]/.test(label.text))) return "string";
  return label.is("boolean") ? "bool" : undefined;
}

/** Constants that null is equal to. */
const LIKE_NULL = /^(?:''|""|false|0(?:[xob]?[0_]*))$/i;

const ASKS = /^(?:===?|!==?|<|>|<=|>=|<>|&&|\|\||and|or|xor|instanceof)$/i;

/** Is a value true or false, and nothing that only counts as such? */
function isTruth(node: SyntaxNode): boolean {
  if (node.is("parenthesized_expression")) return isTruth(node.firstPart!);
  if (node.is("unary_op_expression")) return node.text.startsWith("!");
  return (
    node.is("boolean") || (node.is("binary_expression") && ASKS.test(node.child("operator")?.text ?? ""))
  );
}

/** May something be null, for all that its declaration says? */
function mayBeNull(asked: SyntaxNode): boolean {
  const name = [...asked.descendants()].findLast((node) => node.isLeaf && node.named);
  const at = name && referencesAt(name).find(({ to }) => to)?.to?.at[0];
  const written = at && annotationOf(at);
  if (!written) return true;
  const holder = at.closest(["simple_parameter", "property_promotion_parameter", "property_element"]);
  return written.is("optional_type") || !holder || holder.child("default_value")?.is("null") === true;
}

/** `switch` compares as `==` does, and `match` as `===`. */
function comparesTheSame(match: Match): Answer {
  const code = "value.kind";
  const asked = match.the(subject);
  const shown = `\`${shortened(asked.text)}\``;
  const labels = match.switched.arms.flatMap((arm) => arm.labels);
  if (asked.is("boolean")) {
    const odd = labels.find((label) => !isTruth(label));
    return odd
      ? unknown(code, `\`${shortened(odd.text)}\` could be a value that only counts as true or false`, odd)
      : yes(code, "each test is true or false", asked);
  }
  const types = labels.map(literalType);
  const [first] = types;
  const type = typeOf(asked)?.name;
  const other = unknown(
    code,
    `${shown} could be equal to a constant of another type, which \`match\` takes for another value`,
    asked,
  );
  if (first === undefined || types.some((one) => one !== first)) return other;
  if (type !== undefined && type !== first && /^(?:int|string|bool|float|array)$/.test(type))
    return no(
      code,
      `${shown} is \`${type}\` and the constants are \`${first}\`: \`match\` would find none of them`,
      asked,
    );
  const numeric = labels.find((label) => first === "string" && NUMERIC.test(label.text.slice(1, -1)));
  if (numeric)
    return unknown(
      code,
      `a text that is another spelling of the number ${numeric.text} was equal to it`,
      numeric,
    );
  if (type !== first) return other;
  const empty = labels.find((label) => LIKE_NULL.test(label.text));
  return empty && mayBeNull(asked)
    ? unknown(code, `${shown} could be null, which was equal to \`${empty.text}\``, empty)
    : yes(code, `${shown} is \`${type}\`, as the constants are`, asked);
}

/** A function that gives a reference needs a variable to give. */
function givesValue({ node, switched: { target } }: Match): Answer {
  const around = target
    ? undefined
    : node.closest(["function_definition", "method_declaration", "anonymous_function"]);
  return around?.parts.some((part) => part.is("reference_modifier"))
    ? no("value.result", "the function returns a reference", around)
    : yes("value.result", "a value is given");
}

const { rewrites, ignores, holds } = trialsIn("php", "8.0");
const php = (code: string): string => `<?php\n${code}\n`;
const inFunction = (code: string, parameter = "int $a"): string =>
  php(`function f(${parameter})\n{\n    ${code.replaceAll("\n", "\n    ")}\n}`);

export const matchValue = rule({
  id: "php/match-value",
  kind: "idiom",
  title: "Use match for a switch that only gives a value",
  why: "A switch compares loosely, runs on where a break is forgotten, and says for each value again where it goes.",
  target: "8.0",
  was: switched(subject),
  given: [
    condition("constants are compared with values of their own type", comparesTheSame),
    condition("no reference is returned", givesValue),
  ],
  becomes: (match) =>
    asExpression(match, {
      head: ({ start, end }) => [text("match ("), copy(start, end), text(")")],
      label: { before: "", between: ", ", otherwise: "default" },
      arrow: " => ",
      end: ",",
      lastEnd: ",",
      throwsAsStatement: false,
    }),
  trials: [
    rewrites(
      inFunction(
        'switch ($a) {\n    case 1:\n    case 2:\n        return "x";\n    case 3:\n        return g($a);\n    default:\n        throw new E();\n}',
      ),
      inFunction('return match ($a) {\n    1, 2 => "x",\n    3 => g($a),\n    default => throw new E(),\n};'),
    ),
    rewrites(
      inFunction(
        "switch ($a) {\n    case 'clover':\n        $this->y = 1; // light\n        break;\n    case 'lime':\n        $this->y = 2;\n        break;\n    default:\n        $this->y = 0;\n}",
        "string $a",
      ),
      inFunction(
        "$this->y = match ($a) {\n    'clover' => 1, // light\n    'lime' => 2,\n    default => 0,\n};",
        "string $a",
      ),
    ),
    rewrites(
      inFunction("switch (true) { case $a > 9: return 'x'; case $a > 3: return 'z'; }\nreturn 'd';"),
      inFunction("return match (true) { $a > 9 => 'x', $a > 3 => 'z', default => 'd' };"),
    ),
    rewrites(
      inFunction(
        "switch ($a) {\n    case 1: // one\n    case 2: // two\n        return 'x';\n    case 3:\n        return 'z';\n    default:\n        return 'd';\n}",
      ),
      inFunction(
        "return match ($a) {\n    1, // one\n    2 => 'x', // two\n    3 => 'z',\n    default => 'd',\n};",
      ),
    ),
    // "1.0" was equal to "1", "01" as well, and null to "".
    rewrites(
      inFunction(
        "switch ($a) { case '1': return 'x'; case '2': return 'z'; default: return 'd'; }",
        "string $a",
      ),
      inFunction("return match ($a) { '1' => 'x', '2' => 'z', default => 'd' };", "string $a"),
      "likely",
    ),
    rewrites(
      inFunction("switch ($a) { case K::B: return 'x'; case K::C: return 'z'; default: return 'd'; }"),
      inFunction("return match ($a) { K::B => 'x', K::C => 'z', default => 'd' };"),
      "likely",
    ),
    rewrites(
      inFunction("switch (true) { case f($a): return 'x'; case g($a): return 'z'; default: return 'd'; }"),
      inFunction("return match (true) { f($a) => 'x', g($a) => 'z', default => 'd' };"),
      "likely",
    ),
    rewrites(
      inFunction("switch ($a) { case 'x': return 1; case '': return 2; default: return 3; }", "$a"),
      inFunction("return match ($a) { 'x' => 1, '' => 2, default => 3 };", "$a"),
      "likely",
    ),
    rewrites(
      inFunction(
        "switch ($a) { case \"\\x31\": return 1; case 'b': return 2; default: return 3; }",
        "string $a",
      ),
      inFunction("return match ($a) { \"\\x31\" => 1, 'b' => 2, default => 3 };", "string $a"),
      "likely",
    ),
    rewrites(
      inFunction(
        "switch ($a):\n    case 1:\n        return 1;\n    case 2:\n        return 2;\n    default:\n        return 3;\nendswitch;",
      ),
      inFunction("return match ($a) {\n    1 => 1,\n    2 => 2,\n    default => 3,\n};"),
    ),
    // What was an int may be something else by then, or null, which is equal to 0.
    ...[
      "$a = g();",
      "foreach ($b as $a) {}",
      "preg_match('/x/', $c, $a);",
      "g($a);",
      "extract($b);",
      "$$b = 'x';",
      "$b = &$a;",
    ].map((code) =>
      rewrites(
        inFunction(`${code}\nswitch ($a) { case 1: return 1; case 2: return 2; default: return 3; }`),
        inFunction(`${code}\nreturn match ($a) { 1 => 1, 2 => 2, default => 3 };`),
        "likely",
      ),
    ),
    rewrites(
      inFunction(
        "$a = 3;\nf(strlen($a));\nswitch ($a) { case 1: return 1; case 2: return 2; default: return 3; }",
      ),
      inFunction("$a = 3;\nf(strlen($a));\nreturn match ($a) { 1 => 1, 2 => 2, default => 3 };"),
    ),
    ...["?int $a", "int $a = null", "int|null $a"].map((parameter) =>
      rewrites(
        inFunction("switch ($a) { case 0: return 1; case 2: return 2; default: return 3; }", parameter),
        inFunction("return match ($a) { 0 => 1, 2 => 2, default => 3 };", parameter),
        "likely",
      ),
    ),
    rewrites(
      inFunction("switch ($a) { case 0: return 1; case 2: return 2; default: return 3; }"),
      inFunction("return match ($a) { 0 => 1, 2 => 2, default => 3 };"),
    ),
    holds(
      inFunction("switch ($a) { case '1': return 'x'; case '2': return 'z'; default: return 'd'; }"),
      "would find none of them",
    ),
    holds(
      php(
        "function &f(int $a) { switch ($a) { case 1: return $x; case 2: return $y; default: return $z; } }",
      ),
      "returns a reference",
    ),
    // It runs on, and for all else the variable keeps its value.
    ignores(inFunction("switch ($a) { case 1: $y = 1; case 2: $y = 2; break; default: $y = 3; }")),
    ignores(inFunction("switch ($a) { case 1: $y = 1; break; case 2: $y = 2; break; case 3: $y = 3; }")),
    ignores(
      inFunction("switch ($a) { case 1: $y = &$b; break; case 2: $y = &$c; break; default: $y = &$d; }"),
    ),
    ignores(inFunction("switch ($a) { case 1: return; case 2: return 1; default: return 2; }")),
    ignores(
      inFunction("switch ($a) { case 1: $y[] = 1; break; case 2: $y[] = 2; break; default: $y[] = 3; }"),
    ),
    ignores(
      inFunction(
        "foreach ($xs as $x) { switch ($a) { case 1: continue 2; case 2: return 1; default: return 2; } }",
      ),
    ),
    trialsIn("php", "7.4").ignores(
      inFunction("switch ($a) { case 1: return 1; case 2: return 2; default: return 3; }"),
    ),
  ],
});
