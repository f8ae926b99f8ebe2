import {
  modulesOnly,
  topLevel,
  type ImportFacts,
  type ImportStatement,
  type ListedImport,
} from "../import-facts.js";
import type { SyntaxNode } from "../node.js";

/** `import m` and `from m import n`. */
export const pythonImports: ImportFacts = {
  loaders: ["__import__", "import_module", "importlib.import_module"],
  ...modulesOnly,
  wholeImports: { hide: true },
  read: (tree) => topLevel(tree).flatMap((node) => fromStatement(node) ?? []),
  everywhere: (tree) => tree.ofKinds(STATEMENTS).flatMap((n) => fromStatement(tree.node(n)) ?? []),
  write(imports) {
    const [first] = imports;
    const { module, name, local } = first!;
    if (name !== undefined) return `from ${module} import ${imports.map(this.item).join(", ")}`;
    return `import ${module}${local === undefined || local === module ? "" : ` as ${local}`}`;
  },
  item: ({ name, local }) => (local === undefined || local === name ? name! : `${name} as ${local}`),
  isHeader: (node) =>
    node.is("future_import_statement") ||
    (node.is("expression_statement") && (node.firstPart?.is(["string", "concatenated_string"]) ?? false)),
  member: (local, name) => `${local}.${name}`,
  starHasAll: false,
  canRename: true,
  mayGo: (path) => !path.endsWith("__init__.py"),
};

const STATEMENTS = ["import_statement", "import_from_statement"];

function fromStatement(node: SyntaxNode): ImportStatement | undefined {
  if (node.is("import_statement")) {
    const imports = node.parts.map((part): ListedImport => {
      const module = part.child("name")?.text ?? part.text;
      return { module, local: part.child("alias")?.text ?? module, node: part };
    });
    return { node, module: imports[0]?.module ?? "", imports, takesMore: false };
  }
  if (!node.is("import_from_statement")) return undefined;
  const from = node.child("module_name");
  const module = from?.text ?? "";
  const named = node.parts.filter((part) => !part.same(from));
  const imports = named.map((part): ListedImport => {
    if (part.is("wildcard_import")) return { module, name: "*", node: part };
    const name = part.child("name")?.text ?? part.text;
    return { module, name, local: part.child("alias")?.text ?? name, node: part };
  });
  return { node, module, imports, takesMore: imports.every(({ name }) => name !== "*") };
}
