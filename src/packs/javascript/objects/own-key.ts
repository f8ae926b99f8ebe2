import {
  builtin,
  changesOf,
  compile,
  condition,
  holes,
  javascript,
  matchAt,
  referencesAt,
} from "../../../index.js";
import { rule, shortened, trialsIn, unknown, yes } from "../../../index.js";
import type { Answer, Match, SyntaxNode } from "../../../index.js";

const { object, key, alias } = holes({ object: "expression", key: "expression", alias: "name" });

const METHOD = [javascript`Object.prototype.hasOwnProperty`, javascript`({}).hasOwnProperty`];
const BORROWED = [
  javascript`Object.prototype.hasOwnProperty.call(${object}, ${key})`,
  javascript`({}).hasOwnProperty.call(${object}, ${key})`,
];
const ALIASED = javascript`${alias}.call(${object}, ${key})`;
const CALLED = javascript`${object}.hasOwnProperty(${key})`;

/** Is the object's own method called, and not one that is borrowed? */
const isCalled = ({ alternative }: Match): boolean => alternative === BORROWED.length + 1;

/** The value of a variable that is given one value only. */
function onlyValue(name: SyntaxNode): SyntaxNode | undefined {
  const to = referencesAt(name).find((one) => one.to)?.to;
  const [only] = to?.at ?? [];
  if (!to || !only || to.at.length !== 1) return undefined;
  const isWrittenOnce = changesOf(to).every(({ node, does }) => does === "write" && node.same(only));
  const holder = only.parent;
  return isWrittenOnce && holder?.is("variable_declarator") ? holder.child("value") : undefined;
}

/** Does a variable hold the method of all objects? */
function isMethodItself(name: SyntaxNode): boolean {
  const value = onlyValue(name);
  return (
    value !== undefined &&
    METHOD.flatMap((one) => compile(one, value.tree.language.id)).some((one) =>
      matchAt(one, value.tree, value.id),
    )
  );
}

/** An object may have a method of this name itself, or none at all. */
function hasNoOther(match: Match): Answer {
  const node = match.the(object);
  const text = shortened(node.text);
  if (!isCalled(match)) return yes("name.library", "the method of all objects is called", node);
  const { binding } = node.tree.language;
  if (node.is("this") || binding.selfOf(node))
    return unknown(
      "name.library",
      `the class of \`${text}\` could have a \`hasOwnProperty\` of its own`,
      node,
    );
  return unknown("name.library", `\`${text}\` could have a \`hasOwnProperty\` of its own, or none`, node);
}

/** In a class that gives objects a method of this name, nothing is to be said. */
const isNotDefining = ({ node }: Match): boolean =>
  ![...node.ancestors()].some(
    (above) => above.is("method_definition") && above.child("name")?.text === "hasOwnProperty",
  );

const js = trialsIn("javascript");

export const ownKey = rule({
  id: "javascript/own-key",
  kind: "idiom",
  title: "Use Object.hasOwn to ask for an own property",
  why: "Borrowing the method from the prototype is hard to read, and calling it on the object fails where the object has none.",
  was: [...BORROWED, ALIASED, CALLED],
  where: [
    (match) => match.alternative !== BORROWED.length || isMethodItself(match.the(alias)),
    (match) => !isCalled(match) || !match.the(object).is(["super", "spread_element"]),
    isNotDefining,
  ],
  given: [builtin("Object"), condition("no other method is called", hasNoOther)],
  becomes: javascript`Object.hasOwn(${object}, ${key})`,
  trials: [
    js.rewrites("f(Object.prototype.hasOwnProperty.call(hive, k));", "f(Object.hasOwn(hive, k));"),
    js.rewrites("f({}.hasOwnProperty.call(hive, k));", "f(Object.hasOwn(hive, k));"),
    js.rewrites(
      "const has = Object.prototype.hasOwnProperty;\nif (has.call(hive, k)) f();",
      "const has = Object.prototype.hasOwnProperty;\nif (Object.hasOwn(hive, k)) f();",
    ),
    js.rewrites("if (hive.hasOwnProperty(k)) f();", "if (Object.hasOwn(hive, k)) f();", "likely"),
    js.rewrites(
      "if (!hive.queen.hasOwnProperty('age')) f();",
      "if (!Object.hasOwn(hive.queen, 'age')) f();",
      "likely",
    ),
    js.ignores("let has = Object.prototype.hasOwnProperty;\nhas = g; has.call(hive, k);"),
    js.ignores("const has = Object.prototype.toString;\nhas.call(hive, k);"),
    js.holds("const Object = load(); f({}.hasOwnProperty.call(hive, k));", "given another meaning"),
    js.ignores("class A { hasOwnProperty(k) { return this.all.hasOwnProperty(k); } }"),
    js.ignores("hive.hasOwnProperty(a, b);"),
    trialsIn("javascript", "2021").ignores("f(Object.prototype.hasOwnProperty.call(hive, k));"),
  ],
});
