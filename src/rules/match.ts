import type { Surroundings } from "../analysis/index.js";
import { textOfCapture, type FreshName, type Hole, type Need, type PatternMatch } from "../pattern/index.js";
import {
  isRead,
  type Chain,
  type Choice,
  type Collecting,
  type EqualOrMissing,
  type Flagged,
  type Sought,
  type Keyed,
  type Loop,
  type OneOrMany,
  type PresenceTest,
  type Resource,
  type Switched,
} from "../readings/index.js";
import { nameFor, type NamedOptions, singular, type FreshNames } from "../rewrite/index.js";
import type { Import, SyntaxNode, SyntaxTree } from "../syntax/index.js";
import type { LineLimit, TargetSource } from "./target.js";

/** What is around the file of a match. */
export interface Around extends Surroundings {
  /** The versions that the project's code must run on; undefined where nobody says. */
  readonly targets?: TargetSource | undefined;
  /** The time in milliseconds after which a file is given up; without it none is. */
  readonly fileTime?: number | undefined;
}

/** A place that a rule's pattern fits, as conditions and computed replacements see it. */
export class Match {
  readonly #fresh = new Map<FreshName, string>();
  readonly #needed: Import[] = [];

  constructor(
    readonly found: PatternMatch,
    readonly names: FreshNames,
    /** Which of the rule's patterns fitted, counted from 0. */
    readonly alternative: number,
    readonly around: Around = { path: "" },
  ) {}

  /** The same match with the holes of another one, found around it or in it. */
  and({ captures }: PatternMatch): Match {
    const found = { ...this.found, captures: new Map([...captures, ...this.found.captures]) };
    return new Match(found, this.names, this.alternative, this.around);
  }

  get tree(): SyntaxTree {
    return this.found.tree;
  }

  /** The matched node; the first of them when the pattern is several statements. */
  get node(): SyntaxNode {
    return this.tree.node(this.found.nodes[0]!);
  }

  /** The matched nodes. */
  get nodes(): SyntaxNode[] {
    return this.found.nodes.map((n) => this.tree.node(n));
  }

  /** The tests that a reading found, in their order; none where the pattern is code. */
  get tests(): readonly PresenceTest[] {
    return isRead(this.found) ? this.found.tests : [];
  }

  /** The tests that were found, and the reads that they protect. Throws a TypeError where none were looked for. */
  get chain(): Chain {
    const chain = isRead(this.found) ? this.found.chain : undefined;
    if (!chain) throw new TypeError("the rule does not look for guarded code");
    return chain;
  }

  /** The condition and both values that were found. Throws a TypeError where no choice was looked for. */
  get choice(): Choice {
    const choice = isRead(this.found) ? this.found.choice : undefined;
    if (!choice) throw new TypeError("the rule does not look for a choice");
    return choice;
  }

  /** The item that is put or counted. Throws a TypeError where none was looked for. */
  get keyed(): Keyed {
    const keyed = isRead(this.found) ? this.found.keyed : undefined;
    if (!keyed) throw new TypeError("the rule does not look for items that are put");
    return keyed;
  }

  /** The list that was found, with the loop that fills it. Throws a TypeError where none was looked for. */
  get collecting(): Collecting {
    const collecting = isRead(this.found) ? this.found.collecting : undefined;
    if (!collecting) throw new TypeError("the rule does not look for lists that a loop fills");
    return collecting;
  }

  /** The loop that finds out whether an item passes a test. Throws a TypeError where none was looked for. */
  get flagged(): Flagged {
    const flagged = isRead(this.found) ? this.found.flagged : undefined;
    if (!flagged)
      throw new TypeError("the rule does not look for loops that find out whether there is something");
    return flagged;
  }

  /** The loop that looks for the first item that passes a test. Throws a TypeError where none was looked for. */
  get sought(): Sought {
    const sought = isRead(this.found) ? this.found.sought : undefined;
    if (!sought) throw new TypeError("the rule does not look for loops that look for the first item");
    return sought;
  }

