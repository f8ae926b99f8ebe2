import { changesOf, condition, functionAround, isCertainlyAssigned } from "../../../core.js";
import { nameInFile, no, referencesAt, referencesOf, rule, runsLater, text } from "../../../core.js";
import { isNoGlobal } from "./global.js";
import { functionsBetween, isUsedBehind } from "./order.js";
import { token, trialsIn, usesOf, weakest, yes } from "../../../core.js";
import type { Answer, Declaration, Match, Reference, Segment, SyntaxNode } from "../../../core.js";

/** What the word begins: a declaration, or the header of a loop over items. */
const declaredBy = (match: Match): SyntaxNode => match.node.parent!;

/** A name that a `var` declares, with the block in which it would be seen. */
interface Variable {
  readonly name: SyntaxNode;
  readonly to: Declaration;
  /** The block around the `var`, or the loop whose header it stands in. */
  readonly block: SyntaxNode;
  /** The uses that mean this `var`: all of the name's in that block. */
  readonly uses: readonly Reference[];
  readonly statement: SyntaxNode;
  /** Its value, or the list that it walks. */
  readonly value: SyntaxNode | undefined;
  readonly isWalked: boolean;
}

const BLOCKS = ["program", "statement_block", "switch_body", "for_statement", "for_in_statement"];
const LOOPS = ["for_statement", "for_in_statement", "while_statement", "do_statement"];

/** The targets that a declaration gives values to: names and patterns, with what they get. */
function targetsOf(node: SyntaxNode): { target: SyntaxNode; value: SyntaxNode | undefined }[] {
  if (node.is("for_in_statement")) {
    const target = node.child("left");
    return target ? [{ target, value: node.child("right") }] : [];
  }
  return node.parts.flatMap((part) => {
    const target = part.is("variable_declarator") ? part.child("name") : undefined;
    return target ? [{ target, value: part.child("value") }] : [];
  });
}

const BINDING = ["identifier", "shorthand_property_identifier_pattern"];

/** The names in a target that are declared by it; undefined where one is not understood. */
function variablesOf(node: SyntaxNode): Variable[] | undefined {
  const block = [...node.ancestors()].find((above) => above.is(BLOCKS));
  if (!block) return undefined;
  const scope = node.is("for_in_statement") ? node : node.parent?.is("for_statement") ? node.parent : block;
  const found: Variable[] = [];
  for (const { target, value } of targetsOf(node)) {
    for (const name of target.descendants()) {
      if (!name.is(BINDING)) continue;
      const to = referencesAt(name).find((one) => one.to && !one.member)?.to;
      if (!to?.at.some((at) => at.same(name))) continue;
      const uses = referencesOf(to).filter((one) => scope.holds(one.node));
      found.push({
        name,
        to,
        block: scope,
        uses,
        statement: node,
        value,
        isWalked: node.is("for_in_statement"),
      });
    }
  }
  return found.length > 0 ? found : undefined;
}

/** A `let` may only stand among statements, or in the header of a loop. */
function mayStand(node: SyntaxNode): boolean {
  if (node.is("for_in_statement")) return true;
  const { parent } = node;
  if (parent?.is("for_statement")) return parent.child("initializer")?.same(node) ?? false;
  return (
    parent?.is(["program", "statement_block", "export_statement", "switch_case", "switch_default"]) ?? false
  );
}

