import { ordinaryLinks, type LinkFacts } from "../link-facts.js";

/** A file sees what the headers that it includes declare; through other headers it may see more. */
export const cppLinks: LinkFacts = {
  ...ordinaryLinks,
  shares(user, owner) {
    const own = owner.path.split("/").at(-1)!;
    const included = [...user.tree.text.matchAll(/^\s*#\s*include\s*["<]([^">]+)[">]/gm)].map(
      (match) => match[1]!,
    );
    if (
      included.some(
        (path) => owner.path === path || owner.path.endsWith(`/${path}`) || path.endsWith(`/${own}`),
      )
    ) {
      return "yes";
    }
    const isHeader = /\.(h|hh|hpp|hxx|inl)$/.test(owner.path);
    return isHeader && included.length === 0 ? "no" : "unknown";
  },
};
