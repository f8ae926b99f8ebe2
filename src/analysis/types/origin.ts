import type { ImportStatement, ListedImport, SyntaxNode } from "../../syntax/index.js";
import { no, unknown, yes, type Answer } from "../answer.js";
import { changesOf, referencesAt, type Declaration } from "../names/declarations.js";
import { importsIn } from "../names/imports.js";
import { shortened } from "../shown.js";

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
  if (!to) return importedInFull(expression, path);
  if (isGivenElsewhere(to)) return undefined;
  const found = to.at.map((at) => importAt(at));
  if (!found.every((one) => one !== undefined)) return undefined;
  const isModule = ({ item }: Import): boolean => item.name === undefined || item.name === "*";
  const [only, ...more] = found;
  if (only && more.length === 0 && !isModule(only)) {
    const names = [only.item.name!, ...path.rest];
    return { module: only.item.module, at: only.statement.node, name: names.join(".") };
  }
  // `import a` and `import a.b` both bring in `a`; the chain spells out the rest of the module.
  const chain = [path.first.text, ...path.rest].join(".");
  const fits = found.filter((one) => isModule(one) && spelled(one.item, path.first.text) !== undefined);
  if (fits.length !== found.length) return undefined;
  const options = fits
    .map((one) => ({ ...one, prefix: spelled(one.item, path.first.text)! }))
    .filter(({ prefix }) => chain === prefix || chain.startsWith(`${prefix}.`))
    .sort((a, b) => b.prefix.length - a.prefix.length);
  const best = options[0];
  if (!best) {
    // Only `a.b` is imported, and the chain goes another way from `a`.
    const [first] = fits;
    const [root] = first!.item.module.split(".");
    return { module: root!, at: first!.statement.node, ...named(path.rest) };
  }
  const rest = best.prefix === chain ? [] : chain.slice(best.prefix.length + 1).split(".");
  return { module: best.item.module, at: best.statement.node, ...named(rest) };
}

const named = (names: readonly string[]): { name?: string } =>
  names.length > 0 ? { name: names.join(".") } : {};

interface Import {
  readonly statement: ImportStatement;
  readonly item: ListedImport;
}

/** The import that declares a name. */
function importAt(name: SyntaxNode): Import | undefined {
  for (const statement of importsIn(name.tree)) {
    if (!statement.node.holds(name)) continue;
    for (const item of statement.imports) if (item.node.holds(name)) return { statement, item };
    const [only, ...more] = statement.imports;
    if (only && more.length === 0) return { statement, item: only };
  }
  return undefined;
}

/** The chain by which code calls a module that is imported whole: `a.b` after `import a.b`, `c` after `import a.b as c`. */
function spelled({ module, local, name }: ListedImport, first: string): string | undefined {
  if (name === "*" && local === undefined) return undefined;
  if (local === module) return module;
  return local === first ? first : undefined;
}

/** Is the name given another value than its import, by an assignment? */
function isGivenElsewhere(to: Declaration): boolean {
  const given = changesOf(to).filter(({ does }) => does === "write" || does === "update");
  return given.some(({ node }) => importAt(node) === undefined);
}

/** Languages with full names need no import: `java.util.List`, `\App\Hive`, `std::vector`. */
function importedInFull(
  expression: SyntaxNode,
  { first, rest }: { first: SyntaxNode; rest: string[] },
): Origin | undefined {
  const code = expression.text;
  if (rest.length === 0 || !expression.tree.language.imports.isFullName(code)) return undefined;
  if (referencesAt(first).some(({ to, member }) => to || member)) return undefined;
  const module = code.replace(/(\.|::|\\)[^.:\\]+$/, "").replace(/^(\\|::|global::)/, "");
  const isPlain = /^[\w.:\\]+$/.test(module);
  return isPlain ? { module, name: rest.at(-1)!, at: expression } : undefined;
}

/** Does a name, or what a chain of members begins with, come from a module? */
export function comesFromModule(expression: SyntaxNode, wanted: Wanted): Answer {
  const shown = shortened(expression.text);
  const origin = originOf(expression);
  if (origin) {
    const full = (module: string, name: string | undefined): string =>
      name === undefined ? module : `${module}.${name}`;
    const isIt =
      wanted.module === undefined || wanted.name === undefined
        ? (wanted.module ?? origin.module) === origin.module && (wanted.name ?? origin.name) === origin.name
        : full(origin.module, origin.name) === full(wanted.module, wanted.name);
    const from = `\`${shown}\` comes from \`${origin.module}\``;
    return isIt ? yes("name.library", from, origin.at) : no("name.library", from, origin.at);
  }
  const path = pathOf(expression);
  const reference = path && referencesAt(path.first).find(({ member }) => !member);
  if (reference?.to && reference.to.as !== "import") {
    const at = reference.to.at.find((one) => importAt(one) === undefined) ?? reference.to.at[0];
    return reference.to.at.some((one) => importAt(one) !== undefined)
      ? unknown("name.library", `\`${path!.first.text}\` is given something else here`, at)
      : no("name.library", `\`${path!.first.text}\` is declared in this file`, at);
  }
  // What no import gives another name goes by its own.
  const asked = wanted.name?.split(".").at(-1);
  const said = [...expression.descendants()].findLast((node) => node.isLeaf && node.named)?.text;
  // Where types have arguments, the last name is not that of the type.
  const isPlain = ["javascript", "typescript", "tsx", "python"].includes(expression.tree.language.id);
  const isOther = isPlain && asked !== undefined && asked !== "default" && said !== asked;
  if (isOther) return no("name.library", `\`${shown}\` is not called \`${asked}\``, expression);
  const wildcard = importsIn(expression.tree).find(({ imports }) =>
    imports.some(({ name, local }) => name === "*" && local === undefined),
  );
  if (wildcard)
    return unknown("name.not-resolved", `\`${shown}\` may come from \`${wildcard.module}\``, wildcard.node);
  return unknown("name.not-resolved", `nothing in this file says where \`${shown}\` comes from`, expression);
}
