/** How the pages of reports look. */
export const STYLE = `:root { --ink: #20242c; --soft: #5f6774; --paper: #faf8f3; --card: #fff; --rule: #e2ddd0; --auto: #2f7d5b; --review: #c48a1a; --hand: #b3472f; --hit: #fff3d1; color-scheme: light dark; }
@media (prefers-color-scheme: dark) { :root { --ink: #e8e6df; --soft: #a2a8b3; --paper: #16181d; --card: #1f2229; --rule: #343944; --auto: #4fb286; --review: #e0ac45; --hand: #e0745c; --hit: #3a3322; } }
* { box-sizing: border-box; }
body { margin: 0 auto; max-width: 76rem; padding: 2rem 1.5rem 4rem; background: var(--paper); color: var(--ink); font: 15px/1.5 system-ui, sans-serif; }
h1 { font-size: 1.7rem; margin: 0; } h2 { font-size: 1.1rem; margin: 2.2rem 0 .7rem; }
p { margin: .3rem 0; } .soft { color: var(--soft); } a { color: inherit; }
code, pre { font: 12.5px/1.5 ui-monospace, monospace; }
.sum { display: flex; flex-wrap: wrap; gap: 1rem 2.5rem; margin: 1.4rem 0 .8rem; }
.sum div { min-width: 7rem; } .sum b { display: block; font-size: 2rem; line-height: 1.1; }
.auto b { color: var(--auto); } .review b { color: var(--review); } .hand b { color: var(--hand); }
.bar { display: flex; height: .8rem; border-radius: 2px; overflow: hidden; }
.bar i { display: block; } .bar .a { background: var(--auto); } .bar .r { background: var(--review); } .bar .h { background: var(--hand); }
table { border-collapse: collapse; width: 100%; background: var(--card); border: 1px solid var(--rule); }
th, td { text-align: left; padding: .3rem .7rem; border-top: 1px solid var(--rule); vertical-align: top; }
th { color: var(--soft); font-weight: 600; font-size: .85rem; } td.n, th.n { text-align: right; font-variant-numeric: tabular-nums; white-space: nowrap; }
td.bars { width: 32%; min-width: 9rem; padding-top: .65rem; }
td.name { overflow-wrap: anywhere; }
.map { position: relative; height: 19rem; border: 1px solid var(--rule); background: var(--card); }
.map div { position: absolute; overflow: hidden; padding: .25rem .4rem; border: 1px solid var(--paper); font-size: .75rem; line-height: 1.3; overflow-wrap: anywhere; }
form { display: flex; flex-wrap: wrap; gap: .6rem; align-items: center; margin: .5rem 0 1rem; }
input, select { font: inherit; color: inherit; background: var(--card); border: 1px solid var(--soft); border-radius: 3px; padding: .25rem .5rem; }
input { flex: 1 1 14rem; }
article { background: var(--card); border: 1px solid var(--rule); border-left: 4px solid var(--soft); padding: .6rem .9rem; margin: .6rem 0; content-visibility: auto; contain-intrinsic-size: auto 11rem; break-inside: avoid; }
article.automatic { border-left-color: var(--auto); } article.to-review { border-left-color: var(--review); } article.by-hand { border-left-color: var(--hand); }
article header { display: flex; flex-wrap: wrap; gap: .2rem 1rem; } article pre { margin: .5rem 0; overflow-x: auto; }
article pre span { display: block; padding: 0 .4rem; white-space: pre; min-height: 1.5em; } article pre .hit { background: var(--hit); }
article ul { margin: .3rem 0; padding-left: 1.2rem; } article[hidden] { display: none; }
article pre .gone { background: color-mix(in srgb, var(--hand) 16%, var(--card)); } article pre .come { background: color-mix(in srgb, var(--auto) 18%, var(--card)); } article pre.lines { color: var(--soft); }
.no { color: var(--soft); user-select: none; display: inline-block; width: 3.2rem; text-align: right; padding-right: .8rem; }
@media print { body { max-width: none; padding: 0; background: #fff; } form { display: none; } article { content-visibility: visible; } }
`;

