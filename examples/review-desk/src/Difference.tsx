import { useEffect, useRef } from "react";
import { MergeView, unifiedMergeView } from "@codemirror/merge";
import { EditorState, type Extension } from "@codemirror/state";
import { EditorView, lineNumbers } from "@codemirror/view";
import { applyEdits, type PlanChange } from "uvran";
import { colours } from "./highlight.js";

interface Props {
  readonly path: string;
  readonly text: string;
  readonly edits: PlanChange["edits"];
  readonly isBeside: boolean;
}

const CONTEXT = 6;
const FOLD = { margin: 4, minSize: 8 };

/** The lines around edits, before and after. Lines are 1-based. */
function around(text: string, edits: PlanChange["edits"]): { first: number; old: string; now: string } {
  const first = Math.min(...edits.map((edit) => edit.start));
  const last = Math.max(...edits.map((edit) => edit.end));
  let start = text.lastIndexOf("\n", first - 1) + 1;
  for (let i = 0; i < CONTEXT && start > 0; i++) start = text.lastIndexOf("\n", start - 2) + 1;
  let end = text.indexOf("\n", last);
  for (let i = 0; i < CONTEXT && end >= 0; i++) end = text.indexOf("\n", end + 1);
  const to = end < 0 ? text.length : end;
  const moved = edits.map((edit) => ({ ...edit, start: edit.start - start, end: edit.end - start }));
  const old = text.slice(start, to);
  return { first: text.slice(0, start).split("\n").length, old, now: applyEdits(old, moved) };
}

/** Old and new code of one file, side by side or one above the other, with the difference marked inside the lines. */
export function Difference({ path, text, edits, isBeside }: Props) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const { first, old, now } = around(text, edits);
    const shared = (label: string): Extension[] => [
      lineNumbers({ formatNumber: (line) => String(line + first - 1) }),
      EditorState.readOnly.of(true),
      EditorView.editable.of(false),
      EditorView.contentAttributes.of({ "aria-label": label, "aria-readonly": "true" }),
      EditorView.lineWrapping,
      ...colours(path, text),
    ];
    const parent = place.current!;
    const view = isBeside
      ? new MergeView({
          parent,
          a: { doc: old, extensions: shared(`${path}, old`) },
          b: { doc: now, extensions: shared(`${path}, new`) },
          collapseUnchanged: FOLD,
          gutter: false,
        })
      : new EditorView({
          parent,
          doc: now,
          extensions: [
            ...shared(`${path}, old and new`),
            unifiedMergeView({ original: old, mergeControls: false, collapseUnchanged: FOLD, gutter: false }),
          ],
        });
    return () => view.destroy();
  }, [path, text, edits, isBeside]);
  return <div className={isBeside ? "difference beside" : "difference"} ref={place} />;
}
