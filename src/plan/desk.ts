import { z } from "zod";
import { decisionSchema } from "./decision.js";
import { proofOfChangeSchema } from "./proof.js";
import { PlanError, planSchema, readPlan } from "./plan.js";

const FORMAT = 1;

/** What a page must know of a rule to explain it. */
const ruleSchema = z.strictObject({
  title: z.string(),
  why: z.string(),
  given: z.array(z.string()),
  example: z.strictObject({ was: z.string(), now: z.string() }).optional(),
});

/** All that a review needs in one file: the plan, the texts it was made for, its rules, what was decided so far. */
const deskSchema = z.strictObject({
  uvranDesk: z.literal(FORMAT),
  project: z.string().meta({ description: "What the project is called, for the title." }),
  plan: planSchema,
  texts: z
    .record(z.string(), z.string())
    .meta({ description: "By path; without the files that have other text than the plan was made for." }),
  rules: z.record(z.string(), ruleSchema),
  decisions: z.array(decisionSchema),
  proofs: z
    .record(z.string(), proofOfChangeSchema)
    .default({})
    .meta({ description: "What the last proof found of changes, by their ids." }),
  gone: z
    .array(z.string())
    .meta({ description: "Files that decisions name and that are not there any more." }),
});

export type Desk = z.infer<typeof deskSchema>;
export type DeskRule = z.infer<typeof ruleSchema>;

/** Puts a review into one value. */
export function makeDesk(parts: Omit<Desk, "uvranDesk">): Desk {
  return { uvranDesk: FORMAT, ...parts };
}

/** Reads a review from JSON. It is not trusted: throws a PlanError for anything that is not one. */
export function readDesk(json: string): Desk {
  let data: unknown;
  try {
    data = JSON.parse(json);
  } catch (error) {
    throw new PlanError(
      `This is not JSON (${(error as Error).message}). Make a file with: uvran review --out FILE`,
    );
  }
  if (typeof data === "object" && data !== null && Object.hasOwn(data, "uvranPlan"))
    throw new PlanError(
      "This is a plan without the texts it was made for. Make a file with both with: uvran review --out FILE",
    );
  const format = (data as { uvranDesk?: unknown } | null)?.uvranDesk;
  if (typeof format === "number" && format !== FORMAT)
    throw new PlanError(`The file has form ${format}, and this version of Uvran reads form ${FORMAT}.`);
  const parsed = deskSchema.safeParse(data);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    const where = issue?.path.slice(0, 4).join(".") || "the top level";
    throw new PlanError(`The file is not in order at ${where}: ${issue?.message}`);
  }
  readPlan(JSON.stringify(parsed.data.plan));
  return parsed.data;
}
