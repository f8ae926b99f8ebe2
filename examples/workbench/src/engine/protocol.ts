import type { DiffLine, LanguageId, ReadHere } from "uvran/core";

/** A piece of code to try rules on. The ending of its path decides the language. */
export interface Sample {
  readonly path: string;
  readonly text: string;
}

/** From where to where, in UTF-16 code units. */
export interface Range {
  readonly start: number;
  readonly end: number;
}

/** What a condition answers at one place. */
export interface Asked {
  /** What must hold; undefined where only the answer is known. */
  readonly must: string | undefined;
  readonly is: "yes" | "no" | "unknown";
  readonly says: string;
  /** 1-based. */
  readonly line: number | undefined;
}

/** The code that a hole stands for at a place. */
export interface Filled extends Range {
  readonly name: string;
  readonly text: string;
}

/** A place that the old code of a rule fits, before it is known what becomes of it. */
export interface Place extends Range {
  readonly rule: string;
  readonly line: number;
  readonly holes: readonly Filled[];
  readonly answers: readonly Asked[];
}

/** What came of a place: a change with its trust, a place held back, advice, code that stays as it is, a rule that broke down. */
export interface Outcome extends Range {
  readonly is: "certain" | "likely" | "possible" | "held" | "advice" | "same" | "failed";
  /** 1-based. */
  readonly line: number;
  readonly rules: readonly string[];
  /** The title of the change, the reason, or the advice. */
  readonly says: string;
  /** The lines that go and those that come. */
  readonly lines: readonly DiffLine[];
  readonly answers: readonly Asked[];
  readonly cautions: readonly string[];
  readonly notes: readonly string[];
}

/** What the rules make of one sample. */
export interface SampleResult {
  readonly path: string;
  readonly text: string;
  /** Why nothing can be said of it: a kind of file that holds no code, or a syntax error. */
  readonly problem: string | undefined;
  readonly outcomes: readonly Outcome[];
  /** Where holes stand for code. */
  readonly holes: readonly Filled[];
  /** The code with all changes made. */
  readonly after: string;
}

/** A trial of a rule, and what went wrong where it failed. */
export interface TrialRow {
  readonly rule: string;
  readonly does: "rewrites" | "holds" | "ignores" | "reports";
  readonly language: LanguageId;
  readonly was: string;
  readonly now: string;
  readonly failure: string | undefined;
}

/** What came of running a rule file. */
export interface RunResult {
  readonly rules: readonly { readonly id: string; readonly title: string; readonly trials: number }[];
  /** Why there is no rule to run: what the file threw, or that it exports none. */
  readonly problem: string | undefined;
  readonly samples: readonly SampleResult[];
  readonly trials: readonly TrialRow[];
}

/** A condition that could be asked about a hole, with what it would answer at each place. */
export interface Offer {
  readonly source: string;
  readonly imports: readonly string[];
  readonly must: string;
  readonly answers: readonly (Asked & { readonly path: string; readonly at: number })[];
}

/** One node on the way from the file down to a position. */
export interface Step extends Range {
  readonly kind: string;
  readonly field: string | undefined;
}

/** What stands at a position of a sample. */
export interface Here {
  readonly trail: readonly Step[];
  /** The parts of the last node of the trail. */
  readonly parts: readonly Step[];
  readonly origin: string | undefined;
  readonly reads: readonly (ReadHere & { readonly line: number })[];
  /** What the rules make of the line, one sentence for each step. */
  readonly why: readonly { readonly rule: string; readonly code: string; readonly says: readonly string[] }[];
}

/** A snippet in a rule file, with the offsets of its pieces in the file. */
export interface Template extends Range {
  readonly language: LanguageId;
  readonly context: string | undefined;
  readonly items: readonly TemplateItem[];
}

/** A text of a snippet, or a hole in it; undefined names are parts that are no holes. */
export type TemplateItem = Range &
  (
    | { readonly is: "text"; readonly text: string }
    | { readonly is: "hole"; readonly name: string; readonly kind: string }
    | { readonly is: "other" }
  );

/** One way to say what an edit did, as a rule. */
export interface DraftWay {
  readonly width: string;
  readonly usual: boolean;
  readonly was: string;
  readonly becomes: string;
  /** The parts that are left open. */
  readonly holes: readonly string[];
  readonly given: readonly string[];
  /** Places in the samples that it would change as well, and those that it would hold back. */
  readonly others: readonly {
    readonly path: string;
    readonly line: number;
    readonly reason: string | undefined;
  }[];
  readonly source: string;
}

/** The rules that say what an edit did. */
export interface DraftAnswer {
  readonly moves: readonly {
    readonly id: string;
    readonly edits: readonly { readonly line: number; readonly before: string; readonly after: string }[];
    readonly ways: readonly DraftWay[];
  }[];
  readonly unexplained: readonly { readonly line: number; readonly before: string; readonly after: string }[];
  /** Why nothing can be said: a syntax error, or nothing was edited. */
  readonly problem: string | undefined;
}
