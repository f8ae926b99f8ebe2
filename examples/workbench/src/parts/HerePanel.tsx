import type { ReadHere } from "uvran/core";
import type { Here, Range, Step } from "../engine/protocol";
import { Words } from "./Words";

/** Where the caret is, and what is known of that place. */
export type Spot =
  | { readonly in: "sample"; readonly here: Here; readonly selection: Range | undefined }
  | { readonly in: "rule"; readonly trail: readonly Step[]; readonly selection: Range | undefined };

interface Props {
  readonly spot: Spot | undefined;
  readonly onPointed: (range: Range | undefined) => void;
  /** Puts the selection of the editor around a node. */
  readonly onSelect: (range: Range) => void;
  readonly onStart: () => void;
  readonly onStartReading: (reading: ReadHere) => void;
  readonly onHole: () => void;
}

/** What stands at the caret: its nodes, where names come from, what the code reads as, what the rule makes of it. */
export function HerePanel({ spot, onPointed, onSelect, onStart, onStartReading, onHole }: Props) {
  if (!spot) return <p className="hint">Put the caret into code to see its syntax, and what it reads as.</p>;
  const trail = spot.in === "sample" ? spot.here.trail : spot.trail;
  return (
    <>
      <div className="way">
        <Steps
          label="From the file down to the caret"
          steps={trail}
          onPointed={onPointed}
          onSelect={onSelect}
        />
        {spot.in === "sample" && spot.here.parts.length > 0 && (
          <Steps
            label="Parts of it"
            steps={spot.here.parts}
            onPointed={onPointed}
            onSelect={onSelect}
            isParts
          />
        )}
        {spot.in === "sample" && trail.length > 0 && (
          <button type="button" className="act" onClick={onStart}>
            Start a rule from {spot.selection ? "the selection" : "this"} <kbd>Ctrl</kbd> <kbd>Alt</kbd>{" "}
            <kbd>R</kbd>
          </button>
        )}
        {spot.in === "rule" && trail.length > 0 && (
          <button type="button" className="act" onClick={onHole}>
            Make {spot.selection ? "the selection" : "this"} a hole <kbd>Ctrl</kbd> <kbd>Alt</kbd>{" "}
            <kbd>H</kbd>
          </button>
        )}
      </div>
      {spot.in === "sample" && (
        <Known here={spot.here} onPointed={onPointed} onStartReading={onStartReading} />
      )}
    </>
  );
}

function Known({
  here: { origin, reads, why },
  onPointed,
  onStartReading,
}: Pick<Props, "onPointed" | "onStartReading"> & { readonly here: Here }) {
  return (
    <ul className="known">
      {origin !== undefined && (
        <li>
          <Words text={origin} />
        </li>
      )}
      {reads.map((read, i) => (
        <li key={i} onMouseEnter={() => onPointed(read)} onMouseLeave={() => onPointed(undefined)}>
          <span className="quiet">reads as</span> <Words text={read.says} />{" "}
          <button
            type="button"
            onClick={() => onStartReading(read)}
            onFocus={() => onPointed(read)}
            onBlur={() => onPointed(undefined)}
          >
            Start from <code>{read.reading}</code>
          </button>
        </li>
      ))}
      {why.slice(0, 2).map(({ code, says }, i) => (
        <li key={`why ${i}`}>
          <span className="quiet">the rule, for</span> <code>{code}</code>: <Words text={says.join("; ")} />
        </li>
      ))}
    </ul>
  );
}

interface StepsProps extends Pick<Props, "onPointed" | "onSelect"> {
  readonly label: string;
  readonly steps: readonly Step[];
  readonly isParts?: boolean;
}

function Steps({ label, steps, onPointed, onSelect, isParts = false }: StepsProps) {
  return (
    <nav className={isParts ? "steps parts" : "steps"} aria-label={label}>
      {steps.map((step, i) => (
        <button
          key={i}
          type="button"
          className="step"
          onMouseEnter={() => onPointed(step)}
          onFocus={() => onPointed(step)}
          onMouseLeave={() => onPointed(undefined)}
          onBlur={() => onPointed(undefined)}
          onClick={() => onSelect(step)}
        >
          {step.field && <i>{step.field}: </i>}
          {step.kind}
        </button>
      ))}
    </nav>
  );
}
