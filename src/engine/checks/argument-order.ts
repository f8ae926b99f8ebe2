import type { SyntaxTree } from "../../syntax/index.js";
import type { Fault, Rewriting } from "./check.js";

/** No argument without a name comes to stand behind one with a name, which the grammars take and the languages do not. */
export function argumentOrderFault({ before, after }: Rewriting): Fault | undefined {
  const now = misplacedIn(after);
  if (now.size === 0) return undefined;
  const then = misplacedIn(before);
  const misplaced = [...now].find((one) => !then.has(one));
  return misplaced === undefined
    ? undefined
    : { code: "edit.syntax-error", says: `\`${misplaced}\` would stand behind an argument that has a name` };
}

/** Arguments without a name behind those that have one, by their code. */
function misplacedIn(tree: SyntaxTree): Set<string> {
  const { argumentPlace, argumentLists } = tree.language;
  const found = new Set<string>();
  if (!argumentPlace) return found;
  for (let n = 0; n < tree.size; n++) {
    if (!argumentLists.includes(tree.kind(n))) continue;
    const list = tree.node(n);
    const first = list.parts.findIndex((part) => argumentPlace(part) === "named");
    for (const part of first < 0 ? [] : list.parts.slice(first))
      if (argumentPlace(part) === "ahead") found.add(part.text);
  }
  return found;
}