/** Where else the name is declared, or used outside of the block in which it would be seen. */
function staysInBlock({ name, to, block, uses }: Variable): Answer {
  const code = "name.scope";
  const outside = referencesOf(to).find((one) => !block.holds(one.node));
  const others = to.at.filter((at) => !at.same(name));
  const again = others.find((at) => block.holds(at) || (blockOf(at)?.holds(name) ?? true) || !hasValue(at));
  if (again || (others.length > 0 && !hasValue(name)))
    return no(
      code,
      `\`${name.text}\` is declared once more (line ${(again ?? others[0]!).line})`,
      again ?? others[0],
    );
  if (outside && others.length === 0)
    return no(code, `\`${name.text}\` is used outside of the block that declares it`, outside.node);
  const astray = referencesOf(to).find(
    ({ node }) => !block.holds(node) && !others.some((at) => blockOf(at)?.holds(node)),
  );
  if (astray) return no(code, `\`${name.text}\` is used outside of the blocks that declare it`, astray.node);
  const alike = nameInFile(to.name, name.tree).declarations.find(
    (one) =>
      one !== to && (one.as === "function" || isCaught(one)) && one.at.some((at) => sharesFunction(at, name)),
  );
  if (alike)
    return no(
      code,
      `\`${name.text}\` is declared in another way too (line ${alike.at[0]!.line})`,
      alike.at[0],
    );
  return uses.length > 0
    ? yes(code, `\`${name.text}\` is used in its block only`, name)
    : yes(code, `\`${name.text}\` is not used`, name);
}

/** Is a name given a value where it is declared? */
function hasValue(name: SyntaxNode): boolean {
  const holder = name.closest(["variable_declarator", "for_in_statement"]);
  return holder?.is("for_in_statement") === true || holder?.child("value") !== undefined;
}

/** The block in which a name of a `var` would be seen. */
function blockOf(name: SyntaxNode): SyntaxNode | undefined {
  const holder = name.closest(["variable_declaration", "for_in_statement"]);
  if (!holder) return undefined;
  if (holder.is("for_in_statement") || holder.parent?.is("for_statement"))
    return holder.is("for_in_statement") ? holder : holder.parent;
  return [...holder.ancestors()].find((above) => above.is(BLOCKS));
}

const isCaught = ({ at }: Declaration): boolean =>
  at.some((one) => one.closest(["catch_clause"])?.child("parameter")?.holds(one));

const sharesFunction = (one: SyntaxNode, other: SyntaxNode): boolean => {
  const around = functionAround(other);
  return around ? around.holds(one) : true;
};

/** Is the variable only used once its declaration has been run? */
function isDeclaredFirst(variable: Variable): Answer {
  const { name, uses, block, value, statement, isWalked } = variable;
  const from = isWalked ? (statement.child("body")?.start ?? statement.end) : endOf(variable);
  return isUsedBehind({ name, uses, block, from, runsLater: value });
}

/** Behind the value: in it the variable has none yet. */
function endOf({ name, statement }: Variable): number {
  return name.closest(["variable_declarator"])?.end ?? statement.end;
}

/** In a loop a `let` is a new variable each time around. */
function isTheSameEachTime({ name, to, uses, value, statement, isWalked, block }: Variable): Answer {
  const code = "name.scope";
  const { functions } = name.tree.language;
  const loop = [...name.ancestors()].find((above) => above.is([...LOOPS, ...functions]));
  if (!loop || loop.is(functions)) return yes(code, `\`${name.text}\` is declared once`, name);
  const captured = uses.find(({ node }) => functionsBetween(node, block).some((fn) => runsLater(fn, loop)));
  if (captured)
    return no(
      code,
      `a function made in the loop uses \`${name.text}\`, and would see another value of it`,
      captured.node,
    );
  const isHeader = isWalked || statement.parent?.is("for_statement");
  if (value === undefined && !isHeader) {
    const early = uses.find(
      ({ node, does }) =>
        does !== "write" && does !== "declare" && isCertainlyAssigned(to, node).is !== "yes",
    );
    if (early) return no(code, `\`${name.text}\` keeps its value from one round to the next`, early.node);
  }
  return yes(code, `\`${name.text}\` has its value anew in each round`, name);
}

/** In one branch of a `switch` the others may come first. */
function isInOneCase({ name, uses, statement }: Variable): Answer {
  const branch = statement.parent?.is(["switch_case", "switch_default"]) ? statement.parent : undefined;
  const other = branch && uses.find((one) => !branch.holds(one.node));
  return other
    ? no("name.scope", `another case uses \`${name.text}\``, other.node)
    : yes("name.scope", `\`${name.text}\` is used in its block only`, name);
}

