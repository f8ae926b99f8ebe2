import { isOfTrait, rule, trialsIn, typeOf, yes } from "../../../core.js";
import type { Answer, SyntaxNode } from "../../../core.js";
import { eachItem as family, loopHoles, noKnownList } from "../../family/each-item.js";
import { declaredType, typeArguments } from "../types.js";

/** Is it an array, or a list of the library? */
function isList(items: SyntaxNode): Answer {
  const type = typeOf(items);
  if (type?.name.endsWith("[]")) return yes("type.is", type.why, type.at);
  return type
    ? isOfTrait(items, "sequence", { what: "list", methods: ["get", "size", "iterator"] })
    : noKnownList(items);
}

/** The type of an item, by what the list is declared to hold. */
function itemType(items: SyntaxNode): string | undefined {
  const declared = declaredType(items);
  if (declared?.is("array_type"))
    return declared.child("dimensions")?.text === "[]" ? declared.child("element")?.text : undefined;
  const [only, ...more] = typeArguments(items);
  return only === undefined || only.startsWith("?") || more.length > 0 ? undefined : only;
}

const { rewrites, ignores, holds } = trialsIn("java");
const inMethod = (code: string): string =>
  `import java.util.*;\n\nclass A {\n    void f(List<Hive> hives, int[] ns, Map<Integer, Hive> byAge) {\n        ${code}\n    }\n}\n`;

export const eachItem = rule({
  id: "java/each-item",
  kind: "idiom",
  title: "Use an enhanced for loop instead of positions",
  why: "Counting by hand hides what the loop is about, and takes long for lists that must be walked to a position.",
  target: "5",
  mentions: ["size", "length"],
  ...family({
    ...loopHoles(),
    declared: (match, own, name) => {
      const { items } = match.loop;
      const written = own?.statement.child("type")?.text;
      const isFinal = own !== undefined && /^final\b/.test(own.statement.text);
      const type = written === "var" ? itemType(items) : (written ?? itemType(items));
      return type === undefined ? undefined : `${isFinal ? "final " : ""}${type} ${name}`;
    },
    header: (declared, items) => `for (${declared} : ${items})`,
    isList,
    looks: ["get", "size", "isEmpty", "contains", "indexOf"],
  }),
  trials: [
    rewrites(
      inMethod(
        "for (int i = 0; i < hives.size(); i++) {\n            Hive hive = hives.get(i);\n            int n = hive.age + 1;\n        }",
      ),
      inMethod("for (Hive hive : hives) {\n            int n = hive.age + 1;\n        }"),
    ),
    rewrites(
      inMethod("int sum = 0;\n        for (int i = 0; i < ns.length; i++) sum += ns[i];"),
      inMethod("int sum = 0;\n        for (int item : ns) sum += item;"),
    ),
    rewrites(
      inMethod(
        "for (int i = 0, n = hives.size(); i < n; ++i) {\n            weigh(hives.get(i));\n        }",
      ),
      inMethod("for (Hive hive : hives) {\n            weigh(hive);\n        }"),
      "likely",
    ),
    holds(
      inMethod("for (int i = 0; i < hives.size(); i++) { hives.remove(hives.get(i)); }"),
      "could change what is walked",
    ),
    holds(inMethod("for (int i = 0; i < ns.length; i++) { ns[i] = ns[i] + 1; }"), "another value"),
    holds(inMethod("int i;\n        for (i = 0; i < ns.length; i++) use(ns[i]);"), "ahead of the loop"),
    ignores(inMethod("for (int i = 0; i < ns.length; i++) use(i, ns[i]);")),
    ignores(inMethod("for (int i = 1; i < ns.length; i++) use(ns[i]);")),
    ignores(inMethod("for (int i = 0; i < ns.length - 1; i++) use(ns[i]);")),
    ignores(inMethod("for (int i = 0; i < ns.length; i++) use(ms[i]);")),
    holds(
      inMethod("for (int i = 0; i < byAge.size(); i++) { Hive hive = byAge.get(i); use(hive); }"),
      "is no list",
    ),
  ],
});
