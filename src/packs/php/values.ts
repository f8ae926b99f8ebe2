import {
  calledFromLibrary,
  classesIn,
  classesNamed,
  isCertainlyAssigned,
  importsIn,
  isDefinedInProject,
  memberNamed,
  nameInFile,
  no,
  placeOf,
  referencesAt,
  shortened,
  textFound,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match, SyntaxNode, SyntaxTree } from "../../core.js";

/** Types of PHP whose values are true whenever they are there. */
const NOT_OBJECTS = [
  "int",
  "float",
  "string",
  "bool",
  "array",
  "mixed",
  "iterable",
  "callable",
  "object|null",
];

/** Is what is written a variable, and not a property or an item of something? */
export function isVariable(node: SyntaxNode): boolean {
  return node.is(["variable_name", "scoped_property_access_expression"]);
}

/** The class of the project that an object is of: the one around for `$this`, else the one it is declared as. */
function classNameOf(object: SyntaxNode): string | undefined {
  const self = object.tree.language.binding.selfOf(object);
  return self ? self.child("name")?.text : typeOf(object)?.name;
}

/**
 * Do `isset` and `??` say the same of this? Objects that answer for their items and properties may not: `??` asks
 * `__get` where there is no `__isset`.
 */
export function asksNoObject(node: SyntaxNode): Answer {
  if (isVariable(node)) return yes("effect.getter", `\`${node.text}\` is a variable`, node);
  const base = node.firstPart;
  const shown = shortened(node.text);
  if (node.is("subscript_expression")) {
    const type = base && typeOf(base);
    if (type?.name === "array") return yes("type.is", type.why, type.at);
    return unknown(
      "effect.getter",
      `\`${shown}\` could be an object with items of its own, which answers \`isset\` itself`,
      node,
    );
  }
  const owner = base && classNameOf(base);
  const name = node.child("name")?.text;
  if (owner !== undefined && name !== undefined) {
    const get = memberNamed(node, owner, "__get");
    const isset = memberNamed(node, owner, "__isset");
    const declared = memberNamed(node, owner, name);
    if (get?.member && !isset?.member)
      return no(
        "effect.getter",
        `\`${owner}\` has \`__get\` and no \`__isset\`, so \`isset\` says otherwise than ?? (${placeOf(get.of)})`,
        node,
      );
    if (get && !get.member && get.isWhole && declared?.member?.as === "field")
      return yes("effect.getter", `\`${name}\` is a property of \`${owner}\`, which has no magic ones`, node);
  }
  return unknown(
    "effect.getter",
    `\`${shown}\` could be a magic property, which answers \`isset\` itself`,
    node,
  );
}

/**
 * Is this there to be read, so that nothing warns of it? `??` and `isset` pass over what is not there, and a plain
 * comparison or `?->` does not.
 */
export function isThere(node: SyntaxNode): Answer {
  const shown = shortened(node.text);
  if (node.text === "$this") return yes("name.undeclared", "`$this` is always there", node);
  if (node.is("variable_name")) {
    const to = referencesAt(node.firstPart!).find(({ member }) => !member)?.to;
    // What no line here assigns may come from a file that is included.
    const assigned = to && isCertainlyAssigned(to, node);
    if (assigned)
      return assigned.is === "no" ? unknown(assigned.evidence.code, assigned.evidence.says, node) : assigned;
    return unknown("name.undeclared", `\`${shown}\` may not be there at all`, node);
  }
  if (node.is(["member_access_expression", "scoped_property_access_expression"])) {
    const base = node.firstPart;
    const owner = base && classNameOf(base);
    const name = node.child("name")?.text.replace(/^\$/, "");
    const declared =
      owner !== undefined && name !== undefined ? memberNamed(node, owner, name)?.member : undefined;
    // A property without a type is null from the start; one with a type has no value before it is given one.
    const hasValue =
      declared?.as === "field" && (/=/.test(declared.text) || !isTypedProperty(node, owner!, name!));
    return hasValue
      ? yes("name.undeclared", `\`${name}\` is declared in \`${owner}\``, node)
      : unknown("name.undeclared", `\`${shown}\` may have no value yet`, node);
  }
  return unknown("name.undeclared", `\`${shown}\` may not be there, which ?? passes over in silence`, node);
}

