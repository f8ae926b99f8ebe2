import { z } from "zod";
import { CODES } from "../analysis/index.js";
import { KINDS, TRUSTS } from "../rules/index.js";
import { shardIn } from "./shard.js";

const edit = z
  .strictObject({
    start: z.int().nonnegative().meta({ description: "Offset in UTF-16 code units." }),
    end: z.int().nonnegative().meta({ description: "Offset of the first unit that stays." }),
    text: z
      .string()
      .refine((text) => !/\p{Surrogate}/u.test(text), "has half a character in it")
      .meta({ description: "What stands there afterwards." }),
  })
  .refine((e) => e.start <= e.end, "an edit must not end before it starts");

const place = z.strictObject({
  line: z.int().positive().meta({ description: "Counted from 1." }),
  column: z.int().positive().meta({ description: "In UTF-16 code units, counted from 1." }),
});
const range = z
  .strictObject({ start: place, end: place })
  .meta({ description: "From the first character to behind the last." });

const id = z.string().regex(/^[0-9a-f]{16}$/);

const code = z
  .union([
    z.enum(Object.keys(CODES) as [keyof typeof CODES, ...(keyof typeof CODES)[]]),
    z.templateLiteral(["own.", z.string()]),
  ])
  .meta({
    description: "What the sentence is about, whatever its words. Those that begin with `own.` are of rules.",
  });

const sentence = {
  code,
  says: z.string(),
  line: z.int().positive().optional().meta({ description: "Line of the file, counted from 1." }),
  range: range.optional().meta({ description: "The code that it was learnt from, where that is known." }),
  path: z
    .string()
    .optional()
    .meta({ description: "The file of that line and code, where it is another one than the change's." }),
};
const ground = z.strictObject({ answer: z.enum(["yes", "no", "unknown"]), ...sentence });
const caution = z.strictObject(sentence);

const wanted = z.strictObject({
  module: z.string(),
  name: z.string().optional(),
  local: z.string().optional().meta({ description: "What the file calls it." }),
  form: z.enum(["type", "static", "function", "const", "relative", "namespace"]).optional(),
});

const change = z.strictObject({
  id,
  rules: z.array(z.string()).min(1),
  title: z.string(),
  kind: z.enum(KINDS),
  trust: z.enum(TRUSTS),
  path: z.string().min(1),
  line: z.int().positive(),
  range,
  evidence: z.array(ground),
  cautions: z.array(caution).meta({ description: "Cases in which old and new behave differently." }),
  notes: z
    .array(z.string())
    .meta({ description: "What gets better where nobody can observe it, and what stays behind." }),
  edits: z.array(edit),
  elsewhere: z
    .array(z.strictObject({ path: z.string().min(1), edits: z.array(edit).min(1) }))
    .meta({ description: "Edits to other files that belong to the change." }),
  needs: z.array(wanted).meta({ description: "What is imported with the change, if it is not yet." }),
});

const heldBack = z.strictObject({
  id,
  rule: z.string(),
  path: z.string(),
  line: z.int().positive(),
  range,
  code,
  reason: z.string(),
  at: z.int().positive().optional().meta({ description: "Line of what speaks against it." }),
  atRange: range.optional().meta({ description: "What speaks against it, where that is known." }),
  atPath: z.string().optional().meta({ description: "The file of that place, where it is another one." }),
});

const advice = z.strictObject({
  id,
  rule: z.string(),
  title: z.string(),
  kind: z.enum(KINDS),
  trust: z.enum(TRUSTS),
  path: z.string(),
  line: z.int().positive(),
  range,
  says: z.string().meta({ description: "What to do by hand." }),
  evidence: z.array(ground),
});

/** The version of the form of plans that this version of Uvran writes and reads. */
const FORMAT = 3;

