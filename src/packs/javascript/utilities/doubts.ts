import { no, typeOf, unknown, yes, type Answer, type SyntaxNode } from "../../../core.js";
import type { UtilityCall } from "./library-call.js";
import { subjectOf } from "./lists.js";

export const shown = (text: string): string => `\`${text.split("\n")[0]!}\``;

/** Underscore knows no keys of what is no object. */
export const hasKeys = (call: UtilityCall): Answer => {
  const known = subjectOf(call)?.is;
  return call.library === "lodash" || known === "object" || known === "list"
    ? yes("value.kind", "both ask for the same keys")
    : unknown(
        "value.kind",
        `${shown(call.args[0]!.text)} could be a string, of which the library has no keys`,
        call.args[0],
      );
};

/** The library asks for what a value is by its class, the language by its type. */
export const boxed =
  (name: string) =>
  ({ args }: UtilityCall): Answer => {
    const type = typeOf(args[0]!);
    if (type && /^(string|number|boolean)$/.test(type.name)) return yes("value.kind", type.why, type.at);
    const says = `${shown(args[0]!.text)} could be an object of the class \`${name}\`, which the library takes for one as well`;
    return unknown("value.kind", says, args[0]);
  };

export const sameRealm = ({ args }: UtilityCall): Answer =>
  unknown("value.kind", `${shown(args[0]!.text)} could come from another window or context`, args[0]);

export const isPositive = ({ args }: UtilityCall): Answer => {
  const count = args[1]!;
  if (count.is("number") && /^[1-9]\d*$/.test(count.text))
    return yes("value.kind", `\`${count.text}\` is more than 0`, count);
  const says = `${shown(count.text)} is taken for none by the library`;
  if (/^(-\d+|0)$/.test(count.text)) return no("value.kind", says, count);
  return unknown(
    "value.kind",
    `${shown(count.text)} could be 0 or negative, which the library takes for none`,
    count,
  );
};

export const isNoNumber = ({ args, name }: UtilityCall): Answer => {
  const value = args[1]!;
  return value.is(["string", "number", "true", "false", "null"])
    ? yes("value.kind", `\`${value.text}\` is a literal`, value)
    : unknown("value.kind", `${shown(value.text)} could be \`NaN\`, which only \`${name}\` finds`, value);
};

export const areNumbers = ({ args }: UtilityCall): Answer =>
  unknown(
    "value.kind",
    `what is added up of ${shown(args[0]!.text)} could be missing, or no number`,
    args[0],
  );

export const areObjects = ({ args }: UtilityCall): Answer =>
  unknown("value.null", `an item of ${shown(args[0]!.text)} could be null or undefined`, args[0]);

export const arePairs = ({ args }: UtilityCall): Answer =>
  args[0]!.is("array") && args[0]!.parts.every((part) => part.is("array"))
    ? yes("value.kind", "every item is a pair", args[0])
    : unknown("value.kind", `an item of ${shown(args[0]!.text)} could be no pair`, args[0]);

