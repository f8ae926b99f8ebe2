import { useEffect, useRef } from "react";
import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
import { Decoration, EditorView, keymap, lineNumbers } from "@codemirror/view";
import { EditorState } from "@codemirror/state";
import { colours } from "../../common/highlight.js";

/** A whole file with some lines marked, the first of them in the middle. Lines are 1-based. */
export function CodeView({ path, text, lines }: { path: string; text: string; lines: readonly number[] }) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const view = new EditorView({ parent: place.current!, state: fileState(path, text, lines) });
    const first = Math.min(Math.max(lines[0] ?? 1, 1), view.state.doc.lines);
    view.dispatch({ effects: EditorView.scrollIntoView(view.state.doc.line(first).from, { y: "center" }) });
    return () => view.destroy();
  }, [path, text, lines]);
  return <div className="code-view" ref={place} />;
}

function fileState(path: string, text: string, lines: readonly number[]): EditorState {
  const plain = EditorState.create({ doc: text });
  const marks = [...new Set(lines)]
    .filter((line) => line >= 1 && line <= plain.doc.lines)
    .sort((a, b) => a - b)
    .map((line) => Decoration.line({ class: "spoken-of" }).range(plain.doc.line(line).from));
  return EditorState.create({
    doc: text,
    extensions: [
      lineNumbers(),
      EditorState.readOnly.of(true),
      EditorView.contentAttributes.of({ "aria-label": `${path}, read only`, tabindex: "0" }),
      EditorView.editable.of(false),
      EditorView.decorations.of(Decoration.set(marks)),
      ...colours(path, text),
    ],
  });
}

interface EditorProps {
  readonly path: string;
  readonly text: string;
  readonly onSave: (text: string) => void;
  readonly onCancel: () => void;
}

/** The lines of a change, to be written by hand. */
export function LinesEditor({ path, text, onSave, onCancel }: EditorProps) {
  const place = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const calls = useRef({ onSave, onCancel });
  calls.current = { onSave, onCancel };
  useEffect(() => {
    const save = (editor: EditorView): boolean => {
      calls.current.onSave(editor.state.doc.toString());
      return true;
    };
    const editor = new EditorView({
      parent: place.current!,
      doc: text,
      extensions: [
        keymap.of([
          { key: "Mod-Enter", run: save },
          { key: "Escape", run: () => (calls.current.onCancel(), true) },
        ]),
        history(),
        keymap.of([...defaultKeymap, ...historyKeymap]),
        EditorView.contentAttributes.of({ "aria-label": "The new lines, written by hand" }),
        ...colours(path, text),
      ],
    });
    view.current = editor;
    editor.focus();
    place.current!.scrollIntoView({ block: "nearest" });
    return () => editor.destroy();
  }, [path, text]);
  return (
    <div className="by-hand">
      <p>
        Write the new lines as they should be. <kbd>Ctrl</kbd> <kbd>Enter</kbd> keeps them, <kbd>Esc</kbd>{" "}
        leaves them as proposed.
      </p>
      <div className="lines-editor" ref={place} />
      <div className="buttons">
        <button type="button" onClick={() => onSave(view.current!.state.doc.toString())}>
          Keep this text
        </button>
        <button type="button" onClick={onCancel}>
          Cancel
        </button>
      </div>
    </div>
  );
}
