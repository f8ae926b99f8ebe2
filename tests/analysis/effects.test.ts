import { exitsOf, isSideEffectFree, runsLater, type LanguageId } from "uvran/core";
import { treeOf } from "../languages.js";

test.each<[LanguageId, string, string]>([
  ["javascript", "a", "yes"],
  ["javascript", "this", "yes"],
  ["javascript", "a === 'x' ? b : !c", "yes"],
  ["javascript", "1 + 2 === 'x' + 1", "yes"],
  ["javascript", "a + 1", "unknown"],
  ["javascript", "`a ${1}`", "yes"],
  ["javascript", "`a ${b}`", "unknown"],
  ["javascript", "delete a.b", "no"],
  ["javascript", "a.b", "unknown"],
  ["javascript", "a?.b[0]", "unknown"],
  ["typescript", "a! as T", "yes"],
  ["javascript", "a()", "no"],
  ["javascript", "a.b(c)", "no"],
  ["javascript", "new A()", "no"],
  ["javascript", "(a = 1)", "no"],
  ["javascript", "a++", "no"],
  ["javascript", "await a", "no"],
  ["javascript", "() => a", "no"],
  ["javascript", "`${a()}`", "no"],
  ["python", "a", "yes"],
  ["python", "a is not None", "yes"],
  ["python", "not 1 < 2", "yes"],
  ["python", "a and b", "unknown"],
  ["python", "a < 1", "unknown"],
  ["python", "f'{a}'", "unknown"],
  ["python", "f'{1}'", "yes"],
  ["python", "a.b", "unknown"],
  ["python", "a[0]", "unknown"],
  ["python", "a()", "no"],
  ["python", "(a := 1)", "no"],
  ["python", "f'{a()}'", "no"],
  ["python", "[b for b in a]", "no"],
  ["python", "(yield a)", "no"],
])("%s: has `%s` no side effect? %s", (language, code, answer) => {
  const [statement] = treeOf(language, code).root.parts;
  const expression = statement!.is("expression_statement") ? statement!.parts[0]! : statement!;
  expect(isSideEffectFree(expression).is).toBe(answer);
});

test.each([
  ["return 1", "return 1"],
  ["for a in b:\n    break", undefined],
  ["if a:\n    raise E", "raise E"],
  ["x = yield a", "yield a"],
  ["def f():\n    return 1", undefined],
  ["g = lambda: (yield)", undefined],
  ["print(a)", undefined],
])("the way out of `%s` is `%s`", (code, exit) => {
  expect(exitsOf(treeOf("python", code).root.parts)[0]?.text).toBe(exit);
});

test.each<[LanguageId, string, string | undefined]>([
  ["javascript", "for (const a of b) { if (a) break; }", undefined],
  ["javascript", "o: for (const a of b) { for (;;) break o; }", "break o;"],
  ["javascript", "while (a) { b(() => { return 1; }); continue; }", undefined],
  ["java", "for (int i = 0; i < 3; i++) { if (a) return; }", "return;"],
  ["csharp", "switch (a) { case 1: break; }", "break;"],
  ["csharp", "while (a) { switch (b) { case 1: break; } }", undefined],
  ["cpp", "while (a) { goto end; }", "goto end;"],
  ["php", "<?php while ($a) { break 2; }", "break 2;"],
  ["php", "<?php while ($a) { break; }", undefined],
  ["ruby", "while a\n  next if b\nend", undefined],
  ["python", "for a in b:\n    if a: break\nelse:\n    raise c", "raise c"],
  ["powershell", "foreach ($a in $b) { if ($a) { break } }", undefined],
])("%s: the way out of `%s` is `%s`", (language, code, exit) => {
  expect(exitsOf(treeOf(language, code).root.parts)[0]?.text).toBe(exit);
});

test("functions and lazy generators run later, list comprehensions do not", () => {
  const later = (code: string): boolean => {
    const { root } = treeOf("python", code);
    return runsLater(root.mentions("x")[0]!, root);
  };
  expect(later("lambda: x")).toBe(true);
  expect(later("def f():\n    return x")).toBe(true);
  expect(later("g(x for _ in l)")).toBe(true);
  expect(later("[x for _ in l]")).toBe(false);
});
