import type { TrialRow } from "../engine/protocol";

interface Props {
  readonly trials: readonly TrialRow[];
  /** Takes the code of a trial over as a sample. */
  readonly onOpen: (trial: TrialRow) => void;
}

/** The trials of the rule, run at every keystroke. */
export function Trials({ trials, onOpen }: Props) {
  const failed = trials.filter(({ failure }) => failure !== undefined).length;
  if (trials.length === 0)
    return (
      <p className="hint">
        No trial yet. Press <b>Make it a trial</b> above a piece of code: what the rule does there now is what
        it must go on doing.
      </p>
    );
  return (
    <table className="trials">
      <caption>
        {failed === 0 ? (
          <span className="yes">{trials.length === 1 ? "It passes" : `All ${trials.length} pass`}</span>
        ) : (
          <span className="no">
            {failed} of {trials.length} {failed === 1 ? "fails" : "fail"}
          </span>
        )}
      </caption>
      <tbody>
        {trials.map((trial, i) => (
          <tr key={i} className={trial.failure === undefined ? "passed" : "failed"}>
            <td className="sign">
              <span aria-hidden="true">{trial.failure === undefined ? "✓" : "✗"}</span>
              <span className="unseen">{trial.failure === undefined ? "passed" : "failed"}</span>
            </td>
            <td>{trial.does}</td>
            <td>
              <code>{firstLine(trial.was)}</code>
              {trial.failure !== undefined && <pre>{trial.failure}</pre>}
            </td>
            <td>
              <button type="button" onClick={() => onOpen(trial)}>
                Open
              </button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function firstLine(code: string): string {
  const lines = code.trim().split("\n");
  return lines.length === 1 ? lines[0]! : `${lines[0]!} …`;
}
