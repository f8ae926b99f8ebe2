import {
  caution,
  condition,
  guarded,
  holes,
  isMissing,
  isOnPrimitives,
  javascript,
  no,
  rule,
  shortened,
  takenSafely,
  trialsIn,
  unknown,
  valuesOf,
  yes,
} from "../../core.js";
import type { Answer, Match, PresenceTest } from "../../core.js";
import { everyTest, testedOnce } from "../family/conditions.js";
import { orElse } from "../family/guarded.js";
import { oneSignature } from "./one-signature.js";
import { sameAsMissing } from "./presence-tests.js";
import { seenThrough } from "./types/seen-through.js";

const { subject, read, fallback } = holes({
  subject: { kind: "expression", unlike: javascript`this` },
  read: "expression",
  fallback: "expression",
});

/** Is undefined the default, or what is read asked for as well? Then nothing is put in the place of what is read. */
const isPlainRead = (match: Match): boolean => {
  const otherwise = match.the(fallback);
  return match.chain.asksUse !== undefined || (isMissing(otherwise) && !otherwise.is("null"));
};

/** A test of the truth stops at 0, "" and false too, and a safe read goes on. */
function stopsAlike(match: Match, test: PresenceTest): Answer {
  if (test.asks !== "truth") return sameAsMissing(match, test);
  const name = shortened(test.subject.text);
  const type = valuesOf(match, test.subject);
  const is = type && `\`${name}\` is ${type.how} \`${type.text}\``;
  if (type?.falsy.length === 0)
    return yes("value.falsy", `${is}, which is true whenever it is there`, type.at);
  const link = match.chain.links.find((one) => one.test === test);
  const property = link?.steps.length === 1 ? link.steps[0]!.child("property")?.text : undefined;
  if (property !== undefined && !isOnPrimitives(property))
    return yes("value.falsy", `0, "" and false have no \`${property}\``, test.subject);
  return type
    ? no("value.falsy", `${is}: for ${type.falsy.join(", ")} the code would go on`, type.at)
    : unknown("value.falsy", `\`${name}\` could be 0, "" or false, where the old code stopped`, test.test);
}

/** May what is read be missing itself, for which the old code gave that and the new one gives the default? */
function isThereItself(match: Match): Answer {
  const node = match.the(read);
  const name = shortened(node.text);
  const type = valuesOf(match, node);
  if (!type)
    return unknown(
      "value.null",
      `\`${name}\` could be null or undefined itself, which the old code gave`,
      node,
    );
  const missing = [...(type.canBeNull ? ["null"] : []), ...(type.canBeUndefined ? ["undefined"] : [])];
  const is = `\`${name}\` is ${type.how} \`${type.text}\``;
  if (missing.length > 0)
    return no("value.null", `${is}: for ${missing.join(" and ")} the default would be given`, type.at);
  return type.unsure === undefined
    ? yes("value.null", `${is}, so it is never missing itself`, type.at)
    : unknown("type.strict-null", type.unsure, type.at);
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");
const HIVE = "interface Hive { name: string; age: number; note: string | null; queen?: Hive }\n";

export const readOrFallback = rule({
  id: "javascript/read-or-fallback",
  kind: "idiom",
  title: "Use ?. and ?? to read with a default",
  why: "The object is written twice, once to be tested and once to be read, and the reader must check that both are the same.",
  target: "2020",
  was: guarded(subject, read, fallback, { as: ["choice"] }),
  where: [(match) => !isPlainRead(match), (match) => match.textOf(subject) !== "eval"],
  given: [
    testedOnce(),
    everyTest("what is tested is an object or missing", stopsAlike),
    seenThrough,
    oneSignature(read, fallback),
    condition("what is read is never missing itself", isThereItself, { unknownIs: "possible" }),
  ],
  cautions: (match) =>
    isThereItself(match).is === "yes"
      ? []
      : [
          caution(
            "value.result",
            `when \`${shortened(match.textOf(read))}\` is null or undefined, that was the result and it is the default now`,
          ),
        ],
  becomes: (match) => orElse(takenSafely(match.chain), match.the(fallback)),
  trials: [
    ts.holds(
      HIVE +
        "class Yard { put(x: string): void; put(x: number): void; put(x: any) { } f(h: Hive | undefined, zero: string) { if (h) this.put(h.age); else this.put(zero); } }\n",
      "several signatures",
    ),
    ts.rewrites(
      HIVE + "const f = (h: Hive | undefined) => h ? h.name : 'none';\n",
      HIVE + "const f = (h: Hive | undefined) => h?.name ?? 'none';\n",
    ),
    ts.rewrites(
      HIVE + "const f = (h: Hive | null) => h === null ? 0 : h.age;\n",
      HIVE + "const f = (h: Hive | null) => h?.age ?? 0;\n",
    ),
    ts.rewrites(
      HIVE + "function f(h?: Hive) {\n  if (!h) return 0;\n  return h.age;\n}\n",
      HIVE + "function f(h?: Hive) {\n  return h?.age ?? 0;\n}\n",
    ),
    ts.rewrites(
      HIVE +
        "function f(h?: Hive) {\n  let name = 'none';\n  if (h !== undefined) {\n    name = h.name; // hers\n  }\n  return name;\n}\n",
      HIVE + "function f(h?: Hive) {\n  let name = h?.name ?? 'none';\n  // hers\n  return name;\n}\n",
    ),
    ts.rewrites(
      HIVE +
        "function f(h?: Hive) {\n  if (h) {\n    if (h.queen) {\n      return h.queen.name;\n    }\n  }\n  return 'none';\n}\n",
      HIVE + "function f(h?: Hive) {\n  return h?.queen?.name ?? 'none';\n}\n",
    ),
    ts.rewrites(
      HIVE + "const f = (h: Hive | undefined, a: string, b: string) => h ? h.name : a || b;\n",
      HIVE + "const f = (h: Hive | undefined, a: string, b: string) => h?.name ?? (a || b);\n",
    ),
    js.rewrites(
      "const n = hive != null ? hive.queen.age : null;",
      "const n = hive?.queen.age ?? null;",
      "possible",
    ),
    js.rewrites("const n = done ? done(2) : 3;", "const n = done?.(2) ?? 3;", "possible"),
    // The length of "" is 0, and that of nothing is not.
    ts.holds("const f = (s: string | null) => s ? s.length : -1;\n", "the code would go on"),
    ts.holds(HIVE + "const f = (h?: Hive) => h ? h.note : 'none';\n", "the default would be given"),
    js.holds("const n = next() ? next().name : 1;", "calls something"),
    // A default that is worked out in any case.
    ts.holds(
      HIVE +
        "function f(h?: Hive) {\n  let name = first();\n  if (h !== undefined) {\n    name = h.name;\n  }\n  return name;\n}\n",
      "calls something",
    ),
    ts.ignores(
      HIVE +
        "function f(h?: Hive) {\n  let n = 0;\n  if (n) {\n    if (h) {\n      n = h.age;\n    }\n  }\n  return n;\n}\n",
    ),
    // A read without a default, which another rule takes.
    js.ignores("const q = hive ? hive.queen : undefined;"),
    js.ignores("const a = h != null && h.age != null ? h.age : 1;"),
    js.ignores("const n = eval ? eval(code) : 1;"),
    js.ignores("const n = hive ? other.name : 1;"),
    js.ignores("const n = hive ? delete hive.name : 1;"),
    js.ignores("const n = hive ? 1 : 2;"),
  ],
});
