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
  typescript,
  type HoleKind,
  type LanguageId,
  type Snippet,
} from "uvran/core";

/** A pattern with the hole `h`, code that it fits once, and what the hole stands for there. */
export type HoleCase = readonly [pattern: Snippet, code: string, captured: string];

const of = (kind: HoleKind) => holes({ h: kind }).h;
const name = of("name");
const expression = of("expression");
const type = of("type");
const operator = of("operator");
const text = of("text");
const statement = of("statement");
const statements = of("statements");
const args = of("arguments");
const parameters = of("parameters");
const members = of("members");
const modifiers = of("modifiers");

/** For each language and kind of hole at least one case; a missing kind has no place in the language. */
export const HOLE_CASES: Readonly<
  Partial<Record<LanguageId, Readonly<Partial<Record<HoleKind, readonly HoleCase[]>>>>>
> = {
  javascript: {
    name: [
      [javascript`hive.${name}`, "f(hive.queen, 1);", "queen"],
      [javascript`class ${name} {}`, "class Hive {}", "Hive"],
    ],
    expression: [[javascript`weigh(${expression}, 1)`, "let w = weigh(hive.box[0], 1);", "hive.box[0]"]],
    operator: [
      [javascript`a ${operator} b`, "x(a * b);", "*"],
      [javascript`a ${operator} b;`, "a ??= b;", "??="],
    ],
    text: [
      [javascript`tag("${text}")`, "tag('wax')", "wax"],
      [javascript`tag("bee-${text}.png")`, 'tag("bee-queen.png")', "queen"],
      [javascript`tag("${text}")`, 'tag("")', ""],
    ],
    statement: [[javascript`if (a) ${statement}`, "if (a) b();", "b();"]],
    statements: [
      [javascript`while (a) { ${statements} }`, "while (a) { b(); c(); }", "b(); c();"],
      [javascript`while (a) { ${statements} }`, "while (a) {}", ""],
    ],
    arguments: [
      [javascript`f(${args})`, "f(a, ...b)", "a, ...b"],
      [javascript`f(${args}, 1)`, "f(a, b, 1)", "a, b"],
      [javascript`f(${args}, 1)`, "f(1)", ""],
    ],
    parameters: [
      [javascript`function f(a, ${parameters}) {}`, "function f(a, b = 1, ...c) {}", "b = 1, ...c"],
    ],
    members: [[javascript`class A { ${members} }`, "class A { x = 1; m() {} }", "x = 1; m() {}"]],
    modifiers: [
      [javascript`${modifiers} class A {}`, "@a @b() class A {}", "@a @b()"],
      [javascript.member`${modifiers} m() {}`, "class A { @a static m() {} }", "@a static"],
    ],
  },
  typescript: {
    name: [[typescript`interface ${name} {}`, "interface Hive {}", "Hive"]],
    expression: [[typescript`${expression} as Hive`, "x(a.b as Hive);", "a.b"]],
    type: [
      [typescript`let a: ${type} = b;`, "let a: Map<string, Hive[]> = b;", "Map<string, Hive[]>"],
      [typescript.type`Array<${type}>`, "let a: Array<A | B>;", "A | B"],
    ],
    operator: [[typescript`a ${operator} b`, "x(a !== b);", "!=="]],
    text: [[typescript`tag("${text}")`, 'tag("wax")', "wax"]],
    statement: [[typescript`if (a) ${statement}`, "if (a) { b(); }", "{ b(); }"]],
    statements: [[typescript`try { ${statements} } finally {}`, "try { b(); c(); } finally {}", "b(); c();"]],
    arguments: [[typescript`new A(${args})`, "new A(b, c)", "b, c"]],
    parameters: [
      [typescript`function f(${parameters}): void {}`, "function f(a: A, b?: B): void {}", "a: A, b?: B"],
    ],
    members: [
      [typescript`interface A { ${members} }`, "interface A { a: B; c(): void }", "a: B; c(): void"],
      [typescript`class A { ${members} }`, "class A { private a?: B; }", "private a?: B;"],
    ],
    modifiers: [
      [
        typescript.member`${modifiers} a: B`,
        "class A { private static readonly a: B }",
        "private static readonly",
      ],
    ],
  },
  python: {
    name: [[python`import ${name}`, "import hives", "hives"]],
    expression: [[python`len(${expression})`, "x = len(a.b[1:])", "a.b[1:]"]],
    type: [[python`a: ${type} = b`, "a: list[Hive] | None = b", "list[Hive] | None"]],
    operator: [
      [python`a ${operator} b`, "x = a or b", "or"],
      [python`a ${operator} b`, "x = a <= b", "<="],
      [python`a ${operator} b`, "a //= b", "//="],
    ],
    text: [[python`tag("hive-${text}")`, "tag('hive-7')", "7"]],
    statement: [[python`while a: ${statement}`, "while a: b()", "b()"]],
    statements: [
      [
        python`while a:
    ${statements}`,
        "while a:\n    b()\n    c()\n",
        "b()\n    c()",
      ],
    ],
    arguments: [[python`f(${args})`, "f(a, *b, c=1)", "a, *b, c=1"]],
    parameters: [[python`def f(self, ${parameters}): pass`, "def f(self, a, *, b=1): pass", "a, *, b=1"]],
    members: [
      [
        python`class A:
    ${members}`,
        "class A:\n    a = 1\n    def m(self): pass\n",
        "a = 1\n    def m(self): pass",
      ],
    ],
    modifiers: [
      [
        python`${modifiers}
def f(): pass`,
        "@a\n@b(1)\ndef f(): pass\n",
        "@a\n@b(1)",
      ],
    ],
  },
  java: {
    name: [
      [java`hive.${name}()`, "class A { int x = hive.queen(); }", "queen"],
      [java`class ${name} {}`, "class Hive {}", "Hive"],
    ],
    expression: [[java`weigh(${expression})`, "class A { int x = weigh(a.b[0] + 1); }", "a.b[0] + 1"]],
    type: [
      [java`List<${type}> a;`, "class A { void m() { List<Map<A, B>> a; } }", "Map<A, B>"],
      [java`${type} a = b;`, "class A { void m() { int[] a = b; } }", "int[]"],
      [java.member`${type} a() {}`, "class A { void a() {} }", "void"],
    ],
    operator: [
      [java`a ${operator} b`, "class A { boolean x = a != b; }", "!="],
      [java`a ${operator} b;`, "class A { void m() { a |= b; } }", "|="],
    ],
    text: [[java`tag("hive-${text}")`, 'class A { int x = tag("hive-7"); }', "7"]],
    statement: [[java`if (a) ${statement}`, "class A { void m() { if (a) return; } }", "return;"]],
    statements: [
      [
        java`try { ${statements} } finally { b(); }`,
        "class A { void m() { try { int c = 1; d(c); } finally { b(); } } }",
        "int c = 1; d(c);",
      ],
    ],
    arguments: [[java`new A(${args})`, "class A { A x = new A(b, c -> d); }", "b, c -> d"]],
    parameters: [
      [
        java.member`void m(${parameters}) {}`,
        "class A { void m(final A a, B... b) {} }",
        "final A a, B... b",
      ],
    ],
    members: [
      [java`class A { ${members} }`, "class A { int b; A() {} void m() {} }", "int b; A() {} void m() {}"],
      [java`enum A { B; ${members} }`, "enum A { B; int c; }", "int c;"],
    ],
    modifiers: [
      [
        java.member`${modifiers} void m() {}`,
        "class A { @Override public final void m() {} }",
        "@Override public final",
      ],
      [java.member`${modifiers} int x;`, "class A { int x; }", ""],
    ],
  },
  cpp: {
    name: [
      [cpp`hive.${name}`, "int x = hive.queen;", "queen"],
      [cpp`class ${name} {};`, "class Hive {};", "Hive"],
    ],
    expression: [
      [cpp`weigh(${expression})`, "int x = weigh(a->b[0]);", "a->b[0]"],
      [cpp`delete ${expression};`, "void f() { delete a.b; }", "a.b"],
    ],
    type: [
      [cpp`${type} a = b;`, "void f() { std::vector<int> a = b; }", "std::vector<int>"],
      [cpp.type`std::vector<${type}>`, "std::vector<Hive*> a;", "Hive*"],
      [cpp`static_cast<${type}>(a)`, "auto x = static_cast<const Hive&>(a);", "const Hive&"],
    ],
    operator: [
      [cpp`a ${operator} b`, "auto x = a << b;", "<<"],
      [cpp`a ${operator} b;`, "void f() { a += b; }", "+="],
    ],
    text: [[cpp`tag("hive-${text}")`, 'int x = tag("hive-7");', "7"]],
    statement: [[cpp`if (a) ${statement}`, "void f() { if (a) return; }", "return;"]],
    statements: [
      [cpp`while (a) { ${statements} }`, "void f() { while (a) { int b = 1; c(b); } }", "int b = 1; c(b);"],
    ],
    arguments: [[cpp`f(${args}, 1)`, "auto x = f(a, &b, 1);", "a, &b"]],
    parameters: [
      [cpp.file`void m(${parameters}) {}`, "void m(const A& a, B* b = 0) {}", "const A& a, B* b = 0"],
    ],
    members: [[cpp`class A { ${members} };`, "class A { int b; void m(); };", "int b; void m();"]],
    modifiers: [
      [cpp`${modifiers} int a = b;`, "void f() { static const int a = b; }", "static const"],
      [cpp.member`${modifiers} int a;`, "class A { int a; };", ""],
    ],
  },
  csharp: {
    name: [
      [csharp`hive.${name}`, "class A { int x = hive.Queen; }", "Queen"],
      [csharp`class ${name} {}`, "class Hive {}", "Hive"],
    ],
    expression: [[csharp`Weigh(${expression})`, "class A { int x = Weigh(a.b[0]); }", "a.b[0]"]],
    type: [
      [csharp`List<${type}> a;`, "class A { void M() { List<Dictionary<A, B>> a; } }", "Dictionary<A, B>"],
      [csharp`${type} a = b;`, "class A { void M() { int? a = b; } }", "int?"],
    ],
    operator: [
      [csharp`a ${operator} b`, "class A { bool x = a >= b; }", ">="],
      [csharp`a ${operator} b;`, "class A { void M() { a -= b; } }", "-="],
    ],
    text: [[csharp`Tag("hive-${text}")`, 'class A { int x = Tag("hive-7"); }', "7"]],
    statement: [[csharp`if (a) ${statement}`, "class A { void M() { if (a) return; } }", "return;"]],
    statements: [
      [
        csharp`lock (a) { ${statements} }`,
        "class A { void M() { lock (a) { var b = 1; C(b); } } }",
        "var b = 1; C(b);",
      ],
    ],
    arguments: [[csharp`new A(${args})`, "class A { A x = new A(b, ref c, d: 1); }", "b, ref c, d: 1"]],
    parameters: [
      [
        csharp.member`void M(${parameters}) {}`,
        "class A { void M(ref A a, int b = 1) {} }",
        "ref A a, int b = 1",
      ],
    ],
    members: [
      [
        csharp`class A { ${members} }`,
        "class A { int b; int C { get; } void M() {} }",
        "int b; int C { get; } void M() {}",
      ],
    ],
    modifiers: [
      [
        csharp.member`${modifiers} void M() {}`,
        "class A { [B] public static void M() {} }",
        "[B] public static",
      ],
      [csharp.member`${modifiers} int x;`, "class A { int x; }", ""],
    ],
  },
  php: {
    name: [
      [php`$hive->${name}`, "<?php f($hive->queen);", "queen"],
      [php`foreach ($hives as ${name}) {}`, "<?php foreach ($hives as $hive) {}", "$hive"],
      [php`class ${name} {}`, "<?php class Hive {}", "Hive"],
    ],
    expression: [[php`weigh(${expression})`, "<?php $x = weigh($a->b[0] . 'c');", "$a->b[0] . 'c'"]],
    type: [
      [php.member`private ${type} $a;`, "<?php class A { private ?Hive $a; }", "?Hive"],
      [php`function f(): ${type} {}`, "<?php function f(): int|string {}", "int|string"],
    ],
    operator: [
      [php`$a ${operator} $b`, "<?php f($a <=> $b);", "<=>"],
      [php`$a ${operator} $b;`, "<?php $a .= $b;", ".="],
    ],
    text: [[php`tag('hive-${text}')`, "<?php tag('hive-7');", "7"]],
    statement: [[php`if ($a) ${statement}`, "<?php if ($a) return;", "return;"]],
    statements: [
      [php`while ($a) { ${statements} }`, "<?php while ($a) { $b = 1; c($b); }", "$b = 1; c($b);"],
    ],
    arguments: [[php`f(${args})`, "<?php f($a, ...$b);", "$a, ...$b"]],
    parameters: [
      [php`function f(${parameters}) {}`, "<?php function f(?A $a, &$b = null) {}", "?A $a, &$b = null"],
    ],
    members: [
      [
        php`class A { ${members} }`,
        "<?php class A { public $b; function m() {} }",
        "public $b; function m() {}",
      ],
    ],
    modifiers: [
      [
        php.member`${modifiers} function m() {}`,
        "<?php class A { #[B] public static function m() {} }",
        "#[B] public static",
      ],
      [php.member`${modifiers} function m() {}`, "<?php class A { function m() {} }", ""],
    ],
  },
  ruby: {
    name: [
      [ruby`hive.${name}`, "x = hive.queen", "queen"],
      [
        ruby`class ${name}
end`,
        "class Hive\nend",
        "Hive",
      ],
    ],
    expression: [[ruby`weigh(${expression})`, "x = weigh(a.b[0])", "a.b[0]"]],
    type: [
      [
        ruby`class A < ${type}
end`,
        "class A < B::C\nend",
        "B::C",
      ],
    ],
    operator: [
      [ruby`a ${operator} b`, "x(a <=> b)", "<=>"],
      [ruby`a ${operator} b`, "a ||= b", "||="],
    ],
    text: [[ruby`tag("hive-${text}")`, "tag 'hive-7'", "7"]],
    statement: [
      [
        ruby`if a
  ${statement}
end`,
        "if a\n  b 1\nend",
        "b 1",
      ],
    ],
    statements: [
      [
        ruby`def m
  ${statements}
end`,
        "def m\n  b\n  c = 1\nend",
        "b\n  c = 1",
      ],
      [
        ruby`def m
  ${statements}
end`,
        "def m\nend",
        "",
      ],
    ],
    arguments: [
      [ruby`f(${args})`, "f(a, *b, c: 1)", "a, *b, c: 1"],
      [ruby`f(${args})`, "f a, b", "a, b"],
    ],
    parameters: [
      [
        ruby`def m(a, ${parameters})
end`,
        "def m(a, b = 1, *c)\nend",
        "b = 1, *c",
      ],
    ],
    members: [
      [
        ruby`class A
  ${members}
end`,
        "class A\n  B = 1\n  def m; end\nend",
        "B = 1\n  def m; end",
      ],
    ],
  },
  powershell: {
    name: [
      [powershell`$hive.${name}`, "f $hive.Queen", "Queen"],
      [powershell`foreach (${name} in $hives) {}`, "foreach ($hive in $hives) {}", "$hive"],
      [powershell`function ${name} {}`, "function Get-Hive {}", "Get-Hive"],
    ],
    expression: [[powershell`[Math]::Abs(${expression})`, "$x = [math]::abs($a.B + 1)", "$a.B + 1"]],
    type: [
      [powershell`[${type}]$a`, "[string]$a", "string"],
      [powershell`[${type}]::new()`, "$x = [Hive.Box]::new()", "Hive.Box"],
    ],
    operator: [
      [powershell`$a ${operator} $b`, "if ($a -gt $b) {}", "-gt"],
      [powershell`$a ${operator} $b`, "$a += $b", "+="],
    ],
    text: [[powershell`Tag "hive-${text}"`, "Tag 'hive-7'", "7"]],
    statement: [[powershell`if ($a) { ${statement} }`, "if ($a) { f $b }", "f $b"]],
    statements: [
      [powershell`while ($a) { ${statements} }`, "while ($a) { $b = 1; f $b }", "$b = 1; f $b"],
      [powershell`while ($a) { ${statements} }`, "while ($a) { }", ""],
    ],
    arguments: [
      [powershell`$a.M(${args})`, "$a.M($b, 1)", "$b, 1"],
      [powershell`Get-Hive ${args}`, "Get-Hive -Name $b 1", "-Name $b 1"],
    ],
    parameters: [[powershell`param(${parameters})`, "param([int]$a, $b = 1)\nf", "[int]$a, $b = 1"]],
    members: [
      [powershell`class A { ${members} }`, "class A { [int]$b; [void] M() { } }", "[int]$b; [void] M() { }"],
    ],
    modifiers: [
      [powershell.parameter`${modifiers}$a`, "function f([Parameter()][int]$a) {}", "[Parameter()][int]"],
    ],
  },
};