/** The published form of a plan. */
export const planSchema = z.strictObject({
  uvranPlan: z.literal(FORMAT).meta({ description: "Version of this format." }),
  files: z
    .record(z.string(), z.string().regex(/^[0-9a-f]{64}$/))
    .meta({ description: "SHA-256 of each file that a change touches, as it was when the plan was made." }),
  asked: z
    .strictObject({
      paths: z.array(z.string()).optional(),
      rules: z.array(z.string()).optional(),
      to: z
        .string()
        .regex(/^@?[^@]+@v?\d+(\.\d+)*$/)
        .optional(),
      since: z
        .string()
        .min(1)
        .optional()
        .meta({ description: "The commit of git since which the lines have changed that it is about." }),
      shard: z
        .string()
        .refine((text) => shardIn(text) !== undefined, "must be a shard such as 2/4")
        .optional()
        .meta({ description: "The part of the files that it is about; see `uvran join`." }),
    })
    .optional()
    .meta({
      description:
        "The only files and folders, the only rules, the version of a product to reach and so on, where propose was asked for some.",
    }),
  changes: z.array(change),
  heldBack: z.array(heldBack),
  advice: z.array(advice).meta({ description: "What rules report that rewrite nothing." }),
});

/** Changes and what was held back, for one state of the files. Paths are relative to the project's root. */
export type Plan = z.infer<typeof planSchema>;
export type PlanChange = Plan["changes"][number];

/** A plan that cannot be used, with what is wrong and what to do. */
export class PlanError extends Error {
  override readonly name = "PlanError";
}

/** Reads a plan from JSON. It is not trusted: throws a PlanError for anything that is not one. */
export function readPlan(json: string): Plan {
  let data: unknown;
  try {
    data = JSON.parse(json);
  } catch (error) {
    throw new PlanError(
      `The plan is not JSON (${(error as Error).message}). Make it again with: uvran propose`,
    );
  }
  const format = (data as { uvranPlan?: unknown } | null)?.uvranPlan;
  if (typeof format === "number" && format !== FORMAT)
    throw new PlanError(
      `The plan has form ${format}, and this version of Uvran reads form ${FORMAT}. Make it again with: uvran propose`,
    );
  const parsed = planSchema.safeParse(data);
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    const where = issue?.path.join(".") || "the top level";
    throw new PlanError(
      `The plan is not in order at ${where}: ${issue?.message}. Make it again with: uvran propose`,
    );
  }
  // As it was written: what the check gives has its keys in another order.
  const plan = data as Plan;
  for (const path of plan.changes.flatMap(pathsOf)) {
    const fault = pathFault(path);
    if (fault !== undefined) throw new PlanError(`The plan names ${fault}. Nothing was done.`);
    if (!Object.hasOwn(plan.files, path))
      throw new PlanError(`The plan has no hash for "${path}". Nothing was done.`);
  }
  return plan;
}

/** All files that a change touches, its own first. */
export function pathsOf({ path, elsewhere }: Pick<PlanChange, "path" | "elsewhere">): string[] {
  return [path, ...elsewhere.map((file) => file.path)];
}

/** Is a path absolute, or does it climb out of the root? */
export function leavesRoot(path: string): boolean {
  return path.startsWith("/") || path.split("/").includes("..");
}

const LONGEST_PATH = 4096;

/** What is wrong with a path as the name of a file below the root, written in its one normal form. */
function pathFault(path: string): string | undefined {
  if (path.length > LONGEST_PATH) return `a path of ${path.length} characters`;
  const shown = JSON.stringify(path);
  if (path.includes("\0")) return `${shown}, which is no path`;
  if (leavesRoot(path)) return `${shown}, which is outside the project`;
  if (path.split("/").some((part) => part === "." || part === ""))
    return `${shown}, which is not how Uvran writes a path`;
  return undefined;
}

/** The plan's form as a JSON Schema, as it is published in docs/plan.schema.json. */
export function planJsonSchema(): object {
  return z.toJSONSchema(planSchema);
}
