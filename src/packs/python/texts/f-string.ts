import {
  applyEdits,
  condition,
  copy,
  isSideEffectFree,
  no,
  shortened,
  text,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Condition, Edit, Match, Segment, SyntaxNode } from "../../../core.js";
import type { Piece } from "./literal.js";

/** A value in a string: the code that gives it, how it is converted, how it is laid out. */
export interface Field {
  readonly value: SyntaxNode;
  /** Reads of it that follow: `.name`, `[0]`. */
  readonly path?: string;
  readonly conversion?: "r" | "s" | "a";
  readonly spec?: readonly (string | Field)[];
}

/** A string with values in it, piece by piece: literal source text as the f-string or the plain string has it, and fields. */
export interface Filled {
  readonly piece: Piece;
  readonly parts: readonly (string | Field)[];
}

/** Values whose reads may follow them without brackets. */
const PRIMARY = ["identifier", "attribute", "subscript", "call", "parenthesized_expression"];
/** What would be read as something else between braces. */
const BRACKETED = ["lambda", "named_expression"];

/** Why a value cannot stand in an f-string; undefined where it can. Before 3.12 its code may hold no backslash and no quote of the string. */
export function refusal(value: SyntaxNode, { quote }: Piece): string | undefined {
  const code = value.text;
  const is = `\`${code.split("\n")[0]}\``;
  if (/[\n\\#]/.test(code)) return `${is} spans lines, or has a backslash or a \`#\` in it`;
  if (/^\s*\{|\}\s*$/.test(code)) return `${is} begins or ends with a brace`;
  if (value.is(["yield", "list_splat", "dictionary_splat"])) return `${is} may not stand in a string`;
  return quoteEdits(value, quote) ? undefined : `${is} has the quotes of the string in it`;
}

/** The edits that give strings within a value other quotes than those around; undefined where that cannot be. */
function quoteEdits(value: SyntaxNode, quote: string): Edit[] | undefined {
  if (!value.text.includes(quote)) return [];
  if (quote.length > 1) return undefined;
  const other = quote === '"' ? "'" : '"';
  const edits: Edit[] = [];
  for (const node of value.descendants()) {
    if (!node.is("string") || !node.text.includes(quote)) continue;
    const [, prefix = "", own = ""] = /^([A-Za-z]*)("""|'''|"|')/.exec(node.text) ?? [];
    const content = node.text.slice(prefix.length + own.length, -own.length);
    if (own !== quote || content.includes(quote) || content.includes(other) || /f/i.test(prefix))
      return undefined;
    const start = node.start + prefix.length;
    edits.push({ start, end: start + 1, text: other }, { start: node.end - 1, end: node.end, text: other });
  }
  const inStrings = edits.length;
  const all = [...value.text].filter((char) => char === quote).length;
  return inStrings === all ? edits : undefined;
}

/** A field as an f-string has it. */
function fieldCode(field: Field, piece: Piece): string {
  const { value, path = "", conversion, spec = [] } = field;
  const edits = (quoteEdits(value, piece.quote) ?? []).map(({ start, end, text: put }) => ({
    start: start - value.start,
    end: end - value.start,
    text: put,
  }));
  const code = applyEdits(value.text, edits);
  const isBracketed = value.is(BRACKETED) || (path !== "" && !value.is(PRIMARY));
  const layout = spec.map((part) => (typeof part === "string" ? part : fieldCode(part, piece))).join("");
  return [
    "{",
    isBracketed ? `(${code})` : code,
    path,
    conversion === undefined ? "" : `!${conversion}`,
    layout === "" ? "" : `:${layout}`,
    "}",
  ].join("");
}

/** The literal with values in it; pieces that hold none stay plain. What stands between pieces stays. */
export function written(filled: readonly Filled[]): Segment[] {
  return filled.flatMap(({ piece, parts }, i) => {
    const next = filled[i + 1];
    const hasFields = parts.some((part) => typeof part !== "string");
    const prefix = hasFields ? `f${piece.prefix.replace(/u/i, "")}` : piece.prefix;
    const inside = parts.map((part) => {
      if (typeof part !== "string") return fieldCode(part, piece);
      return hasFields ? part.replace(/[{}]/g, "$&$&") : part;
    });
    const gap = next ? [copy(piece.node.end, next.piece.node.start)] : [];
    return [text(`${prefix}${piece.quote}${inside.join("")}${piece.quote}`), ...gap];
  });
}

/** All values of a string, in the order in which it evaluates them. */
export function valuesIn(parts: readonly (string | Field)[]): SyntaxNode[] {
  return parts.flatMap((part) =>
    typeof part === "string" ? [] : [part.value, ...valuesIn(part.spec ?? [])],
  );
}

/** What is worked out of a match for several conditions, and the replacement. */
export function oncePerMatch<T>(work: (match: Match) => T): (match: Match) => T {
  const known = new WeakMap<Match, { readonly found: T }>();
  return (match) => {
    const entry = known.get(match) ?? { found: work(match) };
    known.set(match, entry);
    return entry.found;
  };
}

/** A string as it would read, and the values that the old code evaluates. */
interface Read {
  readonly filled: readonly Filled[];
  readonly given: readonly SyntaxNode[];
}

/** What the code asks for can be said by an f-string, which evaluates the same; `read` gives a sentence where it cannot. */
export function fitsInString(read: (match: Match) => Read | string | undefined): Condition[] {
  return [
    condition("every value can stand in the string", (match) => {
      const found = read(match);
      const around = match.node.closest(["interpolation"]);
      if (typeof found === "string") return no("form.fits", found, match.node);
      return around
        ? no("form.fits", "the text is made inside another string, whose quotes it may not have", around)
        : yes("form.fits", "every value can stand in the string");
    }),
    condition("the values are evaluated as before", (match) => {
      const found = read(match);
      return typeof found === "object"
        ? evaluatedAlike(found.given, valuesIn(found.filled.flatMap(({ parts }) => parts)))
        : yes("effect.evaluated", "nothing is evaluated");
    }),
  ];
}

/** Types whose values nothing can change. */
const FIXED: ReadonlySet<string> = new Set(["str", "int", "float", "bool", "bytes", "None"]);

/** Are the values evaluated as often as before, in the same order, and turned into text with nothing changed in between? */
function evaluatedAlike(before: readonly SyntaxNode[], after: readonly SyntaxNode[]): Answer {
  const code = "effect.evaluated";
  const answers = before.map(isSideEffectFree);
  const isSame = before.length === after.length && before.every((value, i) => value.same(after[i]));
  if (!isSame)
    return (
      answers.find(({ is }) => is === "no") ??
      answers.find(({ is }) => is === "unknown") ??
      yes(code, "evaluating the values in another order, or not at all, makes no difference")
    );
  // An f-string turns each value into text before it evaluates the next one.
  const last = answers.findLastIndex(({ is }) => is !== "yes");
  const open = before.slice(0, Math.max(last, 0)).find((value) => !FIXED.has(typeOf(value)?.name ?? ""));
  const changes = shortened(before[last]?.text ?? "");
  return open
    ? unknown(
        code,
        `\`${changes}\` could change \`${shortened(open.text)}\`, which is turned into text before it from now on`,
        open,
      )
    : yes(code, "the values are evaluated as before");
}

/** A message that is kept as it is written: for a log, which fills it in only if it is wanted, or for translators. */
const KEPT =
  /(^|\.)(debug|info|warning|warn|error|exception|critical|fatal|log)$|^(_|gettext|ngettext|pgettext|gettext_lazy|ngettext_lazy|ugettext|ungettext|lazy_gettext|_lazy|N_|trans)$/;

/** Is this an argument of a call that wants the message as it is written? */
export function isForLogOrTranslation(node: SyntaxNode): boolean {
  const list = node.parent?.is("parenthesized_expression") ? node.parent.parent : node.parent;
  const call = list?.is("argument_list") ? list.parent : undefined;
  return call !== undefined && KEPT.test(call.child("function")?.text ?? "");
}
