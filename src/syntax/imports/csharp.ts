import { modulesOnly, topLevel, type ImportFacts, type ImportStatement } from "../import-facts.js";
import { escaped } from "../class-facts.js";
import type { SyntaxNode } from "../node.js";

/** `using N;`, `using static N.C;` and `using X = N.C;`, at the top or inside a namespace around everything. */
export const csharpImports: ImportFacts = {
  ...modulesOnly,
  read(tree) {
    const top = topLevel(tree);
    const own = top.flatMap((node) => fromStatement(node) ?? []);
    if (own.length > 0) return own;
    const [only] = top.filter((node) => !node.is("extern_alias_directive"));
    const inner = only?.is("namespace_declaration") ? (only.child("body")?.parts ?? []) : [];
    return inner.flatMap((node) => fromStatement(node) ?? []);
  },
  everywhere: (tree) => tree.ofKinds(["using_directive"]).flatMap((n) => fromStatement(tree.node(n)) ?? []),
  isFullName: (code) => /^(global::|System\.)/.test(code),
  wholeImports: {
    hide: true,
    // A member of that name, which a class may have from another file.
    defines: (name) => new RegExp(`[\\w>\\]?]\\s+${escaped(name)}\\s*(?:\\{|=>|;|=(?![=>]))`),
    standsIn: (tree) => tree.ofKinds(NAMESPACES).flatMap((id) => withThoseAround(tree.node(id))),
    forAllFiles: {
      word: "global",
      form: /^\s*global\s+using\s+(?!(static\s+)?(global::)?(System|Microsoft)\b)/m,
    },
    declares: (module) => new RegExp(`^\\s*namespace\\s+${escaped(module)}(?![\\w.])`, "m"),
  },
  isOfPlatform: (module) => /^(System|Microsoft)\b/.test(module),
  write([first]) {
    const { module, name, local, form } = first!;
    if (form === "static") return `using static ${module};`;
    if (local !== undefined && name !== undefined) return `using ${local} = ${module}.${name};`;
    return `using ${module};`;
  },
  isHeader: (node) => node.is("extern_alias_directive"),
  inFull: ({ module, name }) => (name === undefined ? undefined : `${module}.${name}`),
};

const NAMESPACES = ["namespace_declaration", "file_scoped_namespace_declaration"];

/** The names of a namespace and of those around it: `Yard.Hives` and `Yard`. */
function withThoseAround(namespace: SyntaxNode): string[] {
  const parts = (namespace.child("name")?.text ?? "").split(".");
  return parts.map((_, n) => parts.slice(0, n + 1).join("."));
}

function fromStatement(node: SyntaxNode): ImportStatement | undefined {
  if (!node.is("using_directive")) return undefined;
  const alias = node.child("name")?.text;
  const path = node.parts.findLast((part) => !part.same(node.child("name")))?.text ?? "";
  const form = node.has("static") ? "static" : undefined;
  if (alias === undefined || alias === path) {
    return { node, module: path, form, imports: [{ module: path, name: "*", form, node }], takesMore: false };
  }
  const cut = path.lastIndexOf(".");
  const module = path.slice(0, Math.max(cut, 0));
  const imports = [{ module, name: path.slice(cut + 1), local: alias, node }];
  return { node, module, imports, takesMore: false };
}
