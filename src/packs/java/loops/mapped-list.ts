import {
  collected,
  condition,
  copy,
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
import { withoutParentheses } from "../../family/parentheses.js";
import { isLibraryName, typeArguments } from "../types.js";
import { Arrays, asStream, itemType, STREAMS, walksArray } from "./walked.js";

const Collectors = need("java.util.stream", "Collectors");
const { list, items, value } = holes({
  list: { kind: "name", node: "identifier" },
  items: "expression",
  value: "expression",
});
const { rewrites, ignores, holds } = trialsIn("java", "8");
const IMPORTS = "import java.util.*;\n";
const COLLECTORS = "import java.util.*;\nimport java.util.stream.Collectors;\n";
const inMethod = (code: string, imports = IMPORTS, head = "List<Hive> hives, int n"): string =>
  `${imports}\nclass Hive {\n    int age;\n    String name;\n    String getName() { return name; }\n}\n\nclass A {\n    Object f(${head}) {\n        ${code}\n    }\n}\n`;

const partsIn = ({ collecting }: Match): SyntaxNode[] => evaluatedFor(collecting);

const addsItem = ({ collecting }: Match): boolean => isItem(collecting, collecting.value);
const isCopy = (match: Match): boolean => addsItem(match) && match.collecting.sieves.length === 0;

/** The compiler works out the type of the new list from what is put into it, and from what it is given to. */
function isOfSameType(match: Match): Answer {
  const { value: added, items: walks, list: name, empty } = match.collecting;
  const code = "type.same";
  const [declared] = typeArguments(name);
  const made = /<(.+)>/.exec(empty.text)?.[1] ?? declared;
  const known = addsItem(match) ? itemType(walks) : typeOf(added)?.name;
  const shown = shortened(added.text);
  if (made === undefined) return unknown(code, `the type of what \`${name.text}\` holds is not known`, name);
  return known === made
    ? yes(code, `\`${shown}\` is \`${made}\``, added)
    : unknown(code, `the compiler could take \`${shown}\` for another type than \`${made}\``, added);
}

/** An array list grows and can be changed, as the one that the loop filled. */
function becomes(match: Match): Segment[] {
  const { collecting } = match;
  if (isCopy(match)) {
    const { start, end } = withoutParentheses(collecting.items);
    const made = text(collecting.empty.text.replace(/\)$/, ""));
    const whole = walksArray(collecting)
      ? [text(`${match.nameOf(Arrays)}.asList(`), copy(start, end), text(")")]
      : [copy(start, end)];
    return [made, ...whole, text(")")];
  }
  const calls = sievedBy(collecting, addsItem(match) ? undefined : collecting.value, STREAMS);
  return called(
    match,
    STREAMS.ahead(collecting, match),
    ...calls,
    `.collect(${match.nameOf(Collectors)}.toCollection(ArrayList::new))`,
  );
}

export const mappedList = rule({
  id: "java/mapped-list",
  kind: "idiom",
  title: "Use a stream to make a list from another",
  why: "One expression says what the list is made of, and nobody has to see that nothing else is done to it.",
  taste: true,
  target: "8",
  was: collected({ list, items, value }),
  given: [
    ...asStream(({ collecting }) => collecting, partsIn),
    condition("the new list is of the same type", isOfSameType),
    condition("the value uses no name that a test declares", ({ collecting }) =>
      usesNoNameOf(collecting, collecting.value),
    ),
    condition("`ArrayList` is named without its package", ({ collecting: { empty } }) =>
      /\.ArrayList\b/.test(empty.text)
        ? no("name.library", `\`${empty.text}\` names its package, which may be needed`, empty)
        : yes("name.library", "it is named by its name alone"),
    ),
    condition("`ArrayList` is the class of the library", (match) =>
      isLibraryName("ArrayList", "java.util", match),
    ),
    ...isNotSeenGrowing(),
  ],
  becomes,
  trials: [
    rewrites(
      inMethod(
        "List<String> names = new ArrayList<>();\n        for (Hive hive : hives) {\n            names.add(hive.getName());\n        }\n        return names;",
      ),
      inMethod(
        "List<String> names = hives.stream()\n            .map(hive -> hive.getName())\n            .collect(Collectors.toCollection(ArrayList::new));\n        return names;",
        COLLECTORS,
      ),
    ),
    rewrites(
      inMethod(
        "List<Hive> old = new ArrayList<Hive>();\n        for (Hive hive : hives) {\n            if (hive.age <= n) continue;\n            old.add(hive);\n        }\n        return old;",
      ),
      inMethod(
        "List<Hive> old = hives.stream()\n            .filter(hive -> !(hive.age <= n))\n            .collect(Collectors.toCollection(ArrayList::new));\n        return old;",
        COLLECTORS,
      ),
    ),
    rewrites(
      inMethod(
        "List<Hive> all = new ArrayList<>();\n        for (Hive hive : hives) all.add(hive);\n        return all;",
      ),
      inMethod("List<Hive> all = new ArrayList<>(hives);\n        return all;"),
    ),
    rewrites(
      inMethod(
        "List<Hive> all = new ArrayList<>();\n        for (Hive hive : hives) all.add(hive);\n        return all;",
        IMPORTS,
        "Hive[] hives",
      ),
      inMethod(
        "List<Hive> all = new ArrayList<>(Arrays.asList(hives));\n        return all;",
        IMPORTS,
        "Hive[] hives",
      ),
    ),
    // The compiler would take the map for one of objects.
    rewrites(
      inMethod(
        "List<Map<String, Integer>> all = new ArrayList<>();\n        for (Hive hive : hives) if (hive.age > n) all.add(new HashMap<>());\n        return all;",
      ),
      inMethod(
        "List<Map<String, Integer>> all = hives.stream()\n            .filter(hive -> hive.age > n)\n            .map(hive -> new HashMap<>())\n            .collect(Collectors.toCollection(ArrayList::new));\n        return all;",
        COLLECTORS,
      ),
      "likely",
    ),
    holds(
      inMethod(
        "List<Integer> all = new ArrayList<>();\n        for (Hive hive : hives) all.add(all.size());\n        return all;",
      ),
      "is read while",
    ),
    holds(
      inMethod(
        "List<Integer> all = new ArrayList<>();\n        for (int one : ns) all.add(one);\n        return all;",
        IMPORTS,
        "int[] ns",
      ),
      "no stream of objects",
    ),
    holds(
      inMethod(
        "List<Hive> all = new ArrayList<>();\n        for (Object one : ones) if (one instanceof Hive hive) all.add(hive);\n        return all;",
        IMPORTS,
        "List<Object> ones",
      ),
      "is declared by the test",
    ),
    ignores(
      inMethod(
        "List<Integer> all = new LinkedList<>();\n        for (Hive hive : hives) all.add(hive.age);\n        return all;",
      ),
    ),
    ignores(
      inMethod(
        "List<Integer> all = new ArrayList<>(3);\n        for (Hive hive : hives) all.add(0, hive.age);\n        return all;",
      ),
    ),
    ignores(
      inMethod(
        "List<Integer> all = new ArrayList<>();\n        for (Hive hive : hives) { all.add(hive.age); n++; }\n        return all;",
      ),
    ),
  ],
});
