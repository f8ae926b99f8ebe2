import type { LibraryCalls, LibraryClasses } from "../facts.js";
import { rowsOf } from "./words.js";

const { calls, callsIn, classes } = rowsOf("javascript");

/** Libraries for what the language lacked once. */
const UTILITIES = ["lodash", "lodash-es", "underscore"];

/** What the language has, and modules of Node; browsers have the first part only. */
export const CALLS: readonly LibraryCalls[] = [
  calls("Array.isArray", { effect: "none", gives: "boolean" }),
  calls("Number.isInteger Number.isFinite Number.isNaN Number.isSafeInteger Object.is Boolean", {
    effect: "none",
    neverThrows: true,
    gives: "boolean",
  }),
  calls("isNaN isFinite", { effect: "none", asksArguments: true, gives: "boolean" }),
  calls("parseInt parseFloat Number Number.parseInt Number.parseFloat", {
    effect: "none",
    asksArguments: true,
    gives: "number",
  }),
  calls("String String.fromCharCode String.fromCodePoint", {
    effect: "none",
    asksArguments: true,
    gives: "string",
  }),
  calls(
    "Math.abs Math.max Math.min Math.floor Math.ceil Math.round Math.trunc Math.sign Math.sqrt Math.cbrt Math.pow " +
      "Math.hypot Math.log Math.log2 Math.log10 Math.exp Math.sin Math.cos Math.tan Math.atan Math.atan2",
    { effect: "none", asksArguments: true, gives: "number" },
  ),
  calls("Date.new", { effect: "reads", varies: "without arguments", asksArguments: true }),
  calls("Error.new TypeError.new RangeError.new", { effect: "reads", asksArguments: true }),
  calls("Map.new Set.new WeakMap.new WeakSet.new", { effect: "reads", asksArguments: true, keeps: true }),
  calls("Math.random Date.now performance.now", {
    effect: "reads",
    varies: true,
    neverThrows: true,
    gives: "number",
  }),
  calls("Object.keys Object.getOwnPropertyNames", { effect: "reads", asksArguments: true, gives: "Array" }),
  calls("Object.values Object.entries", {
    effect: "reads",
    asksArguments: true,
    keeps: true,
    gives: "Array",
  }),
  calls("Object.assign Object.freeze Object.seal", { effect: "changes", asksArguments: true, keeps: true }),
  calls("Object.hasOwn", { effect: "reads", asksArguments: true, gives: "boolean" }),
  calls("Array.from", { effect: "reads", asksArguments: true, runs: true, keeps: true, gives: "Array" }),
  calls("Array.of", { effect: "none", keeps: true, gives: "Array" }),
  calls("JSON.stringify", { effect: "reads", asksArguments: true, runs: true, orMissing: true }),
  calls("JSON.parse", { effect: "none", asksArguments: true, runs: true, orMissing: true }),
  calls("encodeURIComponent decodeURIComponent encodeURI decodeURI", {
    effect: "none",
    asksArguments: true,
    gives: "string",
  }),
  calls("console.log console.info console.warn console.error console.debug", {
    effect: "prints",
    asksArguments: true,
    orMissing: true,
  }),

  calls(
    "string#trim string#trimStart string#trimEnd string#toLowerCase string#toUpperCase string#slice string#substring " +
      "string#padStart string#padEnd string#repeat string#charAt string#concat string#normalize",
    { effect: "none", asksArguments: true, gives: "string" },
  ),
  calls("string#replace string#replaceAll", {
    effect: "reads",
    asksArguments: true,
    runs: true,
    gives: "string",
  }),
  calls("string#split", { effect: "none", asksArguments: true, gives: "Array" }),
  calls("string#indexOf string#lastIndexOf string#charCodeAt string#localeCompare", {
    effect: "none",
    asksArguments: true,
    gives: "number",
  }),
  calls("string#includes string#startsWith string#endsWith", {
    effect: "none",
    asksArguments: true,
    gives: "boolean",
  }),
  calls("string#match string#at string#codePointAt", {
    effect: "reads",
    asksArguments: true,
    orMissing: true,
  }),
  calls("number#toFixed number#toPrecision number#toString", {
    effect: "none",
    asksArguments: true,
    gives: "string",
  }),
  calls("Array#push Array#unshift", { effect: "changes", keeps: true, gives: "number" }),
  calls("Array#pop Array#shift", { effect: "changes", orMissing: true }),
  calls("Array#sort", { effect: "changes", asksArguments: true, runs: true }),
  calls("Array#reverse", { effect: "changes" }),
  calls("Array#slice Array#concat Array#flat", {
    effect: "reads",
    asksArguments: true,
    keeps: true,
    gives: "Array",
  }),
  calls("Array#map Array#filter Array#flatMap", { effect: "reads", runs: true, gives: "Array" }),
  calls("Array#some Array#every", { effect: "reads", runs: true, gives: "boolean" }),
  calls("Array#findIndex", { effect: "reads", runs: true, gives: "number" }),
  calls("Array#forEach Array#find Array#reduce", {
    effect: "reads",
    runs: true,
    keeps: true,
    orMissing: true,
  }),
  calls("Array#join", { effect: "reads", asksArguments: true, gives: "string" }),
  calls("Array#includes", { effect: "reads", gives: "boolean" }),
  calls("Array#indexOf Array#lastIndexOf", { effect: "reads", asksArguments: true, gives: "number" }),

  calls("Map#get WeakMap#get", { effect: "reads", neverThrows: true, keeps: true, orMissing: true }),
  calls("Map#has WeakMap#has Set#has WeakSet#has", { effect: "reads", neverThrows: true, gives: "boolean" }),

  callsIn("path", "join resolve basename dirname extname normalize relative", {
    effect: "reads",
    gives: "string",
  }),
  callsIn("path", "isAbsolute", { effect: "none", gives: "boolean" }),
  callsIn("fs", "existsSync", { effect: "reads", gives: "boolean" }),
  callsIn("fs", "readSync writeSync", { effect: "changes", gives: "number" }),
  callsIn("fs", "fstatSync", { effect: "reads" }),
  callsIn("fs", "fsyncSync ftruncateSync", { effect: "changes", orMissing: true }),
  ...UTILITIES.flatMap((from) => [
    callsIn(from, "map filter reject sortBy partition times", {
      effect: "reads",
      runs: true,
      keeps: true,
      gives: "Array",
    }),
    callsIn(
      from,
      "compact uniq flatten difference intersection union without chunk zip range keys values toArray",
      {
        effect: "reads",
        asksArguments: true,
        keeps: true,
        gives: "Array",
      },
    ),
    callsIn(from, "groupBy countBy", { effect: "reads", runs: true, keeps: true, gives: "Object" }),
    callsIn(from, "pick omit invert", { effect: "reads", runs: true, keeps: true, gives: "Object" }),
    callsIn(from, "escape", { effect: "none", asksArguments: true, gives: "string" }),
    callsIn(from, "isEmpty isEqual isArray isFunction isNull isUndefined isString isNumber", {
      effect: "reads",
      asksArguments: true,
      gives: "boolean",
    }),
    callsIn(from, "size", { effect: "reads", asksArguments: true, gives: "number" }),
  ]),
  ...["lodash", "lodash-es"].flatMap((from) => [
    callsIn(from, "flatMap orderBy uniqBy", { effect: "reads", runs: true, keeps: true, gives: "Array" }),
    callsIn(from, "flattenDeep toPairs", {
      effect: "reads",
      asksArguments: true,
      keeps: true,
      gives: "Array",
    }),
    callsIn(from, "keyBy mapValues mapKeys pickBy omitBy", {
      effect: "reads",
      runs: true,
      keeps: true,
      gives: "Object",
    }),
    callsIn(from, "fromPairs zipObject", { effect: "reads", keeps: true, gives: "Object" }),
    callsIn(from, "trim camelCase kebabCase snakeCase startCase upperFirst capitalize", {
      effect: "none",
      asksArguments: true,
      gives: "string",
    }),
    callsIn(from, "isNil", { effect: "none", gives: "boolean" }),
  ]),
  callsIn("underscore", "indexBy mapObject object", {
    effect: "reads",
    runs: true,
    keeps: true,
    gives: "Object",
  }),
  callsIn("os", "tmpdir homedir hostname platform", { effect: "reads", gives: "string" }),
];

export const CLASSES: readonly LibraryClasses[] = [
  classes("Map WeakMap", ["map"]),
  classes("Array", ["sequence"]),
];
