import type { SyntaxNode } from "../../syntax/index.js";
import { no, unknown, yes, type Answer } from "../answer.js";
import { referencesAt } from "../names/declarations.js";
import { shortened } from "../effects.js";

/** Where a name comes from: a module, and what it is called there. */
export interface Origin {
  readonly module: string;
  /** Undefined for the module itself. */
  readonly name?: string | undefined;
  /** The import, or what else says so. */
  readonly at: SyntaxNode;
}

/** What to look for: a module, one of its members, or both. */
export interface Wanted {
  readonly module?: string;
  readonly name?: string;
}

/** The first name in an expression and the members read of it: `a`, `[b, c]` for `a.b.c`. */
function pathOf(expression: SyntaxNode): { first: SyntaxNode; rest: string[] } | undefined {
  const { leaves } = expression.tree.language.binding;
  const names: SyntaxNode[] = [];
  for (const node of expression.descendants()) {
    if (!node.isLeaf || !node.named) continue;
    if (leaves[node.kind] === undefined) return undefined;
    names.push(node);
  }
  const [first, ...rest] = names;
  return first && { first, rest: rest.map((node) => node.text) };
}

/** Where a name or a chain of members comes from, as the file's imports say; undefined where none of them does. */
export function originOf(expression: SyntaxNode): Origin | undefined {
  const path = pathOf(expression);
  if (!path) return undefined;
  const to = referencesAt(path.first).find((reference) => !reference.member)?.to;
  if (to?.at.length !== 1) return to ? undefined : importedInFull(expression, path);
  const { tree } = expression;
  for (const statement of tree.language.imports.read(tree)) {
    for (const item of statement.imports) {
      if (!item.node.holds(to.at[0]!) && !(statement.imports.length === 1 && statement.node.holds(to.at[0]!)))
        continue;
      const isModule = item.name === undefined || item.name === "*";
      // `import a.b` brings in `a`, and the chain spells out the rest of the module.
      const spelled = isModule && item.local === item.module ? item.module.split(".").slice(1) : [];
      const rest = path.rest.slice(spelled.length);
      const names = isModule ? rest : [item.name!, ...rest];
      return {
        module: item.module,
        at: statement.node,
        ...(names.length > 0 ? { name: names.join(".") } : {}),
      };
    }
  }
  return undefined;
}

/** Languages with full names need no import: `java.util.List`, `\App\Hive`, `std::vector`. */
function importedInFull(
  expression: SyntaxNode,
  { first, rest }: { first: SyntaxNode; rest: string[] },
): Origin | undefined {
  if (!/[.:\\]/.test(expression.text) || rest.length === 0) return undefined;
  if (referencesAt(first).some(({ to, member }) => to || member)) return undefined;
  const module = expression.text.replace(/(\.|::|\\)[^.:\\]+$/, "").replace(/^\\/, "");
  const isPlain = /^[\w.:\\]+$/.test(module);
  return isPlain ? { module, name: rest.at(-1)!, at: expression } : undefined;
}

/** Does a name, or what a chain of members begins with, come from a module? */
export function comesFromModule(expression: SyntaxNode, wanted: Wanted): Answer {
  const shown = shortened(expression.text);
  const origin = originOf(expression);
  if (origin) {
    const fits = wanted.module === undefined || wanted.module === origin.module;
    const isIt = fits && (wanted.name === undefined || wanted.name === origin.name);
    const from = `\`${shown}\` comes from \`${origin.module}\``;
    return isIt ? yes(from, origin.at) : no(from, origin.at);
  }
  const path = pathOf(expression);
  const reference = path && referencesAt(path.first).find(({ member }) => !member);
  if (reference?.to && reference.to.as !== "import") {
    return no(`\`${path!.first.text}\` is declared in this file`, reference.to.at[0]);
  }
  const { tree } = expression;
  const wildcard = tree.language.imports
    .read(tree)
    .find(({ imports }) => imports.some(({ name, local }) => name === "*" && local === undefined));
  if (wildcard) return unknown(`\`${shown}\` may come from \`${wildcard.module}\``, wildcard.node);
  return unknown(`nothing in this file says where \`${shown}\` comes from`, expression);
}
