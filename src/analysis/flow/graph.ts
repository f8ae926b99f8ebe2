import type { SyntaxNode } from "../../syntax/index.js";

/** A test that went one way. */
export interface Outcome {
  readonly test: SyntaxNode;
  /** True, false, or that the value was missing or there, as `??` and `?.` ask. */
  readonly was: "true" | "false" | "missing" | "present";
}

/** A moment in the run of a function: something has just been evaluated, written, or decided. */
export interface Moment {
  readonly id: number;
  /** What has just been evaluated; undefined where ways only meet. */
  readonly node: SyntaxNode | undefined;
  /** The names that have just been given a value. */
  readonly writes: readonly SyntaxNode[];
  readonly outcome: Outcome | undefined;
  readonly next: Moment[];
  /** Where it goes on if evaluating the node throws. */
  thrown: Moment | undefined;
}

/** The moments of one function, or of the code of a file outside of functions, and how they follow one another. */
export class FlowGraph {
  readonly moments: Moment[] = [];
  readonly entry: Moment;
  /** The function comes back by itself or through `return`. */
  readonly exit: Moment;
  /** The function is left by an exception. */
  readonly failure: Moment;
  /** Why the graph does not show all ways: a jump that cannot be followed. */
  gap: SyntaxNode | undefined;
  readonly #byNode = new Map<number, Moment[]>();
  readonly #writes = new Map<number, Moment[]>();

  constructor(readonly owner: SyntaxNode) {
    this.entry = this.add();
    this.exit = this.add();
    this.failure = this.add();
  }

  add(node?: SyntaxNode, writes: readonly SyntaxNode[] = [], outcome?: Outcome): Moment {
    const moment: Moment = { id: this.moments.length, node, writes, outcome, next: [], thrown: undefined };
    this.moments.push(moment);
    if (node) push(this.#byNode, node.id, moment);
    for (const write of writes) push(this.#writes, write.id, moment);
    return moment;
  }

  /** The moments at which a node has just been evaluated: several where it stands in a `finally`. */
  at(node: SyntaxNode): readonly Moment[] {
    return this.#byNode.get(node.id) ?? [];
  }

  /** The moments at which a name has just been written. */
  writesAt(name: SyntaxNode): readonly Moment[] {
    return this.#writes.get(name.id) ?? [];
  }

  /** The first moments that belong to a node or to anything in it, and so the last. */
  within(node: SyntaxNode): Moment[] {
    return this.moments.filter((moment) => moment.node && node.holds(moment.node));
  }

  /**
   * All moments that can come after these, without passing one that `blocks`, and without an exception where one does not
   * `throw`. The starts count only if reached again.
   */
  after(
    starts: Iterable<Moment>,
    blocks: (moment: Moment) => boolean = () => false,
    throws: (moment: Moment) => boolean = () => true,
  ): Set<Moment> {
    const reached = new Set<Moment>();
    const onwards = (moment: Moment): Moment[] => (throws(moment) ? following(moment) : moment.next);
    const waiting = [...starts].flatMap(onwards);
    for (let moment = waiting.pop(); moment; moment = waiting.pop()) {
      if (reached.has(moment)) continue;
      reached.add(moment);
      if (!blocks(moment)) waiting.push(...onwards(moment));
    }
    return reached;
  }

  /** All moments from which one of these can be reached, without passing one that `blocks`. */
  before(ends: Iterable<Moment>, blocks: (moment: Moment) => boolean = () => false): Set<Moment> {
    const reached = new Set<Moment>();
    const waiting = [...ends].flatMap((moment) => this.#preceding().get(moment) ?? []);
    for (let moment = waiting.pop(); moment; moment = waiting.pop()) {
      if (reached.has(moment)) continue;
      reached.add(moment);
      if (!blocks(moment)) waiting.push(...(this.#preceding().get(moment) ?? []));
    }
    return reached;
  }

  /** The moments that one can come directly after. */
  comingTo(moment: Moment): readonly Moment[] {
    return this.#preceding().get(moment) ?? [];
  }

  #sources: Map<Moment, Moment[]> | undefined;
  #preceding(): Map<Moment, Moment[]> {
    if (!this.#sources) {
      this.#sources = new Map();
      for (const moment of this.moments) {
        for (const next of following(moment)) {
          const list = this.#sources.get(next);
          if (list) list.push(moment);
          else this.#sources.set(next, [moment]);
        }
      }
    }
    return this.#sources;
  }
}

/** The moments that may come next, by an exception too. */
export function following(moment: Moment): Moment[] {
  return moment.thrown ? [...moment.next, moment.thrown] : moment.next;
}

function push(map: Map<number, Moment[]>, key: number, moment: Moment): void {
  const list = map.get(key);
  if (list) list.push(moment);
  else map.set(key, [moment]);
}
