import {
  changesOf,
  condition,
  copy,
  fresh,
  holes,
  isLeftAlone,
  isUnchanged,
  isUsedAfter,
  neverWritten,
  no,
  referencesAt,
  referencesOf,
  removal,
  rule,
  runsLater,
  trialsIn,
  unknown,
  walked,
  yes,
} from "../../../core.js";
import type { Answer, Declaration, Match, Segment, SyntaxNode } from "../../../core.js";
import { kindOf } from "../kinds.js";
import { assertsNoMore } from "./asserted.js";

const { index, items, body } = holes({ index: "name", items: "expression", body: "statements" });
const item = fresh("item", { singularOf: items });

const declarationAt = (name: SyntaxNode): Declaration | undefined =>
  referencesAt(name).find(({ member }) => !member)?.to;

/** The first part of the header of a loop. */
const beginning = ({ loop }: Match): SyntaxNode | undefined => loop.node.child("initializer");

/** The first statement of the loop, where all that it does is to give the item a name. */
function ownOf({ loop }: Match): { statement: SyntaxNode; name: SyntaxNode; word: string } | undefined {
  const { own, body: statements } = loop;
  if (!own || statements.length < 2 || own.name.parent?.child("type")) return undefined;
  const word = /^(var|let|const)\s/.exec(own.statement.text)?.[1];
  const isAssignment = own.statement.is("expression_statement");
  if (word === undefined && !isAssignment) return undefined;
  if (word !== undefined && own.statement.parts.length !== 1) return undefined;
  const declared = word === undefined && declaredInHeader(own.name);
  return { ...own, word: word === undefined ? (declared ? "let " : "") : `${word} ` };
}

/** Is a name declared beside the position: `for (let i = 0, jar; …)`? */
function declaredInHeader(name: SyntaxNode): boolean {
  const loop = name.closest(["for_statement"]);
  const first = loop?.child("initializer");
  return declarationAt(name)?.at.some((at) => first?.holds(at)) ?? false;
}

/** The names that the header declares beside the position, and that are used outside of it. */
function neededNames(match: Match): SyntaxNode | undefined {
  const first = beginning(match);
  const own = ownOf(match);
  const { loop } = match;
  for (const part of first?.is(["variable_declaration", "lexical_declaration"]) ? first.parts : []) {
    const name = part.child("name");
    if (!name || name.same(loop.index)) continue;
    const to = declarationAt(name);
    const isIt = own !== undefined && to !== undefined && declarationAt(own.name) === to;
    const used = to && referencesOf(to).find(({ node }) => !isInHeader(node, loop.header));
    if (isIt ? used && !loop.node.holds(used.node) : used) return used?.node;
    if (!to) return name;
  }
  return undefined;
}

const isInHeader = (node: SyntaxNode, { start, end }: { start: number; end: number }): boolean =>
  node.start >= start && node.end <= end;

/** Is the position needed elsewhere, or its declaration? */
function indexIsDone(match: Match): Answer {
  const { loop } = match;
  const first = beginning(match);
  const code = "resource.used-after";
  if (first?.is("lexical_declaration")) return yes(code, `\`${loop.index.text}\` is seen in the loop only`);
  const to = declarationAt(loop.index);
  if (!to) return unknown(code, `what declares \`${loop.index.text}\` is not known`, loop.index);
  const later = loop.others.find((at) => loop.body.some((part) => part.holds(at) && runsLater(at, part)));
  if (later) return no(code, `\`${loop.index.text}\` is seen by a function that may run later`, later);
  const used = isUsedAfter(to, loop.node);
  if (used.is !== "no") return used.is === "yes" ? no(code, used.evidence.says, used.evidence) : used;
  const isHere = to.at.some((at) => first?.holds(at));
  const others = to.at.filter((at) => !first?.holds(at));
  const needed = isHere && others.length === 0 && loop.outside[0];
  return needed
    ? no(code, `\`${loop.index.text}\` is declared in this loop, and used outside of it`, needed)
    : yes(code, `\`${loop.index.text}\` is not used behind the loop`);
}

