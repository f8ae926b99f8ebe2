import type { VersionFacts } from "../version-facts.js";

export const ecmascriptVersions: VersionFacts = {
  kinds: {
    arrow_function: ["2015", "`=>`"],
    for_in_statement: [(node) => (node.has("of") ? "2015" : undefined), "`for…of`"],
    lexical_declaration: ["2015", "`let` and `const`"],
    template_string: ["2015", "a template"],
    class_declaration: ["2015", "a class"],
    object_pattern: ["2015", "taking apart an object"],
    array_pattern: ["2015", "taking apart a list"],
    rest_pattern: ["2015", "`...`"],
    spread_element: [(node) => (node.parent?.is("object") ? "2018" : "2015"), "`...`"],
    await_expression: ["2017", "`await`"],
    optional_chain: ["2020", "`?.`"],
    catch_clause: [(node) => (node.child("parameter") ? undefined : "2019"), "`catch` without a name"],
    private_property_identifier: ["2022", "a private field"],
    class_static_block: ["2022", "`static` with a block"],
  },
  tokens: {
    "**": "2016",
    "?.": "2020",
    "??": "2020",
    "??=": "2021",
    "||=": "2021",
    "&&=": "2021",
    using: "2026",
  },
  names: {
    "2015":
      "Promise Symbol Set Object.assign Array.from Array.of startsWith endsWith repeat find findIndex Number.isInteger Number.isSafeInteger Number.isFinite Number.isNaN",
    "2016": "includes",
    "2017": "Object.values Object.entries padStart padEnd",
    "2018": "finally",
    "2019": "flat flatMap Object.fromEntries trimStart trimEnd",
    "2020": "globalThis matchAll Promise.allSettled BigInt",
    "2021": "replaceAll Promise.any WeakRef AggregateError",
    "2022": "Object.hasOwn at",
    "2023": "findLast findLastIndex toSorted toReversed toSpliced",
    "2024": "Object.groupBy Map.groupBy Promise.withResolvers structuredClone",
    "2025": "Promise.try RegExp.escape symmetricDifference isSubsetOf isSupersetOf isDisjointFrom",
    "2026": "DisposableStack AsyncDisposableStack Symbol.dispose Symbol.asyncDispose",
  },
};
