import {
  cpp,
  csharp,
  Engine,
  holes,
  java,
  javascript,
  languageOfFile,
  php,
  powershell,
  python,
  ruby,
  rule,
  typescript,
} from "uvran/core";
import { made } from "../made.js";

const { a, b, t, n, args } = holes({
  a: "expression",
  b: "expression",
  t: "type",
  n: "name",
  args: "arguments",
});

test.each([
  [
    "a.js",
    { was: javascript`${a}.size() > 0`, becomes: javascript`${a}.some()` },
    "f(0 < x.size());",
    "f(x.some());",
  ],
  [
    "a.py",
    { was: python`len(${a}) >= 1`, becomes: python`some(${a})` },
    "y = 1 <= len(x)\n",
    "y = some(x)\n",
  ],
  [
    "A.java",
    { was: java`${a}.size() > 0`, becomes: java`!${a}.isEmpty()` },
    "class A { boolean b = 0 < x.size(); }",
    "class A { boolean b = !x.isEmpty(); }",
  ],
  [
    "a.php",
    { was: php`count(${a}) < 1`, becomes: php`none(${a})` },
    "<?php $y = 1 > count($x);",
    "<?php $y = none($x);",
  ],
] as const)("a comparison fits with its sides swapped: %s", async (path, spec, code, now) => {
  expect((await made(path, spec, code)).now).toBe(now);
});

test.each([
  ["a.rb", { was: ruby`${a}.size > 0`, becomes: ruby`${a}.any?` }, "y = 0 < x.size\n"],
  ["a.ps1", { was: powershell`${a} -gt 0`, becomes: powershell`(Any ${a})` }, "$y = 0 -lt $x\n"],
  ["a.js", { was: javascript`${a} > 0`, becomes: javascript`some(${a})` }, "f(0 > x);"],
] as const)(
  "but not where the left side decides, nor with the same operator: %s",
  async (path, spec, code) => {
    expect(await made(path, spec, code)).toMatchObject({ now: code, reasons: [] });
  },
);

test("swapped sides are evaluated in the other order, which may be seen", async () => {
  for (const was of [javascript`${a} === ${b}.size()`, javascript`${a} > ${b}.size()`]) {
    const operator = was.texts[1]!.includes("=") ? "===" : "<";
    const spec = { was, becomes: javascript`tell(${a}, ${b})` };
    const { now, reasons } = await made("a.js", spec, `x(g().size() ${operator} f());`);
    expect(now).toContain("g().size()");
    expect(reasons).toEqual(["`g().size()` is evaluated before `f()` here, and would be after it"]);
    expect((await made("a.js", spec, `x(g().size() ${operator} 3);`)).now).toBe("x(tell(3, g()));");
  }
});

test.each([
  ["a.ts", typescript`const ${n}: ${t} = new ${t}(${args});`, "const h: Hive = new Hive(1);"],
  [
    "A.java",
    java`${t} ${n} = new ${t}(${args});`,
    "class A { void m() { Map<A, B> q = new Map<A,  B>(); } }",
  ],
  ["a.cs", csharp`${t} ${n} = new ${t}(${args});`, "class A { void M() { Map<A, B> q = new Map<A, B>(); } }"],
  ["a.cpp", cpp`${t} ${n} = ${t}(${args});`, "void m() { std::vector<A> q = std::vector<A>(2); }"],
  ["a.py", python`${n}: ${t} = ${t}(${args})`, "h: Hive = Hive(1)\n"],
  [
    "a.php",
    php`function f(${t} ${n}) { return new ${t}(${args}); }`,
    "<?php function f(Hive $x) { return new Hive(1); }",
  ],
  ["a.ps1", powershell`[${t}]$h = [${t}]::new(${args})`, "[Hive]$h = [Hive]::new(1)\n"],
  [
    "b.cs",
    csharp`${a}.Select(${n} => ${n}.${holes({ m: "name" }).m})`,
    "class A { object B = jars.Select(j => j.Lid); }",
  ],
])("the same hole is the same type or name, wherever it stands: %s", async (path, was, code) => {
  const own = { id: `${languageOfFile(path)!.id}/own`, kind: "smell", title: "Try", why: "w" } as const;
  const found = await new Engine([rule({ ...own, was, advice: "It fits.", trials: [] })]).file(path, code);
  expect(found!.advice).toHaveLength(1);
});

test.each([
  ["Array<Jar | Lid>", "(Jar | Lid)[]"],
  ["Array<() => void>", "(() => void)[]"],
  ["Array<keyof A>", "(keyof A)[]"],
  ["Array<A extends B ? C : D>", "(A extends B ? C : D)[]"],
  ["Array<readonly A[]>", "(readonly A[])[]"],
  ["Array<new () => A>", "(new () => A)[]"],
  ["Array<typeof x>", "typeof x[]"],
  ["Array<[A, B]>", "[A, B][]"],
  ["Array<Array<A | B>>", "(A | B)[][]"],
])("a type gets the parentheses that it needs: %s", async (old, now) => {
  const spec = { was: typescript.type`Array<${t}>`, becomes: typescript.type`${t}[]` };
  expect((await made("a.ts", spec, `let a: ${old};`)).now).toBe(`let a: ${now};`);
  const maybe = { was: typescript.type`Maybe<${t}>`, becomes: typescript.type`${t} | null` };
  expect((await made("a.ts", maybe, "let a: Maybe<Jar>[]; let b: keyof Maybe<A & B>;")).now).toBe(
    "let a: (Jar | null)[]; let b: keyof (A & B | null);",
  );
});

test("the name of a command keeps the case that its rule gives it", async () => {
  const spec = { was: powershell`Get-Old -Class ${a}`, becomes: powershell`Get-New -ClassName ${a}` };
  expect((await made("a.ps1", spec, "get-old -class $x\n")).now).toBe("Get-New -ClassName $x\n");
  const only = { was: powershell`Get-Old -Class ${a}`, becomes: powershell`Get-Old -Kind ${a}` };
  expect((await made("a.ps1", only, "get-old -class $x\n")).now).toBe("get-old -Kind $x\n");
});
