import { useMemo } from "react";
import { placeBehind, type Desk, type Standing } from "uvran/core";
import { StandingMark } from "./ChangeSheet.js";
import { CodeView } from "./CodeView.js";
import { Evidence } from "./Evidence.js";
import type { Advice, HeldBack } from "./model.js";

interface Props {
  readonly place: HeldBack | Advice;
  readonly standing: Standing;
  readonly desk: Desk;
}

/** A place that was held back, or one that a rule only reports. */
export function PlaceSheet({ place, standing, desk }: Props) {
  const { path, line, range, rule } = place;
  const against = "reason" in place ? { line: place.at, path: place.atPath } : {};
  const at =
    "reason" in place && place.atPath === undefined ? (place.atRange?.start.line ?? place.at) : undefined;
  const lines = useMemo(() => {
    const own = Array.from({ length: range.end.line - range.start.line + 1 }, (_, i) => range.start.line + i);
    return at === undefined ? own : [...own, at];
  }, [range, at]);
  return (
    <article className="sheet place-sheet" aria-labelledby="title">
      <header>
        <h2 id="title">{"reason" in place ? (desk.rules[rule]?.title ?? rule) : place.title}</h2>
        <p className="facts">
          <code>
            {path}:{line}
          </code>
          <code className="quiet">{rule}</code>
          <StandingMark standing={standing} />
        </p>
        {standing.note !== undefined && <p className="note">“{standing.note}”</p>}
      </header>
      {"reason" in place ? (
        <section className="cautions" aria-label="Reason">
          <p>
            <strong>Held back.</strong> {place.reason}
            {placeBehind(against, line)} <code className="code-name">{place.code}</code>
          </p>
        </section>
      ) : (
        <section className="cautions" aria-label="Advice">
          <p>
            <strong>Advice.</strong> {place.says}
          </p>
        </section>
      )}
      <CodeView path={path} text={desk.texts[path] ?? ""} lines={lines} />
      {"evidence" in place && (
        <Evidence grounds={place.evidence} peeked={undefined} onPeek={() => undefined} />
      )}
    </article>
  );
}
