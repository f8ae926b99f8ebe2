import type { SyntaxNode } from "../../syntax/index.js";
import { unknown, type Answer } from "../answer.js";
import { nameInFile, referencesOf, type Declaration, type Reference } from "./declarations.js";
import { shortened } from "../shown.js";
import { reflectionIn } from "./reflection.js";

/** All uses of something declared, and why there may be more. */
export interface Uses {
  readonly declaration: Declaration;
  /** In the order of the file, declarations too. */
  readonly references: readonly Reference[];
  /** Unknown answers: places that may use the same thing, or use it unseen. None where all uses are known. */
  readonly doubts: readonly Answer[];
}

/** Every use of a declaration in its own file. */
export function usesOf(declaration: Declaration): Uses {
  let uses = known.get(declaration);
  if (!uses) known.set(declaration, (uses = read(declaration)));
  return uses;
}

const known = new WeakMap<Declaration, Uses>();

function read(declaration: Declaration): Uses {
  const { tree } = declaration.scope;
  const { binding } = tree.language;
  const names = nameInFile(declaration.name, tree);
  const references = names.of(declaration);
  const doubts: Answer[] = [];
  const isOpen = isMember(declaration);
  for (const { node, unknown: why, member, named } of names.loose) {
    if (named) {
      const says = `\`${node.text}\` may be passed by its name here`;
      if (declaration.as === "parameter") doubts.push(unknown("name.other-uses", says, node));
    } else if (why !== undefined && (isOpen || !member)) doubts.push(unknown("name.other-uses", why, node));
  }
  for (const node of names.unclear) {
    doubts.push(unknown("name.not-resolved", `what \`${node.text}\` means here is not known`, node));
  }
  const hidden = binding.hides(declaration.name, tree);
  if (hidden)
    doubts.push(
      unknown("name.other-uses", `\`${declaration.name}\` stands in code that is not read`, hidden),
    );
  if (binding.dynamicScope) {
    const at = declaration.at[0]!;
    doubts.push(unknown("name.other-uses", `what is called from here can see \`${declaration.name}\``, at));
  }
  doubts.push(...reflectionAround(declaration), ...usesAsParameter(declaration));
  return { declaration, references, doubts };
}

/** Can code outside of the file use this, as far as its modifiers, its place and what makes it public say? */
export function isSeenElsewhere(declaration: Declaration): boolean {
  return isPublicByItself(declaration) || publicNames(declaration).length > 0;
}

/** The same, without what other statements make public under a name of its own: `export { hive }`. */
export function isPublicByItself({ at, as, scope }: Declaration): boolean {
  const { isPublic } = scope.tree.language.binding;
  return at.some((name) => isPublic(name, as, scope));
}

/** The names under which statements of the file make a declaration public: `x` and `default` after `export { x }` and `export default x`. */
export function publicNames(declaration: Declaration): string[] {
  const { tree } = declaration.scope;
  const { exposedBy } = tree.language.links;
  return [...new Set(referencesOf(declaration).flatMap(({ node }) => exposedBy(node) ?? []))];
}

/** Is this reached through an object, a class, a namespace, or a file that is an object? */
export function isMember({ scope, spaces }: Declaration): boolean {
  if (scope.tree.language.binding.filesAreObjects && scope.same(scope.tree.root)) return true;
  const is = scope.tree.language.binding.scopes[scope.kind]?.is ?? "file";
  return (
    is === "class" || is === "namespace" || spaces.every((space) => space === "member" || space === "method")
  );
}

/** Code that can reach the names around it by their names. */
function reflectionAround({ scope, name }: Declaration): Answer[] {
  return reflectionIn([scope]).map((node) =>
    unknown("name.reflection", `\`${shortened(node.text)}\` can reach \`${name}\` by its name`, node),
  );
}

/** Code that reads a parameter together with all others: `arguments`, a bare `super`. */
function usesAsParameter({ as, scope, name }: Declaration): Answer[] {
  const { binding } = scope.tree.language;
  if (as !== "parameter") return [];
  const { tree } = scope;
  const objects = binding.parametersIn === undefined ? [] : scope.mentions(binding.parametersIn);
  const words = tree
    .ofKinds(binding.handsOnParameters)
    .map((n) => tree.node(n))
    .filter((node) => node.field !== "method" && scope.holds(node));
  return [...objects, ...words].map((node) =>
    unknown("name.other-uses", `\`${node.text}\` holds \`${name}\` too`, node),
  );
}

/** Strings of the file that spell the name of a declaration; they may mean it. */
export function spelledOut({ name, scope }: Declaration): SyntaxNode[] {
  const { tree } = scope;
  const { strings } = tree.language;
  const result: SyntaxNode[] = [];
  let at = tree.text.indexOf(name);
  for (; at >= 0; at = tree.text.indexOf(name, at + name.length)) {
    if (isWordPart(tree.text[at - 1]) || isWordPart(tree.text[at + name.length])) continue;
    const holder = tree.nodeAt(at, at + name.length).closest(strings);
    const isCode = tree.named(name).some((id) => tree.starts[id] === at);
    if (holder && !isCode) result.push(holder);
  }
  return result;
}

function isWordPart(char: string | undefined): boolean {
  return char !== undefined && /[\p{L}\p{N}_$]/u.test(char);
}
