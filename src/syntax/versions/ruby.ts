import type { VersionFacts } from "../version-facts.js";

export const rubyVersions: VersionFacts = {
  kinds: {
    lambda: ["1.9", "`->`"],
    case_match: ["2.7", "`case … in`"],
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
