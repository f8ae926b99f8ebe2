import Handlebars from "handlebars";
import { STYLE } from "../report/formats/html-page.js";
import { PAGE as REPORT } from "./job.js";
import { withoutSecrets } from "./secrets.js";
import type { Repository } from "./list.js";
import { saysOf, sumsOf } from "./said.js";
import type { RepositoryState } from "./state.js";

/** A page about all repositories of a fleet; it needs nothing but the pages of each beside it. */
export function fleetPage(
  title: string,
  repositories: readonly Repository[],
  states: ReadonlyMap<string, RepositoryState>,
  isRunning: boolean,
): string {
  const known = [...states.values()];
  const most = Math.max(1, ...known.map(({ counts }) => counts?.changes ?? 0));
  const share = (n: number): number => Math.round((1000 * n) / most) / 10;
  const rows = repositories.map((repository) => {
    const state = states.get(repository.name);
    const counts = state?.counts;
    const left = counts ? counts.changes - counts.committed - counts.setAside : 0;
    return {
      name: repository.name,
      from: withoutSecrets(repository.from),
      is: state?.is ?? "waiting",
      says: saysOf(state),
      counts,
      commit: state?.commit?.slice(0, 10),
      branch: state?.branch,
      checks: state?.checks ?? [],
      report:
        counts && state?.is === "done"
          ? `repositories/${encodeURIComponent(repository.name)}/${REPORT}`
          : undefined,
      automaticShare: share(counts?.committed ?? 0),
      reviewShare: share(left),
      handShare: share(counts?.setAside ?? 0),
      left,
    };
  });
  return template({ title, rows, isRunning, ...sumsOf(repositories, known) });
}

const page = Handlebars.create();
const template = page.compile(`<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'">
{{#if isRunning}}<meta http-equiv="refresh" content="5">{{/if}}
<title>{{title}}</title>
<style>
${STYLE}
td.state { white-space: nowrap; } .done { color: var(--auto); } .failed { color: var(--hand); } .working { color: var(--review); }
td.says { overflow-wrap: anywhere; white-space: pre-line; min-width: 11rem; }
td.name { width: 34%; } td.bars { width: 14%; min-width: 7rem; }
</style>
</head>
<body>
<h1>{{title}}</h1>
{{#if isRunning}}<p class="soft">At work; this page is loaded again by itself.</p>{{/if}}
<div class="sum">
<div><b>{{done}}</b>of {{repositories}} repositories done</div>
<div class="hand"><b>{{failed}}</b>failed</div>
<div><b>{{changes}}</b>changes found</div>
<div class="auto"><b>{{committed}}</b>committed, in {{commits}} commits</div>
<div class="hand"><b>{{setAside}}</b>set aside by checks</div>
<div><b>{{heldBack}}</b>held back</div>
</div>
<table>
<thead><tr><th>repository</th><th>state</th><th class="n">changes</th><th class="n">committed</th><th class="n">left</th><th class="n">set aside</th><th class="n">held back</th><th></th><th>checks and remarks</th></tr></thead>
<tbody>
{{#each rows}}<tr><td class="name">{{#if report}}<a href="{{report}}">{{name}}</a>{{else}}{{name}}{{/if}}<br><code class="soft">{{from}}{{#if commit}} at {{commit}}{{/if}}</code></td><td class="state {{is}}">{{is}}</td>{{#if counts}}<td class="n">{{counts.changes}}</td><td class="n">{{counts.committed}}</td><td class="n">{{left}}</td><td class="n">{{counts.setAside}}</td><td class="n">{{counts.heldBack}}</td><td class="bars"><div class="bar" role="img" aria-label="{{counts.committed}} committed, {{left}} left, {{counts.setAside}} set aside"><i class="a" style="width:{{automaticShare}}%"></i><i class="r" style="width:{{reviewShare}}%"></i><i class="h" style="width:{{handShare}}%"></i></div></td>{{else}}<td></td><td></td><td></td><td></td><td></td><td></td>{{/if}}<td class="says">{{#each checks}}{{name}}: {{verdict}}
{{/each}}{{says}}</td></tr>
{{/each}}</tbody>
</table>
<p class="soft">Green is committed on a branch of its own, yellow is left for a review, red was set aside since a check is different with it.</p>
</body>
</html>
`);
