import fc from "fast-check";
import type { Callable, Parameter } from "./callables.js";
import { NO_USE, type Shape } from "./shape.js";
import { MISSING, NULL, numberValue, textValue, type Value } from "./value.js";

/** What functions are most often wrong about; always among what is tried. */
const SPECIAL: readonly Value[] = [
  NULL,
  MISSING,
  numberValue(0),
  textValue(""),
  { is: "boolean", of: false },
  numberValue(NaN),
  { is: "list", of: [] },
  { is: "table", of: [] },
];

const TEXT_METHODS =
  /^(trim|trimStart|trimEnd|toLowerCase|toUpperCase|split|startsWith|endsWith|charAt|charCodeAt|substring|substr|replace|replaceAll|match|padStart|padEnd|repeat|strip|lstrip|rstrip|lower|upper|startswith|endswith|encode|title|capitalize|splitlines|isdigit|zfill)$/;
const LIST_METHODS =
  /^(map|filter|forEach|reduce|push|pop|shift|unshift|join|some|every|find|findIndex|flat|flatMap|sort|reverse|splice|append|extend|insert|remove)$/;
const TABLE_METHODS = /^(get|items|keys|values|setdefault|update)$/;
const DEPTH = 4;

/** Input for all parameters of a function: by what it does with them, what is written in it, and how others call it. */
export function inputsFor(
  { parameters, literals, isPython }: Callable,
  typed: ReadonlyMap<string, fc.Arbitrary<Value>>,
): fc.Arbitrary<Value[]> {
  const parts = parameters.map((parameter): fc.Arbitrary<Value[]> => {
    const one = typed.get(parameter.name) ?? byUse(parameter, literals, isPython);
    if (parameter.isRest) return fc.array(one, { maxLength: 3 });
    return one.map((value) => [value]);
  });
  // What has a default is often left out.
  const required = requiredOf(parameters);
  const given = fc.oneof(
    { weight: 3, arbitrary: fc.constant(parameters.length) },
    { weight: 1, arbitrary: fc.integer({ min: required, max: parameters.length }) },
  );
  return fc.tuple(fc.tuple(...parts), given).map(([all, count]) => all.slice(0, count).flat());
}

/** How many parameters a call must give. */
function requiredOf(parameters: readonly Parameter[]): number {
  const first = parameters.findIndex(({ hasDefault, isRest }) => hasDefault || isRest);
  return first < 0 ? parameters.length : first;
}

/** Calls that are tried first: each special value in each place, where nothing says that it cannot stand there. */
export function firstInputs(
  { parameters }: Callable,
  typed: ReadonlyMap<string, fc.Arbitrary<Value>>,
): Value[][] {
  const open = parameters.filter(({ name, isRest }) => !typed.has(name) && !isRest);
  if (open.length !== parameters.length) return [];
  const plain = parameters.map(() => textValue("x") as Value);
  return [
    plain.slice(0, requiredOf(parameters)),
    ...SPECIAL.map((value) => parameters.map(() => value)),
    ...parameters.flatMap((_, i) => SPECIAL.map((value) => plain.map((one, j) => (i === j ? value : one)))),
  ];
}

function byUse(
  { shape, type }: Parameter,
  literals: readonly Value[],
  isPython: boolean,
): fc.Arbitrary<Value> {
  const annotated = isPython && type !== undefined ? annotatedInputs(type) : undefined;
  return annotated ?? anyValue(shape, literals, isPython, DEPTH);
}

/** Any value, more often of the form that its use asks for. */
function anyValue(
  shape: Shape,
  literals: readonly Value[],
  isPython: boolean,
  depth: number,
): fc.Arbitrary<Value> {
  const methods = [...shape.called];
  const some = (test: RegExp): boolean => methods.some((name) => test.test(name));
  const inner = (): fc.Arbitrary<Value> =>
    depth > 0
      ? anyValue(shape.item ?? NO_USE, literals, isPython, depth - (shape.item ? 1 : 2))
      : fc.constantFrom(...SPECIAL);
  const ways: fc.WeightedArbitrary<Value>[] = [
    { weight: 3, arbitrary: fc.constantFrom(...SPECIAL) },
    { weight: some(TEXT_METHODS) ? 12 : 2, arbitrary: texts(literals) },
    { weight: 2, arbitrary: numbers(literals) },
    { weight: 1, arbitrary: fc.boolean().map((of): Value => ({ is: "boolean", of })) },
  ];
  if (literals.length > 0) ways.push({ weight: 5, arbitrary: fc.constantFrom(...literals) });
  if (depth > 0)
    ways.push({ weight: shape.isList || some(LIST_METHODS) ? 12 : 1, arbitrary: lists(inner()) });
  if (shape.isCalled)
    ways.push({ weight: 20, arbitrary: inner().map((of): Value => ({ is: "callback", of })) });
  const hasMembers =
    shape.members.size > 0 || (methods.length > 0 && !some(TEXT_METHODS) && !some(LIST_METHODS));
  if (hasMembers && depth > 0) ways.push({ weight: 14, arbitrary: things(shape, literals, isPython, depth) });
  else if (depth > 0 && (shape.isTable || some(TABLE_METHODS)))
    ways.push({ weight: 8, arbitrary: tables(literals, inner()) });
  return fc.oneof(...ways);
}

