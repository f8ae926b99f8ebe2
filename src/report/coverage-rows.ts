/** A thing that people want done to old code, and the rules for it by their ids. None where there is nothing yet. */
export interface Need {
  readonly language: string;
  readonly from: string;
  readonly to: string;
  readonly rules: readonly string[];
  /** What is not done yet. */
  readonly missing?: string;
}

const of = (pack: string, names: string): string[] => names.split(" ").map((name) => `${pack}/${name}`);
const js = (names: string): string[] => of("javascript", names);
const py = (names: string): string[] => of("python", names);

/** What the shipped rules are for, need by need. */
export const NEEDS: readonly Need[] = [
  {
    language: "any",
    from: "what a product has changed from version to version",
    to: "[a table of changes](moving-versions.md), from which rules are made; a survey for the way to a version",
    rules: [],
    missing:
      "members of members by origin; configuration that is no code (JSON, YAML); more tables that ship than one",
  },
  {
    language: "JavaScript",
    from: "callbacks nested in callbacks",
    to: "steps that return a promise and are awaited",
    rules: js("steps-awaited promise-form"),
    missing:
      "handlers that have no callback of their own, items that are worked off one after the other, chains in place of `await`",
  },
  {
    language: "JavaScript",
    from: "classes made by a call with an object, constructor functions and prototypes",
    to: "`class`",
    rules: js("class-from-call class-from-prototype arrow kept-this"),
    missing: "static members given to the call, mixins",
  },
  {
    language: "JavaScript",
    from: "keys that are walked and looked up, positions that are counted, calls of a utility library",
    to: "entries, `for…of`, what the language has",
    rules: js("key-and-value own-keys each-item any-or-all first-found mapped-list native-function"),
    missing:
      "functions of a utility library that the language has no counterpart for (`sortBy`, `groupBy`, `pick`, `debounce`)",
  },
  {
    language: "JavaScript",
    from: "older forms of the language",
    to: "`let` and `const`, templates, spread, `includes`, `startsWith`, `slice`, `**`, `Object.hasOwn`, rest parameters, `await`, ES modules",
    rules: js(
      "block-scoped template spread-copy spread-arguments includes starts-or-ends-with slice-for-substr power-operator own-key rest-parameter awaited-then es-modules",
    ),
    missing: "modules of packages with programs that have no ending, or whose tests replace modules",
  },
  {
    language: "TypeScript",
    from: "older forms of the language",
    to: "type assertions with `as`, types imported as types, caught values of which nothing is known, reports",
    rules: js("as-assertion needless-assertion type-import caught-unknown enum-advice namespace-advice"),
    missing: "namespaces and enums are reported, not rewritten; parameter properties",
  },
  {
    language: "TypeScript and React",
    from: "documents changed by hand inside effects",
    to: "state and event props",
    rules: js("component-state"),
    missing: "effects that begin again, lists of elements, markup in several places, controlled fields",
  },
  {
    language: "TypeScript",
    from: "tests for null and undefined ahead of reads, and defaults",
    to: "`?.` and `??`",
    rules: js(
      "guarded-read read-or-fallback stand-in-object guarded-call value-or-fallback falsy-fallback assigned-if-missing needless-test",
    ),
  },
  {
    language: "JavaScript",
    from: "resources released by hand, or not at all",
    to: "`finally`",
    rules: js("released-in-finally leaking-resource"),
  },
  {
    language: "Python",
    from: "data models with untyped columns",
    to: "typed attributes, a base class that is derived, statements apart from sessions, sessions in `with`",
    rules: py("typed-columns model-base statement-apart scoped-resource"),
    missing: "queries that are walked or handed on, queries for columns, relations to classes of other files",
  },
  {
    language: "Python",
    from: "branches that choose a value, camelCase functions, signatures without types",
    to: "one expression, snake_case, annotated signatures",
    rules: py(
      "branch-to-value attribute-or-default none-to-default snake-case lookup-or-default filled-dict removed-if-there default-dict assigned-in-test needless-test signature",
    ),
    missing: "what lists and mappings hold, in signatures",
  },
  {
    language: "Python",
    from: "data pipelines in an old style",
    to: "keyword arguments, decorators, early exits, definitions next to their use, chains that can be read",
    rules: py(
      "needless-conversion keyword-arguments early-exit decorated named-lambda late-definition long-chain",
    ),
    missing: "explicit defaults, renaming at the source, joins",
  },
  {
    language: "Python",
    from: "positions that are counted, `else` behind a loop",
    to: "`enumerate`, `reversed`, `zip`, a report",
    rules: py("index-and-item pairs loop-else"),
  },
  {
    language: "Python",
    from: "older forms of the language",
    to: "f-strings, path objects, data classes, `super()`, types of the language, comprehensions, `any`, `all` and `sum`, `items`, `yield from`",
    rules: py(
      "percent-format format-call bare-super needless-base builtin-types union-operator comprehension any-or-all first-found summed key-and-value yield-from assert-names utc-now abstract-collections gone-names gone-methods print-call caught-as raise-call old-numbers plain-assert added-text path-value needless-path data-class exec-call",
    ),
    missing: "what else is left of Python 2",
  },
  {
    language: "Python",
    from: "resources and locks released by hand, or not at all",
    to: "`with`",
    rules: py("scoped-resource scoped-lock scoped-many leaking-resource unnamed-resource paired-setup"),
  },
  {
    language: "Java",
    from: "anonymous classes, lambdas with blocks, functions called on the spot, locks taken in some places only",
    to: "lambdas, expressions, method references, the object itself, a report",
    rules: of(
      "java",
      "lambda lambda-expression method-reference function-itself called-on-the-spot unguarded-field",
    ),
    missing: "access that is wider than needed",
  },
  {
    language: "Java",
    from: "utility types and functions of other libraries",
    to: "the standard library's",
    rules: of("java", "standard-call standard-objects standard-optional"),
    missing: "functions, predicates and suppliers in signatures; immutable collections; fluent iteration",
  },
  {
    language: "Java",
    from: "older forms of the language",
    to: "lists walked by their items, patterns for types, type arguments left out, switch expressions, text blocks, boxed values by `valueOf`, constants of charsets, `StringBuilder`",
    rules: of(
      "java",
      "each-item iterator-loop any-or-all first-found mapped-list type-pattern diamond switch-expression text-block list-sort boxed-value standard-charset unshared-text",
    ),
    missing: "records, streams, old collections and dates",
  },
  {
    language: "Java",
    from: "tests for null, resources closed by hand",
    to: "`Optional`, methods of maps, try-with-resources",
    rules: of(
      "java",
      "required-argument create-if-absent lookup-or-default counted-in-map optional-consumed optional-required optional-of-null scoped-resource leaking-resource needless-test optional-result optional-or-null value-or-fallback null-safe-equals null-safe-hash null-safe-text",
    ),
  },
  {
    language: "C#",
    from: "tuples read by position, nested conditional operators, names as text, identifiers made by a bare constructor",
    to: "tuples with named members, an `if` chain or a switch expression, `nameof`, a report",
    rules: of(
      "csharp",
      "named-tuple named-result named-items nested-conditional switch-expression name-of empty-identifier",
    ),
    missing: "tuples that are handed on",
  },
  {
    language: "C#",
    from: "older forms of the language",
    to: "lists walked by their items, values written in texts, patterns for types, `out` variables declared in the call, switch expressions",
    rules: of(
      "csharp",
      "each-item iterator-loop any-or-all first-found mapped-list interpolated type-pattern tested-type out-variable switch-value",
    ),
    missing: "initialisers, expression bodies, `ContinueWith`",
  },
  {
    language: "C#",
    from: "tests for null, resources disposed of by hand",
    to: "`?.`, `??`, `using`",
    rules: of(
      "csharp",
      "value-or-fallback lookup-or-default assigned-if-missing guarded-read guarded-truth thrown-if-missing null-test null-or-empty scoped-resource scoped-lock leaking-resource needless-test",
    ),
  },
  {
    language: "C++",
    from: "variables that never change",
    to: "`const`, a value where a variable is declared, a function called on the spot",
    rules: of("cpp", "const-variable const-parameter initialised-once initialised-by-function"),
    missing: "members and methods",
  },
  {
    language: "C++",
    from: "older forms of the language",
    to: "lists walked by their items, `auto` where the value says the type, items made in place, names given with `using`, `override`, `= default` and `= delete`, constants in place of macros, `static_cast`, `unique_ptr` in place of `auto_ptr`",
    rules: of(
      "cpp",
      "each-item iterator-loop type-once emplaced using-alias override defaulted deleted constant-macro named-cast auto-pointer",
    ),
    missing: "casts of pointers, `std::bind`, `enum class`, `std::array`",
  },
  {
    language: "C++",
    from: "raw owned handles, locks released by hand",
    to: "owning wrappers",
    rules: of(
      "cpp",
      "null-pointer needless-test pointer-and-flag owned-local owned-member owned-array owned-handle owned-handle-member scoped-lock leaking-resource",
    ),
  },
  {
    language: "PHP",
    from: "helpers, magic calls, containers and aliases of a framework",
    to: "conditional helpers, explicit queries, methods, static methods of named classes, full names",
    rules: of("php", "conditional-helper explicit-query container-call helper-class full-name"),
    missing: "packs chosen by the version that is installed",
  },
  {
    language: "PHP",
    from: "older forms of the language",
    to: "lists and items in square brackets, questions about texts, arrow functions, properties among parameters, `match`, `::class`",
    rules: of(
      "php",
      "short-array contains arrow-function promoted-property readonly-property first-class-callable match-value appended class-of",
    ),
    missing: "callables handed to functions of a project, spread, types",
  },
  {
    language: "PHP",
    from: "what PHP 8 has no more: `each`, `create_function`",
    to: "`foreach`, closures",
    rules: of("php", "each-call created-function"),
    missing: "braces for items, other removed functions",
  },
  {
    language: "PHP",
    from: "tests for null, resources released by hand",
    to: "`?->`, `??`, `finally`",
    rules: of(
      "php",
      "value-or-fallback assigned-if-missing guarded-read thrown-if-missing released-in-finally needless-test leaking-resource",
    ),
  },
  {
    language: "Ruby",
    from: "tests for nil, resources released by hand, a branch on what a value is",
    to: "`&.`, `||=`, `fetch`, blocks, `Array()`",
    rules: of(
      "ruby",
      "guarded-call value-or-fallback assigned-if-missing fetch-or-default as-list block-form synchronized leaking-resource unnamed-resource needless-test",
    ),
  },
  {
    language: "Ruby",
    from: "older forms of the language",
    to: "lists and hashes made by `map`, `select` and `to_h`, questions and sums of items, attributes, keys without arrows, names that Ruby 3 has",
    rules: of("ruby", "mapped-list mapped-hash any-or-all summed attribute short-keys gone-names"),
    missing: "keyword arguments for option hashes, `Struct`, freezing",
  },
  {
    language: "Ruby",
    from: "methods that only pass a message on",
    to: "a declaration",
    rules: of("ruby", "delegated"),
  },
  {
    language: "PowerShell",
    from: "lists that grow in a loop",
    to: "values that are streamed",
    rules: of("powershell", "streamed"),
  },
  {
    language: "PowerShell",
    from: "texts put together with `+`, results thrown away by a pipeline",
    to: "values written into the text, `$null =`",
    rules: of("powershell", "expandable discarded"),
    missing: "format strings, texts over several lines",
  },
  {
    language: "PowerShell",
    from: "short names of commands, arguments by their place",
    to: "full names, named parameters",
    rules: of("powershell", "full-name named-parameter"),
    missing: "splatting",
  },
  {
    language: "PowerShell",
    from: "objects made by `New-Object`",
    to: "constructors, tables of properties",
    rules: of("powershell", "constructor-call custom-object"),
  },
  {
    language: "PowerShell",
    from: "tests for null, resources released by hand",
    to: "`$null` first, `finally`",
    rules: of("powershell", "null-first value-or-fallback released-in-finally needless-test"),
  },
];
