import {
  caution,
  choice,
  condition,
  holes,
  isSideEffectFree,
  item,
  java,
  present,
  rule,
  shortened,
  sideEffectFree,
  trialsIn,
  yes,
} from "../../core.js";
import type { Answer, Match } from "../../core.js";
import { cheapDefault } from "../family/conditions.js";
import { isNeverNull } from "./create-if-absent.js";
import { oneMethod } from "./one-method.js";
import { holdsNoNull, isMap, isOfType, objectsOfJava, typeArguments, wantsPrimitive } from "./types.js";

const { map, key, fallback } = holes({ map: "expression", key: "expression", fallback: "expression" });

const asksForKey = (match: Match): boolean => match.tests[0]!.asks === "key";
const lower = { unknownIs: "possible" } as const;
/** What a map gives back must be of the type of its values, without the widening that an expression does. */
function isOfValueType(match: Match): Answer {
  return isOfType(match.the(fallback), typeArguments(match.the(map))[1]);
}

const { rewrites, ignores, holds } = trialsIn("java");
const inClass = (field: string, code: string): string =>
  `import java.util.Map;\n\nclass A {\n    ${field}\n    int f(String id) {\n        ${code}\n    }\n}\n`;
const MAP = "Map<String, Integer> lots;";

export const lookupOrDefault = rule({
  id: "java/lookup-or-default",
  kind: "idiom",
  title: "Use getOrDefault to look up with a default",
  why: "The map is searched twice for the same key.",
  target: "8",
  was: choice(present(item(map, key), { or: ["key"] }), item(map, key), fallback),
  // An item of an array is no look-up.
  where: [({ choice: { yes: one, no: other } }) => ![one, other].some((way) => way.is("array_access"))],
  given: [
    condition("it is a map of the standard library", (match) => isMap(match.the(map)), lower),
    condition("evaluating the map once makes no difference", (match) => isSideEffectFree(match.the(map))),
    sideEffectFree(key),
    objectsOfJava(),
    cheapDefault(fallback),
    condition("the default is of the type of the values", isOfValueType),
    condition("a primitive is wanted, or was none before", (match) =>
      match.choice.alias
        ? yes("type.same", "it was an object before")
        : wantsPrimitive(match.place, typeArguments(match.the(map))[1], match.the(fallback)),
    ),
    oneMethod(fallback, (match) => typeArguments(match.the(map))[1]),
    condition("the map holds no null", (match) =>
      asksForKey(match)
        ? yes("value.null", "a key with null gives null, as before")
        : holdsNoNull(match.the(map), isNeverNull),
    ),
  ],
  cautions: (match) =>
    asksForKey(match) || holdsNoNull(match.the(map), isNeverNull).is === "yes"
      ? []
      : [
          caution(
            "value.which-missing",
            `when \`${shortened(match.textOf(map))}\` holds null for the key, the old code fell back and the new one gives null`,
          ),
        ],
  becomes: java.expression`${map}.getOrDefault(${key}, ${fallback})`,
  trials: [
    rewrites(
      "import java.util.Map;\nclass A { void f(Map<String, String> m, String k) { if (m.containsKey(k)) other.put(m.get(k)); else other.put(other.label); } }",
      "import java.util.Map;\nclass A { void f(Map<String, String> m, String k) { other.put(m.getOrDefault(k, other.label)); } }",
      "possible",
    ),
    holds(
      "import java.util.Map;\nclass A { void put(Object o) { } void put(String s) { } void f(Map<String, Object> m, String none) { if (m.containsKey(none)) put(m.get(none)); else put(none); } }",
      "two methods of the name `put`",
    ),
    rewrites(
      inClass(MAP, "Integer n = lots.get(id);\n        return n != null ? n : 0;"),
      inClass(MAP, "return lots.getOrDefault(id, 0);"),
      "likely",
    ),
    rewrites(
      inClass(
        MAP,
        "Integer n = lots.get(id); // weighed\n        if (n == null) {\n            return 0;\n        }\n        return n;",
      ),
      inClass(MAP, "// weighed\n        return lots.getOrDefault(id, 0);"),
      "likely",
    ),
    ignores(inClass(MAP, "Integer n = lots.get(id);\n        log(n);\n        return n != null ? n : 0;")),
    ignores(
      inClass(
        MAP,
        "Integer n = lots.get(id);\n        int m = n != null ? n : 0;\n        return n == null ? m : m + n;",
      ),
    ),
    rewrites(
      inClass(MAP, "return lots.containsKey(id) ? lots.get(id) : 0;"),
      inClass(MAP, "return lots.getOrDefault(id, 0);"),
    ),
    rewrites(
      inClass(MAP, "return !this.lots.containsKey(id) ? 0 : this.lots.get(id);"),
      inClass(MAP, "return this.lots.getOrDefault(id, 0);"),
    ),
    rewrites(
      inClass(MAP, "return lots.get(id) != null ? lots.get(id) : 0;"),
      inClass(MAP, "return lots.getOrDefault(id, 0);"),
      "likely",
    ),
    rewrites(
      inClass(
        MAP,
        "Integer n = lots.get(id);\n        if (n == null) {\n            n = 0;\n        }\n        return n;",
      ),
      inClass(MAP, "Integer n = lots.getOrDefault(id, 0);\n        return n;"),
      "likely",
    ),
    rewrites(
      inClass("", "return lots.containsKey(id) ? lots.get(id) : 0;"),
      inClass("", "return lots.getOrDefault(id, 0);"),
      "possible",
    ),
    // In the old expression 0 was widened; as an argument it is not.
    holds(
      inClass("Map<String, Long> lots;", "return lots.containsKey(id) ? lots.get(id) : 0;"),
      "is no `Long`",
    ),
    holds(inClass(MAP, "return lots.containsKey(id) ? lots.get(id) : count();"), "calls something"),
    holds(inClass(MAP, "return lots.containsKey(next()) ? lots.get(next()) : 0;"), "calls something"),
    holds(
      "class Box { } class A { Box lots; int f(int id) { return lots.containsKey(id) ? lots.get(id) : 0; } }",
      "is no map",
    ),
    ignores(inClass(MAP, "return lots.containsKey(id) ? other.get(id) : 0;")),
    ignores(inClass(MAP, "return lots.containsKey(id) ? lots.get(other) : 0;")),
    trialsIn("java", "7").ignores(inClass(MAP, "return lots.containsKey(id) ? lots.get(id) : 0;")),
  ],
});
