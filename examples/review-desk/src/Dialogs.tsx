import { useMemo, useState } from "react";
import type { Desk, PlanChange } from "uvran/core";
import { Dialog } from "../../common/Dialog.js";
import { Difference } from "./Difference.js";
import { someOf } from "./model.js";

export const KEYS: readonly (readonly [string, string])[] = [
  ["K", "keep this change, go on to the next that is open"],
  ["D", "drop it"],
  ["L", "leave it for later"],
  ["U", "take back what was decided last"],
  ["X", "take back what is decided about this one"],
  ["E", "edit the new lines by hand"],
  ["N", "write a note; the next decision takes it along"],
  ["S", "decide all that are like this one"],
  ["↓ or J", "next"],
  ["↑ or I", "previous"],
  ["O", "next that is not decided"],
  ["1 … 9", "show the line that a piece of evidence speaks of"],
  ["R", "what the rule is about"],
  ["V", "old and new side by side, or one above the other"],
  ["H", "held-back places: done by hand"],
  ["A", "held-back places: leave as it is"],
  ["T", "changes, held back, advice in turn"],
  ["/", "search"],
  ["P", "propose again, and keep what is decided"],
  ["?", "these keys"],
];

export function Help({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Keys" onClose={onClose}>
      <dl className="keys">
        {KEYS.map(([key, does]) => (
          <div key={key}>
            <dt>
              <kbd>{key}</kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}

export function RuleReference({
  ids,
  desk,
  onClose,
}: {
  ids: readonly string[];
  desk: Desk;
  onClose: () => void;
}) {
  return (
    <Dialog
      title={ids.length === 1 ? "The rule" : "The rules, in the order in which they worked"}
      onClose={onClose}
    >
      {ids.map((id) => {
        const rule = desk.rules[id];
        return (
          <section key={id} className="rule">
            <h3>{rule?.title ?? id}</h3>
            <p>
              <code>{id}</code>
            </p>
            {rule ? (
              <>
                <p>{rule.why}</p>
                {rule.example && (
                  <div className="example">
                    <pre className="old">{rule.example.was.trimEnd()}</pre>
                    <pre className="new">{rule.example.now.trimEnd()}</pre>
                  </div>
                )}
                {rule.given.length > 0 && <p>It is certain when it is known that</p>}
                <ul>
                  {rule.given.map((must) => (
                    <li key={must}>{must}</li>
                  ))}
                </ul>
              </>
            ) : (
              <p>This rule is not among those of the project any more.</p>
            )}
          </section>
        );
      })}
    </Dialog>
  );
}

interface SimilarProps {
  readonly change: PlanChange;
  readonly others: readonly PlanChange[];
  readonly desk: Desk;
  readonly onDecide: (decision: "keep" | "drop" | "later") => void;
  readonly onClose: () => void;
}

const SAMPLE = 3;

/** All changes like one, a few of them to look at, decided about together. */
export function Similar({ change, others, desk, onDecide, onClose }: SimilarProps) {
  const [round, setRound] = useState(0);
  const sample = useMemo(() => someOf(others, SAMPLE), [others, round]);
  const count = others.length + 1;
  const keys: Readonly<Record<string, () => void>> = {
    k: () => onDecide("keep"),
    d: () => onDecide("drop"),
    l: () => onDecide("later"),
    o: () => setRound(round + 1),
  };
  return (
    <Dialog title={`${count} changes that are alike`} onClose={onClose} keys={keys}>
      <p>
        This one and {others.length} that nothing is decided about, by <code>{change.rules.join(" + ")}</code>
        , all {change.trust}, with the same evidence
        {change.cautions.length > 0 ? " and the same caution" : ""}.{" "}
        {others.length > SAMPLE ? `Here are ${SAMPLE} of them, chosen by chance.` : ""}
      </p>
      {others.length > SAMPLE && (
        <button type="button" onClick={() => setRound(round + 1)}>
          Show others <kbd>O</kbd>
        </button>
      )}
      {sample.map((one) => (
        <section key={one.id} className="sample">
          <p>
            <code>
              {one.path}:{one.line}
            </code>
          </p>
          {one.edits.length > 0 && (
            <Difference path={one.path} text={desk.texts[one.path]} edits={one.edits} isBeside={false} />
          )}
        </section>
      ))}
      <div className="buttons">
        <button type="button" className="keep" onClick={() => onDecide("keep")}>
          Keep all {count} <kbd>K</kbd>
        </button>
        <button type="button" className="drop" onClick={() => onDecide("drop")}>
          Drop all {count} <kbd>D</kbd>
        </button>
        <button type="button" className="later" onClick={() => onDecide("later")}>
          All {count} later <kbd>L</kbd>
        </button>
      </div>
    </Dialog>
  );
}
