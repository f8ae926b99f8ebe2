import type { OpenDesk } from "./useDesk.js";

/** What the reader must know before going on. */
export function Notices({
  open,
  canPropose,
  outdated,
}: {
  open: OpenDesk;
  canPropose: boolean;
  outdated: readonly string[];
}) {
  const { trouble, isGone, isBusy, standings } = open;
  return (
    <div className="notices" role="alert">
      {trouble !== undefined && (
        <p>
          {trouble}{" "}
          <button type="button" onClick={open.dismiss}>
            Close
          </button>
        </p>
      )}
      {isGone && (
        <p>The server of this review has ended. What was decided is stored. Start again with: uvran review</p>
      )}
      {outdated.length > 0 && (
        <p>
          The plan does not fit any more: {outdated.slice(0, 3).join(", ")}
          {outdated.length > 3
            ? ` and ${outdated.length - 3} more files have`
            : outdated.length === 1
              ? " has"
              : " have"}{" "}
          changed since it was made.{" "}
          {canPropose && (
            <button type="button" disabled={isBusy} onClick={() => void open.propose()}>
              {isBusy ? "Proposing…" : "Propose again, and keep what is decided"} <kbd>P</kbd>
            </button>
          )}
        </p>
      )}
      {isBusy && outdated.length === 0 && <p>Proposing again…</p>}
      {standings.strays.length > 0 && (
        <p className="strays">
          {standings.strays.length === 1 ? "One decision is" : `${standings.strays.length} decisions are`}{" "}
          about code that the plan does not have any more. They are kept, and applied to nothing.
        </p>
      )}
    </div>
  );
}
