import { flagged, holes, rule, trialsIn } from "../../../core.js";
import type { Match, SyntaxNode } from "../../../core.js";
import { isNotSeenFlagging, needNotAskAll } from "../../family/collecting.js";
import { askedByMethod } from "../../family/by-methods.js";
import { asMethod, METHODS } from "./walked.js";

const { items } = holes({ items: "expression" });

const testsOf = ({ flagged: { sieves } }: Match): SyntaxNode[] => sieves.map(({ test }) => test);

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const anyOrAll = rule({
  id: "javascript/any-or-all",
  kind: "idiom",
  title: "Use some or every to ask whether items pass a test",
  why: "The name of the method says what the loop is for, and the reader need not see where it is left.",
  target: "2015",
  was: flagged(items),
  given: [...asMethod(({ flagged: found }) => found, testsOf), ...isNotSeenFlagging(), needNotAskAll()],
  becomes: (match) => askedByMethod(match, METHODS),
  trials: [
    ts.holds(
      "function deep(x: Hive[]) { for (const one of x) { if (deep(one.parts)) return true; } return false; }",
      "would be worked out from itself",
    ),
    ts.rewrites(
      "function deep(x: Hive[]): boolean { for (const one of x) { if (deep(one.parts)) return true; } return false; }",
      "function deep(x: Hive[]): boolean { return x.some(\n  (one) => deep(one.parts)\n); }",
      "likely",
    ),
    ts.rewrites(
      "function f(jars: Jar[]) {\n  for (const jar of jars) {\n    if (jar.full) return true;\n  }\n  return false;\n}",
      "function f(jars: Jar[]) {\n  return jars.some((jar) => jar.full);\n}",
    ),
    ts.rewrites(
      "function f(jars: Jar[]) {\n  let ok = true;\n  for (const jar of jars) {\n    if (!jar.full) {\n      ok = false;\n      break;\n    }\n  }\n  return ok;\n}",
      "function f(jars: Jar[]) {\n  let ok = jars.every((jar) => jar.full);\n  return ok;\n}",
    ),
    ts.rewrites(
      "function f(jars: Jar[]) {\n  for (const { full, kg } of jars) {\n    if (full || kg > 2) continue;\n    return false;\n  }\n  return true;\n}",
      "function f(jars: Jar[]) {\n  return jars.every(({ full, kg }) => full || kg > 2);\n}",
    ),
    js.rewrites(
      "function f(jars) {\n  for (var part of Object.keys(jars)) if (part > 3) return false;\n  return true;\n}",
      "function f(jars) {\n  return !Object.keys(jars).some((part) => part > 3);\n}",
    ),
    js.rewrites(
      "function f(o) {\n  let hit = false\n  for (const x of Object.values(o)) {\n    if (!(x.a && (x.b || x.c))) continue\n    if (x.d || x.e)\n      hit = true\n  }\n  return hit\n}",
      "function f(o) {\n  let hit = Object.values(o).some((x) => x.a && (x.b || x.c) && (x.d || x.e))\n  return hit\n}",
      "likely",
    ),
    js.rewrites(
      "function f(jars, kg) {\n  for (const jar of jars) if (jar.kg === kg) return false;\n  return true;\n}",
      "function f(jars, kg) {\n  return jars.every((jar) => jar.kg !== kg);\n}",
      "possible",
    ),
    // A place that was never filled is undefined to a loop only.
    js.rewrites(
      "function f() {\n  for (const x of [1, , 2]) if (x === undefined) return true;\n  return false;\n}",
      "function f() {\n  return [1, , 2].some((x) => x === undefined);\n}",
      "likely",
    ),
    // An array that grows meanwhile is walked to its new end by a loop only.
    ts.rewrites(
      "function f(jars: Jar[]) {\n  for (const jar of jars) if (jar.isFull()) return true;\n  return false;\n}",
      "function f(jars: Jar[]) {\n  return jars.some((jar) => jar.isFull());\n}",
      "likely",
    ),
    ts.holds(
      "function f(jars: Jar[]) {\n  for (const jar of jars) if (jars.push(jar) > 9) return true;\n  return false;\n}",
      "jars",
    ),
    ts.holds(
      "function f(jars: Set<Jar>) {\n  for (const jar of jars) if (jar.full) return true;\n  return false;\n}",
      "not an array",
    ),
    ts.holds(
      'function f(name: string) {\n  for (const one of name) if (one === "x") return true;\n  return false;\n}',
      "not an array",
    ),
    js.holds(
      "function f(jars) {\n  for (const jar of jars.values()) if (jar.full) return true;\n  return false;\n}",
      "an iterator",
    ),
    js.holds(
      "function f(jars) {\n  for (const [id, jar] of jars.entries()) if (jar.full && id) return true;\n  return false;\n}",
      "could be a map",
    ),
    js.holds(
      'function f() {\n  for (const at of document.querySelectorAll("li")) if (at.hidden) return true;\n  return false;\n}',
      "a list of nodes",
    ),
    // A function forgets that the member is there.
    ts.rewrites(
      "function f(jars: Jar[], o: Options) {\n  if (!o.least) return false;\n  for (const jar of jars) if (jar.kg > o.least) return true;\n  return false;\n}",
      "function f(jars: Jar[], o: Options) {\n  if (!o.least) return false;\n  return jars.some((jar) => jar.kg > o.least);\n}",
      "likely",
    ),
    js.holds(
      "async function f(jars) {\n  for (const jar of jars) if (await jar.full()) return true;\n  return false;\n}",
      "may not stand",
    ),
    js.holds(
      "function* f(jars) {\n  for (const jar of jars) if (yield jar) return true;\n  return false;\n}",
      "may not stand",
    ),
    ts.holds(
      "function f(jars: Jar[]) {\n  let found = false;\n  for (var jar of jars) if (jar.full) {\n    found = true;\n    break;\n  }\n  return found ? jar : null;\n}",
      "read later",
    ),
    ts.holds(
      "function f(jars: Jar[]) {\n  let found = false;\n  for (const jar of jars) if (jar.take()) found = true;\n  return found;\n}",
      "no longer evaluated",
    ),
    ts.holds(
      "function f(jars: Jar[]) {\n  let found = false;\n  for (const jar of jars) if (!found && jar.full) found = true;\n  return found;\n}",
      "is read while",
    ),
    js.ignores("function f() {\n  for (const jar of jar) if (jar.full) return true;\n  return false;\n}"),
    js.ignores("function f(o) {\n  for (const key in o) if (o[key]) return true;\n  return false;\n}"),
    js.ignores("async function f(o) {\n  for await (const x of o) if (x.a) return true;\n  return false;\n}"),
    js.ignores("function f(o) {\n  for (const x of o) if (x.a) return true;\n}"),
    js.ignores("function f(o) {\n  for (const x of o) if (x.a) return x;\n  return false;\n}"),
    js.ignores("function f(o) {\n  for (const x of o) if (x.a) { g(x); return true; }\n  return false;\n}"),
  ],
});
