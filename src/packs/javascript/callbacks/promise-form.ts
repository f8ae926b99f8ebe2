import {
  builtin,
  condition,
  copy,
  holes,
  javascript,
  need,
  no,
  ofKind,
  rule,
  text,
  trialsIn,
  yes,
} from "../../../core.js";
import type { Answer, Filled, Match, SyntaxNode } from "../../../core.js";
import { nodeForm } from "./node-form.js";
import { isErrorFirst } from "./promisified.js";
import { byError, calledBy, codeOf, expressionOf, FUNCTIONS, parametersOf } from "./settled.js";

const { made, called, rest } = holes({
  made: { kind: "expression", node: "new_expression" },
  called: "expression",
  rest: "arguments",
});
const promisify = need("util", "promisify");

/** The promise made by hand, by its parts. */
interface ByHand {
  readonly call: SyntaxNode;
  readonly callback: SyntaxNode;
}

function byHand(node: SyntaxNode): ByHand | undefined {
  if (node.child("constructor")?.text !== "Promise") return undefined;
  const [executor, ...more] = node.child("arguments")?.parts ?? [];
  if (!executor?.is(FUNCTIONS) || more.length > 0 || executor.has("async")) return undefined;
  const [resolve, reject, ...others] = parametersOf(executor);
  const [only, ...rest] = codeOf(executor);
  if (
    !resolve?.is("identifier") ||
    !reject?.is("identifier") ||
    others.length > 0 ||
    !only ||
    rest.length > 0
  )
    return undefined;
  const call = expressionOf(only);
  if (!call?.is("call_expression")) return undefined;
  const callback = call.child("arguments")?.lastPart;
  if (!callback?.is(FUNCTIONS) || callback.has("async")) return undefined;
  const settles = settlesBy(callback, resolve.text, reject.text);
  // Nothing else may use what settles the promise.
  const uses = [resolve, reject]
    .flatMap((name) => call.mentions(name.text))
    .filter((use) => !callback.holds(use));
  return settles && uses.length === 0 ? { call, callback } : undefined;
}

/** The function that is called, and what it is given ahead of the callback. */
function partsOf(node: SyntaxNode): Filled[] | undefined {
  const found = byHand(node);
  if (!found) return undefined;
  const { call, callback } = found;
  const list = call.child("arguments")!.parts;
  return [
    [called, [call.child("function")!]],
    [rest, list.filter((part) => !part.same(callback))],
  ];
}

/** Does a callback give its error to one function, and else its value to the other? */
function settlesBy(callback: SyntaxNode, resolve: string, reject: string): boolean {
  const [error, value, ...more] = parametersOf(callback);
  if (!error?.is("identifier") || (value && !value.is("identifier")) || more.length > 0) return false;
  const ways = byError(codeOf(callback), error.text);
  if (!ways || ways.failed.length !== 1 || ways.done.length !== 1) return false;
  const [rejected, resolved] = [calledBy(ways.failed[0]), calledBy(ways.done[0])];
  if (rejected?.name !== reject || rejected.values.length !== 1 || rejected.values[0]!.text !== error.text)
    return false;
  return (
    resolved?.name === resolve && resolved.values.length <= 1 && resolved.values[0]?.text === value?.text
  );
}

/** A method that is taken off its object loses it; a plain function of the file does not, and one of elsewhere may have a form of its own. */
function canBeMade(match: Match): Answer {
  const callee = match.the(called);
  const code = "value.result";
  if (nodeForm(callee)) return yes(code, `\`${callee.text}\` has a promise form of its own`, callee);
  if (callee.is("identifier")) return isErrorFirst(callee);
  return no(code, `\`${callee.text}\` needs the object that it is called on`, callee);
}

const js = trialsIn("javascript");