/** The page as a template; all that it shows is escaped by the template engine. */
export const PAGE = `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; script-src 'unsafe-inline'">
<title>{{title}}</title>
<style>
${STYLE}</style>
</head>
<body>
<h1>{{title}}</h1>
{{#each journey}}<p>{{this}}</p>{{/each}}
{{#each compared}}<p class="soft">{{this}}</p>{{/each}}
<div class="sum">
<div><b>{{all.total}}</b>places in {{filesTouched}} of {{filesRead}} files</div>
<div class="auto"><b>{{all.automatic}}</b>automatic</div>
<div class="review"><b>{{all.review}}</b>to review{{#if all.byName}}, {{all.byName}} by name alone{{/if}}</div>
<div class="hand"><b>{{all.hand}}</b>by hand</div>
<div><b>{{all.hours}}</b>hours, about</div>
</div>
<div class="bar" role="img" aria-label="{{all.automatic}} automatic, {{all.review}} to review, {{all.hand}} by hand"><i class="a" style="width:{{sum.automaticShare}}%"></i><i class="r" style="width:{{sum.reviewShare}}%"></i><i class="h" style="width:{{sum.handShare}}%"></i></div>
{{#if checks}}
<h2>Checks</h2>
<table><thead><tr><th>check</th><th>verdict</th><th></th><th>command</th></tr></thead><tbody>
{{#each checks}}<tr><td>{{name}}</td><td>{{verdict}}</td><td>{{says}}{{#if lines}}<pre>{{#each lines}}{{this}}
{{/each}}</pre>{{/if}}</td><td class="name"><code>{{command}}</code></td></tr>
{{/each}}</tbody></table>
{{/if}}
{{#if bySteps}}
<h2>Step by step</h2>
<table><thead><tr><th>version</th><th class="n">places</th><th class="n">automatic</th><th class="n">to review</th><th class="n">by hand</th><th class="n">hours</th></tr></thead><tbody>
{{#each bySteps}}<tr><td>{{name}}</td><td class="n">{{total}}</td><td class="n">{{automatic}}</td><td class="n">{{review}}</td><td class="n">{{hand}}</td><td class="n">{{hours}}</td></tr>
{{/each}}</tbody></table>
{{/if}}
{{#if rules}}
<h2>What</h2>
<table><thead><tr><th>rule</th><th>kind</th><th class="n">places</th><th class="n">share</th><th class="n">files</th><th></th></tr></thead><tbody>
{{#each rules}}<tr><td class="name">{{#if link}}<a href="{{link}}">{{title}}</a>{{else}}{{title}}{{/if}}<br><code class="soft">{{name}}</code></td><td>{{kind}}</td><td class="n">{{total}}</td><td class="n">{{percent}} %</td><td class="n">{{files}}</td><td class="bars">{{> bar}}</td></tr>
{{/each}}</tbody></table>
{{/if}}
{{#if tiles}}
<h2>Where</h2>
<div class="map" role="img" aria-label="Folders by hours of work">
{{#each tiles}}<div title="{{of.name}}: {{of.total}} places, {{of.hours}} hours" style="left:{{left}}%;top:{{top}}%;width:{{width}}%;height:{{height}}%;background:color-mix(in srgb, var(--review) {{shade}}%, var(--card))">{{#if isWide}}{{of.name}}<br>{{of.hours}} h{{/if}}</div>
{{/each}}</div>
<p class="soft">Folders; the larger and darker, the more hours.</p>
<table><thead><tr><th>folder</th><th class="n">places</th><th class="n">files</th><th class="n">hours</th><th></th></tr></thead><tbody>
{{#each folders}}<tr><td class="name"><code>{{name}}</code></td><td class="n">{{total}}</td><td class="n">{{files}}</td><td class="n">{{hours}}</td><td class="bars">{{> bar}}</td></tr>
{{/each}}</tbody></table>
<h2>Files with most places</h2>
<table><tbody>
{{#each files}}<tr><td class="name"><code>{{name}}</code></td><td class="n">{{total}}</td><td class="bars">{{> bar}}</td></tr>
{{/each}}</tbody></table>
{{/if}}
{{#if owners}}
<h2>Whose</h2>
<table><tbody>
{{#each owners}}<tr><td>{{name}}</td><td class="n">{{total}}</td><td class="n">{{hours}} h</td><td class="bars">{{> bar}}</td></tr>
{{/each}}</tbody></table>
{{/if}}
<h2>Places</h2>
<form>
<input type="search" name="words" placeholder="path, rule or words" aria-label="Only places with these words">
<select name="work" aria-label="Only this work"><option value="">all work</option>{{#each works}}<option>{{this}}</option>{{/each}}</select>
<select name="rule" aria-label="Only this rule"><option value="">all rules</option>{{#each ruleIds}}<option>{{this}}</option>{{/each}}</select>
<output class="soft"></output>
</form>
{{#each places}}<article class="{{workClass}}" data-work="{{work}}" data-rule="{{rule}}">
<header><code>{{path}}:{{line}}</code><span>{{sentence says}}</span><span class="soft">{{rule}} · {{trustShown}} · {{work}}{{#if step}} · for {{step}}{{/if}}</span></header>
{{#if difference}}<pre>{{#each difference}}<span{{#if lineClass}} class="{{lineClass}}"{{/if}}><b class="no">{{line}} {{mark}}</b>{{text}}</span>{{/each}}</pre>
{{else}}<pre>{{#each code}}<span{{#if isHit}} class="hit"{{/if}}><b class="no">{{line}}</b>{{text}}</span>{{/each}}</pre>
{{/if}}{{#if outcome}}<p>{{sentence outcome.says}}</p>{{#if outcome.lines}}<pre class="lines">{{#each outcome.lines}}{{this}}
{{/each}}</pre>{{/if}}
{{/if}}{{#if reasons}}<ul>{{#each reasons}}<li>{{sentence this}}</li>{{/each}}</ul>{{/if}}
</article>
{{/each}}
<h2>What was not looked at</h2>
{{#if notCovered}}<p>Files of other kinds: {{#each notCovered}}{{ending}} {{files}}{{#unless @last}}, {{/unless}}{{/each}}.</p>{{/if}}
{{#if leftOut}}<details><summary>{{leftOut.length}} files were left out</summary><ul>{{#each leftOut}}<li><code>{{path}}</code>: {{why}}</li>{{/each}}</ul></details>{{/if}}
<p class="soft">Hours are reckoned with {{effort.automatic}} minutes for an automatic place, {{effort.review}} for one to review and {{effort.hand}} for one by hand.</p>
<script>
const form = document.querySelector("form"), articles = [...document.querySelectorAll("article")], said = document.querySelector("output");
const texts = articles.map((one) => one.textContent.toLowerCase());
function show() {
  const words = form.words.value.toLowerCase().split(/\\s+/).filter(Boolean);
  let shown = 0;
  articles.forEach((one, i) => {
    const fits = (!form.work.value || one.dataset.work === form.work.value) && (!form.rule.value || one.dataset.rule === form.rule.value) && words.every((word) => texts[i].includes(word));
    one.hidden = !fits;
    if (fits) shown++;
  });
  said.value = shown + " of " + articles.length + " places";
}
form.addEventListener("input", show);
form.addEventListener("submit", (event) => event.preventDefault());
show();
</script>
</body>
</html>
`;

/** How a count is shared out among the kinds of work. */
export const BAR =
  '<div class="bar"><i class="a" style="width:{{automaticShare}}%"></i><i class="r" style="width:{{reviewShare}}%"></i><i class="h" style="width:{{handShare}}%"></i></div>';
