import {
  condition,
  choice,
  escaped,
  hasKey,
  item,
  holes,
  isOfLibrary,
  no,
  rule,
  ruby,
  shortened,
  sideEffectFree,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, SyntaxNode } from "../../core.js";
import { isReadTwice } from "./values.js";

const { table, key, fallback } = holes({ table: "expression", key: "expression", fallback: "expression" });

const HASH = {
  names: ["Hash"],
  module: undefined,
  methods: ["key?", "has_key?", "include?", "[]", "fetch"],
  what: "hash",
};
const JUMPS = ["return", "break", "next", "redo", "retry", "yield"];

/** Is it a hash of the language, without methods of its own? */
function isHash(node: SyntaxNode): Answer {
  const single = new RegExp(
    `\\bdef\\s+${escaped(node.text)}\\.|${escaped(node.text)}\\.(extend|define_singleton_method|instance_eval)\\b`,
  ).exec(node.tree.text);
  return single
    ? unknown("type.stand-in", `\`${single[0]}\` gives \`${shortened(node.text)}\` methods of its own`, node)
    : isOfLibrary(node, HASH);
}

const LITERALS = ["string", "integer", "float", "simple_symbol", "nil", "true", "false"];
const { rewrites, ignores, holds } = trialsIn("ruby");

export const fetchOrDefault = rule({
  id: "ruby/fetch-or-default",
  kind: "idiom",
  title: "Use fetch with a default to read a hash",
  why: "The hash is searched twice, and its name and key are written twice.",
  was: choice(hasKey(item(table, key)), item(table, key), fallback),
  given: [
    condition("evaluating the hash once instead of twice makes no difference", (match) =>
      isReadTwice(match.the(table)),
    ),
    sideEffectFree(key),
    condition("it is a hash", (match) => isHash(match.the(table)), { unknownIs: "possible" }),
    condition("the default can be worked out in a block", (match) => {
      const node = match.the(fallback);
      const odd = [...node.descendants()].find(
        (one) => one.named && one.is([...JUMPS, "assignment", "operator_assignment"]),
      );
      return odd
        ? no("name.scope", `\`${shortened(odd.text)}\` would do something else in a block`, odd)
        : yes("name.scope", "it leaves nothing, and names nothing");
    }),
  ],
  becomes: (match) =>
    match.the(fallback).is(LITERALS)
      ? ruby.expression`${table}.fetch(${key}, ${fallback})`
      : ruby.expression`${table}.fetch(${key}) { ${fallback} }`,
  trials: [
    rewrites("h = { a: 1 }\nx = h.key?(:a) ? h[:a] : 0\n", "h = { a: 1 }\nx = h.fetch(:a, 0)\n"),
    rewrites(
      "k = 1\nh = {}\nx = h.has_key?(k) ? h[k] : weigh(k)\n",
      "k = 1\nh = {}\nx = h.fetch(k) { weigh(k) }\n",
    ),
    rewrites(
      "def f(h)\n  h.key?('a') ? h['a'] : nil\nend\n",
      "def f(h)\n  h.fetch('a', nil)\nend\n",
      "possible",
    ),
    rewrites("h = {}\nx = h.include?(1) ? h[1] : []\n", "h = {}\nx = h.fetch(1) { [] }\n"),
    holds("h = {}\nx = h.key?(take()) ? h[take()] : 0\n", "calls something"),
    holds("x = find(1).key?(1) ? find(1)[1] : 0\n", "once instead of twice"),
    ignores("h = {}\nx = h.key?(:a) ? h[:b] : 0\n"),
    ignores("h = {}\nx = h.key?(:a) ? g[:a] : 0\n"),
    ignores("h = {}\nx = h.value?(:a) ? h[:a] : 0\n"),
  ],
});
