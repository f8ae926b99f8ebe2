import {
  collected,
  condition,
  copy,
  holes,
  isBuiltin,
  mayRunAnyway,
  no,
  rule,
  sameCode,
  shortened,
  text,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { isNotSeenGrowing } from "../../family/collecting.js";
import { evaluatedFor, onlyAsks, runsAlone, staysAlike } from "../../family/in-function.js";
import { called, receiver, together } from "../../family/item-function.js";
import { withoutParentheses } from "../../family/parentheses.js";
import {
  endsNames,
  givesWhatIsKnown,
  headOf,
  isArray,
  isListOfNodes,
  isNamedIn,
  isReadFirst,
  keepsTypes,
  METHODS,
  walkedBy,
} from "./walked.js";
import { isFilled } from "../filled.js";

const { list, items, value } = holes({
  list: { kind: "name", node: "identifier" },
  items: "expression",
  value: "expression",
});

/** Is what is added the item itself? */
function addsItem({ collecting }: Match): boolean {
  const { item } = walkedBy(collecting);
  return item.is("identifier") && item.text === collecting.value.text;
}

/** Is an array known to be walked, or one of its methods called for it? */
const isList = (match: Match): boolean => isByMethod(match) || isArray(match, match.collecting).is === "yes";

/** Does a method walk it that arrays have, and perhaps others? Lists of nodes hand on what `Array.from` does. */
const isByMethod = ({ collecting: { fn, items: walks } }: Match): boolean =>
  fn !== undefined && !isListOfNodes(withoutParentheses(walks));

/** What is evaluated for an item, in the order in which it is. */
const evaluated = ({ collecting }: Match): SyntaxNode[] => evaluatedFor(collecting);

/** A loop refuses what only has a length, and `Array.from` takes it. */
function canBeWalked({ collecting: { items: walks } }: Match): Answer {
  const node = withoutParentheses(walks);
  const shown = shortened(node.text);
  if (/^document\./.test(node.text) && isListOfNodes(node)) return isBuiltin("document", node);
  const type = typeOf(node);
  return type &&
    !type.declared &&
    type.module === undefined &&
    /^(Set|Map|Array|string|Iterator|Generator)$/.test(type.name)
    ? yes("type.is", type.why, type.at)
    : unknown(
        "type.not-known",
        `\`${shown}\` could be an object with nothing but a length, which a loop refuses`,
        node,
      );
}

/** A test of all items comes ahead of all values from now on. */
function areApart(match: Match): Answer {
  const open = evaluated(match).find((part) => mayRunAnyway(part).is !== "yes");
  return open
    ? unknown("effect.evaluated", `\`${shortened(open.text)}\` could do something that a test asks for`, open)
    : yes("effect.evaluated", "tests and values do nothing else");
}

/** Places that were never filled stay so in a list that `map` makes, and are left out by `filter`. */
function hasNoGaps(match: Match): Answer {
  const { collecting } = match;
  return isReadFirst(collecting, evaluated(match)[0]!)
    ? yes("value.kind", "something is read of each item first, so each is there")
    : isFilled(withoutParentheses(walkedBy(collecting).items));
}

/** Behind a test that leaves items out, the position is another one. */
function keepsPosition(match: Match): Answer {
  const [, ...others] = walkedBy(match.collecting).parameters;
  const { value: added } = match.collecting;
  const used = others.find((one) => isNamedIn(one, [added]));
  return used && (match.collecting.fn || isList(match))
    ? no("value.result", `\`${used.text}\` counts all items, and not only those that pass the test`, added)
    : yes("value.result", "the value is made from the item alone");
}

/** Behind a test TypeScript knows more of what was tested, and in another function it does not. */
function needsNoTest({ collecting: { sieves, value: added } }: Match): Answer {
  const paths = [...added.descendants()].filter((node) => node.is(["identifier", "member_expression"]));
  const tested = sieves
    .flatMap(({ test }) => [...test.descendants()])
    .find((node) => isAsked(node) && paths.some((path) => sameCode(path, node)));
  return tested
    ? unknown(
        "type.not-known",
        `the test may say more of the type of \`${shortened(tested.text)}\` than is known without it`,
        tested,
      )
    : yes("type.same", "nothing that is tested is part of the value");
}

/** Is it asked what a node is, and is it not only read of? */
const isAsked = (node: SyntaxNode): boolean =>
  node.is(["identifier", "member_expression"]) &&
  !(node.parent?.is("member_expression") && node.parent.firstPart!.same(node)) &&
  !node.parent?.is("arguments");

/** An object between braces would be read as the body of the function. */
function bodyOf(node: SyntaxNode): Segment[] {
  const code = withoutParentheses(node);
  const isOpen = code.is(["object", "sequence_expression"]);
  return isOpen ? [text("("), copy(code.start, code.end), text(")")] : [copy(code.start, code.end)];
}

/** The list as a copy, as a call of `Array.from`, or as calls of the methods of arrays. */
function becomes(match: Match): Segment[] {
  const { collecting } = match;
  const { sieves, value: added, item, items: all } = collecting;
  const { start, end } = withoutParentheses(all);
  const whole = copy(start, end);
  if (isCopy(match)) return [text("[..."), whole, text("]")];
  const walks = walkedBy(collecting);
  const [given, taken] = isList(match)
    ? [receiver(walks.items), walks]
    : [[text("[..."), whole, text("]")], collecting.fn ? walks : { parameters: [item!] }];
  const map = { open: ".map(", head: headOf(taken, [added]), code: bodyOf(added) };
  if (sieves.length === 0)
    return isList(match)
      ? called(match, given, map)
      : called(match, [text("Array.from("), whole], { ...map, open: ", " });
  const tests = sieves.map(({ test }) => test);
  const filter = { open: ".filter(", head: headOf(taken, tests), code: together(sieves, METHODS) };
  return called(match, given, filter, ...(addsItem(match) ? [] : [map]));
}

/** Is each item added as it is, whatever it is that is walked? */
const isCopy = (match: Match): boolean =>
  match.collecting.sieves.length === 0 &&
  addsItem(match) &&
  walkedBy(match.collecting).items.same(match.collecting.items);

/** Is what is walked taken item by item, as a loop takes it? */
const isTakenByItem = (match: Match): boolean =>
  isCopy(match) || (match.collecting.sieves.length === 0 && !isList(match));

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const mappedList = rule({
  id: "javascript/mapped-list",
  kind: "idiom",
  title: "Use map, filter or Array.from to make a list from another",
  why: "One call says what the list is made of, and nobody has to see that nothing else is done to it.",
  target: "2015",
  was: collected({ list, items, value }),
  given: [
    condition("what is walked is an array", (match) => isArray(match, match.collecting), {
      when: isByMethod,
      unknownIs: "possible",
    }),
    condition("what is walked can be walked", canBeWalked, {
      when: (match) => !isList(match) && match.collecting.sieves.length === 0 && !isCopy(match),
    }),
    condition("what is walked keeps its items", (match) => staysAlike(match.collecting, evaluated(match)), {
      when: (match) => !isTakenByItem(match) && !match.collecting.fn,
    }),
    condition("all of its places are filled", hasNoGaps, {
      when: (match) =>
        isByMethod(match) ? match.collecting.sieves.length === 0 : isList(match) && !isCopy(match),
    }),
    condition("`Array` is the one of the language", ({ node }) => isBuiltin("Array", node), {
      when: (match) => !isList(match) && !isCopy(match),
    }),
    condition("the names of the loop are not used afterwards", ({ collecting }) => endsNames(collecting)),
    condition("the new functions change nothing", (match) => onlyAsks(evaluated(match)), {
      when: (match) => !isCopy(match),
    }),
    condition("a function can do it", (match) => runsAlone(evaluated(match)), {
      when: (match) => !isCopy(match),
    }),
    condition("the value does not ask for the position", keepsPosition, {
      when: ({ collecting }) => collecting.sieves.length > 0,
    }),
    ...isNotSeenGrowing(),
    condition("tests and values do not see what the others do", areApart, {
      when: (match) => match.collecting.sieves.length > 0 && !addsItem(match),
    }),
    condition(
      "the function calls itself nowhere here",
      (match) => givesWhatIsKnown(match.collecting, evaluated(match)),
      {
        when: ({ tree }) => tree.language.id !== "javascript",
      },
    ),
    condition("types stay as narrow as they are", (match) => keepsTypes(match.collecting, evaluated(match)), {
      when: (match) => match.tree.language.id !== "javascript" && !isCopy(match),
    }),
    condition("the value needs no test for its type", needsNoTest, {
      when: (match) => match.tree.language.id !== "javascript" && match.collecting.sieves.length > 0,
      unknownIs: "possible",
    }),
  ],
  becomes,
  trials: [
    ts.rewrites(
      "function f(jars: Jar[]) {\n  const names = [];\n  for (const jar of jars) {\n    names.push(jar.name);\n  }\n  return names;\n}",
      "function f(jars: Jar[]) {\n  const names = jars.map((jar) => jar.name);\n  return names;\n}",
    ),
    // Whatever can be walked.
    js.rewrites(
      "function f(jars) {\n  const names = [];\n  for (const jar of jars) names.push(jar.name);\n  return names;\n}",
      "function f(jars) {\n  const names = Array.from(jars, (jar) => jar.name);\n  return names;\n}",
      "likely",
    ),
    ts.rewrites(
      "function f(jars: Set<Jar>) {\n  const names = [];\n  for (const jar of jars) names.push(jar.name);\n  return names;\n}",
      "function f(jars: Set<Jar>) {\n  const names = Array.from(jars, (jar) => jar.name);\n  return names;\n}",
    ),
    js.rewrites(
      "function f(jars) {\n  const all = [];\n  for (const jar of jars) all.push(jar);\n  return all;\n}",
      "function f(jars) {\n  const all = [...jars];\n  return all;\n}",
    ),
    ts.rewrites(
      "function f(jars: Jar[]) {\n  const full: Jar[] = [];\n  for (const jar of jars) if (jar.kg > 3) full.push(jar);\n  return full;\n}",
      "function f(jars: Jar[]) {\n  const full: Jar[] = jars.filter((jar) => jar.kg > 3);\n  return full;\n}",
    ),
    ts.rewrites(
      "function f(jars: Jar[]) {\n  const full: { name: string }[] = [];\n  for (const jar of jars) {\n    if (jar.kg < 3) continue;\n    full.push({ name: jar.name });\n  }\n  return full;\n}",
      "function f(jars: Jar[]) {\n  const full: { name: string }[] = jars\n    .filter((jar) => !(jar.kg < 3))\n    .map((jar) => ({ name: jar.name }));\n  return full;\n}",
      "likely",
    ),
    ts.rewrites(
      'function f(names: string[]) {\n  const lines = [];\n  for (const [i, name] of names.entries()) lines.push(`${i}: ${name}`);\n  return lines.join("\\n");\n}',
      'function f(names: string[]) {\n  const lines = names.map((name, i) => `${i}: ${name}`);\n  return lines.join("\\n");\n}',
      "likely",
    ),
    ts.rewrites(
      "function f(jars: Jar[]) {\n  const names = [];\n  for (const jar of jars) {\n    const name = jar.name.trim();\n    names.push(name);\n  }\n  return names;\n}",
      "function f(jars: Jar[]) {\n  const names = jars.map((jar) => jar.name.trim());\n  return names;\n}",
      "likely",
    ),
    ts.ignores(
      "function f(jars: Jar[]) {\n  const names = [];\n  let name;\n  for (const jar of jars) {\n    name = jar.name;\n    names.push(name);\n  }\n  return [names, name];\n}",
    ),
    ts.rewrites(
      "function f(jars: ({ kg: number } | null)[]) {\n  const all = [];\n  for (const jar of jars) all.push(jar.kg);\n  return all;\n}",
      "function f(jars: ({ kg: number } | null)[]) {\n  const all = jars.map((jar) => jar.kg);\n  return all;\n}",
    ),
    ts.rewrites(
      "function f(jars: () => Jar[]) {\n  const all = [];\n  for (const jar of jars) all.push(jar.kg);\n  return all;\n}",
      "function f(jars: () => Jar[]) {\n  const all = Array.from(jars, (jar) => jar.kg);\n  return all;\n}",
      "likely",
    ),
    // The test says that the lid is there, and another function does not know that.
    ts.rewrites(
      "function f(jars: Jar[]) {\n  const lids: Lid[] = [];\n  for (const jar of jars) if (jar.lid) lids.push(jar.lid);\n  return lids;\n}",
      "function f(jars: Jar[]) {\n  const lids: Lid[] = jars.filter((jar) => jar.lid).map((jar) => jar.lid);\n  return lids;\n}",
      "possible",
    ),
    js.rewrites(
      "function f(jars) {\n  const full = [];\n  for (const jar of jars) if (jar.isFull()) full.push(jar);\n  return full;\n}",
      "function f(jars) {\n  const full = [...jars].filter((jar) => jar.isFull());\n  return full;\n}",
      "likely",
    ),
    // A comment that says what is declared stays with it.
    js.rewrites(
      "function f(jars) {\n  /** @type {string[]} */\n  const names = [];\n  for (const jar of jars) {\n    names.push(jar.name);\n  }\n  return names;\n}",
      "function f(jars) {\n  /** @type {string[]} */\n  const names = Array.from(jars, (jar) => jar.name);\n  return names;\n}",
      "likely",
    ),
    js.rewrites(
      'function f() {\n  const all = [];\n  document.querySelectorAll("li").forEach((jar, i) => all.push({ jar, i }));\n  return all;\n}',
      'function f() {\n  const all = Array.from(document.querySelectorAll("li"), (jar, i) => ({ jar, i }));\n  return all;\n}',
    ),
    js.holds(
      "async function f(jars) {\n  const all = [];\n  for (const jar of jars) all.push(await jar.weigh());\n  return all;\n}",
      "may not stand",
    ),
    js.holds(
      "function f(jars) {\n  const all = [];\n  for (const jar of jars) all.push(all.length + jar.kg);\n  return all;\n}",
      "is read while",
    ),
    js.holds(
      "function f(jars) {\n  const all = [];\n  for (var jar of jars) all.push(() => jar);\n  return all;\n}",
      "outside of this loop",
    ),
    js.holds(
      "function f(jars) {\n  try {\n    var all = [];\n    for (const jar of jars) all.push(jar.weigh());\n  } catch {}\n  return all;\n}",
      "is read after",
    ),
    ts.rewrites(
      "function f(jars: Jar[]) {\n  const all: string[] = [];\n  jars.forEach(function (jar, i) {\n    if (!jar.full || i < 3) return;\n    all.push(jar.name);\n  });\n  return all;\n}",
      "function f(jars: Jar[]) {\n  const all: string[] = jars.filter((jar, i) => !(!jar.full || i < 3)).map((jar) => jar.name);\n  return all;\n}",
      "likely",
    ),
    ts.holds(
      "function f(jars: Jar[]) {\n  const all: string[] = [];\n  jars.forEach((jar, i) => {\n    if (jar.full) all.push(`${i}: ${jar.name}`);\n  });\n  return all;\n}",
      "counts all items",
    ),
    ts.holds(
      "function f(jars: Jar[]) {\n  const all: string[] = [];\n  for (const [i, jar] of jars.entries()) if (jar.full) all.push(`${i}: ${jar.name}`);\n  return all;\n}",
      "counts all items",
    ),
    // A map hands over a value and a key, where a loop takes a pair.
    ts.holds(
      "function f(jars: Map<string, Jar>) {\n  const all: Jar[] = [];\n  jars.forEach((jar) => all.push(jar));\n  return all;\n}",
      "not an array",
    ),
    js.rewrites(
      "function f(jars) {\n  const all = [];\n  jars.forEach((jar) => all.push(jar.name));\n  return all;\n}",
      "function f(jars) {\n  const all = jars.map((jar) => jar.name);\n  return all;\n}",
      "possible",
    ),
    js.ignores(
      "function f(jars) {\n  const all = [];\n  jars.forEach(async (jar) => all.push(await jar.weigh()));\n  return all;\n}",
    ),
    js.ignores(
      "function f(jars) {\n  const all = [];\n  jars.forEach(function (jar) { all.push(this.weigh(jar)); }, this);\n  return all;\n}",
    ),
    js.ignores("function f(jars, all) {\n  for (const jar of jars) all.push(jar);\n}"),
    js.ignores(
      "function f(jars) {\n  const all = [];\n  for (const jar of jars) all.push(...jar);\n  return all;\n}",
    ),
    js.ignores(
      "function f(jars) {\n  const all = [];\n  for (const jar of jars) all.push(jar, 1);\n  return all;\n}",
    ),
    js.ignores(
      "function f(jars) {\n  const all = [];\n  for (const jar in jars) all.push(jar);\n  return all;\n}",
    ),
    js.ignores(
      "function f(jars) {\n  const all = [1];\n  for (const jar of jars) all.push(jar);\n  return all;\n}",
    ),
    js.ignores(
      "async function f(jars) {\n  const all = [];\n  for await (const jar of jars) all.push(jar);\n  return all;\n}",
    ),
  ],
});
