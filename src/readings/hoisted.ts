import { referencesAt, referencesOf, type Declaration } from "../analysis/index.js";
import { removal, type Edit } from "../rewrite/index.js";
import type { SyntaxNode } from "../syntax/index.js";
import { assignedBy } from "./frame.js";
import type { Held } from "./held.js";

/** A variable that is declared ahead of a scoped form from now on. */
export interface Hoisted {
  readonly to: Declaration;
  readonly says: string;
  readonly edit: Edit;
  /** The statement, where all of it goes ahead. */
  readonly whole?: SyntaxNode;
}

/** Variables that are declared while a resource is held without a `try`, and used later. */
export function usedLater({ guard, ahead, body, acquire }: Held, end: number): Hoisted[] {
  const statements = guard ? ahead : body;
  return statements.flatMap((statement, i) => {
    const assigned = assignedBy(statement);
    if (!assigned?.declares || !assigned.target.isLeaf) return [];
    const { target } = assigned;
    const to = referencesAt(target).find(({ member }) => !member)?.to;
    if (!to || !referencesOf(to).some(({ node }) => node.start >= end)) return [];
    // Ahead of its declaration the name means something else.
    const sooner = [acquire, ...statements.slice(0, i)];
    if (sooner.some((one) => one.mentions(target.text).length > 0)) return [];
    // A literal is the same wherever it stands.
    if (isLiteral(assigned.value))
      return [{ to, says: statement.text, whole: statement, edit: removal(statement) }];
    const declared = declaredWithout(statement, target, assigned.value);
    return declared === undefined
      ? []
      : [{ to, says: declared, edit: { start: statement.start, end: target.start, text: "" } }];
  });
}

function isLiteral(value: SyntaxNode): boolean {
  const { literals, strings, plainValues } = value.tree.language;
  return value.is(literals) || value.is(strings) || value.is(plainValues);
}

/** A declaration without its value: `int n;`, `let n;`; undefined where the type comes from the value. */
function declaredWithout(
  { tree, start, parts, kind }: SyntaxNode,
  name: SyntaxNode,
  value: SyntaxNode,
): string | undefined {
  if (tree.text.slice(name.end, value.start).trim() !== "=") return undefined;
  if (kind === "lexical_declaration") return `let ${name.text};`;
  const type = [...name.ancestors()].map((above) => above.child("type")).find((one) => one !== undefined);
  // The items of an array can only be listed where it is declared.
  if (!type || type.text === "var" || parts.length === 0 || value.text.startsWith("{")) return undefined;
  return `${tree.text.slice(start, name.end)};`;
}
