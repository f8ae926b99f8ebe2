import {
  changesOf,
  condition,
  functionAround,
  holes,
  php,
  referencesAt,
  rule,
  shortened,
  trialsIn,
  typeOf,
  unknown,
  usesOf,
  yes,
} from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { isOfPhp } from "../values.js";

const { list, item } = holes({
  list: {
    kind: "expression",
    node: ["variable_name", "member_access_expression", "scoped_property_access_expression"],
  },
  item: "expression",
});

/** Functions that take an array by reference, and leave an array. */
const KEEP_ARRAYS = /^\\?(?:array_(?:push|unshift|pop|shift|splice|walk)|[aku]?r?sort|u[ak]sort|shuffle)$/i;

/** Is the variable an array after this change, if it was one before? */
function keepsArray(changed: SyntaxNode): boolean {
  const { parent } = changed;
  if (parent?.is("subscript_expression")) return true;
  if (parent?.is("assignment_expression") && parent.child("left")?.same(changed))
    return typeOf(parent.child("right")!)?.name === "array";
  const call = parent?.is("arguments") ? parent.parent : undefined;
  return KEEP_ARRAYS.test(call?.child("function")?.text ?? "");
}

/** Is a local variable given an array first, in any case, and nothing but arrays later? */
function isAlwaysArray(node: SyntaxNode): boolean {
  const to = node.is("variable_name")
    ? referencesAt(node.firstPart!).find(({ member }) => !member)?.to
    : undefined;
  if (!to || to.as === "parameter" || usesOf(to).doubts.length > 0) return false;
  const changes = changesOf(to).map(({ node: at }) => at.closest(["variable_name"]) ?? at);
  const [first] = changes;
  const statement = first?.closest(["expression_statement"]);
  const isFirst = statement?.parent?.same(functionAround(node)?.child("body") ?? node) === true;
  return isFirst && first!.end < node.start && changes.every(keepsArray);
}

/** `array_push` refuses what is no array; brackets make one of null, and ask an object. */
function isArray(match: Match): Answer {
  const node = match.the(list);
  const type = typeOf(node);
  if (isAlwaysArray(node)) return yes("type.is", `\`${node.text}\` is only ever given arrays`, node);
  return type?.name === "array"
    ? yes("type.is", type.why, type.at)
    : unknown("type.is", `\`${shortened(node.text)}\` may be no array, which \`array_push\` refuses`, node);
}

const { rewrites, ignores, holds } = trialsIn("php");
const code = (text: string): string => `<?php\n${text}\n`;

export const appended = rule({
  id: "php/appended",
  kind: "idiom",
  title: "Append one item with [] instead of array_push",
  why: "`[]` says what is done without a call, and the language manual recommends it for one item.",
  was: php`array_push(${list}, ${item});`,
  given: [
    condition("the function is the language's", (match) => isOfPhp("array_push", match)),
    condition("it is an array", isArray),
  ],
  becomes: php`${list}[] = ${item};`,
  trials: [
    rewrites(
      code("function f(array $jars) {\n    array_push($jars, 1);\n    return $jars;\n}"),
      code("function f(array $jars) {\n    $jars[] = 1;\n    return $jars;\n}"),
    ),
    rewrites(
      code("function f($x) { $all = []; array_push($all, g($x, 2)); }"),
      code("function f($x) { $all = []; $all[] = g($x, 2); }"),
    ),
    rewrites(
      code(
        "class A {\n    private array $all = [];\n    function f($x) { array_push($this->all, [$x]); }\n}",
      ),
      code("class A {\n    private array $all = [];\n    function f($x) { $this->all[] = [$x]; }\n}"),
    ),
    rewrites(
      code("function f($x) { $all = []; if ($x) $all = $x; array_push($all, 1); }"),
      code("function f($x) { $all = []; if ($x) $all = $x; $all[] = 1; }"),
      "likely",
    ),
    rewrites(
      code("function f($x) { if ($x) $all = []; array_push($all, 1); }"),
      code("function f($x) { if ($x) $all = []; $all[] = 1; }"),
      "likely",
    ),
    rewrites(code("array_push($all, 'x');"), code("$all[] = 'x';"), "likely"),
    rewrites(
      code("function f($a) { $all = []; array_push($all, $a and g()); }"),
      code("function f($a) { $all = []; $all[] = ($a and g()); }"),
    ),
    holds(code("namespace Shop;\nfunction array_push(&$a, $b) {}\narray_push($all, 1);"), "of its own"),
    // the number of items, several items, those of another array, a name among arguments
    ignores(code("$n = array_push($all, 1);")),
    ignores(code("array_push($all, 1, 2);")),
    ignores(code("array_push($all, ...$more);")),
    ignores(code("array_push(f(), 1);")),
    ignores(code("array_push($all[next($i)], 1);")),
    ignores(code("$all[] = 1;")),
  ],
});
