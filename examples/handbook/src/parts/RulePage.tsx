import type { RuleFacts, Shown } from "uvran/core";
import { RULES } from "../route";
import { LANGUAGE_NAMES } from "../rules";
import { Ticked } from "./Ticked";
import { TryIt } from "./TryIt";

const KINDS: Readonly<Record<RuleFacts["kind"], string>> = {
  breaks: "for what breaks",
  deprecated: "for what is deprecated",
  idiom: "a newer idiom",
  smell: "for what is suspicious",
};

/** All that a rule says of itself, and its own examples to be changed and run. */
export function RulePage({ rule }: { readonly rule: RuleFacts }) {
  const { id, title, why, kind, isOff, onlyReports, needs, knowsHandles, settings, musts } = rule;
  const { example, reported, unsure, held } = rule;
  const tries: readonly (Shown & { readonly says: string })[] = [
    ...(example
      ? [{ ...example, says: onlyReports ? "it reports" : `it is ${example.trust ?? "certain"}` }]
      : []),
    ...(reported ? [{ ...reported, says: "it reports" }] : []),
    ...unsure.map((one) => ({ ...one, says: `it is only ${one.trust}` })),
    ...held.map((one) => ({ ...one, says: "it holds back" })),
  ];
  return (
    <article>
      <p className="quiet">
        <a href={RULES}>Rules</a> › {LANGUAGE_NAMES[id.split("/")[0]!]}
      </p>
      <h1>{title}</h1>
      <p>
        <code>{id}</code>
        <span className="note">{KINDS[kind]}</span>
        <span className="note">{onlyReports ? "reports only" : "rewrites"}</span>
        <span className="note">{isOff ? "off until switched on" : "on"}</span>
        {needs !== undefined && <span className="note">needs {needs}</span>}
        {knowsHandles && <span className="note">knows the handles of the config</span>}
      </p>
      <p className="lead">{why}</p>
      {tries.length > 0 && <TryIt key={id} rule={id} choices={tries} />}
      {musts.length > 0 && (
        <>
          <h2>Certain when it is known that</h2>
          <ul>
            {musts.map((must) => (
              <li key={must}>
                <Ticked text={must} />
              </li>
            ))}
          </ul>
        </>
      )}
      {settings.length > 0 && (
        <>
          <h2>Settings</h2>
          <p>
            In the config, as <code>{`rules: { "${id}": { … } }`}</code>:
          </p>
          <ul>
            {settings.map(({ name, preset, says }) => (
              <li key={name}>
                <code>{name}</code>: <Ticked text={says} />
                {preset !== "" && (
                  <>
                    {" "}
                    Default: <code>{preset}</code>
                  </>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
      {held.length > 0 && (
        <>
          <h2>Where it keeps its hands off</h2>
          <ul>
            {held.map(({ because }, i) => (
              <li key={i}>
                <Ticked text={because} />
              </li>
            ))}
          </ul>
        </>
      )}
    </article>
  );
}
