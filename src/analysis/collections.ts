import type { SyntaxNode } from "../syntax/index.js";
import { no, unknown, yes, type Answer } from "./answer.js";
import { shortened } from "./shown.js";
import { calledFromLibrary } from "./library/called.js";
import { isSideEffectFree } from "./effects/side-effects.js";
import { operatorOf } from "./flow/parts.js";
import { changedUnseen } from "./flow/left-alone.js";
import { isBareCall, writeElsewhereIn } from "./flow/running.js";
import { writesOf } from "./names/builtins.js";
import { nameInFile, referencesAt, type Reference } from "./names/declarations.js";
import { isPassedByValue } from "./names/passed.js";
import { isTarget, leafOf } from "./names/use.js";
import { bodyAround } from "./names/scopes.js";

/**
 * Does a collection keep its length and its items while these statements run? Yes only for a variable with
 * which nothing is done but reading items and length, in statements that call nothing of unknown effect.
 */
export function isUnchanged(collection: SyntaxNode, during: readonly SyntaxNode[]): Answer {
  const { language } = collection.tree;
  const name = collection.text;
  const shown = shortened(name);
  const leaf = leafOf(collection);
  if (
    !leaf?.is(language.variables) ||
    language.binding.bareText(leaf.text) !== language.binding.bareText(name)
  ) {
    for (const node of during.flatMap((statement) => [...statement.descendants()])) {
      if (node.text === name && isChanged(node))
        return no("flow.written", `\`${shown}\` is changed here`, node);
    }
    const call = effectIn(during);
    if (call) return unknown("flow.written", `\`${shortened(call.text)}\` could change \`${shown}\``, call);
    return unknown("flow.written", `\`${shown}\` is not a local variable`, collection);
  }
  let doubt: Answer | undefined;
  for (const { node, does, member } of referencesIn(leaf, during)) {
    if (member) continue;
    if (does === "passed" && isPassedByValue(node)) continue;
    if (does === "passed" || does === "address")
      doubt ??= unknown("flow.written", `\`${name}\` could be changed through a reference`, node);
    else if (does !== "read") return no("flow.written", `\`${name}\` is written`, node);
    else if (isChanged(wholeOf(node))) return no("flow.written", `\`${name}\` is changed here`, node.parent);
  }
  const through = effectIn(during) ?? changeThroughAnotherName(during) ?? writeByReference(leaf, during);
  if (through) {
    return unknown(
      "flow.written",
      `\`${shortened(through.text)}\` could change \`${name}\` through another name`,
      through,
    );
  }
  return doubt ?? yes("flow.written", `nothing in the loop can change \`${name}\``);
}

function referencesIn(leaf: SyntaxNode, within: readonly SyntaxNode[]): readonly Reference[] {
  const { references } = nameInFile(leaf.tree.language.binding.bare(leaf), leaf.tree);
  return references.filter(({ node }) => within.some((one) => one.holds(node)));
}

/** The variable with its sign. */
function wholeOf(leaf: SyntaxNode): SyntaxNode {
  const { parent } = leaf;
  return parent?.is(leaf.tree.language.names) && parent.parts.length === 1 ? parent : leaf;
}

/** A write to something else, where the variable is a reference or has one. */
function writeByReference(leaf: SyntaxNode, during: readonly SyntaxNode[]): SyntaxNode | undefined {
  const to = referencesAt(leaf).find((one) => one.to)?.to;
  return to && changedUnseen(to) ? writeElsewhereIn(during) : undefined;
}

/** A place where code of unknown effect may run: a call, a suspension, the entry to a resource's block. */
function effectIn(statements: readonly SyntaxNode[]): SyntaxNode | undefined {
  for (const statement of statements) {
    const { language } = statement.tree;
    for (const node of statement.descendants()) {
      if (node.named && (node.is(language.suspensions) || node.is(language.resourceBlocks))) return node;
      if (node.is(language.calls) ? !changesNothing(node) : isBareCall(node)) return node;
    }
  }
  return undefined;
}

function changesNothing(call: SyntaxNode): boolean {
  const row = calledFromLibrary(call);
  return row !== undefined && row.effect !== "changes" && row.runs !== true;
}

/**
 * An item set or deleted, a member set that may be the length of a list or run a setter, or `+=` on what is not known to
 * be a number or a string: it could be the same list.
 */
function changeThroughAnotherName(statements: readonly SyntaxNode[]): SyntaxNode | undefined {
  for (const statement of statements) {
    const { language } = statement.tree;
    for (const node of statement.descendants()) {
      if (node.is(language.indexReads) && isTarget(node)) return node;
      if (node.is(language.memberReads) && isTarget(node) && maySetMore(node)) return node;
      if (isChanging(node)) return node;
      const target = node.is(language.augmented) ? node.child("left") : undefined;
      if (target && !isNumberOrString(target)) return node;
    }
  }
  return undefined;
}

/** Can setting a member do more than that: set the length of a list, or run a setter? */
function maySetMore(member: SyntaxNode): boolean {
  const { counting } = member.tree.language.flow;
  const last = member.lastPart?.text ?? "";
  return counting.lengthMembers.includes(last) || isSideEffectFree(member).is !== "yes";
}

/** An operator that changes what stands on its left, as `<<` does in Ruby. */
function isChanging(node: SyntaxNode): boolean {
  const { language } = node.tree;
  return (
    node.is(language.binary) &&
    language.changingOperators.includes(operatorOf(node)) &&
    !node.firstPart?.is(language.plainValues)
  );
}

/** Is every value that this variable is given in its scope a number or a string, changes in place aside? */
function isNumberOrString(target: SyntaxNode): boolean {
  const { language } = target.tree;
  const given = writesOf(target.text, bodyAround(target)).filter(
    (write) => !write.parent?.is(language.augmented),
  );
  const plain = (write: SyntaxNode): boolean => {
    const value = write.parent?.child("left")?.same(write) ? write.parent.child("right") : undefined;
    return value?.is(language.plainValues) ?? false;
  };
  return given.length > 0 && given.every(plain);
}

/** Is this use of a collection one that may change it: item set or deleted, method called? */
function isChanged(use: SyntaxNode): boolean {
  const { language } = use.tree;
  const parent = use.parent;
  if (!parent) return false;
  const base = parent.child("value") ?? parent.child("object");
  if (parent.is(language.indexReads) && base?.same(use)) return isTarget(parent);
  if (parent.is(language.memberReads)) {
    const call = parent.parent;
    if (!call?.is(language.calls)) return call === undefined || isTarget(parent);
    // What reads an item by its name is no change; whether it does more is asked of the call.
    return !changesNothing(call) && !language.flow.missing.itemReads.includes(parent.lastPart?.text ?? "");
  }
  return isTarget(use) || (isChanging(parent) && parent.firstPart?.same(use) === true);
}