export const promiseForm = rule({
  id: "javascript/promise-form",
  kind: "idiom",
  title: "Use the promise form of a function instead of a promise made by hand",
  why: "Six lines pass on what the library passes on by itself, and a way that is forgotten leaves the promise open for ever.",
  was: ofKind(made, { fills: partsOf }),
  mentions: ["Promise"],
  target: "2018",
  given: [
    builtin("Promise"),
    condition("the function can be turned into one that gives a promise", canBeMade),
  ],
  becomes: (match) => {
    const form = nodeForm(match.the(called));
    if (!form) return javascript.expression`${promisify}(${called})(${rest})`;
    const given = match.all(rest);
    const list = given.length > 0 ? [copy(given[0]!.start, given.at(-1)!.end)] : [];
    return [copy(form.of.start, form.of.end), text(`.${form.in}.${form.name}(`), ...list, text(")")];
  },
  trials: [
    js.rewrites(
      `
      import fs from "fs";
      function load(path) {
        return new Promise((resolve, reject) => {
          fs.readFile(path, "utf8", (error, text) => {
            if (error) reject(error);
            else resolve(text);
          });
        });
      }
      `,
      `
      import fs from "fs";
      function load(path) {
        return fs.promises.readFile(path, "utf8");
      }
      `,
    ),
    js.rewrites(
      `
      const fs = require("node:fs");
      async function made(path) {
        await new Promise(function (done, fail) {
          fs.mkdir(path, function (err) { if (err) { return fail(err); } done(); });
        });
      }
      `,
      `
      const fs = require("node:fs");
      async function made(path) {
        await fs.promises.mkdir(path);
      }
      `,
    ),
    js.rewrites(
      'import * as fs from "fs";\nconst p = new Promise((a, b) => fs.stat(x, (e, s) => (e ? b(e) : a(s))));',
      'import * as fs from "fs";\nconst p = fs.promises.stat(x);',
    ),
    js.rewrites(
      'import * as fs from "fs";\nconst p = new Promise((a, b) => { fs.stat(x, (e, s) => { if (!e) { a(s); } else { b(e); } }); });',
      'import * as fs from "fs";\nconst p = fs.promises.stat(x);',
    ),
    js.rewrites(
      `
      import { promisify } from "util";
      import { weigh } from "./scale.js";
      const p = new Promise((a, b) => { weigh(x, 1, (e, s) => { if (e) return b(e); a(s); }); });
      `,
      `
      import { promisify } from "util";
      import { weigh } from "./scale.js";
      const p = promisify(weigh)(x, 1);
      `,
      "likely",
    ),
    js.rewrites(
      `
      import { promisify } from "util";
      function weigh(x, done) { done(null, x); }
      const p = new Promise((a, b) => { weigh(x, (e, s) => { if (e) return b(e); a(s); }); });
      `,
      `
      import { promisify } from "util";
      function weigh(x, done) { done(null, x); }
      const p = promisify(weigh)(x);
      `,
    ),
    // Made into promises, these give an object, or two values, or take nothing for an error.
    js.holds(
      'import { execFile } from "child_process";\nconst p = new Promise((a, b) => { execFile(x, (e, s) => { if (e) b(e); else a(s); }); });',
      "can give something else",
    ),
    js.holds(
      'const { lookup } = require("node:dns");\nconst p = new Promise((a, b) => { lookup(x, (e, s) => { if (e) b(e); else a(s); }); });',
      "can give something else",
    ),
    js.holds(
      'import Promise from "./later.js";\nfunction weigh(x, done) {}\nconst p = new Promise((a, b) => { weigh(x, (e, s) => { if (e) b(e); else a(s); }); });',
      "another meaning",
    ),
    js.holds(
      "const p = new Promise((a, b) => { hive.weigh(x, (e, s) => { if (e) b(e); else a(s); }); });",
      "needs the object",
    ),
    js.ignores("const p = new Promise((a, b) => { weigh(x, (e, s) => { if (e) b(e); else a(s.kg); }); });"),
    js.ignores("const p = new Promise((a, b) => { weigh(x, (e, s) => { if (e) log(e); else a(s); }); });"),
    js.ignores("const p = new Promise((a, b) => { weigh(x, (e, s, t) => { if (e) b(e); else a(s); }); });"),
    js.ignores("const p = new Promise((a, b) => { weigh(x, (e, s) => { if (s) b(e); else a(s); }); });"),
    js.ignores("const p = new Promise((a, b) => { weigh(x, b, (e, s) => { if (e) b(e); else a(s); }); });"),
    js.ignores("const p = new Promise((a) => setTimeout(a, 10));"),
    js.ignores(
      "const p = new Promise((a, b) => { log(x); weigh(x, (e, s) => { if (e) b(e); else a(s); }); });",
    ),
  ],
});
