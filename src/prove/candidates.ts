import { encode, Problem, type Encoding } from "../node/index.js";
import { byPath, plannedText, type PlanChange, type TextOf } from "../plan/index.js";
import { TRUSTS } from "../rules/index.js";
import type { Replacements } from "./copy.js";

/** New code for any subset of some changes. What a subset makes of one file is worked out once. */
export class Candidates {
  readonly #known = new Map<string, Uint8Array>();

  /** The surest first: those are kept where two do not go together. */
  readonly changes: readonly PlanChange[];

  constructor(
    changes: readonly PlanChange[],
    readonly textOf: TextOf,
    readonly encodingOf: (path: string) => Encoding,
  ) {
    this.changes = [...changes].sort((a, b) => TRUSTS.indexOf(a.trust) - TRUSTS.indexOf(b.trust));
  }

  /** The texts that take the place of the project's, with these changes made. Throws a PlanError where they do not fit together. */
  async texts(changes: readonly PlanChange[]): Promise<Replacements> {
    const result = new Map<string, Uint8Array>();
    for (const [path, own] of byPath(changes)) {
      const key = JSON.stringify([path, ...own.map(({ id }) => id)]);
      const known = this.#known.get(key) ?? (await this.#text(path, own));
      this.#known.set(key, known);
      result.set(path, known);
    }
    return result;
  }

  async #text(path: string, changes: readonly PlanChange[]): Promise<Uint8Array> {
    const before = this.textOf(path);
    if (before === undefined)
      throw new Problem(`"${path}" has changed since the plan was made. Propose again.`, 1);
    const bytes = encode(await plannedText(path, before, changes), this.encodingOf(path));
    if (!bytes) throw new Problem(`"${path}" cannot hold what is to be written in its encoding.`, 1);
    return bytes;
  }
}
