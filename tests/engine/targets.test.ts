import {
  cpp,
  csharp,
  holes,
  java,
  javascript,
  php,
  powershell,
  python,
  ruby,
  type RuleSpec,
} from "uvran/core";
import { made } from "../made.js";

const { a } = holes({ a: "expression" });

/** What is written to in each language, and once what is only read. */
const TARGETS: readonly (readonly [path: string, Pick<RuleSpec, "was" | "becomes">, string, string])[] = [
  [
    "a.js",
    { was: javascript`${a}[0]`, becomes: javascript`${a}.at(0)` },
    "x[0] = 1; x[0]++; x[0] += 1; delete x[0]; [x[0]] = y; for (x[0] of y) {} ({ a: x[0] } = z); f(x[0]);",
    "f(x.at(0));",
  ],
  [
    "a.py",
    { was: python`${a}[0]`, becomes: python`first(${a})` },
    "x[0] = 1\nx[0] += 1\ndel x[0]\nfor x[0] in y: pass\nwith o as x[0]: pass\n(x[0], z) = y\nf(x[0])\n",
    "f(first(x))\n",
  ],
  [
    "A.java",
    { was: java`${a}[0]`, becomes: java`first(${a})` },
    "class A { void m() { x[0] = 1; x[0]++; x[0] += 1; f(x[0]); } }",
    "f(first(x)); } }",
  ],
  [
    "a.cpp",
    { was: cpp`${a}[0]`, becomes: cpp`first(${a})` },
    "void m() { x[0] = 1; x[0]++; x[0] += 1; f(&x[0]); f(x[0]); }",
    "f(first(x)); }",
  ],
  [
    "a.cs",
    { was: csharp`${a}[0]`, becomes: csharp`${a}.First()` },
    "class A { void M() { x[0] = 1; x[0]++; x[0] += 1; F(ref x[0]); F(x[0]); } }",
    "F(x.First()); } }",
  ],
  [
    "a.php",
    { was: php`${a}[0]`, becomes: php`first(${a})` },
    "<?php $x[0] = 1; $x[0]++; $x[0] .= 1; unset($x[0]); [$x[0]] = $y; foreach ($y as $x[0]) {} f($x[0]);",
    "f(first($x));",
  ],
  [
    "a.rb",
    { was: ruby`${a}[0]`, becomes: ruby`${a}.first` },
    "x[0] = 1\nx[0] += 1\nx[0], z = y\nf(x[0])\n",
    "f(x.first)\n",
  ],
  [
    "a.ps1",
    { was: powershell`${a}[0]`, becomes: powershell`(First ${a})` },
    "$x[0] = 1\n$x[0] += 1\n$x[0]++\n$y = $x[0]\n",
    "$y = (First $x)\n",
  ],
];

test.each(TARGETS)("what is written to is no value: %s", async (path, spec, code, end) => {
  const { now, changes, reasons } = await made(path, spec, code);
  expect(changes).toHaveLength(1);
  expect(now.endsWith(end)).toBe(true);
  expect(now.slice(0, -end.length)).toBe(code.slice(0, now.length - end.length));
  expect(reasons.length).toBeGreaterThan(2);
  for (const reason of reasons)
    expect(reason).toMatch(/^`\$?x\[0\]` is written to here, which cannot be done with/);
});

test("a place that becomes another place is one still", async () => {
  const spec = { was: javascript`${a}.queen`, becomes: javascript`${a}.mother` };
  expect((await made("a.js", spec, "hive.queen = 1; f(hive.queen);")).now).toBe(
    "hive.mother = 1; f(hive.mother);",
  );
});
