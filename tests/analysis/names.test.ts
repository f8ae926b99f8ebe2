import { declarationOf, isBuiltin, isLeftAlone, readsOf, useOf, writesOf, type LanguageId } from "uvran/core";
import { treeOf } from "../languages.js";

/** Each mention of `x` that can be a variable, in order: r for read, w for written or declared, o for neither. */
function rolesOfX(language: LanguageId, code: string): string {
  const roles = treeOf(language, code)
    .root.mentions("x")
    .map((mention) => {
      const use = useOf(mention);
      if (typeof use === "string" || use.memberOf !== undefined) return "o";
      return use.does === "read" && !use.declares ? "r" : "w";
    });
  return roles.join("");
}

test.each<[LanguageId, string, string]>([
  ["javascript", "x; x(); x.y; a[x]; `${x}`; ({ x }); [x]", "rrrrrrr"],
  ["javascript", "const x = x + 1; let { x, a: x, ...x } = o; var [x = x] = l", "wrwwwwr"],
  ["javascript", "x = 1; x += 1; x++; [x, a.b] = l; ({ x } = o); ({ a: x } = o)", "wwwwww"],
  ["javascript", "for (const x of x) {} for (x in o) {} for (let [x] of l) {}", "wrww"],
  ["javascript", "function x(x, { x }, [x] = x, ...x) {} (x) => x; x => x; async x => 1", "wwwwrwwrwrw"],
  ["javascript", "try {} catch (x) { x } class x extends x {}", "wrwr"],
  ["javascript", "import x, { x, a as x, x as b } from 'm'; import * as x from 'm'", "wwwow"],
  ["javascript", "export { x, x as a, a as x }", "rro"],
  ["typescript", "function f(x: string, x?: number, this: x) {}", "ww"],
  ["typescript", "enum x {} namespace x {} let x!: T; x as T; x!", "wwwrr"],
  ["python", "x; x(x); x.x; a[x]; f'{x}'; f(x=x); lambda: x", "rrrrorrorr"],
  ["python", "x = 1; x += 1; x: int = 1; x, a = l; [x, (x, *x)] = l; (x) = 1", "wwwwwwww"],
  ["python", "a.x = x; a[x] = 1; del x; del a[x]; del a.x", "orrwro"],
  ["python", "for x in x: pass\nfor a, x in l: pass\n[x for x in x if x]", "wrwrwrr"],
  ["python", "with a as x: pass\nwith a as (x, y): pass\ntry: pass\nexcept E as x: pass", "www"],
  ["python", "def x(x, x=x, *x, x: x = x, **x): global x; nonlocal x", "wwwrwwrrwww"],
  ["python", "lambda x, y=x: x", "wrr"],
  ["python", "import x, x.y, a as x, x as b\nfrom x import x, a as x, x as b", "wwwoowwo"],
  ["python", "if (x := x): pass\nclass x(x): pass\nprint(f'{x!r:>{x}}')", "wrwrrr"],
])("%s: what each x does in `%s`", (language, code, roles) => {
  expect(rolesOfX(language, code)).toBe(roles);
});

test("reads and writes are told apart below a node", () => {
  const [loop] = treeOf("python", "for i in a:\n    i += b[i]\n").root.parts;
  expect(writesOf("i", loop!).map((node) => node.line)).toEqual([1, 2]);
  expect(readsOf("i", loop!).map((node) => node.line)).toEqual([2]);
});

/** The line on which the last mention of `x` is declared, if that is certain. */
function declaredOn(code: string, language: LanguageId = "typescript"): number | undefined {
  return declarationOf(treeOf(language, code).root.mentions("x").at(-1)!)?.line;
}

test.each([
  ["let x = 1;\nfunction f() { return x; }", 1],
  ["let x = 1;\nfunction f(x: string) {\n return x; }", 2],
  ["let x = 1;\n{ let x = 2;\n x; }", 2],
  ["let x = 1;\n{ let x = 2; }\nx;", 1],
  ["function f() {\n if (a) { var x = 1; }\n return x; }", 2],
  ["const f = (x: string) =>\n x;", 1],
  ["let x: string;\nx = 1;\nx;", 1],
  ["for (const x of l) {}\nx;", undefined],
  ["try {} catch (x) {\n x; }", 1],
  ["import { a as x } from 'm';\nx;", 1],
  ["function f(x: string) { var x = 1;\n return x; }", undefined],
  ["function f(x: string[]) { for (const x of l) {\n x; } }", 1],
  ["function f(x: string[]) {\n for (const x of l) {\n x; } }", 2],
  ["function f(x: string[]) {\n for (const [x] of l)\n x; }", 2],
  ["function f() {\n for (var x of l) {}\n x; }", 2],
  ["interface A { m(x: string[]): void }\nx;", undefined],
  ["declare function f(x: string[]): void;\nx;", undefined],
  ["type F = (x: string[]) => void;\nx;", undefined],
  ["enum x {}\nx;", 1],
  ["x;", undefined],
])("the declaration of x in `%s` stands on line %s", (code, line) => {
  expect(declaredOn(code)).toBe(line);
});

test.each([
  ["open(p)", "yes"],
  ["def open(p): pass\nopen(p)", "no"],
  ["from codecs import open\nopen(p)", "no"],
  ["import codecs as open\nopen(p)", "no"],
  ["def f(open): pass\nopen(p)", "no"],
  ["from a import *\nopen(p)", "unknown"],
  ["builtins.open = fake\nopen(p)", "unknown"],
  ["patch('builtins.open')\nopen(p)", "unknown"],
  ["patch(__name__ + '.open')\nopen(p)", "unknown"],
  ["print('an open door')\nopen(p)", "yes"],
  ["a.open = 1; self.reopen()\nopen(p)", "unknown"],
])("is open the built-in one in `%s`? %s", (code, answer) => {
  const tree = treeOf("python", code);
  expect(isBuiltin("open", tree.root).is).toBe(answer);
});

test.each([
  ["def f(i):\n    print(i)\n", "yes"],
  ["def f(i):\n    def g():\n        i = 1\n", "no"],
  ["def f(i):\n    for a, i in l: pass\n", "no"],
  ["def f(i):\n    exec(code)\n", "unknown"],
  ["i = 1\ndef g():\n    global i\n    i = 2\ndef f():\n    print(i)\n    g()\n", "unknown"],
  ["def g():\n    global i\n    i = 2\ndef f(i):\n    g()\n", "yes"],
])("is i left alone by the last function of `%s`? %s", (code, answer) => {
  const last = treeOf("python", code).root.parts.at(-1)!;
  const name = last.mentions("i")[0]!;
  const result = isLeftAlone(name, [last.child("body")!]);
  expect(result.is).toBe(answer);
  expect(result.evidence.says).toContain("`i`");
});
