import "uvran/node";
import {
  cpp,
  csharp,
  Engine,
  escapes,
  holes,
  java,
  javascript,
  leavesEarly,
  not,
  onlyUse,
  php,
  powershell,
  python,
  ruby,
  sideEffectFree,
  typescript,
  usedAfter,
  type Condition,
  type Snippet,
} from "uvran/core";
import { make } from "./run-rule.js";

const { p, body, value } = holes({ p: "name", body: "statements", value: "expression" });

/** How a language writes what the conditions are asked of, and a function around it. */
interface Way {
  readonly path: string;
  readonly declared: Snippet;
  readonly done: Snippet;
  readonly between: Snippet;
  readonly kept: Snippet;
  /** The code of the four, and what stands between statements. */
  readonly code: { declared: string; done: string; begin: string; end: string; kept(of: string): string };
  readonly join: string;
  file(code: string): string;
}

const braces = (call: string) => ({
  code: {
    declared: `${call} p = make();`,
    done: "done(p);",
    begin: "begin();",
    end: "finish();",
    kept: (of: string) => `keep(${of});`,
  },
  join: "\n  ",
});

const WAYS: Record<string, Way> = {
  javascript: {
    path: "a.mjs",
    declared: javascript`let ${p} = make();`,
    done: javascript`done(${p});`,
    between: javascript`begin(); ${body} finish();`,
    kept: javascript`keep(${value});`,
    ...braces("let"),
    file: (code) => `export async function* f(a, b, it, o) {\n  ${code}\n}\n`,
  },
  typescript: {
    path: "a.ts",
    declared: typescript`let ${p} = make();`,
    done: typescript`done(${p});`,
    between: typescript`begin(); ${body} finish();`,
    kept: typescript`keep(${value});`,
    ...braces("let"),
    file: (code) => `export function f(a: any, b: any, it: any, o: any) {\n  ${code}\n}\n`,
  },
  python: {
    path: "a.py",
    declared: python`${p} = make()`,
    done: python`done(${p})`,
    between: python`
      begin()
      ${body}
      finish()
    `,
    kept: python`keep(${value})`,
    code: {
      declared: "p = make()",
      done: "done(p)",
      begin: "begin()",
      end: "finish()",
      kept: (of) => `keep(${of})`,
    },
    join: "\n    ",
    file: (code) => `def f(a, b, it, o):\n    ${code}\n`,
  },
  ruby: {
    path: "a.rb",
    declared: ruby`${p} = make`,
    done: ruby`done(${p})`,
    between: ruby`
      start
      ${body}
      finish
    `,
    kept: ruby`keep(${value})`,
    code: {
      declared: "p = make",
      done: "done(p)",
      begin: "start",
      end: "finish",
      kept: (of) => `keep(${of})`,
    },
    join: "\n  ",
    file: (code) => `def f(a, b, it, o)\n  ${code}\nend\n`,
  },
  java: {
    path: "A.java",
    declared: java`Hive ${p} = make();`,
    done: java`done(${p});`,
    between: java`begin(); ${body} finish();`,
    kept: java`keep(${value});`,
    ...braces("Hive"),
    file: (code) => `class A { void f(int a, int b, Integer it, Hive o) {\n  ${code}\n} }\n`,
  },
  csharp: {
    path: "A.cs",
    declared: csharp`Hive ${p} = make();`,
    done: csharp`done(${p});`,
    between: csharp`begin(); ${body} finish();`,
    kept: csharp`keep(${value});`,
    ...braces("Hive"),
    file: (code) => `class A { async void F(int a, int b, Hive it, Hive o) {\n  ${code}\n} }\n`,
  },
  cpp: {
    path: "a.cpp",
    declared: cpp`Hive* ${p} = make();`,
    done: cpp`done(${p});`,
    between: cpp`begin(); ${body} finish();`,
    kept: cpp`keep(${value});`,
    ...braces("Hive*"),
    file: (code) => `void f(int a, int b, Hive* it, Hive& o) {\n  ${code}\n}\n`,
  },
  php: {
    path: "a.php",
    declared: php`${p} = make();`,
    done: php`done(${p});`,
    between: php`begin(); ${body} finish();`,
    kept: php`keep(${value});`,
    code: {
      declared: "$p = make();",
      done: "done($p);",
      begin: "begin();",
      end: "finish();",
      kept: (of) => `keep(${of});`,
    },
    join: "\n  ",
    file: (code) => `<?php\nfunction f($a, $b, $it, $o) {\n  ${code}\n}\n`,
  },
  powershell: {
    path: "a.ps1",
    declared: powershell`${p} = New-Hive`,
    done: powershell`Show ${p}`,
    between: powershell`
      Start-It
      ${body}
      Stop-It
    `,
    kept: powershell`Keep ${value}`,
    code: {
      declared: "$p = New-Hive",
      done: "Show $p",
      begin: "Start-It",
      end: "Stop-It",
      kept: (of) => `Keep ${of}`,
    },
    join: "\n  ",
    file: (code) => `function F($a, $b, $it, $o) {\n  ${code}\n}\n`,
  },
};

