import { useEffect, useId, useRef, useState } from "react";
import type { Shown } from "uvran/core";
import type { Ran } from "../engine/protocol";
import { ruleAddress } from "../route";
import { fileOf } from "../rules";
import { useEngine } from "../useEngine";
import { CodeField } from "./CodeField";
import { Outcome } from "./Outcome";

/** Code that can be chosen to begin with, with what the rule says of it. */
export interface Choice extends Shown {
  readonly says: string;
}

interface Props {
  readonly rule: string;
  readonly choices: readonly Choice[];
  /** Is the rule named, with a link to its page? */
  readonly isNamed?: boolean;
}

/** Typing pauses this long before the rule runs. */
const PAUSE_MS = 150;

/** A rule and code to run it over, which is run at every change of it; not before it is in sight. */
export function TryIt({ rule, choices, isNamed = false }: Props) {
  const engine = useEngine();
  const id = useId();
  const place = useRef<HTMLDivElement>(null);
  const [chosen, choose] = useState(0);
  const given = choices[chosen] ?? choices[0]!;
  const [code, setCode] = useState(given.code);
  const [ran, setRan] = useState<Ran>();
  const [problem, setProblem] = useState<string>();
  const [isSeen, setSeen] = useState(false);
  useEffect(() => {
    const seen = new IntersectionObserver((entries) => {
      if (entries.some(({ isIntersecting }) => isIntersecting)) setSeen(true);
    });
    seen.observe(place.current!);
    return () => seen.disconnect();
  }, []);
  useEffect(() => {
    if (!isSeen) return;
    let isOvertaken = false;
    const timer = setTimeout(() => {
      const { says: _, trust: __, ...asked } = given;
      engine.run({ ...asked, rule, code }).then(
        (result) => {
          if (isOvertaken) return;
          setRan(result);
          setProblem(undefined);
        },
        (error: unknown) => {
          if (!isOvertaken) setProblem(error instanceof Error ? error.message : String(error));
        },
      );
    }, PAUSE_MS);
    return () => {
      isOvertaken = true;
      clearTimeout(timer);
    };
  }, [engine, rule, given, code, isSeen]);
  const path = fileOf(given.language);
  const start = (i: number): void => {
    choose(i);
    setCode(choices[i]!.code);
  };
  return (
    <div className="try" role="group" aria-label={`Try ${rule}`} ref={place}>
      <header>
        <strong>Try it</strong>
        {isNamed && (
          <a href={ruleAddress(rule)}>
            <code>{rule}</code>
          </a>
        )}
        {choices.length > 1 && (
          <label htmlFor={id}>
            Example{" "}
            <select id={id} value={chosen} onChange={(event) => start(Number(event.target.value))}>
              {choices.map(({ says }, i) => (
                <option key={i} value={i}>
                  {`${i + 1}: ${says}`}
                </option>
              ))}
            </select>
          </label>
        )}
        {given.target !== undefined && <span className="note">for version {given.target}</span>}
        {code !== given.code && (
          <button type="button" onClick={() => setCode(given.code)}>
            As it was
          </button>
        )}
      </header>
      <div className="halves">
        <CodeField path={path} code={code} label={`Old code for ${rule}`} onChange={setCode} />
        <Outcome ran={ran} problem={problem} />
      </div>
      {Object.entries(given.beside ?? {}).map(([path, [text]]) => (
        <details key={path}>
          <summary>
            Beside it stands <code>{path}</code>
          </summary>
          <pre>{text}</pre>
        </details>
      ))}
    </div>
  );
}