const readFrom = (match: Match): Variable[] => variablesOf(declaredBy(match)) ?? [];

const forEach = (must: string, ask: (variable: Variable) => Answer) =>
  condition(must, (match) => {
    const [first, ...rest] = readFrom(match).map(ask);
    return weakest([first!, ...rest]);
  });

/** Is a variable given its value where it is declared, and never again? */
function isConstant({ name, to, value, isWalked, uses, statement }: Variable): boolean {
  if (value === undefined && !isWalked) return false;
  if (statement.parent?.is("for_statement") && !isWalked) return false;
  return uses.every(({ node, does }) => does === "read" || node.same(name)) && changesOf(to).length > 0;
}

const wordFor = (match: Match): Segment[] => [text(readFrom(match).every(isConstant) ? "const" : "let")];

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const blockScoped = rule({
  id: "javascript/block-scoped",
  kind: "idiom",
  title: "Declare variables with let and const",
  why: "A var is seen in the whole function, before its line and behind its block, and says nothing of whether it changes.",
  was: token("var"),
  where: [
    (match) => !declaredBy(match).closest(["ambient_declaration"]),
    (match) => readFrom(match).length > 0,
    (match) => readFrom(match).every(({ name }) => !["let", "undefined", "arguments"].includes(name.text)),
  ],
  given: [
    condition("a block may declare variables there", (match) =>
      mayStand(declaredBy(match))
        ? yes("form.fits", "it stands among statements")
        : no("form.fits", "only a `var` may be the single statement of a branch or a loop", match.node),
    ),
    forEach("each variable is used in its block only", staysInBlock),
    forEach("each is declared before it is used", isDeclaredFirst),
    forEach("each round of a loop may have variables of its own", isTheSameEachTime),
    forEach("it is used in one case of a switch only", isInOneCase),
    forEach("no other script uses it", ({ to, name }) => isNoGlobal(to, name)),
    forEach(
      "all its uses are known",
      ({ to, name }) =>
        usesOf(to).doubts[0] ?? yes("name.other-uses", `all uses of \`${name.text}\` are known`, name),
    ),
  ],
  becomes: wordFor,
  trials: [
    js.rewrites("function f() { var a = 1; g(a); }", "function f() { const a = 1; g(a); }"),
    js.rewrites("function f() { var a = 1; a++; g(a); }", "function f() { let a = 1; a++; g(a); }"),
    js.rewrites("function f() { var a; g(a); }", "function f() { let a; g(a); }"),
    js.rewrites("function f() { var a = 1, b; b = a; }", "function f() { let a = 1, b; b = a; }"),
    js.rewrites(
      "function f() { var { a, b: [c] } = g(); return a + c; }",
      "function f() { const { a, b: [c] } = g(); return a + c; }",
    ),
    js.rewrites(
      "function f() { for (var i = 0; i < 3; i++) g(i); }",
      "function f() { for (let i = 0; i < 3; i++) g(i); }",
    ),
    js.rewrites("function f(x) { for (var k in x) g(k); }", "function f(x) { for (const k in x) g(k); }"),
    js.rewrites(
      "function f(x) { for (var y of x) { y = y + 1; g(y); } }",
      "function f(x) { for (let y of x) { y = y + 1; g(y); } }",
    ),
    js.rewrites(
      "function f(x) { for (var i = 0; i < 3; i++) g(i); for (var i = 9; i > 0; i--) g(i); }",
      "function f(x) { for (let i = 0; i < 3; i++) g(i); for (let i = 9; i > 0; i--) g(i); }",
    ),
    js.rewrites(
      "function f() { if (g()) { var a = 1; g(a); } }",
      "function f() { if (g()) { const a = 1; g(a); } }",
    ),
    js.rewrites(
      "function f() { var a = function () { return a; }; return a; }",
      "function f() { const a = function () { return a; }; return a; }",
    ),
    js.rewrites(
      "function f() { var a = 1; return h(); function h() { return a; } }",
      "function f() { const a = 1; return h(); function h() { return a; } }",
    ),
    js.rewrites(
      "function f() { h(); var a = 1; function h() { return a; } }",
      "function f() { h(); const a = 1; function h() { return a; } }",
      "likely",
    ),
    js.rewrites(
      "function f() { on(() => a); var a = 1; }",
      "function f() { on(() => a); const a = 1; }",
      "likely",
    ),
    js.rewrites(
      "function f() { var t = later(() => stop(t)); }",
      "function f() { const t = later(() => stop(t)); }",
      "likely",
    ),
    js.rewrites("var fs = require('fs');", "const fs = require('fs');"),
    js.rewrites("export var size = 3;", "export const size = 3;"),
    js.rewrites("var size = 3;", "const size = 3;", "likely"),
    js.rewrites(
      "function f(x) { while (x) { var y = x.next; x = y; } }",
      "function f(x) { while (x) { const y = x.next; x = y; } }",
    ),
    js.rewrites(
      "function f(x) { while (x) { var y; y = x.next; x = y; } }",
      "function f(x) { while (x) { let y; y = x.next; x = y; } }",
    ),
    js.rewrites(
      "function f(xs) { for (var x of xs) { xs.map(() => 1); } }",
      "function f(xs) { for (const x of xs) { xs.map(() => 1); } }",
    ),
    js.rewrites(
      "function f(x) { switch (x) { case 1: var y = 2; g(y); break; default: g(); } }",
      "function f(x) { switch (x) { case 1: const y = 2; g(y); break; default: g(); } }",
    ),
    ts.rewrites(
      "function f() { var a: number = 1; return a; }",
      "function f() { const a: number = 1; return a; }",
    ),
    js.holds("function f() { if (g()) { var a = 1; } return a; }", "outside of the block"),
    js.holds("function f() { g(a); var a = 1; }", "before it is declared"),
    js.holds("function f() { for (var i = 0; i < 3; i++) g(i); return i; }", "outside of the block"),
    js.holds("function f() { for (var i = 0; i < 3; i++) on(() => i); }", "made in the loop"),
    js.holds("function f(x) { while (x) { var y = x.next; on(() => y); x = y; } }", "made in the loop"),
    js.holds("function f(x) { while (x) { var y; if (g()) y = 1; g(y); } }", "from one round to the next"),
    js.holds("function f(a) { var a = a || 1; g(a); }", "declared once more"),
    js.holds("function f() { var a = 1; var a = 2; g(a); }", "declared once more"),
    js.holds("function f() { var a = 1; if (g()) { var a = 2; } g(a); }", "declared once more"),
    js.holds("var ns = ns || {};", "before it is declared"),
    js.holds("function f() { if (g()) var a = 1; }", "single statement"),
    js.holds("function f() { var h = 1; { function h() {} } }", "another way"),
    js.ignores("function f() { try { g(); } catch (e) { var e = 1; } }"),
    js.holds(
      "function f() { for (var i = 0; i < 3; i++) g(i); for (var i; i < 9; i++) g(i); }",
      "declared once more",
    ),
    js.rewrites(
      "var size = 3; if (f()) { var a = 1; g(a); }",
      "const size = 3; if (f()) { const a = 1; g(a); }",
      "likely",
    ),
    js.holds("function f(x) { switch (x) { case 1: var y = 2; break; default: g(y); } }", "another case"),
    js.rewrites("function f(s) { var a = 1; eval(s); }", "function f(s) { const a = 1; eval(s); }", "likely"),
    ts.ignores("declare var jQuery: any;"),
    js.ignores("function f() { let a = 1; const b = 2; }"),
  ],
});
