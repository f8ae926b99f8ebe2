import "uvran/node";
import { draft, languageOf, shownCode, usual, type Draft, type LanguageId, type Weighed } from "uvran/core";

/** Drafts from one file before and after. */
async function draftOf(language: LanguageId, before: string, after: string): Promise<Draft> {
  const known = languageOf(language);
  return draft({ pairs: [{ path: `hives${known.extensions[0]}`, language: known, before, after }] });
}

/** The rule that is usual for each move, as a person reads it: what was, what it becomes, what is given. */
async function rulesOf({ moves }: Draft): Promise<string[][]> {
  const all: string[][] = [];
  for (const move of moves) all.push(said(usual(await move.weigh())!));
  return all;
}

function said({ old, drafted: { was, becomes }, conditions }: Weighed): string[] {
  const plain = (code: string): string => code.replace(/\s+/g, " ").trim();
  const given = conditions.map(({ source }) => source).filter((source) => source !== "drafted()");
  return [old?.source ?? plain(shownCode(was)), old?.becomes ?? plain(shownCode(becomes)), ...given];
}

test.each<[LanguageId, string, string, string[]]>([
  [
    "javascript",
    "f(jars.indexOf(jar) !== -1);\ng(lids.indexOf(lid.size()) !== -1);\n",
    "f(jars.includes(jar));\ng(lids.includes(lid.size()));\n",
    ["jars.indexOf(jar) !== -1", "jars.includes(jar)"],
  ],
  [
    "tsx",
    "const a = <Jar size={String(n)} />;\nconst b = String(m.k);\n",
    "const a = <Jar size={`${n}`} />;\nconst b = `${m.k}`;\n",
    ["String(n)", "`${n}`"],
  ],
  [
    "python",
    "import os\nx = os.path.join(a, b)\n",
    "from pathlib import Path\nx = Path(a) / b\n",
    ["os.path.join(a, b)", "Path(a) / b"],
  ],
  [
    "java",
    "class A { void f(List<Jar> jars) { if (jars.size() == 0) stop(); while (this.lids.size() == 0) go(); } }\n",
    "class A { void f(List<Jar> jars) { if (jars.isEmpty()) stop(); while (this.lids.isEmpty()) go(); } }\n",
    ["jars.size() == 0", "jars.isEmpty()"],
  ],
  [
    "cpp",
    "void f() { jars.push_back(Jar(1, 2)); lids.push_back(Jar(n, m)); }\n",
    "void f() { jars.emplace_back(1, 2); lids.emplace_back(n, m); }\n",
    ["jars.push_back(Jar(value, value2))", "jars.emplace_back(value, value2)"],
  ],
  [
    "csharp",
    'class A { string F(int n) { return string.Format("{0}", n); } }\n',
    "class A { string F(int n) { return n.ToString(); } }\n",
    ['string.Format("{0}", n)', "n.ToString()"],
  ],
  [
    "php",
    "<?php\nf(array_push($jars, 1));\narray_push($lids, $lid);\n",
    "<?php\nf($jars[] = 1);\n$lids[] = $lid;\n",
    ["array_push(jars, value)", "jars[] = value", "sideEffectFree(value)"],
  ],
  [
    "ruby",
    "first = hives.select { |h| h.full? }.first\n",
    "first = hives.find { |h| h.full? }\n",
    ["hives.select { |h| body }.first", "hives.find { |h| body }"],
  ],
  [
    "powershell",
    "$a = New-Object System.Text.StringBuilder\n",
    "$a = [System.Text.StringBuilder]::new()\n",
    ["New-Object System.Text.StringBuilder", "[System.Text.StringBuilder]::new()"],
  ],
])("an edit of %s becomes a rule that does it again", async (language, before, after, [was, becomes]) => {
  const [rule] = await rulesOf(await draftOf(language, before, after));
  expect(rule!.slice(0, 2)).toEqual([was, becomes]);
});

