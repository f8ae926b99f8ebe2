import { no, rule, trialsIn, yes } from "../../core.js";
import type { Answer, SyntaxNode } from "../../core.js";
import { containerOf } from "./containers.js";
import { writtenType } from "./written-type.js";
import { eachItem as family, loopHoles, noKnownList } from "../family/each-item.js";

/** Is it declared as a list of the library, which is walked as it is counted? */
function isList(items: SyntaxNode): Answer {
  const type = writtenType(items);
  if (!type || type.isPointer) return noKnownList(items);
  const container = containerOf(type);
  // A vector of truth values gives no places that a reference could name, and a template may be one.
  const [inner] = container?.types ?? [];
  const template = items.closest(["template_declaration"])?.child("parameters")?.text ?? "";
  if (inner !== undefined && template.split(/\W+/).includes(inner)) return noKnownList(items);
  const isPacked = container?.name === "vector" && inner === "bool";
  if (container?.is === "places" && !isPacked)
    return container.isStandard ? yes("type.is", type.why, type.at) : noKnownList(items);
  // A name alone may stand for a list.
  return /^\w+$/.test(type.text)
    ? noKnownList(items)
    : no("type.is", `${type.why}, which is no list`, type.at);
}

const { rewrites, ignores, holds } = trialsIn("cpp");
const inFunction = (code: string): string =>
  `void f(std::vector<Hive>& hives, const std::vector<int>& ns, std::map<int, Hive>& by) {\n  ${code}\n}\n`;

export const eachItem = rule({
  id: "cpp/each-item",
  kind: "idiom",
  title: "Use a range-based for to walk a list",
  why: "Counting by hand hides what the loop is about, and mixes types of numbers with and without a sign.",
  target: "11",
  mentions: ["size", "length"],
  ...family({
    ...loopHoles(),
    declared: (_match, own, name) => {
      if (!own) return `auto& ${name}`;
      const { statement } = own;
      const value = statement.child("declarator")?.child("value");
      // What is declared is written as it was, a reference with its sign.
      return value
        ? statement.tree.text.slice(statement.start, value.start).replace(/\s*=\s*$/, "")
        : undefined;
    },
    header: (declared, items) => `for (${declared} : ${items})`,
    isList,
    looks: ["size", "at", "empty", "front", "back"],
  }),
  trials: [
    rewrites(
      inFunction("int sum = 0;\n  for (size_t i = 0; i < ns.size(); ++i) {\n    sum += ns[i];\n  }"),
      inFunction("int sum = 0;\n  for (auto& item : ns) {\n    sum += item;\n  }"),
    ),
    rewrites(
      inFunction(
        "for (size_t i = 0; i < hives.size(); i++) {\n    const Hive& hive = hives[i];\n    use(hive);\n  }",
      ),
      inFunction("for (const Hive& hive : hives) {\n    use(hive);\n  }"),
      "likely",
    ),
    rewrites(
      inFunction("for (int i = 0; i < hives.size(); i++) use(hives[i]);"),
      inFunction("for (auto& hive : hives) use(hive);"),
      "likely",
    ),
    holds(
      inFunction("for (size_t i = 0; i < hives.size(); ++i) { hives.push_back(hives[i]); }"),
      "could change what is walked",
    ),
    holds(inFunction("for (int i = 0; i < by.size(); ++i) { use(by[i]); }"), "is no list"),
    rewrites(
      "template <typename T> void f(std::vector<T>& ts) { for (size_t i = 0; i < ts.size(); ++i) { use(ts[i]); } }\n",
      "template <typename T> void f(std::vector<T>& ts) { for (auto& item : ts) { use(item); } }\n",
      "possible",
    ),
    rewrites(
      "void f(vector<int>& ts) { for (size_t i = 0; i < ts.size(); ++i) { use(ts[i]); } }\n",
      "void f(vector<int>& ts) { for (auto& item : ts) { use(item); } }\n",
      "possible",
    ),
    holds(
      "void f(std::vector<bool>& ts) { for (size_t i = 0; i < ts.size(); ++i) { use(ts[i]); } }\n",
      "is no list",
    ),
    ignores(inFunction("for (size_t i = 0; i < ns.size(); ++i) use(i, ns[i]);")),
    ignores(inFunction("for (size_t i = 1; i < ns.size(); ++i) use(ns[i]);")),
    ignores(inFunction("for (size_t i = 0; i < ns.size(); ++i) use(ms[i]);")),
  ],
});
