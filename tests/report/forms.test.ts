import { fromMarkdown } from "mdast-util-from-markdown";
import type { Log } from "sarif";
import { NEW_JS, OLD_JS } from "../cli/run.js";
import { FALLBACK, planned } from "../prove/project.js";
import { junitFaults, sarifFaults } from "./valid.js";

const node = JSON.stringify(process.execPath);
/** `b.js` gives another remark with its change, `</pre>` does not. */
const FILES = { "b.js": FALLBACK, "</pre>/a.js": OLD_JS };
const CHECKS = [
  { name: "prints", run: `${node} -e "console.log(require('./b.js').remark(''))"` },
  { name: "]]>", run: "exit 77" },
];

test("a plan shows what each change does, in each form", async () => {
  const sandbox = planned(FILES, CHECKS);
  const plan = (...args: string[]): string => {
    const { out, err, exit } = sandbox.uvran("propose", "--trust", "certain", ...args);
    expect([err, exit]).toEqual(["", 0]);
    return out;
  };
  const [code] = fromMarkdown(plan("--as", "markdown")).children.filter(({ type }) => type === "code");
  expect(code).toMatchObject({
    lang: "diff",
    value: `-${OLD_JS}+${NEW_JS}`.trimEnd(),
  });
  expect(plan("--as", "html")).toContain(`<span class="come"><b class="no"> +</b>${html(NEW_JS.trimEnd())}`);
  expect(plan("--as", "diff")).toBe(plan("--diff"));
  expect(plan("--as", "json")).toBe(plan("--json"));
  expect(plan("--as", "csv").split("\r\n")).toHaveLength(3);
  expect(sarifFaults(plan("--as", "sarif"))).toEqual([]);
  expect(await junitFaults(plan("--as", "junit"))).toBeUndefined();
  sandbox.write("mine.hbs", "{{#each places}}{{#each difference}}{{mark}}{{/each}}{{/each}}");
  expect(plan("--template", "mine.hbs")).toBe("-+");
  expect(sandbox.uvran("propose", "--diff", "--as", "csv").err).toContain("Choose one of them.");
  expect(sandbox.uvran("propose", "--as", "csv", "--out", "b.js").err).toContain("b.js is a source file");
  expect(sandbox.read("b.js")).toBe(FALLBACK);
});

test("a proof says what passed and what was set aside, in each form", async () => {
  const sandbox = planned(FILES, CHECKS);
  const proof = (...args: string[]): string => {
    const { out, exit } = sandbox.uvran("prove", "--trust", "possible", "--no-mark", ...args);
    expect(exit).toBe(1);
    return out;
  };
  const markdown = proof("--as", "markdown");
  expect(markdown).toContain("| prints | same | 1 line of output |");
  expect(markdown).toContain('- Set aside: "prints" is different with it.\n');
  expect(markdown).toContain("- It passed 1 check, together with all other changes that were kept.\n");
  expect(fromMarkdown(markdown).children.some(({ type }) => type === "html")).toBe(false);

  const page = proof("--as", "html");
  expect(page).toContain("<p>Set aside: &quot;prints&quot; is different with it.</p>");
  expect(page).not.toContain("</pre>/a.js");

  const sarif = proof("--as", "sarif");
  expect(sarifFaults(sarif)).toEqual([]);
  expect((JSON.parse(sarif) as Log).runs[0]!.results!.map(({ kind, level }) => [kind, level])).toEqual([
    ["pass", "none"],
    [undefined, "note"],
  ]);

  const junit = proof("--as", "junit");
  expect(await junitFaults(junit)).toBeUndefined();
  expect(junit).toContain('<testsuite name="checks" tests="2" failures="0" errors="0" skipped="1"');
  expect(junit).toContain('<failure message="Set aside: &quot;prints&quot; is different with it."');

  expect(proof("--as", "csv")).toMatch(/automatic,,passed[\s\S]*by hand,,set aside/);
  sandbox.write("kept.patch", proof("--as", "diff"));
  expect(sandbox.run("git", "apply", "kept.patch")).toMatchObject({ exit: 0, err: "" });
  expect([sandbox.read("</pre>/a.js"), sandbox.read("b.js")]).toEqual([NEW_JS, FALLBACK]);
  expect(sandbox.uvran("prove", "--suggest", "--as", "html").err).toContain("has no form of html");
});

const html = (text: string): string =>
  text.replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll('"', "&quot;");
