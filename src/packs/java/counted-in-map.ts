import {
  condition,
  countedItem,
  holes,
  isSideEffectFree,
  item,
  java,
  no,
  rule,
  sideEffectFree,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match } from "../../core.js";
import { isNeverNull } from "./create-if-absent.js";
import { holdsNoNull, isLibraryName, isMap, literalIs, typeArguments } from "./types.js";

const { map, key, step } = holes({
  map: "expression",
  key: "expression",
  step: { kind: "expression", node: ["decimal_integer_literal", "decimal_floating_point_literal"] },
});

const SUMS: Readonly<Record<string, ReturnType<typeof java>>> = {
  Integer: java`Integer::sum`,
  Long: java`Long::sum`,
  Double: java`Double::sum`,
};

const valueType = (match: Match): string | undefined => typeArguments(match.the(map))[1];

function addsUp(match: Match): Answer {
  const type = valueType(match);
  if (type === undefined) return unknown("type.not-known", "the type of the counts is not known", match.node);
  if (!SUMS[type]) return no("type.is", `\`${type}\` has no method that adds two of them`, match.node);
  return literalIs(match.the(step), type);
}

const { rewrites, ignores, holds } = trialsIn("java");
const inClass = (
  code: string,
  field = "private final Map<String, Integer> jars = new HashMap<>();",
): string =>
  `import java.util.*;\n\nclass A {\n    ${field}\n    void f(String id) {\n        ${code}\n    }\n}\n`;

export const countedInMap = rule({
  id: "java/counted-in-map",
  kind: "idiom",
  title: "Use merge to count in a map",
  why: "The same key is looked up three times to add one.",
  target: "8",
  was: countedItem(item(map, key), step),
  given: [
    condition("it is a map of the standard library", (match) => isMap(match.the(map)), {
      unknownIs: "possible",
    }),
    condition("evaluating the map once makes no difference", (match) => isSideEffectFree(match.the(map))),
    sideEffectFree(key),
    condition("the counts are of a type with a sum", addsUp),
    condition("a key that is there has a count", (match) =>
      match.tests[0]!.asks !== "key"
        ? yes("value.null", "null counts as absent, as before")
        : holdsNoNull(match.the(map), isNeverNull),
    ),
    condition("the sum is the library's", (match) => {
      const type = valueType(match);
      return type === undefined
        ? yes("type.not-known", "its type is not known")
        : isLibraryName(type, "java.lang", match);
    }),
  ],
  becomes: (match) => java.expression`${map}.merge(${key}, ${step}, ${SUMS[valueType(match) ?? "Integer"]!})`,
  trials: [
    rewrites(
      inClass(
        "if (jars.containsKey(id)) {\n            jars.put(id, jars.get(id) + 1);\n        } else {\n            jars.put(id, 1);\n        }",
      ),
      inClass("jars.merge(id, 1, Integer::sum);"),
    ),
    rewrites(
      inClass(
        "Long n = jars.get(id);\n        if (n == null) {\n            jars.put(id, 1L);\n        } else {\n            jars.put(id, n + 1L);\n        }",
        "Map<String, Long> jars;",
      ),
      inClass("jars.merge(id, 1L, Long::sum);", "Map<String, Long> jars;"),
    ),
    rewrites(
      inClass("Integer n = jars.get(id);\n        jars.put(id, n == null ? 2 : n + 2);"),
      inClass("jars.merge(id, 2, Integer::sum);"),
    ),
    rewrites(
      inClass("jars.put(id, jars.containsKey(id) ? jars.get(id) + 1 : 1);"),
      inClass("jars.merge(id, 1, Integer::sum);"),
    ),
    holds(
      inClass("Integer n = jars.get(id);\n        jars.put(id, n == null ? 1 : n + 1);\n        print(n);"),
      "is read later",
    ),
    holds(
      inClass("jars.put(id, jars.containsKey(id) ? jars.get(id) + 1 : 1);", "Map<String, Short> jars;"),
      "has no method",
    ),
    holds(
      inClass("jars.put(next(), jars.containsKey(next()) ? jars.get(next()) + 1 : 1);"),
      "calls something",
    ),
    // A map that others fill may hold null, for which the old code failed.
    rewrites(
      inClass("jars.put(id, jars.containsKey(id) ? jars.get(id) + 1 : 1);", "Map<String, Integer> jars;"),
      inClass("jars.merge(id, 1, Integer::sum);", "Map<String, Integer> jars;"),
      "likely",
    ),
    rewrites(
      inClass("if (jars.get(id) == null) jars.put(id, 1); else jars.put(id, 1 + jars.get(id));"),
      inClass("jars.merge(id, 1, Integer::sum);"),
    ),
    // Not the same amount to begin with.
    ignores(inClass("jars.put(id, jars.containsKey(id) ? jars.get(id) + 1 : 0);")),
    ignores(
      inClass(
        "if (jars.containsKey(id)) {\n            jars.put(id, jars.get(id) + 1);\n        } else {\n            jars.put(id, 0);\n        }",
      ),
    ),
    ignores(inClass("jars.put(id, jars.containsKey(id) ? other.get(id) + 1 : 1);")),
    ignores(
      inClass(
        "if (jars.containsKey(id)) {\n            jars.put(id, jars.get(id) - 1);\n        } else {\n            jars.put(id, 1);\n        }",
      ),
    ),
  ],
});
