import { useMemo, useState } from "react";
import {
  linesOfChange,
  placeBehind,
  proofSentence,
  SET_ASIDE,
  withText,
  type Desk,
  type PlanChange,
  type ProofOfChange,
  type Standing,
} from "uvran/core";
import { CodeView, LinesEditor } from "./CodeView.js";
import { Difference } from "./Difference.js";
import { Evidence } from "./Evidence.js";
import { TRUST_SIGN, WORDS } from "./model.js";
import type { Source } from "./source.js";
import { useEdits } from "./useEdits.js";
import { useKeys } from "./useKeys.js";

interface Props {
  readonly change: PlanChange;
  readonly standing: Standing;
  readonly desk: Desk;
  readonly source: Source;
  readonly isBeside: boolean;
  readonly alike: number;
  readonly isEditing: boolean;
  readonly onEdited: (text: string | undefined) => void;
  readonly onSimilar: () => void;
}

/** One change: what it is, what must be known of it, its code. */
export function ChangeSheet(props: Props) {
  const { change, standing, desk, source, isBeside, alike, isEditing, onEdited, onSimilar } = props;
  const [peeked, setPeeked] = useState<number>();
  const text = desk.texts[change.path];
  const { evidence, cautions, notes, needs, elsewhere } = change;
  const peek = (index: number): void => setPeeked((now) => (now === index ? undefined : index));
  const ground = peeked === undefined ? undefined : evidence[peeked];
  const whole = useEdits(source, change);
  const path = ground?.path ?? change.path;
  const lines = text === undefined ? undefined : linesOfChange(text, change);
  const shown = useMemo(
    () =>
      text === undefined || standing.edited === undefined
        ? whole
        : withText(text, change, standing.edited).edits,
    [text, change, whole, standing.edited],
  );
  const inOrder = evidence.map((one, i) => ({ one, i })).sort((a, b) => rank(a.one) - rank(b.one));
  useKeys((key) => {
    const spoken = inOrder.filter(({ one }) => one.line !== undefined)[Number(key) - 1];
    if (!spoken) return false;
    peek(spoken.i);
    return true;
  });
  return (
    <article className={`sheet ${change.trust}`} aria-labelledby="title">
      <header>
        <h2 id="title">{change.title}</h2>
        <p className="facts">
          <span className={`trust ${change.trust}`}>
            <span aria-hidden="true">{TRUST_SIGN[change.trust]} </span>
            {change.trust}
          </span>
          <span>{change.kind}</span>
          <code>
            {change.path}:{change.line}
          </code>
          <code className="quiet">{change.rules.join(" + ")}</code>
          <StandingMark standing={standing} />
        </p>
        <p className="why">{change.rules.map((id) => desk.rules[id]?.why ?? "").join(" ")}</p>
        {standing.misfit !== undefined && (
          <p className="misfit" role="note">
            Decide again: {standing.misfit}.
          </p>
        )}
        {standing.note !== undefined && <p className="note">“{standing.note}”</p>}
      </header>
      {cautions.length > 0 && (
        <section className="cautions" aria-label="Cautions">
          {cautions.map(({ code, says, line, path }) => (
            <p key={`${code} ${says}`}>
              <strong>Caution.</strong> {says}
              {placeBehind({ line, path }, change.line)} <code className="code-name">{code}</code>
            </p>
          ))}
        </section>
      )}
      {standing.note?.startsWith(SET_ASIDE) !== true && <ProofMark proof={desk.proofs[change.id]} />}
      {change.edits.length > 0 && (
        <Difference path={change.path} text={text} edits={shown} isBeside={isBeside} />
      )}
      {isEditing && lines && (
        <LinesEditor
          path={change.path}
          text={standing.edited ?? lines.now}
          onSave={onEdited}
          onCancel={() => onEdited(undefined)}
        />
      )}
      {elsewhere.map(({ path, edits }) => (
        <section key={path} className="elsewhere">
          <h3>
            Also in <code>{path}</code>
          </h3>
          <Difference path={path} text={desk.texts[path]} edits={edits} isBeside={isBeside} />
        </section>
      ))}
      {needs.length > 0 && whole === change.edits && (
        <p className="needs">
          Imported with it, where it is not yet:{" "}
          {needs.map(({ module, name }) => (name === undefined ? module : `${name} of ${module}`)).join(", ")}
        </p>
      )}
      <Evidence
        grounds={inOrder.map(({ one }) => one)}
        peeked={inOrder.findIndex(({ i }) => i === peeked)}
        onPeek={(index) => peek(inOrder[index]!.i)}
      />
      {ground?.line !== undefined && (
        <section className="peek" ref={intoSight} aria-label={`${path}, line ${ground.line}`}>
          <p>
            <code>
              {path}:{ground.line}
            </code>{" "}
            {ground.says}
          </p>
          <CodeView path={path} text={desk.texts[path] ?? ""} lines={linesOf(ground)} />
        </section>
      )}
      {notes.map((note) => (
        <p key={note} className="quiet">
          {note}
        </p>
      ))}
      {alike > 0 && (
        <button type="button" className="alike" onClick={onSimilar}>
          {alike === 1 ? "Another one" : `The other ${alike}`} of this rule with the same evidence{" "}
          <kbd>S</kbd>
        </button>
      )}
    </article>
  );
}

function intoSight(section: HTMLElement | null): void {
  section?.scrollIntoView({ block: "nearest" });
}

/** What is unknown comes before what is known. */
function rank({ answer }: PlanChange["evidence"][number]): number {
  return answer === "yes" ? 1 : 0;
}

const wholeLines = new WeakMap<object, number[]>();

function linesOf(ground: PlanChange["evidence"][number]): number[] {
  const known = wholeLines.get(ground);
  if (known) return known;
  const first = ground.range?.start.line ?? ground.line ?? 1;
  const last = ground.range?.end.line ?? first;
  const lines = Array.from({ length: Math.min(last - first, 40) + 1 }, (_, i) => first + i);
  wholeLines.set(ground, lines);
  return lines;
}

/** What the project's own checks found. */
function ProofMark({ proof }: { proof: ProofOfChange | undefined }) {
  if (!proof) return null;
  return (
    <section className={`proof ${proof.passed ? "passed" : "set-aside"}`} aria-label="Proof">
      <p>
        <strong>Prove.</strong> {proofSentence(proof)}
      </p>
      {proof.lines.length > 0 && <pre tabIndex={0}>{proof.lines.join("\n")}</pre>}
    </section>
  );
}

/** What is decided, as a mark. */
export function StandingMark({ standing: { decision, misfit, edited } }: { standing: Standing }) {
  if (misfit !== undefined) return <span className="mark again">Decide again</span>;
  if (decision === undefined) return <span className="mark open">Not decided</span>;
  return (
    <span className={`mark ${decision}`}>
      {WORDS[decision]}
      {edited === undefined ? "" : ", edited by hand"}
    </span>
  );
}
