import {
  builtin,
  condition,
  holes,
  javascript,
  rule,
  shortened,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match } from "../../../core.js";
import { isMethodItself } from "./own-test.js";

const { object, key, alias } = holes({ object: "expression", key: "expression", alias: "name" });

const BORROWED = [
  javascript`Object.prototype.hasOwnProperty.call(${object}, ${key})`,
  javascript`({}).hasOwnProperty.call(${object}, ${key})`,
];
const ALIASED = javascript`${alias}.call(${object}, ${key})`;
const CALLED = javascript`${object}.hasOwnProperty(${key})`;

/** Is the object's own method called, and not one that is borrowed? */
const isCalled = ({ alternative }: Match): boolean => alternative === BORROWED.length + 1;

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
