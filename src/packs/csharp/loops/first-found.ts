import {
  classesNamed,
  condition,
  copy,
  firstFound,
  holes,
  isMissing,
  need,
  no,
  rule,
  shortened,
  text,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { isItem, usesNoNameOf } from "../../family/by-methods.js";
import { isNotSeenSeeking } from "../../family/collecting.js";
import { evaluatedFor } from "../../family/in-function.js";
import { called, together } from "../../family/item-function.js";
import { isValueType } from "../values.js";
import { asMethods, itemType, LINQ } from "./walked.js";

const { items } = holes({ items: "expression" });
const { rewrites, ignores, holds } = trialsIn("csharp");
const inMethod = (code: string, head = "List<Hive> hives, int n"): string =>
  `using System.Collections.Generic;\nusing System.Linq;\n\nclass Hive { public int Age; public string Name; public Hive Next; }\n\nclass A\n{\n    object F(${head})\n    {\n        ${code}\n    }\n}\n`;

const partsIn = ({ sought }: Match): SyntaxNode[] => evaluatedFor(sought);

/** The item at the beginning of what is read of it: `hive` in `hive.Name`; undefined where more is done with it. */
function itemIn({ sought: { item, value } }: Match): SyntaxNode | undefined {
  let at = value;
  while (
    at.is(["member_access_expression", "invocation_expression", "element_access_expression"]) &&
    at.firstPart
  )
    at = at.firstPart;
  return at.text === item?.text && value.mentions(at.text).length === 1 ? at : undefined;
}

function fits(match: Match): Answer {
  const { otherwise, value } = match.sought;
  const code = "form.fits";
  if (otherwise && !isMissing(otherwise))
    return no(
      code,
      `\`${shortened(otherwise.text)}\` is not what the method gives where it finds nothing`,
      otherwise,
    );
  return itemIn(match)
    ? yes(code, "it is the item, or what is read of it")
    : no(
        code,
        `\`${shortened(value.text)}\` is worked out from the item in another way than by reading it`,
        value,
      );
}

/** Where nothing is found the method gives null for objects only. */
function givesNull({ sought: { items: walks } }: Match): Answer {
  const code = "type.is";
  const type = itemType(walks);
  if (type === undefined)
    return unknown(
      code,
      `an item of \`${shortened(walks.text)}\` could be a value that is never null`,
      walks,
    );
  const [own] = classesNamed(walks.tree, type).classes;
  if (isValueType(type, walks) || /^KeyValuePair\b/.test(type))
    return no(code, `\`${type}\` is a value that is never null`, walks);
  return type === "string" ||
    type === "object" ||
    /^(class|interface|record)_declaration$/.test(own?.kind ?? "")
    ? yes(code, `\`${type}\` is a class`, walks)
    : unknown(code, `\`${type}\` could be a value that is never null`, walks);
}

function becomes(match: Match): Segment[] {
  const { sought } = match;
  const code = together(sought.sieves, LINQ);
  const found = called(match, LINQ.ahead(sought, match), {
    open: ".FirstOrDefault(",
    head: LINQ.head(sought, []),
    code,
  });
  if (isItem(sought, sought.value)) return found;
  const { end } = itemIn(match)!;
  const isMember = match.tree.text.slice(end).startsWith(".");
  return [...found, text(isMember ? "?." : "?"), copy(isMember ? end + 1 : end, sought.value.end)];
}

export const firstFoundRule = rule({
  id: "csharp/first-found",
  kind: "idiom",
  title: "Use FirstOrDefault to take the first item that passes a test",
  why: "What is looked for stands in one expression, and the reader need not see where the loop is left.",
  taste: true,
  target: "6.0",
  was: firstFound(items),
  given: [
    condition("the method gives the same", fits),
    condition("nothing found is null", givesNull),
    ...asMethods(({ sought }) => sought, partsIn),
    condition("the value uses no name that a test declares", ({ sought }) =>
      usesNoNameOf(sought, sought.value),
    ),
    ...isNotSeenSeeking(),
  ],
  becomes,
  needs: [need("System.Linq")],
  trials: [
    rewrites(
      inMethod(
        "var all = new List<Hive>(hives);\n        foreach (var hive in all) if (hive.Age > n) return hive;\n        return null;",
      ),
      inMethod("var all = new List<Hive>(hives);\n        return all.FirstOrDefault(hive => hive.Age > n);"),
    ),
    rewrites(
      inMethod(
        "foreach (var hive in hives)\n        {\n            if (hive.Age > n)\n                return hive;\n        }\n        return null;",
      ),
      inMethod("return hives.FirstOrDefault(hive => hive.Age > n);"),
      "likely",
    ),
    rewrites(
      inMethod(
        "Hive found = null;\n        foreach (Hive hive in hives)\n        {\n            if (hive.Age > n) { found = hive; break; }\n        }\n        return found;",
      ),
      inMethod("Hive found = hives.FirstOrDefault(hive => hive.Age > n);\n        return found;"),
      "likely",
    ),
    rewrites(
      inMethod("foreach (var hive in hives) if (hive.Age > n) return hive.Next.Name;\n        return null;"),
      inMethod("return hives.FirstOrDefault(hive => hive.Age > n)?.Next.Name;"),
      "likely",
    ),
    rewrites(
      inMethod(
        "foreach (var crate in crates) if (crate.Age > n) return crate;\n        return null;",
        "List<Crate> crates, int n",
      ),
      inMethod("return crates.FirstOrDefault(crate => crate.Age > n);", "List<Crate> crates, int n"),
      "likely",
    ),
    holds(
      inMethod(
        "foreach (var one in ns) if (one > n) return one;\n        return null;",
        "List<int> ns, int n",
      ),
      "never null",
    ),
    holds(
      inMethod(
        "foreach (var hive in hives) if (hive.Next is Hive next) return hive.Part(next);\n        return null;",
      ),
      "is declared by the test",
    ),
    // What a dictionary holds are no objects.
    holds(
      inMethod(
        "foreach (var pair in byName) if (pair.Value.Age > n) return pair.Key;\n        return null;",
        "Dictionary<string, Hive> byName, int n",
      ),
      "never null",
    ),
    holds(
      inMethod("foreach (var hive in hives) if (hive.Age > n) return hive;\n        return hives[0];"),
      "finds nothing",
    ),
    holds(
      inMethod("foreach (var hive in hives) if (hive.Age > n) return Weigh(hive);\n        return null;"),
      "in another way",
    ),
    holds(
      inMethod(
        "foreach (var hive in hives) if (hive.Age > n) return hive;\n        return null;",
        "List<Hive> hives, in int n",
      ),
      "cannot take along",
    ),
    ignores(
      inMethod("foreach (var hive in hives) if (hive.Age > n) return hive;\n        throw new Lost();"),
    ),
    ignores(
      inMethod(
        "Hive last = null;\n        foreach (var hive in hives) if (hive.Age > n) last = hive;\n        return last;",
      ),
    ),
  ],
});
