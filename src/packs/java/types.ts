import {
  annotationOf,
  classesNamed,
  importsIn,
  isOfTrait,
  madeInSight,
  no,
  placeOf,
  referencesAt,
  referencesOf,
  shortened,
  surroundingsOf,
  textFound,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Condition, SyntaxNode, SyntaxTree } from "../../core.js";
import { everyTest } from "../family/conditions.js";

const MAP_METHODS = ["containsKey", "get", "put", "getOrDefault", "computeIfAbsent", "merge"];

/** The type that is written beside the name of a variable or field, as a node. */
export function declaredType(expression: SyntaxNode): SyntaxNode | undefined {
  const leaf = expression.is("field_access")
    ? expression.child("object")?.is("this")
      ? expression.child("field")
      : undefined
    : expression;
  if (!leaf?.is("identifier")) return undefined;
  const to = referencesAt(leaf).find((reference) => reference.to)?.to;
  return to?.at.map((at) => annotationOf(at)).find((found) => found !== undefined);
}

/** The type arguments that a variable is declared with: `String`, `Integer` for `Map<String, Integer>`. */
export function typeArguments(expression: SyntaxNode): readonly string[] {
  const type = declaredType(expression);
  const list = type?.parts.find((part) => part.is("type_arguments"));
  return list?.parts.map((part) => part.text) ?? [];
}

/** Is an expression a map of the standard library, with its own version of the methods? */
export function isMap(expression: SyntaxNode): Answer {
  return isOfTrait(expression, "map", { what: "map", methods: MAP_METHODS });
}

/** Makers of maps that refuse to be written. */
const READ_ONLY = /\b(unmodifiable\w*Map|emptyMap|singletonMap|Map\.(of|ofEntries|copyOf)|Immutable\w*Map)\b/;

/**
 * May a map be written where the old code wrote it only for a key that was not there? One that refuses to be written
 * fails then for every key.
 */
export function canBeWritten(expression: SyntaxNode): Answer {
  const shown = shortened(expression.text);
  const made = madeInSight(expression);
  if (made) return yes("type.stand-in", `\`${shown}\` is only given what is made here`, made[0]!.at);
  const { files, path } = surroundingsOf(expression.tree);
  const readOnly = textFound(expression.tree, READ_ONLY);
  if (readOnly !== undefined)
    return unknown(
      "type.stand-in",
      `\`${shown}\` could be one that \`${readOnly}\` made, which refuses to be written`,
      expression,
    );
  for (const word of ["unmodifiableMap", "emptyMap", "singletonMap", "copyOf"]) {
    for (const file of files?.naming(word) ?? []) {
      if (file.path !== path && READ_ONLY.test(file.text))
        return unknown(
          "type.stand-in",
          `\`${shown}\` could be one that ${file.path} makes, which refuses to be written`,
          expression,
        );
    }
  }
  return yes("type.stand-in", `nothing in the project makes maps that refuse to be written`, expression);
}

/** Is every value that the code puts into a map certainly not null, and does nobody else get at the map? */
export function holdsNoNull(map: SyntaxNode, isNeverNull: (value: SyntaxNode) => boolean): Answer {
  const shown = shortened(map.text);
  const doubt = unknown("value.null", `\`${shown}\` could hold null for the key`, map);
  if (!madeInSight(map)) return doubt;
  const leaf = [...map.descendants()].findLast((one) => one.isLeaf && one.named);
  const to = leaf && referencesAt(leaf).find((one) => one.to)?.to;
  if (!to) return doubt;
  for (const { node, does } of referencesOf(to)) {
    if (does === "write" || does === "declare") continue;
    const whole = node.parent?.is("field_access") ? node.parent : node;
    const call = whole.parent;
    if (!call?.is("method_invocation") || !call.child("object")?.same(whole)) return doubt;
    const name = call.child("name")?.text ?? "";
    if (/^(get|containsKey|size|isEmpty|remove|clear|keySet|getOrDefault|containsValue|forEach)$/.test(name))
      continue;
    const value = call.child("arguments")?.parts[1];
    if (!/^(put|putIfAbsent|merge)$/.test(name) || !value || !isNeverNull(value)) return doubt;
  }
  return yes("value.null", `nothing puts null into \`${shown}\``, to.at[0]);
}

/** Is an expression an `Optional`? */
export function isOptional(expression: SyntaxNode): Answer {
  return isOfTrait(expression, "optional", { what: "Optional" });
}

