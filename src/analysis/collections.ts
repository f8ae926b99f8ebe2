import type { SyntaxNode } from "../syntax/index.js";
import { no, unknown, yes, type Answer } from "./answer.js";
import { shortened } from "./shown.js";
import { calledFromLibrary } from "./library/called.js";
import { isTarget } from "./names/use.js";
import { readsOf, writesOf } from "./names/builtins.js";
import { bodyAround } from "./names/scopes.js";

/**
 * Does a collection keep its length and its items while these statements run? Yes only for a variable with
 * which nothing is done but reading items and length, in statements that call nothing of unknown effect.
 */
export function isUnchanged(collection: SyntaxNode, during: readonly SyntaxNode[]): Answer {
  const { language } = collection.tree;
  const name = collection.text;
  const shown = shortened(name);
  if (!collection.is(language.variables)) {
    for (const node of during.flatMap((statement) => [...statement.descendants()])) {
      if (node.text === name && isChanged(node))
        return no("flow.written", `\`${shown}\` is changed here`, node);
    }
    const call = effectIn(during);
    if (call) return unknown("flow.written", `\`${shortened(call.text)}\` could change \`${shown}\``, call);
    return unknown("flow.written", `\`${shown}\` is not a local variable`, collection);
  }
  for (const statement of during) {
    const write = writesOf(name, statement)[0];
    if (write) return no("flow.written", `\`${name}\` is written`, write);
    for (const read of readsOf(name, statement)) {
      if (isChanged(read)) return no("flow.written", `\`${name}\` is changed here`, read.parent);
    }
  }
  const through = effectIn(during) ?? changeThroughAnotherName(during);
  if (through) {
    return unknown(
      "flow.written",
      `\`${shortened(through.text)}\` could change \`${name}\` through another name`,
      through,
    );
  }
  return yes("flow.written", `nothing in the loop can change \`${name}\``);
}

/** A place where code of unknown effect may run: a call, a suspension, the entry to a resource's block. */
function effectIn(statements: readonly SyntaxNode[]): SyntaxNode | undefined {
  for (const statement of statements) {
    const { language } = statement.tree;
    for (const node of statement.descendants()) {
      if (node.named && (node.is(language.suspensions) || node.is(language.resourceBlocks))) return node;
      if (node.is(language.calls) && !changesNothing(node)) return node;
    }
  }
  return undefined;
}

function changesNothing(call: SyntaxNode): boolean {
  const row = calledFromLibrary(call);
  return row !== undefined && row.effect !== "changes" && row.runs !== true;
}

/** An item set or deleted, or `+=` on what is not known to be a number or a string: it could be the same list. */
function changeThroughAnotherName(statements: readonly SyntaxNode[]): SyntaxNode | undefined {
  for (const statement of statements) {
    const { language } = statement.tree;
    for (const node of statement.descendants()) {
      if (node.is(language.indexReads) && isTarget(node)) return node;
      const target = node.is(language.augmented) ? node.child("left") : undefined;
      if (target && !isNumberOrString(target)) return node;
    }
  }
  return undefined;
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
    if (!call?.is(language.calls)) return call === undefined;
    // What reads an item by its name is no change; whether it does more is asked of the call.
    return !changesNothing(call) && !language.flow.missing.itemReads.includes(parent.lastPart?.text ?? "");
  }
  return isTarget(use);
}
