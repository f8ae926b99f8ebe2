import { z } from "zod";
import { CODES } from "../analysis/index.js";
import { TRUSTS } from "../rules/index.js";
import { PlanError } from "./plan.js";

/** What a person can say of a change. */
export const CHANGE_DECISIONS = ["keep", "drop", "later"] as const;
/** What a person can say of a held-back place and of advice: it was done by hand, or it stays as it is. */
export const PLACE_DECISIONS = ["done", "leave"] as const;

const LONGEST_NOTE = 10_000;
const LONGEST_TEXT = 200_000;
const LONGEST_LINE = 2 * LONGEST_TEXT;

const short = z.string().regex(/^[0-9a-f]{16}$/);

/** A decision as it is stored. */
export const decisionSchema = z.strictObject({
  /** File of the change, as it was called then. */
  path: z.string().min(1).max(4096),
  rules: z.array(z.string().max(200)).min(1).max(200),
  id: short,
  decision: z.enum([...CHANGE_DECISIONS, ...PLACE_DECISIONS]),
  /** What the old and the new code were; only of changes. */
  code: short.optional(),
  /** How sure the change was, and what it cautioned of: a change that is worse now was never looked at. */
  trust: z.enum(TRUSTS).optional(),
  cautions: z
    .array(z.union([z.enum(Object.keys(CODES)), z.templateLiteral(["own.", z.string()])]))
    .optional(),
  /** The lines of the change as the person wrote them, and what these lines were before. */
  edited: z.strictObject({ of: short, text: z.string().max(LONGEST_TEXT) }).optional(),
  note: z.string().max(LONGEST_NOTE).optional(),
});

/** What somebody said of one change, held-back place or piece of advice. */
export type Decision = z.infer<typeof decisionSchema>;

const FORMAT = 1;
const HEAD = JSON.stringify({ uvranDecisions: FORMAT });
const AGAIN = "Put it right, or take the line out.";

/**
 * Reads a file of decisions: a head, then one decision in JSON on each line, in any order. It is not trusted: throws a
 * PlanError that names the line for anything else. The same line twice, as a merge may leave it, is one decision; two
 * that contradict each other are both given.
 */
export function readDecisions(text: string): Decision[] {
  const result = new Map<string, Decision>();
  for (const [i, raw] of text
    .replace(/^\uFEFF/, "")
    .split("\n")
    .entries()) {
    const line = raw.trim();
    if (line === "") continue;
    const at = `The decisions are not in order at line ${i + 1}`;
    if (line.length > LONGEST_LINE)
      throw new PlanError(`${at}: it has ${line.length} characters, and a decision has fewer. ${AGAIN}`);
    if (/^(<{7}|={7}|>{7}|\|{7})/.test(line))
      throw new PlanError(
        `${at}: it marks a conflict of a merge. Keep the lines that hold, and take the marks out.`,
      );
    let data: unknown;
    try {
      data = JSON.parse(line);
    } catch {
      throw new PlanError(`${at}: it is not JSON. ${AGAIN}`);
    }
    if (isHead(data)) {
      if (data.uvranDecisions === FORMAT) continue;
      throw new PlanError(
        `The decisions have form ${JSON.stringify(data.uvranDecisions)}, and this version of Uvran reads form ${FORMAT}.`,
      );
    }
    const parsed = decisionSchema.safeParse(data);
    if (!parsed.success) {
      const [issue] = parsed.error.issues;
      const where = issue?.path.length ? `${issue.path.join(".")}: ` : "";
      throw new PlanError(`${at}: ${where}${issue?.message}. ${AGAIN}`);
    }
    result.set(lineOf(parsed.data), parsed.data);
  }
  return [...result.values()];
}

function isHead(data: unknown): data is { uvranDecisions: unknown } {
  return typeof data === "object" && data !== null && Object.hasOwn(data, "uvranDecisions");
}

/** Decisions as they are stored: sorted by file and rule, so that those of two people can be merged line by line. */
export function decisionsText(decisions: readonly Decision[]): string {
  const lines = [...new Set(decisions.map(lineOf))].sort();
  return [HEAD, ...lines].join("\n") + "\n";
}

/** The fields in one order, whatever order they came in. */
function lineOf({ path, rules, id, decision, code, trust, cautions, edited, note }: Decision): string {
  return JSON.stringify({ path, rules, id, decision, code, trust, cautions, edited, note });
}
