import { saidOf, shapeOf, type FlowFacts, type FlowShape, type SyntaxNode } from "../../syntax/index.js";
import { useOf } from "../names/use.js";
import { assignmentOf } from "./assignment.js";
import { FlowGraph, type Moment, type Outcome } from "./graph.js";
import { neverReturns } from "./never-returns.js";
import { throwsNothing } from "./throws.js";
import {
  operatorOf,
  partsOf,
  partAt,
  partsOfBranch,
  unwrappedTest,
  isAlways,
  nearest,
  childrenOfKinds,
} from "./parts.js";

/** Where jumps go from a place in the code. */
interface Surroundings {
  /** Where exceptions go. */
  readonly thrown: Moment;
  /** Where `return` goes. */
  readonly returned: Moment;
  /** Loops and choices around, innermost last. */
  readonly targets: readonly Target[];
}

interface Target {
  readonly label: string | undefined;
  readonly is: "loop" | "choice" | "label";
  /** Does `break` without a label leave it? */
  readonly breaks: boolean;
  readonly broken: () => Moment;
  readonly continued?: () => Moment;
}

/** What comes after a piece of code by itself; undefined where it never ends that way. */
type End = Moment | undefined;

/** The graph of a function, or of a file outside of its functions. */
export function buildFlow(owner: SyntaxNode): FlowGraph {
  return new Builder(owner).build();
}

class Builder {
  readonly #graph: FlowGraph;
  readonly #facts: FlowFacts;
  /** Names waiting for the assignment they stand in to be done, by the node of that assignment. */
  readonly #pending = new Map<number, SyntaxNode[]>();
  /** Ways out of chains that are being built, innermost last. */
  readonly #skips: Moment[][] = [];
  #around: Surroundings;
  #label: string | undefined;

  constructor(owner: SyntaxNode) {
    this.#graph = new FlowGraph(owner);
    this.#facts = owner.tree.language.flow;
    const { failure, exit } = this.#graph;
    this.#around = { thrown: failure, returned: exit, targets: [] };
  }

  build(): FlowGraph {
    const { owner, entry, exit } = this.#graph;
    let at: End = entry;
    for (const child of owner.children) if (child.field !== "name") at = this.#node(child, at);
    if (at) this.#link(at, exit);
    return this.#graph;
  }

