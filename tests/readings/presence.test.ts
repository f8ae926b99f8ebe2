import { presenceOf, type LanguageId } from "uvran/core";
import { treeOf } from "../languages.js";

/** What the test of the first branch asks: `x is there: missing, by operator`. */
function asked(language: LanguageId, code: string): string {
  const tree = treeOf(language, code);
  const test = [...tree.root.descendants()].find(
    ({ field, parent }) =>
      field === "condition" || (parent?.kind === "conditional_expression" && field === undefined),
  )!;
  const { subject, key, isThere, asks, by, times } = presenceOf(test);
  const of = key ? `${subject.text}, ${key.text}` : subject.text;
  return `${of} ${isThere ? "there" : "gone"}: ${asks}, ${by}, ${times}`;
}

test.each<[LanguageId, string, string]>([
  ["javascript", "if (x == null) f();", "x gone: missing, operator, 1"],
  ["javascript", "if (null != x) f();", "x there: missing, operator, 1"],
  ["javascript", "if (!(x === void 0)) f();", "x there: undefined, identity, 1"],
  ["javascript", "if (x !== null && undefined !== x) f();", "x there: missing, identity, 2"],
  ["javascript", "if (!(x === null || x === undefined)) f();", "x there: missing, identity, 2"],
  ["javascript", "if (typeof a.b !== 'undefined') f();", "a.b there: undefined, identity, 1"],
  ["javascript", "if (!!x) f();", "x there: truth, truth, 1"],
  ["javascript", "if (x === 'undefined') f();", "x === 'undefined' there: truth, truth, 1"],
  ["javascript", "if (x != null && y != null) f();", "x != null && y != null there: truth, truth, 1"],
  ["javascript", "if ('k' in o) f();", "o, 'k' there: key, question, 1"],
  ["typescript", "if ((x) === (null)) f();", "x gone: null, identity, 1"],
  ["python", "if x is not None: f()", "x there: missing, identity, 1"],
  ["python", "if not x is None: f()", "x there: missing, identity, 1"],
  ["python", "if not hasattr(o, 'x'): f()", "o, 'x' gone: member, question, 1"],
  ["python", "if None == x: f()", "x gone: missing, operator, 1"],
  ["python", "if k not in d: f()", "d, k gone: key, question, 1"],
  ["java", "class A { void f() { if (Objects.nonNull(x)) g(); } }", "x there: missing, question, 1"],
  ["java", "class A { void f() { if (!m.containsKey(k)) g(); } }", "m, k gone: key, question, 1"],
  ["csharp", "class A { void F() { if (x is not null) G(); } }", "x there: missing, identity, 1"],
  ["csharp", "class A { void F() { if (!(x is { })) G(); } }", "x gone: missing, identity, 1"],
  ["csharp", "class A { void F() { if (x.HasValue) G(); } }", "x there: value, question, 1"],
  ["csharp", "class A { void F() { if (ReferenceEquals(x, null)) G(); } }", "x gone: missing, question, 1"],
  ["php", "<?php if (!isset($a['k'])) f();", "$a['k'] gone: set, question, 1"],
  ["php", "<?php if (\\is_null($x)) f();", "$x gone: missing, question, 1"],
  // `==` takes 0 and '' for null as well.
  ["php", "<?php if ($x == null) f();", "$x gone: loose, operator, 1"],
  ["php", "<?php if ($x == 3) f();", "$x == 3 there: truth, truth, 1"],
  ["php", "<?php if (isset($a, $b)) f();", "isset($a, $b) there: truth, truth, 1"],
  ["ruby", "f if x.nil?", "x gone: missing, question, 1"],
  ["ruby", "f if !x.a.nil?", "x.a there: missing, question, 1"],
  ["ruby", "f if x&.nil?", "x&.nil? there: truth, truth, 1"],
  ["powershell", "if ($null -ne $x) { f }", "$x there: missing, identity, 1"],
  // With a list on the left the comparison filters.
  ["powershell", "if ($x -eq $null) { f }", "$x gone: missing, operator, 1"],
  ["powershell", "if (-not $h.ContainsKey('k')) { f }", "$h, 'k' gone: key, question, 1"],
])("%s: %s", (language, code, expected) => {
  expect(asked(language, code)).toBe(expected);
});
