/** Texts and part numbers of one line of a snippet. */
export type Items = readonly (string | number)[];

/**
 * The line without what parts a list from its neighbours, where the list has nothing in it: the comma behind it, else
 * the one ahead of it, and one of two spaces.
 */
export function closedUp(items: Items, isEmpty: (part: number) => boolean): Items {
  const result = [...items];
  for (let i = 0; i < result.length; i++) {
    const part = result[i];
    if (typeof part !== "number" || !isEmpty(part)) continue;
    const left = result[i - 1] ?? "";
    const right = result[i + 1] ?? "";
    if (typeof right === "string" && /^\s*,/.test(right)) result[i + 1] = right.replace(/^\s*,\s*/, "");
    else if (typeof left === "string" && /,\s*$/.test(left)) result[i - 1] = left.replace(/\s*,\s*$/, "");
    else if (typeof left === "string" && typeof right === "string" && /\s$/.test(left) && /^\s/.test(right))
      result[i + 1] = right.replace(/^\s+/, "");
  }
  return result.filter((item) => item !== "");
}
