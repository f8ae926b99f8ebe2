import { parse, type Language, type SyntaxNode } from "../../syntax/index.js";
import type { Narrowing } from "../around.js";

/** Stands in the code of rows for what `…` stands for, so that it can be parsed. */
const ANY = "uvranAny";

/**
 * Is it a call whose arguments cannot be seen: one of them stands for several, something else stands where all rows write an
 * object or a list out, or the keys of a row stand there in another order? `olds` is the old code of the rows.
 */
export function isBlindCall(olds: readonly string[]): Narrowing {
  const known = new Map<Language, readonly (readonly SyntaxNode[])[]>();
  const writtenIn = (language: Language): readonly (readonly SyntaxNode[])[] => {
    let written = known.get(language);
    if (!written) known.set(language, (written = olds.map((old) => writtenArguments(old, language))));
    return written;
  };
  return ({ node }) => {
    const { language } = node.tree;
    const { calls, spreads, stores } = language;
    const call = node.parent?.is(calls) && node.parent.firstPart?.same(node) ? node.parent : undefined;
    if (!call) return false;
    const written = writtenIn(language);
    return argumentsOf(call).some((part, i) => {
      if (part.is(spreads) || part.parts.some((one) => one.is(spreads))) return true;
      const theirs = written.map((one) => plain(one[i]));
      if (!theirs.every((one) => one?.is(stores))) return false;
      const own = plain(part)!;
      return !own.is(stores) || theirs.some((one) => hasKeysOf(own, one!));
    });
  };
}

function argumentsOf(call: SyntaxNode): readonly SyntaxNode[] {
  return call.parts.find((part) => part.is(call.tree.language.argumentLists))?.parts ?? [];
}

/** The arguments of the first call in the code of a row. */
function writtenArguments(code: string, language: Language): readonly SyntaxNode[] {
  const { before = "", after = "" } = language.contexts.find(({ name }) => name === "statement") ?? {};
  const { root } = parse(before + code.replaceAll("…", ANY) + after, language);
  const call = [...root.descendants()].find((node) => node.is(language.calls));
  return call ? argumentsOf(call) : [];
}

/** What an argument is, where the grammar has a node around it. */
function plain(argument: SyntaxNode | undefined): SyntaxNode | undefined {
  const isAround = argument?.parts.length === 1 && argument.is(argument.tree.language.notExpressions);
  return isAround ? argument.firstPart : argument;
}

/** Does an object have all the keys of another one, of which there are several? */
function hasKeysOf(object: SyntaxNode, other: SyntaxNode): boolean {
  const wanted = keysOf(other).filter((key) => key !== ANY);
  const own = keysOf(object);
  return wanted.length > 1 && wanted.every((key) => own.includes(key));
}

const keysOf = (object: SyntaxNode): string[] =>
  object.parts.map((part) => (part.isLeaf ? part.text : (part.firstPart?.text ?? "")));
