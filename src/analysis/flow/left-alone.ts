import type { SyntaxNode } from "../../syntax/index.js";
import { no, unknown, yes, type Answer } from "../answer.js";
import {
  changesOf,
  nameInFile,
  referencesAt,
  type Declaration,
  type Reference,
} from "../names/declarations.js";
import { usesElsewhere } from "../names/elsewhere.js";
import { isMember, isSeenElsewhere } from "../names/every-use.js";
import { isPassedByValue } from "../names/passed.js";
import { reflectionIn } from "../names/reflection.js";
import { bodyAround } from "../names/scopes.js";
import { runningIn, writeElsewhereIn } from "./running.js";
import { leafOf } from "../names/use.js";
import { surroundingsOf } from "../project.js";
import { shortened } from "../shown.js";

/**
 * Does the variable that a name stands for keep its value while some code runs? What is looked at: the code itself,
 * functions in it, other names of the variable, and what may run meanwhile: other functions, and other files.
 */
export function isLeftAlone(name: SyntaxNode, within: readonly SyntaxNode[]): Answer {
  const leaf = leafOf(name);
  if (!leaf) return unknown("name.not-resolved", `\`${shortened(name.text)}\` is no variable`, name);
  const shown = name.text;
  return (
    changedIn(leaf, within, shown) ??
    changedByName(within, shown) ??
    changedMeanwhile(leaf, within, shown) ??
    yes("flow.written", `\`${shown}\` is not written here`)
  );
}

/** Is a variable of this name changed in the code? Those that hide the one that is meant count too. */
function changedIn(leaf: SyntaxNode, within: readonly SyntaxNode[], shown: string): Answer | undefined {
  const { binding } = leaf.tree.language;
  const { references, unclear } = nameInFile(binding.bare(leaf), leaf.tree);
  const isIn = (node: SyntaxNode): boolean => within.some((one) => one.holds(node));
  let doubt: Answer | undefined;
  for (const { node, does, member } of references) {
    if (member || does === "read" || !isIn(node)) continue;
    if (does === "passed") {
      if (!isPassedByValue(node))
        doubt ??= unknown("flow.written", `\`${shown}\` is passed on and may be changed there`, node);
    } else if (does === "address")
      doubt ??= unknown("flow.written", `\`${shown}\` can be changed through a reference`, node);
    else return no("flow.written", `\`${shown}\` is written`, node);
  }
  const strange = unclear.find(isIn);
  return (
    doubt ??
    (strange && unknown("name.not-resolved", `what \`${strange.text}\` means here is not known`, strange))
  );
}

/** Can the code reach any variable, by its name or by code that it brings in? */
function changedByName(within: readonly SyntaxNode[], shown: string): Answer | undefined {
  const [reflects] = reflectionIn(within);
  if (reflects)
    return unknown(
      "name.reflection",
      `\`${shortened(reflects.text)}\` can reach \`${shown}\` by its name`,
      reflects,
    );
  const brought = within
    .flatMap(({ tree }) => tree.ofKinds(tree.language.wildcardImports).map((n) => tree.node(n)))
    .find((node) => within.some((one) => one.holds(node)));
  if (brought)
    return unknown(
      "flow.written",
      `\`${shortened(brought.parent?.text ?? brought.text)}\` can set \`${shown}\``,
      brought,
    );
  return undefined;
}

/** Can something else change the variable while the code runs? */
function changedMeanwhile(
  leaf: SyntaxNode,
  within: readonly SyntaxNode[],
  shown: string,
): Answer | undefined {
  const reference = referencesAt(leaf).find((one) => !one.member);
  const to = reference?.to;
  if (!to) {
    const why = reference?.unknown ?? `what declares \`${shown}\` is not known`;
    return unknown("name.not-resolved", why, leaf);
  }
  const { binding } = leaf.tree.language;
  const running = runningIn(within);
  const through = running ?? writeElsewhereIn(within);
  if (!through) return undefined;
  const unseen = changedUnseen(to);
  if (unseen) return unseen;
  const isIn = (node: SyntaxNode): boolean => within.some((one) => one.holds(node));
  const kept = changesOf(to).find(
    ({ node, does }) => does === "passed" && !isIn(node) && !isPassedByValue(node),
  );
  if (kept)
    return unknown(
      "flow.written",
      `\`${shown}\` was passed on, and \`${shortened(through.text)}\` could change it there`,
      kept.node,
    );
  if (!running) return undefined;
  const elsewhere = changesElsewhere(to, leaf).find(({ node }) => !isIn(node));
  if (elsewhere)
    return unknown(
      "flow.written",
      `\`${shown}\` is written in another function, which \`${shortened(running.text)}\` could run`,
      elsewhere.node,
    );
  if (binding.dynamicScope)
    return unknown(
      "flow.written",
      `\`${shortened(running.text)}\` can see \`${shown}\` where it is called`,
      running,
    );
  return changedInOtherFiles(to, running, shown);
}

