// Reads a JSON list of pieces of JavaScript and prints what each does with several sets of values for its free names.
const codes = JSON.parse(require("node:fs").readFileSync(0, "utf8"));

function hash(text) {
  let h = 7;
  for (const char of text) h = (h * 31 + char.charCodeAt(0)) >>> 0;
  return h;
}

/** What the language itself has. */
const LANGUAGE = new Set(
  "Object Array Math Number String Boolean Symbol Map Set JSON Error TypeError RangeError Promise Reflect isNaN parseInt parseFloat".split(
    " ",
  ),
);

const PLAIN = [undefined, null, 0, "", false, 7, "text"];

/** A value for a name: one of the plain ones, or an object whose members are values again, and which logs its calls. */
function sample(path, seed, log) {
  const pick = hash(`${path} ${seed}`) % 12;
  return pick < PLAIN.length ? PLAIN[pick] : thing(path, seed, log);
}

function thing(path, seed, log) {
  const own = {};
  const target = function () {};
  return new Proxy(target, {
    get(_t, key) {
      if (key === Symbol.toPrimitive) return () => path;
      if (typeof key === "symbol") return undefined;
      if (!(key in own)) own[key] = path.split(".").length > 3 ? key : sample(`${path}.${key}`, seed, log);
      return own[key];
    },
    set: (_t, key, value) => ((own[key] = value), true),
    apply(_t, _self, args) {
      note(log, `${path}(${args.map(show).join()})`);
      return sample(`${path}()`, seed, log);
    },
  });
}

/** Code that goes on for ever is stopped. */
function note(log, what) {
  if (log.push(what) > 100) throw new Error("too long");
}

function show(value) {
  if (typeof value === "function") return "[function]";
  if (Array.isArray(value)) return `[${value.map(show).join()}]`;
  if (value && typeof value === "object") return JSON.stringify(value);
  return typeof value === "string" ? JSON.stringify(value) : String(value);
}

/** Is a place in no function, block or header? What is declared in one is seen by nobody outside. */
function isOutermost(code, index) {
  const ahead = code.slice(0, index).replace(/(["'`])(?:\\.|(?!\1)[^\\])*\1|\/\/.*/g, "");
  return (ahead.match(/[({[]/g) ?? []).length === (ahead.match(/[)}\]]/g) ?? []).length;
}

function once(code, seed) {
  const log = [];
  const known = Object.create(null);
  const scope = new Proxy(known, {
    has: (_t, key) => !["log", "report", "sampleFor"].includes(key) && !LANGUAGE.has(key),
    get(_t, key) {
      if (typeof key === "symbol") return undefined;
      if (key === "undefined") return undefined;
      if (!(key in known)) {
        known[key] = /^(note|g|f|mark|find|make|read|take|next|open|close|log)$/.test(key)
          ? (...args) => (note(log, `${key}(${args.map(show).join()})`), sample(`${key}()`, seed, log))
          : sample(key, seed, log);
      }
      return known[key];
    },
    set: (_t, key, value) => ((known[key] = value), true),
  });
  const declared = [...code.matchAll(/\b(?:let|const|var|function)\s+(\w+)/g)].filter(({ index }) =>
    isOutermost(code, index),
  );
  const names = [...new Set(declared.map((m) => m[1]))];
  const calls = names.map(
    (name) =>
      `try { if (typeof ${name} === "function") report("${name}()", ${name}(${name}.length > 0 ? sampleFor(1) : undefined, sampleFor(2))); else report("${name}", ${name}); } catch (e) { report("${name}!", String(e.name)); }`,
  );
  const report = (name, value) => log.push(`${name}=${show(value)}`);
  const sampleFor = (i) => sample(`argument${i}`, seed, log);
  try {
    new Function("scope", "report", "sampleFor", `with (scope) {\n${code}\n${calls.join("\n")}\n}`)(
      scope,
      report,
      sampleFor,
    );
  } catch (error) {
    log.push(`throws ${error instanceof SyntaxError ? "SYNTAX " + error.message : error.name}`);
  }
  for (const key of Object.keys(known).sort())
    if (typeof known[key] !== "function") log.push(`${key}:${show(known[key])}`);
  return log.join("|");
}

const result = codes.map((code) => Array.from({ length: 40 }, (_, seed) => once(code, seed)).join("\n"));
process.stdout.write(JSON.stringify(result));
