import { condition, holes, php, rule, trialsIn } from "../../../core.js";
import { isOfPhp } from "../values.js";

const { object } = holes({ object: "expression" });

const { rewrites, ignores, holds } = trialsIn("php", "8.0");
const code = (text: string): string => `<?php\n${text}\n`;

export const classOf = rule({
  id: "php/class-of",
  kind: "idiom",
  title: "Use ::class for the class of an object",
  why: "The same form names the class of an object and a class itself, and needs no call.",
  target: "8.0",
  was: php`get_class(${object})`,
  given: [condition("the function is the language's", (match) => isOfPhp("get_class", match))],
  // Readers of PHP before 8.4 want parentheses around `new`.
  becomes: (match) =>
    match.the(object).is("object_creation_expression") ? php`(${object})::class` : php`${object}::class`,
  trials: [
    rewrites(code("echo get_class($jar);"), code("echo $jar::class;")),
    rewrites(
      code("return get_class($this->jar) === Jar::class;"),
      code("return $this->jar::class === Jar::class;"),
    ),
    rewrites(code("$c = get_class($a ?? $b);"), code("$c = ($a ?? $b)::class;")),
    rewrites(code("$c = get_class(new Jar());"), code("$c = (new Jar())::class;")),
    rewrites(code("$c = get_class(clone $a);"), code("$c = (clone $a)::class;")),
    rewrites(code("$c = get_class($f($x));"), code("$c = $f($x)::class;")),
    rewrites(
      code(
        "namespace Shop;\n\nuse function get_class;\nuse function count;\n\necho get_class($jar), count($all);",
      ),
      code("namespace Shop;\n\nuse function count;\n\necho $jar::class, count($all);"),
    ),
    holds(code("namespace Shop;\nuse function Yard\\get_class;\necho get_class($jar);"), "of its own"),
    holds(code("function get_class($x) { return 1; }\necho get_class($jar);"), "of its own"),
    ignores(code("class A { function f() { return get_class(); } }")),
    ignores(code("$names = array_map('get_class', $jars);")),
    ignores(code("echo $shop->get_class($jar);")),
    ignores(code("echo get_parent_class($jar);")),
    trialsIn("php", "7.4").ignores(code("echo get_class($jar);")),
  ],
});
