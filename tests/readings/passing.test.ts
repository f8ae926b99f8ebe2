import {
  applyEdits,
  languageOf,
  loadGrammars,
  parse,
  partsOf,
  passingOf,
  shapeOf,
  type LanguageId,
} from "uvran/core";
import "uvran/node";

/** The body of the first loop in a piece of code, read. */
async function read(id: LanguageId, code: string) {
  const language = languageOf(id);
  await loadGrammars([language]);
  const tree = parse(code, language);
  const loop = [...tree.root.descendants()].find((node) =>
    ["loop", "each"].includes(shapeOf(node)?.is ?? ""),
  )!;
  const shape = shapeOf(loop) as { body: string };
  return passingOf(partsOf(loop, shape.body)[0]!);
}

const GUARDED: readonly (readonly [LanguageId, string, string])[] = [
  [
    "javascript",
    "for (const x of xs) {\n  if (!ok(x)) continue;\n  f(x);\n}\n",
    "for (const x of xs) {\n  f(x);\n}\n",
  ],
  ["typescript", "for (const x of xs) if (ok(x)) f(x);\n", "for (const x of xs) f(x);\n"],
  [
    "java",
    "class A { void f() {\n  for (Hive x : xs) {\n    if (ok(x)) {\n      f(x);\n    }\n  }\n} }\n",
    "class A { void f() {\n  for (Hive x : xs) {\n    f(x);\n  }\n} }\n",
  ],
  [
    "csharp",
    "foreach (var x in xs) { if (!(ok(x))) { continue; } F(x); }\n",
    "foreach (var x in xs) { F(x); }\n",
  ],
  [
    "cpp",
    "void f() { for (auto x : xs) { if (ok(x)) { f(x); } } }\n",
    "void f() { for (auto x : xs) { f(x); } }\n",
  ],
  ["python", "for x in xs:\n    if not ok(x):\n        continue\n    f(x)\n", "for x in xs:\n    f(x)\n"],
  [
    "python",
    "for x in xs:\n    if ok(x):\n        f(x)\n        g(x)\n",
    "for x in xs:\n    f(x)\n    g(x)\n",
  ],
  [
    "php",
    "<?php\nforeach ($xs as $x) {\n    if (ok($x)) {\n        f($x);\n    }\n}\n",
    "<?php\nforeach ($xs as $x) {\n    f($x);\n}\n",
  ],
  ["ruby", "xs.each do |x|\n  next unless ok(x)\n  f(x)\nend\n", "xs.each do |x|\n  f(x)\nend\n"],
  ["ruby", "for x in xs\n  if ok(x)\n    f(x)\n  end\nend\n", "for x in xs\n  f(x)\nend\n"],
  [
    "powershell",
    "foreach ($x in $xs) {\n    if (-not (ok $x)) { continue }\n    f $x\n}\n",
    "foreach ($x in $xs) {\n    f $x\n}\n",
  ],
];

test.each(GUARDED)("%s: what is run for some items only, and without the test", async (id, code, without) => {
  const passing = (await read(id, code))!;
  expect(passing.demands.map(({ isTrue }) => isTrue)).toEqual([true]);
  expect(passing.demands[0]!.test.text).toMatch(/^ok ?\(?\$?x/);
  expect(applyEdits(code, [passing.without(passing.demands[0]!)!])).toBe(without);
});

test.each([
  ["a && b", "b", "a"],
  ["!(a && !b)", undefined, undefined],
  ["a && !(c || b)", "!(c || b)", "a && !(b)"],
])("one of several demands goes: %s", async (test, withoutFirst, withoutSecond) => {
  const code = `for (const x of xs) { if (${test}) f(x); }`;
  const { demands, without } = (await read("javascript", code))!;
  if (withoutFirst === undefined) return expect(demands).toHaveLength(1);
  const after = (n: number): string => applyEdits(code, [without(demands[n]!)!]);
  expect(after(0)).toBe(code.replace(test, withoutFirst));
  expect(after(1)).toBe(code.replace(test, withoutSecond));
});

test.each([
  "for (const x of xs) { if (ok(x)) f(x); else g(x); }",
  "for (const x of xs) { if (ok(x)) f(x); g(x); }",
  "for (const x of xs) { g(x); if (!ok(x)) continue; f(x); }",
  "for (const x of xs) { if (!ok(x)) break; f(x); }",
  "a: for (const x of xs) { if (!ok(x)) continue a; f(x); }",
  "for (const x of xs) f(x);",
])("%s is nothing of the kind", async (code) => {
  expect(await read("javascript", code)).toBeUndefined();
});
