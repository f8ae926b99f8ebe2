import { compose, type Edit } from "../rewrite/index.js";
import { Draft } from "./draft-change.js";
import type { Candidate } from "./find.js";

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
  const all = drafts.flatMap((draft) => draft.edits);
  const groups: Group[] = [];
  for (const candidate of candidates) {
    const lineStart = candidate.start === 0 ? 0 : middle.lastIndexOf("\n", candidate.start - 1) + 1;
    const lineEnd = middle.indexOf("\n", candidate.end);
    const touching = (from: number, to: number): Draft[] =>
      drafts.filter((draft) =>
        draft.edits.some((edit) => {
          const start = edit.start + shiftOf(all, edit.start);
          return start <= to && from <= start + edit.text.length;
        }),
      );
    const within = touching(candidate.start, candidate.end);
    const onLines = touching(lineStart, lineEnd < 0 ? middle.length : lineEnd);
    const touched = [within, inTheWay(candidate), onLines].find((some) => some.length > 0) ?? [];
    const owners = new Set(touched.length > 0 ? touched : drafts);
    const merged: Group = { owners, candidates: [candidate] };
    for (const group of groups.splice(0)) {
      if ([...group.owners].some((draft) => merged.owners.has(draft))) {
        for (const draft of group.owners) merged.owners.add(draft);
        merged.candidates.unshift(...group.candidates);
      } else groups.push(group);
    }
    groups.push(merged);
  }

  const result = drafts.filter((draft) => !groups.some((group) => group.owners.has(draft)));
  for (const { owners, candidates: later } of groups) {
    const own = drafts.filter((draft) => owners.has(draft));
    // Edits of drafts outside the group moved the later offsets; take that back.
    const away = drafts
      .filter((draft) => !owners.has(draft))
      .flatMap((draft) => draft.edits)
      .map((edit) => ({
        ...edit,
        start: edit.start + shiftOf(all, edit.start),
        end: 0,
        grown: growth(edit),
      }));
    const edits = later
      .flatMap((candidate) => candidate.edits)
      .map((edit) => {
        const moved = away.reduce((sum, other) => (other.start < edit.start ? sum + other.grown : sum), 0);
        return { start: edit.start - moved, end: edit.end - moved, text: edit.text };
      });
    const combined = compose(
      text,
      own.flatMap((draft) => draft.edits),
      edits,
    );
    result.push(Draft.join(own, later, combined));
  }
  return result.sort((a, b) => a.start - b.start);
}

function growth(edit: Edit): number {
  return edit.text.length - (edit.end - edit.start);
}

/** By how much the edits before a place of the original move it. */
function shiftOf(edits: readonly Edit[], offset: number): number {
  return edits.reduce((sum, edit) => (edit.start < offset ? sum + growth(edit) : sum), 0);
}
