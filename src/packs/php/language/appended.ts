import { condition, holes, php, rule, trialsIn } from "../../../core.js";
import type { Answer, Match } from "../../../core.js";
import { isArray } from "../arrays.js";
import { isOfPhp } from "../values.js";

const { list, item } = holes({
  list: {
    kind: "expression",
    node: ["variable_name", "member_access_expression", "scoped_property_access_expression"],
  },
  item: "expression",
});

/** `array_push` refuses what is no array; brackets make one of null, and ask an object. */
const isList = (match: Match): Answer =>
  isArray(match.the(list), (shown) => `\`${shown}\` may be no array, which \`array_push\` refuses`);

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
    condition("it is an array", isList),
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
      code("function f(array $all = null) { array_push($all, 1); }"),
      code("function f(array $all = null) { $all[] = 1; }"),
      "likely",
    ),
    rewrites(
      code("class A { private ?array $all; function f() { array_push($this->all, 1); } }"),
      code("class A { private ?array $all; function f() { $this->all[] = 1; } }"),
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
