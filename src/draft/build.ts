import { FreshName, Hole, Need, Replacing, Snippet, type Part } from "../pattern/index.js";
import type { ContextName, Import } from "../syntax/index.js";
import type { DraftCode, DraftHole, DraftName } from "./model.js";

/** The parts of a drafted rule as values: each hole, name and import once. */
export class Parts {
  readonly #holes = new Map<DraftHole, Hole>();
  readonly #names = new Map<DraftName, FreshName>();
  readonly #needs = new Map<Import, Need>();

  hole(draft: DraftHole): Hole {
    let hole = this.#holes.get(draft);
    if (!hole) {
      const { name, kind } = draft;
      this.#holes.set(draft, (hole = new Hole(name, kind)));
    }
    return hole;
  }

  name(draft: DraftName): FreshName {
    let name = this.#names.get(draft);
    if (!name) {
      const { singularOf } = draft;
      name = new FreshName(draft.name, singularOf && this.hole(singularOf));
      this.#names.set(draft, name);
    }
    return name;
  }

  need(wanted: Import): Need {
    let need = this.#needs.get(wanted);
    if (!need) this.#needs.set(wanted, (need = new Need(wanted)));
    return need;
  }

  snippet({ language, texts, parts }: DraftCode, context?: ContextName): Snippet {
    const made = parts.map((part): Part => {
      switch (part.is) {
        case "hole":
          return this.hole(part.hole);
        case "fresh":
          return this.name(part.fresh);
        case "need":
          return this.need(part.wanted);
        case "each":
          return new Replacing(
            this.hole(part.hole),
            part.pieces.map(({ pattern, becomes }) => ({
              pattern: this.snippet(pattern),
              replacement: this.#onlyPart(becomes) ?? this.snippet(becomes),
            })),
          );
      }
    });
    return new Snippet(language, texts, made, context);
  }

  /** The part that some code is nothing but. */
  #onlyPart({ texts, parts }: DraftCode): Hole | FreshName | Need | undefined {
    const [only] = parts;
    if (!only || parts.length > 1 || texts.some((text) => text.trim() !== "")) return undefined;
    if (only.is === "hole") return this.hole(only.hole);
    if (only.is === "fresh") return this.name(only.fresh);
    return only.is === "need" ? this.need(only.wanted) : undefined;
  }
}
