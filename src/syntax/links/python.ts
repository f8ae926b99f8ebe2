import { folderOf, normalized, ordinaryLinks, withoutEnding, type LinkFacts } from "../link-facts.js";

/** Modules and packages; where the packages begin is not known, so a path counts from its end. */
export const pythonLinks: LinkFacts = {
  ...ordinaryLinks,
  importsAreSeen: true,
  submodule: (module, name) => (module.endsWith(".") ? module + name : `${module}.${name}`),
  imports(module, from, path) {
    const own = withoutEnding(path).replace(/(^|\/)__init__$/, "");
    const dots = /^\.*/.exec(module)![0].length;
    const rest = module.slice(dots).replaceAll(".", "/");
    if (dots === 0) return own === rest || own.endsWith(`/${rest}`) ? "yes" : "no";
    const base = folderOf(from) + "../".repeat(dots - 1);
    return normalized(base + rest) === own ? "yes" : "no";
  },
};
