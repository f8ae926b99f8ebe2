import {
  builtin,
  condition,
  copy,
  holes,
  isSideEffectFree,
  isUnchanged,
  javascript,
  no,
  passingOf,
} from "../../../core.js";
import { rule, sameCode, text, trialsIn, weakest, yes } from "../../../core.js";
import type { Demand, Edit, Match, Passing, Segment, SyntaxNode } from "../../../core.js";
import { ownTest } from "../objects/own-test.js";
import { isThere } from "../there.js";

const { key, object, body } = holes({ key: "name", object: "expression", body: "statement" });

/** The body of a loop as what is done for the object's own keys only, and the test that asks for them. */
function ownIn(match: Match): { passing: Passing; own: Demand } | undefined {
  const passing = passingOf(match.the(body));
  const own = passing?.demands.find(({ test, isTrue }) => {
    const asked = isTrue ? ownTest(test) : undefined;
    return asked && sameCode(asked.object, match.the(object)) && asked.key.text === match.textOf(key);
  });
  return own && { passing: passing!, own };
}

/** The edit of the body that no longer asks whether the key is the object's own. */
function withoutTest(match: Match): Edit | undefined {
  const found = ownIn(match);
  return found?.passing.without(found.own);
}

/** What else is asked of a key: ahead of the test, so of the inherited ones too, and behind it. */
function otherTests(match: Match): {
  readonly ahead: readonly SyntaxNode[];
  readonly all: readonly SyntaxNode[];
} {
  const { passing, own } = ownIn(match)!;
  const all = passing.demands.filter((one) => one !== own).map(({ test }) => test);
  return { ahead: all.filter(({ start }) => start < own.test.start), all };
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const ownKeys = rule({
  id: "javascript/own-keys",
  kind: "idiom",
  title: "Use Object.keys to walk the own keys of an object",
  why: "for…in also walks what is inherited, so that each round has to ask whether the key counts.",
  was: [
    javascript`for (var ${key} in ${object}) ${body}`,
    javascript`for (let ${key} in ${object}) ${body}`,
    javascript`for (const ${key} in ${object}) ${body}`,
  ],
  where: [(match) => withoutTest(match) !== undefined],
  given: [
    builtin("Object"),
    // `for…in` walks nothing where there is no object; `Object.keys` refuses null and undefined.
    condition("the object is there", (match) => isThere(match, match.the(object))),
    condition("the object keeps its keys", (match) =>
      isUnchanged(match.the(object), [...otherTests(match).all, ...ownIn(match)!.passing.run]),
    ),
    condition("nothing is done for the keys that are inherited", (match) =>
      weakest([
        yes(
          "effect.evaluated",
          "the test for the object's own keys comes first, or nothing is done ahead of it",
        ),
        ...otherTests(match).ahead.map(isSideEffectFree),
      ]),
    ),
    condition("the object is evaluated once", (match) =>
      match.the(object).is(["identifier", "member_expression", "this"])
        ? yes("effect.evaluated", "it is evaluated as often as before")
        : no("effect.evaluated", `\`${match.textOf(object)}\` is evaluated in each round`, match.the(object)),
    ),
  ],
  becomes: (match): Segment[] => {
    const [name, walked, run] = [match.the(key), match.the(object), match.the(body)];
    return [
      copy(match.node.start, name.end),
      text(" of Object.keys("),
      copy(walked.start, walked.end),
      text(")"),
      copy(walked.end, run.end, [withoutTest(match)!]),
    ];
  },
  trials: [
    ts.rewrites(
      "const f = (o?: Record<string, number>) => { for (const k in o) if (Object.hasOwn(o, k)) g(k); };",
      "const f = (o?: Record<string, number>) => { for (const k of Object.keys(o)) g(k); };",
      "likely",
    ),
    js.rewrites(
      `
      function f(o) {
        for (var k in o) {
          if (o.hasOwnProperty(k)) {
            // each
            g(k);
          }
        }
      }
      `,
      `
      function f(o) {
        for (var k of Object.keys(o)) {
          // each
          g(k);
        }
      }
      `,
      "likely",
    ),
    js.rewrites(
      "const o = { a: 1 }; let n = ''; for (const k in o) if (Object.hasOwn(o, k)) n = k;",
      "const o = { a: 1 }; let n = ''; for (const k of Object.keys(o)) n = k;",
    ),
    js.rewrites(
      `
      function f(o) {
        for (var k in o) if (o.hasOwnProperty(k)) {
          g(k);
        }
      }
      `,
      `
      function f(o) {
        for (var k of Object.keys(o)) {
          g(k);
        }
      }
      `,
      "likely",
    ),
    js.rewrites(
      `
      for (let k in o) {
        if (!Object.prototype.hasOwnProperty.call(o, k)) continue;
        g(k);
        h(k);
      }
      `,
      `
      for (let k of Object.keys(o)) {
        g(k);
        h(k);
      }
      `,
      "likely",
    ),
    js.rewrites(
      `
      for (const k in this.jars) {
        if ({}.hasOwnProperty.call(this.jars, k) && k !== "lid") {
          g(k);
        }
      }
      `,
      `
      for (const k of Object.keys(this.jars)) {
        if (k !== "lid") {
          g(k);
        }
      }
      `,
      "likely",
    ),
    js.rewrites(
      `
      const o = { a: 1 };
      for (const k in o) {
        // what is inherited does not count
        if (!(k !== "lid" && Object.hasOwn(o, k))) {
          continue;
        }
        g(k);
      }
      `,
      `
      const o = { a: 1 };
      for (const k of Object.keys(o)) {
        // what is inherited does not count
        if (!(k !== "lid")) {
          continue;
        }
        g(k);
      }
      `,
      "likely",
    ),
    js.rewrites(
      `
      const o = { a: 1 };
      for (const k in o)
        if (!o.hasOwnProperty(k)) {
        } else {
          g(k); // own
          // and more
        }
      `,
      `
      const o = { a: 1 };
      for (const k of Object.keys(o))
        {
          g(k); // own
          // and more
        }
      `,
      "likely",
    ),
    js.rewrites(
      "const o = { a: 1 }; let n = ''; for (const k in o) { if (Object.hasOwn(o, k)) { n = k; } }",
      "const o = { a: 1 }; let n = ''; for (const k of Object.keys(o)) { n = k; }",
    ),
    js.holds(
      "const o = {}; for (const k in o) { if (Object.hasOwn(o, k) && delete o[k]) n = k; }",
      "is changed here",
    ),
    js.holds(
      "const o = {}; for (const k in o) { if (count(k) && Object.hasOwn(o, k)) n = k; }",
      "calls something",
    ),
    js.ignores("const o = {}; for (const k in o) { if (Object.hasOwn(o, k) || k) g(k); }"),
    js.ignores("const o = {}; for (const k in o) { if (!Object.hasOwn(o, k)) break; g(k); }"),
    js.ignores(
      "const o = {}; a: for (;;) for (const k in o) { if (!Object.hasOwn(o, k)) continue a; g(k); }",
    ),
    js.ignores("const o = {}; for (const k in o) { h(k); if (!Object.hasOwn(o, k)) continue; g(k); }"),
    js.holds("const o = {}; for (const k in o) if (o.hasOwnProperty(k)) { delete o[k]; }", "is changed here"),
    js.ignores("for (const k in o) { g(k); }"),
    js.ignores("for (const k in o) { if (p.hasOwnProperty(k)) g(k); }"),
    js.ignores("for (const k in o) { if (o.hasOwnProperty(j)) g(k); }"),
    js.ignores("for (const k in o) { if (o.hasOwnProperty(k)) g(k); else h(k); }"),
    js.ignores("for (const k in o) { if (o.hasOwnProperty(k)) g(k); h(k); }"),
    js.ignores("for (const k in o) { if (!o.hasOwnProperty(k)) g(k); }"),
    js.ignores("for (k in o) { if (o.hasOwnProperty(k)) g(k); }"),
  ],
});
