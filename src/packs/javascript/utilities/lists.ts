import { isUnchanged, referencesAt, shortened, typeOf, unknown, yes } from "../../../core.js";
import { changesOf, functionAround, no, referencesOf, usesOf } from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { parametersOf } from "../callbacks/settled.js";
import { isFilled, isWrittenTo } from "../filled.js";
import { kindOf } from "../kinds.js";
import { utilityOf, type UtilityCall } from "./library-call.js";
import { isWritten, SHORT_FORMS } from "./short-forms.js";
import { isThere } from "../there.js";

/** What a function of a library works on, as far as it is known. */
export type Subject = "list" | "text" | "object" | "other";

export interface KnownSubject {
  readonly is: Subject;
  readonly why: string;
  readonly at: SyntaxNode;
  /** Only what else is done with it says so. */
  readonly byUse: boolean;
}

/** What the first argument of a call is. */
export function subjectOf({ match, args, after }: UtilityCall): KnownSubject | undefined {
  const node = args[0]!;
  if (after?.gives)
    return { is: after.gives, why: `\`${shortened(node.text)}\` gives one`, at: node, byUse: false };
  return after ? undefined : subjectAt(match, node);
}

function subjectAt(match: Match, node: SyntaxNode): KnownSubject | undefined {
  const object = objectIn(node);
  if (object) return ofLiteral(object, node);
  const type = typeOf(node);
  if (type?.name === "Object" && !type.declared && type.module === undefined)
    return {
      is: "object",
      why: type.why,
      at: type.at,
      byUse: !/\b(groupBy|keyBy|indexBy)$/.test(calleeOf(type.at)),
    };
  const known = kindOf(match, node);
  if (!known) return usedAsList(node);
  const is = known.owner === "Array" ? "list" : known.owner === "string" ? "text" : "other";
  return { is, why: known.why, at: known.at, byUse: known.byUse };
}

const calleeOf = (node: SyntaxNode): string => node.child("function")?.text ?? "";

