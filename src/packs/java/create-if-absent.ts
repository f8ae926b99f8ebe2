import {
  caution,
  all,
  condition,
  filledItem,
  fresh,
  givesSomething,
  holes,
  isSideEffectFree,
  item,
  java,
  no,
  rule,
  shortened,
  sideEffectFree,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match, SyntaxNode } from "../../core.js";
import { staysQuiet, usesOnlyFinal } from "./lambdas.js";
import { canBeWritten, holdsNoNull, isMap, typeArguments } from "./types.js";

const { map, key, made } = holes({ map: "expression", key: "expression", made: "expression" });
const parameter = fresh("key");

/** Does a key that is there count as absent where its value is null, as for the new code? */
const asksForValue = (match: Match): boolean => match.tests[0]!.asks !== "key";

/** The function may not touch the map that is waiting for it. */
function leavesMapAlone(match: Match): Answer {
  const name = match.the(map).lastPart?.text ?? match.textOf(map);
  const use = match.the(made).mentions(name)[0];
  return use
    ? no("flow.written", `\`${name}\` is used while its value is made`, use)
    : yes("flow.written", "the map is left alone meanwhile");
}

/** Is a value certainly not null, by its form or by what the library says of a call? */
export function isNeverNull(value: SyntaxNode): boolean {
  if (value.is("parenthesized_expression")) return value.parts.every(isNeverNull);
  if (value.is("ternary_expression")) return value.parts.slice(1).every(isNeverNull);
  if (givesSomething(value)) return true;
  return value.is([
    "object_creation_expression",
    "string_literal",
    "decimal_integer_literal",
    "decimal_floating_point_literal",
    "array_creation_expression",
    "binary_expression",
    "true",
    "false",
    "character_literal",
    "this",
  ]);
}

function madeIsNeverNull(match: Match): Answer {
  const node = match.the(made);
  if (isNeverNull(node)) return yes("value.null", `\`${shortened(node.text)}\` is never null`, node);
  if (node.is("null_literal")) return no("value.null", "null is put into the map", node);
  return unknown(
    "value.null",
    `\`${shortened(node.text)}\` could be null, which is not put into the map now`,
    node,
  );
}

const { rewrites, ignores, holds } = trialsIn("java");
const FIELD = "Map<String, List<String>> lots;";
const inClass = (code: string, field = FIELD): string =>
  `import java.util.*;\n\nclass A {\n    ${field}\n    void f(String id) {\n        ${code}\n    }\n}\n`;

export const createIfAbsent = rule({
  id: "java/create-if-absent",
  kind: "idiom",
  title: "Use computeIfAbsent to create a missing entry",
  why: "Look up, test, create and put back are one thing to do, and in between another thread can do it too.",
  target: "8",
  was: filledItem(item(map, key), made),
  given: [
    condition("it is a map of the standard library", (match) => isMap(match.the(map)), {
      unknownIs: "possible",
    }),
    condition("the map says what it holds", (match) =>
      typeArguments(match.the(map)).length === 2
        ? yes("type.not-known", "its keys and values have types")
        : unknown(
            "type.not-known",
            `the types of what \`${shortened(match.textOf(map))}\` holds are not known`,
            match.node,
          ),
    ),
    condition("evaluating the map once makes no difference", (match) => isSideEffectFree(match.the(map))),
    sideEffectFree(key),
    all(
      condition("the value can be made in a lambda", (match) => usesOnlyFinal([match.the(made)])),
      condition("making it throws nothing that must be declared", (match) => staysQuiet([match.the(made)])),
    ),
    condition("the value is made without the map", leavesMapAlone),
    condition("the value is never null", madeIsNeverNull),
    condition("a key that is there has a value", (match) =>
      asksForValue(match)
        ? yes("value.null", "null counts as absent, as before")
        : holdsNoNull(match.the(map), isNeverNull),
    ),
    condition("a map that has the key can be written as well", (match) => canBeWritten(match.the(map))),
  ],
  cautions: (match) =>
    asksForValue(match) || holdsNoNull(match.the(map), isNeverNull).is === "yes"
      ? []
      : [
          caution(
            "value.which-missing",
            `when \`${shortened(match.textOf(map))}\` holds null for the key, the old code kept it and the new one replaces it`,
          ),
        ],
  becomes: java.expression`${map}.computeIfAbsent(${key}, ${parameter} -> ${made})`,
  trials: [
    rewrites(
      inClass(
        "List<String> l = lots.get(id);\n        if (l == null) {\n            l = new ArrayList<>();\n            lots.put(id, l);\n        }\n        l.add(id);",
      ),
      inClass("List<String> l = lots.computeIfAbsent(id, key -> new ArrayList<>());\n        l.add(id);"),
    ),
    rewrites(
      inClass(
        "if (!lots.containsKey(id)) {\n            lots.put(id, new ArrayList<>());\n        }\n        lots.get(id).add(id);",
      ),
      inClass("lots.computeIfAbsent(id, key -> new ArrayList<>()).add(id);"),
      "likely",
    ),
    rewrites(
      inClass("if (this.lots.get(id) == null) this.lots.put(id, new ArrayList<>());"),
      inClass("this.lots.computeIfAbsent(id, key -> new ArrayList<>());"),
    ),
    rewrites(
      inClass("String key = id;\n        if (lots.get(key) == null) lots.put(key, read(key));"),
      inClass("String key = id;\n        lots.computeIfAbsent(key, key_2 -> read(key));"),
      "likely",
    ),
    holds(
      inClass(
        "int n = 1;\n        n++;\n        if (lots.get(id) == null) lots.put(id, new ArrayList<>(n));",
      ),
      "given a value more than once",
    ),
    holds(inClass("if (lots.get(id) == null) lots.put(id, copy(lots));"), "is used while"),
    holds(inClass("if (lots.get(id) == null) lots.put(id, null);"), "null is put"),
    holds(inClass("if (lots.get(next()) == null) lots.put(next(), new ArrayList<>());"), "calls something"),
    ignores(
      inClass(
        "List<String> l = lots.get(id);\n        if (l == null) {\n            l = new ArrayList<>();\n            lots.put(id + 1, l);\n        }",
      ),
    ),
    ignores(
      inClass(
        "List<String> l = lots.get(id);\n        if (l == null) {\n            l = new ArrayList<>();\n            l.add(id);\n            lots.put(id, l);\n        }",
      ),
    ),
    ignores(
      inClass(
        "List<String> l = lots.get(id);\n        if (l == null) {\n            l = new ArrayList<>();\n        }",
      ),
    ),
    trialsIn("java", "7").ignores(inClass("if (lots.get(id) == null) lots.put(id, new ArrayList<>());")),
  ],
});
