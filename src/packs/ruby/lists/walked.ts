import {
  copy,
  isDefinedInProject,
  isValueSeen,
  mayRunAnyway,
  no,
  shortened,
  text,
  typeOf,
  unknown,
  unnegated,
  weakest,
  yes,
} from "../../../core.js";
import type { Answer, Segment, Sieve, Sifted, SyntaxNode } from "../../../core.js";
import { withoutParentheses } from "../../family/parentheses.js";

/** Classes of which every one walks itself in all its methods as `each` does. */
const MAPPED = ["Array", "Range"];

/**
 * What is walked has the methods of lists, and they hand on the same items; `isSieved` where `select` or `reject` is among
 * them, which hand on a hash in another way.
 */
export function isWalkedAlike(
  { items: walks, item }: Sifted,
  tree: SyntaxNode["tree"],
  isSieved: boolean,
): Answer {
  const name = shortened(walks.text);
  const inner = withoutParentheses(walks);
  const type = typeOf(inner);
  if (inner.is("range") && !isDefinedInProject("Range", tree))
    return yes("type.is", `\`${name}\` is a range`, inner);
  const isPlain = type !== undefined && type.declared === undefined && !isDefinedInProject(type.name, tree);
  if (isPlain && MAPPED.includes(type.name)) return yes("type.is", type.why, type.at);
  if (isPlain && type.name === "Hash") {
    // It hands `each` and `map` one pair, and `select` a key and a value.
    const names = item?.parts ?? [];
    const isAlike = names.length === 2 && names.every((one) => one.is("identifier"));
    return !isSieved || isAlike
      ? yes("type.is", type.why, type.at)
      : no("type.is", `${type.why}, of which \`select\` gives a key and a value, and makes a hash`, type.at);
  }
  return unknown("type.is", `\`${name}\` could be a hash, or of a class that has \`each\` alone`, walks);
}

/** Nothing leaves the block but by its end. */
export function runsThrough(parts: readonly SyntaxNode[]): Answer {
  const jump = parts
    .flatMap((part) => [...part.descendants()])
    .find((node) => node.is(["break", "next", "redo", "retry", "return"]) && node.named);
  return jump
    ? no("flow.leaves-early", `\`${shortened(jump.text)}\` leaves the block`, jump)
    : yes("flow.leaves-early", "nothing leaves the block early");
}

/** What does something by itself, or may do anything. */
const DOING = ["assignment", "operator_assignment", "yield", "super", "block", "do_block", "block_argument"];

/** Is a method of the object itself called with something? */
const isOwnCall = (node: SyntaxNode): boolean =>
  node.is("call") && !node.child("receiver") && node.child("arguments") !== undefined;

/** What does something for certain. */
export function doingIn(parts: readonly SyntaxNode[]): SyntaxNode | undefined {
  return parts
    .flatMap((part) => [...part.descendants()])
    .find((node) => node.is(DOING) || (node.is("identifier") && /[!=]$/.test(node.text)) || isOwnCall(node));
}

