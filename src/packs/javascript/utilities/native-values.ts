import { oncePerTree, type Snippet, unknown, yes } from "../../../core.js";
import { shown, boxed, countsAlike, sameRealm, isLazy, isFunction } from "./doubts.js";
import type { UtilityCall } from "./library-call.js";
import { subjectOf } from "./lists.js";
import { first, second, index, unused, value1, made, js, list, lodash, type Native } from "./native-row.js";
import { codeOf } from "./short-forms.js";

/** The quotes that a file uses most. */
const quoteOf = oncePerTree((tree) => {
  const strings = tree.ofKinds(["string"]).map((n) => tree.text[tree.starts[n]!]);
  return strings.filter((one) => one === "'").length * 2 > strings.length ? ["'"] : ['"'];
});

/** A question for the type of a value, in the quotes that the file uses most. */
const typeIs =
  (type: string) =>
  ({ node }: UtilityCall): Snippet => {
    const [quote] = quoteOf(node.tree);
    return codeOf(["typeof ", ` === ${quote}${type}${quote}`], [first]);
  };

const emptiness =
  (isNegated: boolean) =>
  (call: UtilityCall): Snippet | undefined => {
    const known = subjectOf(call)?.is;
    const length = known === "object" ? js`Object.keys(${first}).length` : js`${first}.length`;
    const [open, ...rest] = length.texts;
    rest[rest.length - 1] += isNegated ? " > 0" : " === 0";
    return codeOf([open!, ...rest], length.parts);
  };

/** Numbers from one to another, where both are written. */
const between = ({ args }: UtilityCall): Snippet | undefined => {
  const [from, to] = args.map((one) => (one.is("number") && /^\d+$/.test(one.text) ? Number(one.text) : NaN));
  if (!(from! < to!)) return undefined;
  return codeOf(
    [`Array.from({ length: ${to! - from!} }, (`, ", ", ") => ", ` + ${from!})`],
    [unused, index, index],
  );
};

/** The opposite of a question for emptiness. */
export const notEmpty = emptiness(true);

/** What is asked of values, and what is made of numbers and functions. */
export const VALUES: readonly Native[] = [
  // What a value is.
  value1("isArray", js`Array.isArray(${first})`),
  value1("isUndefined", js`${first} === undefined`),
  value1("isNull", js`${first} === null`),
  value1("isNil", js`${first} == null`, lodash),
  value1("isFunction", typeIs("function"), {
    asks: ({ library, args }) =>
      library === "underscore"
        ? yes("value.kind", "both ask for the type")
        : unknown(
            "value.kind",
            `${shown(args[0]!.text)} could be an async generator, which is none for lodash`,
            args[0],
          ),
  }),
  value1("isString", typeIs("string"), { asks: boxed("String") }),
  value1("isNumber", typeIs("number"), { asks: boxed("Number") }),
  value1("isBoolean", typeIs("boolean"), { asks: boxed("Boolean") }),
  value1("isInteger", js`Number.isInteger(${first})`, lodash),
  value1("isSafeInteger", js`Number.isSafeInteger(${first})`, lodash),
  value1("isFinite", js`Number.isFinite(${first})`, lodash),
  value1("isNaN", js`Number.isNaN(${first})`, { asks: boxed("Number") }),
  value1("isDate", js`${first} instanceof Date`, { asks: sameRealm }),
  value1("isRegExp", js`${first} instanceof RegExp`, { asks: sameRealm }),
  made(1, ["list", "text", "object"])("isEmpty", emptiness(false), { alsoObjects: true }),
  made(1, ["list", "text", "object"])(
    "size",
    (call) => (subjectOf(call)?.is === "object" ? js`Object.keys(${first}).length` : js`${first}.length`),
    { asks: countsAlike, alsoObjects: true },
  ),
  made(2, "value")("defaultTo", (call) => (isLazy(call, 1) ? js`${first} ?? ${second}` : undefined), {
    asks: ({ args }) =>
      unknown(
        "value.kind",
        `${shown(args[0]!.text)} could be \`NaN\`, for which the library takes the default`,
        args[0],
      ),
    ...lodash,
  }),

  // Numbers and functions.
  value1("range", js`[...Array(${first}).keys()]`, {
    asks: ({ args }) =>
      args[0]!.is("number") && /^\d+$/.test(args[0]!.text)
        ? yes("value.kind", "it is not negative", args[0])
        : unknown("value.kind", `${shown(args[0]!.text)} could be negative or a fraction`, args[0]),
    ...list,
  }),
  made(2, "value")("range", between, list),
  made(0, "value")("now", js`Date.now()`),
  made(2, "value")("bind", ({ args }) => (args[1]!.text === "_" ? undefined : js`${first}.bind(${second})`), {
    asks: isFunction,
  }),
];
