import { ordinaryLinks, type LinkFacts } from "../link-facts.js";

const HEADER = /\.(h|hh|hpp|hxx|inl)$/;

/** A file sees what the headers that it includes declare; through other headers it may see more. */
export const cppLinks: LinkFacts = {
  ...ordinaryLinks,
  keepsClasses: (path) => !HEADER.test(path),
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
    return HEADER.test(owner.path) && included.length === 0 ? "no" : "unknown";
  },
};
