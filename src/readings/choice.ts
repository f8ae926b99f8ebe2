import { isSideEffectFree, shortened, unknown, type Answer } from "../analysis/index.js";
import {
  compile,
  fill,
  Hole,
  matchOneAt,
  snippetFits,
  type Capture,
  type Snippet,
} from "../pattern/index.js";
import { sameCode, type Language, type SyntaxNode } from "../syntax/index.js";
import { switchKinds } from "./cases.js";
import { catchingKinds } from "./caught.js";
import { choicesAt, type Choice } from "./choices.js";
import { evaluatedAhead } from "./frame.js";
import { nearChoice, whyNoChoice, type NearMiss } from "./near.js";
import { asksFor, bare, itemRead, presenceOf, type Asks, type PresenceTest } from "./presence-test.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";
import { branchKinds, isStatement, isValueSeen } from "./ways.js";

type Captures = ReadonlyMap<Hole, Capture>;

/** The item of a key, however it is read: `list[key]`, `map.get(key)`. */
export class Item {
  constructor(
    readonly collection: Hole,
    readonly key: Hole,
  ) {}
}

/** The item that a collection has for a key. */
export function item(collection: Hole, key: Hole): Item {
  return new Item(collection, key);
}

/** A condition that a reading looks for: something is there, or counts as true. */
export class Presence {
  constructor(
    readonly subject: Hole | Item,
    readonly asks: readonly Asks[],
    /** Does it hold for what is there? */
    readonly isThere: boolean,
  ) {}
}

const PLAINLY: readonly Asks[] = ["missing", "null", "undefined", "set"];

/** What else than a missing value a test may ask for and still count: a key, the value in a wrapper, the truth. */
export interface AlsoAsks {
  readonly or?: readonly ("key" | "value" | "truth" | "loose")[];
}

/** What a hole stands for is there, in every spelling of the language: `x != null`, `!(x === undefined)`, `isset($x)`. */
export function present(subject: Hole | Item, { or = [] }: AlsoAsks = {}): Presence {
  return new Presence(subject, [...PLAINLY, ...or], true);
}

/** The opposite of `present`. */
export function missing(subject: Hole | Item, { or = [] }: AlsoAsks = {}): Presence {
  return new Presence(subject, [...PLAINLY, ...or], false);
}

/** What a hole stands for counts as true, by itself or behind two negations. */
export function truthy(subject: Hole): Presence {
  return new Presence(subject, ["truth"], true);
}

/** A collection has a key: `containsKey`, `in`, `key?`, `array_key_exists`. */
export function hasKey(subject: Item): Presence {
  return new Presence(subject, ["key"], true);
}

/** An object has the member that a hole stands for, asked by its name as text: `hasattr(o, "x")` for `o.x`. */
export function hasMember(subject: Hole): Presence {
  return new Presence(subject, ["member"], true);
}

/** What a way of a choice gives: whatever a hole may stand for, an item, or code that fits. */
export type Value = Hole | Item | Snippet;

/**
 * One of two values by a condition, however it is spelt: a conditional expression; branches that assign, return, pass on or
 * throw; a guard that leaves with one value before the other; a value that is assigned first and overridden. Turned round,
 * negated, with braces and without.
 */
export function choice(condition: Presence, then: Value, otherwise: Value): Reading {
  return new ChoiceReading(condition, then, otherwise);
}

class ChoiceReading implements Reading {
  constructor(
    readonly condition: Presence,
    readonly then: Value,
    readonly otherwise: Value,
  ) {}

  kindsIn(language: Language): readonly string[] {
    const { asks } = this.condition;
    const catching = asks.includes("key") ? catchingKinds(language) : [];
    const switches = asks.includes("missing") || asks.includes("null") ? switchKinds(language) : [];
    return [...branchKinds(language.flow.shapes), ...switches, ...catching];
  }

  wordsIn(language: Language): readonly string[] | undefined {
    const words = wordsOf(this.condition, language);
    return words && [...words, ...language.flow.missing.keyErrors];
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    for (const found of choicesAt(node)) {
      const match = this.#read(found);
      if (match) return match;
    }
    return undefined;
  }

  nearAt(node: SyntaxNode): NearMiss | undefined {
    return this.condition.isThere && this.then === this.condition.subject
      ? nearChoice(node, this.condition.asks)
      : undefined;
  }