async function trust(language: string, was: Snippet, given: Condition, code: readonly string[]) {
  const { path, join, file } = WAYS[language]!;
  const lines = code.filter((one) => one !== "").join("\n");
  const engine = new Engine([make({ was, given: [given], advice: "look" })]);
  const { advice, heldBack } = (await engine.file(path, file(lines.replaceAll("\n", join))))!;
  return advice?.[0]?.trust ?? (heldBack[0] ? "held" : "not found");
}

/** Code for which the answer is certain, and code for which it may not be. `A @@ B` stands ahead of the place and behind it. */
type Cases = Record<string, { readonly certain?: readonly string[]; readonly not?: readonly string[] }>;

function check(
  what: string,
  cases: Cases,
  ask: (way: Way, ahead: string, code: string) => [Snippet, Condition, string[]],
): void {
  const all = Object.entries(cases).flatMap(([language, { certain = [], not: doubtful = [] }]) => [
    ...certain.map((code): [string, string, boolean] => [language, code, true]),
    ...doubtful.map((code): [string, string, boolean] => [language, code, false]),
  ]);
  test.each(all)(`${what}: %s, \`%s\`: %s`, async (language, code, isCertain) => {
    const [ahead, behind] = code.includes("@@") ? code.split(/ ?@@ ?/) : ["", code];
    const got = await trust(language, ...ask(WAYS[language]!, ahead!, behind!));
    expect(got).not.toBe("not found");
    expect(got === "certain").toBe(isCertain);
  });
}

check(
  "nothing leaves early",
  {
    javascript: {
      certain: ["for (const y of it) { break; }", "const l = async () => { await g(); };", "g(a);"],
      not: [
        "return;",
        "throw a;",
        "await a;",
        "yield a;",
        "for await (const y of it) { g(); }",
        "{ await using y = a; }",
        "process.exit(1);",
        "x: for (;;) { for (;;) { break x; } }",
      ],
    },
    python: {
      certain: ["for y in it:\n    break"],
      not: ["return", "raise a", "x = yield", "sys.exit()", "for y in it:\n    pass\nelse:\n    return"],
    },
    ruby: {
      certain: [
        "it.each { |y| break }",
        "lambda { return }",
        "-> { return }",
        "define_method(:x) { return }",
      ],
      not: [
        "fail",
        "exit!",
        "a && raise",
        "it.each { |y| return y }",
        "proc { return }.call",
        "begin\n  g\nrescue\n  raise\nend",
      ],
    },
    java: { certain: ["Runnable r = () -> { return; };"], not: ["System.exit(1);"] },
    csharp: {
      certain: ["Func<Task> l = async () => { await G(); };"],
      not: ["await foreach (var y in it) { }", "await using (it) { }", "Environment.Exit(1);", "goto x;"],
    },
    cpp: {
      certain: ["auto l = [&] { return; };"],
      not: ["CHECK(a);", "std::exit(1);", "longjmp(o, 1);", "co_await o;"],
    },
    php: {
      certain: ["$l = fn() => exit;", "for (;;) { break; }"],
      not: ["die();", "$a or die();", "$a or exit;", "match ($a) { 1 => exit };", "for (;;) { break 2; }"],
    },
    powershell: {
      certain: ["$it | ForEach-Object { return }", "$l = { foreach ($y in $it) { break } }"],
      not: ["return", "$it | ForEach-Object { break }", "$it | % { exit }", "[Environment]::Exit(1)"],
    },
  },
  ({ between, code }, _, inside) => [between, not(leavesEarly(body)), [code.begin, inside, code.end]],
);

