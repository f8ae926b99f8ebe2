import type { Fault, Rewriting } from "./check.js";

/** What a language asks of its lines and its grammar does not check is as right as it was. */
export function layoutFault({ before, after }: Rewriting): Fault | undefined {
  const { layoutFaults, title } = after.language;
  const now = layoutFaults?.(after) ?? new Set<string>();
  if (now.size === 0) return undefined;
  const then = layoutFaults!(before);
  const isNew = [...now].some((one) => !then.has(one));
  return isNew
    ? { code: "edit.layout", says: `the lines of the result would not be laid out as ${title} wants` }
    : undefined;
}
