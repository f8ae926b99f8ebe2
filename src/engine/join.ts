import { compose, growth, Shifts } from "../rewrite/index.js";
import { countLeading } from "../syntax/index.js";
import { Draft } from "./draft-change.js";
import type { Candidate } from "./candidate.js";

/** Drafts and later candidates that belong together. */
interface Group {
  readonly owners: Set<Draft>;
  readonly candidates: Candidate[];
}

/**
 * Adds candidates that were found in the text after `drafts`, and whose offsets are of that text, `middle`. Each
 * joins the drafts whose new text lies in its match, else those that it had to wait for, else those on its lines; one that touches none was made possible by something further
 * away, and then all drafts of the file belong together.
 */
export function joined(
  text: string,
  middle: string,
  drafts: readonly Draft[],
  candidates: readonly Candidate[],
  inTheWay: (candidate: Candidate) => readonly Draft[] = () => [],
): Draft[] {
  const made = new Shifts(drafts.flatMap((draft) => draft.edits));
  const groupOf = new Map<Draft, Group>();
  const places = new Places(drafts, made);
  for (const candidate of candidates) {
    const lineStart = candidate.start === 0 ? 0 : middle.lastIndexOf("\n", candidate.start - 1) + 1;
    const lineEnd = middle.indexOf("\n", candidate.end);
    // What becomes of uses further away may reach into new code as well.
    const reached = candidate.edits.flatMap(({ start, end }) => places.touching(start, end));
    const within = [...new Set([...places.touching(candidate.start, candidate.end), ...reached])];
    const onLines = places.touching(lineStart, lineEnd < 0 ? middle.length : lineEnd);
    const owners = [within, inTheWay(candidate), onLines].find((some) => some.length > 0) ?? drafts;
    const merged: Group = { owners: new Set(owners), candidates: [candidate] };
    const others = new Set(owners.flatMap((draft) => groupOf.get(draft) ?? []));
    for (const group of others) {
      for (const draft of group.owners) merged.owners.add(draft);
      merged.candidates.unshift(...group.candidates);
    }
    for (const draft of merged.owners) groupOf.set(draft, merged);
  }

  const result = drafts.filter((draft) => !groupOf.has(draft));
  const place = new Map(drafts.map((draft, i) => [draft, i]));
  for (const { owners, candidates: later } of new Set(groupOf.values())) {
    const own = [...owners].sort((a, b) => place.get(a)! - place.get(b)!);
    const ownEdits = own.flatMap((draft) => draft.edits);
    // Where the edits of the group alone would have put their code.
    const ownGrowth = ownEdits.map((edit) => ({ at: made.startOf(edit), by: growth(edit) }));
    const edits = later
      .flatMap((candidate) => candidate.edits)
      .map((edit) => {
        // Edits of drafts outside the group moved the later offsets; take that back.
        const ofOwn = ownGrowth.reduce((sum, { at, by }) => (at < edit.start ? sum + by : sum), 0);
        const moved = made.beforeNew(edit.start) - ofOwn;
        return { start: edit.start - moved, end: edit.end - moved, text: edit.text };
      });
    result.push(Draft.join(own, later, compose(text, ownEdits, edits)));
  }
  return result.sort((a, b) => a.start - b.start);
}

/** The drafts by the places of their new code, in offsets of the text after them all. */
class Places {
  readonly #places: readonly { readonly start: number; readonly end: number; readonly draft: Draft }[];

  constructor(drafts: readonly Draft[], made: Shifts) {
    this.#places = drafts
      .flatMap((draft) =>
        draft.edits.map((edit) => {
          const start = made.startOf(edit);
          return { start, end: start + edit.text.length, draft };
        }),
      )
      .sort((a, b) => a.start - b.start || a.end - b.end);
  }

  /** The drafts with new code that touches a range. */
  touching(from: number, to: number): readonly Draft[] {
    const first = countLeading(this.#places.length, (i) => this.#places[i]!.end < from);
    const found = new Set<Draft>();
    for (let i = first; i < this.#places.length && this.#places[i]!.start <= to; i++)
      found.add(this.#places[i]!.draft);
    return [...found];
  }
}
