import type { Template } from "../engine/protocol";

/** A complaint of the compiler. Offsets in UTF-16 code units. */
export interface Complaint {
  readonly from: number;
  readonly to: number;
  readonly severity: "error" | "warning";
  readonly message: string;
}

/** A rule file as JavaScript, or why it cannot be one. */
export type Translated = { readonly js: string } | { readonly line: number; readonly problem: string };

/** A word that can stand where the caret is. */
export interface Suggestion {
  readonly label: string;
  readonly type: string;
  readonly detail: string | undefined;
  /** What brings it in where it has to be imported. */
  readonly source: string | undefined;
  /** What the compiler asks to be told again, as JSON. */
  readonly data: string | undefined;
  readonly rank: string;
}

/** Words that can stand where the caret is, and from where on they take the place of what is typed. */
export interface Suggestions {
  readonly from: number;
  readonly words: readonly Suggestion[];
}

export interface TextChange {
  readonly from: number;
  readonly to: number;
  readonly insert: string;
}

/** A hole as the rule file declares it. */
export interface HoleParts {
  readonly name: string;
  readonly kind: string;
  /** How its limits are written: `text: /^get/`. */
  readonly limits: readonly { readonly name: string; readonly source: string }[];
  /** Where its name stands in snippets, for marking it. */
  readonly places: readonly { readonly start: number; readonly end: number }[];
}

/** A rule as its file says it. */
export interface RuleParts {
  readonly id: string | undefined;
  readonly start: number;
  readonly end: number;
  readonly language: string | undefined;
  readonly was: readonly Template[];
  readonly becomes: readonly Template[];
  readonly given: readonly string[];
}

/** What a rule file says, so far as the page changes it by buttons. */
export interface FileParts {
  readonly holes: readonly HoleParts[];
  readonly rules: readonly RuleParts[];
}

/** Something that a button does to a rule file. */
export type Action =
  /** A part of a snippet becomes a hole, there and wherever else the rule's snippets have the same text. */
  | { readonly does: "open"; readonly start: number; readonly end: number; readonly kind: string }
  /** A hole stands for more: what is written there becomes the hole. */
  | { readonly does: "widen"; readonly name: string; readonly start: number; readonly end: number }
  /** A hole is written out as code. */
  | { readonly does: "write-out"; readonly name: string; readonly code: string }
  | { readonly does: "kind"; readonly name: string; readonly kind: string }
  /** Without a source the limit goes. */
  | {
      readonly does: "limit";
      readonly name: string;
      readonly limit: string;
      readonly source: string | undefined;
    }
  | { readonly does: "rename"; readonly name: string; readonly to: string }
  | {
      readonly does: "ask";
      readonly rule: number;
      readonly source: string;
      readonly imports: readonly string[];
    }
  | { readonly does: "do-not-ask"; readonly rule: number; readonly source: string }
  | {
      readonly does: "trial";
      readonly rule: number;
      readonly language: string;
      readonly function: string;
      readonly source: string;
    };
