import { useState } from "react";
import { guideAddress, RULES } from "../route";
import { PACKS } from "../rules";
import { SAMPLES } from "../samples";
import { TryIt } from "./TryIt";

/** The job in the order in which it is done: what is asked, the command, and where to read on. */
const STEPS = [
  {
    does: "Take stock",
    command: "uvran survey",
    says: "what is outdated, how much of it, how sure",
    guide: "surveys",
  },
  {
    does: "Work it out",
    command: "uvran propose",
    says: "every change, with the evidence for it",
    guide: "how-sure",
  },
  {
    does: "Go through it",
    command: "uvran review",
    says: "keep, drop or put off each change",
    guide: "review",
  },
  {
    does: "Prove it",
    command: "uvran prove",
    says: "your own checks, on old and new code",
    guide: "proving",
  },
  { does: "Write it", command: "uvran apply", says: "what you kept; undo takes it back", guide: "review" },
  {
    does: "Keep it so",
    command: "uvran survey --hold-line",
    says: "a build fails when the old code comes back",
    guide: "surveys",
  },
] as const;

export function Start() {
  const [name, setName] = useState(SAMPLES[0]!.name);
  const sample = SAMPLES.find((one) => one.name === name)!;
  const count = PACKS.reduce((sum, { rules }) => sum + rules.length, 0);
  return (
    <article>
      <h1>Move a codebase to newer idioms, and be able to say that it still does the same</h1>
      <p className="lead">
        Uvran finds manual null checks, resources released by hand and other outdated patterns in nine
        languages by rules over syntax trees, and works out what they become. Each change comes with what is
        known and what is not.
      </p>
      <div className="pick" role="group" aria-label="Language">
        {SAMPLES.map((one) => (
          <button
            key={one.name}
            type="button"
            aria-pressed={one.name === name}
            onClick={() => setName(one.name)}
          >
            {one.name}
          </button>
        ))}
      </div>
      <TryIt
        key={sample.rule}
        rule={sample.rule}
        choices={[{ language: sample.language, code: sample.code, says: sample.name }]}
        isNamed
      />
      <h2>Two commands</h2>
      <p>With Node 20.19 or newer, in a clone of Uvran:</p>
      <pre className="still" tabIndex={0}>
        <code>{"npm ci && npm run demo    # the whole job, on a copy of the demo\nnpm ci && npm test"}</code>
      </pre>
      <h2>The job, in order</h2>
      <ol className="job">
        {STEPS.map(({ does, command, says, guide }) => (
          <li key={does}>
            <a href={guideAddress(guide)}>{does}</a> <code>{command}</code>
            <span>{says}</span>
          </li>
        ))}
      </ol>
      <h2>Where to go next</h2>
      <ul>
        <li>
          <a href={guideAddress("how-sure")}>How sure a change is</a>: certain, likely, possible and held
          back, by example; and what Uvran does not do.
        </li>
        <li>
          <a href={RULES}>The {count} rules that ship</a>, each to be tried on its page.
        </li>
        <li>
          <a href={guideAddress("writing-rules")}>A rule of your own</a>, or one{" "}
          <a href={guideAddress("drafting")}>drafted from an edit</a> that you made by hand.
        </li>
        <li>
          <a href={guideAddress("moving-versions")}>The way to a newer version</a> of a library, from a table
          of what it changed.
        </li>
      </ul>
    </article>
  );
}
