import { fill, type Capture, type Hole } from "../pattern/index.js";
import type { Language, SyntaxNode } from "../syntax/index.js";
import { iteratedAt, iteratedKinds } from "./iterated.js";
import { keyLoopAt, keyLoopKinds, loopAt, loopKinds, type Loop } from "./loops.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";

/** The holes of a loop over positions. */
export interface WalkedForms {
  /** The name of the position. */
  readonly index: Hole;
  /** What is walked. */
  readonly items: Hole;
  /** What is run for each position, without what counts: statements, or the other parts of an expression. */
  readonly body: Hole;
  /** Find loops from the last item to the first, and no others. */
  readonly backwards?: true;
}

/**
 * Code that counts the positions of something and looks its items up, however it counts: `for i in range(len(xs))`,
 * `for (let i = 0; i < xs.length; i++)`, `while (i < n)` with a step of its own, in an expression. What the position is used
 * for stands in `match.loop`.
 */
export function walked(forms: WalkedForms): Reading {
  return new WalkedReading(forms);
}

/**
 * Code that walks the keys of something and looks its values up: `for (const key of Object.keys(x))`, `for key in d`. The hole
 * `index` stands for the name of the key, and `items` for what has the keys.
 */
export function walkedByKey(forms: WalkedForms): Reading {
  return new WalkedByKey(forms);
}

/**
 * Code that walks all items of something with an iterator of its own: `while (it.hasNext())` with `it.next()`, `it != jars.end()`
 * with `*it`. The hole `index` stands for the name of the iterator; the reads of the item stand in `match.loop`.
 */
export function walkedByIterator(forms: WalkedForms): Reading {
  return new WalkedByIterator(forms);
}

class WalkedReading implements Reading {
  constructor(readonly forms: WalkedForms) {}

  kindsIn(language: Language): readonly string[] {
    return loopKinds(language);
  }

  wordsIn({ flow }: Language): readonly string[] {
    const { lengthFunctions, lengthMembers } = flow.counting;
    return [...lengthFunctions, ...lengthMembers.map((name) => name.replace("()", ""))];
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    const loop = loopAt(node);
    return loop && loop.lookUps.length > 0 && this.#goesSo(loop) ? this.matchOf(loop) : undefined;
  }

  #goesSo({ isBackwards }: Loop): boolean {
    return isBackwards === this.forms.backwards;
  }

  whyNot(node: SyntaxNode): string {
    const loop = loopAt(node);
    if (loop && !this.#goesSo(loop))
      return `the loop goes ${loop.isBackwards ? "from the last item to the first" : "from the first item to the last"}`;
    return loop
      ? `nothing in the loop reads the items of \`${loop.items.text}\` by \`${loop.index.text}\` alone`
      : "this loop counts no positions, or counts them in another way than one by one from the first";
  }

  protected matchOf(loop: Loop): ReadingMatch | undefined {
    const { index, items, nodes, form, body, spelling } = loop;
    let captures = fill(this.forms.index, index);
    captures = captures && fill(this.forms.items, items, captures);
    if (!captures) return undefined;
    const list: Capture = {
      tree: index.tree,
      nodes: body.map(({ id }) => id),
      start: body[0]?.start ?? loop.node.end,
      end: body.at(-1)?.end ?? loop.node.end,
    };
    const found = readingMatch({
      nodes,
      captures: new Map([...captures, [this.forms.body, list]]),
      tests: [],
      frame: undefined,
      isStatements: form !== "clause",
      spelling,
    });
    return { ...found, loop };
  }
}

class WalkedByKey extends WalkedReading {
  override kindsIn(language: Language): readonly string[] {
    return keyLoopKinds(language);
  }

  override wordsIn({ flow }: Language): readonly string[] {
    const { keyLists, walksKeys } = flow.counting;
    return walksKeys ? ["for"] : keyLists.map((name) => name.replace("()", "").split(".").at(-1)!);
  }

  override readAt(node: SyntaxNode): ReadingMatch | undefined {
    const loop = keyLoopAt(node);
    return loop && loop.lookUps.length > 0 ? this.matchOf(loop) : undefined;
  }

  override whyNot(node: SyntaxNode): string {
    const loop = keyLoopAt(node);
    return loop
      ? `nothing in the loop looks up a value of \`${loop.items.text}\` by \`${loop.index.text}\``
      : "this loop walks no keys";
  }
}

class WalkedByIterator extends WalkedReading {
  override kindsIn(language: Language): readonly string[] {
    return iteratedKinds(language);
  }

  override wordsIn({ flow }: Language): readonly string[] {
    return flow.iterators.map(({ begin }) => begin);
  }

  override readAt(node: SyntaxNode): ReadingMatch | undefined {
    const loop = iteratedAt(node);
    const isOnlyRead = loop !== undefined && loop.lookUps.length > 0 && loop.others.length === 0;
    return isOnlyRead ? this.matchOf(loop) : undefined;
  }

  override whyNot(node: SyntaxNode): string {
    const loop = iteratedAt(node);
    if (!loop) return "this loop does not walk all items of something with an iterator";
    const [other] = loop.others;
    return other
      ? `\`${loop.index.text}\` is used for more than to read the item: \`${other.parent!.text}\``
      : `nothing in the loop reads an item by \`${loop.index.text}\``;
  }
}
