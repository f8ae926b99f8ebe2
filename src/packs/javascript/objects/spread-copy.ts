import {
  builtin,
  condition,
  copy,
  holes,
  javascript,
  rule,
  text,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";

const { first, rest } = holes({ first: { kind: "expression", node: "object" }, rest: "arguments" });

const sourcesOf = (match: Match): SyntaxNode[] =>
  match.all(rest).filter((node) => node.named && !node.is("comment"));

/** A literal whose properties can be written into another one: without setters and without a prototype of its own. */
function isPlain(object: SyntaxNode): boolean {
  return object.parts.every(
    (part) =>
      !(part.is("method_definition") && (part.has("set") || part.has("get"))) &&
      !part.child("key")?.text.includes("__proto__"),
  );
}

const isComputed = (object: SyntaxNode): boolean =>
  object.parts.some((part) => part.child("key")?.is("computed_property_name") ?? false);

/** What a source gives is set one by one, and would now be defined: a key `__proto__` tells the difference. */
function hasNoPrototypeKey(match: Match): Answer {
  const open = sourcesOf(match).find((source) => !source.is("object") || isComputed(source));
  return open
    ? unknown("value.result", `\`${open.text}\` could have a key \`__proto__\` of its own`, open)
    : yes("value.result", "no source has a key `__proto__`");
}

/** The properties of a literal, or all of a source. Where a literal is empty, nothing. */
function spread(source: SyntaxNode): Segment[] {
  if (!source.is("object")) {
    const isBare = !source.is(["assignment_expression", "sequence_expression", "yield_expression"]);
    const whole = copy(source.start, source.end);
    return isBare ? [text("..."), whole] : [text("...("), whole, text(")")];
  }
  const { parts } = source;
  return parts.length === 0 ? [] : [copy(parts[0]!.start, parts.at(-1)!.end)];
}

/** A brace at the start of a statement, or of what an arrow gives, would begin a block. */
function beginsStatement(node: SyntaxNode): boolean {
  let at = node;
  for (let above = node.parent; above; above = at.parent) {
    if (above.is("expression_statement")) return above.start === node.start;
    if (above.is("arrow_function")) return above.child("body")?.start === node.start;
    if (above.start !== node.start) return false;
    at = above;
  }
  return false;
}

/** Does a literal have its properties on lines of their own? */
const isOnLines = (source: SyntaxNode): boolean =>
  source.is("object") && source.parts.length > 0 && source.line !== source.firstPart!.line;

/** The first literal on several lines takes the other sources in, each on a line of its own. */
function onLines(sources: readonly SyntaxNode[], host: SyntaxNode): Segment[] {
  const { tree } = host;
  const [first, last] = [host.firstPart!, host.lastPart!];
  const lineStart = text(`\n${tree.indentAt(first.start)}`);
  const at = sources.indexOf(host);
  const others = (from: number, to: number): Segment[][] =>
    sources
      .slice(from, to)
      .map(spread)
      .filter((piece) => piece.length > 0);
  const ahead = others(0, at).flatMap((piece) => [lineStart, ...piece, text(",")]);
  const behind = others(at + 1, sources.length).flatMap((piece) => [lineStart, ...piece, text(",")]);
  const hasComma = /^\s*,/.test(tree.text.slice(last.end, host.end));
  const end = hasComma ? tree.text.indexOf(",", last.end) + 1 : last.end;
  return [
    text("{"),
    ...ahead,
    copy(host.start + 1, end),
    ...(behind.length > 0 && !hasComma ? [text(",")] : []),
    ...behind,
    copy(end, host.end),
  ];
}

function onOneLine(sources: readonly SyntaxNode[]): Segment[] {
  const pieces = sources.map(spread).filter((piece) => piece.length > 0);
  const list = pieces.flatMap((piece, i) => (i === 0 ? piece : [text(", "), ...piece]));
  return pieces.length === 0 ? [text("{}")] : [text("{ "), ...list, text(" }")];
}

function literal(match: Match): Segment[] {
  const sources = [match.the(first), ...sourcesOf(match)];
  const host = sources.find(isOnLines);
  const object = host ? onLines(sources, host) : onOneLine(sources);
  return beginsStatement(match.node) ? [text("("), ...object, text(")")] : object;
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const spreadCopy = rule({
  id: "javascript/spread-copy",
  kind: "idiom",
  title: "Use spread to copy an object",
  why: "The empty object ahead of the sources is easily forgotten, and then the first source is changed.",
  was: javascript`Object.assign(${first}, ${rest})`,
  where: [
    (match) => sourcesOf(match).length > 0 && !sourcesOf(match).some((source) => source.is("spread_element")),
    (match) => isPlain(match.the(first)),
    (match) => sourcesOf(match).every((source) => !source.is("object") || isPlain(source)),
  ],
  given: [builtin("Object"), condition("no source has a key `__proto__`", hasNoPrototypeKey)],
  becomes: literal,
  trials: [
    js.rewrites("const a = Object.assign({}, b);", "const a = { ...b };", "likely"),
    js.rewrites("const a = Object.assign({}, b, c.d);", "const a = { ...b, ...c.d };", "likely"),
    js.rewrites(
      "const a = Object.assign({ x: 1 }, b, { y: 2 });",
      "const a = { x: 1, ...b, y: 2 };",
      "likely",
    ),
    js.rewrites("const a = Object.assign({}, { y: 2 });", "const a = { y: 2 };"),
    js.rewrites("const a = Object.assign({ x }, {});", "const a = { x };"),
    js.rewrites("const f = (b) => Object.assign({}, b);", "const f = (b) => ({ ...b });", "likely"),
    js.rewrites("const f = (b) => Object.assign({}, b).c;", "const f = (b) => ({ ...b }).c;", "likely"),
    js.rewrites("Object.assign({}, b);", "({ ...b });", "likely"),
    js.rewrites(
      "const a = Object.assign({}, b || {}, c ? d : e);",
      "const a = { ...b || {}, ...c ? d : e };",
      "likely",
    ),
    js.rewrites("const a = Object.assign({}, (x = b));", "const a = { ...(x = b) };", "likely"),
    js.rewrites(
      `
      const a = Object.assign({}, b, {
        // in kilograms
        weight: 3,
      });
      `,
      `
      const a = {
        ...b,
        // in kilograms
        weight: 3,
      };
      `,
      "likely",
    ),
    ts.rewrites(
      "const a = Object.assign({}, { y: 2 } as const);",
      "const a = { ...{ y: 2 } as const };",
      "likely",
    ),
    js.holds("const Object = load(); f(Object.assign({}, b));", "given another meaning"),
    js.ignores("Object.assign(a, b);"),
    js.ignores("const a = Object.assign({});"),
    js.ignores("const a = Object.assign({}, ...all);"),
    js.ignores("const a = Object.assign({ set x(v) { f(v); } }, b);"),
    js.ignores("const a = Object.assign({}, { get x() { return 1; } });"),
    js.ignores("const a = Object.assign({ __proto__: base }, b);"),
    trialsIn("javascript", "2017").ignores("const a = Object.assign({}, b);"),
  ],
});