/** Is the name of a class that a rule's code spells out the library's: `Optional` in `Optional.of(x)`? */
export function isLibraryName(name: string, module: string, { tree }: { readonly tree: SyntaxTree }): Answer {
  const { classes, isWhole, otherwise } = classesNamed(tree, name);
  const [own] = classes;
  const imports = importsIn(tree).flatMap((statement) => statement.imports);
  const explicit = imports.find((item) => item.name === name);
  if (explicit)
    return explicit.module === module
      ? yes("name.library", `\`${name}\` is imported from \`${module}\``, explicit.node)
      : no("name.library", `\`${name}\` is imported from \`${explicit.module}\``, explicit.node);
  if (own) return no("name.library", `the project has a \`${name}\` of its own (${placeOf(own)})`);
  if (otherwise !== undefined || !isWhole)
    return unknown("name.not-resolved", `another \`${name}\` may be meant`);
  return module === "java.lang" || imports.some((item) => item.name === "*" && item.module === module)
    ? yes("name.library", `\`${name}\` is the one of \`${module}\``)
    : unknown("name.not-resolved", `nothing in this file says where \`${name}\` comes from`);
}

const LITERAL_TYPES: Readonly<Record<string, string>> = {
  decimal_integer_literal: "Integer",
  string_literal: "String",
  true: "Boolean",
  false: "Boolean",
  character_literal: "Character",
  decimal_floating_point_literal: "Double",
};

/** Does a literal have just this type, so that it needs no widening that a method's parameter does not do? */
export function literalIs(value: SyntaxNode, type: string | undefined): Answer {
  let own = LITERAL_TYPES[value.kind];
  if (own === "Integer" && /[lL]$/.test(value.text)) own = "Long";
  if (own === "Double" && /[fF]$/.test(value.text)) own = "Float";
  if (type === undefined) return unknown("type.not-known", `the type of the values is not known`, value);
  if (value.is("null_literal")) return yes("type.same", "null is of every type", value);
  if (own === undefined)
    return unknown("type.same", `\`${shortened(value.text)}\` must be a \`${type}\``, value);
  return own === type
    ? yes("type.same", `\`${value.text}\` is a \`${type}\``, value)
    : no("type.same", `\`${value.text}\` is no \`${type}\``, value);
}

const BOXED: Readonly<Record<string, string>> = {
  Integer: "int",
  Long: "long",
  Short: "short",
  Byte: "byte",
  Character: "char",
  Float: "float",
  Double: "double",
  Boolean: "boolean",
};

/**
 * A choice between a boxed value and a literal gives a primitive, and a method with a default gives an object. That
 * makes no difference where a primitive is wanted anyway.
 */
export function wantsPrimitive(node: SyntaxNode, type: string | undefined, fallback: SyntaxNode): Answer {
  if (type === undefined) return unknown("type.not-known", "the type of the values is not known", node);
  if (BOXED[type] === undefined || fallback.is("null_literal")) return yes("type.same", "both are objects");
  if (typeOf(fallback)?.name === type) return yes("type.same", `both are \`${type}\``, fallback);
  const { parent } = node;
  if (parent?.is("parenthesized_expression")) return wantsPrimitive(parent, type, fallback);
  const isPrimitive = (written: string | undefined): boolean => Object.values(BOXED).includes(written ?? "");
  if (parent?.is("variable_declarator") && isPrimitive(parent.parent?.child("type")?.text))
    return yes("type.same", "a primitive is wanted here", parent);
  if (parent?.is("return_statement")) {
    const around = [...node.ancestors()].find((above) =>
      above.is(["method_declaration", "lambda_expression"]),
    );
    if (around?.is("method_declaration") && isPrimitive(around.child("type")?.text))
      return yes("type.same", "the method returns a primitive", around);
  }
  const isArithmetic =
    parent?.is("binary_expression") === true &&
    /^[-+*/%<>]=?$/.test(parent.child("operator")?.text ?? "") &&
    parent.parts.every((part) => part.same(node) || /literal|binary/.test(part.kind)) &&
    !parent.parts.some((part) => part.is("string_literal"));
  return isArithmetic
    ? yes("type.same", "it is counted with", parent)
    : unknown(
        "type.same",
        `\`${shortened(node.text)}\` was a primitive and would be an object, which overloads and \`==\` tell apart`,
        node,
      );
}

/** Is a default of just the type that is wanted, so that the same method can take it? */
export function isOfType(value: SyntaxNode, type: string | undefined): Answer {
  if (LITERAL_TYPES[value.kind] !== undefined || value.is("null_literal")) return literalIs(value, type);
  if (type === undefined) return unknown("type.not-known", "the type of the values is not known", value);
  const own = typeOf(value);
  const bare = type.replace(/<.*$/s, "");
  return own?.name === bare
    ? yes("type.same", own.why, own.at)
    : unknown("type.same", `\`${shortened(value.text)}\` must be a \`${type}\``, value);
}

/** Is `Objects`, where a test asks it, the one of the library? */
export function objectsOfJava(): Condition {
  return everyTest("`Objects` is the one of the library", (match, { words }) =>
    words.some((word) => word.startsWith("Objects."))
      ? isLibraryName("Objects", "java.util", match)
      : yes("name.library", "it is not asked"),
  );
}
