import { existsSync } from "node:fs";
import { resolve } from "node:path";
import type { CodeAction, Hover } from "vscode-languageserver-protocol";
import { Editor } from "./editor.js";
import { Sandbox } from "./run.js";

const OLD = "export const lot = (jar) => (jar !== null && jar !== undefined ? jar : 0);\n";
const NEW = "export const lot = (jar) => (jar ?? 0);\n";
const RENAMING = `import { holes, pack, renamed, rule, python } from "uvran";
const { name, body } = holes({ name: "name", body: "statements" });
export default { packs: [pack("own", [rule({
  id: "python/snake-name", kind: "deprecated", title: "Name functions in snake case", why: "It is the *custom*.",
  link: "https://thistledown.test/names",
  was: python\`
    def \${name}():
        \${body}
  \`,
  where: [(match) => /[A-Z]/.test(match.textOf(name))],
  uses: renamed(name, (match) => match.textOf(name).replace(/[A-Z]/g, (c) => "_" + c.toLowerCase())),
  trials: [],
})])] };
console.log("a config that prints");
`;

let opened: Editor | undefined;
afterEach(async () => {
  if (opened) expect(await opened.close()).toBe(0);
  opened = undefined;
});

async function open(sandbox: Sandbox): Promise<Editor> {
  return (opened = await Editor.open(sandbox));
}

const titles = (actions: readonly CodeAction[]): string[] => actions.map(({ title }) => title);

test("what is typed is looked at as it stands, saved or not", async () => {
  const sandbox = new Sandbox({ "a.js": "export const a = 1;\n" });
  const editor = await open(sandbox);
  expect(await editor.type("a.js")).toEqual([]);
  const [found, ...more] = await editor.type("a.js", `\n${OLD}`);
  expect(more).toEqual([]);
  expect(found).toMatchObject({
    range: { start: { line: 1, character: 29 }, end: { line: 1 } },
    message: expect.stringMatching(/\(certain\)$/),
    code: "javascript/value-or-fallback",
    source: "uvran",
  });
  expect(found!.relatedInformation!.length).toBeGreaterThan(0);
  expect(await editor.type("a.js", "export const lot = (jar) => (\n")).toEqual([]);
  expect(await editor.type("a.js", OLD)).toHaveLength(1);
  expect(sandbox.read("a.js")).toBe("export const a = 1;\n");
});

test("a change is made alone, with all that are like it, or with all that are certain", async () => {
  const text = OLD + OLD.replace("lot", "jars") + "export const w = (hive) => hive && hive.weight;\n";
  const editor = await open(new Sandbox({ "a.js": text }));
  await editor.type("a.js");
  const [one, all, ...others] = await editor.actions("a.js", "jar !== null");
  expect(one).toMatchObject({ isPreferred: true, kind: "quickfix", diagnostics: [{ source: "uvran" }] });
  expect(editor.after(one!, "a.js")).toBe(text.replace(OLD, NEW));
  expect(all!.title).toBe("All 2 changes of javascript/value-or-fallback in this file");
  const both = text.replace(OLD, NEW).replace(OLD.replace("lot", "jars"), NEW.replace("lot", "jars"));
  expect(editor.after(all!, "a.js")).toBe(both);
  expect(titles(others)).toEqual([
    "Keep this from javascript/value-or-fallback with a comment",
    "Drop this change of javascript/value-or-fallback, for everybody",
  ]);
  const [every, ...none] = await editor.actions("a.js", "hive", ["source.fixAll"]);
  expect(none).toEqual([]);
  expect(editor.after(every!, "a.js")).toBe(both);
});

test("a place is kept with a comment, above its statement", async () => {
  const text =
    "def f(d):\n    if d:\n        x = (\n            d['a'] if 'a' in d else 1\n        )\n    return x\n";
  const editor = await open(new Sandbox({ "a.py": text }));
  const [found] = await editor.type("a.py");
  const kept = (await editor.actions("a.py", "d['a']")).find(({ title }) =>
    title.includes("with a comment"),
  )!;
  const after = editor.after(kept, "a.py")!;
  expect(after).toContain(
    `    if d:\n        # uvran-keep ${String(found!.code)}: left as it is\n        x = (\n`,
  );
  expect(await editor.type("a.py", after)).toEqual([]);
});