/** Why a variable can change where nothing names it: it is a reference, it has one, or code that is not read names it. */
export function changedUnseen(to: Declaration): Answer | undefined {
  const { name, scope } = to;
  const { binding } = scope.tree.language;
  const reference = to.at.find((at) => binding.isReference(at));
  if (reference)
    return unknown(
      "flow.written",
      `\`${name}\` is a reference, and what it refers to can be changed elsewhere`,
      reference,
    );
  const aliased = changesOf(to).find(({ does }) => does === "address");
  if (aliased) return unknown("flow.written", `\`${name}\` can be changed through a reference`, aliased.node);
  const hidden = binding.hides(name, scope.tree);
  if (hidden) return unknown("flow.written", `\`${name}\` stands in code that is not read`, hidden);
  return to.as === "parameter" ? changedAsArgument(to) : undefined;
}

/** Parameters of JavaScript are the items of `arguments` too. */
function changedAsArgument({ name, scope }: Declaration): Answer | undefined {
  const { parametersIn } = scope.tree.language.binding;
  if (parametersIn === undefined) return undefined;
  const use = scope.mentions(parametersIn).find((one) => {
    const read = one.parent;
    const isPlain = read?.is([...scope.tree.language.indexReads, ...scope.tree.language.memberReads]);
    return !isPlain || read?.parent?.child("left")?.same(read) === true;
  });
  return use && unknown("flow.written", `\`${name}\` can be changed through \`${parametersIn}\``, use);
}

/**
 * Changes of a variable in functions that may run meanwhile. What is around a place waits for it: it counts only where
 * another run of it has the same variable. A file's own code runs once.
 */
function changesElsewhere(to: Declaration, place: SyntaxNode): readonly Reference[] {
  const { tree } = place;
  const { dynamicScope } = tree.language.binding;
  const isDeclaring = (node: SyntaxNode): boolean =>
    to.as === "parameter" && to.at.some((at) => at.same(node));
  // What a block of PowerShell sets is the variable of whoever runs it in its own scope.
  const all = dynamicScope ? nameInFile(to.name, tree).references : changesOf(to);
  return all.filter(({ node, does }) => {
    if (does === "read" || does === "declare" || isDeclaring(node)) return false;
    const body = bodyAround(node);
    const isAround = body.holds(place) && (body.holds(to.scope) || body.same(tree.root));
    return !isAround && !body.same(tree.root) && !(does === "passed" && isPassedByValue(node));
  });
}

/** Can code of another file change the variable? Asked of what other files can name. */
function changedInOtherFiles(to: Declaration, running: SyntaxNode, shown: string): Answer | undefined {
  const { tree } = running;
  const { binding } = tree.language;
  const isOpen = to.as !== "parameter" && (isSeenElsewhere(to) || (isMember(to) && isReopened(to)));
  if (!isOpen) return undefined;
  const { files, path } = surroundingsOf(tree);
  const says = `\`${shown}\` can be changed in other files, which \`${shortened(running.text)}\` could run`;
  // Another module that sets the variable of a module is looked for, and not supposed.
  const isSupposed = !(binding.filesAreObjects && to.scope.same(tree.root));
  if (!files) return isSupposed ? unknown("flow.written", says, to.at[0]) : undefined;
  const { uses, doubts } = usesElsewhere(to, { path, tree }, files);
  const change = uses.find(
    ({ file, node }) => referencesAt(node).some(({ does }) => isChange(does)) && file.path !== path,
  );
  if (change)
    return unknown(
      "flow.written",
      `\`${shown}\` is written in ${change.file.path}, line ${change.node.line}`,
      to.at[0],
    );
  return isSupposed && doubts.length > 0 ? unknown("flow.written", says, to.at[0]) : undefined;
}

/** Does a class go on in other files? */
function isReopened({ scope }: Declaration): boolean {
  return scope.children.some((child) => child.text === "partial");
}

/** Does a use do more than read or declare what it names? */
export function isChange(does: Reference["does"]): boolean {
  return does === "write" || does === "update" || does === "address" || does === "passed";
}