function texts(literals: readonly Value[]): fc.Arbitrary<Value> {
  const written = literals.flatMap((one) => (one.is === "text" ? [one.of] : []));
  const parts = fc.constantFrom("a", "b", "hive", " ", "0", "1", "-", ".", "Å", ...written);
  return fc.array(parts, { maxLength: 4 }).map((all) => textValue(all.join("")));
}

function numbers(literals: readonly Value[]): fc.Arbitrary<Value> {
  const written = literals.flatMap((one) => (one.is === "number" ? [one.of - 1, one.of, one.of + 1] : []));
  return fc
    .oneof(fc.constantFrom(0, 1, -1, 2, 0.5, ...written), fc.integer({ min: -20, max: 200 }))
    .map(numberValue);
}

/** Lists, often empty, often with the same item twice. */
function lists(item: fc.Arbitrary<Value>): fc.Arbitrary<Value> {
  const several = fc.array(item, { maxLength: 4 });
  const twice = fc.tuple(item, several).map(([first, rest]) => [first, ...rest, first]);
  return fc
    .oneof({ weight: 4, arbitrary: several }, { weight: 1, arbitrary: twice })
    .map((of): Value => ({ is: "list", of }));
}

/** Objects with the members that are read of them, each of which may be missing. */
function things(
  shape: Shape,
  literals: readonly Value[],
  isPython: boolean,
  depth: number,
): fc.Arbitrary<Value> {
  const named = [...shape.members].map(([name, inner]): [string, fc.Arbitrary<Value>] => [
    name,
    anyValue(inner, literals, isPython, depth - 1),
  ]);
  const called = [...shape.called]
    .filter((name) => !shape.members.has(name))
    .map((name): [string, fc.Arbitrary<Value>] => [
      name,
      anyValue(NO_USE, literals, isPython, 1).map((of): Value => ({ is: "callback", of })),
    ]);
  const all = Object.fromEntries([...named, ...called]);
  const is = isPython && shape.isTable ? "table" : "thing";
  return fc
    .record(all, { requiredKeys: [] })
    .map((made): Value => ({ is, of: Object.entries(made) as [string, Value][] }));
}

function tables(literals: readonly Value[], item: fc.Arbitrary<Value>): fc.Arbitrary<Value> {
  const keys = literals.flatMap((one) => (one.is === "text" && one.of !== "" ? [one.of] : []));
  const key = fc.constantFrom("a", "b", ...keys);
  return fc
    .dictionary(key, item, { maxKeys: 3 })
    .map((of): Value => ({ is: "table", of: Object.entries(of) }));
}

/** What an annotation of Python lets through; undefined for one that says nothing here. */
function annotatedInputs(type: string): fc.Arbitrary<Value> | undefined {
  const text = type
    .trim()
    .replace(/^["']|["']$/g, "")
    .replace(/^typing\./, "");
  const parts = splitAt(text, "|");
  if (parts.length > 1) return joined(parts.map(annotatedInputs));
  const generic = /^(\w+)\[(.*)\]$/s.exec(text);
  const inside = generic ? splitAt(generic[2]!, ",") : [];
  const inner = (i: number): fc.Arbitrary<Value> | undefined => annotatedInputs(inside[i] ?? "");
  switch (generic?.[1] ?? text) {
    case "str":
      return texts([]);
    case "int":
      return fc.oneof(fc.constantFrom(0, 1, -1), fc.integer({ min: -20, max: 200 })).map(numberValue);
    case "float":
      return fc.constantFrom(0, 1, -1, 0.5, 2.25, NaN).map(numberValue);
    case "bool":
      return fc.boolean().map((of): Value => ({ is: "boolean", of }));
    case "None":
      return fc.constant(NULL);
    case "Optional":
      return joined([inner(0), fc.constant(NULL)]);
    case "Union":
      return joined(inside.map(annotatedInputs));
    case "list":
    case "List":
    case "Sequence":
    case "Iterable": {
      const item = generic ? inner(0) : texts([]);
      return item && lists(item);
    }
    case "dict":
    case "Dict":
    case "Mapping": {
      const item = generic && inside[0]?.trim() === "str" ? inner(1) : undefined;
      return item && tables([], item);
    }
    default:
      return undefined;
  }
}

function joined(all: readonly (fc.Arbitrary<Value> | undefined)[]): fc.Arbitrary<Value> | undefined {
  const known = all.filter((one) => one !== undefined);
  return known.length === all.length && known.length > 0 ? fc.oneof(...known) : undefined;
}

/** The parts of a text between separators that stand in no brackets. */
function splitAt(text: string, separator: string): string[] {
  const parts = [""];
  let depth = 0;
  for (const character of text) {
    if (character === "[") depth++;
    if (character === "]") depth--;
    if (character === separator && depth === 0) parts.push("");
    else parts[parts.length - 1] += character;
  }
  return parts.map((part) => part.trim());
}
