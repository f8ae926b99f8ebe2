import type { RuleFacts } from "uvran/core";

/** A part of a guide: a heading, and the text down to the next one. */
export interface Section {
  readonly guide: string;
  readonly depth: number;
  readonly heading: string;
  /** What stands behind the guide in the address of this part. */
  readonly slug: string;
  readonly text: string;
}

/** What is worked out when the handbook is built. */
export interface Contents {
  readonly packs: readonly { readonly name: string; readonly rules: readonly RuleFacts[] }[];
  readonly sections: readonly Section[];
}