/** What the loop walks is an array, or can be walked like one. */
function isArray(match: Match): Answer {
  const node = match.the(items);
  if (node.text === "arguments") return yes("type.is", "`arguments` can be walked", node);
  const known = kindOf(match, node);
  if (known?.owner === "Array" && !known.byUse) return yes("type.is", known.why, known.at);
  if (known && known.owner !== "Array") return no("type.is", `${known.why}, which is not an array`, known.at);
  return unknown(
    "type.not-known",
    `\`${node.text}\` could be something that is no array: a string, or an object that only has a length`,
    node,
  );
}

/** Is the item looked up once, ahead of all else that is done for it? */
const isReadFirst = (match: Match): boolean => {
  const own = ownOf(match);
  const { loop } = match;
  return (
    own !== undefined && loop.lookUps.every((read) => own.statement.holds(read)) && loop.spelling.length === 0
  );
};

/** Does the loop see the items that looking them up would see? */
function seesTheSame(match: Match): Answer {
  const node = match.the(items);
  const to = node.is("identifier") ? declarationAt(node) : undefined;
  const writes = to ? changesOf(to).filter(({ does }) => does !== "read") : [];
  const isOne = to !== undefined && writes.every(({ node: at }) => to.at.some((one) => one.same(at)));
  // An array that grows or shrinks meanwhile is walked as it is counted.
  if (isOne && isReadFirst(match))
    return yes(
      "flow.written",
      `\`${node.text}\` is never given another value, and its item is read first`,
      node,
    );
  return isUnchanged(node, match.all(body));
}

/** A function that is called as an item gets the array as its `this`; and an item is not looked up later. */
function isPlainRead(match: Match): Answer {
  const { loop } = match;
  const called = loop.lookUps.find((read) => read.parent?.is("call_expression") && read.field === "function");
  if (called) return no("value.result", `\`${called.text}\` is called with the array as its object`, called);
  const isLet = beginning(match)?.is("lexical_declaration") ?? false;
  const later = loop.lookUps.find((at) => loop.body.some((part) => part.holds(at) && runsLater(at, part)));
  return later && !isLet
    ? no("resource.used-after", "the item is looked up in a function that may run later", later)
    : yes("value.result", "all look-ups run in the loop");
}

function looped(match: Match): readonly Segment[] {
  const { loop } = match;
  const own = ownOf(match);
  const rest = own ? loop.body.slice(1) : loop.body;
  const isKept = own !== undefined && isLeftAlone(own.name, rest).is !== "yes";
  const name = own?.name.text ?? match.named(item);
  const isIdle = loop.others.length === 0;
  // A name that is declared elsewhere cannot stand beside one that is declared here.
  const word = own ? own.word : "const ";
  const walks = loop.items.text;
  const header = isIdle
    ? `for (${word}${name} of ${walks})`
    : `for (${word}[${loop.index.text}, ${name}] of ${walks}.entries())`;
  const again = loop.lookUps.filter((read) => own?.statement.holds(read) !== true);
  const edits = [
    ...[...loop.counting, ...(own ? [own.statement] : [])].map(removal),
    ...(isKept ? [] : again.map(({ start, end }) => ({ start, end, text: name }))),
    { start: loop.header.start, end: loop.header.end, text: header },
  ].sort((a, b) => a.start - b.start);
  return [copy(match.nodes[0]!.start, match.nodes.at(-1)!.end, edits)];
}

/** Where the item keeps another name than the one that the loop declares, both cannot be declared at once. */
function mayBeDeclared(match: Match): boolean {
  const own = ownOf(match);
  if (!own || match.loop.others.length === 0) return true;
  const isLet = beginning(match)?.is("lexical_declaration") ?? false;
  return own.word !== "" && (own.word !== "var " || !isLet);
}

