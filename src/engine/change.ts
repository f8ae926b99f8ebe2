import type { Answer, Code, Evidence } from "../analysis/index.js";
import type { Edit } from "../rewrite/index.js";
import type { Kind, Trust } from "../rules/index.js";
import type { Import, TextRange } from "../syntax/index.js";

/** A condition's answer as it is shown with a change. Lines are 1-based. */
export interface Ground {
  readonly answer: Answer["is"];
  /** What it is about, whatever the words. */
  readonly code: Code;
  readonly says: string;
  readonly line?: number | undefined;
  /** The code that it was learnt from, where that is known. */
  readonly range?: TextRange | undefined;
  /** The file of that code, where it is another one. */
  readonly path?: string | undefined;
}

/** The edits that a change makes to another file than its own. */
export interface FileEdits {
  readonly path: string;
  readonly edits: readonly Edit[];
}

/** Edits that make sense only together, with all that a reviewer needs to judge them. */
export interface Change {
  /** The same for the same code and rules, wherever its lines have moved to, and whatever becomes of equal code beside it. */
  readonly id: string;
  /** The rules that made it, in the order in which they worked. */
  readonly rules: readonly string[];
  readonly title: string;
  readonly kind: Kind;
  readonly trust: Trust;
  readonly path: string;
  /** First line of the code that the rule caught. */
  readonly line: number;
  /** The code that the rule caught. */
  readonly range: TextRange;
  readonly evidence: readonly Ground[];
  /** Cases in which old and new behave differently. */
  readonly cautions: readonly Evidence[];
  /** What gets better where nobody can observe it, and what stays behind. */
  readonly notes: readonly string[];
  /** Against the text the plan was made for; offsets in UTF-16 code units. */
  readonly edits: readonly Edit[];
  /** What it changes in other files, in the order of their paths. */
  readonly elsewhere: readonly FileEdits[];
  /** What must be imported for it. */
  readonly needs: readonly Import[];
}

/** A match that was not turned into a change. */
export interface HeldBack {
  /** The same for the same code and rules, like that of a change. */
  readonly id: string;
  readonly rule: string;
  readonly path: string;
  readonly line: number;
  readonly range: TextRange;
  /** What the reason is about, whatever the words. */
  readonly code: Code;
  readonly reason: string;
  /** Line of the place that speaks against it, if it is another one. */
  readonly at?: number | undefined;
  /** That place, where it is known from where to where it goes. */
  readonly atRange?: TextRange | undefined;
  /** The file of that place, where it is another one. */
  readonly atPath?: string | undefined;
}

/** A match of a rule that only reports. */
export interface Advice {
  /** The same for the same code and rules, like that of a change. */
  readonly id: string;
  readonly rule: string;
  readonly title: string;
  readonly kind: Kind;
  readonly trust: Trust;
  readonly path: string;
  readonly line: number;
  readonly range: TextRange;
  /** What to do. */
  readonly says: string;
  readonly evidence: readonly Ground[];
}

/** A file in which the parser found an error. */
export interface Unparsed {
  readonly path: string;
  readonly line: number;
  /** Functions that are free of it and were looked at; none when the file was left out whole. */
  readonly soundFunctions: number;
}

/** A function that was not looked at, since it could not be read as it stands. */
export interface Unread {
  readonly path: string;
  readonly line: number;
  /** Its first line. */
  readonly code: string;
  readonly why: string;
}

/** A comment that asks to keep code from a rule which finds nothing there. */
export interface IdleKeep {
  readonly path: string;
  readonly line: number;
  readonly rule: string;
}

/** A place that a rule would change, were the project not for a version of the language that is too old for it. */
export interface Silenced {
  readonly rule: string;
  readonly title: string;
  readonly path: string;
  readonly line: number;
  /** The language and version that the new code needs: "Java 9". */
  readonly needs: string;
  /** Which version the project is for, and what says so. */
  readonly asked: string;
}

/** A rule that broke down on a file, or a file that took too long: neither changes anything there. */
export interface Failure {
  readonly path: string;
  /** Undefined where the whole file was given up. */
  readonly rule?: string;
  readonly line?: number;
  readonly says: string;
}

/** What the engine says of one file. */
export interface FileResult {
  readonly changes: readonly Change[];
  readonly heldBack: readonly HeldBack[];
  readonly advice?: readonly Advice[];
  readonly silenced?: readonly Silenced[];
  readonly idleKeeps?: readonly IdleKeep[];
  readonly unparsed?: Unparsed;
  /** Functions that were not looked at, in a file that was looked at as to its rest. */
  readonly unread?: readonly Unread[];
  readonly failures?: readonly Failure[];
}
