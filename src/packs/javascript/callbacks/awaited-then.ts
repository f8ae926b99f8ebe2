import {
  condition,
  copy,
  functionAround,
  holes,
  no,
  ofKind,
  rule,
  textAt,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Edit, Match, Segment, SyntaxNode } from "../../../core.js";
import { ownNodes } from "../classes/method.js";
import { FUNCTIONS, parametersOf } from "./settled.js";

const STATEMENTS = [
  "return_statement",
  "expression_statement",
  "lexical_declaration",
  "variable_declaration",
];
const { statement } = holes({ statement: { kind: "statement", node: STATEMENTS } });

/** A statement that waits for a promise, or hands it on, with what is to be done with its value. */
interface Then {
  /** Where what the callback gives goes: back to the caller, nowhere, into a variable. */
  readonly goes: "returned" | "nowhere" | "declared";
  readonly promise: SyntaxNode;
  readonly call: SyntaxNode;
  readonly callback: SyntaxNode;
  readonly value: SyntaxNode | undefined;
}

const bare = (node: SyntaxNode | undefined): SyntaxNode | undefined =>
  node?.is("parenthesized_expression") && node.parts.length === 1 ? bare(node.firstPart) : node;

function thenAt(node: SyntaxNode): Then | undefined {
  const isDeclared = node.is(["lexical_declaration", "variable_declaration"]);
  if (isDeclared && node.parts.length !== 1) return undefined;
  const given = bare(isDeclared ? node.firstPart!.child("value") : node.firstPart);
  const awaited = given?.is("await_expression") ? bare(given.firstPart) : undefined;
  if (!awaited && !node.is("return_statement")) return undefined;
  const call = awaited ?? given;
  const read = call?.is("call_expression") ? call.child("function") : undefined;
  if (!read?.is("member_expression") || read.child("property")?.text !== "then" || read.text.includes("?."))
    return undefined;
  const [callback, ...more] = call!.child("arguments")?.parts ?? [];
  if (!callback?.is(FUNCTIONS) || more.length > 0 || !isAsync(functionAround(node))) return undefined;
  const goes = isDeclared ? "declared" : node.is("return_statement") ? "returned" : "nowhere";
  return { goes, promise: read.child("object")!, call: call!, callback, value: parametersOf(callback)[0] };
}

const isAsync = (fn: SyntaxNode | undefined): boolean =>
  fn?.children.some((child) => child.text === "async") ?? false;

/** The statements of the callback; undefined where it is one expression. */
function blockOf({ callback }: Then): SyntaxNode | undefined {
  const body = callback.child("body")!;
  return body.is("statement_block") ? body : undefined;
}

const ownReturns = (block: SyntaxNode): SyntaxNode[] =>
  [...ownOnes(block)].filter((node) => node.is("return_statement"));

/** Nodes of a block that are in no function of their own. */
function* ownOnes(node: SyntaxNode): Generator<SyntaxNode> {
  for (const child of node.children) {
    yield child;
    if (!child.is([...FUNCTIONS, "function_declaration", "method_definition", "class_body"]))
      yield* ownOnes(child);
  }
}

