import {
  folderOf,
  normalized,
  ordinaryLinks,
  withoutEnding,
  type HandedOn,
  type LinkFacts,
} from "../link-facts.js";
import type { SyntaxNode } from "../node.js";
import type { SyntaxTree } from "../tree.js";

/** ES modules and `require`, by relative paths. */
export const ecmascriptLinks: LinkFacts = {
  ...ordinaryLinks,
  imports(module, from, path) {
    const own = stem(path);
    if (!/^\.\.?(\/|$)/.test(module)) {
      const last = stem(module).split("/").at(-1)!;
      return last !== "" && last === own.split("/").at(-1) ? "unknown" : "no";
    }
    const meant = normalized(folderOf(from) + module);
    if (meant === undefined) return "unknown";
    return stem(meant) === own || meant === own ? "yes" : "no";
  },
  // Scripts share their names with all others that a page loads; modules share nothing.
  shares: (user, owner) => (isModule(user.tree) || isModule(owner.tree) ? "no" : "unknown"),
  exposes(name) {
    for (const above of name.ancestors()) {
      if (above.is("export_statement")) return !above.has("default");
    }
    return !isModule(name.tree);
  },
  exposedBy(use) {
    const { parent } = use;
    if (parent?.is("export_specifier"))
      return parent.closest(["export_statement"])?.child("source")
        ? undefined
        : (parent.child("alias") ?? parent.child("name"))?.text;
    if (parent?.is("export_statement")) return parent.has("default") ? "default" : undefined;
    // The name of what `export default` declares.
    return use.field === "name" && parent?.parent?.is("export_statement") && parent.parent.has("default")
      ? "default"
      : undefined;
  },
  handsOn: (tree) => tree.root.parts.flatMap(handedOnBy),
};

/** `export { a as b } from "m"`, `export * from "m"`, `export * as n from "m"`. */
function handedOnBy(statement: SyntaxNode): HandedOn[] {
  const source = statement.is("export_statement") ? statement.child("source") : undefined;
  if (!source) return [];
  const module = source.text.slice(1, -1);
  const whole = statement.parts.find((part) => part.is("namespace_export"));
  if (whole) return [{ module, name: "*", as: whole.lastPart?.text, at: undefined }];
  if (statement.has("*")) return [{ module, name: "*", as: undefined, at: undefined }];
  const clause = statement.parts.find((part) => part.is("export_clause"));
  return (clause?.parts ?? []).flatMap((item) => {
    const at = item.child("name");
    return at ? [{ module, name: at.text, as: (item.child("alias") ?? at).text, at }] : [];
  });
}

/** Without the ending, and without `/index`, which a folder stands for. */
function stem(path: string): string {
  return withoutEnding(path)
    .replace(/\.d$/, "")
    .replace(/(^|\/)index$/, "");
}

function isModule(tree: SyntaxTree): boolean {
  if (tree.root.parts.some((part) => part.is(["import_statement", "export_statement"]))) return true;
  return /\b(module\.exports|exports\.\w+|require\()/.test(tree.text);
}
