import type { VersionFacts } from "../version-facts.js";

export const javaVersions: VersionFacts = {
  kinds: {
    resource_specification: ["7", "`try` with a resource"],
    resource: [(node) => (node.child("type") ? undefined : "9"), "a variable as a resource"],
    lambda_expression: ["8", "a lambda"],
    method_reference: ["8", "a method reference"],
    type_arguments: [(node) => (node.parts.length === 0 ? "7" : undefined), "`<>`"],
    type_identifier: [(node) => (node.text === "var" ? "10" : undefined), "`var`"],
    switch_rule: ["14", "`switch` with arrows"],
    yield_statement: ["14", "`yield`"],
    record_declaration: ["16", "a record"],
    record_pattern: ["21", "a pattern of a record"],
    string_literal: [(node) => (node.text.startsWith('"""') ? "15" : undefined), "a text block"],
    instanceof_expression: [(node) => (node.child("name") ? "16" : undefined), "`instanceof` with a name"],
    underscore_pattern: ["22", "`_`"],
  },
  tokens: { sealed: "17" },
  names: {
    "5": "StringBuilder",
    "7":
      "Objects.requireNonNull Objects.equals Objects.hash Objects.toString AutoCloseable Files Paths StandardCharsets " +
      "addSuppressed",
    "8":
      "getOrDefault computeIfAbsent computeIfPresent merge putIfAbsent removeIf forEach Optional " +
      "OptionalInt Collectors LocalDate Duration String.join Objects.nonNull Objects.isNull Map.Entry.comparingByKey " +
      "Base64 newKeySet",
    "9":
      "Objects.requireNonNullElse Objects.requireNonNullElseGet ifPresentOrElse List.of Set.of Map.of Map.entry " +
      "takeWhile dropWhile readAllBytes transferTo",
    "10": "List.copyOf Set.copyOf Map.copyOf toUnmodifiableList",
    "11": "repeat isBlank strip stripLeading stripTrailing Files.readString Files.writeString Path.of",
    "15": "formatted",
    "16": "mapMulti",
    "17": "HexFormat",
    "21": "getFirst getLast",
  },
};
