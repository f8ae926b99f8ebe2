import { z } from "zod";
import {
  caution,
  condition,
  copy,
  holes,
  indentUnit,
  isSeenElsewhere,
  need,
  no,
  ofKind,
  options,
  referencesAt,
  referencesOf,
} from "../../../core.js";
import { everyUseOf, javascript, rule, text, trialsIn, unknown, use, usesOf, yes } from "../../../core.js";
import type {
  Declaration,
  Edit,
  Evidence,
  EveryUse,
  Filled,
  Match,
  Rule,
  Segment,
  SyntaxNode,
} from "../../../core.js";
import { isNoGlobal, moduleKind, NODE } from "../variables/global.js";
import { callerEdit } from "./callers.js";
import { parametersOf } from "./settled.js";
import { NoSteps, StepWriter, type Source } from "./steps.js";

const { fn, name, values } = holes({
  name: "name",
  values: "arguments",
  fn: { kind: "statement", node: ["function_declaration", "function_expression", "arrow_function"] },
});

/** The names that people give the function to call at the end. */
const CALLBACK = /^(cb|callback|done|next|finish|finished|onDone)$/i;
/** What it is given in the place of an error. */
const ERROR = /^(null|undefined|e|er|err|error|new\s[^]*)$/;

/** A function with a callback, by its name. */
interface Named extends Source {
  readonly name: SyntaxNode;
  readonly to: Declaration;
}

function namedAt(node: SyntaxNode): Named | undefined {
  const name = node.is("function_declaration")
    ? node.child("name")
    : node.parent?.is("variable_declarator")
      ? node.parent.child("name")
      : undefined;
  const callback = parametersOf(node).at(-1);
  if (!name?.is("identifier") || !callback?.is("identifier") || !CALLBACK.test(callback.text))
    return undefined;
  if (node.has("async") || !node.child("body")?.is("statement_block")) return undefined;
  const to = referencesAt(name).find((one) => one.to)?.to;
  return to?.at.length === 1 ? { fn: node, callback, name, to } : undefined;
}

/** Does the function call something with a callback of its own, or hand its callback on? One that does neither is no steps. */
function hasSteps({ fn: node, callback }: Named): boolean {
  const uses = node.child("body")!.mentions(callback.text);
  const isErrorFirst = uses.some(({ parent, field }) => {
    const given =
      parent?.is("call_expression") && field === "function"
        ? parent.child("arguments")?.firstPart
        : undefined;
    return parent?.is("arguments") || ERROR.test(given?.text ?? "");
  });
  if (!isErrorFirst) return false;
  return uses.some((use) => {
    if (use.parent?.is("arguments")) return true;
    return [...use.ancestors()].some(
      (above) =>
        node.holds(above) &&
        above.parent?.is("arguments") === true &&
        above.is(["function_expression", "arrow_function"]),
    );
  });
}

/** The edits of the function and of all its calls; or why there are none. */
function editsOf(
  named: Named,
  { exported }: Settings,
  promisifyName: () => string = () => "promisify",
): Rewritten | NoSteps {
  const { fn: node, callback, name: own, to } = named;
  const { tree } = node;
  const body = node.child("body")!;
  const counted = [...body.descendants()].find((one) => one.text === "arguments" && one.is("identifier"));
  if (counted) return new NoSteps(counted, "the function counts its arguments");
  const writer = new StepWriter(named, promisifyName);
  const base = tree.indentAt(node.start);
  try {
    const indent = `${base}${indentUnit(tree, base)}`;
    const steps = writer.write(indent);
    const last = steps.at(-1)?.trim() === "return;" ? steps.slice(0, -1) : steps;
    const before = callback.previousPart;
    const edits: Edit[] = [
      { start: node.start, end: node.start, text: "async " },
      { start: before?.end ?? callback.start, end: callback.end, text: "" },
      { start: body.start, end: body.end, text: `{\n${last.join("\n")}\n${base}}` },
    ];
    const parameters = parametersOf(node).length;
    for (const reference of referencesOf(to)) {
      if (reference.node.same(own)) continue;
      if (node.holds(reference.node)) throw new NoSteps(reference.node, "the function calls itself");
      const isWrapped = exported === "wrapped" && exportedAs(reference.node) !== undefined;
      if (!isWrapped) callerEdit(reference.node, parameters);
    }
    return {
      edits: edits.sort((a, b) => a.start - b.start),
      walked: writer.emptied,
      handled: writer.handled,
    };
  } catch (error) {
    if (error instanceof NoSteps) return error;
    throw error;
  }
}

