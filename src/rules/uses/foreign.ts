import {
  referencesAt,
  unknown,
  usesElsewhere,
  type Declaration,
  type Following,
} from "../../analysis/index.js";
import type { Hole } from "../../pattern/index.js";
import { Match } from "../match.js";

/** What a hole that stands for a name declares or refers to. */
export function declarationOfHole(match: Match, name: Hole): Declaration | undefined {
  const node = match.the(name);
  const { leaves } = node.tree.language.binding;
  const leaf = [...node.descendants()].find((one) => one.isLeaf && leaves[one.kind] !== undefined);
  return leaf && referencesAt(leaf).find(({ to }) => to)?.to;
}

/** The uses in other files; a doubt where there are no other files to look at, or where others may exist. */
export function foreignUses(
  match: Match,
  declaration: Declaration,
  following: Following = {},
): ReturnType<typeof usesElsewhere> {
  const { files, path } = match.around;
  if (!files) {
    const doubts = [
      unknown("name.other-uses", `\`${declaration.name}\` can be used in files that were not looked at`),
    ];
    return { uses: [], doubts };
  }
  return usesElsewhere(declaration, { path, tree: match.tree }, files, following);
}
