import { importsIn, no, originOf, unknown, yes } from "../../analysis/index.js";
import { need, type Need } from "../../pattern/index.js";
import { broughtAt, endsOf, importsOf, type Brought } from "../../readings/index.js";
import { copy, importMoved, namedInText, text, type Segment } from "../../rewrite/index.js";
import { importStatements, shapeOf, type Import, type SyntaxNode } from "../../syntax/index.js";
import type { Narrowing } from "../around.js";
import { condition, type Condition } from "../condition.js";
import type { Match } from "../match.js";
import type { Becomes } from "../rule.js";

/**
 * Is what an import brings in called the same before and after, so that only the import changes? Under an alias, where its own
 * name stays, and where it is imported in a function, in which no other import is put.
 */
function isCalledTheSame({ statement, item }: Brought, lone: Need, other: Need): boolean {
  const { local = lone.ownName } = item;
  return local !== lone.ownName || lone.ownName === other.ownName || !isAtTop(statement.node);
}

const isAtTop = (statement: SyntaxNode): boolean =>
  importStatements(statement.tree).some(({ node }) => node.same(statement) || node.holds(statement));

/**
 * What goes is imported at the top of the file, where an import of what comes is put too, or needs none; and nothing else in
 * the file would keep its import. `isName` says that the row is about a name, whose imports are found by themselves.
 */
export function importedAtTop(what: Need, isName: boolean): Condition {
  return condition(
    "the import that changes stands at the top of the file, and nothing else needs it",
    (match) => {
      const at = originOf(match.the(what.hole))?.at;
      const isImport = at !== undefined && importsIn(match.tree).some(({ node }) => node.same(at));
      const all = importsOf(match.tree, what).map(({ statement }) => statement.node);
      const within = [...(isImport ? [at] : []), ...all].find((statement) => !isAtTop(statement));
      const shown = match.textOf(what.hole);
      if (within)
        return no("edit.import", `\`${shown}\` is imported within a function or the like here`, within);
      // The import would stay for it, and bring in what is gone.
      const line = namedInText(match.tree, shown);
      return line === undefined
        ? yes("edit.import", "the import stands at the top of the file")
        : no("name.reflection", `\`${shown}\` is named in a text too, in line ${line}`);
    },
    { when: ({ alternative }) => !isName || alternative !== 0 },
  );
}

/** A name that stays changes in its import alone, one that goes where it is used. */
export function staysOrMoves(lone: Need, other: Need): Narrowing {
  return (match) => {
    const isInImport = match.alternative === 0;
    const all = importsOf(match.tree, lone);
    const text = leafOf(match.the(lone.hole))?.text;
    const found = isInImport
      ? broughtAt(match.the(lone.hole), lone)
      : (all.find((one) => one.item.local === text) ?? all[0]);
    if (!found) return !isInImport;
    return (
      isCalledTheSame(found, lone, other) === isInImport || (!isInImport && !leafOf(match.the(lone.hole)))
    );
  };
}

/** What an import of the name becomes, or a use of it. */
export function nameBecomes(lone: Need, other: Need): Becomes {
  return (match) => {
    if (match.alternative === 1) return used(match, lone, other);
    const found = broughtAt(match.the(lone.hole), lone)!;
    const { form, local } = found.item;
    const to: Import = {
      ...other.wanted,
      form: form ?? found.statement.form,
      local: local ?? lone.ownName,
    };
    return [text(importMoved(found.statement, found.item, to))];
  };
}

/** A use of a name; one that stands at both ends of something changes at both. */
function used(match: Match, lone: Need, other: Need): Segment[] {
  const node = match.the(lone.hole);
  const written = text(writtenFor(match, node, lone, other));
  const segments: Segment[] = [];
  let at = match.node.start;
  for (const { start, end } of endsOf(node)?.names ?? [node]) {
    segments.push(copy(at, start), written);
    at = end;
  }
  return [...segments, copy(at, match.node.end)];
}

/** A name in the place of another: written out where a short form names two things, and imported in the same form. */
function writtenFor(match: Match, node: SyntaxNode, lone: Need, other: Need): string {
  const { module, name } = other.wanted;
  const leaf = leafOf(node);
  // What is read of its module stays read of it.
  if (!leaf && module === lone.wanted.module && !/[.\\:]/.test(name ?? "."))
    return node.text.replace(/[\p{L}\p{N}_$]+$/u, other.ownName);
  const shown = match.nameOf(
    isTypeOnly(node) && name !== undefined ? need(module, name, { form: "type" }) : other,
    { through: leaf === undefined },
  );
  return leaf ? (match.tree.language.binding.renamed(leaf, shown)?.text ?? shown) : shown;
}

/** Does the import of a name bring it in as a type only? */
function isTypeOnly(node: SyntaxNode): boolean {
  const at = originOf(node)?.at;
  const statement = importsIn(node.tree).find((one) => one.node.same(at));
  const names = statement?.imports.filter(({ local }) => local === node.text) ?? [];
  return names.length > 0 && names.every(({ form = statement?.form }) => form === "type");
}

/** The name that a node is as a whole. */
function leafOf(node: SyntaxNode): SyntaxNode | undefined {
  return [...node.descendants()].find(
    ({ isLeaf, start, end }) => isLeaf && start === node.start && end === node.end,
  );
}

/** An import that is tried may be there for another version of the product. */
export const notTried = condition("the import is not tried, with another one where it fails", ({ node }) => {
  const around = [...node.ancestors()].find((above) => shapeOf(above)?.is === "try");
  return around && importsIn(node.tree).some((one) => one.node.same(node))
    ? unknown(
        "name.not-resolved",
        `\`${node.text}\` is tried, and what is brought in where it fails may be meant for it`,
        around,
      )
    : yes("name.not-resolved", "the import is not tried");
});
