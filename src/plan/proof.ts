import { z } from "zod";
import { codeOf, type TextOf } from "./change-code.js";
import type { PlanChange } from "./plan.js";

const FORMAT = 1;
const id = z.string().regex(/^[0-9a-f]{16}$/);

/** What the last proof found of the changes, as it is stored. */
export const proofSchema = z.strictObject({
  uvranProof: z.literal(FORMAT),
  checks: z
    .array(
      z.strictObject({
        name: z.string(),
        verdict: z.enum(["same", "different", "skipped", "failing", "flaky"]),
        summary: z.string(),
      }),
    )
    .meta({ description: "Each check with what was kept." }),
  passed: z
    .array(z.strictObject({ id, code: id }))
    .meta({ description: "Changes that passed all together; `code` stands for their old and new code." }),
  setAside: z.array(
    z.strictObject({
      id,
      code: id,
      check: z.string(),
      lines: z.array(z.string()).meta({ description: "What is different with it, for people." }),
    }),
  ),
});
export type StoredProof = z.infer<typeof proofSchema>;

/** What a proof says of one change. */
export interface ProofOfChange {
  readonly passed: boolean;
  /** The checks that were the same with it; or the one that was not. */
  readonly checks: readonly string[];
  readonly lines: readonly string[];
}

/** A proof as it is stored. */
export function storedProof(
  checks: StoredProof["checks"],
  passed: readonly PlanChange[],
  setAside: readonly {
    readonly change: PlanChange;
    readonly check: string;
    readonly lines: readonly string[];
  }[],
  textOf: TextOf,
): StoredProof {
  const named = (change: PlanChange): { id: string; code: string }[] => {
    const code = codeOf(change, textOf);
    return code === undefined ? [] : [{ id: change.id, code }];
  };
  return {
    uvranProof: FORMAT,
    checks,
    passed: provesSomething(checks) ? passed.flatMap(named) : [],
    setAside: setAside.flatMap(({ change, check, lines }) =>
      named(change).map((one) => ({ ...one, check, lines: [...lines] })),
    ),
  };
}

/** Do these checks say anything for what passed: was one the same, and none different? */
export function provesSomething(checks: readonly { readonly verdict: string }[]): boolean {
  return (
    checks.some(({ verdict }) => verdict === "same") && !checks.some(({ verdict }) => verdict === "different")
  );
}

/** What a proof says of a change; undefined where it says nothing of this code. */
export function proofOf(
  { passed, setAside, checks }: StoredProof,
  change: PlanChange,
  textOf: TextOf,
): ProofOfChange | undefined {
  const isIt = (one: { readonly id: string; readonly code: string }): boolean =>
    one.id === change.id && one.code === codeOf(change, textOf);
  const fault = setAside.find(isIt);
  if (fault) return { passed: false, checks: [fault.check], lines: fault.lines };
  if (!passed.some(isIt)) return undefined;
  const same = checks.filter(({ verdict }) => verdict === "same").map(({ name }) => name);
  return { passed: true, checks: same, lines: [] };
}
