import {
  canBeMissingHere,
  condition,
  holes,
  isUnchanged,
  javascript,
  no,
  rule,
  sameCode,
  trialsIn,
} from "../../../index.js";
import { builtin, typeOf, unknown, yes } from "../../../index.js";
import type { Answer, Match, Snippet } from "../../../index.js";
import { ownTest } from "../objects/own-test.js";

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

/** `for…in` walks nothing where there is no object; `Object.keys` refuses null and undefined. */
function isThere(match: Match): Answer {
  const node = match.the(object);
  const type = typeOf(node);
  if (node.is(["this", "object", "array", "new_expression"]) || (type && !type.declared))
    return yes("value.null", type?.why ?? `\`${node.text}\` is there`, node);
  if (node.is("identifier")) {
    const missing = canBeMissingHere(node);
    if (missing.is === "no") return yes("value.null", missing.evidence.says, missing.evidence);
  }
  return unknown(
    "value.null",
    `\`${node.text}\` could be null or undefined, for which the loop did nothing`,
    node,
  );
}

const js = trialsIn("javascript");

export const ownKeys = rule({
  id: "javascript/own-keys",
  kind: "idiom",
  title: "Use Object.keys to walk the own keys of an object",
  why: "for…in also walks what is inherited, so that each round has to ask whether the key counts.",
  was: FORMS.map(([was]) => was),
  where: [asksForOwn],
  given: [
    builtin("Object"),
    condition("the object is there", isThere),
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