/** Can what the callback does stand behind an `await`? */
function canFollow(match: Match): Answer {
  const code = "form.fits";
  const node = match.the(statement);
  const found = thenAt(node)!;
  const { callback, goes, value } = found;
  if (!node.parent?.is(["statement_block", "program"]))
    return no(code, "there is no room for a statement ahead of it", node);
  const [, second] = parametersOf(callback);
  if (second) return no(code, "the callback has more than one parameter", second);
  if (value?.is(["assignment_pattern", "rest_pattern", "optional_parameter"]) || value?.child("value"))
    return no(code, `\`${value.text}\` stands in for a value that is missing`, value);
  if (callback.is("generator_function") || callback.children.some((child) => child.text === "*"))
    return no(code, "the callback is a generator", callback);
  if (!callback.is("arrow_function")) {
    const own = [...ownNodes(callback)].find((one) => one.is(["this", "super"]) || one.text === "arguments");
    if (own) return no(code, `\`${own.text}\` is that of the callback`, own);
  }
  const block = blockOf(found);
  const returns = block ? ownReturns(block) : [];
  const last = block?.lastPart;
  const mayGoOn = goes === "returned" && block && !last?.is(["return_statement", "throw_statement"]);
  const isEnd = node.parent.same(functionAround(node)!.child("body")) && !node.nextPart;
  if (mayGoOn && !isEnd)
    return no(code, "the callback ends without a `return`, and the function would go on", last ?? block);
  const early = returns.find((one) => !one.same(last));
  if (goes === "nowhere" && returns.length > 0)
    return no(code, "the callback ends early, and what follows it would be left out", returns[0]);
  if (goes === "declared" && (early || (block && !last?.is("return_statement"))))
    return no(code, "the callback gives its value in more than one place", early ?? callback);
  const around =
    goes === "returned" ? node.closest(["try_statement", "function_declaration", ...FUNCTIONS]) : undefined;
  return around?.is("try_statement")
    ? no(code, "an error that came later passed the `try` around so far", around)
    : yes(code, "what the callback does can stand behind an `await`", callback);
}

/** The names that come to stand among those of the function. */
function declaredBy({ value, callback }: Then): SyntaxNode[] {
  const block = callback.child("body")!;
  const declared = [...ownOnes(block)].flatMap((node) => {
    const name = node.is(["variable_declarator", "function_declaration", "class_declaration"])
      ? node.child("name")
      : undefined;
    // What an inner block declares stays in it.
    const isHere = node.is("variable_declarator")
      ? node.parent!.is("variable_declaration") || node.parent!.parent?.same(block)
      : node.parent?.same(block);
    return name && isHere ? [name] : [];
  });
  return [...(value ? [value] : []), ...declared].flatMap((target) =>
    [...target.descendants()].filter((node) =>
      node.is(["identifier", "shorthand_property_identifier_pattern"]),
    ),
  );
}

function keepsNames(match: Match): Answer {
  const code = "name.free";
  const node = match.the(statement);
  const found = thenAt(node)!;
  const around = functionAround(node)!;
  for (const name of declaredBy(found)) {
    const other = around.mentions(name.text).find((one) => !found.callback.holds(one));
    if (other) return no(code, `\`${name.text}\` means something else here`, other);
  }
  return yes(code, "the names of the callback are free in the function around");
}

/** What a callback reads of its parameter, where it does nothing else: `.default.doors`. */
function memberOf(callback: SyntaxNode, parameter: SyntaxNode | undefined): string | undefined {
  const body = callback.child("body")!;
  let at = body;
  while (at.is("member_expression") && !at.text.includes("?.")) at = at.child("object")!;
  const isRead = at.is("identifier") && parameter?.is("identifier") && at.text === parameter.text;
  return isRead && !at.same(body) ? body.text.slice(at.end - body.start) : undefined;
}

/** The last `return` of a callback as what gives a variable its value. */
function edited(last: SyntaxNode, before: string): Edit[] {
  const given = last.firstPart;
  if (!given) return [{ start: last.start, end: last.end, text: `${before}undefined;` }];
  const start = { start: last.start, end: given.start };
  if (isWhole(given)) return [{ ...start, text: `${before}await ` }];
  return [
    { ...start, text: `${before}await (` },
    { start: given.end, end: given.end, text: ")" },
  ];
}

/** Does `await` ahead of an expression take all of it? */
const isWhole = (node: SyntaxNode): boolean =>
  node.is([
    "call_expression",
    "member_expression",
    "subscript_expression",
    "identifier",
    "parenthesized_expression",
    "new_expression",
    "await_expression",
    "string",
    "template_string",
    "number",
    "array",
    "object",
    "this",
  ]);

