import {
  classesNamed,
  calledFromLibrary,
  givesSomething,
  isNamedLike,
  isTypeOfTrait,
  no,
  placeOf,
  rowsNamed,
  shortened,
  typeWritten,
  unknown,
  yes,
  type OwnClass,
  type OwnMember,
} from "../../core.js";
import type { Answer, Handle, Match, SyntaxNode, Trait } from "../../core.js";
import { caughtBy, handlersAround, namesException } from "./handlers.js";
import { handleOf } from "../family/handles.js";

const RESOURCE = { what: "resource" };

/** The class in `new a.b.C<>(…)`. */
function createdClass(made: SyntaxNode): SyntaxNode | undefined {
  return made.is("object_creation_expression") && !made.parts.some((part) => part.is("class_body"))
    ? made.child("type")
    : undefined;
}

/** The outermost to the innermost things that are made: `BufferedReader`, `FileReader`; undefined where one is not known. */
function sourcesOf(made: SyntaxNode): readonly string[] | undefined {
  const type = createdClass(made);
  if (!type) {
    const called = calledFromLibrary(made);
    return called?.acquires === true && called.gives !== undefined ? [called.gives] : undefined;
  }
  const written = typeWritten(type);
  if (!written) return undefined;
  const is = (trait: Trait): boolean => isTypeOfTrait(written, trait, type, RESOURCE).is === "yes";
  if (is("unseen")) return [written.name];
  const [first] = made.child("arguments")?.parts ?? [];
  if (!is("wraps") || !first) return undefined;
  const isFile = createdClass(first)?.text === "File" || first.is("string_literal");
  if (isFile) return [written.name];
  const inner = sourcesOf(first);
  return inner && [written.name, ...inner];
}

/** Is what is made a file or memory, which nobody else can see being closed? */
export function isUnseen(made: SyntaxNode): boolean {
  return sourcesOf(made) !== undefined;
}

/** May closing fail? A resource that is only read from does not, and a class of the project says itself. */
export function closesQuietly(match: Match, type: SyntaxNode, made: SyntaxNode): Answer {
  const shown = shortened(made.text);
  const sources = sourcesOf(made);
  if (sources && !sources.some((one) => isNamedLike(one, "writes", match)))
    return yes("flow.throws", `closing \`${shown}\`, from which is only read, does not fail`, made);
  const name = typeWritten(type.text === "var" ? (createdClass(made) ?? type) : type)?.name ?? "";
  const close = memberOf(match, name, "close");
  if (close && !/\bthrow\b|\w\s*\(/.test(bodyOf(close.member)))
    return yes("flow.throws", `\`close\` of \`${name}\` throws nothing`, type);
  if (close && /\bthrow\b/.test(bodyOf(close.member)))
    return unknown(
      "flow.throws",
      `\`close\` of \`${name}\` can throw (${placeOf({ ...close.of, line: close.member.line })})`,
      type,
    );
  return unknown(
    "flow.throws",
    `closing \`${shown}\` could throw, and then another exception is seen than before`,
    made,
  );
}

const bodyOf = ({ text }: OwnMember): string => text.slice(Math.max(0, text.indexOf("{")));

/** A method of a class of the project, or of a class of the project that it is derived from. */
function memberOf(
  { tree }: Match,
  name: string,
  method: string,
  depth = 0,
): { of: OwnClass; member: OwnMember } | undefined {
  if (depth > 6) return undefined;
  for (const of of classesNamed(tree, name).classes) {
    const member = of.members.find((one) => one.as === "method" && one.name === method);
    if (member) return { of, member };
    for (const parent of of.parents) {
      const found = memberOf({ tree } as Match, parent, method, depth + 1);
      if (found) return found;
    }
  }
  return undefined;
}

/** Is what is acquired certainly something, and not null? */
export function isNeverNull(made: SyntaxNode): Answer {
  if (createdClass(made) || givesSomething(made))
    return yes("value.null", `\`${shortened(made.text)}\` is never null`, made);
  return unknown(
    "value.null",
    `\`${shortened(made.text)}\` could be null, for which the old code failed`,
    made,
  );
}

/** Does try with resources take a variable of this type that is filled by this expression? */
export function isCloseable(
  match: Match,
  type: SyntaxNode,
  made: SyntaxNode,
  rows: readonly Handle[],
): Answer {
  const own = handleOf(rows, made);
  if (own && own.row.scoped !== "itself" && own.row.scoped !== undefined)
    return no(
      "resource.closeable",
      `\`${shortened(made.text)}\` makes something that only has the method`,
      made,
    );
  if (own) return own.answer;
  const written = typeWritten(type.text === "var" ? (createdClass(made) ?? type) : type);
  if (!written || written.name === "var")
    return unknown(
      "resource.closeable",
      `nothing says that \`${shortened(made.text)}\` is a resource of the language`,
      type,
    );
  const { name } = written;
  const declared = declaredInProject(match, name);
  if (declared === "closeable")
    return yes("resource.closeable", `\`${name}\` says that it can be closed`, type);
  if (declared === "not")
    return no("resource.closeable", `\`${name}\` does not say that it can be closed`, type);
  if (declared === undefined && isNamedLike(name, "scoped", match)) {
    const library = isTypeOfTrait(written, "scoped", type, RESOURCE);
    return library.is === "yes"
      ? yes("resource.closeable", `\`${name}\` can be closed by the language`, type)
      : library;
  }
  return unknown("resource.closeable", `nothing says that \`${name}\` is a resource of the language`, type);
}

/** What the project's own source says of a class, by what it implements; undefined where it declares none. */
function declaredInProject(
  match: Match,
  name: string,
  depth = 0,
): "closeable" | "not" | "unknown" | undefined {
  const { classes } = classesNamed(match.tree, name);
  if (classes.length === 0) return undefined;
  if (depth > 6) return "unknown";
  const parents = classes.flatMap((one) => one.parents);
  const known = parents.map(
    (parent) =>
      declaredInProject(match, parent, depth + 1) ??
      (isNamedLike(parent, "scoped", match) ? "closeable" : "unknown"),
  );
  if (known.includes("closeable")) return "closeable";
  return known.every((one) => one === "not") ? "not" : "unknown";
}

/** May a call make something that can be closed? */
export function looksCloseable(made: SyntaxNode, rows: readonly Handle[]): boolean {
  const written = createdClass(made);
  const name = written && typeWritten(written)?.name;
  return (
    handleOf(rows, made) !== undefined ||
    (name !== undefined && isNamedLike(name, "scoped", made)) ||
    isUnseen(made)
  );
}

/** Does a function only close what it is given, and pass over what goes wrong? */
export function isQuietClose(match: Match, helper: SyntaxNode): Answer {
  const name = helper.text;
  const call = helper.parent!;
  const owner = call.child("object")?.text.split(".").at(-1);
  const around = [...helper.ancestors()].flatMap((above) =>
    above.is("class_declaration") ? (above.child("name")?.text ?? []) : [],
  );
  const all = (owner === undefined ? around : [owner]).flatMap((one) =>
    classesNamed(match.tree, one).classes.flatMap((of) =>
      of.members
        .filter((member) => member.as === "method" && member.name === name)
        .map((member) => ({ where: placeOf({ ...of, line: member.line }), done: doneBeside(member.text) })),
    ),
  );
  const [found] = all;
  // Which of several is called hangs on the types.
  if (found && all.every(({ done }) => done === ""))
    return yes(
      "resource.same-release",
      `\`${name}\` closes it and passes over what goes wrong (${found.where})`,
      helper,
    );
  if (found && all.length === 1)
    return no(
      "resource.same-release",
      found.done === undefined
        ? `\`${name}\` does not close it, or does not pass over what goes wrong (${found.where})`
        : `\`${name}\` does more than close it: \`${shortened(found.done)}\` (${found.where})`,
      helper,
    );
  return unknown("resource.same-release", `what \`${name}\` does is known by its name only`, helper);
}

/** What a method does beside closing its parameter; undefined where it does not close it, or throws what closing throws. */
function doneBeside(method: string): string | undefined {
  const code = method.replace(/\/\*[^]*?\*\/|\/\/.*/g, "");
  const [, parameter = ""] = /\(\s*(?:final\s+)?[\w.<>?, ]+?\s+(\w+)\s*\)/.exec(code) ?? [];
  const body = code.slice(code.indexOf("{") + 1, code.lastIndexOf("}"));
  const close = new RegExp(`\\b${parameter}\\.close\\(\\);`);
  if (parameter === "" || !close.test(body) || !/\bcatch\b/.test(body)) return undefined;
  return body
    .replace(close, "")
    .replace(new RegExp(`if\\s*\\(\\s*(${parameter}\\s*!=\\s*null|null\\s*!=\\s*${parameter})\\s*\\)`), "")
    .replace(/\btry\b|\bcatch\s*\([^)]*\)|[{}]/g, "")
    .trim();
}

