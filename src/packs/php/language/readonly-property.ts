import { condition, copy, holes, ofKind, rule, trialsIn, unknown, weakest, yes } from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { accessesOf, isGivenInConstructor, onlyReads, reachedByName } from "./property-uses.js";

const { property } = holes({
  property: { kind: "statement", node: ["property_declaration", "property_promotion_parameter"] },
});

const classOf = (node: SyntaxNode): SyntaxNode => node.closest(["class_declaration"])!;
const says = (node: SyntaxNode, kind: string): boolean => node.parts.some((part) => part.is(kind));

/** The name of the one property that is declared here, without its dollar. */
function nameIn(node: SyntaxNode): string | undefined {
  const [element, ...others] = node.is("property_promotion_parameter")
    ? [node]
    : node.parts.filter((part) => part.is("property_element"));
  return others.length === 0 ? element?.child("name")?.text.slice(1) : undefined;
}

/** Only the class itself can write to the property. */
function isOfClassAlone(node: SyntaxNode): boolean {
  const owner = node.closest([
    "class_declaration",
    "trait_declaration",
    "enum_declaration",
    "object_creation_expression",
  ]);
  if (!owner?.is("class_declaration") || says(owner, "readonly_modifier")) return false;
  const visibility = node.parts.find((part) => part.is("visibility_modifier"))?.text.toLowerCase();
  const isEnd = says(owner, "final_modifier") && !says(owner, "base_clause");
  return visibility === "private" || (visibility === "protected" && isEnd);
}

/** A typed property of objects that gets its value in the constructor, and has none of its own before that. */
function fits(node: SyntaxNode): boolean {
  const name = nameIn(node);
  if (name === undefined || node.child("type") === undefined || !isOfClassAlone(node)) return false;
  const excluded = ["static_modifier", "readonly_modifier", "property_hook_list"];
  if (excluded.some((kind) => says(node, kind))) return false;
  const given = accessesOf(classOf(node), name).filter(isGivenInConstructor);
  if (node.is("property_promotion_parameter")) return given.length === 0 && !says(node, "reference_modifier");
  const element = node.parts.find((part) => part.is("property_element"))!;
  return given.length === 1 && element.child("default_value") === undefined;
}

function isWrittenOnce(match: Match): Answer {
  const node = match.the(property);
  const owner = classOf(node);
  const name = nameIn(node)!;
  const again = /(\$this\s*->|self\s*::|static\s*::)\s*__construct\b/i.exec(owner.text);
  if (again) return unknown("flow.written", "the constructor is called once more, and writes again", owner);
  return weakest([
    yes("flow.written", `\`${name}\` is written by the constructor alone`, node),
    ...accessesOf(owner, name)
      .filter((access) => !isGivenInConstructor(access))
      .map(onlyReads),
  ]);
}

/** Nothing reaches it in a way that the class does not show. */
function isReachedByItsName(match: Match): Answer {
  const node = match.the(property);
  const name = nameIn(node)!;
  const owner = classOf(node);
  const byName = reachedByName(owner);
  if (byName) return unknown("name.reflection", `\`${byName.text}\` could be \`${name}\``, byName);
  const trait = owner.child("body")?.parts.find((part) => part.is("use_declaration"));
  if (trait)
    return unknown("flow.written", `the trait in \`${trait.text}\` could write to \`${name}\``, trait);
  const attributes = node.child("attributes");
  if (attributes)
    return unknown(
      "name.reflection",
      `code that reads \`${attributes.text}\` could write to \`${name}\``,
      attributes,
    );
  const doc = node.tree.text.slice(node.previousPart?.end ?? node.parent!.start, node.start);
  const mark = /^\s*(?:\/\*)?\*\s*@([A-Z]\w*)/m.exec(doc)?.[1];
  return mark === undefined
    ? yes("name.reflection", `\`${name}\` is reached by its name alone`)
    : unknown("name.reflection", `code that reads \`@${mark}\` could write to \`${name}\``, node);
}

const { rewrites, ignores, holds } = trialsIn("php", "8.1");
const inClass = (members: string, head = "class Hive"): string => `<?php\n${head}\n{\n${members}}\n`;
const made = (rest = "", head?: string, words = "private"): string =>
  inClass(
    `    ${words} string $name;\n\n    public function __construct(string $name)\n    {\n        $this->name = trim($name);\n    }\n${rest}`,
    head,
  );
const moved = (rest = "", head?: string, words = "private"): string => made(rest, head, `${words} readonly`);
const method = (code: string): string => `\n    function later($x)\n    {\n        ${code}\n    }\n`;

