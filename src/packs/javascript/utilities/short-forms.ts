import { FreshName, Hole, no, Snippet, unknown, yes } from "../../../core.js";
import type { Answer, Part, SyntaxNode } from "../../../core.js";
import type { Utility } from "./library-call.js";

/** Code with holes whose texts are worked out. */
export const codeOf = (texts: readonly string[], parts: readonly Part[]): Snippet =>
  new Snippet("javascript", texts, parts, "expression");

/** A replacement with other code in the place of a hole. */
export function filled({ texts, parts }: Snippet, hole: Hole, code: Snippet): Snippet {
  const all: string[] = [texts[0]!];
  const between: Part[] = [];
  parts.forEach((part, i) => {
    if (part === hole) {
      all[all.length - 1] += code.texts[0]!;
      between.push(...code.parts);
      all.push(...code.texts.slice(1));
      all[all.length - 1] += texts[i + 1]!;
    } else {
      between.push(part);
      all.push(texts[i + 1]!);
    }
  });
  return codeOf(all, between);
}

/** Is a function written on the spot? */
export const isWritten = (fn: SyntaxNode): boolean => fn.is(["arrow_function", "function_expression"]);

/** The kinds of code that stand for a function in these libraries. */
export const SHORT_FORMS = ["string", "object", "array"];

/** What a short form reads or asks of an item, with the code around the item's name: `["", ".age"]`. */
type Reading = readonly string[];

const NAME = /^[\p{L}_$][\p{L}\p{N}_$]*$/u;

/** What reads a member by a text: `.age`, `["net weight"]`; for a path of lodash `.keeper?.name`. */
function readOf(node: SyntaxNode, { library }: Utility): string | undefined {
  const key = node.text.slice(1, -1);
  if (key.includes("\\")) return undefined;
  if (NAME.test(key)) return `.${key}`;
  const steps = key.split(".");
  if (steps.length > 1 && library === "lodash")
    return steps.every((step) => NAME.test(step)) ? `.${steps.join("?.")}` : undefined;
  return /[.[\]]/.test(key) || key === "" ? undefined : `[${node.text}]`;
}

const isPlain = (value: SyntaxNode): boolean => value.is(["string", "number", "true", "false", "null"]);

/** What compares a member with a value that is evaluated as often as there are items. */
function comparison(key: string | undefined, value: SyntaxNode | undefined): string | undefined {
  const fits = key !== undefined && value && (isPlain(value) || value.is("identifier"));
  return fits && value.text !== "undefined" ? `${key} === ${value.text}` : undefined;
}

/** The comparisons that an object or a pair stands for. */
function comparisons(node: SyntaxNode, utility: Utility): string[] | undefined {
  if (node.is("array")) {
    const [key, value, ...more] = node.parts;
    if (!key?.is("string") || more.length > 0 || utility.library !== "lodash") return undefined;
    const one = comparison(readOf(key, utility), value);
    return one === undefined ? undefined : [one];
  }
  const all = node.parts.map((part) => {
    if (part.is("shorthand_property_identifier")) return `.${part.text} === ${part.text}`;
    const [key, value] = part.is("pair") ? [part.child("key")!, part.child("value")!] : [];
    if (key?.is("property_identifier")) return comparison(`.${key.text}`, value);
    return key?.is("string")
      ? comparison(readOf(key, { ...utility, library: "underscore" }), value)
      : undefined;
  });
  return all.length > 0 && all.every((one) => one !== undefined) ? all : undefined;
}

function readingOf(node: SyntaxNode, utility: Utility): { reads: Reading; isOne: boolean } | undefined {
  if (node.is("string")) {
    const read = readOf(node, utility);
    return read === undefined ? undefined : { reads: ["", read], isOne: true };
  }
  const all = comparisons(node, utility);
  return all && { reads: ["", ...all.slice(0, -1).map((one) => `${one} && `), all.at(-1)!], isOne: false };
}

/** What a short form gives for an item, for the code of a function or a part of one. */
export function shortRead(node: SyntaxNode, utility: Utility, item: FreshName): Snippet | undefined {
  const found = readingOf(node, utility);
  return (
    found &&
    codeOf(
      found.reads,
      found.reads.slice(1).map(() => item),
    )
  );
}

/** The function that a short form stands for, or the one that says the opposite. */
export function shortFunction(
  node: SyntaxNode,
  utility: Utility,
  item: FreshName,
  isContrary = false,
): Snippet | undefined {
  const found = readingOf(node, utility);
  if (!found) return undefined;
  const [open, close] = !isContrary ? ["", ""] : found.isOne ? ["!", ""] : ["!(", ")"];
  const reads = found.reads.map((one, i) => (i === found.reads.length - 1 ? one + close : one));
  const [, ...rest] = reads;
  return codeOf(["(", `) => ${open}`, ...rest], [item, ...rest.map(() => item)]);
}

/** Does the function that is written out say the same as the short form? */
export function saysTheSame(node: SyntaxNode, list: SyntaxNode, { name }: Utility): Answer {
  const code = "value.null";
  const other = node.is("string")
    ? undefined
    : [...node.descendants()].find(
        (one) => one.is(["shorthand_property_identifier", "identifier"]) && one.field !== "key",
      );
  if (other)
    return unknown(
      "value.kind",
      `\`${other.text}\` could be an object, whose members \`${name}\` compares`,
      other,
    );
  if (list.is("array") && list.parts.every((part) => part.is("object")))
    return yes(code, "every item is an object", list);
  return unknown(code, `an item of \`${list.text.split("\n")[0]}\` could be null or undefined`, list);
}

export const noForm = (node: SyntaxNode): Answer =>
  no("value.kind", `\`${node.text}\` is a short form that only the library knows`, node);
