import { EDIT_CODES } from "../rewrite/index.js";

/**
 * The codes of evidence, reasons and cautions, each with the question that they answer. A code stays the same when its
 * sentences are worded in another way, so that decisions, filters and other programs can go by it.
 */
export const CODES = {
  "name.not-resolved": "whether it is known what a name refers to",
  "name.library": "whether a name means what the language or its library means by it",
  "name.other-uses": "whether all uses of a name are known, and none is left that the new code does not suit",
  "name.reflection": "whether something reaches names as text, as `eval` does",
  "name.free": "whether a new name is free where it is needed",
  "name.rename": "whether every use of a name can be written with the new one",
  "name.scope":
    "whether names, loops and exits mean the same in the block or function that the code comes to stand in",
  "name.undeclared": "whether a name is declared at all where it is read",
  "flow.written": "whether something is changed between two places",
  "flow.used-later": "whether something is read afterwards",
  "flow.assigned": "whether something has a value on every way to a place",
  "flow.missing": "whether something can be missing where the code stands, by the tests on the way there",
  "flow.throws": "whether an exception can leave the code",
  "flow.leaves-early": "whether control can leave the code before its end",
  "flow.every-path": "whether every way through the code passes a place",
  "flow.escapes": "whether something is kept or handed on",
  "flow.order": "whether things are worked out in the same order as before",
  "flow.asynchronous": "whether the code waits for something, or may",
  "flow.not-followed": "whether control flow is known here",
  "effect.side-effect": "whether evaluating an expression changes something",
  "effect.could-fail": "whether an expression that is always evaluated from now on could fail or cost much",
  "effect.getter": "whether reading something runs code",
  "effect.evaluated": "whether an expression is evaluated as often as before",
  "type.not-known": "whether the type of an expression is known",
  "type.is": "whether an expression has the type that is needed",
  "type.same": "whether old and new value have the same type",
  "type.complete": "whether a type is known whole where that is needed",
  "type.stand-in": "whether a derived class could stand in, with methods of its own",
  "type.operator": "whether an operator or a comparison could be one that a class defines for itself",
  "type.strict-null": "whether the compiler keeps null and undefined apart from other values",
  "value.null": "whether a value can be null where that makes a difference",
  "value.falsy": "whether a value can be false, 0 or empty without being missing",
  "value.which-missing":
    "whether null, undefined and an absent key count as missing in the same way as before",
  "value.kind": "whether a value could be of another kind, such as a list or a mapping",
  "value.result": "whether the code as a whole gives the same value as before",
  "resource.acquired": "whether the call is one that acquires a resource",
  "resource.closeable": "whether the language can release the resource by itself",
  "resource.same-release": "whether the language releases it in the way in which the old code did",
  "resource.released-once": "whether it is released in one place only",
  "resource.every-path": "whether the old code releases it on every way out",
  "resource.used-after": "whether it is used outside of its new scope, or after its release",
  "resource.failed": "whether something is released where acquiring it failed",
  "resource.sooner": "whether it is released earlier than before in a case that can be noticed",
  "resource.order": "whether things are released in the same order as before",
  "resource.owner": "whether this code owns the resource, and an owner is known that can hold it",
  "form.fits": "whether the new form may stand in this place",
  "form.worthwhile": "whether there is something for the new form to do",
  "version.target": "whether the version that the project is for has the new form",
  "file.part": "whether the whole file was looked at",
  "file.syntax-error": "whether the parser could read the file around the code",
  "file.misread": "whether the parser reads the code as the language does",
  "keep.comment": "whether a comment asks to keep the code as it is",
  ...EDIT_CODES,
} as const;

/** A code of Uvran's own, or one that the author of a rule makes up. */
export type Code = keyof typeof CODES | `own.${string}`;
