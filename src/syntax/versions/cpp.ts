import type { VersionFacts } from "../version-facts.js";

export const cppVersions: VersionFacts = {
  kinds: {
    auto: ["11", "`auto`"],
    lambda_expression: ["11", "a lambda"],
    for_range_loop: ["11", "`for` over a range"],
    default_method_clause: ["11", "`= default`"],
    delete_method_clause: ["11", "`= delete`"],
    structured_binding_declarator: ["17", "a structured binding"],
    init_statement: ["17", "a condition with a declaration"],
    concept_definition: ["20", "a concept"],
  },
  tokens: { nullptr: "11", "<=>": "20", constexpr: "11", noexcept: "11", static_assert: "11" },
  names: {
    "11":
      "unique_ptr shared_ptr weak_ptr make_shared lock_guard unique_lock std.move std.forward std.function std.array " +
      "std.thread std.mutex emplace_back emplace std.tuple",
    "14": "make_unique std.exchange shared_lock shared_timed_mutex",
    "17":
      "scoped_lock std.optional std.variant std.any string_view std.byte std.clamp std.filesystem std.size std.data " +
      "shared_mutex try_emplace insert_or_assign nullopt make_optional",
    "20": "std.span std.ranges std.format std.jthread source_location starts_with ends_with std.erase_if contains",
    "23": "std.expected std.print std.println move_only_function",
  },
};
