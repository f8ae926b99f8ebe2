import { condition, isLeftAlone, rule, shortened, trialsIn, typeOf, unknown, yes } from "../../../core.js";
import type { Answer, Match } from "../../../core.js";
import { loopHoles, ownOf, type Own } from "../../family/each-item.js";
import { iteratorLoop as family } from "../../family/iterator-loop.js";
import { isOfNamespace } from "../system.js";
import { itemType } from "./walked.js";

/** The item gets its name in the header where the body leaves that name alone, which the loop demands. */
function ownIn(match: Match): Own | undefined {
  const { loop } = match;
  const [statement] = loop.body;
  const [variable] = statement?.parts.filter((part) => part.is("variable_declaration")) ?? [];
  const [declarator, ...more] = variable?.parts.filter((part) => part.is("variable_declarator")) ?? [];
  const cast = declarator?.parts.find((part) => part.is("cast_expression"));
  const name = declarator?.child("name");
  const isCast =
    cast && name && more.length === 0 && loop.lookUps.some((read) => read.same(cast.child("value")));
  const written = variable?.child("type")?.text;
  const known = itemType(loop.items);
  const isSame = isCast && cast.child("type")?.text === written && (known === undefined || known === written);
  const own = isSame ? { name, statement: statement! } : ownOf(match);
  return own && isLeftAlone(own.name, loop.body.slice(1)).is === "yes" ? own : undefined;
}

/** An iterator without a type gives objects, by which methods with several signatures are told apart. */
function givesObjects({ loop: { index, items } }: Match): boolean {
  const type = index.closest(["variable_declaration"])?.child("type")?.text ?? "var";
  const isArray = type === "var" && typeOf(items)?.name.endsWith("[]") === true;
  return isArray || (type !== "var" && !type.includes("<"));
}

function declared(match: Match, own: Own | undefined, name: string): string {
  const variable = own?.statement.parts.find((part) => part.is("variable_declaration"));
  return `${variable?.child("type")?.text ?? (givesObjects(match) ? "object" : "var")} ${name}`;
}

/** The loop disposes of the iterator, which the code does not. */
function isNothingDisposed({ loop: { items } }: Match): Answer {
  const type = typeOf(items);
  const doubt = unknown(
    "type.not-known",
    `\`${shortened(items.text)}\` could give an iterator of which the loop disposes at its end`,
    items,
  );
  if (!type || itemType(items) === undefined || /^I[A-Z]/.test(type.name)) return doubt;
  if (type.name === "string" || type.name.endsWith("[]")) return yes("type.is", type.why, type.at);
  return isOfNamespace(type.name, "System.Collections.Generic", type.at);
}

const { rewrites, ignores, holds } = trialsIn("csharp");
const inMethod = (code: string, head = "List<Hive> hives, IEnumerable<Hive> some"): string =>
  `using System.Collections.Generic;\n\nclass A {\n    void F(${head}) {\n        ${code}\n    }\n}\n`;

export const iteratorLoop = rule({
  id: "csharp/iterator-loop",
  kind: "idiom",
  title: "Use foreach instead of an iterator",
  why: "An iterator that is only asked for the next item hides what the loop is about, and is easily left open.",
  ...family({
    ...loopHoles(),
    own: ownIn,
    declared,
    header: (item, { loop }) => `foreach (${item} in ${loop.items.text})`,
    given: [condition("nothing is left for the loop to dispose of", isNothingDisposed)],
  }),
  trials: [
    rewrites(
      inMethod(
        "var it = hives.GetEnumerator();\n        while (it.MoveNext()) {\n            Weigh(it.Current);\n            Note(it.Current.Name);\n        }",
      ),
      inMethod(
        "foreach (var hive in hives) {\n            Weigh(hive);\n            Note(hive.Name);\n        }",
      ),
    ),
    rewrites(
      inMethod(
        "var it = hives.GetEnumerator();\n        while (it.MoveNext()) {\n            Hive hive = it.Current;\n            hive.Weigh();\n        }",
      ),
      inMethod("foreach (Hive hive in hives) {\n            hive.Weigh();\n        }"),
    ),
    rewrites(
      inMethod(
        "IEnumerator it = all.GetEnumerator();\n        while (it.MoveNext()) {\n            Hive hive = (Hive)it.Current;\n            hive.Weigh();\n        }",
        "ArrayList all",
      ),
      inMethod("foreach (Hive hive in all) {\n            hive.Weigh();\n        }", "ArrayList all"),
      "likely",
    ),
    rewrites(
      inMethod("for (var it = some.GetEnumerator(); it.MoveNext();) it.Current.Weigh();"),
      inMethod("foreach (var item in some) item.Weigh();"),
      "likely",
    ),
    // Which method is called depends on the type that the iterator gives.
    rewrites(
      inMethod("var it = ns.GetEnumerator();\n        while (it.MoveNext()) Use(it.Current);", "int[] ns"),
      inMethod("foreach (object item in ns) Use(item);", "int[] ns"),
    ),
    rewrites(
      inMethod("IEnumerator it = hives.GetEnumerator();\n        while (it.MoveNext()) Use(it.Current);"),
      inMethod("foreach (object hive in hives) Use(hive);"),
    ),
    // The variable of the loop cannot be given another value.
    rewrites(
      inMethod(
        "var it = hives.GetEnumerator();\n        while (it.MoveNext()) {\n            Hive hive = it.Current;\n            while (hive != null) hive = hive.Next;\n        }",
      ),
      inMethod(
        "foreach (var item in hives) {\n            Hive hive = item;\n            while (hive != null) hive = hive.Next;\n        }",
      ),
    ),
    holds(
      inMethod(
        "var it = hives.GetEnumerator();\n        while (it.MoveNext()) Later(() => Weigh(it.Current));",
      ),
      "may run later",
    ),
    holds(
      inMethod(
        "var it = hives.GetEnumerator();\n        while (it.MoveNext()) Weigh(it.Current);\n        it.Dispose();",
      ),
      "outside of the loop",
    ),
    ignores(
      inMethod(
        "var it = hives.GetEnumerator();\n        while (it.MoveNext()) { Weigh(it.Current); if (!it.MoveNext()) break; }",
      ),
    ),
    ignores(inMethod("var it = hives.GetEnumerator();\n        if (it.MoveNext()) Weigh(it.Current);")),
    ignores(
      inMethod(
        "var it = table.GetEnumerator();\n        while (it.MoveNext()) Note(it.Key, it.Value);",
        "Hashtable table",
      ),
    ),
  ],
});