test("what is typed while a file is looked at counts, and nothing of what it was before", async () => {
  const editor = await open(new Sandbox({ "a.js": OLD, "b.py": "x = 1\n" }));
  const hover = (path: string) => {
    const textDocument = { uri: editor.uri(path) };
    return editor.request<Hover | null>("textDocument/hover", {
      textDocument,
      position: { line: 0, character: 40 },
    });
  };
  const asked: Promise<unknown>[] = [];
  for (let round = 0; round < 12; round++) {
    const found = editor.type("a.js", round % 2 === 0 ? OLD : `// ${round}\n${OLD}`);
    asked.push(
      found.catch(() => undefined),
      hover("a.js"),
    );
  }
  const last = editor.type("a.js", `\n\n${OLD}`);
  expect((await last).map(({ range }) => range.start.line)).toEqual([2]);
  await Promise.race([Promise.all(asked), new Promise((go) => setTimeout(go, 1000))]);
  expect(editor.messages).toEqual([]);
});

test("the edits of an action are worked out when it is chosen, by an editor that asks for them", async () => {
  const editor = (opened = await Editor.open(new Sandbox({ "a.js": OLD }), true));
  await editor.type("a.js");
  const [one] = await editor.actions("a.js", "jar !== null");
  expect(one!.edit).toBeUndefined();
  const done = await editor.request<CodeAction>("codeAction/resolve", one!);
  expect(editor.after(done, "a.js")).toBe(NEW);
  await editor.type("a.js", `// jars\n${OLD}`);
  expect((await editor.request<CodeAction>("codeAction/resolve", one!)).edit).toBeUndefined();
});

test("what is dropped is not shown any more, and is in the decisions of the project", async () => {
  const sandbox = new Sandbox({ "a.js": OLD });
  const editor = await open(sandbox);
  await editor.type("a.js");
  const drop = (await editor.actions("a.js", "jar !== null")).find(({ command }) => command)!;
  await editor.request("workspace/executeCommand", drop.command!);
  expect(await editor.told("a.js", ({ diagnostics }) => diagnostics.length === 0)).toEqual([]);
  expect(sandbox.read(".uvran/decisions.jsonl")).toContain('"drop"');
  expect(await editor.type("a.js", `// jars\n${OLD}`)).toEqual([]);
});

test("a change of several files is one action, in files that are open or not, with the text that is not saved", async () => {
  const sandbox = new Sandbox({
    "uvran.config.ts": RENAMING,
    "hives.py": "def countAll():\n    return 1\n",
    "main.py": "from hives import countAll\n",
    "yard.py": "from hives import countAll\n",
  });
  const editor = await open(sandbox);
  await editor.type("main.py");
  const [found] = await editor.type("hives.py");
  expect(found).toMatchObject({
    severity: 2,
    tags: [2],
    codeDescription: { href: "https://thistledown.test/names" },
  });
  await editor.type("main.py", "from hives import countAll\n\nprint(countAll())\n");
  await editor.type("hives.py", "# bees\ndef countAll():\n    return 1\n");
  const [rename] = await editor.actions("hives.py", "def countAll");
  expect(editor.after(rename!, "hives.py")).toBe("# bees\ndef count_all():\n    return 1\n");
  expect(editor.after(rename!, "main.py")).toBe("from hives import count_all\n\nprint(count_all())\n");
  expect(editor.after(rename!, "yard.py")).toBe("from hives import count_all\n");
  const hover = await editor.request<Hover>("textDocument/hover", {
    textDocument: { uri: editor.uri("hives.py") },
    position: { line: 1, character: 5 },
  });
  const { value } = hover.contents as { value: string };
  expect(value).toContain("**Name functions in snake case** · ");
  expect(value).toContain("It is the \\*custom\\*.");
  expect(value).toContain("```diff\n- def countAll():\n+ def count_all():");
  expect(value).toContain("[More about it](https://thistledown.test/names)");
});

test("another rule, another file on the disk: what rests on it is told anew; a config that fails is told once", async () => {
  const sandbox = new Sandbox({
    "uvran.config.ts": RENAMING,
    "a.py": "def countAll():\n    pass\n",
    "b.py": "x = 1\n",
  });
  const editor = await open(sandbox);
  const saved = (path: string) =>
    editor.notify("workspace/didChangeWatchedFiles", { changes: [{ uri: editor.uri(path), type: 2 }] });
  expect(await editor.type("a.py")).toHaveLength(1);
  sandbox.write("b.py", "# generated, do not edit\nfrom a import countAll\n");
  await saved("b.py");
  await editor.told("a.py", ({ diagnostics }) => /possible/.test(String(diagnostics[0]?.message)));
  sandbox.write("b.py", "x = 1\n");
  await saved("b.py");
  await editor.told("a.py", ({ diagnostics }) => /likely/.test(String(diagnostics[0]?.message)));
  sandbox.write("uvran.config.ts", RENAMING.replace("/[A-Z]/.test", "/[0-9]/.test"));
  await saved("uvran.config.ts");
  await editor.told("a.py", ({ diagnostics }) => diagnostics.length === 0);
  sandbox.write("uvran.config.ts", "export default { packs: 1 };\n");
  await saved("uvran.config.ts");
  for (let tries = 0; editor.messages.length === 0 && tries < 100; tries++)
    await new Promise((go) => setTimeout(go, 50));
  expect(editor.messages).toEqual([expect.stringMatching(/^Uvran: The config is not in order/)]);
  sandbox.write("uvran.config.ts", RENAMING);
  await saved("uvran.config.ts");
  await editor.told("a.py", ({ diagnostics }) => diagnostics.length === 1);
  expect(editor.messages).toHaveLength(1);
});

