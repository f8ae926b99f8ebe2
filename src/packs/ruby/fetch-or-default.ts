import { all, condition, holes, isOfType, rule, ruby, sideEffectFree, trialsIn } from "../../index.js";
import { isReadTwice } from "./values.js";

const { table, key, fallback } = holes({ table: "expression", key: "expression", fallback: "expression" });

const LITERALS = ["string", "integer", "float", "simple_symbol", "nil", "true", "false"];
const { rewrites, ignores, holds } = trialsIn("ruby");

export const fetchOrDefault = rule({
  id: "ruby/fetch-or-default",
  kind: "idiom",
  title: "Fetch from a hash with its default",
  why: "The hash is searched twice, and its name and key are written twice.",
  was: [
    ruby.expression`${table}.key?(${key}) ? ${table}[${key}] : ${fallback}`,
    ruby.expression`${table}.has_key?(${key}) ? ${table}[${key}] : ${fallback}`,
    ruby.expression`${table}.include?(${key}) ? ${table}[${key}] : ${fallback}`,
    ruby.expression`${table}.key?(${key}) ? ${table}.fetch(${key}) : ${fallback}`,
  ],
  given: [
    condition("evaluating the hash once instead of twice makes no difference", (match) =>
      isReadTwice(match.the(table)),
    ),
    all(sideEffectFree(key)),
    isOfType(table, "Hash"),
  ],
  becomes: (match) =>
    match.the(fallback).is(LITERALS)
      ? ruby`${table}.fetch(${key}, ${fallback})`
      : ruby`${table}.fetch(${key}) { ${fallback} }`,
  trials: [
    rewrites("h = { a: 1 }\nx = h.key?(:a) ? h[:a] : 0\n", "h = { a: 1 }\nx = h.fetch(:a, 0)\n"),
    rewrites("h = {}\nx = h.has_key?(k) ? h[k] : weigh(k)\n", "h = {}\nx = h.fetch(k) { weigh(k) }\n"),
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
