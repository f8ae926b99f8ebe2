import { defaultKeymap, history, historyKeymap, isolateHistory } from "@codemirror/commands";
import { bracketMatching, indentUnit } from "@codemirror/language";
import {
  StateEffect,
  StateField,
  type EditorState,
  type Extension,
  type Range as Placed,
} from "@codemirror/state";
import { Decoration, EditorView, keymap, lineNumbers, type DecorationSet } from "@codemirror/view";
import type { Range } from "./engine/protocol";

/** What every editor of the page has. */
export const common: Extension = [
  lineNumbers(),
  history(),
  bracketMatching(),
  EditorView.lineWrapping,
  indentUnit.of("  "),
  keymap.of([...defaultKeymap, ...historyKeymap]),
];

/** Sets what is marked in an editor because something beside it is pointed at. */
export const setPointed = StateEffect.define<Range | undefined>();

export const pointedField = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(marks, transaction) {
    for (const effect of transaction.effects)
      if (effect.is(setPointed)) {
        const { value } = effect;
        if (!value || value.start >= value.end || value.end > transaction.newDoc.length)
          return Decoration.none;
        return Decoration.set([Decoration.mark({ class: "pointed" }).range(value.start, value.end)]);
      }
    return marks.map(transaction.changes);
  },
  provide: (field) => EditorView.decorations.from(field),
});

/** A field of decorations that are made anew as a whole, and move along with what is typed until then. */
export function decorationsField(): {
  readonly field: Extension;
  readonly set: (view: EditorView, marks: readonly Placed<Decoration>[]) => void;
} {
  const effect = StateEffect.define<readonly Placed<Decoration>[]>();
  const field = StateField.define<DecorationSet>({
    create: () => Decoration.none,
    update(marks, transaction) {
      for (const one of transaction.effects) if (one.is(effect)) return Decoration.set([...one.value], true);
      return marks.map(transaction.changes);
    },
    provide: (known) => EditorView.decorations.from(known),
  });
  return { field, set: (view, marks) => view.dispatch({ effects: effect.of(marks) }) };
}

/** Puts another text into an editor with as little change as can be, so that the caret and the history stay. */
export function setDocument(view: EditorView, text: string): void {
  const old = view.state.doc.toString();
  if (old === text) return;
  let start = 0;
  while (start < old.length && start < text.length && old[start] === text[start]) start++;
  let end = 0;
  while (
    end < old.length - start &&
    end < text.length - start &&
    old[old.length - 1 - end] === text[text.length - 1 - end]
  )
    end++;
  view.dispatch({
    changes: { from: start, to: old.length - end, insert: text.slice(start, text.length - end) },
    // What a button has done is taken back by itself, however soon another one was pressed.
    annotations: isolateHistory.of("full"),
  });
}

/** The selection, or undefined where it is empty. */
export function selected({ selection: { main } }: EditorState): Range | undefined {
  return main.empty ? undefined : { start: main.from, end: main.to };
}
