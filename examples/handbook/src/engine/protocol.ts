import type { DiffLine, Shown, Trust } from "uvran/core";

/** Code to run rules over, and what they must be told. */
export interface Asked extends Pick<Shown, "language" | "code" | "beside" | "target" | "options"> {
  readonly rule: string;
}

/** One thing that a rule said of the code. */
export interface Said {
  readonly is: Trust | "held" | "advice" | "failed";
  readonly line: number;
  readonly says: string;
  readonly grounds: readonly { readonly answer: "yes" | "unknown" | "no"; readonly says: string }[];
  readonly cautions: readonly string[];
}

export interface Ran {
  /** The whole code, with what went and what came; empty where nothing changes. */
  readonly lines: readonly DiffLine[];
  readonly said: readonly Said[];
}
