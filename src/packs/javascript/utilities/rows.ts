import { holes, javascript, need, type Hole, type Snippet } from "../../../core.js";

/** The libraries whose functions have a native counterpart, by the modules that people take them from. */
const MODULES = ["lodash", "lodash-es", "underscore"];

/** What the library did for a list that is no array, or is missing, and the native method does not. */
export type Tolerates = "lists" | "anything" | "nothing";

/** A function of the library, and the code that does the same. */
export interface Row {
  readonly name: string;
  readonly was: Snippet;
  readonly becomes: Snippet;
  readonly tolerates: Tolerates;
}

export const { list, fn, value, other } = holes({
  list: "expression",
  fn: "expression",
  value: "expression",
  other: "expression",
});

type Form = (call: ReturnType<typeof need>) => Snippet;

const row = (name: string, tolerates: Tolerates, was: Form, becomes: Snippet): Row[] =>
  MODULES.map((module) => ({ name, tolerates, becomes, was: was(need(module, name)) }));

/** A function over a list with one that is run for each item. */
const each = (names: string, becomes: (list: Hole, fn: Hole) => Snippet): Row[] =>
  names
    .split(" ")
    .flatMap((name) => row(name, "lists", (call) => javascript`${call}(${list}, ${fn})`, becomes(list, fn)));

export const ROWS: readonly Row[] = [
  ...each("map collect", () => javascript.expression`${list}.map(${fn})`),
  ...each("filter select", () => javascript.expression`${list}.filter(${fn})`),
  ...each("forEach each", () => javascript.expression`${list}.forEach(${fn})`),
  ...each("some any", () => javascript.expression`${list}.some(${fn})`),
  ...each("every all", () => javascript.expression`${list}.every(${fn})`),
  ...each("find detect", () => javascript.expression`${list}.find(${fn})`),
  ...each("findIndex", () => javascript.expression`${list}.findIndex(${fn})`),
  ...each("flatMap", () => javascript.expression`${list}.flatMap(${fn})`),
  ...["reduce", "foldl", "inject"].flatMap((name) =>
    row(
      name,
      "lists",
      (call) => javascript`${call}(${list}, ${fn}, ${value})`,
      javascript.expression`${list}.reduce(${fn}, ${value})`,
    ),
  ),
  ...["includes", "contains"].flatMap((name) =>
    row(
      name,
      "lists",
      (call) => javascript`${call}(${list}, ${value})`,
      javascript.expression`${list}.includes(${value})`,
    ),
  ),
  ...row(
    "isArray",
    "nothing",
    (call) => javascript`${call}(${value})`,
    javascript.expression`Array.isArray(${value})`,
  ),
  ...row(
    "isUndefined",
    "nothing",
    (call) => javascript`${call}(${value})`,
    javascript.expression`${value} === undefined`,
  ),
  ...row(
    "isNull",
    "nothing",
    (call) => javascript`${call}(${value})`,
    javascript.expression`${value} === null`,
  ),
  ...row(
    "isNil",
    "nothing",
    (call) => javascript`${call}(${value})`,
    javascript.expression`${value} == null`,
  ),
  ...row(
    "keys",
    "anything",
    (call) => javascript`${call}(${list})`,
    javascript.expression`Object.keys(${list})`,
  ),
  ...row(
    "values",
    "anything",
    (call) => javascript`${call}(${list})`,
    javascript.expression`Object.values(${list})`,
  ),
  ...["toPairs", "pairs"].flatMap((name) =>
    row(
      name,
      "anything",
      (call) => javascript`${call}(${list})`,
      javascript.expression`Object.entries(${list})`,
    ),
  ),
];
