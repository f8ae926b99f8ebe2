import type { SyntaxNode } from "../node.js";
import type { VersionFacts } from "../version-facts.js";

const isHashFromBlock = (node: SyntaxNode): boolean =>
  node.child("method")?.text === "to_h" && node.child("block") !== undefined;

export const rubyVersions: VersionFacts = {
  bringsLibrary: true,
  lastOf: { 1: "1.9", 2: "2.7" },
  kinds: {
    lambda: ["1.9", "`->`"],
    case_match: ["2.7", "`case … in`"],
    call: [(node) => (isHashFromBlock(node) ? "2.6" : undefined), "`to_h` with a block"],
    pair: [(node) => (node.child("value") ? undefined : "3.1"), "a key that gives its own value"],
  },
  tokens: { "&.": "2.3" },
  names: {
    "1.9": "each_with_object",
    "2.3": "dig fetch_values grep_v",
    "2.4": "sum transform_values match?",
    "2.5": "yield_self delete_prefix delete_suffix transform_keys",
    "2.6": "then",
    "2.7": "filter_map tally",
    "3.0": "except",
    "3.1": "intersect?",
  },
};
