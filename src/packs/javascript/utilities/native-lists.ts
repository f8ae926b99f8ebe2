import { no, type Snippet, targetAllows, unknown, yes } from "../../../core.js";
import {
  shown,
  isPositive,
  isNoNumber,
  areNumbers,
  areObjects,
  arePairs,
  areArrays,
  isOneOrWritten,
} from "./doubts.js";
import type { UtilityCall } from "./library-call.js";
import {
  first,
  second,
  third,
  item,
  total,
  list1,
  list2,
  list3,
  made,
  js,
  list,
  lodash,
  all,
  type Native,
  underscore,
} from "./native-row.js";
import { filled, shortRead } from "./short-forms.js";

/** The last item, by a method where the language has it. */
const lastItem = ({ match, args }: UtilityCall): Snippet | undefined => {
  if (targetAllows("2022", match)) return js`${first}.at(-1)`;
  return args[0]!.is("identifier") ? js`${first}[${first}.length - 1]` : undefined;
};

/** A replacement with what a short form reads of an item in the place of the second argument. */
const withRead =
  (code: Snippet) =>
  (call: UtilityCall): Snippet | undefined => {
    const node = call.args[1]!;
    const read = node.is("string") ? shortRead(node, call, item) : undefined;
    return read && filled(code, second, read);
  };

/** What is done with lists. */
export const LISTS: readonly Native[] = [
  // What is done for each item.
  list2("map collect", js`${first}.map(${second})`, { runs: "read", walks: "list", ...all, ...list }),
  list2("filter select", js`${first}.filter(${second})`, { runs: "test", walks: "entries", ...all, ...list }),
  list2("reject", js`${first}.filter(${second})`, { runs: "contrary", alsoObjects: true, ...all, ...list }),
  list2("forEach each", js`${first}.forEach(${second})`, {
    runs: "read",
    walks: "each",
    givesOther: true,
    ...all,
  }),
  list2("some any", js`${first}.some(${second})`, { runs: "test", walks: "list", ...all }),
  list2("every all", js`${first}.every(${second})`, { runs: "test", walks: "list", ...all }),
  list2("find detect", js`${first}.find(${second})`, { runs: "test", walks: "entries" }),
  list2("findIndex", js`${first}.findIndex(${second})`, { runs: "test", alsoObjects: true }),
  list2("flatMap", js`${first}.flatMap(${second})`, {
    runs: "read",
    alsoObjects: true,
    asks: areArrays,
    ...lodash,
    ...all,
    ...list,
  }),
  list2("pluck", js`${first}.map(${second})`, {
    runs: "read",
    isShort: true,
    ...underscore,
    ...all,
    ...list,
  }),
  list2("where", js`${first}.filter(${second})`, {
    runs: "test",
    isShort: true,
    ...underscore,
    ...all,
    ...list,
  }),
  list2("findWhere", js`${first}.find(${second})`, { runs: "test", isShort: true, ...underscore }),
  list3("reduce foldl inject", js`${first}.reduce(${second}, ${third})`, {
    runs: "fold",
    alsoObjects: true,
    ...all,
  }),
  list2("sumBy", withRead(js`${first}.reduce((${total}, ${item}) => ${total} + ${second}, 0)`), {
    asks: areNumbers,
    alsoObjects: true,
    ...lodash,
    ...all,
  }),
  list2("keyBy indexBy", withRead(js`Object.fromEntries(${first}.map((${item}) => [${second}, ${item}]))`), {
    asks: areObjects,
    alsoObjects: true,
    gives: "object",
    ...all,
  }),
  list1("sum", js`${first}.reduce((${total}, ${item}) => ${total} + ${item}, 0)`, {
    asks: areNumbers,
    ...lodash,
    ...all,
  }),
  made(2, "anything")("forOwn", js`Object.entries(${first})`, {
    runs: "read",
    walks: "each",
    givesOther: true,
    ...lodash,
    ...all,
  }),

  // Parts of a list.
  made(1, ["list", "text"])("first head", js`${first}[0]`),
  made(1, ["list", "text"])("last", lastItem),
  list1("initial", js`${first}.slice(0, -1)`, { ...all, ...list }),
  list1("tail", js`${first}.slice(1)`, { ...all, ...list }),
  list1("rest", js`${first}.slice(1)`, { ...underscore, ...all, ...list }),
  list2("take", js`${first}.slice(0, ${second})`, { asks: isPositive, ...all, ...list }),
  list2("first head", js`${first}.slice(0, ${second})`, { asks: isPositive, ...underscore, ...all, ...list }),
  list2("drop", js`${first}.slice(${second})`, { asks: isPositive, ...all, ...list }),
  list2("rest tail", js`${first}.slice(${second})`, { asks: isPositive, ...underscore, ...all, ...list }),
  list2("takeRight", js`${first}.slice(-${second})`, { asks: isPositive, ...lodash, ...all, ...list }),
  list2("dropRight", js`${first}.slice(0, -${second})`, { asks: isPositive, ...lodash, ...all, ...list }),
  list3("slice", js`${first}.slice(${second}, ${third})`, { ...lodash, ...all, ...list }),
  list1("compact", js`${first}.filter(Boolean)`, list),
  list1("uniq", js`[...new Set(${first})]`, {
    ...list,
    asks: ({ library, args }) =>
      library === "lodash"
        ? yes("value.kind", "both compare in the same way")
        : unknown("value.kind", `an item of ${shown(args[0]!.text)} could be \`NaN\` or \`-0\``, args[0]),
  }),
  list1("flatten", js`${first}.flat()`, { asks: areArrays, ...lodash, ...all, ...list }),
  list1("flattenDeep", js`${first}.flat(Infinity)`, { asks: areArrays, ...lodash, ...all, ...list }),
  list1("flatten", js`${first}.flat(Infinity)`, { asks: areArrays, ...underscore, ...all, ...list }),
  list2("concat", js`${first}.concat(${second})`, { asks: isOneOrWritten, ...lodash, ...all, ...list }),
  list2("without", js`${first}.filter((${item}) => ${item} !== ${second})`, {
    asks: (call) =>
      call.args[1]!.is(["string", "number", "true", "false", "null", "identifier"])
        ? unknown(
            "value.kind",
            `an item of ${shown(call.args[0]!.text)} could be \`NaN\` or \`-0\``,
            call.args[0],
          )
        : no(
            "effect.evaluated",
            `${shown(call.args[1]!.text)} would be evaluated for each item`,
            call.args[1],
          ),
    ...all,
    ...list,
  }),
  list2("join", js`${first}.join(${second})`, { ...lodash, gives: "text" }),
  list1("reverse", js`${first}.reverse()`, { ...lodash }),
  list2("indexOf", js`${first}.indexOf(${second})`, { asks: isNoNumber, ...all }),
  list2("includes contains", js`${first}.includes(${second})`, { alsoObjects: true }),
  list1("fromPairs", js`Object.fromEntries(${first})`, { asks: arePairs, ...lodash, gives: "object" }),
];
