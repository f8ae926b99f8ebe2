import type { VersionFacts } from "../version-facts.js";

export const phpVersions: VersionFacts = {
  bringsLibrary: true,
  lastOf: { 5: "5.6", 7: "7.4" },
  kinds: {
    arrow_function: ["7.4", "`fn`"],
    nullsafe_member_access_expression: ["8.0", "`?->`"],
    nullsafe_member_call_expression: ["8.0", "`?->`"],
    match_expression: ["8.0", "`match`"],
    throw_expression: [
      (node) => (node.parent?.is("expression_statement") ? undefined : "8.0"),
      "`throw` as a value",
    ],
    variadic_placeholder: ["8.1", "`f(...)`"],
    enum_declaration: ["8.1", "an enum"],
    property_promotion_parameter: ["8.0", "properties among parameters"],
    variadic_unpacking: [(node) => (node.parent?.is("array_creation_expression") ? "7.4" : "5.6"), "`...`"],
  },
  tokens: { "??": "7.0", "<=>": "7.0", "??=": "7.4", readonly: "8.1" },
  names: {
    "7.0": "intdiv random_int random_bytes",
    "7.3": "array_key_first array_key_last is_countable hrtime",
    "8.0": "str_contains str_starts_with str_ends_with get_debug_type",
    "8.1": "array_is_list",
    "8.3": "json_validate",
    "8.4": "array_find array_any array_all",
    "8.5": "array_first array_last",
  },
};
