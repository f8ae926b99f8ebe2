import { condition, holes, isUnchanged, javascript, no, rule, sameCode, trialsIn } from "../../../core.js";
import { builtin, yes } from "../../../core.js";
import type { Match, Snippet } from "../../../core.js";
import { ownTest } from "../objects/own-test.js";
import { isThere } from "../there.js";

const { key, object, test, more, body, one } = holes({
  key: "name",
  object: "expression",
  test: "expression",
  more: "expression",
  body: "statements",
  one: "statement",
});

const WORDS = [javascript`var`, javascript`let`, javascript`const`];

/** A loop that does something for each key that is the object's own. */
const spelt = (word: Snippet): [was: Snippet, becomes: Snippet][] => [
  [
    javascript`for (${word} ${key} in ${object}) if (${test}) ${one}`,
    javascript`for (${word} ${key} of Object.keys(${object})) ${one}`,
  ],
  [
    javascript`
      for (${word} ${key} in ${object}) {
        if (${test}) {
          ${body}
        }
      }
    `,
    javascript`
      for (${word} ${key} of Object.keys(${object})) {
        ${body}
      }
    `,
  ],
  [
    javascript`
      for (${word} ${key} in ${object}) {
        if (!${test}) continue;
        ${body}
      }
    `,
    javascript`
      for (${word} ${key} of Object.keys(${object})) {
        ${body}
      }
    `,
  ],
  [
    javascript`
      for (${word} ${key} in ${object}) {
        if (${test} && ${more}) {
          ${body}
        }
      }
    `,
    javascript`
      for (${word} ${key} of Object.keys(${object})) {
        if (${more}) {
          ${body}
        }
      }
    `,
  ],
];

const FORMS = WORDS.flatMap(spelt);

/** Is it asked whether the key is one of the object's own? */
function asksForOwn(match: Match): boolean {
  const asked = ownTest(match.the(test));
  return (
    asked !== undefined && sameCode(asked.object, match.the(object)) && asked.key.text === match.textOf(key)
  );
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const ownKeys = rule({
  id: "javascript/own-keys",
  kind: "idiom",
  title: "Use Object.keys to walk the own keys of an object",
  why: "for…in also walks what is inherited, so that each round has to ask whether the key counts.",
  was: FORMS.map(([was]) => was),
  where: [asksForOwn],
  given: [
    builtin("Object"),
    // `for…in` walks nothing where there is no object; `Object.keys` refuses null and undefined.
    condition("the object is there", (match) => isThere(match, match.the(object))),
    condition("the object keeps its keys", (match) =>
      isUnchanged(match.the(object), match.all(match.has(one) ? one : body)),
    ),
    condition("the object is evaluated once", (match) =>
      match.the(object).is(["identifier", "member_expression", "this"])
        ? yes("effect.evaluated", "it is evaluated as often as before")
        : no("effect.evaluated", `\`${match.textOf(object)}\` is evaluated in each round`, match.the(object)),
    ),
  ],
  becomes: (match) => FORMS[match.alternative]![1],
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
