import type { Evidence } from "../analysis/index.js";
import type { Edit } from "../rewrite/index.js";
import type { Kind, Trust } from "../rules/index.js";
import type { Import, TextRange } from "../syntax/index.js";
import type { Change, FileEdits, Ground, HeldBack } from "./change.js";
import type { Fault } from "./checks/index.js";
import { lower } from "../rules/index.js";
import type { Candidate, Placed } from "./candidate.js";

/** A change in the making: it may still be joined by rewrites that it made possible. */
export class Draft {
  private constructor(
    readonly rules: readonly string[],
    readonly title: string,
    readonly kind: Kind,
    /** The code caught, in offsets of the original text. */
    readonly start: number,
    readonly end: number,
    readonly line: number,
    readonly trust: Trust,
    readonly evidence: readonly Ground[],
    readonly cautions: readonly Evidence[],
    readonly notes: readonly string[],
    readonly edits: readonly Edit[],
    readonly needs: readonly Import[],
    readonly elsewhere: readonly FileEdits[],
  ) {}

  static from(candidate: Candidate): Draft {
    const { rule, start, end, line, trust, evidence, cautions, notes, edits, needs, elsewhere } = candidate;
    const { id, title, kind } = rule;
    const said = [trust, distinct(evidence), cautions, notes] as const;
    return new Draft([id], title, kind, start, end, line, ...said, edits, needs, elsewhere);
  }

  /** One change out of several and of what they made possible; `edits` do all of it. */
  static join(owners: readonly Draft[], later: readonly Candidate[], edits: readonly Edit[]): Draft {
    const [first] = owners;
    if (!first) throw new RangeError("a later match must join at least one change");
    const parts = [...owners, ...later.map((candidate) => Draft.from(candidate))];
    return new Draft(
      [...new Set(parts.flatMap((part) => part.rules))],
      [...new Set(parts.map((part) => part.title))].join("; then: "),
      first.kind,
      first.start,
      first.end,
      first.line,
      parts.map((part) => part.trust).reduce(lower),
      distinct([
        ...owners.flatMap((part) => part.evidence),
        ...later.flatMap((part) => withoutLines(part.evidence)),
      ]),
      distinct([
        ...owners.flatMap((part) => part.cautions),
        ...later.flatMap((part) => withoutLines(part.cautions)),
      ]),
      [...new Set(parts.flatMap((part) => part.notes))],
      edits,
      parts.flatMap((part) => part.needs),
      parts.flatMap((part) => part.elsewhere),
    );
  }

  change(path: string, id: string, range: TextRange): Change {
    const { rules, title, kind, trust, line, evidence, cautions, notes, edits, needs, elsewhere } = this;
    const what = { id, rules, title, kind, trust, path, line, range };
    return { ...what, evidence, cautions, notes, edits, elsewhere, needs };
  }

  /** The same with more that is worth knowing and changes nothing. */
  noting(more: readonly string[]): Draft {
    if (more.length === 0) return this;
    const { rules, title, kind, start, end, line, trust, evidence, cautions, edits, needs, elsewhere } = this;
    const said = [trust, evidence, cautions, [...this.notes, ...more]] as const;
    return new Draft(rules, title, kind, start, end, line, ...said, edits, needs, elsewhere);
  }

  heldBack(path: string, { code, says }: Fault): Placed<HeldBack> {
    const { rules, line, start, end } = this;
    return { rule: rules.join(" + "), path, line, code, reason: says, start, end };
  }
}

/** Lines of a text between two passes mean nothing to a reader of the original. */
function withoutLines<T extends Evidence | Ground>(said: readonly T[]): T[] {
  return said.map(({ line: _line, range: _range, ...rest }) => rest as unknown as T);
}

function distinct<T extends Evidence | Ground>(said: readonly T[]): T[] {
  const seen = new Set<string>();
  return said.filter((ground) => !seen.has(ground.says) && seen.add(ground.says));
}