test("edits in several spellings that mean the same are one move, found by what they say", async () => {
  const made = await draftOf(
    "typescript",
    'const a = x !== undefined && x !== null ? x : "none";\nlet b;\nif (y != null) {\n  b = y;\n} else {\n  b = 1;\n}\nfunction f(z: number | null) {\n  if (z == null) return 2;\n  return z;\n}\n',
    'const a = x ?? "none";\nlet b;\nb = y ?? 1;\nfunction f(z: number | null) {\n  return z ?? 2;\n}\n',
  );
  expect(made.moves.map(({ edits }) => edits.length)).toEqual([3]);
  expect(await rulesOf(made)).toEqual([
    ["choice(present(value), value, fallback)", "value ?? fallback", "sideEffectFree(value)"],
  ]);
});

test("a test for truth is not taken for one for a missing value", async () => {
  const made = await draftOf("javascript", "const a = x ? x : 1;\n", "const a = x || 1;\n");
  expect((await rulesOf(made))[0]![0]).toBe("choice(truthy(value), value, fallback)");
});

test("different moves in one file are told apart, the most frequent first", async () => {
  const made = await draftOf(
    "python",
    "if len(jars) == 0:\n    f()\nx = dict()\ny = dict()\n",
    "if not jars:\n    f()\nx = {}\ny = {}\n",
  );
  expect((await rulesOf(made)).map(([was, becomes]) => `${was} → ${becomes}`)).toEqual([
    "dict() → {}",
    "len(jars) == 0 → not jars",
  ]);
});

test("places that fit and were not edited give a condition that leaves them out", async () => {
  const made = await draftOf(
    "python",
    "for i in range(len(hives)):\n    print(i, hives[i])\n\nfor k in range(len(jars)):\n    jars[k] = 0\n",
    "for i, hive in enumerate(hives):\n    print(i, hive)\n\nfor k in range(len(jars)):\n    jars[k] = 0\n",
  );
  const [move] = made.moves;
  const chosen = usual(await move!.weigh())!;
  expect(said(chosen)).toEqual([
    "for i in range(len(hives)): body",
    "for i, hive in enumerate(hives): body",
    "neverWritten(i, { in: body })",
    "unchangedDuring(hives, { during: body })",
    'builtin("range")',
    'builtin("len")',
  ]);
  expect(chosen.others.map(({ line, trust, reason }) => [line, trust, reason])).toEqual([
    [4, undefined, "`jars` is changed here"],
  ]);
  const source = await move!.source(chosen);
  expect(source).toContain('const hive = fresh("hive", { singularOf: hives });');
  expect(source).toContain("each(python`${hives}[${i}]`, { in: body }).becomes(hive)");
  expect(source).toContain(
    'holds("for k in range(len(jars)):\\n    jars[k] = 0\\n", "`jars` is changed here")',
  );
});

test("a declaration and the uses that changed with it are one edit, never half of one", async () => {
  const made = await draftOf(
    "cpp",
    "void f(int n) {\n  int* a = new int[n];\n  fill(a[0]);\n  delete[] a;\n}\n",
    "void f(int n) {\n  std::vector<int> a(n);\n  fill(a[0]);\n}\n",
  );
  const rules = await rulesOf(made);
  expect(rules).toHaveLength(1);
  expect(rules[0]!.slice(0, 2)).toEqual([
    "int* a = new int[n]; body delete[] a;",
    "std::vector<int> a(n); body",
  ]);
  expect(rules[0]).toContain("not(leavesEarly(body))");
});

test("what is evaluated less often, or in another order, must have no side effect", async () => {
  const less = await draftOf(
    "javascript",
    "let a = b + b;\nlet c = d.e + d.e;\n",
    "let a = 2 * b;\nlet c = 2 * d.e;\n",
  );
  expect((await rulesOf(less))[0]).toContain("sideEffectFree(b)");
  const order = await draftOf("javascript", "swap(a.b, c.d);\n", "swapped(c.d, a.b);\n");
  expect((await rulesOf(order))[0]!.slice(2)).toEqual(["sideEffectFree(d)"]);
});

test("a condition that an edit speaks against is not asked, and the rule says so", async () => {
  const made = await draftOf(
    "javascript",
    "f(next(a) + next(a));\nlet b = c + c;\n",
    "f(2 * next(a));\nlet b = 2 * c;\n",
  );
  const [move] = made.moves;
  const chosen = usual(await move!.weigh())!;
  expect(chosen.waived).toEqual([{ source: "sideEffectFree(left)", path: "hives.js", line: 1 }]);
  expect(await move!.source(chosen)).toContain(
    "// Not asked: sideEffectFree(left). It does not hold in hives.js:1",
  );
});