  whyNot(node: SyntaxNode): string | undefined {
    return whyNoChoice(node, this.condition.asks);
  }

  #read(found: Choice): ReadingMatch | undefined {
    const { condition } = this;
    const test = found.asked ?? presenceOf(found.test);
    if (!condition.asks.includes(test.asks)) return undefined;
    const isAsIs = test.isThere === condition.isThere;
    const [then, otherwise] = isAsIs ? [found.yes, found.no] : [found.no, found.yes];
    const there = condition.isThere ? then : otherwise;
    const captures = captured(found, test, there, condition.subject, [
      [this.then, then],
      [this.otherwise, otherwise],
    ]);
    if (!captures) return undefined;
    const { nodes, frame } = found;
    // The name of an alias is not what is asked for in the new code; its value was evaluated once before.
    const tests = [found.alias ? { ...test, subject: there, times: 0 } : test];
    const isStatements = frame !== undefined || isStatement(nodes[0]!);
    return {
      ...readingMatch({ nodes, captures, tests, frame, isStatements, spelling: spellingOf(found) }),
      choice: found,
    };
  }
}

/** Fills the holes of the subject and of both ways, in the order of the file. */
function captured(
  { alias }: Choice,
  test: PresenceTest,
  there: SyntaxNode,
  subject: Hole | Item,
  ways: readonly (readonly [Value, SyntaxNode])[],
): Captures | undefined {
  // An alias stands for the value that it was just given, and nothing else that is tested by it does.
  const isSame = alias
    ? test.key === undefined && sameCode(test.subject, alias.name) && there.same(alias.value)
    : asksFor(test, there);
  if (!isSame && (alias || ways.some(([value]) => isAlike(value, subject)))) return undefined;
  let captures = (alias && isSame) || test.key ? bind(subject, there) : bind(subject, test.subject);
  for (const [value, node] of ways) {
    if (!captures) return undefined;
    captures =
      isAlike(value, subject) && isSame
        ? (bind(value, node, captures) ?? captures)
        : bind(value, node, captures);
  }
  return captures;
}

function isAlike(value: Value, subject: Hole | Item): boolean {
  if (value instanceof Item && subject instanceof Item)
    return value.collection === subject.collection && value.key === subject.key;
  return value === subject;
}

function bind(value: Value, node: SyntaxNode, bound?: Captures): Captures | undefined {
  if (value instanceof Hole) return fill(value, node, bound);
  if (value instanceof Item) {
    const read = itemRead(bare(node));
    const captures = read && fill(value.collection, read.collection, bound);
    return captures && fill(value.key, read.key, captures);
  }
  const { tree, id } = node;
  if (!snippetFits(value, tree.language.id)) return undefined;
  return matchOneAt(compile(value, tree.language.id), tree, id, bound)?.captures;
}

/** What must hold for this spelling to be the same as one expression. */
function spellingOf({ always, frame, hidden, nodes }: Choice): Answer[] {
  const early = frame ? evaluatedAhead(frame) : [];
  const free = [...(always ? [always] : []), ...early].map(isSideEffectFree);
  const [first, last] = [nodes[0]!, nodes.at(-1)!];
  const isOverridden = frame !== undefined && nodes.length > 1 && frame.statement.same(first);
  if (isOverridden && isValueSeen(last)) {
    const says = `\`${shortened(last.text)}\` comes to nothing where it does not override, and the new code comes to the value`;
    free.push(unknown("value.result", says, last));
  }
  return hidden ? [hidden(), ...free] : free;
}

/** Words of which one must be there for a test to be. */
export function wordsOf({ asks }: Presence, { flow, ignoresCase }: Language): readonly string[] | undefined {
  const { literals, second, questions, keys, members } = flow.missing;
  if (asks.includes("truth") || ignoresCase !== "nowhere") return undefined;
  if (asks.every((one) => one === "member")) return members;
  const words = [...literals, ...second].map((word) => WRITTEN[word] ?? word.replace(/^void 0$/, "void"));
  const asked = asks.includes("key") ? Object.keys(keys) : [];
  return [...new Set([...words, ...Object.keys(questions), ...asked].map(lastWord))];
}

/** Kinds of literals by how they are written. */
const WRITTEN: Readonly<Record<string, string>> = { null_literal: "null", none: "None" };

function lastWord(word: string): string {
  return /[\w$?]+$/.exec(word.replace(/["']/g, ""))?.[0] ?? word;
}
