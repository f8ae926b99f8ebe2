import { useEffect, useRef } from "react";
import { MergeView, unifiedMergeView } from "@codemirror/merge";
import { EditorState, type Extension } from "@codemirror/state";
import { EditorView, lineNumbers } from "@codemirror/view";
import { applyEdits, type PlanChange } from "uvran/core";
import { colours } from "../../common/highlight.js";

interface Props {
  readonly path: string;
  /** Undefined where it is not the text that the plan was made for any more. */
  readonly text: string | undefined;
  readonly edits: PlanChange["edits"];
  readonly isBeside: boolean;
}

const FOLD = { margin: 5, minSize: 3 };
/** Large changes are compared in full as well, as long as that takes no time that a reader would notice. */
const EFFORT = { scanLimit: 20_000, timeout: 300 };

/** Old and new code of one file, side by side or one above the other, with the difference marked inside the lines. */
export function Difference({ text, ...rest }: Props) {
  if (text !== undefined) return <ShownDifference text={text} {...rest} />;
  return (
    <p className="quiet">
      <code>{rest.path}</code> has changed since the plan was made, so this cannot be shown.
    </p>
  );
}

function ShownDifference({ path, text, edits, isBeside }: Props & { readonly text: string }) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // The whole file, so that its colours and line numbers are right; what is far from the change is folded.
    const now = applyEdits(text, edits);
    const shared = (label: string): Extension[] => [
      lineNumbers(),
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
          a: { doc: text, extensions: shared(`${path}, old`) },
          b: { doc: now, extensions: shared(`${path}, new`) },
          collapseUnchanged: FOLD,
          diffConfig: EFFORT,
          gutter: false,
        })
      : new EditorView({
          parent,
          doc: now,
          extensions: [
            ...shared(`${path}, old and new`),
            unifiedMergeView({
              original: text,
              mergeControls: false,
              collapseUnchanged: FOLD,
              diffConfig: EFFORT,
              gutter: false,
            }),
          ],
        });
    return () => view.destroy();
  }, [path, text, edits, isBeside]);
  return <div className={isBeside ? "difference beside" : "difference"} ref={place} />;
}
