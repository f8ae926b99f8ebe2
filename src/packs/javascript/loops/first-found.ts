import {
  condition,
  copy,
  firstFound,
  holes,
  isMissing,
  no,
  rule,
  shortened,
  text,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { isNotSeenSeeking } from "../../family/collecting.js";
import { evaluatedFor } from "../../family/in-function.js";
import { called, receiver, together } from "../../family/item-function.js";
import { isThere } from "../there.js";
import { holdsNoMissing } from "./asserted.js";
import { notNarrowed } from "./narrowed-item.js";
import { asMethod, headOf, isNamedIn, isReadFirst, METHODS, walkedBy } from "./walked.js";

const { items } = holes({ items: "expression" });

const partsIn = ({ sought }: Match): SyntaxNode[] => evaluatedFor(sought);

const isItem = ({ sought }: Match): boolean => walkedBy(sought).item.text === sought.value.text;

/** What is read of the item that is found: `.name`, `.lid.size`, `.weigh()`; undefined where it is not only read. */
function readOf({ sought }: Match): SyntaxNode | undefined {
  const { value } = sought;
  let at = value;
  while (at.is(["member_expression", "call_expression", "subscript_expression"]) && at.firstPart)
    at = at.firstPart;
  const isRead =
    at.is("identifier") && at.text === walkedBy(sought).item.text && !at.parent!.child("optional_chain");
  const [, ...others] = walkedBy(sought).parameters;
  const isAlone = value.mentions(at.text).length === 1 && !others.some((one) => isNamedIn(one, [value]));
  return isRead && isAlone ? at : undefined;
}

/** Is the position of the item kept, and -1 where there is none? */
function isPosition({ sought }: Match): boolean {
  const [, position] = walkedBy(sought).parameters;
  return sought.value.text === position?.text && sought.otherwise?.text === "-1";
}

/** Is the value of a default undefined, which is what `find` gives where it finds nothing? */
const isUndefined = ({ sought: { otherwise } }: Match): boolean =>
  !otherwise || /^(undefined|void 0)$/.test(otherwise.text);

function fits(match: Match): Answer {
  const { value, otherwise } = match.sought;
  const code = "form.fits";
  if (isPosition(match)) return yes(code, "it is the position, or -1");
  if (!isItem(match) && !readOf(match))
    return no(
      code,
      `\`${shortened(value.text)}\` is worked out from the item in another way than by reading it`,
      value,
    );
  return otherwise &&
    !isMissing(otherwise) &&
    !otherwise.isLeaf &&
    !otherwise.is(["string", "unary_expression"])
    ? no(code, `\`${shortened(otherwise.text)}\` is no plain default`, otherwise)
    : yes(code, "it is one expression");
}

/** `??` takes the default also where there is an item, and what is kept of it is missing. */
function isThereIfFound(match: Match): Answer {
  const { sought } = match;
  const { value, sieves } = sought;
  if (isUndefined(match) || isPosition(match)) return yes("value.null", "no default is needed");
  if (isItem(match) && isReadFirst(sought, sieves[0]!.test))
    return yes("value.null", "the test has read something of the item, so the item is there", value);
  const there = isItem(match) ? holdsNoMissing(match, walkedBy(sought).items, value) : isThere(match, value);
  if (there.is === "yes") return there;
  const says = `\`${shortened(value.text)}\` could be missing, for which the new code takes the default`;
  return unknown("value.null", says, value);
}

function becomes(match: Match): Segment[] {
  const { sought } = match;
  const walks = walkedBy(sought);
  const tests = sought.sieves.map(({ test }) => test);
  const code = together(sought.sieves, METHODS);
  const open = isPosition(match) ? ".findIndex(" : ".find(";
  const found = called(match, receiver(walks.items), { open, head: headOf(walks, tests), code });
  if (isPosition(match)) return found;
  const { value, otherwise } = sought;
  const read = isItem(match) ? undefined : readOf(match);
  const rest = read ? match.tree.text.slice(read.end, value.end) : "";
  const safely = read ? [text("?."), copy(read.end + (rest.startsWith(".") ? 1 : 0), value.end)] : [];
  const fallback =
    otherwise && !isUndefined(match) ? [text(" ?? "), copy(otherwise.start, otherwise.end)] : [];
  return [...found, ...safely, ...fallback];
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const firstFoundRule = rule({
  id: "javascript/first-found",
  kind: "idiom",
  title: "Use find or findIndex to take the first item that passes a test",
  why: "What is looked for stands in one expression, and the reader need not see where the loop is left.",
  target: "2020",
  was: firstFound(items),
  given: [
    condition("it is the item, or what is read of it", fits),
    ...asMethod(({ sought }) => sought, partsIn, { visitsGaps: true }),
    condition("the default is only for where nothing is found", isThereIfFound, { unknownIs: "possible" }),
    ...isNotSeenSeeking(),
    notNarrowed,
  ],
  becomes,
  trials: [
    ts.rewrites(
      "function f(jars: Jar[], id: number) {\n  for (const jar of jars) {\n    if (jar.id === id) return jar;\n  }\n}",
      "function f(jars: Jar[], id: number) {\n  return jars.find((jar) => jar.id === id);\n}",
    ),
    ts.rewrites(
      "function f(jars: Jar[], id: number) {\n  let found: Jar | undefined;\n  for (const jar of jars) {\n    if (jar.id === id) {\n      found = jar;\n      break;\n    }\n  }\n  return found;\n}",
      "function f(jars: Jar[], id: number) {\n  let found: Jar | undefined = jars.find((jar) => jar.id === id);\n  return found;\n}",
    ),
    ts.rewrites(
      "function f(jars: Jar[], id: number) {\n  for (const jar of jars) if (jar.id === id) return jar;\n  return null;\n}",
      "function f(jars: Jar[], id: number) {\n  return jars.find((jar) => jar.id === id) ?? null;\n}",
    ),
    ts.rewrites(
      "function f(jars: Jar[]) {\n  for (const jar of jars) if (jar.full && !jar.old) return jar.lid.size;\n  return undefined;\n}",
      "function f(jars: Jar[]) {\n  return jars.find((jar) => jar.full && !jar.old)?.lid.size;\n}",
    ),
    ts.rewrites(
      "function f(jars: Jar[], id: number) {\n  for (const [i, jar] of jars.entries()) if (jar.id === id && i > 3) return i;\n  return -1;\n}",
      "function f(jars: Jar[], id: number) {\n  return jars.findIndex((jar, i) => jar.id === id && i > 3);\n}",
    ),
    ts.holds(
      "function f(jars: Jar[], id: number) {\n  for (const [i, jar] of jars.entries()) if (jar.id === id) return jar.part(i);\n  return undefined;\n}",
      "in another way",
    ),
    // What is read may be missing itself.
    ts.rewrites(
      'function f(jars: Jar[]) {\n  for (const jar of jars) if (jar.full) return jar.label;\n  return "none";\n}',
      'function f(jars: Jar[]) {\n  return jars.find((jar) => jar.full)?.label ?? "none";\n}',
      "possible",
    ),
    ts.rewrites(
      "function f(names: string[], by: (name: string) => boolean) {\n  for (const name of names) if (by(name)) return name;\n  return null;\n}",
      "function f(names: string[], by: (name: string) => boolean) {\n  return names.find((name) => by(name)) ?? null;\n}",
      "likely",
    ),
    ts.holds(
      "function f(jars: (Jar | null)[]): Jar | undefined {\n  for (const jar of jars) if (jar !== null && jar.full) return jar;\n  return undefined;\n}",
      "makes narrower",
    ),
    ts.holds(
      "function f(all: (Jar | string)[]): string | undefined {\n  for (const one of all) if (typeof one === 'string') return one;\n}",
      "makes narrower",
    ),
    ts.rewrites(
      "function f(all: Thing[]): Jar | undefined {\n  for (const one of all) if (one.kind === 'jar') return one;\n}",
      "function f(all: Thing[]): Jar | undefined {\n  return all.find((one) => one.kind === 'jar');\n}",
      "likely",
    ),
    js.rewrites(
      "function f(jars, n) {\n  let first = null;\n  for (const jar of jars) if (jar.n === n) { first = jar; break; }\n  return first;\n}",
      "function f(jars, n) {\n  let first = jars.find((jar) => jar.n === n) ?? null;\n  return first;\n}",
      "possible",
    ),
    ts.holds(
      "function f(jars: Jar[]) {\n  for (const jar of jars) if (jar.full) return weigh(jar);\n  return null;\n}",
      "in another way",
    ),
    ts.holds(
      "function f(jars: Jar[]) {\n  for (const jar of jars) if (jar.full) return jar;\n  return make();\n}",
      "no plain default",
    ),
    ts.holds(
      "async function f(jars: Jar[]) {\n  for (const jar of jars) if (await jar.full) return jar;\n}",
      "may not stand",
    ),
    ts.holds(
      "function f(jars: Map<string, Jar>) {\n  for (const jar of jars) if (jar.full) return jar;\n}",
      "not an array",
    ),
    // `var` alone gives nothing: what an earlier round has found is still there.
    ts.ignores(
      "function f(crates: Jar[][]) {\n  for (const jars of crates) {\n    var found;\n    for (const jar of jars) if (jar.full) { found = jar; break; }\n    g(found);\n  }\n}",
    ),
    // The sign promises that the variable is given its value later.
    ts.ignores(
      "function f(jars: Jar[]) {\n  let found!: Jar;\n  for (const jar of jars) if (jar.full) { found = jar; break; }\n  return found;\n}",
    ),
    ts.ignores(
      "function f(jars: Jar[]) {\n  if (jars) {\n    for (const jar of jars) if (jar.full) return jar;\n  }\n  g();\n}",
    ),
    ts.ignores(
      "function f(jars: Jar[]) {\n  let found;\n  for (const jar of jars) if (jar.full) found = jar;\n  return found;\n}",
    ),
    ts.ignores(
      "function f(jars: Jar[]) {\n  for (const jar of jars) if (jar.full) return jar;\n  throw new Error();\n}",
    ),
    ts.ignores(
      "function f(jars: Jar[]) {\n  let a, b;\n  for (const jar of jars) if (jar.full) { b = jar; break; }\n  return b;\n}",
    ),
  ],
});
