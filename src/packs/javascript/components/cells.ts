import { changesOf, referencesOf, sameCode, type Declaration, type SyntaxNode } from "../../../core.js";
import type { Aspect, ElementUse, Value } from "./element-use.js";
import { attributesOf, attributeValue, onlyContent, plainText, type Element } from "./markup.js";
import { NoState } from "./no-state.js";
import { declarationAt, type EffectParts, type Local } from "./reader.js";
import { isSteady, sortOf, valueOfCode, type Plain, type Sort } from "./values.js";

/** Code that gives a cell another value. */
export interface Write {
  readonly at: SyntaxNode;
  readonly value: Value | undefined;
  /** What the old value is combined with: `+` for `+=`; undefined where the value is given as it is. */
  readonly operator: string | undefined;
}

/** Something that changes while a component is shown: a variable of an effect, or what an effect sets of an element. */
export interface Cell {
  /** What the old code calls it, or what it would be called. */
  readonly wish: string;
  readonly reads: readonly SyntaxNode[];
  readonly writes: readonly Write[];
  readonly local: Local | undefined;
  readonly shown: Shown | undefined;
}

/** What is set of one element. */
export interface Shown {
  readonly element: Element;
  readonly aspect: Aspect;
  /** The expression that always says it, or the branch that does, where there is one. */
  readonly value: SyntaxNode | Branch | undefined;
}

/** A branch that sets an aspect in both of its ways. */
export interface Branch {
  readonly statement: SyntaxNode;
  readonly test: SyntaxNode;
  readonly yes: SyntaxNode | boolean;
  readonly no: SyntaxNode | boolean;
}

export const isBranch = (value: SyntaxNode | Branch): value is Branch => "yes" in value;

/** The expressions in what an aspect is set to. */
export const expressionsIn = (value: SyntaxNode | Branch): SyntaxNode[] =>
  isBranch(value)
    ? [value.test, value.yes, value.no].filter((one): one is SyntaxNode => typeof one === "object")
    : [value];

/** The cell of a variable. Throws a NoState where what it holds is changed, and not the variable. */
export function cellOf(local: Local): Cell {
  const reads: SyntaxNode[] = [];
  const writes: Write[] = [];
  for (const { node, does } of referencesOf(local.to)) {
    if (node.same(local.name)) continue;
    const { parent, field } = node;
    const isLeft = field === "left" || parent?.is("update_expression");
    const kind = isLeft ? parent : undefined;
    if (kind?.is("assignment_expression"))
      writes.push({ at: kind, value: kind.child("right")!, operator: undefined });
    else if (kind?.is("augmented_assignment_expression"))
      writes.push({
        at: kind,
        value: kind.child("right")!,
        operator: kind.child("operator")!.text.slice(0, -1),
      });
    else if (kind?.is("update_expression"))
      writes.push({ at: kind, value: undefined, operator: kind.child("operator")!.text[0]! });
    else if (does === "read") reads.push(node);
    else throw new NoState(node, `\`${node.text}\` is changed together with others`);
  }
  return { wish: local.name.text, reads, writes, local, shown: undefined };
}

/** What is done to a value in place: state must be replaced instead. */
export function changedInPlace({ local, reads }: Cell): SyntaxNode | undefined {
  const first = local?.first;
  if (!first || !first.is(["array", "object", "new_expression"])) return undefined;
  return reads.find(
    (node) => node.parent?.is(["member_expression", "subscript_expression"]) && node.field === "object",
  );
}

type SetUse = Extract<ElementUse, { is: "sets" }>;
type ReadUse = Extract<ElementUse, { is: "reads" }>;

