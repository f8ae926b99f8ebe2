import { unknown } from "../../analysis/index.js";
import { Hole, Need, type Snippet } from "../../pattern/index.js";
import { condition } from "../condition.js";

/** Does new code fit the pattern of the old, as where nothing but the order of arguments has changed? */
export function looksAlike(old: Snippet, now: Snippet): boolean {
  if (old.texts.join("\0") !== now.texts.join("\0")) return false;
  return old.parts.every((part, i) => {
    const other = now.parts[i];
    if (part instanceof Need) return other instanceof Need && part.isSame(other);
    return part instanceof Hole && other instanceof Hole && part.kind === other.kind;
  });
}

/** Nothing in the code says whether it was changed before. */
export const notYetChanged = condition("the code is not changed yet", ({ node }) =>
  unknown(
    "form.worthwhile",
    `old and new code look alike: nothing tells whether \`${node.text}\` was changed before`,
    node,
  ),
);
