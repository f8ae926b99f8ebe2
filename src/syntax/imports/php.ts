import {
  modulesOnly,
  topLevel,
  type ImportFacts,
  type ImportForm,
  type ImportStatement,
} from "../import-facts.js";
import type { SyntaxNode } from "../node.js";

/** `use A\B;`, `use A\B as C;`, `use A\{B, C};`, `use function A\f;` */
export const phpImports: ImportFacts = {
  ...modulesOnly,
  read(tree) {
    const top = topLevel(tree);
    const space = top.find((node) => node.is("namespace_definition"))?.child("body");
    return [...top, ...(space?.parts ?? [])].flatMap((node) => fromStatement(node) ?? []);
  },
  everywhere: (tree) =>
    tree.ofKinds(["namespace_use_declaration"]).flatMap((n) => fromStatement(tree.node(n)) ?? []),
  isFullName: (code) => code.startsWith("\\"),
  write: (imports) =>
    imports
      .map(({ module, name, local, form }) => {
        const start = form === "function" || form === "const" ? `use ${form} ` : "use ";
        const path = [module, name].filter((part) => part !== undefined && part !== "").join("\\");
        return `${start}${path}${local === undefined || local === name ? "" : ` as ${local}`};`;
      })
      .join("\n"),
  item: ({ name, local }) => (local === undefined || local === name ? name! : `${name} as ${local}`),
  isHeader: (node) =>
    node.is(["php_tag", "declare_statement"]) || (node.is("namespace_definition") && !node.child("body")),
  isVisible: ({ module }, tree) =>
    topLevel(tree).some((node) => node.is("namespace_definition") && node.child("name")?.text === module),
  inFull: ({ module, name }) =>
    name === undefined ? undefined : `\\${module === "" ? "" : `${module}\\`}${name}`,
  canRename: true,
  mayGo: () => true,
};

function fromStatement(node: SyntaxNode): ImportStatement | undefined {
  if (!node.is("namespace_use_declaration")) return undefined;
  const group = node.child("body");
  const prefix = group ? (node.parts.find((part) => part.is("namespace_name"))?.text ?? "") : "";
  const clauses = (group ?? node).parts.filter((part) => part.is("namespace_use_clause"));
  const imports = clauses.map((clause) => {
    const alias = clause.child("alias")?.text;
    const path = clause.parts.find((part) => part.is(["qualified_name", "name"]))?.text ?? "";
    const full = (prefix === "" ? path : `${prefix}\\${path}`).replace(/^\\/, "");
    const cut = full.lastIndexOf("\\");
    const name = full.slice(cut + 1);
    const kind = clause.child("type")?.text ?? node.child("type")?.text;
    const form: ImportForm | undefined = kind === "function" || kind === "const" ? kind : undefined;
    return { module: full.slice(0, Math.max(cut, 0)), name, local: alias ?? name, form, node: clause };
  });
  const [first] = imports;
  const module = group ? prefix : (first?.module ?? "");
  return { node, module, form: first?.form, imports, takesMore: group !== undefined };
}
