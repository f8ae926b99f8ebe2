import { oncePerNode, oncePerTree } from "../../syntax/index.js";
import type { ImportStatement, ListedImport, SyntaxNode } from "../../syntax/index.js";
import { no, unknown, yes, type Answer } from "../answer.js";
import { changesOf, referencesAt, type Declaration } from "../names/declarations.js";
import { importsIn } from "../names/imports.js";
import { surroundingsOf } from "../project.js";
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

/** The first name in an expression and the members read of it: `a`, `[b, c]` for `a.b.c`; undefined for what `a(b).c` calls. */
function pathOf(expression: SyntaxNode): { first: SyntaxNode; rest: string[] } | undefined {
  const { binding, indexReads, argumentLists } = expression.tree.language;
  const { leaves } = binding;
  const names: SyntaxNode[] = [];
  for (const node of expression.descendants()) {
    if (node.is(indexReads) || node.is(argumentLists)) return undefined;
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
  if (!to) return listedAs(expression) ?? importedInFull(expression, path) ?? soonImported(path);
  const found = to.at.map((at) => importAt(at));
  if (!found.every((one) => one !== undefined) || isGivenElsewhere(to)) return undefined;
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

/** The name of a module's own in an import that gives it another one: `hive` in `import { hive as queen }`. */
function listedAs(name: SyntaxNode): Origin | undefined {
  const found = name.isLeaf ? importAt(name) : undefined;
  const isItsName = found && found.item.name === name.text && found.item.node.holds(name);
  return isItsName
    ? { module: found.item.module, name: found.item.name, at: found.statement.node }
    : undefined;
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

/** What is imported together with the code that uses it. */
function soonImported({ first, rest }: { first: SyntaxNode; rest: string[] }): Origin | undefined {
  const { pending = [] } = surroundingsOf(first.tree);
  const found = pending.find(({ local }) => local === first.text);
  const isPart = found?.name !== undefined && found.name !== "*";
  return (
    found && { module: found.module, ...named(isPart ? [found.name!, ...rest] : rest), at: first.tree.root }
  );
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

/** What a file says of where a name or a chain of members comes from. */
interface Came {
  readonly origin: Origin | undefined;
  /** What this file says of it: that it is declared here, instead of an import or beside one, or that it is read of a value. */
  readonly here: Answer | undefined;
  /** The last name in it. */
  readonly said: string | undefined;
}

const cameFrom = oncePerNode((expression): Came => {
  const origin = originOf(expression);
  if (origin) return { origin, here: undefined, said: undefined };
  const path = pathOf(expression);
  const to = path && referencesAt(path.first).find(({ member }) => !member)?.to;
  if (to && to.as !== "import") {
    const { text: first } = path.first;
    const at = to.at.find((one) => importAt(one) === undefined) ?? to.at[0]!;
    const here = to.at.some((one) => importAt(one) !== undefined)
      ? unknown("name.library", `\`${first}\` is given something else here`, at)
      : no("name.library", `\`${first}\` is declared in this file`, at);
    return { origin, here, said: undefined };
  }
  const value = path ? undefined : valueReadOf(expression);
  if (value)
    return {
      origin,
      here: no("name.library", `\`${shortened(value.text)}\` gives a value, and no module`, value),
      said: undefined,
    };
  const said = [...expression.descendants()].findLast((node) => node.isLeaf && node.named)?.text;
  return { origin, here: undefined, said };
});

/** The text or the call that a chain of members begins with, other than one that loads a module. */
function valueReadOf(expression: SyntaxNode): SyntaxNode | undefined {
  const { memberReads, calls, strings, argumentLists, imports } = expression.tree.language;
  let base: SyntaxNode | undefined = expression;
  while (base?.is(memberReads)) base = base.child("object") ?? base.firstPart;
  const isCall = base?.is(calls) === true && base.parts.some((part) => part.is(argumentLists));
  if (!base || (base.same(expression) && !isCall)) return undefined;
  const isLoading = imports.loaders?.includes(base.child("function")?.text ?? "") === true;
  return base.is(strings) || (isCall && !isLoading) ? base : undefined;
}

const fullName = (module: string, name: string | undefined): string =>
  name === undefined ? module : `${module}.${name}`;

function isOrigin(origin: Origin, { module, name }: Wanted): boolean {
  if (module === undefined || name === undefined)
    return (module ?? origin.module) === origin.module && (name ?? origin.name) === origin.name;
  return fullName(origin.module, origin.name) === fullName(module, name);
}

/** What no import gives another name goes by its own. */
function isCalledOtherwise(expression: SyntaxNode, said: string | undefined, wanted: Wanted): boolean {
  const asked = ownNameOf(expression.tree.language.id, wanted.name);
  return asked !== undefined && said !== asked;
}

/** The name by which something goes that no import renames. Where types have arguments, the last name is not that of the type. */
export function ownNameOf(id: string, name: string | undefined): string | undefined {
  const own = name?.split(".").at(-1);
  const isPlain = ["javascript", "typescript", "tsx", "python"].includes(id);
  return isPlain && own !== "default" ? own : undefined;
}

/** What the imports of a file give another name. */
const renamed = oncePerTree((tree): ReadonlySet<string> => {
  const items = importsIn(tree).flatMap(({ imports }) => imports);
  const last = (name: string | undefined): string[] => name?.split(/[.:\\]/).slice(-1) ?? [];
  return new Set(
    items.flatMap(({ module, name, local }) => {
      const own = last(name ?? module);
      return local === undefined || own.includes(local) ? [] : own;
    }),
  );
});

/**
 * Can an expression stand for something of this name at a glance? Where it has another name, and no import of the file renames
 * anything of that one, it cannot.
 */
export function mayBeCalled({ tree, id }: SyntaxNode, name: string): boolean {
  let last = tree.after[id]! - 1;
  while (last > id && !tree.isNamed(last)) last--;
  return tree.textOf(last) === name || renamed(tree).has(name);
}

/** Does a name, or what a chain of members begins with, come from a module? As no more than a word, for one that is asked about often. */
export function originFits(expression: SyntaxNode, wanted: Wanted): Answer["is"] {
  const { origin, here, said } = cameFrom(expression);
  if (origin) return isOrigin(origin, wanted) ? "yes" : "no";
  return here?.is ?? (isCalledOtherwise(expression, said, wanted) ? "no" : "unknown");
}

/** Does a name, or what a chain of members begins with, come from a module? */
export function comesFromModule(expression: SyntaxNode, wanted: Wanted): Answer {
  const shown = shortened(expression.text);
  const { origin, here, said } = cameFrom(expression);
  if (origin) {
    const from = `\`${shown}\` comes from \`${origin.module}\``;
    return (isOrigin(origin, wanted) ? yes : no)("name.library", from, origin.at);
  }
  if (here) return here;
  if (isCalledOtherwise(expression, said, wanted))
    return no("name.library", `\`${shown}\` is not called \`${wanted.name!.split(".").at(-1)}\``, expression);
  const wildcard = importsIn(expression.tree).find(({ imports }) =>
    imports.some(({ name, local }) => name === "*" && local === undefined),
  );
  if (wildcard)
    return unknown("name.not-resolved", `\`${shown}\` may come from \`${wildcard.module}\``, wildcard.node);
  return unknown("name.not-resolved", `nothing in this file says where \`${shown}\` comes from`, expression);
}
