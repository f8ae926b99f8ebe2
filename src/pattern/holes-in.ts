import { FreshName, Hole, Need, Replacing, Snippet } from "./hole.js";

/** The holes in a value of a rule, and whether there may be others that only a function knows. */
export interface HolesIn {
  readonly holes: ReadonlySet<Hole>;
  readonly isOpen: boolean;
}

/** The holes in patterns, readings and what they are made of. */
export function holesIn(value: unknown): HolesIn {
  const holes = new Set<Hole>();
  const seen = new Set<unknown>();
  let isOpen = false;
  const visit = (one: unknown): void => {
    if (typeof one === "function") isOpen = true;
    if (typeof one !== "object" || one === null || seen.has(one)) return;
    seen.add(one);
    if (one instanceof Hole) {
      holes.add(one);
      visit(one.limits.like);
    } else if (one instanceof Need) return;
    else if (one instanceof Snippet) one.parts.forEach(visit);
    else if (one instanceof Map || one instanceof Set || Array.isArray(one)) [...one].forEach(visit);
    else if (!(one instanceof RegExp)) Object.values(one).forEach(visit);
  };
  visit(value);
  return { holes, isOpen };
}

/** The holes that a replacement fills, but for those in pieces that may be missing or that a pattern of its own brings. */
export function holesFilled({ parts }: Snippet): Hole[] {
  return parts.flatMap((part): Hole[] => {
    if (part instanceof Hole) return [part];
    if (part instanceof FreshName) return part.singularOf ? [part.singularOf] : [];
    if (part instanceof Replacing) {
      const { hole, pieces } = part;
      const inner = pieces.flatMap(({ pattern, replacement }) => {
        const brought = holesIn(pattern).holes;
        const filled =
          replacement instanceof Hole
            ? [replacement]
            : replacement instanceof Snippet
              ? holesFilled(replacement)
              : [];
        return filled.filter((one) => !brought.has(one));
      });
      return [hole, ...inner];
    }
    return [];
  });
}
