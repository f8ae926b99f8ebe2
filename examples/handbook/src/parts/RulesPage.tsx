import { ruleAddress } from "../route";
import { LANGUAGE_NAMES, PACKS } from "../rules";

/** All rules that ship, by language. */
export function RulesPage() {
  const count = PACKS.reduce((sum, { rules }) => sum + rules.length, 0);
  return (
    <article>
      <h1>The rules</h1>
      <p>
        {count} rules ship. Those that are a matter of taste are off until the config switches them on; those
        that only report never change code.
      </p>
      {PACKS.map(({ name, rules }) => (
        <section key={name} aria-label={LANGUAGE_NAMES[name] ?? name}>
          <h2>{LANGUAGE_NAMES[name] ?? name}</h2>
          <ul className="rules">
            {rules.map(({ id, title, isOff, onlyReports }) => (
              <li key={id}>
                <a href={ruleAddress(id)}>{title}</a> <code>{id}</code>
                {isOff && <span className="note">off</span>}
                {onlyReports && <span className="note">reports</span>}
              </li>
            ))}
          </ul>
        </section>
      ))}
    </article>
  );
}
