import { readFileSync } from "node:fs";
import iconv from "iconv-lite";
import { decode, encode, encodingOf, inspect } from "uvran/node";
import { SHIPPED } from "uvran/packs";
import { Workspace } from "uvran/workspace";
import { Sandbox } from "../cli/run.js";

const rules = SHIPPED.flatMap((pack) => pack.rules).filter(({ taste }) => !taste);

/** What stands before and behind the code that is rewritten, with characters of its own. */
test.each<[name: string, encoding: string, file: string, before: string, old: string, now: string]>([
  ["Latin-1", "latin1", "a.js", "// café\r\n", "x = y != null ? y : 1;\n", "x = y ?? 1;\n"],
  ["Latin-1", "latin1", "a.php", "<?php\n// Größe\n", "$a = $b !== null ? $b : 1;\n", "$a = $b ?? 1;\n"],
  [
    "no encoding at all",
    "latin1",
    "a.cpp",
    "// \x80\xff\xe2\x28\n",
    "int *p = NULL;\n",
    "int *p = nullptr;\n",
  ],
  ["UTF-16 with a mark", "utf-16le", "a.js", "\uFEFF// 蜂 🐝\n", "x = y != null ? y : 1;\n", "x = y ?? 1;\n"],
  [
    "UTF-16 the other way",
    "utf-16be",
    "a.js",
    "\uFEFF// 蜂\r\n",
    "x = y != null ? y : 1;\r\n",
    "x = y ?? 1;\r\n",
  ],
  ["UTF-8 with a mark", "utf-8", "a.js", "\uFEFF// 蜂\n", "x = y != null ? y : 1;\n", "x = y ?? 1;\n"],
  [
    "a coding line",
    "cp1252",
    "a.py",
    "# -*- coding: cp1252 -*-\n# “é”\n",
    "x = y if y is not None else 1\n",
    "",
  ],
  [
    "a coding line of pairs",
    "shift_jis",
    "a.py",
    "# coding: shift_jis\ns = '表'\n",
    "def f(p):\n    h = open(p)\n    try:\n        return h.read()\n    finally:\n        h.close()\n",
    "def f(p):\n    with open(p) as h:\n        return h.read()\n",
  ],
  ["EUC", "euc-jp", "a.rb", "#!/usr/bin/ruby\n# encoding: euc-jp\n# 蜂\n", "x = 1 if x.nil?\n", ""],
])("%s (%s, %s) is read, and written back in its own", async (_name, encoding, file, before, old, now) => {
  const bytes = iconv.encode(before + old, encoding, { addBOM: false });
  expect(inspect(bytes)).toBeUndefined();
  expect(decode(bytes)).toBe(before + old);
  if (now === "") return;
  const sandbox = new Sandbox({ [file]: bytes });
  const workspace = new Workspace({ root: sandbox.root, rules });
  await workspace.propose();
  const plan = workspace.plan();
  const changes = workspace.review(plan).select({ trust: "possible" }).chosen;
  await workspace.apply(plan, changes);
  expect(changes).toHaveLength(1);
  const written = readFileSync(sandbox.path(file));
  expect(written.equals(iconv.encode(before + now, encoding, { addBOM: false }))).toBe(true);
  await workspace.undo();
  expect(readFileSync(sandbox.path(file)).equals(bytes)).toBe(true);
});

test("proof sees the new code in the encoding of the file", async () => {
  const bytes = Buffer.from("// café\nx = y != null ? y : 1;\n", "latin1");
  const sandbox = new Sandbox({ "a.js": bytes });
  const workspace = new Workspace({ root: sandbox.root, rules });
  await workspace.propose();
  const { after } = await workspace.sides({ trust: "possible" });
  expect(Buffer.from(after.get("a.js") as Uint8Array).toString("latin1")).toBe("// café\nx = y ?? 1;\n");
});

test.each<[why: string, bytes: Buffer]>([
  ["a coding line that nobody knows", Buffer.from("# coding: hive-8\ns = '\xe9'\n", "latin1")],
  ["a coding line that is not true", Buffer.from("# coding: shift_jis\ns = '\xff\xfe\xfd'\n", "latin1")],
  ["half a character of UTF-16", Buffer.from([0xff, 0xfe, 0x61, 0x00, 0x62])],
  ["pairs that nothing speaks of", iconv.encode('char *s = "ソ表"; // ハチ\n', "shift_jis")],
])("%s: the file is not read", (_why, bytes) => {
  expect(encodingOf(bytes)).toBeUndefined();
  const verdict = inspect(bytes)!;
  expect("bad" in verdict ? verdict.bad : verdict.skip).toMatch(/save it as UTF-8|^binary$/);
});

test("what an encoding has no bytes for is not written", () => {
  expect(encode("蜂", "latin1")).toBeUndefined();
  expect(encode("é", "latin1")).toEqual(Buffer.from([0xe9]));
});
