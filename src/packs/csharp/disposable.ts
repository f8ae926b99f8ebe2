import {
  calledFromLibrary,
  givesSomething,
  classesNamed,
  isNamedLike,
  isTypeOfTrait,
  no,
  placeOf,
  shortened,
  typeWritten,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Handle, KnownType, Match, OwnClass, OwnMember, SyntaxNode } from "../../core.js";
import { handleOf } from "../family/handles.js";

const DISPOSABLE = { what: "type that can be disposed of" };

/** Names that such types usually end in, which says nothing for sure. */
const LOOKS = /(Stream|Reader|Writer|Connection|Command|Transaction|Client)$/;

/** The type of the variable, or of what it is given where the compiler is to find out. */
function typeOfVariable(type: SyntaxNode, made: SyntaxNode): KnownType | undefined {
  const written = type.text === "var" ? createdType(made) : type;
  return written && typeWritten(written);
}

/** Is what is made a file or memory, which nobody else can see being closed? */
export function isUnseen(match: Match, made: SyntaxNode): boolean {
  if (calledFromLibrary(made)?.acquires === true) return true;
  const type = createdType(made);
  const known = type && typeWritten(type);
  if (!type || !known || isTypeOfTrait(known, "unseen", type, DISPOSABLE).is !== "yes") return false;
  const argument = made.child("arguments")?.firstPart;
  const isWrapped = argument?.is(["identifier", "member_access_expression"]) === true;
  return !isWrapped || isText(argument);
}

const createdType = (made: SyntaxNode): SyntaxNode | undefined =>
  made.is("object_creation_expression") ? made.child("type") : undefined;

/** Is an argument a path, and not another stream? */
function isText(argument: SyntaxNode): boolean {
  return /path|file|name/i.test(argument.text) || argument.is("string_literal");
}

/** Is what is acquired certainly something, and not null? */
export function isNeverNull(made: SyntaxNode): Answer {
  return made.is(["object_creation_expression", "implicit_object_creation_expression"]) ||
    givesSomething(made)
    ? yes("value.null", `\`${shortened(made.text)}\` is never null`, made)
    : unknown("value.null", `\`${shortened(made.text)}\` could be null, for which the old code failed`, made);
}

/** Can `using` take a variable of this type that is filled by this expression? */
export function isDisposable(
  match: Match,
  type: SyntaxNode,
  made: SyntaxNode,
  rows: readonly Handle[],
  released: string,
): Answer {
  const own = handleOf(rows, made);
  if (own && own.row.scoped !== "itself" && own.row.scoped !== undefined)
    return no(
      "resource.closeable",
      `\`${shortened(made.text)}\` makes something that only has the method`,
      made,
    );
  if (own) return own.answer;
  const known = typeOfVariable(type, made);
  if (!known || known.name === "var")
    return unknown("type.not-known", `the type of \`${shortened(made.text)}\` is not known`, type);
  const { name } = known;
  const declared = declaredInProject(match, name, released);
  if (declared)
    return declared.is === "yes" ? yes(declared.evidence.code, declared.evidence.says, type) : declared;
  if (!isNamedLike(name, "scoped", match))
    return LOOKS.test(name)
      ? unknown("resource.closeable", `only the name of \`${name}\` says that it can be disposed of`, type)
      : unknown("resource.closeable", `nothing says that \`${name}\` can be disposed of`, type);
  const library = isTypeOfTrait(known, "scoped", type, DISPOSABLE);
  if (library.is !== "yes") return library;
  return released === "Dispose" || isNamedLike(name, "close-is-release", match)
    ? yes("resource.closeable", `\`${name}\` can be disposed of`, type)
    : unknown("resource.same-release", `\`${released}\` may do something else than \`Dispose\``, type);
}

/** What the project's own source says of a class; undefined where it declares none of the name. */
function declaredInProject(match: Match, name: string, released: string): Answer | undefined {
  const { classes } = classesNamed(match.tree, name);
  const [first] = classes;
  if (!first) return undefined;
  const where = placeOf(first);
  if (classes.some(({ kind, head }) => kind === "struct_declaration" || /\bstruct\b/.test(head)))
    return no(
      "resource.closeable",
      `\`${name}\` is a value type (${where}), of which \`using\` would hold a copy`,
    );
  const chain = ancestry(match, name);
  const isOne = chain.classes.some(({ parents }) =>
    parents.some((parent) => isLibraryDisposable(match, parent)),
  );
  if (!isOne)
    return chain.isWhole && classes.every(({ head }) => !/\bpartial\b/.test(head))
      ? no("resource.closeable", `\`${name}\` cannot be disposed of (${where})`)
      : unknown("resource.closeable", `what \`${name}\` is derived from is not known (${where})`);
  if (released !== "Dispose")
    return unknown("resource.same-release", `\`${released}\` may do something else than \`Dispose\``);
  const disposes = chain.classes.flatMap(({ members }) =>
    members.filter((one) => one.as === "method" && one.name === "Dispose" && isWithoutArguments(one)),
  );
  const odd = disposes.find(({ text }) =>
    /\bIDisposable\s*\.\s*Dispose\b|^\s*(public\s+)?new\b|\bnew\s+(public\s+)?void\b/.test(text),
  );
  if (odd)
    return unknown(
      "resource.same-release",
      `\`using\` may call another \`Dispose\` of \`${name}\` than the old code (line ${odd.line})`,
    );
  return yes("resource.closeable", `\`${name}\` says that it can be disposed of`);
}

const isWithoutArguments = ({ text }: OwnMember): boolean => /\bDispose\s*\(\s*\)/.test(text);

function isLibraryDisposable(match: Match, name: string): boolean {
  return isNamedLike(name, "scoped", match) && classesNamed(match.tree, name).classes.length === 0;
}

/** A class of the project with all that it is derived from in the project; whole where nothing else is among it. */
function ancestry(match: Match, name: string): { classes: readonly OwnClass[]; isWhole: boolean } {
  const found: OwnClass[] = [];
  const seen = new Set<string>();
  const waiting = [name];
  let isWhole = true;
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (seen.has(next)) continue;
    seen.add(next);
    const { classes } = classesNamed(match.tree, next);
    if (classes.length === 0) isWhole = false;
    found.push(...classes);
    waiting.push(...classes.flatMap(({ parents }) => parents));
  }
  return { classes: found, isWhole };
}

/** May a call make something that can be disposed of? */
export function looksDisposable(made: SyntaxNode, rows: readonly Handle[]): boolean {
  const type = createdType(made);
  const name = type && typeWritten(type)?.name;
  const opens = calledFromLibrary(made)?.acquires === true;
  return (
    handleOf(rows, made) !== undefined || opens || (name !== undefined && isNamedLike(name, "scoped", made))
  );
}
