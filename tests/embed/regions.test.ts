import "uvran/node";
import { Engine, holes, javascript, need, python, rule, textAfter } from "uvran";

const { x, body } = holes({ x: "expression", body: "statements" });
const about = { kind: "idiom", title: "Move on", why: "It is old.", trials: [] } as const;
const weigh = need("scales", "weigh");
const engine = new Engine([
  rule({ ...about, id: "hive/js", was: javascript`old(${x})`, becomes: javascript`fresh(${x})` }),
  rule({ ...about, id: "hive/py", was: python`old(${x})`, becomes: python`${weigh}(${x})` }),
  rule({
    ...about,
    id: "hive/block",
    was: python`
      while bees(${x}):
          ${body}
    `,
    becomes: python`
      with swarm(${x}):
          calm(${x})
          ${body}
    `,
  }),
]);

async function run(path: string, text: string) {
  const { changes, unparsed } = (await engine.file(path, text))!;
  const after = await textAfter(path, text, changes);
  expect((await engine.file(path, after))!.changes).toEqual([]);
  expect(new Set(changes.map(({ trust }) => trust))).toEqual(new Set(changes.length > 0 ? ["likely"] : []));
  return { after, lines: changes.map((change) => change.line), ids: changes.map(({ id }) => id), unparsed };
}

const MARKDOWN = [
  "# Hives",
  "",
  "`old(1)` in a sentence stays.",
  "",
  "```js",
  "old(1);",
  "```",
  "",
  "> 1. quoted",
  ">",
  ">    ```python title='x'",
  ">    import os",
  ">    while bees(a):",
  ">        feed(a)",
  ">    ```",
  "",
  "    old(2)",
  "",
  "~~~text",
  "old(3)",
  "~~~",
  "",
  "```js",
  "old(1);",
  "```",
  "",
].join("\n");

test("fenced blocks of Markdown are code, with what quotes and lists put before each line", async () => {
  const { after, lines, ids } = await run("hives.md", MARKDOWN);
  expect(lines).toEqual([6, 13, 24]);
  expect(new Set(ids).size).toBe(3);
  expect(after).toBe(
    MARKDOWN.replaceAll("js\nold(1)", "js\nfresh(1)").replace(
      ">    while bees(a):\n>        feed(a)",
      ">    with swarm(a):\n>        calm(a)\n>        feed(a)",
    ),
  );
});

test("a block that does not parse is left alone and named by the file's line", async () => {
  const { after, unparsed } = await run("hives.md", "Text.\n\n```js\nold(1);\nold((\n```\n");
  expect(after).toContain("old(1);");
  expect(unparsed).toMatchObject({ path: "hives.md", line: 5 });
});

const cell = (source: string | string[], type = "code") => ({
  cell_type: type,
  metadata: {},
  ...(type === "code" ? { execution_count: 7, outputs: [{ text: ["old(1)\n"] }] } : {}),
  source,
});
const notebook = (...cells: object[]) => ({
  cells,
  metadata: { kernelspec: { language: "python" }, note: "old(1)" },
  nbformat: 4,
});

test("only the source of a notebook's code cells changes", async () => {
  const title = cell(["old(1)"], "markdown");
  const before = notebook(
    title,
    cell(["import os\n", "\n", "x = old('\"ü\\t')  # ☃\n", "while bees(x):\n", "    feed(x)"]),
    cell("y = old(2)\nz = 1"),
  );
  const text = JSON.stringify(before, null, 1) + "\n";
  const { after, lines } = await run("hives.ipynb", text);
  const now = notebook(
    title,
    cell([
      "import os\n",
      "from scales import weigh\n",
      "\n",
      "x = weigh('\"ü\\t')  # ☃\n",
      "with swarm(x):\n",
      "    calm(x)\n",
      "    feed(x)",
    ]),
    cell("from scales import weigh\n\ny = weigh(2)\nz = 1"),
  );
  expect(after).toBe(JSON.stringify(now, null, 1) + "\n");
  const lineOf = (part: string): number => text.slice(0, text.indexOf(part)).split("\n").length;
  expect(lines).toEqual([lineOf("x = old"), lineOf("while bees"), lineOf("y = old")]);
});

test("a notebook that is not one, or in another language, is left alone", async () => {
  expect((await run("a.ipynb", "{ not json")).lines).toEqual([]);
  const other = { ...notebook(cell("old(1)")), metadata: { kernelspec: { language: "julia" } } };
  expect((await run("a.ipynb", JSON.stringify(other))).lines).toEqual([]);
});

test("scripts in a page are code, data and other pages' scripts are not", async () => {
  const page = `<!doctype html>
<p onclick="old(1)">old(1)</p>
<script src="old.js"></script>
<script type="application/json">{"a": "old(1)"}</script>
<script type="module">
  old(a < b);\r
</script>
<template><script>old(2)</script></template>
`;
  const { after, lines } = await run("page.html", page);
  expect(lines).toEqual([6, 8]);
  expect(after).toBe(page.replace("old(a", "fresh(a").replace("old(2)", "fresh(2)"));
});

test("what another cell may use is not taken out", async () => {
  const before = notebook(cell("from hives import old\n\nold(1)"), cell("print(old)"));
  const { after } = await run("hives.ipynb", JSON.stringify(before));
  const now = notebook(
    cell("from hives import old\nfrom scales import weigh\n\nweigh(1)"),
    cell("print(old)"),
  );
  expect(after).toBe(JSON.stringify(now));
});