/** Is a property declared with a type? */
function isTypedProperty({ tree }: SyntaxNode, owner: string, name: string): boolean {
  const form = new RegExp(
    `(public|protected|private|static|readonly|var)\\s+\\??[\\w\\\\|]+\\s+\\$${name}\\b`,
  );
  return !classesIn(tree).some((one) => one.name === owner) || textFound(tree, form) !== undefined;
}

/** The import that brings a function of PHP into a file by its own name: `use function strpos;`. */
function importOfPhp(name: string, tree: SyntaxTree): SyntaxNode | undefined {
  const brought = importsIn(tree).flatMap(({ imports }) => imports);
  return brought.find(
    (one) =>
      one.form === "function" && one.module === "" && one.name === name && (one.local ?? name) === name,
  )?.node;
}

/** Is a function that a rule's code spells out the one of PHP? */
export function isOfPhp(name: string, { tree }: Pick<Match, "tree">): Answer {
  const brought = importOfPhp(name, tree);
  if (brought) return yes("name.library", `\`${name}\` is imported from the language`, brought);
  const own = nameInFile(name.toLowerCase(), tree).declarations.find(
    ({ as }) => as === "function" || as === "import",
  );
  if (own) return no("name.library", `\`${name}\` is given a meaning of its own in this file`, own.at[0]);
  const defined = isDefinedInProject(name, tree);
  return defined ?? yes("name.library", `\`${name}\` is the function of PHP`);
}

/** Is this the name of a type whose values are all objects? */
export const isObjectType = (name: string): boolean =>
  /^\\?[a-z_]\w*(?:\\\w+)*$/i.test(name) && !NOT_OBJECTS.includes(name.toLowerCase());

/** What counts as true or false only by being there or not. What is assigned in sight is looked at. */
export function isObjectOrMissing(_match: Match, node: SyntaxNode): Answer {
  const type = typeOf(node);
  const name = shortened(node.text);
  if (type && !NOT_OBJECTS.includes(type.name.toLowerCase()))
    return classesNamed(node.tree, type.name).otherwise === undefined
      ? yes("type.is", type.why, type.at)
      : unknown("type.is", `\`${type.name}\` may be something else`, node);
  if (type && /^(int|float|string|bool|array)$/i.test(type.name))
    return no("value.falsy", `${type.why}, which can be false without being null`, type.at);
  const given = valuesSeen(node);
  const falsy = given.find((value) => /^(false|0|''|""|\[\]|array\(\))$/i.test(value.text));
  if (falsy)
    return no(
      "value.falsy",
      `\`${name}\` is given \`${falsy.text}\` here, for which the old code stopped`,
      falsy,
    );
  const failing = given.find((value) => calledFromLibrary(value)?.orFalse === true);
  if (failing)
    return no("value.falsy", `\`${shortened(failing.text)}\` gives \`false\` where it fails`, failing);
  return unknown("value.falsy", `\`${name}\` could be false, 0 or "", for which the old code stopped`, node);
}

/** The values that the file gives a variable of this name, or a property of it on whatever object. */
function valuesSeen(node: SyntaxNode): SyntaxNode[] {
  const text = node.text.replace(/\s+/g, "");
  const last = node.is("member_access_expression") ? node.child("name")?.text : undefined;
  const result: SyntaxNode[] = [];
  for (const n of node.tree.ofKinds(["assignment_expression"])) {
    const one = node.tree.node(n);
    const left = one.child("left");
    const right = one.child("right");
    if (!left || !right) continue;
    const isIt =
      left.text.replace(/\s+/g, "") === text ||
      (last !== undefined && left.is("member_access_expression") && left.child("name")?.text === last);
    if (isIt) result.push(right);
  }
  if (last !== undefined)
    for (const own of classesIn(node.tree)) {
      const declared = own.members.find(({ name, as }) => as === "field" && name === last);
      if (declared && /=\s*(false|0|''|"")\s*$/i.test(declared.text)) {
        const at = node.tree.root.mentions(last)[0];
        if (at) result.push(at.parent?.parent?.child("default_value") ?? at);
      }
    }
  return result;
}
