import { canThrow, classesNamed, nameInFile, no, placeOf, shortened, unknown, yes } from "../../../core.js";
import type { Answer, Declaration, Match, SyntaxNode } from "../../../core.js";

const LOOPS = ["for_statement", "for_range_loop", "while_statement", "do_statement"];

/** Types whose objects do nothing when they go. */
const INERT =
  /^(const\s+)?(unsigned\s+|signed\s+)?(bool|char|short|int|long|float|double|size_t|ssize_t|u?int\d+_t|wchar_t|void)\b/;

/** Does this declaration make nothing that does something when it goes? */
export function isInert(declaration: SyntaxNode): boolean {
  const type = declaration.child("type");
  if (!type || declaration.parts.some((part) => part.is("storage_class_specifier"))) return false;
  const declarators = declaration.parts.filter((part) => part.field === "declarator");
  const isIndirect = (declarator: SyntaxNode): boolean =>
    declarator.is(["pointer_declarator", "reference_declarator"]) ||
    (declarator.is("init_declarator") &&
      declarator.firstPart !== undefined &&
      isIndirect(declarator.firstPart));
  return type.is("primitive_type") || INERT.test(type.text) || declarators.every(isIndirect);
}

/** May what is returned be worked out before the variable goes instead of after? */
function isQuiet(value: SyntaxNode | undefined, of: Declaration): boolean {
  if (!value) return true;
  if (value.is(["true", "false", "null", "number_literal", "string_literal", "char_literal"])) return true;
  if (!value.is("identifier")) return false;
  const { declarations, references } = nameInFile(value.text, value.tree);
  const own = declarations.find(
    ({ scope, as }) => (as === "local" || as === "parameter") && scope.holds(value),
  );
  if (!own || own === of) return false;
  const declares = own.at[0]!.closest(["declaration", "parameter_declaration"]);
  const isReference = own.at[0]!.closest(["reference_declarator"]) !== undefined;
  const isReached = references.some(
    ({ to, does }) => to === own && (does === "address" || does === "passed"),
  );
  return declares !== undefined && isInert(declares) && !isReference && !isReached;
}

/**
 * Does the variable of a declaration go at once behind a statement that releases it, so that the statement is not
 * needed? Nothing that does something may lie in between, and nothing made after the variable may go before it.
 */
export function goesAtOnce(release: SyntaxNode, of: Declaration): boolean {
  const block = of.at[0]!.closest(["declaration"])?.parent;
  const around = release.parent;
  if (!block || !around?.is("compound_statement")) return false;
  const following = around.parts.filter((part) => part.start >= release.end && !part.is("comment"));
  const [next, ...more] = following;
  if (!around.same(block) && !leaves(next, block)) return false;
  if (next && (more.length > 0 || !next.is(["return_statement", "break_statement", "continue_statement"])))
    return false;
  if (next?.is("return_statement") && !isQuiet(next.firstPart, of)) return false;
  const declaration = of.at[0]!.closest(["declaration"])!;
  const between = [...block.descendants()].filter(
    (node) => node.is("declaration") && node.start > declaration.end && node.end <= release.start,
  );
  return between.every((node) => isInert(node) || !node.parent!.holds(release));
}

/** Does a jump leave the block in which the variable lives? */
function leaves(jump: SyntaxNode | undefined, block: SyntaxNode): boolean {
  if (jump?.is("return_statement")) return true;
  if (!jump?.is(["break_statement", "continue_statement"])) return false;
  const target = [...jump.ancestors()].find((above) => above.is([...LOOPS, "switch_statement"]));
  return target !== undefined && target.holds(block) && !target.is("switch_statement");
}

/** Can code outside of a class make and delete its objects, as an owner must? */
export function canBeOwned({ tree }: Match, type: string): Answer {
  const name = bareType(type);
  const { classes } = classesNamed(tree, name);
  const hidden = classes
    .flatMap(({ members, ...of }) => members.map((member) => ({ member, of })))
    .find(({ member }) => !member.isOpen && (member.name === `~${name}` || member.name === "delete"));
  return hidden
    ? no("resource.sooner", `the destructor of \`${name}\` is not public (line ${hidden.member.line})`)
    : yes("resource.sooner", `\`${name}\` can be deleted from anywhere`);
}

/** Are the constructors of a class public, as `make_unique` needs them? */
export function canBeMade({ tree }: Match, type: string): boolean {
  const name = bareType(type);
  return classesNamed(tree, name).classes.every(({ members }) =>
    members.every((one) => one.as !== "constructor" || one.isOpen),
  );
}

/** The last word of a type, without arguments and qualifiers. */
const bareType = (type: string): string =>
  type
    .replace(/\bconst\b/g, "")
    .replace(/<.*$/s, "")
    .split("::")
    .at(-1)!
    .trim();

/**
 * What was made was lost when something in between threw, and goes then now. Nobody notices where nothing throws, or
 * where nothing is done when an object of the type goes.
 */
export function goesUnnoticed({ tree }: Match, type: string, between: readonly SyntaxNode[]): Answer {
  const thrower = between.map(canThrow).find(({ is }) => is !== "no");
  if (!thrower) return yes("resource.sooner", "nothing in between throws");
  const name = bareType(type);
  const seen = new Set<string>();
  const waiting = [name];
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (seen.has(next)) continue;
    seen.add(next);
    const { classes } = classesNamed(tree, next);
    const [first] = classes;
    if (!first)
      return unknown(
        "resource.sooner",
        `${thrower.evidence.says}; what the destructor of \`${shortened(next)}\` does then is not known`,
      );
    const destructor = classes.flatMap(({ members }) => members).find((one) => one.name === `~${next}`);
    if (destructor && !/\{\s*\}$|=\s*default\s*;$/.test(destructor.text))
      return unknown(
        "resource.sooner",
        `${thrower.evidence.says}; the destructor of \`${next}\` runs then, and did not before (${placeOf(first)})`,
      );
    waiting.push(...classes.flatMap(({ parents }) => parents));
  }
  return yes("resource.sooner", `nothing is done when a \`${name}\` goes`);
}

/** The statements of a block between a declaration and the last of some others. */
export function statementsBetween(from: SyntaxNode, to: readonly SyntaxNode[]): SyntaxNode[] {
  const last = Math.max(...to.map(({ start }) => start));
  return (from.parent?.parts ?? []).filter(
    (part) => part.start >= from.end && part.start <= last && !to.some((one) => one.same(part)),
  );
}
