import type { SyntaxTree } from "../../syntax/index.js";
import type { Fault, Rewriting } from "./check.js";

/** A comma with nothing before it among arguments, which the grammar takes and no compiler does. */
export function emptyArgumentFault({ before, after }: Rewriting): Fault | undefined {
  const now = emptyArguments(after);
  const isNew = now > 0 && now > emptyArguments(before);
  return isNew
    ? { code: "edit.syntax-error", says: "an argument would be missing before a comma" }
    : undefined;
}

function emptyArguments(tree: SyntaxTree): number {
  let count = 0;
  for (let n = 0; n < tree.size; n++) {
    if (tree.kind(n) !== "," || tree.parents[n]! < 0) continue;
    const list = tree.node(tree.parents[n]!);
    if (!list.is(tree.language.argumentLists)) continue;
    const before = tree.text.slice(list.start, tree.starts[n]).trimEnd();
    if (/[(,]$/.test(before)) count++;
  }
  return count;
}
