import {
  classesNamed,
  importsIn,
  isTypeOfTrait,
  no,
  placeOf,
  shortened,
  surroundingsOf,
  typeWritten,
  unknown,
  yes,
  type KnownType,
  type OwnClass,
} from "../../../core.js";
import type { Answer, SyntaxNode, SyntaxTree } from "../../../core.js";
import { headOf, type Head } from "./heads.js";

/** An object of an anonymous class that has one method and nothing else. */
export interface SingleMethod {
  /** `new Runnable() { … }`. */
  readonly whole: SyntaxNode;
  readonly type: SyntaxNode;
  readonly method: SyntaxNode;
  readonly name: string;
  readonly parameters: readonly SyntaxNode[];
  readonly body: SyntaxNode;
}

/** Reads `new Runnable() { public void run() { … } }`; undefined for a class that holds more, or is made with arguments. */
export function singleMethodAt(whole: SyntaxNode): SingleMethod | undefined {
  const type = whole.child("type");
  const members = whole.parts.find((part) => part.is("class_body"))?.parts;
  const [method, ...more] = members ?? [];
  const isPlain = whole.child("arguments")?.parts.length === 0 && whole.firstPart?.same(type) === true;
  if (!type || !isPlain || !method?.is("method_declaration") || more.length > 0) return undefined;
  const body = method.child("body");
  const name = method.child("name")?.text;
  // What implements an interface is public, so another method is one of a class.
  const isPublic = method.parts.some((part) => part.is("modifiers") && part.has("public"));
  if (!body || name === undefined || !isPublic || method.child("type_parameters")) return undefined;
  return { whole, type, method, name, parameters: method.child("parameters")?.parts ?? [], body };
}

/** Methods that every object has: without an object in front they are those of the anonymous class. */
const OF_OBJECTS = "getClass hashCode equals toString notify notifyAll wait clone finalize".split(" ");
/** Methods with a body that the platform's interfaces of one method have. */
const OF_INTERFACES = (
  "reversed thenComparing thenComparingInt thenComparingLong thenComparingDouble andThen compose and or negate " +
  "isEqual identity forEach spliterator naturalOrder reverseOrder nullsFirst nullsLast"
).split(" ");
/** Classes of the platform that are derived from on the spot, with one method. */
const CLASSES = (
  "Object Thread ThreadLocal InheritableThreadLocal ClassLoader Number Exception RuntimeException Error " +
  "TimerTask Authenticator InputStream OutputStream Reader Writer AbstractList AbstractAction Container Component " +
  "MouseAdapter KeyAdapter WindowAdapter FocusAdapter ComponentAdapter"
).split(" ");

/** The names that stand for members of the anonymous class where no object is written in front. */
export function ownNames({ type, name, whole }: SingleMethod): ReadonlySet<string> {
  const known = typeWritten(type);
  const own = known ? familyOf(known.name, whole.tree).flatMap(({ members }) => members) : [];
  return new Set([name, ...OF_OBJECTS, ...OF_INTERFACES, ...own.map((one) => one.name)]);
}

/** A class of the project and those of the project that it is derived from. */
function familyOf(name: string, tree: SyntaxTree, depth = 0): OwnClass[] {
  if (depth > 6) return [];
  const { classes } = classesNamed(tree, name);
  return classes.flatMap((one) => [
    one,
    ...one.parents.flatMap((parent) => familyOf(parent, tree, depth + 1)),
  ]);
}

/** Is the type an interface with one method to write, this one? */
export function isFunctional({ type, name }: SingleMethod): Answer {
  const shown = shortened(type.text);
  const doubt = unknown(
    "type.not-known",
    `nothing here says that \`${shown}\` is an interface with one method`,
    type,
  );
  const known = typeWritten(type);
  if (!known) return doubt;
  if (isTypeOfTrait(known, "function", type, { what: "interface with one method" }).is === "yes")
    return yes("type.is", `\`${shown}\` is an interface of a library with one method`, type);
  const { classes } = classesNamed(type.tree, known.name);
  const here = classes.filter(({ path }) => path === surroundingsOf(type.tree).path);
  const [own, ...more] = here.length > 0 ? here : classes;
  if (own && more.length === 0) return ofProject(own, name, type);
  return own === undefined && isClassOfPlatform(known, type.tree)
    ? no("type.is", `\`${shown}\` is a class`, type)
    : doubt;
}

/** Does the platform, or a library that is known as well, have the name, and not as one of the interfaces with one method? */
function isClassOfPlatform({ name, module }: KnownType, tree: SyntaxTree): boolean {
  const isPlatform = (one: string): boolean => /^(javax?|com\.google\.common)\./.test(one);
  if (module !== undefined) return isPlatform(module);
  if (CLASSES.includes(name)) return true;
  const whole = importsIn(tree).flatMap(({ imports }) => imports.filter((one) => one.name === "*"));
  return whole.length > 0 && whole.every((one) => isPlatform(one.module));
}

/** The heads of the methods without a body, which those who implement an interface must write. */
function abstractOf(own: OwnClass): Head[] {
  return own.members
    .filter(({ as, isStatic }) => as === "method" && !isStatic)
    .map(({ text }) => headOf(text))
    .filter(({ hasBody }) => !hasBody);
}

const keyOf = ({ name, types }: Head): string => `${name}(${types.join(",").replace(/\s/g, "")})`;

function ofProject(own: OwnClass, name: string, at: SyntaxNode): Answer {
  const where = placeOf(own);
  if (own.kind !== "interface_declaration") return no("type.is", `\`${own.name}\` is a class (${where})`, at);
  const family = familyOf(own.name!, at.tree);
  const parents = family.flatMap((one) => one.parents);
  if (parents.includes("Serializable"))
    return no(
      "type.is",
      `\`${own.name}\` can be serialised, which a lambda is in another way (${where})`,
      at,
    );
  const methods = family.flatMap(abstractOf);
  if (methods.some((one) => one.name === name && one.isGeneric))
    return no("form.fits", `\`${name}\` has type parameters of its own (${where})`, at);
  if (new Set(methods.map(keyOf)).size > 1)
    return no("type.is", `\`${own.name}\` has several methods to write (${where})`, at);
  const foreign = parents.find((parent) => !family.some((one) => one.name === parent));
  return foreign === undefined
    ? yes("type.is", `\`${own.name}\` is an interface with one method (${where})`, at)
    : unknown(
        "type.not-known",
        `\`${own.name}\` is derived from \`${foreign}\`, which may have a method to write too`,
        at,
      );
}
