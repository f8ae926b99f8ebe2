import type { DiffLine } from "uvran/core";
import type { Ran, Said } from "../engine/protocol";
import { Ticked } from "./Ticked";

const SIGNS = { yes: "✓", unknown: "?", no: "✗" } as const;
const SAID = { yes: "known", unknown: "unknown", no: "against it" } as const;
const WORDS: Readonly<Record<Said["is"], string>> = {
  certain: "certain",
  likely: "likely",
  possible: "possible",
  held: "held back",
  advice: "report",
  failed: "broke down",
};

/** What became of the code, and why: the lines that went and came, and the evidence for each change. */
export function Outcome({
  ran,
  problem,
}: {
  readonly ran: Ran | undefined;
  readonly problem: string | undefined;
}) {
  return (
    <div className="outcome" role="status">
      {problem !== undefined && <p className="problem">{problem}</p>}
      {ran && ran.said.length === 0 && <p className="quiet">The rule finds nothing here.</p>}
      {ran && ran.lines.length > 0 && <Lines lines={ran.lines} />}
      {ran?.said.map((one, i) => (
        <Sentence key={i} said={one} />
      ))}
      {!ran && problem === undefined && <p className="quiet">The engine is starting …</p>}
    </div>
  );
}

function Lines({ lines }: { readonly lines: readonly DiffLine[] }) {
  return (
    <pre className="lines" tabIndex={0} aria-label="Old and new code">
      {lines.map(({ mark, text, parts = [] }, i) => (
        <span key={i} className={mark === "-" ? "old" : mark === "+" ? "new" : undefined}>
          <span className="mark">{mark} </span>
          {cut(text, parts).map(({ part, isMarked }, k) => (isMarked ? <mark key={k}>{part}</mark> : part))}
          {"\n"}
        </span>
      ))}
    </pre>
  );
}

/** A line in pieces, each different or not. */
function cut(text: string, parts: NonNullable<DiffLine["parts"]>): { part: string; isMarked: boolean }[] {
  const pieces: { part: string; isMarked: boolean }[] = [];
  let at = 0;
  for (const [start, end] of parts) {
    pieces.push({ part: text.slice(at, start), isMarked: false });
    pieces.push({ part: text.slice(start, end), isMarked: true });
    at = end;
  }
  pieces.push({ part: text.slice(at), isMarked: false });
  return pieces.filter(({ part }) => part !== "");
}

function Sentence({ said: { is, line, says, grounds, cautions } }: { readonly said: Said }) {
  return (
    <div className="said">
      <p>
        <span className={`trust ${is}`}>{WORDS[is]}</span> line {line}: <Ticked text={says} />
      </p>
      <ul>
        {grounds.map((ground, i) => (
          <li key={i} className={ground.answer}>
            <span aria-hidden="true">{SIGNS[ground.answer]} </span>
            <span className="unseen">{SAID[ground.answer]}: </span>
            <Ticked text={ground.says} />
          </li>
        ))}
        {cautions.map((caution) => (
          <li key={caution} className="caution">
            <span aria-hidden="true">! </span>
            <span className="unseen">caution: </span>
            <Ticked text={caution} />
          </li>
        ))}
      </ul>
    </div>
  );
}
