import { escaped, member, typeWords, type ClassFacts } from "../class-facts.js";

/** Classes of PowerShell. */
export const powershellClasses: ClassFacts = {
  kinds: ["class_statement"],
  nameOf: (node) => node.parts.find((part) => part.is("simple_name"))?.text,
  parentsOf: (node) => typeWords(/:([^{]*)\{/.exec(node.text)?.[1] ?? ""),
  membersOf: (node) =>
    node.parts.flatMap((part) => {
      const name = part.parts.find((one) => one.is(["simple_name", "variable"]))?.text;
      if (part.is("class_method_definition")) return member(part, "method", { name });
      return part.is("class_property_definition")
        ? member(part, "field", { name: name?.replace(/^\$/, "") })
        : [];
    }),
  declaring: (name) => new RegExp(`\\bclass\\s+${escaped(name)}\\b`, "i"),
  deriving: (name) => new RegExp(`\\bclass\\s+\\w+\\s*:[^{]*\\b${escaped(name)}\\b`, "i"),
};