export const readonlyProperty = rule({
  id: "php/readonly-property",
  kind: "idiom",
  title: "Declare a property readonly that only the constructor writes",
  why: "The reader must look at every method to see that the value stays, and nothing stops the next one from changing it.",
  target: "8.1",
  was: ofKind(property, { when: fits }),
  mentions: ["__construct"],
  given: [
    condition("only the constructor writes it", isWrittenOnce),
    condition("nothing else reaches it", isReachedByItsName),
  ],
  becomes: (match) => {
    const node = match.the(property);
    const at = node.child("type")!.start;
    return [copy(node.start, node.end, [{ start: at, end: at, text: "readonly " }])];
  },
  trials: [
    rewrites(made(), moved()),
    rewrites(
      made(method('return strlen($this->name) . "$this->name";')),
      moved(method('return strlen($this->name) . "$this->name";')),
    ),
    rewrites(
      inClass(
        "    public function __construct(private Queen $queen, private ?int $n = null) {}\n\n    function q(): Queen { return $this->queen->twin; }\n",
      ),
      inClass(
        "    public function __construct(private readonly Queen $queen, private readonly ?int $n = null) {}\n\n    function q(): Queen { return $this->queen->twin; }\n",
      ),
    ),
    rewrites(
      made(method("$this->queen->name = $x;").replaceAll("->name", "->age")),
      moved(method("$this->queen->name = $x;").replaceAll("->name", "->age")),
    ),
    rewrites(made("", "final class Hive", "protected"), moved("", "final class Hive", "protected")),
    rewrites(made(method("weigh($this->name);")), moved(method("weigh($this->name);")), "likely"),
    rewrites(made(method("return $this->$x;")), moved(method("return $this->$x;")), "likely"),
    rewrites(
      made().replace("    private", "    /** @Column */\n    private"),
      moved().replace("    private", "    /** @Column */\n    private"),
      "likely",
    ),
    rewrites(
      made().replace("    private", "    #[Column]\n    private"),
      moved().replace("    private", "    #[Column]\n    private"),
      "likely",
    ),
    rewrites(
      made(method("return str_replace('a', 'b', $this->name);")),
      moved(method("return str_replace('a', 'b', $this->name);")),
      "likely",
    ),
    holds(made(method("str_replace('a', 'b', $x, $this->name);")), "may write"),
    rewrites(made("    use Named;\n"), moved("    use Named;\n"), "likely"),
    rewrites(made(method("return \\strlen($this->name);")), moved(method("return \\strlen($this->name);"))),
    rewrites(
      made(method("return strlen($this->name);") + "    public function strlen() {}\n"),
      moved(method("return strlen($this->name);") + "    public function strlen() {}\n"),
    ),
    holds(
      made(method("return strlen($this->name);")) + "function strlen(&$x) {}\n",
      "takes arguments by reference",
    ),
    holds(made(method("$this->name = $x;")), "is written here"),
    holds(made(method("$copy = clone $this; $copy->name = $x; return $copy;")), "is written here"),
    holds(made(method("$this->name .= $x;")), "is written here"),
    holds(made(method("$this->name[0] = $x;")), "is written here"),
    holds(made(method("$r = &$this->name;")), "is written here"),
    holds(made(method("[$this->name] = $x;")), "is written here"),
    holds(made(method("foreach ($x as $this->name) {}")), "is written here"),
    holds(made(method("foreach ($this->name as &$c) {}")), "is written here"),
    holds(made(method("unset($this->name);")), "is written here"),
    holds(made(method("['n' => $this->name] = $x;")), "is written here"),
    holds(made(method("foreach ($x as $k => $this->name) {}")), "is written here"),
    holds(made(method("foreach ($this->name as $k => &$c) {}")), "is written here"),
    holds(made(method("sort($this->name);")), "`sort` may write"),
    holds(made(method("\\preg_match('/a/', $x, $this->name);")), "may write"),
    holds(made("\n    function &name() { return $this->name; }\n"), "by reference"),
    holds(
      made(method("$this->cut($this->name);") + "    private function cut(&$text) { $text = ''; }\n"),
      "takes arguments by reference",
    ),
    ignores(made("", "class Hive", "protected")),
    ignores(made("", "class Hive", "public")),
    ignores(made("", "readonly class Hive")),
    ignores(made().replace("$name;", "$name { get => 'a'; }")),
    ignores(inClass("    private $n;\n    function __construct($n) { $this->n = $n; }\n")),
    ignores(inClass("    private int $n = 0;\n    function __construct(int $n) { $this->n = $n; }\n")),
    ignores(inClass("    private static int $n;\n    function __construct(int $n) { $this->n = $n; }\n")),
    ignores(
      inClass(
        "    private int $n;\n    function __construct(int $n) { $this->n = $n; if ($n < 0) $this->n = 0; }\n",
      ),
    ),
    ignores(
      inClass(
        "    private int $n;\n    function __construct(array $all) { foreach ($all as $n) { $this->n = $n; } }\n",
      ),
    ),
    ignores(inClass("    private int $n;\n    function fill(int $n) { $this->n = $n; }\n")),
    trialsIn("php", "8.0").ignores(made()),
  ],
});
