import { useEffect, useRef } from "react";
import { LoadingBar } from "../../common/LoadingBar.js";
import { ContentsList } from "./parts/ContentsList";
import { Guide } from "./parts/Guide";
import { RulePage } from "./parts/RulePage";
import { RulesPage } from "./parts/RulesPage";
import { Search } from "./parts/Search";
import { Start } from "./parts/Start";
import { GUIDES } from "./guides";
import { START, useRoute, type Route } from "./route";
import { ruleOf } from "./rules";
import { useLoading } from "./useEngine";

/** The handbook: one page at a time, what there is beside it, and a search over all of it. */
export function Handbook() {
  const route = useRoute();
  const loading = useLoading();
  const main = useRef<HTMLElement>(null);
  const isFirst = useRef(true);
  const place = `${route.page} ${"id" in route ? route.id : "name" in route ? route.name : ""}`;
  useEffect(() => {
    document.title = `${titleOf(route)} · Uvran handbook`;
    // Who follows a link reads on at the top of the page that it leads to.
    if (!isFirst.current && !("at" in route)) {
      main.current?.focus({ preventScroll: true });
      scrollTo(0, 0);
    }
    isFirst.current = false;
  }, [place]);
  return (
    <>
      <a className="skip" href="#main" onClick={(event) => (event.preventDefault(), main.current?.focus())}>
        Skip to the page
      </a>
      <header className="top">
        <a className="name" href={START}>
          Uvran <span>handbook</span>
        </a>
        <Search />
      </header>
      <div className="columns">
        <ContentsList route={route} />
        <main id="main" ref={main} tabIndex={-1} key={place}>
          <Page route={route} />
        </main>
      </div>
      <LoadingBar loading={loading} isStarting={false} />
    </>
  );
}

function Page({ route }: { readonly route: Route }) {
  switch (route.page) {
    case "start":
      return <Start />;
    case "rules":
      return <RulesPage />;
    case "rule": {
      const rule = ruleOf(route.id);
      return rule ? <RulePage rule={rule} /> : <Nowhere what={`There is no rule ${route.id}.`} />;
    }
    case "guide":
      return <Guide name={route.name} at={route.at} />;
    case "nowhere":
      return <Nowhere what={`Nothing stands at ${route.address}.`} />;
  }
}

function Nowhere({ what }: { readonly what: string }) {
  return (
    <article>
      <h1>Not here</h1>
      <p>
        {what} Search above, or go <a href={START}>to the start</a>.
      </p>
    </article>
  );
}

function titleOf(route: Route): string {
  switch (route.page) {
    case "start":
      return "Start";
    case "rules":
      return "The rules";
    case "rule":
      return route.id;
    case "guide":
      return GUIDES.find(({ name }) => name === route.name)!.title;
    case "nowhere":
      return "Not here";
  }
}
