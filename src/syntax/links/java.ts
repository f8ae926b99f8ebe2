import { ordinaryLinks, withoutEnding, type LinkFacts } from "../link-facts.js";
import type { SyntaxTree } from "../tree.js";

/** Classes of one package see each other; others are imported. */
export const javaLinks: LinkFacts = {
  ...ordinaryLinks,
  shares(user, owner) {
    const own = packageOf(owner.tree);
    if (packageOf(user.tree) === own) return "yes";
    return user.tree.text.includes(`import ${own}.`) || user.tree.text.includes(`import static ${own}.`)
      ? "yes"
      : "no";
  },
  namesFile: (name, path) =>
    withoutEnding(path).endsWith(`/${name.text}`) || withoutEnding(path) === name.text,
};

function packageOf(tree: SyntaxTree): string {
  return /^\s*package\s+([\w.]+)\s*;/m.exec(tree.text)?.[1] ?? "";
}
