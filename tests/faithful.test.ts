import { readdirSync, readFileSync } from "node:fs";
import "uvran/node";
import { countErrors, Engine, languageOf, languageOfFile, textAfter, type LanguageId } from "uvran/core";
import { batteryOf } from "../bench/battery.js";
import { HOLE_CASES } from "./pattern/hole-cases.js";

/** Code of every language: the golden files, before and after. `bench/faithful.ts` takes any folder. */
const files = readdirSync("tests/golden/languages").map((name) => {
  const path = `tests/golden/languages/${name}`;
  return [path, readFileSync(path, "utf8")] as const;
});

test.each(files)("there and back leaves every byte of %s as it was", async (path, text) => {
  const language = languageOfFile(path)!;
  const battery = batteryOf(language.id);
  expect(battery.length).toBe(5);
  for (const { name, there, back } of battery) {
    const engine = new Engine([there]);
    const { changes } = (await engine.file(path, text))!;
    if (!back) expect(changes).toEqual([]);
    const middle = await textAfter(path, text, changes);
    expect(countErrors(middle, language)).toBe(0);
    const returned = back ? (await new Engine([back]).file(path, middle))!.changes : [];
    expect(`${name}: ${await textAfter(path, middle, returned)}`).toBe(`${name}: ${text}`);
  }
});

/** A line of code with two values compared, a call, a loop and a local, laid out as nobody would. */
const ODD: Readonly<Partial<Record<LanguageId, string>>> = {
  javascript: "function f(a){const q=g( a /*x*/ );while(q=== 1){ h(q,// y\n  [1]);\n\n}}\r\n",
  typescript: "function f(a:A):B{const q=g( a /*x*/ );while(q=== 1){ h(q,// y\n  [1]);\n\n}}",
  python: "def f(a):\n  q=g( a )\n  while q== 1: # z\n     h(q,# y\n [1])\n\n     # end\n",
  java: "class A{int f(A a){int q=a.g( a /*x*/ );while(q== 1){ a.h(q,// y\n  1);\n\n}}}",
  cpp: "int f(A a){int q=g( a /*x*/ );while(q== 1){ h(q,// y\n  1);\n\n}}\n",
  csharp: "class A{int F(A a){int q=g( a /*x*/ );while(q== 1){ H(q,// y\n  1);\n\n}}}\n",
  php: "<?php class A{function f($a){$q=g( $a /*x*/ );while($q=== 1){ h($q,// y\n  1);\n\n}}}\n",
  ruby: "def f(a)\n  q=b.g( a )\n  if q== 1 then b.h(q,# y\n   1) end\n\nend\n",
  powershell: "function f {\n  $q=$b.G( $a )\n  if($q -eq   1){ $b.H($q) # y\n\n }\n}\n",
};

test.each(Object.entries(ODD))("there and back leaves an odd layout in %s as it was", async (id, text) => {
  const language = languageOf(id as LanguageId);
  const path = `odd${language.extensions[0]!}`;
  let changed = 0;
  for (const { name, there, back } of batteryOf(language.id)) {
    const { changes, unparsed } = (await new Engine([there]).file(path, text))!;
    expect(unparsed).toBeUndefined();
    const middle = await textAfter(path, text, changes);
    if (!back) expect(middle).toBe(text);
    else if (changes.length > 0) changed++;
    const returned = back ? (await new Engine([back]).file(path, middle))!.changes : [];
    expect(`${name}: ${await textAfter(path, middle, returned)}`).toBe(`${name}: ${text}`);
  }
  expect(changed).toBe(4);
});

test("the languages with a battery are those with a table of holes", () => {
  const ids = Object.keys(HOLE_CASES) as LanguageId[];
  expect(ids.filter((id) => batteryOf(id).length === 0)).toEqual([]);
});