/** What a test for a pattern, or a command, leaves behind it. */
const LAST_MATCH = /^(?:\$[~&'`+?!\d]+|last_match)$/;

/** The variables that a pattern with named groups makes: `/(?<year>\d+)/ =~ text`. */
const namesFoundIn = (test: SyntaxNode): string[] =>
  [...test.descendants()].flatMap((node) =>
    node.is("regex") ? [...node.text.matchAll(/\(\?<([a-z_]\w*)>/g)].map(([, name]) => name!) : [],
  );

/** Code that would stand on several lines in the braces of a block. */
export function areOnLines(parts: readonly SyntaxNode[]): Answer {
  const long = parts.find((part) => part.text.includes("\n"));
  return long
    ? no("form.fits", `\`${shortened(long.text)}\` stands on several lines`, long)
    : yes("form.fits", "each part stands on one line");
}

/** Does a test nothing but ask? A method that is asked by its name alone does more, unless the name ends in `?`. */
export function onlyAsks(test: SyntaxNode): Answer {
  const { test: asked } = unnegated(test);
  const shown = shortened(asked.text);
  if (asked.is("binary") && /^(?:&&|\|\||and|or)$/.test(asked.child("operator")!.text))
    return weakest([onlyAsks(asked.firstPart!), onlyAsks(asked.lastPart!)]);
  const method = asked.is("call") ? asked.child("method")!.text : undefined;
  const does = doingIn([asked]);
  if (does || (method !== undefined && !method.endsWith("?")))
    return no("effect.side-effect", `\`${shown}\` may do something`, does ?? asked);
  return mayRunAnyway(asked).is === "yes"
    ? yes("effect.side-effect", `\`${shown}\` only asks`, asked)
    : unknown("effect.side-effect", `\`${shown}\` could do something`, asked);
}

/** All tests are asked ahead of all values from now on, where both are worked out. */
export function areApart(values: readonly SyntaxNode[], sieves: readonly Sieve[]): Answer {
  if (sieves.length === 0 || values.length === 0)
    return yes("effect.evaluated", "everything is evaluated in the same order");
  const parts = [...values, ...sieves.map(({ test }) => test)];
  // What the last match has left is what the last test has found by then.
  const named = sieves.flatMap(({ test }) => namesFoundIn(test));
  const matched = values
    .flatMap((part) => [...part.descendants()])
    .find((node) => LAST_MATCH.test(node.text) || (node.is("identifier") && named.includes(node.text)));
  if (matched)
    return no("effect.evaluated", `\`${matched.text}\` is what the test ahead of it has found`, matched);
  const does = doingIn(parts);
  if (does)
    return no("effect.evaluated", `\`${shortened(does.text)}\` may do something between two tests`, does);
  const open = parts.find((part) => mayRunAnyway(part).is !== "yes");
  return open
    ? unknown("effect.evaluated", `\`${shortened(open.text)}\` could do something that a test asks for`, open)
    : yes("effect.evaluated", "tests and values do nothing else");
}

/** The loop can give way to a call with a block; one test can take the place of several where they are asked together. */
export function isCallable({ loop, sieves }: Sifted, areTogether = false): Answer {
  if (loop.is("for")) return no("name.scope", "`for` keeps its names for what comes behind it", loop);
  if (sieves.length > 1 && !areTogether)
    return no("form.fits", "several tests are asked one after the other", loop);
  return yes("form.fits", "it is one call with a block");
}

/** What the loop comes to is used by nobody. */
export const isUnseen = ({ loop }: Sifted): Answer =>
  isValueSeen(loop)
    ? no("value.result", "what the loop comes to is used", loop)
    : yes("value.result", "what the loop comes to is not used");

/** A method of lists with a block for each item. */
export function block(method: string, { item }: Sifted, code: readonly Segment[]): Segment[] {
  const names = item ? `${item.text} ` : "";
  return [text(`.${method} { ${names}`), ...code, text(" }")];
}

/** The test of a sieve without what turns it round, and whether it must hold. */
export function askedBy({ test, isTrue }: Sieve): { readonly code: Segment[]; readonly isTrue: boolean } {
  const asked = unnegated(test);
  return { code: whole(asked.test), isTrue: asked.isTrue === isTrue };
}

/** Operators that bind less than `&&` does. */
const LOOSE = ["conditional", "assignment", "operator_assignment", "rescue_modifier"];

/** All tests as one, joined by `&&`. */
export function together(sieves: readonly Sieve[]): Segment[] {
  return sieves.flatMap((sieve, i) => {
    const { code, isTrue } = askedBy(sieve);
    const inner = withoutParentheses(unnegated(sieve.test).test);
    const operator = inner.is("binary") ? inner.child("operator")!.text : "";
    const isLoose = inner.is(LOOSE) || ["||", "and", "or"].includes(operator);
    const isPlain = inner.is(["identifier", "call", "element_reference", "instance_variable"]);
    const bare = isTrue ? !isLoose || sieves.length === 1 : isPlain;
    const one = bare ? code : [text("("), ...code, text(")")];
    return [...(i === 0 ? [] : [text(" && ")]), ...(isTrue ? [] : [text("!")]), ...one];
  });
}

/** `.select { |item| test }`, `.reject { |item| test }`. */
export function sievedBy(walked: Sifted): Segment[] {
  return walked.sieves.flatMap((sieve) => {
    const { code, isTrue } = askedBy(sieve);
    return block(isTrue ? "select" : "reject", walked, code);
  });
}

/** An expression as it stands, without brackets around it. */
export function whole(node: SyntaxNode): Segment[] {
  const { start, end } = withoutParentheses(node);
  return [copy(start, end)];
}
