import type { SyntaxNode } from "../../syntax/index.js";
import { no, unknown, yes, type Answer } from "../answer.js";
import { classesDerivedFrom, classesNamed } from "../classes/class-index.js";
import { placeOf, type OwnClass } from "../classes/own-class.js";
import { shortened } from "../shown.js";
import { importsIn } from "../names/imports.js";
import { referencesAt, type Declaration } from "../names/declarations.js";
import { valuesGiven } from "../names/values-given.js";
import { isSeenElsewhere, usesOf } from "../names/every-use.js";
import { typeOf, type KnownType } from "./known.js";

/** A class of a library, with what code relies on. */
export interface LibraryClass {
  /** Its name, and those of the library's classes that are derived from it. */
  readonly names: readonly string[];
  /** The module that it comes from; undefined where the language has its name everywhere. */
  readonly module?: RegExp | undefined;
  /** The methods that old or new code calls, which a class of the project may have given a meaning of its own. */
  readonly methods?: readonly string[];
  /** What it is, for a sentence: "map". */
  readonly what: string;
}

/**
 * Is an expression an object of a library's class, with the library's own version of these methods? The project's
 * declarations come first: a class of its own that has the name, and one derived from the library's that stands in for
 * it with methods of its own.
 */
export function isOfLibrary(expression: SyntaxNode, wanted: LibraryClass): Answer {
  const type = typeOf(expression);
  const shown = shortened(expression.text);
  if (!type) return unknown("type.not-known", `the type of \`${shown}\` is not known`, expression);
  const meant = isLibraryType(type, wanted, expression);
  if (meant.is !== "yes") return meant;
  const standIn = standInFor(expression, wanted);
  if (!standIn) return meant;
  const made = madeInSight(expression);
  if (isMadeByLibrary(expression, wanted))
    return yes("type.is", `\`${shown}\` is only given what the library makes`, made?.[0]?.at);
  const own = made?.map((one) => ownVersion(one, wanted, expression)).find((one) => one !== undefined);
  if (own) return own;
  const name = standIn.name === undefined ? "a class without a name" : `\`${standIn.name}\``;
  return unknown(
    "type.stand-in",
    `\`${shown}\` could be ${name} (${placeOf(standIn)}), which has methods of its own`,
    expression,
  );
}

/** Is a type the library's, by its import and by what the project declares? */
export function isLibraryType(type: KnownType, wanted: LibraryClass, at: SyntaxNode): Answer {
  const { names, module, what } = wanted;
  const own = names.includes(type.name) ? undefined : ownVersion(type, wanted, at);
  if (own) return own;
  if (type.declared && type.declared.as !== "import")
    return isDerivedWithin(at, type.name, names)
      ? unknown(
          "type.stand-in",
          `${type.why}, which is derived from a ${what} and may have methods of its own`,
          type.at,
        )
      : no("type.is", `${type.why}, which is no ${what}`, type.at);
  if (!names.includes(type.name)) {
    const own = classesNamed(at.tree, type.name).classes;
    return own.length > 0 && isDerivedWithin(at, type.name, names)
      ? unknown(
          "type.stand-in",
          `${type.why}, which is derived from a ${what} and may have methods of its own`,
          type.at,
        )
      : no("type.is", `${type.why}, which is no ${what}`, type.at);
  }
  if (type.module !== undefined)
    return module === undefined || module.test(type.module)
      ? yes("type.is", type.why, type.at)
      : no("type.is", `${type.why}, which is no ${what}`, type.at);
  return namedWithoutImport(type, module, at, what);
}

/** No, for a class of the project that has the methods at stake itself; undefined where it is not known to be one. */
function ownVersion(
  { name, why }: KnownType,
  { methods = [] }: LibraryClass,
  at: SyntaxNode,
): Answer | undefined {
  const { classes } = classesNamed(at.tree, name);
  const own = classes.length === 1 ? classes[0] : undefined;
  const method = own?.members.find((one) => !one.isStatic && methods.includes(one.name));
  return (
    own &&
    method &&
    no("type.stand-in", `${why}, which has a \`${method.name}\` of its own (${placeOf(own)})`)
  );
}

