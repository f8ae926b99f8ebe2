import type { VersionFacts } from "../version-facts.js";

const BUILTIN_TYPES = ["dict", "frozenset", "list", "set", "tuple", "type"];

export const pythonVersions: VersionFacts = {
  bringsLibrary: true,
  lastOf: { 2: "2.7" },
  kinds: {
    with_statement: ["2.6", "`with`"],
    interpolation: ["3.6", "a string with values in it"],
    named_expression: ["3.8", "`:=`"],
    positional_separator: ["3.8", "`/` among parameters"],
    generic_type: [
      (node) => (BUILTIN_TYPES.includes(node.firstPart?.text ?? "") ? "3.9" : undefined),
      "`list[…]` and the like",
    ],
    match_statement: ["3.10", "`match`"],
    except_clause: [(node) => (/^except\s*\*/.test(node.text) ? "3.11" : undefined), "`except*`"],
    type_alias_statement: ["3.12", "`type`"],
    type_parameter: [
      (node) => (node.parent?.is("generic_type") ? undefined : "3.12"),
      "parameters of a type",
    ],
  },
  tokens: {},
  names: {
    "2.6": "contextlib.closing",
    "2.7": "Counter OrderedDict",
    "3.3": "ExitStack",
    "3.4": "contextlib.suppress pathlib.Path",
    "3.5": "AsyncExitStack os.scandir",
    "3.7": "nullcontext dataclass fromisoformat",
    "3.8": "cached_property math.prod",
    "3.9": "removeprefix removesuffix functools.cache zoneinfo",
    "3.10": "pairwise aclosing bit_count",
    "3.11": "StrEnum tomllib contextlib.chdir",
    "3.12": "batched",
  },
};
