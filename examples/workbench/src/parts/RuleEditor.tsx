import { useEffect, useMemo, useRef } from "react";
import {
  autocompletion,
  completionKeymap,
  type Completion,
  type CompletionContext,
} from "@codemirror/autocomplete";
import { linter, lintKeymap } from "@codemirror/lint";
import { EditorState } from "@codemirror/state";
import { Decoration, EditorView, hoverTooltip, keymap } from "@codemirror/view";
import type { Remote } from "comlink";
import { colours } from "../../../common/highlight";
import { common, decorationsField, pointedField, selected, setDocument, setPointed } from "../editors";
import type { Range } from "../engine/protocol";
import type { FileParts, Suggestion } from "../typing/protocol";
import type { Typing } from "../typing/worker";

interface Props {
  readonly text: string;
  /** Another number says that the text comes from elsewhere than this editor. */
  readonly revision: number;
  readonly parts: FileParts;
  readonly typing: Remote<Typing>;
  readonly pointed: Range | undefined;
  readonly onChange: (text: string) => void;
  readonly onPoint: (offset: number, selection: Range | undefined) => void;
}

/** The rule file as TypeScript, with the compiler's completion, complaints and explanations; holes in their colours. */
export function RuleEditor({ text, revision, parts, typing, pointed, onChange, onPoint }: Props) {
  const place = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const calls = useRef({ onChange, onPoint });
  calls.current = { onChange, onPoint };
  const latest = useRef(text);
  latest.current = text;
  const marks = useMemo(decorationsField, []);

  useEffect(() => {
    const editor = new EditorView({
      parent: place.current!,
      state: EditorState.create({
        doc: latest.current,
        extensions: [
          common,
          ...colours("rule.ts", ""),
          marks.field,
          pointedField,
          autocompletion({ override: [(context) => completionsAt(context, typing)] }),
          linter(
            async ({ state }) => {
              const found = await typing.complaints(state.doc.toString());
              return found.filter(({ to }) => to <= state.doc.length);
            },
            { delay: 500 },
          ),
          hoverTooltip(async ({ state }, offset) => {
            const found = await typing.hover(state.doc.toString(), offset);
            return found
              ? { pos: found.from, end: found.to, create: () => ({ dom: saidIn(found.says) }) }
              : null;
          }),
          keymap.of([...completionKeymap, ...lintKeymap]),
          EditorView.contentAttributes.of({ tabindex: "0", "aria-label": "The rule file" }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) calls.current.onChange(update.state.doc.toString());
            if ((update.selectionSet || update.focusChanged || update.docChanged) && update.view.hasFocus)
              calls.current.onPoint(update.state.selection.main.head, selected(update.state));
          }),
        ],
      }),
    });
    view.current = editor;
    return () => editor.destroy();
  }, [typing, marks]);

  useEffect(() => {
    // What is typed is in the editor before it comes back here, and may be overtaken.
    if (view.current) setDocument(view.current, latest.current);
  }, [revision]);

  useEffect(() => {
    view.current?.dispatch({ effects: setPointed.of(pointed) });
  }, [pointed]);

  useEffect(() => {
    const editor = view.current;
    if (!editor) return;
    const placed = parts.holes.flatMap(({ places }, i) =>
      places
        .filter(({ end }) => end <= editor.state.doc.length)
        .map(({ start, end }) => Decoration.mark({ class: `filled hole-${i % 6}` }).range(start, end)),
    );
    marks.set(editor, placed);
  }, [parts, marks]);

  return <div className="rule-editor" ref={place} />;
}

async function completionsAt(context: CompletionContext, typing: Remote<Typing>) {
  const { state, pos, explicit } = context;
  const text = state.doc.toString();
  const found = await typing.suggestions(text, pos, explicit);
  if (!found || context.aborted) return null;
  return {
    from: found.from,
    validFor: /^[\p{L}\p{N}_$]*$/u,
    options: found.words.map((word) => completionOf(word, typing)),
  };
}

function completionOf(word: Suggestion, typing: Remote<Typing>): Completion {
  const { label, type, detail, source } = word;
  return {
    label,
    type,
    ...(detail === undefined ? {} : { detail }),
    boost: source === undefined ? 1 : 0,
    apply(view, _completion, from, to) {
      view.dispatch({
        changes: { from, to, insert: label },
        selection: { anchor: from + label.length },
        userEvent: "input.complete",
      });
      if (source === undefined) return;
      // What has to be imported is asked for where the word stands now.
      const text = view.state.doc.toString();
      void typing.details(text, from + label.length, word).then(({ changes }) => {
        if (view.state.doc.toString() === text) view.dispatch({ changes: [...changes] });
      });
    },
  };
}

function saidIn(says: string): HTMLElement {
  const dom = document.createElement("div");
  dom.className = "said";
  dom.textContent = says;
  return dom;
}