/** The cells of what is set of elements. */
export function shownCells(parts: readonly EffectParts[]): Cell[] {
  const groups = new Map<string, { element: Element; label: string; sets: SetUse[]; reads: ReadUse[] }>();
  for (const { lookedUp } of parts)
    for (const { element, name, uses } of lookedUp)
      for (const use of uses) {
        if (use.is !== "sets" && use.is !== "reads") continue;
        const key = `${element.id} ${use.aspect.is} ${use.aspect.name}`;
        const label =
          name?.text ??
          element.id.replace(/[^\p{L}\p{N}]+(.)/gu, (_, letter: string) => letter.toUpperCase());
        if (!groups.has(key)) groups.set(key, { element, label, sets: [], reads: [] });
        groups.get(key)![use.is === "sets" ? "sets" : "reads"].push(use as SetUse & ReadUse);
      }
  return [...groups.values()].flatMap(({ element, label, sets, reads }) => {
    const aspect = sets[0]?.aspect;
    if (!aspect) return [];
    const writes = sets.map(({ at, value }) => ({ at, value, operator: undefined }));
    const same = reads.length === 0 ? sameValue(sets) : undefined;
    const wish = nameOf(aspect, label);
    return [
      {
        wish,
        reads: reads.map(({ at }) => at),
        writes,
        local: undefined,
        shown: { element, aspect, value: same },
      },
    ];
  });
}

const upper = (word: string): string =>
  word.replace(/(?:^|[^\p{L}\p{N}]+)(.)/gu, (_, letter: string) => letter.toUpperCase());

function nameOf({ is, name }: Aspect, label: string): string {
  if (is === "text") return `${label}Text`;
  if (is === "classes") return `${label}Class`;
  if (is === "class") return `is${upper(name)}`;
  return is === "attribute" && /^(disabled|hidden)$/.test(name)
    ? `is${upper(label)}${upper(name)}`
    : `${label}${upper(name)}`;
}

/** The branch in whose two ways the only two places stand that set an aspect. */
function branchOf([first, second, ...more]: readonly SetUse[]): Branch | undefined {
  const wayOf = (use: SetUse | undefined): SyntaxNode | undefined => {
    const statement = use?.at.parent?.is("expression_statement") ? use.at.parent : undefined;
    const block = statement?.parent?.is("statement_block") ? statement.parent : statement;
    return block?.parent?.is("else_clause") ? block.parent : block;
  };
  const [one, other] = [wayOf(first), wayOf(second)];
  const statement = one?.parent;
  if (!statement?.is("if_statement") || !statement.same(other?.parent) || one!.same(other) || more.length > 0)
    return undefined;
  const [yes, no] =
    one!.field === "consequence" ? [first!.value, second!.value] : [second!.value, first!.value];
  const test = statement.child("condition")!.firstPart!;
  return yes === "contrary" || no === "contrary" ? undefined : { statement, test, yes, no };
}

/** What an aspect is set to wherever it is set. */
function sameValue(sets: readonly SetUse[]): SyntaxNode | Branch | undefined {
  return oneValue(sets) ?? branchOf(sets);
}

/** The expression that an aspect is set to wherever it is set. */
function oneValue(sets: readonly SetUse[]): SyntaxNode | undefined {
  const [first, ...rest] = sets.map(({ value }) => value);
  if (first === undefined || typeof first !== "object") return undefined;
  return rest.every((one) => typeof one === "object" && sameCode(one, first)) ? first : undefined;
}

/** The cells that a value is worked out from; undefined where something else goes into it as well. */
export function sourcesOf(
  value: SyntaxNode | Branch,
  cells: readonly Cell[],
  effectBody: SyntaxNode,
  mayMove: (name: SyntaxNode) => boolean,
): Cell[] | undefined {
  const expressions = expressionsIn(value);
  if (!expressions.every(isSteady)) return undefined;
  const sources = new Set<Cell>();
  for (const node of expressions.flatMap((one) => [...one.descendants()])) {
    if (!node.is(["identifier", "shorthand_property_identifier"])) continue;
    const to = declarationAt(node);
    const cell = to && cells.find(({ local }) => local?.to === to);
    if (cell) sources.add(cell);
    else if (to?.at.some((at) => effectBody.holds(at)) ? !mayMove(node) : !isSettled(node, to))
      return undefined;
  }
  return [...sources];
}

const KNOWN = ["String", "Number", "Boolean", "Math", "undefined", "NaN"];

/** Does a name from outside of the effect keep its value from one rendering to the next? What a module holds can change unseen. */
function isSettled(node: SyntaxNode, to: Declaration | undefined): boolean {
  if (!to) return KNOWN.includes(node.text);
  const isOfComponent = !to.scope.same(node.tree.root);
  const isRead = node.parent?.is(["member_expression", "subscript_expression"]) && node.field === "object";
  return isOfComponent || (!isRead && changesOf(to).length <= 1);
}