check(
  "not used afterwards",
  {
    javascript: {
      certain: ["p = 1; g(p);", "return;", "[p] = a;", "({ a: p } = a);", "g(q => q.p);"],
      not: ["g(p);", "p++;", "p ??= 1;", "eval(a);", "const y = () => p; @@ y();", "({ [p]: a } = a);"],
    },
    python: {
      certain: ["(p := 1)", "p: int = 1", "with a as p:\n    g(p)"],
      not: ["g(p)", "del p", "locals()", "exec(a)", "y = lambda: p @@ y()", "y = (p for z in it) @@ list(y)"],
    },
    ruby: {
      certain: ["it.each { |p| g(p) }", "y = it.map { p } @@ g(y)"],
      not: [
        "g(p)",
        "binding",
        'eval "p"',
        "y = -> { p } @@ y.call",
        "on(:x) { g(p) } @@ run",
        "y = it.lazy.map { p } @@ y.to_a",
        '"#{p}"',
      ],
    },
    java: { certain: ["p = make(); g(p);"], not: ["new Hive() { void m() { g(p); } };", "g(p);"] },
    csharp: { certain: ["p = make(); g(p);"], not: ["ref var y = ref p; @@ g(y);", "nameof(p);"] },
    cpp: {
      certain: ["struct Y { void m() { } } y;"],
      not: ["auto& y = p; @@ g(y);", "Keep y{p}; @@ y.g();", "Keep y(p); @@ y.g();", "delete p;"],
    },
    php: {
      certain: ["$p = 1; g($p);", "unset($p);", "foreach ($it as $p) {}"],
      not: [
        "compact('p');",
        "$$a;",
        "include 'x.php';",
        "$y = &$p; @@ g($y);",
        "global $p; @@ g();",
        "static $p; @@ g();",
        '"{$p}";',
      ],
    },
    powershell: { not: ["G $p", "Get-Variable p"] },
  },
  ({ done, code }, ahead, behind) => [
    done,
    not(usedAfter(p)),
    [code.declared.replace("make()", "0"), ahead, code.done, behind],
  ],
);