test("an edit that speaks against a condition is named by its place in the whole file", async () => {
  const ahead = Array.from({ length: 150 }, (_, i) => `const jar${i} = ${i} + 200;\n`).join("");
  const made = await draftOf("javascript", `${ahead}f(next(a) + next(a));\n`, `${ahead}f(2 * next(a));\n`);
  const chosen = usual(await made.moves[0]!.weigh())!;
  expect(chosen.waived.map(({ path, line }) => `${path}:${line}`)).toEqual(["hives.js:151"]);
});

test("half of an edit is no move: where the other half stands too far away, there is no rule", async () => {
  const between = Array.from({ length: 30 }, (_, i) => `  fill(a[${i}]);\n`).join("");
  const made = await draftOf(
    "cpp",
    `void f(int n) {\n  int* a = new int[n];\n${between}  delete[] a;\n}\n`,
    `void f(int n) {\n  std::vector<int> a(n);\n${between}}\n`,
  );
  expect(made.moves).toEqual([]);
  expect(made.unexplained.map(({ before }) => before)).toContain("int* a = new int[n];");
});

test("the text of a heredoc is code like any other", async () => {
  const made = await draftOf("ruby", "f(<<~A)\n  one\nA\n", "f(<<~A)\n  two\nA\n");
  expect(made.moves.length + made.unexplained.length).toBe(1);
});

test("a variable that has the name of an import is a variable", async () => {
  const made = await draftOf(
    "javascript",
    'import { take } from "./lots.js";\nfunction f(take) { return old(take); }\n',
    'import { take } from "./lots.js";\nfunction f(take) { return now(take); }\n',
  );
  expect((await rulesOf(made))[0]!.slice(0, 2)).toEqual(["old(take)", "now(take)"]);
  expect(made.moves[0]!.candidates[0]!.drafted.needs).toEqual([]);
});

test("nothing of a drafted rule is certain before its author has vouched for it", async () => {
  const made = await draftOf("python", "x = dict()\n", "x = {}\n");
  const [one] = await made.moves[0]!.weigh();
  const source = await made.moves[0]!.source(one!);
  expect(source).toContain('given: [builtin("dict"), drafted()]');
  expect(source).toContain('rewrites("x = dict()\\n", "x = {}\\n", "likely")');
});

test("new code that the old code does not account for is said, not guessed", async () => {
  const made = await draftOf("javascript", "weigh(hive);\n", 'audit("north", 12, today());\n');
  expect(
    made.moves.flatMap(({ candidates }) => candidates.filter(({ drafted }) => drafted.opened.length > 0)),
  ).toEqual([]);
  const moved = await draftOf("python", "a = 1\nf(a)\nb = 2\n", "f(a)\nb = 2\na = 1\n");
  expect(moved.moves.flatMap(({ candidates }) => candidates).every(({ edited }) => edited.length === 1)).toBe(
    true,
  );
});

test("code in texts changes with the code around it", async () => {
  const made = await draftOf(
    "python",
    'for i in range(len(hives)):\n    print(f"{i}: {hives[i].name}")\n',
    'for i, hive in enumerate(hives):\n    print(f"{i}: {hive.name}")\n',
  );
  expect((await rulesOf(made))[0]!.slice(0, 2)).toEqual([
    "for i in range(len(hives)): body",
    "for i, hive in enumerate(hives): body",
  ]);
});

test("names of the code do not get in the way of those of the rule file", async () => {
  const made = await draftOf("javascript", "f(rule && rule.each, holes);\n", "g(rule?.each, holes);\n");
  const [tight] = await made.moves[0]!.weigh();
  const source = await made.moves[0]!.source(tight!);
  expect(source).toContain("const { ruleCode, holesCode } = holes({");
  expect(source).toContain("was: javascript`f(${ruleCode} && ${ruleCode}.each, ${holesCode})`,");
});

test("comments, layout and quotes are no edit", async () => {
  const made = await draftOf("javascript", "f('a',  b); // old\n", 'f("a", b);\n');
  expect(made).toEqual({ moves: [], unexplained: [] });
});
