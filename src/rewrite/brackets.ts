const OPENING = ["(", "[", "{"];
const CLOSING = [")", "]", "}"];

/** A token of the old or the new code, and whether the other has it too. */
export interface Fate {
  readonly text: string;
  readonly stays: boolean;
}

/**
 * Brackets that are open between the gaps of a rewrite, in the old code or in the new: whether each stays or
 * comes and goes with the rewrite. What closes a bracket should share its fate.
 */
export class OpenBrackets {
  readonly #open: boolean[];

  constructor(open: readonly boolean[] = []) {
    this.#open = [...open];
  }

  /** Takes tokens in; gives the number of closing ones that share the fate of what they close. */
  take(tokens: readonly Fate[]): number {
    let agreeing = 0;
    for (const { text, stays } of tokens) {
      for (const bracket of text) {
        if (OPENING.includes(bracket)) this.#open.push(stays);
        else if (CLOSING.includes(bracket) && this.#open.pop() === stays) agreeing++;
      }
    }
    return agreeing;
  }

  /** The same brackets, for trying something out. */
  copy(): OpenBrackets {
    return new OpenBrackets(this.#open);
  }
}
