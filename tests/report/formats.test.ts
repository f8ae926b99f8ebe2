import { execFileSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import { fromMarkdown } from "mdast-util-from-markdown";
import type { Log } from "sarif";
import { CHROMIUM, launch } from "../review/page.js";
import { Sandbox } from "../cli/run.js";
import { junitFaults, sarifFaults } from "./valid.js";

/** Code, names and notes that each of the forms must escape in its own way. */
const NASTY = {
  "a|b `c`.js":
    "/* ]]> & <b> */\nif (hive && hive.queen) mark(hive, '</script><script>document.title=\"hacked\"</script>');\n",
  "=1+2.js": 'if (hive && hive.queen) mark(hive, "```\\u001b[31m|");\n',
  "sub dir/ünï.js": "\u{1F41D};\nif (hive && hive.queen) mark(hive);\n",
  "x.rb": "puts 1\n",
};

const sandbox = new Sandbox({
  ...NASTY,
  CODEOWNERS: "* @keepers\n/sub?dir/ @south # the meadow\n",
  "uvran.config.json": JSON.stringify({ effort: { automatic: 6 } }),
});
const report = (...args: string[]): string => {
  const { out, err, exit } = sandbox.uvran("survey", ...args);
  expect([err, exit]).toEqual(["", 0]);
  return out;
};

/** What Python makes of a text on its standard input. */
function python(program: string, input: string): unknown {
  return JSON.parse(execFileSync("python3", ["-c", program], { input, encoding: "utf8" }));
}

test("a table for spreadsheets has every place, and no formula", () => {
  const rows = python(
    "import csv, json, sys; print(json.dumps(list(csv.DictReader(sys.stdin))))",
    report("--as", "csv"),
  ) as Record<string, string>[];
  expect(rows.map(({ path, line, trust, work }) => [path, line, trust, work])).toEqual([
    ["'=1+2.js", "1", "certain", "automatic"],
    ["a|b `c`.js", "2", "certain", "automatic"],
    ["sub dir/ünï.js", "2", "certain", "automatic"],
  ]);
});

test("results of tests are read by an XML parser, a suite for each rule", async () => {
  const read =
    "import json, sys, xml.etree.ElementTree as e; r = e.fromstring(sys.stdin.buffer.read());" +
    "print(json.dumps([r.attrib, [[c.attrib, c[0].text] for c in r.iter('testcase') if len(c)]]))";
  const [root, cases] = python(read, report("--as", "junit")) as [
    Record<string, string>,
    [Record<string, string>, string][],
  ];
  expect(root).toMatchObject({ failures: "3" });
  expect(await junitFaults(report("--as", "junit"))).toBeUndefined();
  expect(cases.map(([{ name }]) => name)).toEqual(["=1+2.js:1:5", "a|b `c`.js:2:5", "sub dir/ünï.js:2:5"]);
  expect(cases[1]![1]).toContain("> 2  if (hive && hive.queen) mark(hive, '</script>");
});

test("static analysis results name the place, and their fixes are the change", () => {
  const text = report("--as", "sarif");
  expect(sarifFaults(text)).toEqual([]);
  const log = JSON.parse(text) as Log;
  const [run] = log.runs;
  expect([log.version, run!.tool.driver.name, run!.columnKind]).toEqual(["2.1.0", "Uvran", "utf16CodeUnits"]);
  const places = run!.results!.map(({ ruleId, ruleIndex, level, locations, partialFingerprints, fixes }) => {
    const { artifactLocation, region } = locations![0]!.physicalLocation!;
    expect(run!.tool.driver.rules![ruleIndex!]!.id).toBe(ruleId);
    expect(partialFingerprints!["uvranPlace/v1"]).toMatch(/^[0-9a-f]{16}$/);
    const path = decodeURIComponent(artifactLocation!.uri!);
    const [change] = fixes![0]!.artifactChanges;
    let code = sandbox.read(path);
    for (const { deletedRegion, insertedContent } of [...change!.replacements].reverse()) {
      const { charOffset = 0, charLength = 0 } = deletedRegion;
      code = code.slice(0, charOffset) + (insertedContent?.text ?? "") + code.slice(charOffset + charLength);
    }
    return [path, level, region!.startLine, region!.startColumn, code.includes("if (hive?.queen) mark(hive")];
  });
  expect(places).toEqual([
    ["=1+2.js", "note", 1, 5, true],
    ["a|b `c`.js", "note", 2, 5, true],
    ["sub dir/ünï.js", "note", 2, 5, true],
  ]);
});

test("Markdown keeps code as code, and nothing in it becomes markup", () => {
  const text = report("--as", "markdown", "--context", "0");
  const tree = fromMarkdown(text);
  const blocks = tree.children.flatMap((node) => (node.type === "code" ? [node.value] : []));
  expect(blocks).toHaveLength(3);
  expect(blocks[1]).toContain("</script><script>document.title");
  expect(tree.children.some(({ type }) => type === "html")).toBe(false);
  expect(text).toContain("| @keepers | 2 | 67 % | 2 | 0 | 0 | 0 | 2 |");
  expect(text).toContain("| @south | 1 | 33 % |");
  expect(text).toContain("reckoned with 6 minutes for an automatic place");
});

test("a form of one's own, by a template", () => {
  sandbox.write(
    "mine.md.hbs",
    "{{all.total}} {{#each places}}{{csv path}};{{markdown path}};{{line}} {{/each}}",
  );
  expect(report("--template", "mine.md.hbs")).toBe(
    "3 '=1+2.js;\\=1+2.js;1 a|b `c`.js;a\\|b \\`c\\`.js;2 sub dir/ünï.js;sub dir/ünï.js;2 ",
  );
  sandbox.write("mine.html.hbs", "{{#each places}}{{#each code}}{{text}}{{/each}}{{/each}}");
  expect(report("--template", "mine.html.hbs")).toContain("&lt;/script&gt;&lt;script&gt;");
  for (const [template, says] of [
    ["{{#each}}", "Parse error"],
    ["{{nothing.here}}", '"here" not defined'],
    ['{{#*inline "a"}}{{> a}}{{/inline}}{{> a}}', "Maximum call stack size exceeded"],
  ] as const) {
    sandbox.write("odd.hbs", template);
    const { err, exit } = sandbox.uvran("survey", "--template", "odd.hbs");
    expect(err).toContain("The template odd.hbs fails: ");
    expect([err.includes(says), exit]).toEqual([true, 2]);
  }
  expect(sandbox.uvran("survey", "--template", "none.hbs").err).toContain("none.hbs cannot be read");
  expect(sandbox.uvran("survey", "--as", "csv", "--json").exit).toBe(2);
});

interface Found {
  trust: string;
  evidence?: { answer: string; code: string }[];
}

test("the counts are those that somebody else counts", () => {
  const demo = Sandbox.demo();
  const { stock, places, advice, heldBack } = JSON.parse(demo.uvran("survey", "--as", "json").out) as {
    stock: {
      all: Record<string, number>;
      byRule: { name: string; total: number }[];
      byFolder: { name: string; total: number }[];
    };
    places: (Found & { path: string; rules: string[] })[];
    advice: (Found & { path: string; rule: string })[];
    heldBack: { path: string; rule: string }[];
  };
  const all = [
    ...places.map(({ path, rules }) => ({ path, rule: rules[0]! })),
    ...[...advice, ...heldBack].map(({ path, rule }) => ({ path, rule: rule.split(" + ")[0]! })),
  ];
  const counted = (keys: string[]): Record<string, number> => {
    const counts: Record<string, number> = {};
    for (const key of keys) counts[key] = (counts[key] ?? 0) + 1;
    return counts;
  };
  expect(stock.all).toMatchObject({
    total: all.length,
    automatic: places.filter(({ trust }) => trust === "certain").length,
    review: places.filter(({ trust }) => trust !== "certain").length,
    hand: advice.length + heldBack.length,
    byName: [...places, ...advice].filter(
      ({ trust, evidence }) =>
        trust === "possible" &&
        evidence?.some(
          ({ answer, code }) => answer === "unknown" && ["name", "type"].includes(code.split(".")[0]!),
        ),
    ).length,
  });
  expect(Object.fromEntries(stock.byRule.map(({ name, total }) => [name, total]))).toEqual(
    counted(all.map(({ rule }) => rule)),
  );
  expect(Object.fromEntries(stock.byFolder.map(({ name, total }) => [name, total]))).toEqual(
    counted(all.map(({ path }) => path.slice(0, Math.max(0, path.lastIndexOf("/"))) || ".")),
  );
});

(CHROMIUM ? test : test.skip)(
  "the page runs nothing that it shows, asks for nothing, and is filtered",
  async () => {
    writeFileSync(sandbox.path("survey.html"), report("--as", "html"));
    const browser = await launch();
    try {
      const page = await browser.newPage();
      const asked: string[] = [];
      const errors: string[] = [];
      page.on("request", (request) => asked.push(request.url()));
      page.on("pageerror", (error) => errors.push(error.message));
      await page.goto(`file://${sandbox.path("survey.html")}`);
      expect(asked).toHaveLength(1);
      expect(await page.title()).not.toBe("hacked");
      expect(await page.locator("article").count()).toBe(3);
      expect(await page.locator("article pre").nth(1).textContent()).toContain(
        "</script><script>document.title",
      );
      await page.fill("input", "sub ünï");
      expect(await page.locator("article:visible").count()).toBe(1);
      expect(await page.locator("output").textContent()).toBe("1 of 3 places");
      await page.fill("input", "");
      await page.selectOption("select[name=work]", "by hand");
      expect(await page.locator("output").textContent()).toBe("0 of 3 places");
      expect(errors).toEqual([]);
    } finally {
      await browser.close();
    }
  },
);