/** Where the item is written, an item that is looked up again is not what it names. */
function isNamedAlike(match: Match): Answer {
  const own = ownOf(match);
  const { loop } = match;
  if (!own) return yes("flow.written", "the item has a name of its own");
  const written = isLeftAlone(own.name, loop.body.slice(1));
  const again = loop.lookUps.find((read) => !own.statement.holds(read));
  if (written.is !== "yes" && again)
    return no("flow.written", `\`${own.name.text}\` is written, and the item is looked up again`, again);
  return yes("flow.written", `\`${own.name.text}\` names the item`);
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const eachItem = rule({
  id: "javascript/each-item",
  kind: "idiom",
  title: "Use for…of to walk a list",
  why: "Counting by hand hides what the loop is about and invites off-by-one mistakes.",
  was: walked({ index, items, body }),
  where: [
    ({ loop }) => loop.form === "counted" && loop.from === 0,
    (match) => /^(this\.)?[\p{L}_$][\p{L}\p{N}_$.]*$/u.test(match.textOf(items)),
    (match) => match.textOf(items) !== "arguments" || match.loop.others.length === 0,
    (match) =>
      ![...match.textOf(items).split("."), match.textOf(index)].includes(ownOf(match)?.name.text ?? ""),
    mayBeDeclared,
    ({ loop }) => !loop.lookUps.some((read) => read.parent?.is("optional_chain")),
  ],
  given: [
    neverWritten(index, { in: body }),
    condition("the items are those that looking them up would give", seesTheSame),
    condition("the item is only read", isPlainRead),
    condition("the position is not needed elsewhere", indexIsDone),
    condition("the name of the item is written nowhere else", isNamedAlike),
    condition("nothing else of the header is used", (match) => {
      const needed = neededNames(match);
      return needed
        ? no("name.other-uses", `\`${needed.text}\` is declared in the header, and used here`, needed)
        : yes("name.other-uses", "the header declares nothing else that is used");
    }),
    condition("it is an array", isArray),
    assertsNoMore(),
  ],
  becomes: looped,
  trials: [
    js.rewrites(
      "const jars = [1]; for (let i = 0; i < jars.length; i++) f(jars[i]);",
      "const jars = [1]; for (const jar of jars) f(jar);",
      "likely",
    ),
    js.rewrites(
      "const jars = [1]; let n = 0; for (let i = 0; i < jars.length; i++) n = jars[i] + n;",
      "const jars = [1]; let n = 0; for (const jar of jars) n = jar + n;",
    ),
    js.rewrites(
      "function f(o) { const ks = Object.keys(o); for (let i = 0; i < ks.length; i++) { const k = ks[i]; g(k); } }",
      "function f(o) { const ks = Object.keys(o); for (const k of ks) { g(k); } }",
    ),
    js.rewrites(
      `
      function f(out) {
        const jars = out.split(" ");
        const all = [];
        for (var i = 0; i < all.length; i++) {
          var jar = all[i]; // each
          out(jar);
        }
      }
      `,
      `
      function f(out) {
        const jars = out.split(" ");
        const all = [];
        for (var jar of all) {
          // each
          out(jar);
        }
      }
      `,
    ),
    ts.rewrites(
      "function f(jars: string[]) { for (let i = 0, n = jars.length; i < n; ++i) { const jar = jars[i]; f(jar); } }",
      "function f(jars: string[]) { for (const jar of jars) { f(jar); } }",
      "likely",
    ),
    ts.rewrites(
      "function f(jars: string[]) { let jar; for (let i = 0; i < jars.length; i += 1) { jar = jars[i]; g(jar); } }",
      "function f(jars: string[]) { let jar; for (jar of jars) { g(jar); } }",
    ),
    ts.rewrites(
      "function f(jars: string[]) { for (let i = 0, jar; i < jars.length; i++) { jar = jars[i]; g(jar); } }",
      "function f(jars: string[]) { for (let jar of jars) { g(jar); } }",
    ),
    ts.rewrites(
      "function f(jars: string[]) { for (let i = 0; i < jars.length; i++) { const jar = jars[i]; g(i, jar); } }",
      "function f(jars: string[]) { for (const [i, jar] of jars.entries()) { g(i, jar); } }",
    ),
    ts.rewrites(
      "function f(jars: string[]) { for (let i = 0; i < jars.length; i++) { const jar = jars[i]!; g(jar); } }",
      "function f(jars: string[]) { for (const jar of jars) { g(jar); } }",
    ),
    ts.rewrites(
      "function f(jars: Jar[]) { for (let i = 0; i < jars.length; i++) if (jars[i]!.full) return true; }",
      "function f(jars: Jar[]) { for (const jar of jars) if (jar.full) return true; }",
      "likely",
    ),
    ts.holds(
      "function f(jars: (Jar | null)[]) { for (let i = 0; i < jars.length; i++) if (jars[i]!.full) return true; }",
      "may be missing",
    ),
    ts.holds(
      "function f(jars: number[]) { for (let i = 0; i < jars.length; i++) jars[i]! += jars[i]!; }",
      "jars",
    ),
    ts.rewrites(
      "function f(jars: string[]) { let i = 0; while (i < jars.length) { const jar = jars[i]; g(jar); i++; } }",
      "function f(jars: string[]) { for (const jar of jars) { g(jar); } }",
    ),
    ts.rewrites(
      "function f() { for (let i = 0; i < arguments.length; i++) { const a = arguments[i]; g(a); } }",
      "function f() { for (const a of arguments) { g(a); } }",
      "likely",
    ),
    js.rewrites(
      "function f(jars) { for (let i = 0; i < jars.length; i++) { const jar = jars[i]; g(jar); } }",
      "function f(jars) { for (const jar of jars) { g(jar); } }",
      "likely",
    ),
    ts.rewrites(
      "function f(jars: string[]) { var i; for (i = 0; i < jars.length; i++) { const jar = jars[i]; g(jar); } }",
      "function f(jars: string[]) { var i; for (const jar of jars) { g(jar); } }",
    ),
    ts.rewrites(
      "function f(jars: string[]) { for (let i = 0; i < jars.length; i++) { const jar: string = jars[i]; g(jar); } }",
      "function f(jars: string[]) { for (const item of jars) { const jar: string = item; g(jar); } }",
      "likely",
    ),
    js.holds('const s = "abc"; for (let i = 0; i < s.length; i++) f(s[i]);', "which is not an array"),
    js.holds("const jars = []; for (let i = 0; i < jars.length; i++) jars[i] = 1;", "is changed here"),
    js.holds("const jars = []; for (let i = 0; i < jars.length; i++) { jars[i](); }", "as its object"),
    js.holds("const jars = []; for (let i = 0; i < jars.length; i++) { i = g(jars[i]); }", "is written"),
    js.holds(
      "function f() { const jars = []; for (var i = 0; i < jars.length; i++) if (g(jars[i])) break; return i; }",
      "is read later",
    ),
    js.holds(
      "function f() { const jars = []; for (var i = 0; i < jars.length; i++) g(() => jars[i]); }",
      "may run later",
    ),
    js.holds(
      "function f() { const jars = []; for (var i = 0; i < jars.length; i++) g(jars[i]); for (i = 9; i > 0; i--) g(i); }",
      "declared in this loop",
    ),
    js.holds(
      "function f() { const jars = []; for (let i = 0, n = jars.length; i < n; i++) g(jars[i], n); }",
      "declared in the header",
    ),
    js.holds(
      "const jars = []; for (let i = 0; i < jars.length; i++) { let jar = jars[i]; jar = jar + 1; g(jar, jars[i]); }",
      "looked up again",
    ),
    js.ignores("for (let i = 0; i < jars.length; i++) f(i);"),
    js.ignores("for (let i = 1; i < jars.length; i++) f(jars[i]);"),
    js.ignores("for (let i = 0; i < jars.length; i += 2) f(jars[i]);"),
    js.ignores("for (let i = 0; i < jars.length - 1; i++) f(jars[i]);"),
    js.ignores("for (let i = jars.length - 1; i >= 0; i--) f(jars[i]);"),
    js.ignores("for (let i = 0; i < jars.length; i++) f(lids[i]);"),
    trialsIn("javascript", "5").ignores("for (var i = 0; i < jars.length; i++) f(jars[i]);"),
  ],
});