/** Is the exception that closing declares thrown on or caught around a match? The compiler asks for that. */
export function handlesClosing(match: Match, type: SyntaxNode, made: SyntaxNode): Answer {
  const name = typeWritten(type.text === "var" ? (createdClass(made) ?? type) : type)?.name ?? "";
  const thrown = thrownByClosing(match, name);
  if (thrown.length === 0) return yes("flow.throws", `closing a \`${name}\` declares no exception`, type);
  const { after } = match.resource;
  // Each of them must be looked after, where there are several.
  const isCaught = (clauses: readonly SyntaxNode[]): boolean =>
    thrown.every((one) =>
      clauses.some((clause) => namesException(caughtBy(clause), [one, "Exception", "Throwable"])),
    );
  const around = handlersAround(match.node);
  for (const clauses of [after, around])
    if (isCaught(clauses)) return yes("flow.throws", `a handler catches \`${thrown[0]}\``, clauses[0]);
  const body = match.node.closest(["method_declaration", "constructor_declaration", "lambda_expression"]);
  const throws = body?.parts.find((part) => part.is("throws"));
  if (throws && thrown.every((one) => namesException(throws.text, [one, "Exception", "Throwable"])))
    return yes("flow.throws", `the method declares \`${throws.text}\``, throws);
  return no(
    "flow.throws",
    `closing it could throw \`${thrown[0]}\`, which nothing here declares or catches`,
    made,
  );
}

/** The exceptions that `close` of a type declares. */
function thrownByClosing(match: Match, name: string): readonly string[] {
  const own = memberOf(match, name, "close");
  if (own) {
    const declared = /\)\s*throws\s+([^{;]+)/.exec(own.member.text)?.[1] ?? "";
    return declared
      .split(",")
      .map((one) => one.trim().split(".").at(-1)!)
      .filter((one) => one !== "");
  }
  const row = rowsNamed(name, match.tree).find(({ are }) => are.includes("scoped"));
  return row ? [row.releaseThrows ?? []].flat() : ["Exception"];
}