/** What is added is one item, or a list that is written here. */
export const isOneOrWritten = ({ args, name }: UtilityCall): Answer => {
  const added = args[1]!;
  const isKnown =
    added.is(["string", "number", "true", "false", "null"]) ||
    (added.is("array") && !/,\s*,|\[\s*,/.test(added.text));
  return isKnown
    ? yes("value.kind", "what is added is written here", added)
    : unknown(
        "value.kind",
        `${shown(added.text)} could be a list with places that were never filled, or only like one, which \`${name}\` takes apart otherwise`,
        added,
      );
};

export const areArrays = ({ args, name }: UtilityCall): Answer =>
  unknown(
    "value.kind",
    `an item of ${shown(args[0]!.text)} could be like an array and not be one, which \`${name}\` opens`,
    args[0],
  );

export const isText = ({ args }: UtilityCall): Answer => {
  const type = typeOf(args[1]!);
  return type?.name === "string"
    ? yes("value.kind", type.why, type.at)
    : unknown("value.kind", `${shown(args[1]!.text)} could be something else than a string`, args[1]);
};

/** Is every character of a text one unit of JavaScript, as the library counts characters? */
const isPlainText = (node: SyntaxNode | undefined): boolean =>
  node === undefined || (node.is("string") && /^[\x20-\x7e]*$/.test(node.text));

export const isNarrow = ({ args }: UtilityCall): Answer => {
  const wide = [args[0]!, args[2]].find((one) => !isPlainText(one));
  return wide
    ? unknown(
        "value.kind",
        `a character of ${shown(wide.text)} could count twice in JavaScript, and once in the library`,
        wide,
      )
    : yes("value.kind", "every character counts once", args[0]);
};

/** What splits at every character splits what counts twice in JavaScript, and not in the library. */
export const splitsInside = (call: UtilityCall): Answer => {
  const between = call.args[1]!;
  const isSome = between.is("string") && between.text.length > 2;
  return isSome
    ? yes("value.kind", "it splits at what stands between", between)
    : isNarrow({ ...call, args: [call.args[0]!] });
};

/** The library counts the characters of a text, and JavaScript its units. */
export const countsAlike = (call: UtilityCall): Answer =>
  subjectOf(call)?.is === "text" ? isNarrow(call) : yes("value.kind", "items are counted");

/** A key, and not a path of keys. */
export const isKey = ({ args }: UtilityCall): boolean =>
  args[1]!.is("string") && !/[.[\]\\]/.test(args[1]!.text);

export const PATH = /^[\p{L}_$][\p{L}\p{N}_$]*((\.[\p{L}_$][\p{L}\p{N}_$]*)|\[\d+\])*$/u;

/** A value that is read along a path: `config?.limits?.weight`. */
export function path({ args }: UtilityCall): string | undefined {
  const steps = args[1]!.is("string") ? args[1]!.text.slice(1, -1) : "";
  return PATH.test(steps) ? `?.${steps.replace(/\./g, "?.").replace(/\[/g, "?.[")}` : undefined;
}

export const isNoKey = ({ args }: UtilityCall): Answer => {
  const steps = args[1]!.text.slice(1, -1);
  return /[.[]/.test(steps)
    ? unknown(
        "value.kind",
        `${shown(args[0]!.text)} could have a member that is called \`${steps}\``,
        args[0],
      )
    : yes("value.kind", "one member is read", args[1]);
};

export const isNeverNull = ({ args }: UtilityCall): Answer =>
  unknown(
    "value.null",
    `what \`${args[1]!.text.slice(1, -1)}\` leads to could be null, for which the default is not taken`,
    args[1],
  );

/** The default of the library is evaluated in any case. */
export const isLazy = ({ args }: UtilityCall, at: number): boolean =>
  args[at]!.is(["string", "number", "true", "false", "null", "identifier", "array", "object"]) &&
  ![...args[at]!.descendants()].some((one) =>
    one.is(["call_expression", "await_expression", "new_expression"]),
  );

export const sourcesAreOwn = ({ args, name }: UtilityCall): Answer => {
  const open = args.slice(1).find((source) => !source.is("object"));
  if (!open) return yes("value.kind", "every source is written here");
  const more = /^(extend|assignIn)$/.test(name)
    ? "could inherit keys, which"
    : "could have symbols for keys, which only";
  const which = /^(extend|assignIn)$/.test(name) ? `\`${name}\` copies as well` : "the language copies";
  return unknown("value.kind", `${shown(open.text)} ${more} ${which}`, open);
};

export const isFunction = ({ args, name }: UtilityCall): Answer => {
  const type = typeOf(args[0]!);
  return type?.name === "Function"
    ? yes("value.kind", type.why, type.at)
    : unknown(
        "value.kind",
        `${shown(args[0]!.text)} could be missing, for which \`${name}\` throws later`,
        args[0],
      );
};
