import { z } from "zod";

/** What of a check is compared between old and new code. The exit code always is. */
export const COMPARISONS = [
  "exit",
  "output",
  "lines",
  "json",
  "messages",
  "tests",
  "files",
  "time",
  "memory",
] as const;
export type Comparison = (typeof COMPARISONS)[number];

/** A command of the project that must behave the same on old and new code. */
export interface Check {
  readonly name: string;
  /** Run by the shell, without a terminal and with nothing to read. */
  readonly run: string;
  /** The folder that it runs in, relative to the root; the root where nothing is said. */
  readonly in?: string;
  readonly environment?: Readonly<Record<string, string>>;
  /**
   * `exit`: only the exit code. `output`: what it prints, exactly; `lines`: in any order of lines; `json`: by value.
   * `messages`: what a compiler or checker complains of, by content and not by line. `tests`: which tests pass. `files`:
   * what it writes. `time`, `memory`: figures over several runs, which are told and never make a difference. `output`
   * where nothing is said.
   */
  readonly compare?: Comparison | readonly Comparison[];
  /** Parts of output and messages that do not count, such as times and dates: each found part is left out. */
  readonly ignore?: readonly (RegExp | string)[];
  /** How its messages look where no known form fits: an expression with groups `text` and, where it can, `file` and `line`. */
  readonly message?: RegExp | string;
  /** The files that it writes its test results into, in JUnit XML or TAP; written like lines of a .gitignore. */
  readonly results?: readonly string[];
  /** Which of the files that it writes are compared, written like lines of a .gitignore; all where nothing is said. */
  readonly files?: readonly string[];
  /** The exit code that it is meant to have; 0 where nothing is said. */
  readonly exit?: number;
  /** After how many seconds it is stopped; 600 where nothing is said. */
  readonly seconds?: number;
  /** How much memory all its processes may have together, in megabytes. Looked at ten times a second, on Linux. */
  readonly megabytes?: number;
  /** How often it runs for `time` and `memory`; 5 where nothing is said. */
  readonly runs?: number;
  /** Checks that run before it in the same copy, because it needs what they make. */
  readonly after?: readonly string[];
  /** What it makes that may stay for its next run, written like lines of a .gitignore; all else is removed. */
  readonly keeps?: readonly string[];
  /** Never two of it at once, because it uses a port or a database. */
  readonly alone?: boolean;
}

/** What goes into the scratch copies that checks run in. */
export interface ScratchConfig {
  /** What no check needs, written like lines of a .gitignore. */
  readonly leaveOut?: readonly string[];
  /** What checks only read, linked and not copied, written like lines of a .gitignore. */
  readonly link?: readonly string[];
}

const expression = z.union([
  z.instanceof(RegExp),
  z.string().refine((source) => {
    try {
      return new RegExp(source) !== undefined;
    } catch {
      return false;
    }
  }, "is no regular expression"),
]);
const comparison = z.enum(COMPARISONS);
const inside = z
  .string()
  .regex(/^(?!\/)(?!.*(^|\/)\.\.(\/|$))/, "must be a folder of the project, relative to its root");

export const checkSchema = z.strictObject({
  name: z.string().min(1),
  run: z.string().min(1),
  in: inside.optional(),
  environment: z.record(z.string(), z.string()).optional(),
  compare: z.union([comparison, z.array(comparison).min(1)]).optional(),
  ignore: z.array(expression).optional(),
  message: expression
    .refine((value) => sourceOf(value).includes("(?<text>"), "must have a group (?<text>…)")
    .optional(),
  results: z.array(z.string().min(1)).min(1).optional(),
  files: z.array(z.string().min(1)).min(1).optional(),
  exit: z.int().min(0).max(255).optional(),
  seconds: z.number().positive().max(1_000_000).optional(),
  megabytes: z.number().positive().optional(),
  runs: z.int().min(2).max(1000).optional(),
  after: z.array(z.string()).optional(),
  keeps: z.array(z.string().min(1)).optional(),
  alone: z.boolean().optional(),
});

export const checksSchema = z.array(checkSchema).superRefine((checks, { addIssue }) => {
  const seen = new Set<string>();
  for (const [i, { name, after = [] }] of checks.entries()) {
    const fault = (field: string, message: string): void =>
      addIssue({ code: "custom", path: [i, field], message });
    if (seen.has(name)) fault("name", `there are two checks "${name}"`);
    for (const before of after)
      if (!seen.has(before)) fault("after", `there is no check "${before}" before this one`);
    seen.add(name);
  }
});

export const scratchSchema = z.strictObject({
  leaveOut: z.array(z.string().min(1)).optional(),
  link: z.array(z.string().min(1)).optional(),
});

function sourceOf(value: RegExp | string): string {
  return typeof value === "string" ? value : value.source;
}

/** The comparisons of a check as a list. */
export function comparisonsOf({ compare = "output" }: Check): readonly Comparison[] {
  return typeof compare === "string" ? [compare] : compare;
}
