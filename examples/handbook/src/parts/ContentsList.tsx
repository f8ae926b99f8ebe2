import { useEffect, useRef, useState } from "react";
import { GUIDES, type Guide } from "../guides";
import { guideAddress, ruleAddress, RULES, START, type Route } from "../route";
import { LANGUAGE_NAMES, PACKS } from "../rules";

const GROUPS = [...new Set(GUIDES.map(({ group }) => group))];

/** What there is to read, with the place where one is. Folded away where there is no room beside the page. */
export function ContentsList({ route }: { readonly route: Route }) {
  const [isOpen, setOpen] = useState(() => matchMedia("(min-width: 60rem)").matches);
  useEffect(() => {
    const wide = matchMedia("(min-width: 60rem)");
    const changed = (): void => setOpen(wide.matches);
    wide.addEventListener("change", changed);
    return () => wide.removeEventListener("change", changed);
  }, []);
  useEffect(() => {
    if (!matchMedia("(min-width: 60rem)").matches) setOpen(false);
  }, [route]);
  const list = useRef<HTMLElement>(null);
  useEffect(() => {
    const column = list.current?.closest(".contents");
    const here = list.current?.querySelector("[aria-current]");
    if (!column || !here || column.scrollHeight <= column.clientHeight) return;
    const [top, seen] = [here.getBoundingClientRect().top, column.getBoundingClientRect()];
    if (top < seen.top || top > seen.bottom - 40) column.scrollTop += top - seen.top - seen.height / 3;
  }, [route]);
  const at = route.page === "rule" ? route.id.split("/")[0] : undefined;
  return (
    <details className="contents" open={isOpen} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>Contents</summary>
      <nav aria-label="Contents" ref={list}>
        <a href={START} aria-current={route.page === "start" ? "page" : undefined}>
          Start
        </a>
        {GROUPS.map((group) => (
          <section key={group} aria-label={group}>
            <h2>{group}</h2>
            <ol className={group === "The job" ? "steps" : undefined}>
              {GUIDES.filter((guide) => guide.group === group).map((guide) => (
                <li key={guide.name}>
                  <GuideLink guide={guide} route={route} />
                </li>
              ))}
            </ol>
          </section>
        ))}
        <section aria-label="Rules">
          <h2>
            <a href={RULES} aria-current={route.page === "rules" ? "page" : undefined}>
              Rules
            </a>
          </h2>
          {PACKS.map(({ name, rules }) => (
            <details key={`${name} ${name === at}`} open={name === at}>
              <summary>
                {LANGUAGE_NAMES[name] ?? name} <span className="quiet">{rules.length}</span>
              </summary>
              <ul>
                {rules.map(({ id }) => (
                  <li key={id}>
                    <a
                      href={ruleAddress(id)}
                      aria-current={route.page === "rule" && route.id === id ? "page" : undefined}
                    >
                      {id.split("/").slice(1).join("/")}
                    </a>
                  </li>
                ))}
              </ul>
            </details>
          ))}
        </section>
      </nav>
    </details>
  );
}

function GuideLink({ guide, route }: { readonly guide: Guide; readonly route: Route }) {
  const isHere = route.page === "guide" && route.name === guide.name;
  return (
    <a href={guideAddress(guide.name)} aria-current={isHere ? "page" : undefined}>
      {guide.title}
    </a>
  );
}
