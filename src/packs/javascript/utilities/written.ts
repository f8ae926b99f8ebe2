import { copy, FreshName, no, singular, Snippet, text } from "../../../core.js";
import type { Answer, Hole, Match, Part, Segment, SyntaxNode } from "../../../core.js";
import { isThere } from "../there.js";
import type { UtilityCall } from "./library-call.js";
import { subjectOf } from "./lists.js";
import { first, item, second, third, type Native } from "./native-row.js";
import { looksForKeys, overMembers } from "./on-members.js";
import { codeOf, filled, isWritten, noForm, SHORT_FORMS, shortFunction } from "./short-forms.js";

/** What a call becomes, or why it cannot. */
export type Written = Snippet | readonly Segment[] | Answer;

export const isAnswer = (written: Written): written is Answer => "is" in written;

/** The code of the language for a call of a library. */
export function writtenFor(call: UtilityCall, native: Native): Written {
  const { becomes, runs, count } = native;
  const known = subjectOf(call)?.is;
  const fn = call.args[1];
  if ((native.takes === "anything" && native.walks) || (native.walks !== undefined && known === "object")) {
    const code = overMembers(call, native);
    return code ?? no("form.fits", `\`${fn!.text.split("\n")[0]}\` cannot take a key and a value as one`, fn);
  }
  const key = runs && runs !== "fold" && known !== "list" ? looksForKeys(fn!) : undefined;
  if (key)
    return no("type.not-known", `\`${key.text}\` could be the key of a member, and not a position`, key);
  const code = typeof becomes === "function" ? becomes(call) : becomes;
  if (!code) return noCounterpart(call);
  if (!runs || count < 2) return withReads(call, code);
  if (fn!.is(SHORT_FORMS) && runs !== "fold") {
    const short =
      runs === "read" && !fn!.is("string") ? undefined : shortFunction(fn!, call, item, runs === "contrary");
    return short ? filled(code, second, short) : noForm(fn!);
  }
  if (native.isShort) return noCounterpart(call);
  return runs === "contrary" ? contrary(call) : code;
}

const noCounterpart = ({ name, node }: UtilityCall): Answer =>
  no("form.fits", `nothing in the language does what \`${name}\` does here`, node);

/** What is certainly there needs no `?.` ahead of its member. */
function withReads({ match, args, name }: UtilityCall, code: Snippet): Snippet {
  const [open, read, ...more] = code.texts;
  // `this` can be undefined in strict code.
  const isMade = !args[0]!.is("this") && isThere(match, args[0]!).is === "yes";
  if (name !== "get" || !read!.startsWith("?.") || !isMade) return code;
  return codeOf([open!, read!.slice(read!.startsWith("?.[") ? 2 : 1), ...more], code.parts);
}

/** The one expression that a function gives. */
export function givenBy(fn: SyntaxNode): SyntaxNode | undefined {
  const body = fn.child("body")!;
  if (!body.is("statement_block")) return body;
  const only = body.parts.length === 1 ? body.firstPart! : undefined;
  return only?.is("return_statement") ? only.firstPart : undefined;
}

/** The items that a function refuses, by the opposite of what it gives. */
function contrary(call: UtilityCall): Written {
  const [list, fn] = [call.args[0]!, call.args[1]!];
  const given = isWritten(fn) ? givenBy(fn) : undefined;
  if (!given) return no("form.fits", "the opposite of what the function gives cannot be written into it", fn);
  const inner =
    given.is("unary_expression") && given.child("operator")?.text === "!"
      ? given.child("argument")
      : undefined;
  const isSimple = given.is([
    "identifier",
    "member_expression",
    "call_expression",
    "parenthesized_expression",
  ]);
  const edits = inner
    ? [{ start: given.start, end: inner.start, text: "!!" }]
    : [
        { start: given.start, end: given.start, text: isSimple ? "!" : "!(" },
        { start: given.end, end: given.end, text: isSimple ? "" : ")" },
      ];
  return [...receiver(list), text(".filter("), copy(fn.start, fn.end, edits), text(")")];
}

/** Code on which a member can be called as it stands. */
const CLOSED = [
  "identifier",
  "member_expression",
  "call_expression",
  "subscript_expression",
  "parenthesized_expression",
  "array",
  "this",
  "string",
];

export function receiver(node: SyntaxNode): Segment[] {
  const whole = copy(node.start, node.end);
  return node.is(CLOSED) ? [whole] : [text("("), whole, text(")")];
}

/** The code of one link of a chain behind the code of the links ahead. */
export function linked(
  call: UtilityCall,
  written: Snippet | readonly Segment[],
  ahead: readonly Segment[],
): Segment[] {
  const { match, args } = call;
  if (!(written instanceof Snippet)) return [...ahead, ...written.slice(1)];
  const { texts, parts } = written;
  const holes = new Map<Part, readonly Segment[]>([[first, ahead]]);
  ([second, third] as Hole[]).forEach((hole, i) => {
    const node = args[i + 1];
    if (node) holes.set(hole, [copy(node.start, node.end)]);
  });
  return texts.flatMap((one, i): Segment[] => {
    const part = parts[i];
    const code = part instanceof FreshName ? [text(nameIn(match, part))] : part && holes.get(part);
    return [text(one), ...(code ?? [])];
  });
}

/** The name of an item, after what the chain begins with. */
function nameIn(match: Match, name: FreshName): string {
  if (name !== item) return match.named(name);
  const start = match.node.descendants();
  for (const node of start) {
    const one =
      node.is("arguments") && node.parts.length === 1 && node.firstPart!.is("identifier")
        ? singular(node.firstPart!.text)
        : undefined;
    if (one !== undefined)
      return match.names.choose([one, "item", "one"], match.found.start, match.found.end);
  }
  return match.named(name);
}
