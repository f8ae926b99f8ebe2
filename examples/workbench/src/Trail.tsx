import type { Range } from "./CodeEditor";

/** One node on the way from the file down to the pointer. */
export interface Step extends Range {
  readonly kind: string;
  readonly field: string | undefined;
}

interface Props {
  readonly steps: readonly Step[];
  readonly onMark: (range: Range | undefined) => void;
}

/** The syntax under the pointer, from the file down. Pointing at a step marks its code. */
export function Trail({ steps, onMark }: Props) {
  return (
    <nav className="trail" aria-label="Syntax under the pointer">
      {steps.length === 0 && <span className="quiet">Point at the code to see its syntax.</span>}
      {steps.map((step, i) => (
        <button
          key={i}
          className="step"
          onMouseEnter={() => onMark(step)}
          onFocus={() => onMark(step)}
          onMouseLeave={() => onMark(undefined)}
          onBlur={() => onMark(undefined)}
        >
          {step.field && <i>{step.field}: </i>}
          {step.kind}
        </button>
      ))}
    </nav>
  );
}
