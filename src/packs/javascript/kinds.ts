import { askCompiler, condition, functionAround, no, sameCode, shortened } from "../../core.js";
import { typeOf, unknown, valuesOf, yes } from "../../core.js";
import type { Answer, Condition, Hole, Match, SyntaxNode } from "../../core.js";
import { isThere } from "./there.js";

/** What a method of the library is called on. */
export type Owner = "string" | "Array";

const NAMES: Readonly<Record<Owner, string>> = { string: "a string", Array: "an array" };
const MISSING = /\s*\|\s*(null|undefined)\b|\b(null|undefined)\s*\|\s*/g;

/** Is a type, as it is written, one of strings or arrays? Undefined for one that says neither. */
function ownerOfType(text: string): Owner | "other" | undefined {
  const type = text.replace(MISSING, "").trim();
  if (/^(string|"[^"|]*"|'[^'|]*')$/.test(type) || /^(("[^"]*")(\s*\|\s*)?)+$/.test(type)) return "string";
  if (/^(readonly )?(?!keyof|typeof|unique)[\w.#]+(\[\])+$|^(Readonly)?Array#$/.test(withoutInner(type)))
    return "Array";
  return /^(number|boolean|bigint|symbol)$/.test(type) ? "other" : undefined;
}

/** A type with all that stands between brackets left out: `(Hive | null)[]` as `#[]`. */
function withoutInner(type: string): string {
  const outer = type
    .replace(/=>/g, "→")
    .replace(/\([^(){}<>]*\)|\{[^(){}<>]*\}|<[^(){}<>]*>|"[^"]*"|'[^']*'/g, "#");
  return outer === type.replace(/=>/g, "→") ? outer : withoutInner(outer);
}

/** What a value is as far as the file or the project's compiler says, and why. */
function ownerOf(
  match: Match,
  node: SyntaxNode,
): { owner: Owner | "other"; why: string; at: SyntaxNode } | undefined {
  if (node.is("non_null_expression") && node.firstPart) return ownerOf(match, node.firstPart);
  const known = typeOf(node);
  if (known && !known.declared && known.module === undefined) {
    const owner = known.name.endsWith("[]")
      ? "Array"
      : ownerOfType(known.name === "Array" ? "Array<unknown>" : known.name);
    return { owner: owner ?? "other", why: known.why, at: known.at };
  }
  if (known) return { owner: "other", why: known.why, at: known.at };
  const name = shortened(node.text);
  const values = valuesOf(match, node);
  const text = values?.text ?? askCompiler(match, node)?.text;
  const owner = text === undefined ? undefined : ownerOfType(text);
  return owner && { owner, why: `\`${name}\` is \`${text}\``, at: node };
}

const METHODS: Readonly<Record<Owner, ReadonlySet<string>>> = {
  string: new Set(
    (
      "charAt charCodeAt codePointAt substr substring split trim trimStart trimEnd toLowerCase toUpperCase replace " +
      "replaceAll match matchAll search startsWith endsWith localeCompare padStart padEnd repeat"
    ).split(" "),
  ),
  Array: new Set(
    "push pop shift unshift map filter forEach join splice some every reduce sort reverse find findIndex flat".split(
      " ",
    ),
  ),
};

/** What is called on a value around a place, as far as only strings or only arrays have it. */
function usedAs(node: SyntaxNode): { owner: Owner; at: SyntaxNode } | undefined {
  const around = functionAround(node) ?? node.tree.root;
  for (const one of around.descendants()) {
    if (!one.is("member_expression") || !one.parent?.is("call_expression")) continue;
    const [object, property] = [one.child("object"), one.child("property")];
    if (!object || !property || object.kind !== node.kind || !sameCode(object, node)) continue;
    for (const owner of ["string", "Array"] as const)
      if (METHODS[owner].has(property.text)) return { owner, at: one };
  }
  return undefined;
}

/** What a method is called on is a string or an array: by its type, or as it seems by what else is called on it. */
function isOwner(
  match: Match,
  object: SyntaxNode,
  owners: readonly Owner[],
): { answer: Answer; byUse?: SyntaxNode } {
  const wanted = owners.map((one) => NAMES[one]).join(" or ");
  const name = shortened(object.text);
  const found = ownerOf(match, object);
  if (found) {
    const { owner, why, at } = found;
    const is = owner !== "other" && owners.includes(owner);
    return {
      answer: is ? yes("type.is", why, at) : no("type.is", `${why}, which is not ${wanted}`, at),
    };
  }
  const used = kindOf(match, object);
  if (!used || used.owner === "other")
    return { answer: unknown("type.not-known", `nothing says that \`${name}\` is ${wanted}`, object) };
  const says = used.why;
  const answer = owners.includes(used.owner)
    ? yes("type.is", says, used.at)
    : unknown("type.not-known", says, used.at);
  return { answer, byUse: used.at };
}

/**
 * A method is called that strings or arrays have, and not one that another class calls the same. Where only what else is
 * called on the object says so, it is not certain.
 */
export function calledOn(object: Hole, owners: readonly Owner[]): readonly Condition[] {
  const wanted = owners.map((one) => NAMES[one]).join(" or ");
  return [
    condition(
      `\`${object.name}\` is ${wanted}`,
      (match) => isOwner(match, match.the(object), owners).answer,
      {
        unknownIs: "possible",
      },
    ),
    condition(
      "its type says so, and not only its use",
      (match) => {
        const { byUse } = isOwner(match, match.the(object), owners);
        return byUse
          ? unknown(
              "type.not-known",
              `the use of \`${shortened(match.textOf(object))}\` alone says what it is`,
              byUse,
            )
          : yes("type.is", "its type is what counts");
      },
      { when: (match) => isOwner(match, match.the(object), owners).byUse !== undefined },
    ),
  ];
}

/** What a value is by its type, else by its use, and why. */
export function kindOf(
  match: Match,
  node: SyntaxNode,
): { owner: Owner | "other"; why: string; at: SyntaxNode; byUse: boolean } | undefined {
  const found = ownerOf(match, node);
  if (found) return { ...found, byUse: false };
  const used = usedAs(node);
  const why = used && `\`${shortened(used.at.text)}\` is called, which only ${NAMES[used.owner]} has`;
  return used && { owner: used.owner, why: why!, at: used.at, byUse: true };
}

/** Is a value certainly a string, or an array, and not missing? */
export function isKnownAs(match: Match, node: SyntaxNode, owner: Owner): boolean {
  return ownerOf(match, node)?.owner === owner && isThere(match, node).is === "yes";
}

/** Is a value a number that is not negative: a literal, or the length of a text or an array? Undefined where not known. */
export function isCount(match: Match, node: SyntaxNode): boolean | undefined {
  if (node.is("number")) return /^\d+$/.test(node.text);
  if (node.is("unary_expression")) return node.text.startsWith("-") ? false : undefined;
  const object = node.is("member_expression") && node.text.endsWith(".length") ? node.firstPart : undefined;
  const isLong = object && (["string", "Array"] as const).some((owner) => isKnownAs(match, object, owner));
  return isLong || undefined;
}
