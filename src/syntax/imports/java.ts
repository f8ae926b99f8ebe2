import { modulesOnly, topLevel, type ImportFacts, type ImportStatement } from "../import-facts.js";
import type { SyntaxNode } from "../node.js";

/** `import a.b.C;`, `import static a.b.C.m;`, `import a.b.*;` */
export const javaImports: ImportFacts = {
  ...modulesOnly,
  read: (tree) => topLevel(tree).flatMap((node) => fromStatement(node) ?? []),
  write: (imports) =>
    imports
      .map(
        ({ module, name, form }) => `import ${form === "static" ? "static " : ""}${module}.${name ?? "*"};`,
      )
      .join("\n"),
  item: ({ name }) => name ?? "*",
  isFullName: (code) => /^[a-z]\w*(\.[a-z]\w*)*\.[A-Z]\w*$/.test(code),
  isOfPlatform: (module) => /^javax?\./.test(module),
  isHeader: (node) => node.is("package_declaration"),
  isVisible: ({ module }, tree) =>
    module === "java.lang" ||
    topLevel(tree).some((node) => node.is("package_declaration") && node.lastPart?.text === module),
  inFull: ({ module, name }) => (name === undefined ? undefined : `${module}.${name}`),
  mayGo: () => true,
};

function fromStatement(node: SyntaxNode): ImportStatement | undefined {
  if (!node.is("import_declaration")) return undefined;
  const path = node.parts.find((part) => part.is(["scoped_identifier", "identifier"]));
  if (!path) return undefined;
  const form = node.has("static") ? "static" : undefined;
  const isAll = node.parts.some((part) => part.is("asterisk"));
  const cut = isAll ? path.text.length : path.text.lastIndexOf(".");
  const module = path.text.slice(0, Math.max(cut, 0));
  const name = isAll ? "*" : path.text.slice(cut + 1);
  const local = isAll ? undefined : name;
  return { node, module, form, imports: [{ module, name, local, form, node }], takesMore: false };
}
