import {
  collected,
  condition,
  holes,
  need,
  no,
  rule,
  shortened,
  text,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { isItem, sievedBy, usesNoNameOf } from "../../family/by-methods.js";
import { isNotSeenGrowing } from "../../family/collecting.js";
import { evaluatedFor } from "../../family/in-function.js";
import { called } from "../../family/item-function.js";
import { asMethods, itemType, LINQ } from "./walked.js";

const { list, items, value } = holes({
  list: { kind: "name", node: "identifier" },
  items: "expression",
  value: "expression",
});
const { rewrites, ignores, holds } = trialsIn("csharp");
const inMethod = (code: string, head = "List<Hive> hives, int n"): string =>
  `using System.Collections.Generic;\nusing System.Linq;\n\nclass Hive { public int Age; public string Name; }\n\nclass A\n{\n    object F(${head})\n    {\n        ${code}\n    }\n}\n`;

const partsIn = ({ collecting }: Match): SyntaxNode[] => evaluatedFor(collecting);

const addsItem = ({ collecting }: Match): boolean => isItem(collecting, collecting.value);

/** The type of the items of the new list, by how it was made. */
const madeOf = ({ collecting: { empty } }: Match): string => /<(.*)>/.exec(empty.text)?.[1] ?? "";

/** The new list is of the type of what is put into it, and that must be what it was. */
function isOfSameType(match: Match): Answer {
  const { value: added, items: walks, empty } = match.collecting;
  const code = "type.same";
  const made = madeOf(match);
  const known = addsItem(match)
    ? itemType(walks)
    : (typeOf(added)?.name ?? (added.is("interpolated_string_expression") ? "string" : undefined));
  if (known === undefined)
    return unknown(code, `\`${shortened(added.text)}\` could be of another type than \`${made}\``, added);
  return known === made
    ? yes(code, `both lists hold \`${made}\``, empty)
    : no(code, `\`${shortened(added.text)}\` is \`${known}\`, and the list holds \`${made}\``, added);
}

/** What only copies a list has shorter ways. */
const makesMore = (match: Match): boolean => match.collecting.sieves.length > 0 || !addsItem(match);

function becomes(match: Match): Segment[] {
  const { collecting } = match;
  if (!makesMore(match)) return [...LINQ.ahead(collecting, match), text(".ToList()")];
  const calls = sievedBy(collecting, addsItem(match) ? undefined : collecting.value, LINQ);
  return called(match, LINQ.ahead(collecting, match), ...calls, ".ToList()");
}

export const mappedList = rule({
  id: "csharp/mapped-list",
  kind: "idiom",
  title: "Use Where, Select and ToList to make a list from another",
  why: "One expression says what the list is made of, and nobody has to see that nothing else is done to it.",
  taste: true,
  target: "3.0",
  was: collected({ list, items, value }),
  given: [
    ...asMethods(({ collecting }) => collecting, partsIn),
    condition("the new list is of the same type", isOfSameType),
    condition("the value uses no name that a test declares", ({ collecting }) =>
      usesNoNameOf(collecting, collecting.value),
    ),
    ...isNotSeenGrowing(),
  ],
  becomes,
  needs: [need("System.Linq")],
  trials: [
    rewrites(
      inMethod(
        'var names = new List<string>();\n        foreach (var hive in new List<Hive>(hives)) names.Add($"{hive.Name}");\n        return names;',
      ),
      inMethod(
        'var names = (new List<Hive>(hives)).Select(hive => $"{hive.Name}").ToList();\n        return names;',
      ),
    ),
    rewrites(
      inMethod(
        'var names = new List<string>();\n        foreach (var hive in hives)\n        {\n            names.Add($"{hive.Name}: {n}");\n        }\n        return names;',
      ),
      inMethod('var names = hives.Select(hive => $"{hive.Name}: {n}").ToList();\n        return names;'),
      "likely",
    ),
    rewrites(
      inMethod(
        "List<Hive> old = new List<Hive>();\n        foreach (Hive hive in hives)\n        {\n            if (hive.Age > n)\n                old.Add(hive);\n        }\n        return old;",
      ),
      inMethod("List<Hive> old = hives.Where(hive => hive.Age > n).ToList();\n        return old;"),
      "likely",
    ),
    rewrites(
      inMethod(
        "var all = new List<Hive>();\n        foreach (var hive in hives) all.Add(hive);\n        return all;",
      ),
      inMethod("var all = hives.ToList();\n        return all;"),
      "likely",
    ),
    rewrites(
      inMethod(
        "var ages = new List<int>();\n        foreach (var hive in hives)\n        {\n            if (hive.Age < n) continue;\n            ages.Add(Weigh(hive));\n        }\n        return ages;",
      ),
      inMethod(
        "var ages = hives.Where(hive => !(hive.Age < n)).Select(hive => Weigh(hive)).ToList();\n        return ages;",
      ),
      "likely",
    ),
    rewrites(
      inMethod(
        'var names = new List<string>();\n        foreach (var hive in hives)\n        {\n            string name = $"{hive.Name}";\n            names.Add(name);\n        }\n        return names;',
      ),
      inMethod('var names = hives.Select(hive => $"{hive.Name}").ToList();\n        return names;'),
      "likely",
    ),
    // The number is converted ahead of being added.
    ignores(
      inMethod(
        "var ages = new List<object>();\n        foreach (var hive in hives)\n        {\n            long age = hive.Age;\n            ages.Add(age);\n        }\n        return ages;",
      ),
    ),
    // A list of texts is no list of objects.
    holds(
      inMethod(
        "var all = new List<object>();\n        foreach (var hive in hives) all.Add(hive);\n        return all;",
      ),
      "the list holds",
    ),
    holds(
      inMethod(
        "var all = new List<Hive>();\n        foreach (var one in ones) if (one is Hive hive) all.Add(hive);\n        return all;",
        "List<object> ones",
      ),
      "is declared by the test",
    ),
    holds(
      inMethod(
        "var all = new List<int>();\n        foreach (var hive in hives) all.Add(all.Count + hive.Age);\n        return all;",
      ),
      "is read while",
    ),
    holds(
      inMethod(
        "var all = new List<int>();\n        foreach (var hive in hives) all.Add(await hive.Weigh());\n        return all;",
      ),
      "may not stand",
    ),
    ignores(
      inMethod(
        "var all = new List<int> { 1 };\n        foreach (var hive in hives) all.Add(hive.Age);\n        return all;",
      ),
    ),
    ignores(
      inMethod(
        "var all = new HashSet<int>();\n        foreach (var hive in hives) all.Add(hive.Age);\n        return all;",
      ),
    ),
    ignores(
      inMethod(
        "var all = new List<int>();\n        foreach (var hive in hives) { all.Add(hive.Age); n++; }\n        return all;",
      ),
    ),
  ],
});
