import {
  caution,
  choice,
  condition,
  holes,
  present,
  rule,
  ruby,
  shortened,
  trialsIn,
  yes,
} from "../../core.js";
import type { Match } from "../../core.js";
import { asksForNilAlone, isNeverFalse, readOnce } from "./values.js";

const { value, fallback } = holes({ value: "expression", fallback: "expression" });

const byTruth = (match: Match): boolean => match.tests[0]!.asks === "truth";

const { rewrites, ignores, holds } = trialsIn("ruby");

export const valueOrFallback = rule({
  id: "ruby/value-or-fallback",
  kind: "idiom",
  title: "Use || for the default of a missing value",
  why: "The value is written twice, and the reader must check that both are the same.",
  was: choice(present(value, { or: ["truth"] }), value, fallback),
  // What is only asked for falls back to nothing.
  where: [(match) => !match.the(fallback).is("nil")],
  given: [
    readOnce(),
    asksForNilAlone(),
    condition(
      "false is not a value that somebody meant",
      (match) =>
        byTruth(match)
          ? yes("value.falsy", "the old code replaced false too")
          : isNeverFalse(match.tests[0]!.subject),
      { unknownIs: "possible" },
    ),
  ],
  cautions: (match) =>
    byTruth(match) || isNeverFalse(match.tests[0]!.subject).is === "yes"
      ? []
      : [
          caution(
            "value.falsy",
            `when \`${shortened(match.textOf(value))}\` is false, the old code kept it and the new one falls back`,
          ),
        ],
  becomes: ruby.expression`${value} || ${fallback}`,
  trials: [
    rewrites("def f(x)\n  y = x ? x : 1\nend\n", "def f(x)\n  y = x || 1\nend\n"),
    rewrites("def f(x)\n  if x\n    x\n  else\n    1\n  end\nend\n", "def f(x)\n  x || 1\nend\n"),
    rewrites("def f(x)\n  return x if x\n  g(1)\nend\n", "def f(x)\n  x || g(1)\nend\n"),
    rewrites("def f(x)\n  y = x.nil? ? 1 : x\nend\n", "def f(x)\n  y = x || 1\nend\n", "possible"),
    rewrites("x = 'a'\ny = x.nil? ? 'b' : x\n", "x = 'a'\ny = x || 'b'\n"),
    rewrites("y = h[:a] ? h[:a] : 1\n", "y = h[:a] || 1\n", "likely"),
    rewrites(
      "def f\n  y = find(1)\n  y = 'none' unless y\n  y\nend\n",
      "def f\n  y = find(1) || 'none'\n  y\nend\n",
    ),
    rewrites("x = 'a'\ny = case x when nil then 'b' else x end\n", "x = 'a'\ny = x || 'b'\n"),
    ignores("y = case x when nil, 0 then 'b' else x end\n"),
    holds("y = take() ? take() : 1\n", "once instead of twice"),
    ignores("def f(x)\n  y = x ? z : 1\nend\n"),
    ignores("def f(x)\n  y = x ? x : nil\nend\n"),
    ignores("def f(x)\n  if x\n    x\n  else\n    1\n  end\n  g\nend\n"),
  ],
});
