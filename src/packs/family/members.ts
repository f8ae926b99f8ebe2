import { shortened, unknown, yes } from "../../index.js";
import type { Answer, SyntaxNode } from "../../index.js";

/**
 * Does the class around give a member nothing but what fits, as far as its own code shows? Other classes may give it
 * something else, which ordinary code does not do. Undefined where the class says nothing of it, or something else.
 */
export function givenInClass(member: SyntaxNode, fits: RegExp): SyntaxNode | undefined {
  const { classes } = member.tree.language;
  const around = [...member.ancestors()].find((above) => above.is(classes));
  if (!around) return undefined;
  const name = member.text.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
  const given = [...around.text.matchAll(new RegExp(`${name}\\s*=(?!=)\\s*([^\\n;]+)`, "g"))];
  return given.length > 0 && given.every(([, value]) => fits.test(value!)) ? around : undefined;
}

/** What such a class says: that it is one, but for what others do. */
export function likelyInClass(member: SyntaxNode, fits: RegExp): Answer {
  return givenInClass(member, fits)
    ? unknown(`another class could give \`${shortened(member.text)}\` something else`, member)
    : yes("its type is known");
}
