import { z } from "zod";
import { hashText } from "../engine/index.js";
import { codeOf, type TextOf } from "./change-code.js";
import { pathsOf, type PlanChange } from "./plan.js";

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
  passed: z.array(z.strictObject({ id, code: id })).meta({
    description: "Changes that passed all together; `code` stands for them and for the text of their files.",
  }),
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

export const proofOfChangeSchema = z.strictObject({
  passed: z.boolean(),
  /** The checks that were the same with it; or the one that was not. */
  checks: z.array(z.string()),
  lines: z.array(z.string()),
});

/** What a proof says of one change. */
export type ProofOfChange = z.infer<typeof proofOfChangeSchema>;

/** How the note begins of a change that prove has set aside. */
export const SET_ASIDE = "Set aside by prove";

/** The same in a sentence. */
export function proofSentence({ passed, checks }: ProofOfChange): string {
  const named = checks.map((name) => `"${name}"`).join(", ");
  return passed
    ? `passed ${named}, together with the other changes that were kept`
    : `set aside: ${named} is different with it`;
}

/** What stands for what was proved: changes in files with just this text. */
class ProvenCode {
  readonly #hashes = new Map<string, { readonly text: string; readonly hash: string }>();

  constructor(readonly textOf: TextOf) {}

  of(change: PlanChange): string | undefined {
    const code = codeOf(change, this.textOf);
    const texts = pathsOf(change).map((path) => this.#hash(path));
    if (code === undefined || texts.includes(undefined)) return undefined;
    return hashText(JSON.stringify([code, ...texts])).slice(0, 16);
  }

  #hash(path: string): string | undefined {
    const text = this.textOf(path);
    if (text === undefined) return undefined;
    const known = this.#hashes.get(path);
    if (known?.text === text) return known.hash;
    const hash = hashText(text);
    this.#hashes.set(path, { text, hash });
    return hash;
  }
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
  const codes = new ProvenCode(textOf);
  const named = (change: PlanChange): { id: string; code: string }[] => {
    const code = codes.of(change);
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

/** What a proof says of changes, by those. `textOf` gives the texts that the plan was made for. */
export class ProofReader {
  readonly #codes: ProvenCode;
  readonly #same: string[];
  readonly #passed: ReadonlyMap<string, string>;
  readonly #setAside: ReadonlyMap<string, StoredProof["setAside"][number]>;

  constructor({ checks, passed, setAside }: StoredProof, textOf: TextOf) {
    this.#codes = new ProvenCode(textOf);
    this.#same = checks.filter(({ verdict }) => verdict === "same").map(({ name }) => name);
    this.#passed = new Map(passed.map(({ id, code }) => [id, code]));
    this.#setAside = new Map(setAside.map((one) => [one.id, one]));
  }

  /** Undefined where the proof says nothing of this code. */
  of(change: PlanChange): ProofOfChange | undefined {
    const { id } = change;
    const fault = this.#setAside.get(id);
    const code = fault?.code ?? this.#passed.get(id);
    if (code === undefined || code !== this.#codes.of(change)) return undefined;
    if (fault) return { passed: false, checks: [fault.check], lines: fault.lines };
    return { passed: true, checks: this.#same, lines: [] };
  }
}