interface Rewritten {
  readonly edits: Edit[];
  /** The lists of which each item has a work of its own. */
  readonly walked: readonly SyntaxNode[];
  /** The errors that have a handler of their own. */
  readonly handled: readonly SyntaxNode[];
}

const differsIfEmpty = (list: SyntaxNode): Evidence =>
  caution(
    "value.result",
    `where \`${list.text}\` is empty, the callback was never called, and the new function gives its value; after an error the callback could be called again, and a promise is settled once`,
    list,
  );

const catchesMore = (error: SyntaxNode): Evidence =>
  caution(
    "flow.throws",
    `what the call or its arguments throw at once came past the test of \`${error.text}\`, and its handler gets it now`,
    error,
  );

/** What `module.exports` or the like is given in the place of the function, so that others get it with its callback. */
function exportedAs(node: SyntaxNode, by = "callbackify"): string | undefined {
  if (!isGivenToExports(node)) return undefined;
  if (node.is("shorthand_property_identifier")) return `${node.text}: ${by}(${node.text})`;
  const isValue = node.field === "right" || (node.parent?.is("pair") === true && node.field === "value");
  return isValue ? `${by}(${node.text})` : undefined;
}

function isGivenToExports(node: SyntaxNode): boolean {
  const around = node.closest(["assignment_expression"]);
  return around !== undefined && /^(module\.)?exports\b/.test(around.child("left")!.text);
}

/** The statement that makes the function. */
function together(node: SyntaxNode): SyntaxNode[] | undefined {
  const named = namedAt(node);
  if (!named || !hasSteps(named)) return undefined;
  const statement = node.is("function_declaration") ? node : node.parent!.parent!;
  return node.is("function_declaration") || statement.parts.length === 1 ? [statement] : undefined;
}

function namesIn(node: SyntaxNode): Filled[] | undefined {
  const named = namedAt(node);
  return named && [[name, [named.name]]];
}

/** What becomes of the uses of the function: its calls, and what other files are given. */
function usesFor(set: Settings): EveryUse {
  const call = javascript.expression`${name}(${values})`;
  const wrapped = use(javascript`${name}`)
    .when((match) => exportedAs(match.the(name)) !== undefined)
    .becomes((match) => [text(exportedAs(match.the(name), match.nameOf(callbackify))!)]);
  return everyUseOf(name, [
    use(javascript.expression`promisify(${name})`).becomes(javascript.expression`${name}`),
    use(javascript.expression`util.promisify(${name})`).becomes(javascript.expression`${name}`),
    use(call).becomes((match) => {
      const edit = callerEdit(
        match.the(name),
        match.all(values).filter((one) => one.named && !one.is("comment")).length,
      );
      return [copy(match.node.start, match.node.end, [edit])];
    }),
    ...(set.exported === "wrapped" ? [wrapped] : []),
  ]);
}

const promisify = need("util", "promisify");
const callbackify = need("util", "callbackify");
const namedIn = (match: Match): Named => namedAt(match.the(fn))!;

const settings = z.object({
  exported: z
    .enum(["held", "wrapped"])
    .default("wrapped")
    .describe(
      "What becomes of a function that `module.exports` gives to other files: other files get it with its callback as before, by `callbackify`, or it is held back.",
    ),
});
type Settings = z.output<typeof settings>;

