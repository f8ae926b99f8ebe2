import {
  condition,
  firstFound,
  holes,
  isMissing,
  no,
  rule,
  shortened,
  trialsIn,
  unknown,
  unnegated,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { isItem, sievedBy, usesNoNameOf } from "../../family/by-methods.js";
import { isNotSeenSeeking } from "../../family/collecting.js";
import { called } from "../../family/item-function.js";
import { isLibraryName } from "../types.js";
import { asStream, itemType, STREAMS } from "./walked.js";

const { items } = holes({ items: "expression" });
const { rewrites, ignores, holds } = trialsIn("java", "8");
const inMethod = (code: string, head = "List<Hive> hives, int n", gives = "Object"): string =>
  `import java.util.*;\n\nclass Hive {\n    int age;\n    String name;\n    String getName() { return name; }\n}\n\nclass A {\n    ${gives} f(${head}) {\n        ${code}\n    }\n}\n`;

/** What is put into an Optional: `hive` in `Optional.of(hive)`; undefined where the value itself is kept. */
function wrappedIn({ sought: { value, otherwise } }: Match): SyntaxNode | undefined {
  if (!otherwise || !/^Optional\.(<\w+>)?empty\(\)$/.test(otherwise.text)) return undefined;
  const args = /^Optional\.of\(/.test(value.text) ? value.child("arguments") : undefined;
  return args?.firstPart;
}

const valueOf = (match: Match): SyntaxNode => wrappedIn(match) ?? match.sought.value;

const partsIn = (match: Match): SyntaxNode[] => [
  ...match.sought.sieves.map(({ test }) => test),
  valueOf(match),
];

function fits(match: Match): Answer {
  const { otherwise } = match.sought;
  const code = "form.fits";
  if (wrappedIn(match) || (otherwise && isMissing(otherwise)))
    return yes(code, "it is null or an Optional where nothing is found");
  return no(code, `\`${shortened(otherwise?.text ?? "")}\` is neither null nor an empty Optional`, otherwise);
}

/** A stream refuses a null that it finds. */
function isThere(match: Match): Answer {
  const { sieves, item } = match.sought;
  const code = "value.null";
  if (wrappedIn(match)) return yes(code, "`Optional.of` refuses null, and so does the stream");
  let at = unnegated(sieves[0]!.test).test;
  while (at.firstPart) at = at.firstPart;
  const isRead = at.text === item?.text && at.field === "object";
  return isRead
    ? yes(code, `\`${shortened(at.parent!.text)}\` is read of each item first, so each is there`, at)
    : unknown(code, `\`${item!.text}\` could be null, which a stream refuses to find`, match.sought.value);
}

/** An Optional of one type is none of another. */
function isOfSameType(match: Match): Answer {
  const value = valueOf(match);
  const code = "type.same";
  if (!wrappedIn(match)) return yes(code, "it is the item, or null");
  const declared = match.node.closest(["method_declaration"])?.child("type")?.text.replace(/\s/g, "");
  const type = isItem(match.sought, value) ? itemType(match.sought.items) : undefined;
  return type !== undefined && declared === `Optional<${type}>`
    ? yes(code, `the method returns \`${declared}\``, value)
    : unknown(
        code,
        `the stream could give an Optional of another type than \`${declared ?? "the old code"}\``,
        value,
      );
}

function becomes(match: Match): Segment[] {
  const { sought } = match;
  const value = valueOf(match);
  const made = isItem(sought, value) ? undefined : value;
  const [filter, ...map] = sievedBy(sought, made, STREAMS);
  const calls = wrappedIn(match)
    ? [filter!, ...map, ".findFirst()"]
    : [filter!, ".findFirst()", ...map, ".orElse(null)"];
  return called(match, STREAMS.ahead(sought, match), ...calls);
}

export const firstFoundRule = rule({
  id: "java/first-found",
  kind: "idiom",
  title: "Use findFirst to take the first item that passes a test",
  why: "What is looked for stands in one expression, and the reader need not see where the loop is left.",
  taste: true,
  target: "8",
  was: firstFound(items),
  given: [
    condition("nothing found is null, or an empty Optional", fits),
    ...asStream(({ sought }) => sought, partsIn),
    condition("the value uses no name that a test declares", (match) =>
      usesNoNameOf(match.sought, valueOf(match)),
    ),
    condition("no item that is found is null", isThere),
    condition("it is an Optional of the same type", isOfSameType),
    condition(
      "`Optional` is the class of the library",
      (match) => isLibraryName("Optional", "java.util", match),
      {
        when: (match) => wrappedIn(match) !== undefined,
      },
    ),
    ...isNotSeenSeeking(),
  ],
  becomes,
  trials: [
    rewrites(
      inMethod(
        "for (Hive hive : hives) {\n            if (hive.age > n) {\n                return hive;\n            }\n        }\n        return null;",
      ),
      inMethod("return hives.stream().filter(hive -> hive.age > n).findFirst().orElse(null);"),
    ),
    rewrites(
      inMethod(
        "Hive found = null;\n        for (Hive hive : hives) {\n            if (hive.age > n) {\n                found = hive;\n                break;\n            }\n        }\n        return found;",
        "Hive[] hives, int n",
      ),
      inMethod(
        "Hive found = Arrays.stream(hives).filter(hive -> hive.age > n).findFirst().orElse(null);\n        return found;",
        "Hive[] hives, int n",
      ),
    ),
    // A name that is null leaves nothing behind, and null comes out as before.
    rewrites(
      inMethod("for (Hive hive : hives) if (hive.age > n) return hive.getName();\n        return null;"),
      inMethod(
        "return hives.stream()\n            .filter(hive -> hive.age > n)\n            .findFirst()\n            .map(hive -> hive.getName())\n            .orElse(null);",
      ),
    ),
    rewrites(
      inMethod(
        "for (Hive hive : hives) if (hive.age > n) return Optional.of(hive);\n        return Optional.empty();",
        "List<Hive> hives, int n",
        "Optional<Hive>",
      ),
      inMethod(
        "return hives.stream().filter(hive -> hive.age > n).findFirst();",
        "List<Hive> hives, int n",
        "Optional<Hive>",
      ),
    ),
    rewrites(
      inMethod(
        "for (Hive hive : hives) if (hive.age > n) return Optional.of(hive.name);\n        return Optional.empty();",
        "List<Hive> hives, int n",
        "Optional<String>",
      ),
      inMethod(
        "return hives.stream().filter(hive -> hive.age > n).map(hive -> hive.name).findFirst();",
        "List<Hive> hives, int n",
        "Optional<String>",
      ),
      "likely",
    ),
    rewrites(
      inMethod(
        "for (Hive hive : hives) if (other != hive) return hive;\n        return null;",
        "List<Hive> hives, Hive other",
      ),
      inMethod(
        "return hives.stream().filter(hive -> other != hive).findFirst().orElse(null);",
        "List<Hive> hives, Hive other",
      ),
      "likely",
    ),
    holds(
      inMethod(
        "for (Hive hive : hives) if (hive.age > n && hive.name instanceof String name) return name;\n        return null;",
      ),
      "is declared by the test",
    ),
    holds(
      inMethod("for (Hive hive : hives) if (hive.age > n) return hive;\n        return hives.get(0);"),
      "neither null nor",
    ),
    holds(
      inMethod("for (int one : ns) if (one > n) return one;\n        return null;", "int[] ns, int n"),
      "no stream of objects",
    ),
    ignores(inMethod("for (Hive hive : hives) if (hive.age > n) return hive;\n        throw new Lost();")),
    ignores(
      inMethod(
        "Hive last = null;\n        for (Hive hive : hives) if (hive.age > n) last = hive;\n        return last;",
      ),
    ),
  ],
});
