import type { PlanChange } from "uvran/core";

type Ground = PlanChange["evidence"][number];
const SIGNS = { yes: "✓", unknown: "?", no: "✗" } as const;
const SAID = { yes: "known", unknown: "unknown", no: "against it" } as const;

interface Props {
  readonly grounds: readonly Ground[];
  readonly peeked: number | undefined;
  readonly onPeek: (index: number) => void;
}

/** What speaks for a change and what is unknown, each with the line it was learnt from. */
export function Evidence({ grounds, peeked, onPeek }: Props) {
  const withLines = grounds.filter(({ line }) => line !== undefined);
  return (
    <ul className="evidence" aria-label="Evidence">
      {grounds.map((ground, i) => (
        <li key={`${i} ${ground.code}`} className={ground.answer}>
          <span className="sign" aria-hidden="true">
            {SIGNS[ground.answer]}
          </span>
          <span>
            <span className="unseen">{SAID[ground.answer]}: </span>
            {ground.says} <code className="code-name">{ground.code}</code>
          </span>
          {ground.line !== undefined && (
            <button type="button" className="place" aria-expanded={peeked === i} onClick={() => onPeek(i)}>
              {ground.path === undefined ? "line " : `${ground.path}:`}
              {ground.line}
              {withLines.indexOf(ground) < 9 && <kbd>{withLines.indexOf(ground) + 1}</kbd>}
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