  /** What is done with a list, with one thing and with nothing. Throws a TypeError where that was not looked for. */
  get oneOrMany(): OneOrMany {
    const found = isRead(this.found) ? this.found.oneOrMany : undefined;
    if (!found) throw new TypeError("the rule does not look for code that tells lists from single things");
    return found;
  }

  /** The two things that are compared. Throws a TypeError where no such comparison was looked for. */
  get equalOrMissing(): EqualOrMissing {
    const found = isRead(this.found) ? this.found.equalOrMissing : undefined;
    if (!found) throw new TypeError("the rule does not look for comparisons of what may be missing");
    return found;
  }

  /** The `switch` that was found, with the value of each way. Throws a TypeError where none was looked for. */
  get switched(): Switched {
    const switched = isRead(this.found) ? this.found.switched : undefined;
    if (!switched) throw new TypeError("the rule does not look for switch statements that give values");
    return switched;
  }

  /** The loop that was found. Throws a TypeError where none was looked for. */
  get loop(): Loop {
    const loop = isRead(this.found) ? this.found.loop : undefined;
    if (!loop) throw new TypeError("the rule does not look for loops over positions");
    return loop;
  }

  /** The resource that was found. Throws a TypeError where none was looked for. */
  get resource(): Resource {
    const resource = isRead(this.found) ? this.found.resource : undefined;
    if (!resource) throw new TypeError("the rule does not look for what is acquired and released");
    return resource;
  }

  /** Where the new expression of a reading goes: the old code, or the value in the statement that stays. */
  get place(): SyntaxNode {
    return (isRead(this.found) ? this.found.frame?.value : undefined) ?? this.node;
  }

  /** The name that new code gives to something new, for replacements that a function works out. */
  named(name: FreshName): string {
    let known = this.#fresh.get(name);
    if (known === undefined) {
      const { base, singularOf, or } = name;
      const wish = singularOf && singular(this.textOf(singularOf));
      const wishes = [...(wish === undefined ? [] : [wish]), base, ...or];
      this.#fresh.set(name, (known = this.names.choose(wishes, this.found.start, this.found.end)));
    }
    return known;
  }

  /**
   * What the file calls something from elsewhere, by the name or alias that it has there, for replacements that a function
   * works out; the import comes with it. Throws a CannotRewrite where it cannot be named.
   */
  nameOf({ wanted }: Need, options: NamedOptions = {}): string {
    const { start, end } = this.found;
    const { text, needs } = nameFor(this.tree, wanted, this.names, start, end, options);
    const isNew = ({ module, name }: Import): boolean => module !== needs?.module || name !== needs.name;
    if (needs && this.#needed.every(isNew)) this.#needed.push(needs);
    return text;
  }

  /** The imports that came with names. */
  get needed(): readonly Import[] {
    return this.#needed;
  }

  /** How long a line may be, where the project says so. */
  get lineLimit(): LineLimit | undefined {
    return this.around.targets?.lineLimitOf?.(this.around.path);
  }

  /** Did this alternative of the pattern have the hole? */
  has(hole: Hole): boolean {
    return this.found.captures.has(hole);
  }

  /** The nodes a hole stands for. Throws a TypeError for a hole that is not in the pattern. */
  all(hole: Hole): SyntaxNode[] {
    const capture = this.found.captures.get(hole);
    if (!capture) throw new TypeError(`The hole "${hole.name}" is not in the pattern that matched.`);
    return capture.nodes.map((n) => capture.tree.node(n));
  }

  /** The one node a hole stands for. Throws a TypeError when it stands for none. */
  the(hole: Hole): SyntaxNode {
    const node = this.all(hole)[0];
    if (!node) throw new TypeError(`The hole "${hole.name}" is empty here.`);
    return node;
  }

  /** The source text a hole stands for. */
  textOf(hole: Hole): string {
    const capture = this.found.captures.get(hole);
    return capture ? textOfCapture(capture) : "";
  }
}