/** An object with a number as its `length` is a list for the library. */
function ofLiteral(object: SyntaxNode, node: SyntaxNode): KnownSubject {
  const why = `\`${shortened(node.text)}\` is made here`;
  const keys = object.parts.map((part) => (part.is("pair") ? part.child("key")! : part));
  if (keys.some((key) => /^["']?length["']?$/.test(key.text)))
    return { is: "other", why: `\`${shortened(node.text)}\` has a \`length\``, at: object, byUse: false };
  const isOpen = keys.some((key) => key.is(["spread_element", "computed_property_name"]));
  const isSet = !node.same(object) && node.tree.root.mentions(node.text).some(isMemberSet);
  return { is: "object", why, at: object, byUse: isOpen || isSet };
}

/** Is a member set that may be any, or `length`? */
function isMemberSet(name: SyntaxNode): boolean {
  const read = name.parent;
  return read?.is("subscript_expression") === true && name.field === "object" && isWrittenTo(read);
}

/** The literal that is an object, or the only value of a variable. */
function objectIn(node: SyntaxNode): SyntaxNode | undefined {
  if (node.is("object")) return node;
  const to = node.is("identifier") ? referencesAt(node).find(({ member }) => !member)?.to : undefined;
  const [first, ...more] = to && usesOf(to).doubts.length === 0 ? changesOf(to) : [];
  const value = first?.node.parent?.is("variable_declarator") ? first.node.parent.child("value") : undefined;
  return more.length === 0 && value?.is("object") && first!.node.field === "name" ? value : undefined;
}

/** A list, by what else is done with it: its length is asked for, it is walked with `for…of`, or spread into another one. */
function usedAsList(node: SyntaxNode): KnownSubject | undefined {
  if (!node.is("identifier")) return undefined;
  const around = functionAround(node) ?? node.tree.root;
  for (const one of node.tree.root.mentions(node.text)) {
    const read = around.holds(one) ? one.parent : undefined;
    const isLength =
      read?.is("member_expression") && one.field === "object" && read.child("property")!.text === "length";
    const isWalked = read?.is("for_in_statement") && one.field === "right" && read.has("of");
    const isSpread = read?.is("spread_element") && !read.parent?.is("object");
    if (isLength || isWalked || isSpread) {
      const why = `\`${shortened(read!.text.split("\n")[0]!)}\` takes it for a list`;
      return { is: "list", why, at: one, byUse: true };
    }
  }
  return undefined;
}

const CALLED: Readonly<Record<Subject, string>> = {
  list: "an array",
  text: "a string",
  object: "an object",
  other: "something else",
};

/** Is what a function works on one of these? */
export function isSubject(call: UtilityCall, wanted: readonly Subject[]): Answer {
  const known = subjectOf(call);
  const node = call.args[0]!;
  const what = wanted.map((one) => CALLED[one]).join(" or ");
  if (!known) {
    const says = `nothing says whether \`${shortened(node.text)}\` is ${what}, and \`${call.name}\` takes more than that`;
    return unknown("value.kind", says, node);
  }
  return wanted.includes(known.is)
    ? yes("type.is", known.why, known.at)
    : no("type.is", `${known.why}, which is not ${what}`, known.at);
}

/** Is it there, and known for what it is by more than what else is done with it? The library takes a missing one for an empty one. */
export function isPresent(call: UtilityCall): Answer {
  const { match, args, name, after } = call;
  const node = args[0]!;
  if (after?.gives) return yes("value.null", `\`${shortened(node.text)}\` always gives something`, node);
  const known = subjectOf(call);
  if (known?.byUse)
    return unknown("value.kind", `only the use of \`${shortened(node.text)}\` says what it is`, known.at);
  const there = isThere(match, node);
  if (there.is === "yes") return there;
  const says = `${there.evidence.says}, for which \`${name}\` gives what it gives for an empty list`;
  return unknown("value.null", says, there.evidence);
}

/** Has every place of a list been filled? The library reads an empty one as undefined, the language leaves it out. */
export function isDense(call: UtilityCall): Answer {
  const { args, after } = call;
  const [list] = args;
  if (subjectOf(call)?.is === "object") return yes("value.kind", "an object has no empty places", list);
  return after ? yes("value.kind", "the library fills every place of what it gives", list) : isFilled(list!);
}

/** What reads a list and leaves it as it is. */
const READS =
  /^(length|map|filter|forEach|some|every|find|findIndex|includes|indexOf|join|slice|concat|reduce|flat|flatMap|at|entries|keys|values)$/;

/** Is a list only read, wherever the file names it, so that nothing else can have it? */
function isOnlyRead(list: SyntaxNode): boolean {
  const to = list.is("identifier") ? referencesAt(list).find(({ member }) => !member)?.to : undefined;
  if (!to || to.as === "parameter" || to.as === "import" || usesOf(to).doubts.length > 0) return false;
  return referencesOf(to).every(({ node }) => {
    const around = node.parent;
    if (around?.is("variable_declarator") && node.field === "name")
      return around.child("value")?.is("array") === true;
    if (around?.is("member_expression") && node.field === "object")
      return READS.test(around.child("property")!.text) && !isWrittenTo(around);
    if (around?.is("subscript_expression") && node.field === "object") return !isWrittenTo(around);
    const call = around?.is("arguments") && around.firstPart?.same(node) ? around.parent : undefined;
    return call?.is("call_expression") === true && utilityOf(call.child("function")!) !== undefined;
  });
}

/** Does a list keep its items while a function is run for each? The library goes on to the length that it had at first. */
export function staysAsItIs({ args, after }: UtilityCall): Answer {
  const [list, fn] = [args[0]!, args[1]!];
  if (after || !list.is(["identifier", "member_expression", "subscript_expression"]))
    return yes("flow.written", "nobody else has the list");
  if (fn.is(SHORT_FORMS)) return yes("flow.written", "a member is read");
  if (!isWritten(fn) || parametersOf(fn).length > 2 || /\barguments\b/.test(fn.text))
    return unknown(
      "flow.written",
      `\`${shortened(fn.text)}\` is handed the list as well, and could change it`,
      fn,
    );
  if (isOnlyRead(list)) return yes("flow.written", `\`${list.text}\` is only read`, list);
  return isUnchanged(list, [fn]);
}
