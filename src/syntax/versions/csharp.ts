import type { VersionFacts } from "../version-facts.js";

export const csharpVersions: VersionFacts = {
  kinds: {
    element_binding_expression: [
      (node) => (node.parent?.is("conditional_access_expression") ? undefined : "12.0"),
      "a list in brackets",
    ],
    await_expression: ["5", "`await`"],
    conditional_access_expression: ["6", "`?.`"],
    interpolated_string_expression: ["6", "a string with values in it"],
    arrow_expression_clause: ["6", "`=>` for a body"],
    constant_pattern: ["7.0", "`is` with a value"],
    declaration_pattern: ["7.0", "`is` with a name"],
    declaration_expression: ["7.0", "a declaration among arguments"],
    throw_expression: ["7.0", "`throw` as a value"],
    tuple_expression: ["7.0", "a tuple"],
    local_function_statement: ["7.0", "a local function"],
    recursive_pattern: ["8.0", "a pattern of properties"],
    switch_expression: ["8.0", "`switch` as a value"],
    negated_pattern: ["9.0", "`is not`"],
    and_pattern: ["9.0", "`and` in a pattern"],
    or_pattern: ["9.0", "`or` in a pattern"],
    implicit_object_creation_expression: ["9.0", "`new` without a type"],
    record_declaration: ["9.0", "a record"],
    file_scoped_namespace_declaration: ["10.0", "`namespace` for the whole file"],
    raw_string_literal: ["11.0", "a raw string"],
    local_declaration_statement: [
      (node) => (node.children.some(({ kind }) => kind === "using") ? "8.0" : undefined),
      "`using` as a declaration",
    ],
  },
  tokens: { "??=": "8.0", nameof: "6" },
  names: {
    "10.0": "ArgumentNullException.ThrowIfNull",
    "11.0": "ArgumentException.ThrowIfNullOrEmpty ObjectDisposedException.ThrowIf",
    "12.0": "ArgumentException.ThrowIfNullOrWhiteSpace ArgumentOutOfRangeException.ThrowIfNegative",
  },
};