/** What kind of value a cell holds, by all that it is given. */
export function sortOfCell(
  cell: Cell,
  cells: readonly Cell[],
  asked: readonly Cell[] = [],
): Sort | undefined {
  if (asked.includes(cell)) return undefined;
  const type = { string: "text", number: "number", boolean: "switch" }[cell.local?.type ?? ""];
  if (type) return type as Sort;
  const first = cell.local?.first;
  const sort = first && sortOf(first, () => undefined);
  if (!sort) return undefined;
  const known = (node: SyntaxNode): Sort | undefined => {
    const to = declarationAt(node);
    const other = cells.find(({ local }) => local && local.to === to);
    return other === cell ? sort : other && sortOfCell(other, cells, [...asked, cell]);
  };
  const areSame = cell.writes.every(({ value, operator }) => {
    if (operator === "+" && sort === "text") return true;
    if (value === undefined) return sort === "number";
    if (typeof value !== "object") return sort === "switch";
    if (operator !== undefined && operator !== "+") return sort === "number";
    return sortOf(value, known) === sort;
  });
  return areSame ? sort : undefined;
}

/** The sort of an expression over cells. */
export function sortOver(value: SyntaxNode, cells: readonly Cell[]): Sort | undefined {
  return sortOf(value, (node) => {
    const to = declarationAt(node);
    const cell = cells.find(({ local }) => local && local.to === to);
    return cell && sortOfCell(cell, cells);
  });
}

/** Does the markup show at first what the expression gives for the first values of its cells? */
export function isShownAtFirst({ element, aspect, value }: Shown, cells: readonly Cell[]): boolean {
  const firstOf = (node: SyntaxNode): SyntaxNode | undefined => {
    const to = declarationAt(node);
    return cells.find(({ local }) => local && local.to === to)?.local?.first;
  };
  const known = (node: SyntaxNode): Plain | undefined => {
    const code = firstOf(node);
    return code && valueOfCode(code, () => undefined);
  };
  const worked = (one: SyntaxNode | boolean): Plain | undefined =>
    typeof one === "boolean" ? one : valueOfCode(one, known);
  const firstOfBranch = ({ test, yes, no }: Branch): Plain | undefined => {
    const is = worked(test);
    return is === undefined ? undefined : worked(is ? yes : no);
  };
  const first = isBranch(value!) ? firstOfBranch(value) : worked(value!);
  const shown = shownAtFirst(element, aspect);
  if (typeof shown === "object") return !isBranch(value!) && isSameAtFirst(value!, shown, firstOf);
  if (first === undefined || shown === undefined) return false;
  return aspect.isSwitch ? Boolean(first) === shown : String(first) === shown;
}

/** `{start}` in the markup, where `count` begins as `start` and the text is `count`. */
function isSameAtFirst(
  value: SyntaxNode,
  shown: SyntaxNode,
  firstOf: (node: SyntaxNode) => SyntaxNode | undefined,
): boolean {
  const callee = value.is("call_expression") ? value.child("function")!.text : undefined;
  if (callee === "String") return isSameAtFirst(value.child("arguments")!.firstPart!, shown, firstOf);
  const first = value.is("identifier") ? firstOf(value) : undefined;
  return sameCode(first ?? value, shown);
}

/** What the markup says of an aspect: a text, on or off, or an expression; undefined where it cannot be told. */
export function shownAtFirst(
  element: Element,
  { is, name }: Aspect,
): string | boolean | SyntaxNode | undefined {
  if (is === "text") return onlyContent(element);
  const attributes = attributesOf(element.tag);
  if (is === "style") return attributes.has("style") ? undefined : "";
  const attribute = attributes.get(is === "attribute" ? name : "className");
  const value = attribute && attributeValue(attribute);
  const text = plainText(value);
  if (is === "class")
    return attribute && text === undefined ? undefined : (text ?? "").split(/\s+/).includes(name);
  if (/^(disabled|hidden)$/.test(name)) {
    if (!attribute) return false;
    return value === undefined || value.is("true") ? true : value.is("false") ? false : undefined;
  }
  return attribute ? (text ?? value) : is === "classes" ? "" : undefined;
}