const make = (set: Settings): Rule =>
  rule({
    id: "javascript/steps-awaited",
    kind: "idiom",
    title: "Write nested callbacks as steps that are awaited",
    why: "Each step moves the next one to the right and repeats the test for an error; a way that forgets to call back is never noticed.",
    was: ofKind(fn, { together, fills: namesIn }),
    mentions: ["function", "=>"],
    target: "2018",
    given: [
      condition("every step and every call is understood", (match) => {
        const found = editsOf(namedIn(match), set);
        return found instanceof NoSteps
          ? no("form.fits", found.why, found.at)
          : yes("form.fits", "every step and every call is understood");
      }),
      condition("all its callers are known", (match) => {
        const { to, name: own } = namedIn(match);
        const given =
          set.exported === "wrapped" ? undefined : referencesOf(to).find((one) => isGivenToExports(one.node));
        const kind = moduleKind(own);
        if (given || (kind !== undefined && kind !== NODE && isSeenElsewhere(to)))
          return no("name.other-uses", `other files may call \`${own.text}\` with a callback`, own);
        return (
          usesOf(to).doubts[0] ?? yes("name.other-uses", `all callers of \`${own.text}\` are known`, own)
        );
      }),
      condition("no other script calls it", (match) => isNoGlobal(namedIn(match).to, namedIn(match).name), {
        unknownIs: "possible",
      }),
      condition("nobody depends on when the callback runs", (match) =>
        unknown(
          "flow.asynchronous",
          `what threw at once rejects the promise of \`${namedIn(match).name.text}\` from now on, and what follows a step runs a little later`,
          match.the(fn),
        ),
      ),
    ],
    cautions: (match) => {
      const found = editsOf(namedIn(match), set);
      return found instanceof NoSteps
        ? []
        : [...found.walked.map(differsIfEmpty), ...found.handled.map(catchesMore)];
    },
    uses: usesFor(set),
    becomes: (match): Segment[] => {
      const { edits } = editsOf(namedIn(match), set, () => match.nameOf(promisify)) as { edits: Edit[] };
      return [copy(match.nodes[0]!.start, match.nodes.at(-1)!.end, edits)];
    },
    options: options(settings, make),
    trials,
  });

const js = trialsIn("javascript");
const wrapped = trialsIn("javascript", undefined, { exported: "wrapped" });
const held = trialsIn("javascript", undefined, { exported: "held" });

