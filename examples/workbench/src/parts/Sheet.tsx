import { useEffect, useMemo, useRef, useState } from "react";
import { EditorState, type Text } from "@codemirror/state";
import { Decoration, EditorView } from "@codemirror/view";
import { colours } from "../../../common/highlight";
import { common, decorationsField, pointedField, selected, setPointed } from "../editors";
import type { Range, Sample, SampleResult } from "../engine/protocol";
import { OutcomeWidget } from "./outcome-widget";
import { PathField } from "./PathField";
import { plural } from "./Words";

interface Props {
  readonly sample: Sample;
  readonly result: SampleResult | undefined;
  readonly holeOrder: readonly string[];
  readonly pointed: Range | undefined;
  readonly startsOpen: boolean;
  readonly hasRule: boolean;
  readonly onChange: (typed: Partial<Sample>) => void;
  readonly onRemove: () => void;
  readonly onTrial: () => void;
  /** Called with the caret's offset, and with the selection. */
  readonly onPoint: (offset: number, selection: Range | undefined) => void;
}

/** A piece of code to try the rules on, with what comes of each place below its line. */
export function Sheet(props: Props) {
  const { sample, result, startsOpen, onChange, onRemove, onTrial } = props;
  const [isOpen, setOpen] = useState(startsOpen);
  const isCurrent = result?.text === sample.text;
  return (
    <section className="sheet" aria-label={`Code of ${sample.path}`}>
      <header>
        <button type="button" className="fold" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          {isOpen ? "▾" : "▸"}
          <span className="unseen">{isOpen ? "Fold" : "Unfold"} this code</span>
        </button>
        <PathField path={sample.path} onChange={(path) => onChange({ path })} />
        <p className="tally" aria-live="polite">
          {result && isCurrent ? tallyOf(result) : "…"}
        </p>
        {props.hasRule && (
          <button type="button" onClick={onTrial} title="What comes of this code becomes a trial of the rule">
            Make it a trial
          </button>
        )}
        <button type="button" className="plain" onClick={onRemove} aria-label={`Remove ${sample.path}`}>
          ×
        </button>
      </header>
      {result?.problem !== undefined && isCurrent && <p className="problem">{result.problem}</p>}
      {isOpen && <SheetEditor {...props} />}
    </section>
  );
}

function tallyOf({ outcomes }: SampleResult): string {
  const count = (...kinds: string[]): number => outcomes.filter(({ is }) => kinds.includes(is)).length;
  const said = [
    [count("certain", "likely", "possible"), "change"] as const,
    [count("advice"), "piece of advice"] as const,
  ]
    .filter(([number]) => number > 0)
    .map(([number, what]) => (what === "change" ? plural(number, what) : `${number} reported`));
  if (count("held") > 0) said.push(`${count("held")} held back`);
  if (count("same") > 0) said.push(`${count("same")} fit and stay`);
  if (count("failed") > 0) said.push("the rule broke down");
  return said.length === 0 ? "nothing found" : said.join(", ");
}

function SheetEditor({ sample, result, holeOrder, pointed, onChange, onPoint }: Props) {
  const place = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const calls = useRef({ onChange, onPoint, sample });
  calls.current = { onChange, onPoint, sample };
  const marks = useMemo(decorationsField, []);

  useEffect(() => {
    const editor = new EditorView({
      parent: place.current!,
      state: EditorState.create({
        doc: calls.current.sample.text,
        extensions: [
          common,
          ...colours(sample.path, calls.current.sample.text),
          marks.field,
          pointedField,
          EditorView.contentAttributes.of({ tabindex: "0", "aria-label": `Code of ${sample.path}` }),
          EditorView.updateListener.of((update) => {
            const { onChange, onPoint } = calls.current;
            if (update.docChanged) onChange({ text: update.state.doc.toString() });
            if (update.selectionSet || update.focusChanged || update.docChanged) {
              if (update.view.hasFocus) onPoint(update.state.selection.main.head, selected(update.state));
            }
          }),
        ],
      }),
    });
    view.current = editor;
    return () => editor.destroy();
    // Another kind of file is coloured in another way; typing makes no new editor.
  }, [sample.path, marks]);

  useEffect(() => {
    view.current?.dispatch({ effects: setPointed.of(pointed) });
  }, [pointed, sample.path]);

  useEffect(() => {
    const editor = view.current;
    if (!editor || result?.text !== editor.state.doc.toString()) return;
    const { doc } = editor.state;
    const placed = [];
    for (const { is, start, end } of result.outcomes)
      if (start < end && end <= doc.length)
        for (const line of linesIn(doc, { start, end }))
          placed.push(Decoration.mark({ class: `fits fits-${is}` }).range(line.start, line.end));
    for (const { name, start, end } of result.holes)
      if (start < end && end <= doc.length)
        placed.push(
          Decoration.mark({
            class: `filled hole-${holeOrder.indexOf(name) % 6}`,
            attributes: { title: name },
          }).range(start, end),
        );
    for (const outcome of result.outcomes) {
      const at = doc.lineAt(Math.max(outcome.start, Math.min(outcome.end, doc.length) - 1)).to;
      placed.push(Decoration.widget({ widget: new OutcomeWidget(outcome), block: true, side: 1 }).range(at));
    }
    marks.set(editor, placed);
  }, [result, holeOrder, marks, sample.path]);

  return <div className="sheet-editor" ref={place} />;
}

/** A range line by line, without the white space around the code. */
function linesIn(doc: Text, { start, end }: Range): Range[] {
  const found: Range[] = [];
  for (let line = doc.lineAt(start); ; line = doc.line(line.number + 1)) {
    const from = Math.max(start, line.from);
    const text = doc.sliceString(from, Math.min(end, line.to));
    const first = from + text.length - text.trimStart().length;
    const last = from + text.trimEnd().length;
    if (first < last) found.push({ start: first, end: last });
    if (line.to >= end || line.number === doc.lines) return found;
  }
}
