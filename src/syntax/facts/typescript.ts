import type { Language } from "../language.js";
import { typeWords } from "../masks/type-words.js";
import { typescriptBare } from "../bare/typescript.js";
import { ecmascript } from "./ecmascript.js";

export const typescript: Language = {
  ...ecmascript,
  obstacles: [typeWords],
  bare: typescriptBare,
  // The compiler refuses to ask whether what may be missing is more or less than something.
  flow: { ...ecmascript.flow, comparesMissing: { toFalse: ["===", "=="], toTrue: ["!==", "!="] } },
  contexts: [
    ...ecmascript.contexts,
    { name: "member", before: "interface Uvran {\n", after: "\n}" },
    { name: "type", before: "let uvran: ", after: ";" },
  ],
  handsOn: [...ecmascript.handsOn, "non_null_expression", "as_expression", "satisfies_expression"],
  types: {
    ...ecmascript.types,
    arrays: ["array_type"],
    around: ["generic_type", "optional_type"],
    composed: ["union_type", "intersection_type", "function_type", "tuple_type", "array_type"],
    values: {
      name: "identifier",
      member: "member_expression",
      self: "this",
      parenthesized: "parenthesized_expression",
      asserted: "non_null_expression",
      cut: "optional_chain",
      holders: ["required_parameter", "optional_parameter", "variable_declarator"],
      optionalHolders: ["optional_parameter"],
      members: ["property_signature", "public_field_definition"],
      union: "union_type",
      grouped: "parenthesized_type",
      literal: "literal_type",
      predefined: "predefined_type",
      object: "object_type",
      generic: "generic_type",
      named: "type_identifier",
      alias: "type_alias_declaration",
      declarations: [
        "interface_declaration",
        "type_alias_declaration",
        "class_declaration",
        "abstract_class_declaration",
      ],
      alwaysObjects: ["array_type", "tuple_type", "function_type", "constructor_type"],
    },
  },
  misreads: {
    non_null_expression: ["binary_expression", "unary_expression", "as_expression", "satisfies_expression"],
  },
  holes: { ...ecmascript.holes, type: ["Hole"], members: ["hole() {}", "hole"] },
  id: "typescript",
  title: "TypeScript",
  grammar: "tree-sitter-typescript",
  extensions: [".ts", ".mts", ".cts"],
  interpreters: ["ts-node", "tsx", "deno", "bun"],
  fences: ["ts", "typescript", "mts", "cts"],
  speaks: ["typescript", "javascript"],
};

/** TypeScript with JSX: another grammar, the same facts. */
export const tsx: Language = {
  ...typescript,
  id: "tsx",
  title: "TypeScript with JSX",
  grammar: "tree-sitter-tsx",
  extensions: [".tsx"],
  fences: ["tsx"],
  speaks: ["tsx", "typescript", "javascript"],
};
