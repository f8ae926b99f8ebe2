import {
  caution,
  choice,
  condition,
  csharp,
  fresh,
  hasKey,
  holes,
  isOfLibrary,
  item,
  rule,
} from "../../core.js";
import { no, shortened, sideEffectFree, trialsIn, typeOf, unknown } from "../../core.js";
import type { Answer, Match } from "../../core.js";
import { fitsBeside } from "./fits-beside.js";
import { isValueType, mayBeExpressionTree } from "./values.js";

const { table, key, fallback } = holes({ table: "expression", key: "expression", fallback: "expression" });
const found = fresh("found");

const DICTIONARY = {
  names: ["Dictionary", "SortedDictionary", "ConcurrentDictionary", "IDictionary", "IReadOnlyDictionary"],
  module: undefined,
  methods: ["ContainsKey", "TryGetValue"],
  what: "dictionary",
};

/** Has it `TryGetValue`, and does it say the same of a key as `ContainsKey`? */
function isDictionary(match: Match): Answer {
  const node = match.the(table);
  const type = typeOf(node);
  const shown = shortened(node.text);
  if (!type) return unknown("type.is", `\`${shown}\` could be something without \`TryGetValue\``, node);
  const answer = isOfLibrary(node, DICTIONARY);
  return answer.is === "no"
    ? unknown("type.is", `${type.why}, which may have no \`TryGetValue\``, type.at)
    : answer;
}

/** The type of the values of a dictionary, as it is written. */
function typeOfValues(match: Match): string | undefined {
  return /^<\w+,([^,<>]+(?:<[^<>]*>)?)>$/.exec(typeOf(match.the(table))?.args ?? "")?.[1];
}

/** Apart, the value and the default went on as what they are; the operator makes them one type. */
function fitInOne(match: Match): Answer {
  const given = match.the(fallback);
  const own = typeOfValues(match);
  if (given.is("null_literal") && own === undefined)
    return unknown("type.same", "null may have no type in common with the value", given);
  if (given.is("null_literal") && isValueType(own!, given))
    return no("type.same", `null and a \`${own}\` have no type in common`, given);
  return fitsBeside(match.node, given, match.place, true, own);
}

const { rewrites, ignores, holds } = trialsIn("csharp");
const inClass = (code: string): string =>
  `class A { Dictionary<string, int> jars = new Dictionary<string, int>(); ${code} }\n`;

export const lookupOrDefault = rule({
  id: "csharp/lookup-or-default",
  kind: "idiom",
  title: "Use TryGetValue to look up once",
  why: "The key is looked for twice, and in between another thread can take it out.",
  target: "7.0",
  was: choice(hasKey(item(table, key)), item(table, key), fallback),
  given: [
    condition("it is a dictionary", isDictionary, { unknownIs: "possible" }),
    sideEffectFree(table),
    sideEffectFree(key),
    condition("value and default fit in one expression", fitInOne, {
      when: ({ found: { isStatements } }) => isStatements,
    }),
    condition("the code is compiled and not read as an expression tree", (match) =>
      mayBeExpressionTree(match.node),
    ),
  ],
  cautions: (match) =>
    isDictionary(match).is === "yes"
      ? []
      : [
          caution(
            "type.is",
            `when \`${shortened(match.textOf(table))}\` is no dictionary, the new code may not compile`,
          ),
        ],
  becomes: csharp.expression`${table}.TryGetValue(${key}, out var ${found}) ? ${found} : ${fallback}`,
  trials: [
    holds(
      inClass(
        "void Put(object o) { } void Put(string s) { } void F(string k, string none) { if (jars.ContainsKey(k)) Put(jars[k]); else Put(none); }",
      ),
      "overloads",
    ),
    holds(
      inClass("object F(string k, string none) { if (jars.ContainsKey(k)) return jars[k]; return none; }"),
      "is derived from the other",
    ),
    holds(
      inClass("object F(string k) { if (jars.ContainsKey(k)) return jars[k]; return null; }"),
      "no type in common",
    ),
    rewrites(
      inClass("int F(string k) { return jars.ContainsKey(k) ? jars[k] : 0; }"),
      inClass("int F(string k) { return jars.TryGetValue(k, out var found) ? found : 0; }"),
    ),
    rewrites(
      inClass("int F(string k) { if (!jars.ContainsKey(k)) { return 0; } return jars[k]; }"),
      inClass("int F(string k) { return jars.TryGetValue(k, out var found) ? found : 0; }"),
    ),
    rewrites(
      inClass("void F(string k) { int n = 0; if (jars.ContainsKey(k)) n = jars[k]; G(n); }"),
      inClass("void F(string k) { int n = jars.TryGetValue(k, out var found) ? found : 0; G(n); }"),
    ),
    rewrites(
      "class A { int F(string k) { return jars.ContainsKey(k) ? jars[k] : 0; } }",
      "class A { int F(string k) { return jars.TryGetValue(k, out var found) ? found : 0; } }",
      "possible",
    ),
    holds(inClass("int F() { return jars.ContainsKey(Next()) ? jars[Next()] : 0; }"), "calls something"),
    ignores(inClass("int F(string k) { return jars.ContainsKey(k) ? jars[k + 1] : 0; }")),
    ignores(inClass("int F(string k) { return jars.ContainsValue(k) ? jars[k] : 0; }")),
    trialsIn("csharp", "6").ignores(inClass("int F(string k) { return jars.ContainsKey(k) ? jars[k] : 0; }")),
  ],
});
