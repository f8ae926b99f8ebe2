import { hasKeys, isKey, path, isNoKey, isNeverNull, isLazy, sourcesAreOwn } from "./doubts.js";
import { subjectOf } from "./lists.js";
import { first, second, third, value1, made, js, list, lodash, all, type Native } from "./native-row.js";
import { codeOf } from "./short-forms.js";

/** What is done with objects. */
export const OBJECTS: readonly Native[] = [
  // Objects.
  made(1, "anything")("keys", js`Object.keys(${first})`, { asks: hasKeys, ...all, ...list }),
  made(1, "anything")("values", js`Object.values(${first})`, { asks: hasKeys, ...all, ...list }),
  made(1, "anything")("toPairs entries", js`Object.entries(${first})`, {
    asks: hasKeys,
    ...lodash,
    ...all,
    ...list,
  }),
  made(1, "anything")("pairs", js`Object.entries(${first})`, { asks: hasKeys, ...all, ...list }),
  made(2, "anything")(
    "has",
    (call) => (isKey(call) ? js`Object.hasOwn(${first}, ${second})` : undefined),
    all,
  ),
  made(2, ["object", "list"])("assign extend assignIn extendOwn", js`Object.assign(${first}, ${second})`, {
    asks: sourcesAreOwn,
  }),
  made(3, ["object", "list"])(
    "assign extend assignIn extendOwn",
    js`Object.assign(${first}, ${second}, ${third})`,
    {
      asks: sourcesAreOwn,
    },
  ),
  value1("clone", (call) => {
    const known = subjectOf(call);
    if (known?.byUse !== false) return undefined;
    if (known.is === "object") return js`Object.assign({}, ${first})`;
    // Underscore copies places that were never filled as they are.
    const copied = call.library === "lodash" ? js`[...${first}]` : js`${first}.slice()`;
    return known.is === "list" ? copied : undefined;
  }),
  made(2, "value")(
    "get",
    (call) => {
      const steps = path(call);
      return steps === undefined ? undefined : codeOf(["", steps], [first]);
    },
    { asks: isNoKey, ...lodash },
  ),
  made(3, "value")(
    "get",
    (call) => {
      const steps = path(call);
      return steps === undefined || !isLazy(call, 2)
        ? undefined
        : codeOf(["", `${steps} ?? `, ""], [first, third]);
    },
    { asks: isNeverNull, ...lodash },
  ),
];
