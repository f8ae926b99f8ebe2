import { operatorOf } from "../analysis/index.js";
import { jumpOf, partsOf, sameCode, shapeOf, type SyntaxNode } from "../syntax/index.js";
import { isSwitch } from "./cases.js";
import { asksFor, bare, presenceOf } from "./presence-test.js";
import { expressionOf, statementsOf, waysOf } from "./ways.js";

/** What a value may be: a list, a single thing, or nothing. */
export type Kind = "many" | "one" | "none";

/** Does a node choose a way by the values that the ways name? */
export const choosesByValue = (node: SyntaxNode): boolean => {
  const shape = shapeOf(node);
  return shape !== undefined && isSwitch(shape);
};

/** What a node chooses by. */
export function valueOfSwitch(node: SyntaxNode): SyntaxNode | undefined {
  const shape = shapeOf(node);
  if (!shape || !isSwitch(shape) || shape.value === undefined) return undefined;
  return typeof shape.value === "number" ? node.parts[shape.value] : partsOf(node, shape.value)[0];
}

/** What is run for a value of one kind. */
export interface Trace {
  /** What is done, without tests and jumps. */
  readonly done: readonly SyntaxNode[];
  /** What is returned. */
  readonly gives: SyntaxNode | undefined;
}

/** Follows code for a value of each kind. */
export class Asking {
  #byTruth = false;
  #tellsNone = false;

  constructor(readonly subject: SyntaxNode) {}

  /** What the tests have shown on the way. */
  learnt(): { readonly byTruth: boolean; readonly tellsNone: boolean } {
    return { byTruth: this.#byTruth, tellsNone: this.#tellsNone };
  }

  /** What statements do; undefined where a test asks for something else. */
  follow(statements: readonly SyntaxNode[], kind: Kind): Trace | undefined {
    const done: SyntaxNode[] = [];
    const rest = [...statements];
    while (rest.length > 0) {
      const one = rest.shift()!;
      if (jumpOf(one) === "return") {
        const gives = this.returned(one);
        return gives && { done, gives: this.valueOf(gives, kind) ?? gives };
      }
      if (jumpOf(one) !== undefined) return undefined;
      const way = this.#wayOf(bare(expressionOf(one)), kind);
      if (way === "none") return undefined;
      if (way) rest.unshift(...way);
      else done.push(one);
    }
    return { done, gives: undefined };
  }

  /** The value of an expression; undefined where a test asks for something else. */
  valueOf(node: SyntaxNode, kind: Kind): SyntaxNode | undefined {
    const code = bare(node);
    const way = this.#wayOf(code, kind);
    if (way === "none") return undefined;
    if (!way) return code;
    return way.length === 1 ? this.valueOf(expressionOf(way[0]!), kind) : undefined;
  }

  returned(statement: SyntaxNode): SyntaxNode | undefined {
    const [only] = statement.parts;
    const values = only?.is(statement.tree.language.argumentLists) ? only.parts : statement.parts;
    return values.length === 1 ? values[0] : undefined;
  }

  /** The statements of the way that is taken; nothing where no way is chosen here, `none` where it is not known. */
  #wayOf(node: SyntaxNode, kind: Kind): readonly SyntaxNode[] | "none" | undefined {
    if (choosesByValue(node)) return this.#caseOf(node, kind);
    const shape = shapeOf(node);
    if (shape?.is !== "branch") return undefined;
    const ways = waysOf(node);
    const holds = ways && this.#holds(ways.test, kind);
    return holds === undefined ? "none" : holds ? ways!.yes : ways!.no;
  }

  #caseOf(node: SyntaxNode, kind: Kind): readonly SyntaxNode[] | "none" {
    const shape = shapeOf(node);
    if (!shape || !isSwitch(shape) || shape.exhaustive) return "none";
    const value = valueOfSwitch(node);
    if (value && !sameCode(bare(value), this.subject)) return "none";
    const ways = node.parts.filter((part) => part.is(shape.ways));
    for (const way of ways) {
      const labels = partsOf(way, shape.labels!);
      const done = way.parts
        .filter((part) => !labels.some((label) => label.same(part)))
        .flatMap(statementsOf);
      if (shape.isDefault(way)) return done;
      for (const label of labels) {
        const holds = value ? this.#isNamed(label, kind) : this.#holds(label, kind);
        if (holds === undefined) return "none";
        if (holds) return done;
      }
    }
    return [];
  }

  /** Is a value of this kind one that a label of a `case` names? */
  #isNamed(label: SyntaxNode, kind: Kind): boolean | undefined {
    const { missing, collecting } = label.tree.language.flow;
    const inner = label.parts.length === 1 ? label.firstPart! : label;
    if (inner.text === collecting.lists?.named) return kind === "many";
    if (!missing.literals.includes(inner.text) && inner.text !== "NilClass") return undefined;
    this.#tellsNone = true;
    return kind === "none";
  }

  /** Does a test hold for a value of this kind? */
  #holds(test: SyntaxNode, kind: Kind): boolean | undefined {
    const asked = bare(test);
    const shape = shapeOf(asked);
    if (shape?.is === "negation" && asked.lastPart) {
      const inner = this.#holds(asked.lastPart, kind);
      return inner === undefined ? undefined : !inner;
    }
    const runsIf = shape?.is === "shortCircuit" ? shape.runsIf[operatorOf(asked)] : undefined;
    if (runsIf === "true" || runsIf === "false") {
      const left = this.#holds(asked.firstPart!, kind);
      if (left === undefined) return undefined;
      return left === (runsIf === "true") ? this.#holds(asked.lastPart!, kind) : left;
    }
    const listed = asked.tree.language.flow.collecting.lists?.testedBy(asked);
    if (listed) return sameCode(bare(listed), this.subject) ? kind === "many" : undefined;
    const presence = presenceOf(asked);
    if (!asksFor(presence, this.subject) || !["missing", "null", "truth"].includes(presence.asks))
      return undefined;
    this.#tellsNone = true;
    if (presence.by === "truth") this.#byTruth = true;
    return (kind !== "none") === presence.isThere;
  }
}