  #link(from: Moment, to: Moment): void {
    if (!from.next.includes(to)) from.next.push(to);
  }

  #step(from: End, node?: SyntaxNode, writes: readonly SyntaxNode[] = [], outcome?: Outcome): End {
    if (!from) return undefined;
    const moment = this.#graph.add(node, writes, outcome);
    this.#link(from, moment);
    if (node && this.#mayThrow(node)) moment.thrown = this.#around.thrown;
    return moment;
  }

  #mayThrow(node: SyntaxNode): boolean {
    if (throwsNothing(node)) return false;
    return node.is(this.#facts.mayThrow) || this.#around.thrown !== this.#graph.failure;
  }

  #meet(ends: readonly End[]): End {
    const open = ends.filter((end) => end !== undefined);
    if (open.length < 2) return open[0];
    const moment = this.#graph.add();
    for (const end of open) this.#link(end, moment);
    return moment;
  }

  #all(nodes: readonly SyntaxNode[], from: End): End {
    return nodes.reduce<End>((at, node) => this.#node(node, at), from);
  }

  #node(node: SyntaxNode, from: End): End {
    const { language } = node.tree;
    if (node.isLeaf) return this.#leaf(node, from);
    if (node.is(language.functions) || node.is(language.classes)) {
      const name = node.child("name");
      return this.#step(this.#step(from, node), undefined, name ? [name] : []);
    }
    const shape = shapeOf(node);
    if (shape) return this.#step(this.#shaped(node, shape, from), node);
    if (node.is(this.#facts.chains) && !this.#isLink(node)) return this.#chain(node, from);
    return this.#plain(node, from);
  }

  /** Is this part of a longer chain, as `a.b` is of `a.b()`? */
  #isLink(node: SyntaxNode): boolean {
    return node.parent?.is(this.#facts.chains) === true && node.parent.firstPart?.same(node) === true;
  }

  #chain(node: SyntaxNode, from: End): End {
    this.#skips.push([]);
    const end = this.#plain(node, from);
    const skips = this.#skips.pop()!;
    return skips.length === 0 ? end : this.#meet([end, ...skips]);
  }

  #plain(node: SyntaxNode, from: End): End {
    const assignment = this.#facts.assignments[node.kind];
    if (assignment) return this.#assignment(node, assignment, from);
    let at = from;
    let cut = false;
    for (const child of node.children) {
      if (at && this.#facts.chainBreaks.includes(child.kind) && !cut) {
        const object = node.firstPart ?? node;
        const missing = this.#step(at, undefined, [], { test: object, was: "missing" });
        const skips = this.#skips.at(-1);
        if (missing && skips) skips.push(missing);
        at = this.#step(at, undefined, [], { test: object, was: "present" });
        cut = true;
      }
      at = this.#node(child, at);
    }
    const end = this.#step(this.#written(node, at), node);
    return end && neverReturns(node) ? this.#jump(node, "throw", end) : end;
  }

  #assignment(node: SyntaxNode, { target, value }: FlowFacts["assignments"][string], from: End): End {
    const { assignsIf } = this.#facts;
    const targets = partsOf(node, target);
    const before = this.#all(targets, from);
    const values =
      value === undefined
        ? node.parts.filter((part) => !targets.some((t) => t.same(part)))
        : partsOf(node, value);
    const condition = assignsIf[operatorOf(node)];
    if (condition === undefined) return this.#step(this.#written(node, this.#all(values, before)), node);
    const test = targets[0]!;
    const runs = this.#step(before, undefined, [], { test, was: condition });
    const assigned = this.#written(node, this.#all(values, runs));
    const left = this.#step(before, undefined, [], { test, was: OPPOSITE[condition] });
    return this.#step(this.#meet([assigned, left]), node);
  }

  #leaf(node: SyntaxNode, from: End): End {
    if (!node.named) return from;
    const use = useOf(node);
    if (typeof use === "string") return from;
    const isWritten = use.declares ? use.does !== "declare" : use.does === "write" || use.does === "update";
    if (!isWritten || use.memberOf !== undefined) {
      const end = this.#step(from, node);
      return end && neverReturns(node) ? this.#jump(node, "throw", end) : end;
    }
    const holder = assignmentOf(node);
    if (!holder) return this.#step(from, undefined, [node]);
    const waiting = this.#pending.get(holder.id);
    if (waiting) waiting.push(node);
    else this.#pending.set(holder.id, [node]);
    return use.does === "update" ? this.#step(from, node) : from;
  }

  /** The names that a node has given a value, if any wait for it. */
  #written(node: SyntaxNode, from: End): End {
    const names = this.#pending.get(node.id);
    if (!names) return from;
    this.#pending.delete(node.id);
    return this.#step(from, undefined, names);
  }

  #shaped(node: SyntaxNode, shape: FlowShape, from: End): End {
    const label = this.#label;
    this.#label = undefined;
    switch (shape.is) {
      case "branch": {
        const [then, test, rest] = partsOfBranch(node, shape);
        return this.#branch(test, then, rest, shape.negated ?? false, from);
      }
      case "loop":
        return this.#loop(node, shape, label, from);
      case "each": {
        const over = partAt(node, shape.over);
        const target = shape.target === undefined ? [] : partAt(node, shape.target);
        const start = this.#all(over, from);
        const head = start && this.#graph.add();
        if (!head) return undefined;
        this.#link(start, head);
        const after = this.#graph.add();
        const item = this.#written(node, this.#all(target, this.#step(head)));
        const end = this.#inside(loopTarget(label, after, head), () =>
          this.#all(partsOf(node, shape.body), item),
        );
        if (end) this.#link(end, head);
        const done = shape.otherwise ? this.#all(partsOf(node, shape.otherwise), this.#step(head)) : head;
        if (done) this.#link(done, after);
        return after;
      }
      case "choice":
        return this.#choice(node, shape, label, from);
      case "try":
        return this.#try(node, shape, from);
      case "jump": {
        const end = this.#all(node.parts, from);
        const moment = this.#step(end, node);
        return moment && this.#jump(node, shape.to, moment);
      }
      case "shortCircuit": {
        const operator = operatorOf(node);
        const left = partAt(node, shape.left)[0]!;
        const { whenTrue, whenFalse, plain } = this.#test(left, from, shape.runsIf[operator]!);
        const right = this.#all(partAt(node, shape.right), whenTrue);
        return this.#meet([right, whenFalse, plain]);
      }
      case "label": {
        const name = this.#facts.label(node);
        const after = this.#graph.add();
        const target: Target = { label: name, is: "label", breaks: false, broken: () => after };
        const end = this.#inside(target, () => {
          this.#label = name;
          return this.#all(
            node.parts.filter((part) => part.text !== name),
            from,
          );
        });
        if (end) this.#link(end, after);
        return after;
      }
      case "negation":
        return this.#all(node.parts, from);
    }
  }

  /** Evaluates a test; what comes after it where it went the way asked for, and where it did not. */
  #test(
    test: SyntaxNode,
    from: End,
    way: "true" | "false" | "missing" | "present" = "true",
  ): { whenTrue: End; whenFalse: End; plain: End } {
    const inner = unwrappedTest(test, this.#facts);
    const shape = shapeOf(inner);
    if (
      (way === "true" || way === "false") &&
      shape?.is === "negation" &&
      shape.operators.includes(operatorOf(inner))
    ) {
      return this.#test(inner.lastPart!, from, OPPOSITE[way]);
    }
    if ((way === "true" || way === "false") && shape?.is === "shortCircuit") {
      const runsIf = shape.runsIf[operatorOf(inner)];
      if (runsIf === "true" || runsIf === "false") {
        const left = this.#test(partAt(inner, shape.left)[0]!, from, runsIf);
        const right = this.#test(partAt(inner, shape.right)[0]!, left.whenTrue, "true");
        // `a && b` is true when both are, and false when either is; `a || b` the other way round.
        const isAnd = runsIf === "true";
        const isTrue = isAnd ? right.whenTrue : this.#meet([left.whenFalse, right.whenTrue]);
        const isFalse = isAnd ? this.#meet([left.whenFalse, right.whenFalse]) : right.whenFalse;
        const done = way === "true" ? { yes: isTrue, no: isFalse } : { yes: isFalse, no: isTrue };
        return {
          whenTrue: this.#step(done.yes, inner),
          whenFalse: this.#step(done.no, inner),
          plain: undefined,
        };
      }
    }
    const end = this.#node(test, from);
    return {
      whenTrue: this.#step(end, undefined, [], { test: inner, was: way }),
      whenFalse: this.#step(end, undefined, [], { test: inner, was: OPPOSITE[way] }),
      plain: undefined,
    };
  }

  #branch(
    test: readonly SyntaxNode[],
    then: readonly SyntaxNode[],
    otherwise: readonly SyntaxNode[],
    negated: boolean,
    from: End,
  ): End {
    const start = this.#all(test.slice(0, -1), from);
    const last = test.at(-1);
    const ways = last
      ? this.#test(last, start, negated ? "false" : "true")
      : { whenTrue: start, whenFalse: start };
    return this.#meet([this.#all(then, ways.whenTrue), this.#otherwise(otherwise, ways.whenFalse)]);
  }

  /** `elif` and the like stand side by side; each is what the one before does otherwise. */
  #otherwise(nodes: readonly SyntaxNode[], from: End): End {
    const [first, ...rest] = nodes;
    if (!first) return from;
    const shape = shapeOf(first);
    if (shape?.is !== "branch" || shape.otherwise !== undefined) return this.#all(nodes, from);
    const [then, test] = partsOfBranch(first, shape);
    return this.#branch(test, then, rest, false, from);
  }

  #inside(target: Target, build: () => End): End {
    const saved = this.#around;
    this.#around = { ...saved, targets: [...saved.targets, target] };
    const end = build();
    this.#around = saved;
    return end;
  }

  #loop(
    node: SyntaxNode,
    shape: Extract<FlowShape, { is: "loop" }>,
    label: string | undefined,
    from: End,
  ): End {
    const before = shape.first ? this.#all(partsOf(node, shape.first), from) : from;
    if (!before) return undefined;
    const head = this.#graph.add();
    const again = this.#graph.add();
    const after = this.#graph.add();
    this.#link(before, head);
    const tests = shape.test
      ? partsOf(node, shape.test).filter((part) => part.named && !part.is("empty_statement"))
      : [];
    const bodyFirst = typeof shape.bodyFirst === "function" ? shape.bodyFirst(node) : shape.bodyFirst;
    const body = (start: End): End =>
      this.#inside(loopTarget(label, after, again), () => this.#all(partsOf(node, shape.body), start));
    const test = (start: End): { whenTrue: End; whenFalse: End } => {
      const last = tests.at(-1);
      if (!last) return { whenTrue: start, whenFalse: undefined };
      const ways = this.#test(last, this.#all(tests.slice(0, -1), start), shape.negated ? "false" : "true");
      return isAlways(last) && !shape.negated ? { ...ways, whenFalse: undefined } : ways;
    };
    let ended: End;
    if (bodyFirst) {
      const end = body(head);
      if (end) this.#link(end, again);
      const ways = test(again);
      if (ways.whenTrue) this.#link(ways.whenTrue, head);
      ended = ways.whenFalse;
    } else {
      const ways = test(head);
      const end = body(ways.whenTrue);
      if (end) this.#link(end, again);
      const updated = shape.update ? this.#all(partsOf(node, shape.update), again) : again;
      if (updated) this.#link(updated, head);
      ended = ways.whenFalse;
    }
    const done = shape.otherwise ? this.#all(partsOf(node, shape.otherwise), ended) : ended;
    if (done) this.#link(done, after);
    return after;
  }

  #choice(
    node: SyntaxNode,
    shape: Extract<FlowShape, { is: "choice" }>,
    label: string | undefined,
    from: End,
  ): End {
    const value = partAt(node, shape.value);
    const start = this.#all(value, from);
    if (!start) return undefined;
    const after = this.#graph.add();
    const ways = [...node.descendants()].filter(
      (way) =>
        way.named &&
        way.is(shape.ways) &&
        nearest(way, node, this.#facts) &&
        !value.some((part) => part.holds(way)),
    );
    let fallen: End;
    let isComplete = saidOf(shape.exhaustive, node);
    const fallsThrough = saidOf(shape.fallsThrough, node);
    for (const way of ways) {
      if (shape.isDefault(way)) isComplete = true;
      const entered = this.#meet([this.#step(start), fallsThrough ? fallen : undefined]);
      const target: Target = { label, is: "choice", breaks: shape.breaks ?? false, broken: () => after };
      fallen = this.#inside(target, () => this.#all(way.children, entered));
      if (fallen) fallen = this.#step(fallen, way);
      if (!fallsThrough && fallen) this.#link(fallen, after);
    }
    if (fallsThrough && fallen) this.#link(fallen, after);
    if (!isComplete) this.#link(start, after);
    return after;
  }

  #try(node: SyntaxNode, shape: Extract<FlowShape, { is: "try" }>, from: End): End {
    if (!from) return undefined;
    const around = this.#around;
    const lastly = node.children.filter((child) => child.kind === shape.lastly);
    const handlers = childrenOfKinds(node, shape.handlers);
    const otherwise = node.children.filter((child) => child.kind === shape.otherwise);
    const body = node.children.filter(
      (child) =>
        ![...lastly, ...handlers, ...otherwise].some((part) => part.same(child) || child.holds(part)),
    );
    // Ways out that pass through `finally` are built once each, since what follows differs.
    const through = (to: Moment): Moment => {
      if (lastly.length === 0) return to;
      const start = this.#graph.add();
      const saved = this.#around;
      this.#around = around;
      const end = this.#all(lastly, start);
      this.#around = saved;
      if (end) this.#link(end, to);
      return start;
    };
    const outer: Surroundings = {
      thrown: lastly.length > 0 ? through(around.thrown) : around.thrown,
      returned: lastly.length > 0 ? through(around.returned) : around.returned,
      targets: around.targets.map((target) =>
        lastly.length === 0
          ? target
          : {
              ...target,
              broken: once(() => through(target.broken())),
              ...(target.continued ? { continued: once(() => through(target.continued!())) } : {}),
            },
      ),
    };
    const isCaught = handlers.length > 0 || shape.swallows === true;
    const caught = isCaught ? this.#graph.add() : outer.thrown;
    this.#around = { ...outer, thrown: caught };
    const entered = this.#step(from);
    if (entered) entered.thrown = caught;
    let end = this.#all(body, entered);
    this.#around = outer;
    end = this.#all(otherwise, end);
    const ends = [end];
    if (isCaught) {
      // Not every exception need be caught.
      this.#link(caught, outer.thrown);
      if (shape.swallows) ends.push(this.#step(caught));
      for (const handler of handlers) ends.push(this.#all([handler], caught));
    }
    this.#around = around;
    const met = this.#meet(ends);
    return lastly.length === 0 ? met : this.#all(lastly, met);
  }

  #jump(node: SyntaxNode, to: Extract<FlowShape, { is: "jump" }>["to"], from: Moment): End {
    const { targets, thrown, returned } = this.#around;
    if (to === "return") this.#link(from, returned);
    else if (to === "throw") this.#link(from, thrown);
    else if (to === "anywhere") {
      this.#graph.gap ??= node;
      this.#link(from, returned);
    } else {
      const label = this.#facts.label(node);
      const fits = (target: Target): boolean => {
        if (label !== undefined) return target.label === label;
        if (to === "choice") return target.is === "choice";
        return to === "break" ? target.breaks : target.continued !== undefined;
      };
      const found = targets.filter(fits).at(-this.#facts.levels(node));
      const next = to === "continue" ? found?.continued?.() : found?.broken();
      if (next) this.#link(from, next);
      else {
        this.#graph.gap ??= node;
        this.#link(from, returned);
      }
    }
    return undefined;
  }
}

function loopTarget(label: string | undefined, broken: Moment, continued: Moment): Target {
  return { label, is: "loop", breaks: true, broken: () => broken, continued: () => continued };
}

/** The same answer each time, worked out when it is first asked for. */
function once<T>(make: () => T): () => T {
  let made: { value: T } | undefined;
  return () => (made ??= { value: make() }).value;
}

const OPPOSITE = { true: "false", false: "true", missing: "present", present: "missing" } as const;
