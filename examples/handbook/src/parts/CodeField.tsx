import { useEffect, useRef } from "react";
import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
import { EditorState } from "@codemirror/state";
import { EditorView, keymap, lineNumbers } from "@codemirror/view";
import { colours } from "../../../common/highlight.js";

interface Props {
  readonly path: string;
  readonly code: string;
  readonly label: string;
  readonly onChange: (code: string) => void;
}

/** Code to type in. Tab leaves it, as it leaves every other field. */
export function CodeField({ path, code, label, onChange }: Props) {
  const place = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const changed = useRef(onChange);
  changed.current = onChange;
  useEffect(() => {
    view.current = new EditorView({
      parent: place.current!,
      doc: code,
      extensions: [
        lineNumbers(),
        history(),
        keymap.of([...defaultKeymap, ...historyKeymap]),
        EditorView.contentAttributes.of({ "aria-label": label }),
        EditorState.tabSize.of(4),
        EditorView.lineWrapping,
        ...colours(path, code),
        EditorView.updateListener.of((update) => {
          if (update.docChanged) changed.current(update.state.doc.toString());
        }),
      ],
    });
    return () => view.current?.destroy();
  }, [path, label]);
  useEffect(() => {
    const { current } = view;
    if (current && current.state.doc.toString() !== code)
      current.dispatch({ changes: { from: 0, to: current.state.doc.length, insert: code } });
  }, [code]);
  return <div className="code-field" ref={place} />;
}