const NVIM = ["/usr/bin/nvim", "/usr/local/bin/nvim"].find((path) => existsSync(path));

/** Attaches Neovim's own client, waits for what is told, makes the preferred action, and saves. */
const SCRIPT = (main: string): string => `
local fine, why = pcall(function()
local client = vim.lsp.start_client({ cmd = { "${process.execPath}", "${main}", "lsp" }, root_dir = vim.fn.getcwd() })
vim.cmd("edit a.js")
vim.lsp.buf_attach_client(0, client)
vim.wait(20000, function() return #vim.diagnostic.get(0) > 0 end, 50)
for _, one in ipairs(vim.diagnostic.get(0)) do io.write(one.lnum .. " " .. one.code .. " " .. one.message .. "\\n") end
local at = { line = 0, character = 40 }
local asked = { textDocument = vim.lsp.util.make_text_document_params(), range = { start = at, ["end"] = at },
  context = { diagnostics = {} } }
local answer = vim.lsp.buf_request_sync(0, "textDocument/codeAction", asked, 20000)
for _, action in ipairs(answer[client].result) do
  if action.isPreferred then
    local whole = vim.lsp.buf_request_sync(0, "codeAction/resolve", action, 20000)[client].result
    vim.lsp.util.apply_workspace_edit(whole.edit, "utf-16")
  end
end
vim.cmd("write")
vim.wait(20000, function() return #vim.diagnostic.get(0) == 0 end, 50)
io.write(#vim.diagnostic.get(0) .. " left\\n")
end)
if not fine then io.write(tostring(why)) end
vim.cmd("quitall!")
`;

(NVIM ? test : test.skip)(
  "an editor that speaks the protocol shows what is found, and makes the change",
  () => {
    const sandbox = new Sandbox({ "a.js": OLD, "go.lua": SCRIPT(resolve("dist/program/uvran.js")) });
    const { out, err } = sandbox.run(NVIM!, "--headless", "-u", "NONE", "-i", "NONE", "-c", "luafile go.lua");
    expect(out + err).toMatch(/^0 javascript\/value-or-fallback .*\(certain\)\r?\n[^]*0 left/);
    expect(sandbox.read("a.js")).toBe(NEW);
  },
);

test.each([
  [
    "a.ts",
    "export const f = (a: { b?: number } | null) => (a !== null && a !== undefined ? a.b : undefined);\n",
  ],
  [
    "A.java",
    'class A {\n  String f(java.util.Map<String, String> m) {\n    return m.containsKey("a") ? m.get("a") : "b";\n  }\n}\n',
  ],
  ["a.cpp", "#include <cstddef>\nint* f() {\n  int* p = NULL;\n  return p;\n}\n"],
  ["a.cs", 'class A {\n  string F(string a) {\n    return a != null ? a : "b";\n  }\n}\n'],
  ["a.php", "<?php\nfunction f($a) {\n    return isset($a['x']) ? $a['x'] : 1;\n}\n"],
  ["a.rb", "def f(a)\n  a = 1 if a.nil?\n  a\nend\n"],
  ["a.ps1", "function F($a) {\n    if ($a -eq $null) { $a = 1 }\n    $a\n}\n"],
  ["a.md", `# Hives\n\n\`\`\`js\n${OLD}\`\`\`\n`],
])("every language is read: %s", async (path, text) => {
  const editor = await open(new Sandbox({ [path]: text }));
  const found = await editor.type(path);
  expect(found.length).toBeGreaterThan(0);
  const line = text.split("\n")[found[0]!.range.start.line]!.trim();
  const actions = await editor.actions(path, line);
  const [one] = actions;
  const done = editor.after(one!, path)!;
  expect(done).not.toBe(text);
  const kept = actions.find(({ title }) => title.endsWith("with a comment"));
  // Comments keep statements of whole files; in a document there is none for them.
  expect(kept !== undefined).toBe(path !== "a.md");
  if (kept) expect(await editor.type(path, editor.after(kept, path)!)).toHaveLength(found.length - 1);
  expect(await editor.type(path, done)).toHaveLength(found.length - 1);
});
