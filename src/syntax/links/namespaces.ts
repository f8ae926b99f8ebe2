import { ordinaryLinks, type LinkedFile, type LinkFacts } from "../link-facts.js";

/** For languages in which files share the names of a namespace, and import others: C# and PHP. */
function byNamespace(namespaces: RegExp, imports: (namespace: string) => string): LinkFacts {
  const of = ({ tree }: LinkedFile): string[] =>
    [...tree.text.matchAll(namespaces)].map((match) => match[1]!);
  return {
    ...ordinaryLinks,
    shares(user, owner) {
      const own = of(owner);
      if (own.length > 1) return "unknown";
      const namespace = own[0] ?? "";
      const theirs = of(user);
      const isSame =
        namespace === "" || theirs.some((one) => one === namespace || one.startsWith(`${namespace}.`));
      if (isSame) return theirs.length > 1 ? "unknown" : "yes";
      return user.tree.text.includes(imports(namespace)) ? "yes" : "no";
    },
  };
}

export const csharpLinks: LinkFacts = byNamespace(/^\s*namespace\s+([\w.]+)/gm, (name) => `using ${name};`);
export const phpLinks: LinkFacts = byNamespace(
  /^\s*(?:<\?php\s+)?namespace\s+([\w\\]+)\s*[;{]/gm,
  (name) => `use ${name}\\`,
);

/** Ruby's constants and PowerShell's functions are seen by all that is loaded together, which the source does not say. */
export const rubyLinks: LinkFacts = { ...ordinaryLinks, shares: () => "unknown" };
export const powershellLinks: LinkFacts = { ...ordinaryLinks, shares: () => "unknown" };