check(
  "stays in its function",
  {
    javascript: {
      certain: ["p.x();", "const y = p.x;", "return p.x;", "if (p > 1) g();", "p = p.next;"],
      not: [
        "return p;",
        "g(p);",
        "const y = (g(), p);",
        "g`${p}`;",
        "o.x ??= p;",
        "return [p];",
        "const y = { ...p };",
        "const y = a || p;",
      ],
    },
    typescript: { not: ["const y = <any>p;", "const y = p!;", "return p as any;"] },
    python: {
      certain: ["p.x()", 'y = f"{p}"', "for y in p:\n    g(y)", "assert p", "print(p)"],
      not: [
        "y = p,",
        "return a, p",
        "a, y = 1, p",
        "with p as y:\n    o.x = y",
        "@p\ndef z(): pass",
        "def z(q=p): pass",
        "lambda q=p: q",
        "o[p] = 1",
      ],
    },
    ruby: {
      certain: ["p.x", '"#{p}"', "p\nnil"],
      not: ["p", "o << p", "y, z = p, 1", "y = loop { break p }", "begin\n  p\nensure\n  g\nend", "yield p"],
    },
    java: {
      certain: ["p.x();", 'String y = "a" + p;', "synchronized (p) { }"],
      not: [
        "Runnable r = p::x;",
        "var y = switch (a) { default -> p; };",
        "var y = switch (a) { default: yield p; };",
        "if (p instanceof Queen q) { kept = q; }",
      ],
    },
    csharp: {
      certain: ["p?.X();", "lock (p) { }", "if (p > 1) { }"],
      not: [
        "var y = new { p };",
        "List<Hive> y = [p];",
        "if (p is Queen q) { kept = q; }",
        "var y = p switch { Queen q => q, _ => null };",
        "var y = from z in it select p;",
      ],
    },
    cpp: {
      certain: ["p->x();", "delete p;", "p++;", "if (p == it) { }"],
      not: ["Keep y(p);", "auto y = p + 1;", "auto y = p++;", "o << p;", "auto y = (a, p);", "USE(p);"],
    },
    php: {
      certain: ["$p->x();", "$y = clone $p;", "echo $p;", "foreach ($p as $y) { g($y); }"],
      not: ["$y = match (1) { default => $p };", "$y = @$p;", "g(...$p);", "global $p; @@ g();"],
    },
  },
  ({ declared, code }, ahead, behind) => [declared, not(escapes(p)), [ahead, code.declared, behind]],
);

check(
  "used only here",
  {
    javascript: { certain: ["y = 1;", "it.a;", "g({ a: 1 });"], not: ["g(a);", "g(arguments);", "eval(b);"] },
    python: { certain: ["g()"], not: ["g(a)", "locals()"] },
    ruby: { certain: ["g", "super()"], not: ["super", "binding", "g(a)"] },
    java: { certain: ["g();"], not: ["g(a);"] },
    csharp: { certain: ["g();"], not: ["nameof(a);"] },
    cpp: { certain: ["g();"], not: ["sizeof(a);"] },
    php: {
      certain: ["g();"],
      not: ["func_get_args();", "compact('a');", "$f = fn() => $a;", "include 'x';"],
    },
  },
  ({ done, code }, _, behind) => [done, onlyUse(p), [code.done.replace(/p(?=\)|$)/, "a"), behind]],
);

check(
  "evaluating it changes nothing",
  {
    javascript: {
      certain: ["a === b", "Math.max(1, 2)", "!a", "/x/", "new Date(2014, 0, 1)"],
      not: [
        "a()",
        "a.b",
        "a + b",
        "`${o}`",
        "Math.random()",
        "Date.now()",
        "new Date()",
        "new Date",
        "a ?? g()",
        "[...it]",
      ],
    },
    python: {
      certain: ["a is b", "{1: a}"],
      not: ["{a: 1}", "{a}", 'f"{a}"', "a == b", "a.b", "[y for y in it]", "not a"],
    },
    ruby: { certain: ["a", ":a"], not: ["super", "g", "a.b", "(a or return)", '"#{o}"', "a =~ /x/"] },
    java: {
      certain: ["a + b", "o.f", "Math.max(a, b)"],
      not: ["g()", "a++", "switch (a) { default -> g(); }"],
    },
    csharp: { not: ["o.P", "o == it", "await g()", '$"{o}"', "nameof(a) + g()"] },
    cpp: { certain: ["it->p"], not: ["HIVES", "o + o", "a++", "o << 1", "*it"] },
    php: {
      certain: ["$a === $b", '"a"', "$a ?? 1"],
      not: ['"$a"', '"{$o}"', "exit", "$o->p", "(string) $o", "$$a", "new Hive", "print 1"],
    },
    powershell: { certain: ["'a'", "$a", '"a"'], not: ['"$o"', "(G)", '"$(G)"', "($a -match 'x')"] },
  },
  ({ kept, code }, _, inside) => [kept, sideEffectFree(value), [code.kept(inside)]],
);
