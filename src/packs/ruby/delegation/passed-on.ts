import type { SyntaxNode } from "../../../core.js";

/** A method that does nothing but pass its message on to one object. */
export interface PassedOn {
  readonly method: SyntaxNode;
  /** What it is called by callers: `name`, `age=`, `[]`. */
  readonly name: string;
  /** The object, as it is written: `@queen`, `queen`. */
  readonly to: string;
  /** What is called there. */
  readonly as: string;
  /** May it be given a block, and does it hand it on? */
  readonly takesBlock: boolean;
}

/** Methods that no declaration may bring about, or that mean something to the language. */
const KEPT = [
  "initialize",
  "method_missing",
  "respond_to_missing?",
  "__send__",
  "__id__",
  "object_id",
  "to_s",
  "inspect",
  "hash",
  "==",
  "eql?",
  "===",
  "!",
  "!=",
  "instance_eval",
  "to_str",
  "to_ary",
  "coerce",
];

/** Reads a method that only passes on; undefined for one with arguments of its own, or extra work. */
export function passedOnAt(method: SyntaxNode): PassedOn | undefined {
  if (!method.is("method")) return undefined;
  const name = method.child("name")!.text.replace(/\s+/g, "");
  const body = method.child("body");
  const only = body?.is("body_statement") ? (body.parts.length === 1 ? body.firstPart : undefined) : body;
  if (!only || KEPT.includes(name)) return undefined;
  const list = method.child("parameters")?.parts ?? [];
  const parameters = list.map(wordOf);
  if (parameters.includes(undefined)) return undefined;
  const called = calledIn(only);
  if (!called || !isObject(called.object)) return undefined;
  const { object, as, given } = called;
  const isSame = given.length === parameters.length && given.every((one, n) => one === parameters[n]);
  const names = list.map((one) => one.child("name")?.text ?? one.text);
  if (!isSame || names.includes(object.text)) return undefined;
  return { method, name, to: object.text, as, takesBlock: list.some((one) => one.is("block_parameter")) };
}

/** An object that is there by its own name: a variable of the object, or a reader. */
const isObject = (node: SyntaxNode): boolean =>
  node.is("instance_variable") || (node.is("identifier") && /^[a-z_]\w*$/.test(node.text));

/** A parameter as an argument that hands it on is written; undefined for one with a default. */
function wordOf(parameter: SyntaxNode): string | undefined {
  const name = parameter.child("name")?.text;
  switch (parameter.kind) {
    case "identifier":
      return parameter.text;
    case "splat_parameter":
      return `*${name ?? ""}`;
    case "hash_splat_parameter":
      return `**${name ?? ""}`;
    case "block_parameter":
      return `&${name ?? ""}`;
    case "keyword_parameter":
      return parameter.child("value") || name === undefined ? undefined : `${name}: ${name}`;
    case "forward_parameter":
      return "...";
    default:
      return undefined;
  }
}

interface Called {
  readonly object: SyntaxNode;
  readonly as: string;
  readonly given: readonly string[];
}

function calledIn(code: SyntaxNode): Called | undefined {
  if (code.is("element_reference")) {
    const [object, ...given] = code.parts;
    return object && { object, as: "[]", given: given.map((one) => one.text) };
  }
  if (code.is("assignment")) {
    const [left, right] = [code.child("left"), code.child("right")];
    const object = left?.child("receiver");
    return left?.is("call") && object && right && !left.child("arguments")
      ? { object, as: `${left.child("method")!.text}=`, given: [right.text] }
      : undefined;
  }
  const object = code.is("call") ? code.child("receiver") : undefined;
  const as = code.child("method")?.text;
  // `queen&.name` gives nil where there is no queen, and a declaration does not.
  const isPlain =
    object !== undefined &&
    /^\s*\.\s*$/.test(code.tree.text.slice(object.end, code.child("method")?.start ?? object.end));
  if (!object || !isPlain || as === undefined || code.child("block")) return undefined;
  const given = code.child("arguments")?.parts.map((one) => one.text.replace(/\s+/g, " ")) ?? [];
  return { object, as, given };
}
