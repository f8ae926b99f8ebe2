import { scopeAround, writesOf, yes, type Answer, type SyntaxNode } from "../../index.js";

const SEQUENCE_TYPES = /^(list|tuple|str|bytes|List|Tuple|Sequence|MutableSequence)(\[|$)/;
const SEQUENCE_VALUES = ["list", "list_comprehension", "tuple", "string"];
const SEQUENCE_CALLS = ["list", "tuple", "sorted", "str"];

/** A yes with its evidence when a name is known to hold a list, tuple or string; undefined otherwise. */
export function sequenceKnown(items: SyntaxNode): Answer | undefined {
  if (!items.is("identifier")) return undefined;
  const name = items.text;
  const writes = writesOf(name, scopeAround(items));
  const [only] = writes;
  if (!only || writes.length !== 1) return undefined;
  const holder = only.parent;
  const type = holder?.child("type");
  if (type && SEQUENCE_TYPES.test(type.text)) return yes(`\`${name}\` is declared \`${type.text}\``, only);
  const value = holder?.is("assignment") ? holder.child("right") : undefined;
  if (!value || !holder?.child("left")?.same(only)) return undefined;
  const called = value.is("call") ? value.child("function")?.text : undefined;
  if (value.is(SEQUENCE_VALUES) || (called && SEQUENCE_CALLS.includes(called))) {
    return yes(`\`${name}\` is made by \`${value.text.split("\n")[0]}\``, only);
  }
  return undefined;
}