const trials = [
  js.rewrites(
    `
      const fs = require("fs");
      const { parse } = require("./parse");
      function load(path, done) {
        // First the text.
        fs.readFile(path, "utf8", function (err, text) {
          if (err) return done(err);
          parse(text, (err, jars) => {
            if (err) {
              done(err);
              return;
            }
            if (jars.length === 0) return done(new Error("empty"));
            done(null, jars);
          });
        });
      }
      load("jars.txt", function (err, jars) {
        if (err) {
          console.error(err);
        } else {
          console.log(jars);
        }
      });
      `,
    `
      const fs = require("fs");
      const { parse } = require("./parse");
      const { promisify } = require("util");
      async function load(path) {
        // First the text.
        const text = await fs.promises.readFile(path, "utf8");
        const jars = await promisify(parse)(text);
        if (jars.length === 0) throw new Error("empty");
        return jars;
      }
      load("jars.txt").then((jars) => {
        console.log(jars);
      }, (err) => {
        console.error(err);
      });
      `,
    "likely",
  ),
  js.rewrites(
    `
      import fs from "fs";
      const size = (path, cb) => {
        const full = path + ".txt";
        fs.stat(full, (error, stat) => {
          if (error) {
            cb(error);
          } else {
            cb(null, stat.size);
          }
        });
      };
      function show(path, cb) {
        size(path, cb);
      }
      show("a", print);
      `,
    `
      import fs from "fs";
      const size = async (path) => {
        const full = path + ".txt";
        const stat = await fs.promises.stat(full);
        return stat.size;
      };
      async function show(path) {
        return size(path);
      }
      show("a").then((value) => print(null, value), print);
      `,
    "likely",
  ),
  js.rewrites(
    "import { g } from './g.js';\nfunction f(x, cb) { g(x, (e, { kg }) => { if (e) return cb(e); kg += 1; cb(null, kg); }); }\nf(1, h);",
    "import { g } from './g.js';\nimport { promisify } from 'util';\nasync function f(x) {\n  let { kg } = await promisify(g)(x);\n  kg += 1;\n  return kg;\n}\nf(1).then((value) => h(null, value), h);",
    "likely",
  ),
  // By the names that the file has for them.
  js.rewrites(
    "const util = require('util');\nfunction f(x, cb) { g(x, cb); }\nfunction g(x, cb) {}\nf(1, h);",
    "const util = require('util');\nasync function f(x) {\n  return util.promisify(g)(x);\n}\nfunction g(x, cb) {}\nf(1).then((value) => h(null, value), h);",
    "likely",
  ),
  wrapped.rewrites(
    `
    "use strict";
    const { callbackify: withCallback, promisify: asPromise } = require("util");
    const { weigh } = require("./scale");
    function kilos(hive, cb) {
      weigh(hive, (e, grams) => { if (e) return cb(e); cb(null, grams / 1000); });
    }
    exports.kilos = kilos;
    `,
    `
    "use strict";
    const { callbackify: withCallback, promisify: asPromise } = require("util");
    const { weigh } = require("./scale");
    async function kilos(hive) {
      const grams = await asPromise(weigh)(hive);
      return grams / 1000;
    }
    exports.kilos = withCallback(kilos);
    `,
    "likely",
  ),
  // Two functions that other files get.
  js.rewrites(
    `
    const { g } = require("./g");
    function a(x, cb) { g(x, cb); }
    function b(x, cb) { a(x, (e, v) => { if (e) return cb(e); cb(null, v + 1); }); }
    module.exports = { a: a, b: b };
    `,
    `
    const { g } = require("./g");
    const { callbackify, promisify } = require("util");
    async function a(x) {
      return promisify(g)(x);
    }
    async function b(x) {
      const v = await a(x);
      return v + 1;
    }
    module.exports = { a: callbackify(a), b: callbackify(b) };
    `,
    "likely",
  ),
  held.holds("function f(x, cb) { g(x, cb); }\nexports.f = f;", "another way"),
  js.holds("export function f(x, cb) { g(x, cb); }", "other files may call"),
  js.holds(
    "function f(x, cb) { g(x, function (e, v) { if (e) return cb(e); cb(null, this.a); }); }",
    "that of the callback",
  ),
  js.holds("function f(x, cb) { g(x, (e, v) => { if (e) return cb(e); cb(null, v); }); h(); }", "later"),
  js.holds("function f(x, cb) { g(x, (e, v) => { if (e) log(e); cb(null, v); }); }", "stands together"),
  js.holds(
    "function f(x, cb) { g(x, (e, v) => { if (e) return cb(e); if (v) cb(null, 1); cb(null, v); }); }",
    "goes on behind",
  ),
  js.holds("function f(x, cb) { for (const y of x) g(y, cb); }", "goes on behind"),
  js.holds('function f(x, cb) { x.on("close", cb); }', "waits for an event"),
  js.holds(
    "function f(x, cb) { g(x, cb); }\nfunction g(x, cb) { h(x, (e, a) => { cb(null, a, 2); }); }\nf(1, h);",
    "more than one value",
  ),
  // The callback is handed on in some ways, and blank lines stay.
  js.rewrites(
    `
      const { g, h } = require("./g");
      function f(x, cb) {
        if (!x) return g(x, cb);

        h(x, (err, y) => {
          if (err) return g(x, cb);
          log(y);

          if (y > 1) {
            g(y, cb);
          } else {
            cb(null, y);
          }
        });
      }
      f(1, print);
      `,
    `
      const { g, h } = require("./g");
      const { promisify } = require("util");
      async function f(x) {
        if (!x) return promisify(g)(x);

        let y;
        try {
          y = await promisify(h)(x);
        } catch {
          return promisify(g)(x);
        }
        log(y);

        if (y > 1) {
          return promisify(g)(y);
        } else {
          return y;
        }
      }
      f(1).then((value) => print(null, value), print);
      `,
    "likely",
  ),
  js.holds("function f(x, cb) { g(x, cb); }\non('x', f);", "another way"),
  js.holds("function f(x, cb) { g(x, cb); }\nf(1);", "without its callback"),
  // Code that never called back ended there; the new function would go on.
  js.holds(
    "function f(x, cb) { g(x, (e, v) => { if (e) return cb(e); if (v) cb(null, v); }); }",
    "ends here without",
  ),
  js.holds("function f(x, cb) { g(x, (e, v) => { if (e) return cb(e); }); }", "ends here without"),
  js.holds("function f(x, cb) { g(x, (e, v) => { if (e) return cb(e); log(v); }); }", "ends here without"),
  js.holds(
    "function f(x, cb) { g(x, (e, v) => { if (e) return cb(e); if (!v) return; cb(null, v); }); }",
    "leaves without calling",
  ),
  js.holds(
    "function f(x, cb) { if (!x) return h(); g(x, (e, v) => { if (e) return cb(e); cb(null, v); }); }",
    "leaves without calling",
  ),
  js.holds(
    "function f(x, cb) { g(x, (e, v) => { if (e) return cb(e); try { cb(null, p(v)); } catch (x) { log(x); } }); }",
    "goes on behind",
  ),
  js.rewrites(
    `
      import { hive } from "./hive.js";
      function f(x, cb) {
        if (x.isEmpty) {
          cb(null, {
            kilos: 0,
          });
          return;
        }
        hive.weigh(x, {
          twice: true,
        }, (e, v) => {
          if (e) return cb(e);
          if (v.kilos > 0) {
            cb(null, v);
          } else {
            cb(new Error("nothing"));
          }
          return; // nothing more to do
        });
      }
      `,
    `
      import { hive } from "./hive.js";
      async function f(x) {
        if (x.isEmpty) {
          return {
            kilos: 0,
          };
        }
        const v = await new Promise((resolve, reject) => {
          hive.weigh(x, {
            twice: true,
          }, (error, value) => (error ? reject(error) : resolve(value)));
        });
        if (v.kilos > 0) {
          return v;
        } else {
          throw new Error("nothing");
        }
        // nothing more to do
      }
      `,
    "likely",
  ),
  // An error that is not simply passed on has a handler of its own.
  js.rewrites(
    `
      const fs = require("fs");
      function load(path, done) {
        fs.readFile(path, "utf8", (err, text) => {
          if (err) {
            log(err);
            return done(new Error("no " + path));
          }
          done(null, JSON.parse(text));
        });
      }
      function stored(path, done) {
        fs.stat(path, (err) => {
          if (err) return done(null, false);
          done(null, true);
        });
      }
      load("a", h);
      stored("a", h);
      `,
    `
      const fs = require("fs");
      async function load(path) {
        let text;
        try {
          text = await fs.promises.readFile(path, "utf8");
        } catch (err) {
          log(err);
          throw new Error("no " + path);
        }
        return JSON.parse(text);
      }
      async function stored(path) {
        try {
          await fs.promises.stat(path);
        } catch {
          return false;
        }
        return true;
      }
      load("a").then((value) => h(null, value), h);
      stored("a").then((value) => h(null, value), h);
      `,
    "likely",
  ),
  js.holds(
    "function f(x, cb) { g(x, (e, v) => { if (e) { log(e); return; } cb(null, v); }); }",
    "ends here without",
  ),
  // What runs a function later.
  js.rewrites(
    `
      const { g } = require("./g");
      function f(x, cb) {
        setTimeout(function () {
          if (!x) return cb(new Error("none"));
          g(x, cb);
        }, 10);
      }
      f(1, (err, x) => {
        if (err) throw err;
        h(x);
      });
      `,
    `
      const { g } = require("./g");
      const { promisify } = require("util");
      async function f(x) {
        await new Promise((resolve) => setTimeout(resolve, 10));
        if (!x) throw new Error("none");
        return promisify(g)(x);
      }
      f(1).then((x) => {
        h(x);
      });
      `,
    "likely",
  ),
  js.holds("function f(x, cb) { setTimeout((y) => { cb(null, y); }, 10, x); }", "run later"),
  // A work for each item, counted until all have ended.
  js.rewrites(
    `
      const fs = require("fs");
      function sizes(files, cb) {
        var left = files.length, all = [];
        files.forEach(function (file) {
          fs.stat(file, function (err, stat) {
            if (err) return cb(err);
            all.push(stat.size); // in bytes
            left -= 1;
            if (left === 0) cb(null, all);
          });
        });
      }
      function made(folders, cb) {
        let count = 0;
        for (const folder of folders) {
          fs.mkdir(folder, (err) => {
            if (err) return cb(err);
            if (++count === folders.length) {
              cb();
            }
          });
        }
      }
      sizes(["a"], h);
      made(["a"], h);
      `,
    `
      const fs = require("fs");
      async function sizes(files) {
        var all = [];
        await Promise.all(files.map(async (file) => {
          const stat = await fs.promises.stat(file);
          all.push(stat.size); // in bytes
        }));
        return all;
      }
      async function made(folders) {
        await Promise.all(folders.map(async (folder) => {
          await fs.promises.mkdir(folder);
        }));
      }
      sizes(["a"]).then((value) => h(null, value), h);
      made(["a"]).then((value) => h(null, value), h);
      `,
    "likely",
  ),
  // Comments on what goes stay; a name that the file has for something else is left alone.
  js.rewrites(
    `
      const fs = require("fs");
      function callbackify() {}
      function sizes(files, cb) {
        let left = files.length; // how many are left
        const all = [];
        files.forEach((file) => {
          fs.stat(file, (err, stat) => {
            if (err) return cb(err);
            all.push(stat.size);
            left--; // one less
            if (left === 0) {
              // the last
              cb(null, all);
            }
          });
        });
      }
      exports.sizes = sizes;
      callbackify();
      `,
    `
      const fs = require("fs");
      const { callbackify: callbackify_2 } = require("util");
      function callbackify() {}
      async function sizes(files) {
        // how many are left
        const all = [];
        await Promise.all(files.map(async (file) => {
          const stat = await fs.promises.stat(file);
          all.push(stat.size);
          // one less
          // the last
        }));
        return all;
      }
      exports.sizes = callbackify_2(sizes);
      callbackify();
      `,
    "likely",
  ),
  js.holds(
    "function f(xs, cb) { let n = xs.length; xs.forEach((x) => { g(x, (e, v) => { if (e) return cb(e); n--; if (n === 0) cb(null, v); }); }); }",
    "of one work",
  ),
  js.holds(
    "function f(xs, cb) { let n = xs.length; xs.forEach((x) => { g(x, (e, v) => { if (e) return cb(null, e); n--; if (n === 0) cb(null, 1); }); }); }",
    "without waiting for the others",
  ),
  js.holds(
    "function f(xs, cb) { let n = xs.length; xs.forEach((x) => { g(x, (e, v) => { if (e) return cb(e); if (!v) { n--; return; } n--; if (n === 0) cb(null, 1); }); }); }",
    "stands together",
  ),
  js.holds(
    "function f(xs, cb) { let n = 2; xs.forEach((x) => { g(x, (e, v) => { if (e) return cb(e); n--; if (n === 0) cb(null, 1); }); }); }",
    "stands together",
  ),
  js.holds(
    'import { exec } from "child_process";\nfunction f(x, cb) { exec(x, (e, v) => { if (e) return cb(e); cb(null, v); }); }',
    "can give something else",
  ),
  js.ignores("function f(x, cb) { cb(null, x); }"),
  js.ignores("function f(xs, fn) { return xs.length; }"),
  wrapped.rewrites(
    `
    "use strict";
    const fs = require("fs");
    function size(path, cb) {
      fs.stat(path, (e, stat) => { if (e) return cb(e); cb(null, stat.size); });
    }
    exports.size = size;
    module.exports.all = { size };
    `,
    `
    "use strict";
    const fs = require("fs");
    const { callbackify } = require("util");
    async function size(path) {
      const stat = await fs.promises.stat(path);
      return stat.size;
    }
    exports.size = callbackify(size);
    module.exports.all = { size: callbackify(size) };
    `,
    "likely",
  ),
];

export const stepsAwaited = make(settings.parse({}));
