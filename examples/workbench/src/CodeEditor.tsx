import { useEffect, useRef } from "react";
import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
import { javascript } from "@codemirror/lang-javascript";
import { python } from "@codemirror/lang-python";
import { bracketMatching, defaultHighlightStyle, syntaxHighlighting } from "@codemirror/language";
import { EditorState, StateEffect, StateField } from "@codemirror/state";
import { Decoration, EditorView, keymap, lineNumbers, type DecorationSet } from "@codemirror/view";

/** A range of the code, in UTF-16 code units. */
export interface Range {
  readonly start: number;
  readonly end: number;
}

interface Props {
  readonly file: string;
  readonly code: string;
  readonly marked: Range | undefined;
  readonly onChange: (code: string) => void;
  /** Called with the offset under the pointer, or under the caret while typing. */
  readonly onPoint: (offset: number) => void;
}

const setMark = StateEffect.define<Range | undefined>();
const markField = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(marks, transaction) {
    for (const effect of transaction.effects) {
      if (!effect.is(setMark)) continue;
      const range = effect.value;
      const fits = range && range.start < range.end && range.end <= transaction.newDoc.length;
      return fits
        ? Decoration.set([Decoration.mark({ class: "marked" }).range(range.start, range.end)])
        : Decoration.none;
    }
    return marks.map(transaction.changes);
  },
  provide: (field) => EditorView.decorations.from(field),
});

/** The code to be rewritten. */
export function CodeEditor({ file, code, marked, onChange, onPoint }: Props) {
  const place = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const calls = useRef({ onChange, onPoint });
  calls.current = { onChange, onPoint };

  useEffect(() => {
    const language = file.endsWith(".py")
      ? python()
      : javascript({ jsx: true, typescript: /\.tsx?$/.test(file) });
    const editor = new EditorView({
      parent: place.current!,
      state: EditorState.create({
        doc: code,
        extensions: [
          lineNumbers(),
          history(),
          bracketMatching(),
          syntaxHighlighting(defaultHighlightStyle),
          keymap.of([...defaultKeymap, ...historyKeymap]),
          language,
          markField,
          EditorView.contentAttributes.of({ "aria-label": `Code of ${file}` }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) calls.current.onChange(update.state.doc.toString());
            if (update.selectionSet) calls.current.onPoint(update.state.selection.main.head);
          }),
          EditorView.domEventHandlers({
            mousemove: (event, editor) => {
              const offset = editor.posAtCoords({ x: event.clientX, y: event.clientY });
              if (offset !== null) calls.current.onPoint(offset);
            },
          }),
        ],
      }),
    });
    view.current = editor;
    return () => editor.destroy();
    // A new file makes a new editor; typing does not.
  }, [file]);

  useEffect(() => {
    view.current?.dispatch({ effects: setMark.of(marked) });
  }, [marked]);

  return <div className="editor" ref={place} />;
}