/** Does code write one of the names that a parameter gives? */
function writesAny(code: SyntaxNode, parameter: SyntaxNode): boolean {
  const names = [...parameter.descendants()]
    .filter((node) => node.is(["identifier", "shorthand_property_identifier_pattern"]))
    .map(({ text }) => text);
  return [...code.descendants()].some((one) => {
    const isWrite = one.is(["assignment_expression", "augmented_assignment_expression", "update_expression"]);
    const target = isWrite ? one.parts[0]! : one.is("for_in_statement") ? one.child("left") : undefined;
    return target !== undefined && names.some((name) => target.mentions(name).length > 0);
  });
}

function awaited(match: Match): Segment[] {
  const node = match.the(statement);
  const { tree } = node;
  const found = thenAt(node)!;
  const { goes, promise, callback, value } = found;
  const indent = tree.indentAt(node.start);
  const block = blockOf(found);
  const target = value?.child("pattern") ?? value;
  const isWritten = value !== undefined && writesAny(callback.child("body")!, value);
  const head = value ? `${isWritten ? "let" : "const"} ${value.text} = await ` : "await ";
  const before =
    goes === "returned"
      ? "return "
      : goes === "nowhere"
        ? ""
        : tree.text.slice(node.start, node.firstPart!.child("value")!.start);
  const end = tree.text.slice(node.start, node.end).endsWith(";") ? ";" : "";
  const lines = (): string => {
    if (!block) {
      const body = callback.child("body")!;
      const given = textAt(tree, body, indent);
      // What the callback gives was waited for as well.
      const waited = isWhole(body) ? `await ${given}` : `await (${given})`;
      return `${before}${goes === "returned" ? given : waited}${end}`;
    }
    const code = tree.text.slice(block.start + 1, block.end - 1);
    const start = block.start + 1 + (code.length - code.trimStart().length);
    const stop = block.end - 1 - (code.length - code.trimEnd().length);
    if (start >= stop) return "";
    const edits = goes === "declared" ? edited(block.lastPart!, before) : [];
    return textAt(tree, { start, end: stop }, indent, edits);
  };
  const read = goes === "declared" && !block ? memberOf(callback, target) : undefined;
  if (read)
    return [
      copy(node.start, node.end, [
        { start: found.call.parent!.start, end: promise.start, text: "(await " },
        { start: promise.end, end: node.end, text: `)${read}${end}` },
      ]),
    ];
  const rest = lines();
  // Where statements end with their lines, some would be read as going on.
  const stop = end === "" && /^[([`+*/-]/.test(rest) ? ";" : end;
  return [
    copy(node.start, node.end, [
      { start: node.start, end: promise.start, text: head },
      { start: promise.end, end: node.end, text: `${stop}${rest === "" ? "" : `\n${indent}${rest}`}` },
    ]),
  ];
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const awaitedThen = rule({
  id: "javascript/awaited-then",
  kind: "idiom",
  title: "Wait for a promise instead of handing it a callback, in a function that waits anyway",
  why: "The function says `async` and still nests what comes next; with `await` it reads from top to bottom.",
  was: ofKind(statement, { when: (node) => thenAt(node) !== undefined, together: (node) => [node] }),
  mentions: ["then"],
  target: "2017",
  given: [
    condition("what the callback does can stand behind an `await`", canFollow),
    condition("its names are free", keepsNames),
    condition("it is a promise like any other", (match) =>
      unknown(
        "flow.asynchronous",
        `what \`then\` does here goes by its name, and what follows may run a little sooner or later`,
        thenAt(match.the(statement))!.call,
      ),
    ),
  ],
  becomes: awaited,
  trials: [
    js.rewrites(
      `
      async function load(url) {
        return fetch(url).then((answer) => answer.json());
      }
      `,
      `
      async function load(url) {
        const answer = await fetch(url);
        return answer.json();
      }
      `,
      "likely",
    ),
    js.rewrites(
      `
      const load = async (url) => {
        const jars = await fetch(url).then(function (answer) {
          // only the body
          return answer.json();
        });
        await store(jars).then(({ count }) => {
          log(count);
        });
        return jars;
      };
      `,
      `
      const load = async (url) => {
        const answer = await fetch(url);
        // only the body
        const jars = await answer.json();
        const { count } = await store(jars);
        log(count);
        return jars;
      };
      `,
      "likely",
    ),
    // What the callback gives is waited for too, and all of it.
    js.rewrites(
      "async function f() { await g().then((a) => h(a)); i(); }",
      "async function f() { const a = await g();\nawait h(a); i(); }",
      "likely",
    ),
    js.rewrites(
      "async function f() { const b = await g().then((a) => a.ok ? a.next() : null); i(b); }",
      "async function f() { const a = await g();\nconst b = await (a.ok ? a.next() : null); i(b); }",
      "likely",
    ),
    js.rewrites(
      "async function f() { const b = await g().then((a) => { return a || h(); }); i(b); }",
      "async function f() { const a = await g();\nconst b = await (a || h()); i(b); }",
      "likely",
    ),
    js.rewrites(
      "async function f() { await g().then(({ n }) => { n += 1; h(n); }); }",
      "async function f() { let { n } = await g();\nn += 1; h(n); }",
      "likely",
    ),
    // One after the other.
    js.rewrites(
      `
      async function f(url) {
        if (url) {
          return get(url).then((a) => a.next()).then((b) => {
            if (!b) return 0;
            return b.size;
          });
        }
      }
      `,
      `
      async function f(url) {
        if (url) {
          const a = await get(url);
          const b = await a.next();
          if (!b) return 0;
          return b.size;
        }
      }
      `,
      "likely",
    ),
    ts.rewrites(
      "async function f(): Promise<void> { await g().then((n: number) => { n += 1; h(n); }); }",
      "async function f(): Promise<void> { let n: number = await g();\nn += 1; h(n); }",
      "likely",
    ),
    js.rewrites(
      "async function f() { await g().then(() => {}); }",
      "async function f() { await g(); }",
      "likely",
    ),
    // What is only read of the value needs no name for it.
    js.rewrites(
      'async function f() { const { open } = await import("./hive.js").then((m) => m.default.doors); open(); }',
      'async function f() { const { open } = (await import("./hive.js")).default.doors; open(); }',
      "likely",
    ),
    js.rewrites(
      "async function f() {\n  await g().then((a) => { [1, a].forEach(h) })\n}",
      "async function f() {\n  const a = await g();\n  [1, a].forEach(h)\n}",
      "likely",
    ),
    js.holds("async function f() { if (x) { return g().then((a) => { h(a); }); } i(); }", "would go on"),
    js.rewrites(
      "async function f() { i(); return g().then((a) => { h(a); }); }",
      "async function f() { i(); const a = await g();\nh(a); }",
      "likely",
    ),
    // An error of the promise passed the `try` so far.
    js.holds(
      "async function f() { try { return g().then((a) => a.b); } catch (e) { h(e); } }",
      "passed the `try`",
    ),
    js.holds("async function f() { await g().then((a) => { if (a) return; h(a); }); i(); }", "ends early"),
    js.holds(
      "async function f() { const x = await g().then((a) => { if (a) return 1; return 2; }); h(x); }",
      "more than one place",
    ),
    js.holds("async function f(a) { await h(a); return g().then((a) => a.b); }", "something else"),
    js.holds(
      "async function f() { return g().then(function (a) { return this.b + a; }); }",
      "that of the callback",
    ),
    js.holds("async function f() { if (x) return g().then((a) => a.b); }", "no room"),
    js.holds("async function f() { return g().then((a = 1) => a.b); }", "stands in for a value"),
    ts.holds("async function f() { return g().then((a: number = 1) => a); }", "stands in for a value"),
    js.ignores("function f() { return g().then((a) => a.b); }"),
    js.ignores("async function f() { return g().then((a) => a.b, h); }"),
    js.ignores("async function f() { return g().then((a) => a.b).catch(h); }"),
    js.ignores("async function f() { g().then((a) => a.b); }"),
    js.ignores("async function f() { return g().then(h); }"),
  ],
});
