import { changeLines, type Change } from "uvran";

const SIGN = { yes: "✓", unknown: "?", no: "✗" };

/** A sentence with the code in it set as code. */
export function Sentence({ text }: { readonly text: string }) {
  return text.split("`").map((part, i) => (i % 2 === 1 ? <code key={i}>{part}</code> : part));
}

/** One change: what it is, how sure and why, and its difference. */
export function ChangeCard({ change, code }: { readonly change: Change; readonly code: string }) {
  return (
    <article className={`card ${change.trust}`}>
      <header>
        <h2>{change.title}</h2>
        <p>
          line {change.line} · <b>{change.trust}</b> · {change.rules.join(" + ")}
        </p>
      </header>
      <pre className="difference">
        {changeLines(code, change.edits, 1).map(({ mark, text, line }, i) => (
          <span key={i} className={mark === "-" ? "old" : mark === "+" ? "new" : "same"}>
            <span className="number">{line ?? ""}</span>
            {`${mark} ${text}\n`}
          </span>
        ))}
      </pre>
      <ul>
        {change.cautions.map(({ code, says }) => (
          <li key={says} className="caution" title={code}>
            ! <Sentence text={says} />
          </li>
        ))}
        {change.notes.map((note) => (
          <li key={note} className="note">
            · <Sentence text={note} />
          </li>
        ))}
        {change.evidence.map(({ answer, code, says, line }) => (
          <li key={says} className={answer} title={code}>
            {SIGN[answer]} <Sentence text={says} />
            {line !== undefined && line !== change.line && ` (line ${line})`}
          </li>
        ))}
      </ul>
    </article>
  );
}
