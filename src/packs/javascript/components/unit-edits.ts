import { removal, type Edit, type SyntaxNode } from "../../../core.js";
import { isOwnRead, readsOf, statementOf, unitAround, type Unit } from "./units.js";
import type { Cell, Write } from "./cells.js";
import { NoState } from "./no-state.js";

/** A cell that becomes state, with the names that it gets. */
export interface Named {
  readonly cell: Cell;
  readonly name: string;
  readonly setter: string;
  /** What a function calls its new value that needs it once more. */
  next(): string;
}

const COMBINED = [
  "binary_expression",
  "ternary_expression",
  "assignment_expression",
  "arrow_function",
  "yield_expression",
];

/** The edits that make a unit set state, and read it. */
export function stateEdits(
  unit: Unit,
  named: readonly Named[],
  units: readonly Unit[],
  indentOf: (statement: SyntaxNode) => string,
): Edit[] {
  return named.flatMap((one) => {
    const { cell, name } = one;
    const how = readsOf(unit, cell, units);
    const here = cell.writes.filter(({ at }) => unitAround(at, units) === unit);
    const reads = cell.reads.filter((node) => unitAround(node, units) === unit);
    const next = how === "written" ? one.next() : undefined;
    const edits = here.flatMap((write) =>
      next === undefined ? writeEdits(write, one) : nextEdits(write, one, next, indentOf),
    );
    for (const node of reads) {
      const isOwn = isOwnRead(node, cell);
      const isBehind = next !== undefined && here.every(({ at }) => at.end <= node.start);
      const reading = isOwn ? (next === undefined ? cell.wish : name) : isBehind ? next : name;
      edits.push(...readEdits(node, reading));
    }
    return edits;
  });
}

function readEdits(node: SyntaxNode, name: string): Edit[] {
  if (node.text === name) return [];
  const text = node.is("shorthand_property_identifier") ? `${node.text}: ${name}` : name;
  return [{ start: node.start, end: node.end, text }];
}

/** Can the new value be worked out without the old one? */
const isFresh = ({ value, operator }: Write, cell: Cell): boolean =>
  operator === undefined &&
  (typeof value === "boolean" ||
    (typeof value === "object" && !cell.reads.some((node) => value.holds(node))));

/** `setCount(3)`, `setCount((count) => count + 1)`. */
function writeEdits(write: Write, { cell, setter }: Named): Edit[] {
  const { at, value } = write;
  checkPlace(at);
  const { wish } = cell;
  const head = isFresh(write, cell) ? `${setter}(` : `${setter}((${wish}) => `;
  const [before, behind] = around(write, wish, head);
  if (typeof value !== "object") return [{ start: at.start, end: at.end, text: `${before}${behind})` }];
  if (value.is(["arrow_function", "function_expression"]))
    throw new NoState(value, "a function is kept as a value");
  const isPausing = [...value.descendants()].find((node) =>
    node.is(["await_expression", "yield_expression"]),
  );
  if (isPausing && !isFresh(write, cell))
    throw new NoState(isPausing, "the new value is worked out with a pause in it");
  const wraps = !isFresh(write, cell) && value.is("object");
  return [
    { start: at.start, end: value.start, text: `${before}${wraps ? "(" : ""}` },
    { start: value.end, end: at.end, text: `${wraps ? ")" : ""}${behind})` },
  ];
}

/** What stands ahead of the new value and behind it. */
function around({ value, operator }: Write, old: string, head: string): [string, string] {
  if (value === "contrary") return [`${head}!${old}`, ""];
  if (typeof value === "boolean") return [`${head}${value}`, ""];
  if (value === undefined) return [`${head}${old} ${operator} 1`, ""];
  if (operator === undefined) return [head, ""];
  const needs = value.is(COMBINED);
  return [`${head}${old} ${operator} ${needs ? "(" : ""}`, needs ? ")" : ""];
}

/** `const nextCount = count + 1;` and `setCount(nextCount);` on a line of its own. */
function nextEdits(
  write: Write,
  { cell, name, setter }: Named,
  next: string,
  indentOf: (statement: SyntaxNode) => string,
): Edit[] {
  const { at, value } = write;
  const statement = statementOf(at)!;
  const { tree } = at;
  const [before, behind] = around(write, name, `const ${next} = `);
  const semicolon = tree.text[statement.end - 1] === ";" ? ";" : "";
  const end = `${behind}${semicolon}\n${indentOf(statement)}${setter}(${next})`;
  if (typeof value !== "object") return [{ start: at.start, end: at.end, text: `${before}${end}` }];
  const isFunction = value.is(["arrow_function", "function_expression"]);
  if (isFunction || cell.shown?.aspect.isSwitch)
    throw new NoState(value, "what is kept is read again at once");
  return [
    { start: at.start, end: value.start, text: before },
    { start: value.end, end: at.end, text: end },
  ];
}

/** A value that goes on to something else cannot be given by a call that gives nothing. */
function checkPlace(at: SyntaxNode): void {
  const isBody = at.parent?.is("arrow_function") && at.field === "body";
  if (!statementOf(at) && !isBody) throw new NoState(at, "what is written goes somewhere else as well");
}

/** The edit that takes a statement out of a function; or the whole of an arrow function's code. */
export function without(at: SyntaxNode): Edit {
  if (at.is("expression_statement") || at.parent?.is("statement_block")) return removal(at);
  const statement = statementOf(at);
  if (statement?.parent?.is("statement_block")) {
    const block = statement.parent;
    const isAlone = block.parts.length === 1 && !block.parent?.is(block.tree.language.functions);
    if (isAlone) throw new NoState(at, "what the document shows depends on a test that goes with it");
    return removal(statement);
  }
  if (at.parent?.is("arrow_function")) return { start: at.start, end: at.end, text: "{}" };
  throw new NoState(at, "what the document shows is set in the middle of something else");
}
