import { escaped, oncePerTree, type SyntaxNode, type SyntaxTree } from "../../syntax/index.js";
import { isBuiltin } from "../names/builtins.js";
import { referencesAt } from "../names/declarations.js";
import { isLibraryFunction } from "../names/functions.js";
import { surroundingsOf } from "../project.js";
import { standsInProject } from "../text-found.js";
import { namesWanted } from "../types/comes-from.js";
import { typeOf, typeWritten, type KnownType } from "../types/known.js";
import { isLibraryType, isOfLibrary, type LibraryClass } from "../types/library.js";
import { originOf } from "../types/origin.js";
import type { LibraryCalls } from "./facts.js";
import { keyOf, tableLanguage, tableOf, type LibraryCall } from "./table.js";

/** The parts of a call, whatever a grammar names them. */
interface CallParts {
  /** What is called: `hive.weigh`, or the name alone. */
  readonly whole: SyntaxNode;
  readonly name: SyntaxNode;
  readonly receiver: SyntaxNode | undefined;
  /** Does it make an object of the class that the receiver names? */
  readonly makes?: true;
}

/** What a library's table says of a call; undefined unless it certainly calls what the table means. */
export function calledFromLibrary(call: SyntaxNode): LibraryCalls | undefined {
  const known = calls(call.tree);
  if (!known.has(call.id)) {
    // What asks for its own type while that is worked out is not known.
    known.set(call.id, undefined);
    known.set(call.id, lookedUp(call)?.row);
  }
  return known.get(call.id);
}

/** Is a function of the library called that never throws? Asked of every call of a function, so by its name first. */
export function neverThrows(call: SyntaxNode): boolean {
  const { language } = call.tree;
  const { neverThrowing } = tableOf(language, surroundingsOf(call.tree).library);
  const name = neverThrowing.size > 0 ? partsOfCall(call)?.name.text.split(/::|\\/).at(-1) : undefined;
  return (
    name !== undefined &&
    neverThrowing.has(keyOf(name, language)) &&
    calledFromLibrary(call)?.neverThrows === true
  );
}

const calls = oncePerTree(() => new Map<number, LibraryCalls | undefined>());

function lookedUp(call: SyntaxNode): LibraryCall | undefined {
  const { language } = call.tree;
  if (!call.is(language.calls)) return undefined;
  const parts = partsOfCall(call);
  if (!parts || mayStopShort(call, parts)) return undefined;
  const { calls: table } = tableOf(language, surroundingsOf(call.tree).library);
  const named = table.get(keyOf(nameOf(parts), language));
  return named?.find((one) => isMeant(one, parts) && !isReplaced(one, call.tree));
}

/** The parts of a call that an analysis may look into: the object that a method is called on, and the arguments. */
export function operandsOf(call: SyntaxNode): readonly SyntaxNode[] {
  const { argumentLists } = call.tree.language;
  const parts = partsOfCall(call);
  const lists = call.parts.filter((part) => part.is(argumentLists));
  const receiver = parts?.receiver;
  const isObject = receiver && typeOf(receiver) !== undefined;
  return [...(isObject ? [receiver] : []), ...lists.flatMap((list) => list.parts)];
}

function partsOfCall(call: SyntaxNode): CallParts | undefined {
  const whole = call.child("function") ?? call.child("command_name");
  if (whole) {
    if (!whole.is(call.tree.language.memberReads)) return { whole, name: whole, receiver: undefined };
    const [receiver] = whole.parts;
    const name = whole.lastPart;
    return receiver && name && { whole, name, receiver };
  }
  const made = call.child("constructor");
  if (made) return { whole: made, name: made, receiver: made, makes: true };
  const name = call.child("name") ?? call.child("method");
  const receiver = call.child("object") ?? call.child("receiver") ?? call.child("scope");
  return name && { whole: name, name, receiver };
}

/** Is the call left out where its object is missing (`s?.trim()`), so that what the function gives is not all there is? */
function mayStopShort({ start, tree }: SyntaxNode, { name }: CallParts): boolean {
  const { safeStep } = tree.language.flow;
  const tokens = [...Object.values(safeStep?.tokens ?? {}), ...Object.values(safeStep?.brackets ?? {})];
  return tokens.some((token) => tree.text.slice(start, name.end).includes(token));
}