/** Nothing but a name says what a type is: no class of the project may have it, and something must bring it in. */
function namedWithoutImport(
  type: KnownType,
  module: RegExp | undefined,
  at: SyntaxNode,
  what: string,
): Answer {
  const { name } = type;
  const { classes, isWhole, otherwise } = classesNamed(at.tree, name);
  const [own] = classes;
  if (own)
    return unknown(
      "name.library",
      `${type.why}, and the project has a \`${name}\` of its own (${placeOf(own)})`,
      type.at,
    );
  if (otherwise !== undefined)
    return unknown(
      "name.library",
      `${type.why}, and \`${shortened(otherwise)}\` gives that name to something else`,
      type.at,
    );
  if (module === undefined || isLiteralType(at, name)) return yes("type.is", type.why, type.at);
  const stars = importsIn(at.tree).filter(({ imports }) =>
    imports.some((item) => item.local === undefined && (item.name === "*" || item.name === undefined)),
  );
  const brings = stars.find((statement) => module.test(statement.module));
  if (!brings)
    return unknown(
      "name.not-resolved",
      `${type.why}, and nothing in this file says where \`${name}\` comes from`,
      type.at,
    );
  const other = stars.find((statement) => !at.tree.language.imports.isOfPlatform?.(statement.module));
  if (other) return unknown("name.not-resolved", `\`${name}\` may come from \`${other.module}\``, other.node);
  return isWhole
    ? yes("type.is", `${type.why}, a ${what} of the library`, type.at)
    : unknown(
        "name.not-resolved",
        `${type.why}; only this file was looked at for another \`${name}\``,
        type.at,
      );
}

function isLiteralType(at: SyntaxNode, name: string): boolean {
  return Object.values(at.tree.language.literalTypes).includes(name);
}

function isDerivedWithin(at: SyntaxNode, name: string, names: readonly string[]): boolean {
  return classesDerivedFrom(at.tree, names).classes.some((one) => one.name === name);
}

/** A class of the project that is one of the library's, but with methods of its own; or what was added to the library's. */
export function standInFor(at: SyntaxNode, { names, methods = [] }: LibraryClass): OwnClass | undefined {
  const own = [
    ...classesDerivedFrom(at.tree, names).classes,
    // Ruby's classes can be opened again.
    ...names.flatMap((name) => classesNamed(at.tree, name).classes),
  ];
  return own.find(({ members }) => members.some(({ name, isStatic }) => !isStatic && methods.includes(name)));
}

/**
 * The types of all that a variable is given, where each of them is made in sight and nothing else can give it anything;
 * undefined otherwise.
 */
export function madeInSight(expression: SyntaxNode): readonly KnownType[] | undefined {
  const to = declarationIn(expression);
  if (!to || to.as === "parameter" || to.as === "import") return undefined;
  if (to.as !== "local" && isSeenElsewhere(to)) return undefined;
  if (usesOf(to).doubts.length > 0) return undefined;
  const values = valuesGiven(to);
  const types = values?.flatMap((value) => (isMade(value) ? (typeOf(value) ?? []) : []));
  return types && types.length > 0 && types.length === values!.length ? types : undefined;
}

/** Is all that a variable is given made in sight, and by the library itself? */
export function isMadeByLibrary(expression: SyntaxNode, wanted: LibraryClass): boolean {
  return (
    madeInSight(expression)?.every((one) => isLibraryType(one, wanted, expression).is === "yes") === true
  );
}

/** Is a value made on the spot, by a literal or a constructor? */
function isMade(value: SyntaxNode): boolean {
  const { literalTypes, flow } = value.tree.language;
  const makes = value.child("method")?.text === "new" && value.child("receiver") !== undefined;
  const hasBody = value.parts.some((part) => /class_body|declaration_list/.test(part.kind));
  return (
    !hasBody &&
    (makes ||
      literalTypes[value.kind] !== undefined ||
      value.is(flow.missing.creations) ||
      isConstruction(value))
  );
}

/** `dict()` in Python is a call like any other, of a class. */
function isConstruction(value: SyntaxNode): boolean {
  const { callsMakeObjects, calls } = value.tree.language;
  return callsMakeObjects && value.is(calls) && typeOf(value) !== undefined;
}

/** What the variable or the member of one's own object is declared as. */
function declarationIn(expression: SyntaxNode): Declaration | undefined {
  const { leaves, selfOf } = expression.tree.language.binding;
  let at = expression;
  const [object, member] = expression.parts;
  if (object && member && selfOf(object) !== undefined) at = member;
  while (!at.isLeaf && at.parts.length === 1 && leaves[at.kind] === undefined) at = at.firstPart!;
  return leaves[at.kind] === undefined ? undefined : referencesAt(at).find((one) => one.to)?.to;
}
