import { useEffect, useRef, useState } from "react";
import { EditorState } from "@codemirror/state";
import { EditorView } from "@codemirror/view";
import { colours } from "../../../common/highlight";
import { common } from "../editors";
import type { DraftAnswer, DraftWay, Sample } from "../engine/protocol";
import type { HandEdit } from "../state";
import type { Workers } from "../useWorkers";
import { PathField } from "./PathField";
import { plural } from "./Words";

interface Props {
  readonly edit: HandEdit;
  readonly samples: readonly Sample[];
  readonly workers: Workers;
  readonly onChange: (edit: HandEdit) => void;
  readonly onTake: (source: string, edit: HandEdit) => void;
}

/** A rule drafted from an edit: old code and new code are typed in, and the rules that say what was done are offered. */
export function FromEdit({ edit, samples, workers, onChange, onTake }: Props) {
  const [answer, setAnswer] = useState<DraftAnswer>();
  const [move, setMove] = useState(0);
  useEffect(() => {
    let isHere = true;
    const timer = setTimeout(() => {
      workers
        .engine()
        .draft(edit.path, edit.before, edit.after, samples)
        .then((found) => isHere && setAnswer(found))
        .catch(
          (error: unknown) => isHere && setAnswer({ moves: [], unexplained: [], problem: String(error) }),
        );
    }, 250);
    return () => {
      isHere = false;
      clearTimeout(timer);
    };
  }, [edit, samples, workers]);
  const shown = answer?.moves[move] ?? answer?.moves[0];
  return (
    <div className="from-edit">
      <p className="hint">
        Type the code as it was, and as you would write it by hand. The code beside it counts: places that fit
        and that you left alone are found.
      </p>
      <PathField path={edit.path} onChange={(path) => onChange({ ...edit, path })} />
      <Side
        label="As it was"
        path={edit.path}
        text={edit.before}
        onChange={(before) => onChange({ ...edit, before })}
      />
      <Side
        label="As it becomes"
        path={edit.path}
        text={edit.after}
        onChange={(after) => onChange({ ...edit, after })}
      />
      <div className="ways" aria-live="polite">
        {!answer && <p className="hint">Looking at the edit …</p>}
        {answer?.problem !== undefined && <p className="problem">{answer.problem}</p>}
        {answer && answer.moves.length > 1 && (
          <p className="moves">
            {plural(answer.moves.length, "move")}:{" "}
            {answer.moves.map(({ id, edits }, i) => (
              <button
                key={i}
                type="button"
                aria-pressed={answer.moves[i] === shown}
                onClick={() => setMove(i)}
              >
                {id === "" ? "no rule found" : id} ({edits.length})
              </button>
            ))}
          </p>
        )}
        {shown && shown.ways.length === 0 && (
          <p className="problem">No rule makes of the old code what the edit made of it.</p>
        )}
        {shown?.ways.map((way) => (
          <Way key={way.width} way={way} onTake={() => onTake(way.source, edit)} />
        ))}
        {answer && answer.unexplained.length > 0 && (
          <p className="problem">
            {plural(answer.unexplained.length, "edit")} without a rule: the new code has something that the
            old code does not account for ({answer.unexplained.map(({ line }) => `line ${line}`).join(", ")}).
          </p>
        )}
      </div>
    </div>
  );
}

const WIDTHS: Readonly<Record<string, string>> = {
  tight: "as little left open as can be",
  middle: "what both sides share is left open",
  wide: "names and lists of arguments as well",
  meaning: "found by what the code says, in every spelling",
};

function Way({ way, onTake }: { readonly way: DraftWay; readonly onTake: () => void }) {
  const { width, usual, was, becomes, holes, given, others } = way;
  const changed = others.filter(({ reason }) => reason === undefined);
  const held = others.filter(({ reason }) => reason !== undefined);
  return (
    <article className={usual ? "way-card usual" : "way-card"}>
      <header>
        <b>{width}</b> <span className="quiet">{WIDTHS[width]}</span>
        <button type="button" onClick={onTake}>
          Take this rule
        </button>
      </header>
      <pre>
        {was}
        {"\n→ "}
        {becomes === "" ? "nothing" : becomes}
      </pre>
      {holes.length > 0 && (
        <p>
          <span className="quiet">left open</span> <code>{holes.join(", ")}</code>
        </p>
      )}
      {given.length > 0 && (
        <p>
          <span className="quiet">given</span> <code>{given.join(", ")}</code>
        </p>
      )}
      <p className="quiet">
        {changed.length === 0
          ? "Changes nothing else in the samples."
          : `Changes ${plural(changed.length, "more place")}: ${changed
              .slice(0, 4)
              .map(({ path, line }) => `${path}:${line}`)
              .join(", ")}.`}
        {held[0] &&
          ` Holds ${plural(held.length, "place")} back: ${held[0].path}:${held[0].line}, ${held[0].reason}.`}
      </p>
    </article>
  );
}

interface SideProps {
  readonly label: string;
  readonly path: string;
  readonly text: string;
  readonly onChange: (text: string) => void;
}

function Side({ label, path, text, onChange }: SideProps) {
  const place = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const change = useRef(onChange);
  change.current = onChange;
  const first = useRef(text);
  useEffect(() => {
    const editor = new EditorView({
      parent: place.current!,
      state: EditorState.create({
        doc: view.current?.state.doc.toString() ?? first.current,
        extensions: [
          common,
          ...colours(path, first.current),
          EditorView.contentAttributes.of({ tabindex: "0", "aria-label": label }),
          EditorView.updateListener.of(
            (update) => update.docChanged && change.current(update.state.doc.toString()),
          ),
        ],
      }),
    });
    view.current = editor;
    return () => editor.destroy();
  }, [path, label]);
  return (
    <section className="side-editor" aria-label={label}>
      <h2>{label}</h2>
      <div ref={place} />
    </section>
  );
}
