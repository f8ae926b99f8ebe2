import { folderOf, normalized, ordinaryLinks, withoutEnding, type LinkFacts } from "../link-facts.js";
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
};

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
