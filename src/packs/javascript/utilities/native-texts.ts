import { isPositive, isText, isNarrow, splitsInside } from "./doubts.js";
import { first, second, third, text1, text2, text3, js, type Native, lodash } from "./native-row.js";

/** What is done with strings. */
export const TEXTS: readonly Native[] = [
  // Texts.
  text1("trim", js`${first}.trim()`, { ...lodash, gives: "text" }),
  text1("trimStart", js`${first}.trimStart()`, { ...lodash, gives: "text" }),
  text1("trimEnd", js`${first}.trimEnd()`, { ...lodash, gives: "text" }),
  text1("toUpper", js`${first}.toUpperCase()`, { ...lodash, gives: "text" }),
  text1("toLower", js`${first}.toLowerCase()`, { ...lodash, gives: "text" }),
  text2("startsWith", js`${first}.startsWith(${second})`, { asks: isText, ...lodash }),
  text2("endsWith", js`${first}.endsWith(${second})`, { asks: isText, ...lodash }),
  text2("split", js`${first}.split(${second})`, { asks: splitsInside, ...lodash, gives: "list" }),
  text2("repeat", js`${first}.repeat(${second})`, { asks: isPositive, ...lodash, gives: "text" }),
  text2("padStart", js`${first}.padStart(${second})`, {
    asks: isNarrow,
    ...lodash,
    gives: "text",
  }),
  text2("padEnd", js`${first}.padEnd(${second})`, { asks: isNarrow, ...lodash, gives: "text" }),
  text3("padStart", js`${first}.padStart(${second}, ${third})`, { asks: isNarrow, ...lodash, gives: "text" }),
  text3("padEnd", js`${first}.padEnd(${second}, ${third})`, { asks: isNarrow, ...lodash, gives: "text" }),
  text3("replace", js`${first}.replace(${second}, ${third})`, { ...lodash, gives: "text" }),
];
