import { condition, holes, ofKind, rule, text, trialsIn, typeOf, unknown, yes } from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { isObjectType, isOfPhp } from "../values.js";
import { callableTaker } from "./callables.js";

const { whole } = holes({
  whole: { kind: "expression", node: ["array_creation_expression", "scoped_call_expression"] },
});

/** What is to be called: a method of an object or a class, or a function. */
interface Called {
  readonly of: SyntaxNode | undefined;
  readonly name: string;
}

const plainText = (node: SyntaxNode | undefined): string | undefined =>
  /^(['"])([\w\\]+)\1$/.exec(node?.text ?? "")?.[2];

const parted = (node: SyntaxNode | undefined): readonly SyntaxNode[] =>
  (node?.parts ?? []).map((part) =>
    part.is(["argument", "array_element_initializer"]) ? part.firstPart! : part,
  );

/** `[$this, "weigh"]` */
function methodIn(node: SyntaxNode | undefined): Called | undefined {
  if (!node?.is("array_creation_expression") || node.has("=>")) return undefined;
  const [of, name, ...more] = parted(node);
  const method = plainText(name);
  const isSpoken = of?.is(["variable_name", "member_access_expression"]) || classNamed(of) !== undefined;
  return isSpoken && more.length === 0 && method !== undefined && /^\w+$/.test(method)
    ? { of, name: method }
    : undefined;
}

/** The class that `Hive::class`, or `__CLASS__`, stands for. */
function classNamed(node: SyntaxNode | undefined): string | undefined {
  if (/^__CLASS__$/i.test(node?.text ?? "")) return "self";
  const name = /^(\\?[\w\\]+)\s*::\s*class$/i.exec(node?.text ?? "")?.[1];
  // A call of `parent::` tells the method another class than its own.
  return name !== undefined && /^parent$/i.test(name) ? undefined : name;
}

/** What `Closure::fromCallable` is given. */
function givenToClosure(node: SyntaxNode): SyntaxNode | undefined {
  if (!node.is("scoped_call_expression") || !/^fromCallable$/i.test(node.child("name")?.text ?? ""))
    return undefined;
  const scope = node.child("scope")?.text;
  const isPlain =
    scope === "Closure" && (!isInNamespace(node) || /^use\s+\\?Closure\s*;/m.test(node.tree.text));
  const [value, ...more] = parted(node.child("arguments"));
  return (isPlain || scope === "\\Closure") && more.length === 0 ? value : undefined;
}

const isInNamespace = ({ tree }: SyntaxNode): boolean => tree.ofKinds(["namespace_definition"]).length > 0;

/** They reach the variables of who calls them, so they may not be called in this way. */
const BOUND = /^(?:compact|extract|func_get_args?|func_num_args|get_defined_vars|parse_str)$/i;

function calledAt(node: SyntaxNode): Called | undefined {
  if (node.is("array_creation_expression")) {
    const taker = callableTaker(node);
    // What is called on the spot wants a call, and no name of it.
    return taker && !/^call_user_func/i.test(taker.name) ? methodIn(node) : undefined;
  }
  const value = givenToClosure(node);
  const name = plainText(value);
  if (name !== undefined && !BOUND.test(name))
    return { of: undefined, name: name.replace(/^\\+/, "").replaceAll("\\\\", "\\") };
  return methodIn(value);
}

function written(match: Match): string {
  const node = match.the(whole);
  const { of, name } = calledAt(node)!;
  if (!of) return `${isInNamespace(node) || name.includes("\\") ? "\\" : ""}${name}(...)`;
  const owner = classNamed(of);
  return owner === undefined ? `${of.text}->${name}(...)` : `${owner}::${name}(...)`;
}

/** What it is given to only calls it. */
function isOnlyCalled(match: Match): Answer {
  const node = match.the(whole);
  const taker = callableTaker(node);
  if (givenToClosure(node) !== undefined || !taker)
    return yes("type.is", "it is made a closure anyway", node);
  return isOfPhp(taker.name, match).is === "yes"
    ? yes("type.is", `\`${taker.name}\` only calls it`, taker.call)
    : unknown("type.is", `\`${taker.name}\` may not be the function of PHP`, taker.call);
}

/** The method is asked of the same object, or of the same class. */
function isOfTheSame(match: Match): Answer {
  const node = match.the(whole);
  const { of, name } = calledAt(node)!;
  if (!of || of.text === "$this") return yes("type.is", `\`${name}\` is the same one`, node);
  const owner = classNamed(of)?.toLowerCase();
  if (owner === undefined) {
    const type = typeOf(of);
    return type && isObjectType(type.name)
      ? yes("type.is", type.why, of)
      : unknown("type.is", `\`${of.text}\` could be the name of a class`, of);
  }
  if (owner !== "self") return yes("type.is", `\`${name}\` is the same one`, node);
  const around = node.closest(["class_declaration"]);
  const isEnd = around?.parts.some((part) => part.is("final_modifier")) === true;
  const method = around
    ?.child("body")
    ?.parts.find((one) => one.is("method_declaration") && one.child("name")?.text === name);
  // Calls by `self` and `parent` hand on which class it was.
  const asks = /\bstatic\s*(::|\()|\b(self|parent)\s*::\s*\w+\s*\(|\bnew\s+static\b|\bget_called_class\b/i;
  return isEnd || (method !== undefined && !asks.test(method.text))
    ? yes("type.is", `\`${name}\` does not ask which class it is called on`, method ?? node)
    : unknown("type.is", `\`static\` could mean another class in \`${name}\` now`, method ?? node);
}

const { rewrites, ignores } = trialsIn("php", "8.1");
const code = (line: string): string => `<?php\n${line}\n`;
const inClass = (line: string, rest = "", head = "class Hive"): string =>
  `<?php\n${head}\n{\n    function all(array $xs)\n    {\n        ${line}\n    }\n${rest}}\n`;
const TWIN = "    static function w($x) { return new static($x); }\n";
const HANDS_ON = "    static function w($x) { return self::made($x); }\n";
const PLAIN = "    static function w($x) { return $x * 2; }\n";

export const firstClassCallable = rule({
  id: "php/first-class-callable",
  kind: "idiom",
  title: "Name a method or a function that is handed on as `name(...)`",
  why: "A name in a string is found by no search for its uses, and not checked until it is called.",
  target: "8.1",
  was: ofKind(whole, { when: (node) => calledAt(node) !== undefined }),
  given: [
    condition("it is only called", isOnlyCalled),
    condition("the same function is called", isOfTheSame),
  ],
  becomes: (match) => [text(written(match))],
  trials: [
    rewrites(
      inClass("return array_map([$this, 'weigh'], $xs);"),
      inClass("return array_map($this->weigh(...), $xs);"),
    ),
    rewrites(inClass('usort($xs, array($this, "compare"));'), inClass("usort($xs, $this->compare(...));")),
    rewrites(
      inClass("return \\array_filter($xs, [static::class, 'isFull']);"),
      inClass("return \\array_filter($xs, static::isFull(...));"),
    ),
    rewrites(inClass("usort($xs, [self::class, 'w']);", PLAIN), inClass("usort($xs, self::w(...));", PLAIN)),
    rewrites(inClass("usort($xs, [__CLASS__, 'w']);", PLAIN), inClass("usort($xs, self::w(...));", PLAIN)),
    rewrites(
      inClass("usort($xs, [self::class, 'w']);", TWIN),
      inClass("usort($xs, self::w(...));", TWIN),
      "likely",
    ),
    rewrites(
      inClass("usort($xs, [self::class, 'w']);", TWIN, "final class Hive"),
      inClass("usort($xs, self::w(...));", TWIN, "final class Hive"),
    ),
    rewrites(
      inClass("usort($xs, [Order::class, 'byWeight']);"),
      inClass("usort($xs, Order::byWeight(...));"),
    ),
    rewrites(
      inClass("return \\Closure::fromCallable([$this, 'weigh']);"),
      inClass("return $this->weigh(...);"),
    ),
    rewrites(code("$f = Closure::fromCallable('strlen');"), code("$f = strlen(...);")),
    rewrites(
      code("namespace Hives;\nuse Closure;\n$f = Closure::fromCallable('strlen');"),
      code("namespace Hives;\n$f = \\strlen(...);"),
    ),
    rewrites(code("$f = Closure::fromCallable('Hives\\\\weigh');"), code("$f = \\Hives\\weigh(...);")),
    rewrites(
      code("function f(Queen $q) { return Closure::fromCallable([$q, 'lay']); }"),
      code("function f(Queen $q) { return $q->lay(...); }"),
    ),
    rewrites(
      code("function f(mixed $q) { return Closure::fromCallable([$q, 'lay']); }"),
      code("function f(mixed $q) { return $q->lay(...); }"),
      "likely",
    ),
    rewrites(code("$f = Closure::fromCallable([$queen, 'lay']);"), code("$f = $queen->lay(...);"), "likely"),
    rewrites(
      inClass("usort($xs, [self::class, 'w']);", HANDS_ON),
      inClass("usort($xs, self::w(...));", HANDS_ON),
      "likely",
    ),
    ignores(inClass("usort($xs, [parent::class, 'w']);")),
    ignores(inClass("return array_map('trim', [$this, 'weigh']);")),
    ignores(inClass("return new Filter('w', [$this, 'weigh']);")),
    ignores(inClass("call_user_func([$this, 'weigh'], $xs);")),
    ignores(inClass("spl_autoload_register([$this, 'load']);")),
    ignores(inClass("return array_map([$this, $name], $xs);")),
    ignores(inClass("return array_map([$this, 'parent::weigh'], $xs);")),
    ignores(code("$f = Closure::fromCallable('Queen::lay');")),
    ignores(code("$f = Closure::fromCallable('compact');")),
    ignores(code("namespace Hives;\n$f = Closure::fromCallable('strlen');")),
    trialsIn("php", "8.0").ignores(inClass("return array_map([$this, 'weigh'], $xs);")),
  ],
});
