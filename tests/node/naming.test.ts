import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { filesNaming } from "uvran/core";
import { ProjectFiles } from "uvran/node";

const TEXTS = {
  "a.php": "<?php\nFunction IS_NULL($x) { return true; }\n",
  "b.ps1": "SET-ALIAS gc Get-Comb\n",
  "c.py": "def IS_NULL(x): return True\n",
  "d.php": "<?php is_null($x);\n",
};

let root: string;
beforeAll(() => {
  root = mkdtempSync(join(tmpdir(), "naming-"));
  for (const [path, text] of Object.entries(TEXTS)) writeFileSync(join(root, path), text);
});
afterAll(() => rmSync(root, { recursive: true }));

test.each([
  ["is_null", ["a.php", "d.php"]],
  ["IS_NULL", ["a.php", "c.py", "d.php"]],
  ["Set", ["b.ps1"]],
  ["comb", ["b.ps1"]],
  ["nothing", []],
])("%s is found in other cases too, in languages in which they are the same", (word, paths) => {
  const onDisk = new ProjectFiles(root, { paths: Object.keys(TEXTS) });
  const inHand = filesNaming(Object.entries(TEXTS).map(([path, text]) => ({ path, text })));
  expect([...onDisk.naming(word)].map(({ path }) => path)).toEqual(paths);
  expect([...inHand.naming(word)].map(({ path }) => path)).toEqual(paths);
});

test("a word that came with a change is found, and one that went is not", () => {
  const files = new ProjectFiles(root, { paths: Object.keys(TEXTS) });
  expect(files.having("GET_LOT")).toEqual([]);
  writeFileSync(join(root, "d.php"), "<?php get_lot();\n");
  files.update({ paths: Object.keys(TEXTS) }, new Set(["d.php"]));
  expect(files.having("GET_LOT")).toEqual(["d.php"]);
  expect(files.having("Is_Null")).toEqual(["a.php"]);
  expect(files.wordsOf("d.php", ["GET_LOT", "is_null"])).toEqual(["GET_LOT"]);
});
