import { isBuiltin, bodyAround, writesOf, yes, type Answer, type SyntaxNode } from "../../core.js";

const SEQUENCE_TYPES = /^(list|tuple|str|bytes|List|Tuple|Sequence|MutableSequence)(\[|$)/;
const TYPE_MODULES = ["typing", "collections.abc"];
const SEQUENCE_VALUES = ["list", "list_comprehension", "tuple", "string"];
const SEQUENCE_CALLS = ["list", "tuple", "sorted", "str"];

/** A yes with its evidence when a name is known to hold a list, tuple or string; undefined otherwise. */
export function sequenceKnown(items: SyntaxNode): Answer | undefined {
  if (!items.is("identifier")) return undefined;
  const name = items.text;
  const scope = bodyAround(items);
  const writes = writesOf(name, scope);
  const [only] = writes;
  if (!only || writes.length !== 1 || !bodyAround(only).same(scope)) return undefined;
  const holder = only.parent;
  const type = holder?.child("type");
  const typeName = type && SEQUENCE_TYPES.exec(type.text)?.[1];
  if (type && typeName && meansSequence(typeName, type))
    return yes("type.is", `\`${name}\` is declared \`${type.text}\``, only);
  const value = holder?.is("assignment") ? holder.child("right") : undefined;
  if (!value || !holder?.child("left")?.same(only)) return undefined;
  const called = value.is("call") ? value.child("function")?.text : undefined;
  const callsBuiltin =
    called !== undefined && SEQUENCE_CALLS.includes(called) && isBuiltin(called, value).is === "yes";
  if (value.is(SEQUENCE_VALUES) || callsBuiltin) {
    return yes("type.is", `\`${name}\` is made by \`${value.text.split("\n")[0]}\``, only);
  }
  return undefined;
}

/** Is this the type of the language's library, and not another of the same name? */
function meansSequence(name: string, at: SyntaxNode): boolean {
  if (name === name.toLowerCase()) return isBuiltin(name, at).is === "yes";
  const given = writesOf(name, at.tree.root);
  const isImport = (write: SyntaxNode): boolean => {
    const module = write.closest(["import_from_statement"])?.child("module_name")?.text;
    return module !== undefined && TYPE_MODULES.includes(module);
  };
  return given.length > 0 && given.every(isImport);
}
