/** Text that is hidden from the parser, because the parser cannot read it where it stands. */
export interface Mask {
  readonly start: number;
  readonly end: number;
  /** What stands there, as the subject of a sentence. */
  readonly what: string;
  /** Does it leave the meaning of the code beside it as it is, as a macro before a name does? */
  readonly isMark: boolean;
  /** All that it belongs to, from the first directive to the last. */
  readonly whole: { readonly start: number; readonly end: number };
}

/** Something in a text that may stand in the parser's way; hidden as a whole or not at all. */
export interface Obstacle {
  /** From its first to its last character, with what stays visible in between. */
  readonly start: number;
  readonly end: number;
  readonly masks: readonly Mask[];
}

/** Finds what may stand in the way, in rounds: the second is tried only where the first was not enough. */
export type Obstacles = readonly ((text: string) => readonly Obstacle[])[];