/** The name by which the library knows what is called, where an import gives it another one. */
function nameOf({ name, receiver, makes }: CallParts): string {
  if (makes) return "new";
  const written = name.text.split(/::|\\/).at(-1)!;
  const isImported = !receiver && name.isLeaf && referencesAt(name).some(({ to }) => to?.as === "import");
  return (isImported ? originOf(name)?.name?.split(".").at(-1) : undefined) ?? written;
}

function isMeant({ row, name, owner, ofObjects }: LibraryCall, parts: CallParts): boolean {
  const { receiver, whole, makes } = parts;
  if (makes && owner === undefined) return false;
  if (ofObjects)
    return receiver !== undefined && isObjectOf(receiver, classOf(row, owner!, name), row.in === undefined);
  if (owner !== undefined) return receiver !== undefined && isClass(receiver, row, owner, name);
  if (row.in !== undefined) return namesWanted(whole, { module: row.in, name }).is === "yes";
  if (receiver) return false;
  const { id } = whole.tree.language;
  if (!/^(\\|::|std::)?[\w?!-]+$/.test(whole.text)) return false;
  return ["python", "javascript", "typescript", "tsx"].includes(id)
    ? isBuiltin(name, whole).is === "yes"
    : isLibraryFunction(whole).is === "yes";
}

/** The names by which code speaks of the classes of values that the language writes in lower case. */
const WRAPPERS: Readonly<Record<string, string>> = { string: "String", number: "Number" };

/**
 * Does code of the project put something else in the place of a function: by an assignment to the member of a module or a
 * class (`Math.max = …`, `String.prototype.trim = …`), or by a class that is opened again for some files?
 */
function isReplaced({ name, owner, row, ofObjects }: LibraryCall, tree: SyntaxTree): boolean {
  const { id } = tree.language;
  const holder = owner === undefined ? row.in?.split(".").at(-1) : (WRAPPERS[owner] ?? owner);
  if (holder === undefined) return false;
  const of = `\\b${escaped(holder)}`;
  const assigned = `${of}(\\.prototype)?\\s*(\\.\\s*${escaped(name)}|\\[\\s*["']${escaped(name)}["']\\s*\\])\\s*=(?![=>])`;
  if (tableLanguage(tree.language) === "javascript")
    return standsInProject(
      tree,
      holder,
      new RegExp(
        `${assigned}|(assign|defineProperty|defineProperties)\\(\\s*${of}\\b|${of}\\.prototype\\s*\\[`,
      ),
    );
  if (id === "ruby") return standsInProject(tree, "refine", new RegExp(`\\brefine\\(?\\s*${of}\\b`));
  return id === "python" && !ofObjects && standsInProject(tree, name, new RegExp(assigned));
}

const classOf = (row: LibraryCalls, owner: string, name: string): LibraryClass => ({
  names: [owner],
  module: row.in === undefined ? undefined : new RegExp(`^${row.in.replace(/\./g, "\\.")}$`),
  methods: [name],
  what: owner,
});

function isObjectOf(receiver: SyntaxNode, wanted: LibraryClass, isEverywhere: boolean): boolean {
  const type = typeOf(receiver);
  return (
    type !== undefined &&
    type.name === wanted.names[0] &&
    !isFromElsewhere(type, isEverywhere) &&
    isOfLibrary(receiver, wanted).is === "yes"
  );
}

/** Does a type that the language has everywhere come from a module, so that it is another one? */
const isFromElsewhere = ({ module, declared }: KnownType, isEverywhere: boolean): boolean =>
  isEverywhere && (module !== undefined || declared !== undefined);

/** Is the object of a call a class of the library that is named? */
function isClass(receiver: SyntaxNode, row: LibraryCalls, owner: string, name: string): boolean {
  if (!receiver.text.endsWith(owner)) return false;
  const { id } = receiver.tree.language;
  if (["javascript", "typescript", "tsx"].includes(id))
    return receiver.text === owner && isBuiltin(owner, receiver).is === "yes";
  const type = typeWritten(receiver);
  return (
    type !== undefined &&
    type.name === owner &&
    !isFromElsewhere(type, row.in === undefined) &&
    isLibraryType(type, classOf(row, owner, name), receiver).is === "yes"
  );
}
