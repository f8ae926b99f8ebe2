import "uvran/node";
import {
  cpp,
  csharp,
  Engine,
  holes,
  java,
  javascript,
  neverWritten,
  php,
  powershell,
  python,
  ruby,
  unchangedDuring,
  type Condition,
  type Hole,
  type RuleSpec,
} from "uvran/core";
import { make } from "./run-rule.js";

const { kept, body } = holes({ kept: "name", body: "statements" });
const { list } = holes({ list: "expression" });

/** How a language has `begin(kept)`, some code and `end(kept)`, and what is around it. */
interface Around {
  readonly path: string;
  readonly was: (kept: Hole) => RuleSpec["was"];
  /** `ahead` runs ahead of the code, `code` between the two calls. */
  readonly file: (ahead: string, code: string) => string;
}

const calls = (one: Hole) => javascript`begin(${one}); ${body} end(${one});`;

const AROUND: Record<string, Around> = {
  javascript: {
    path: "a.js",
    was: calls,
    file: (ahead, code) =>
      `export function f(p, q) {\n  const ys = q;\n  ${ahead}\n  begin(p);\n  ${code}\n  end(p);\n}\n`,
  },
  python: {
    path: "a.py",
    was: (one) => python`
      begin(${one})
      ${body}
      end(${one})
    `,
    file: (ahead, code) =>
      `def f(p, q):\n    ys = q\n    ${ahead || "pass"}\n    begin(p)\n    ${code.replaceAll("\n", "\n    ")}\n    end(p)\n`,
  },
  ruby: {
    path: "a.rb",
    was: (one) => ruby`
      start(${one})
      ${body}
      stop(${one})
    `,
    file: (ahead, code) => `def f(p, q)\n  ys = q\n  ${ahead}\n  start(p)\n  ${code}\n  stop(p)\nend\n`,
  },
  java: {
    path: "A.java",
    was: (one) => java`begin(${one}); ${body} end(${one});`,
    file: (ahead, code) =>
      `class A { void f(int p, int q) {\n  ${ahead}\n  begin(p);\n  ${code}\n  end(p);\n} }\n`,
  },
  csharp: {
    path: "A.cs",
    was: (one) => csharp`Begin(${one}); ${body} End(${one});`,
    file: (ahead, code) =>
      `class A { void F(int p, int q) {\n  ${ahead}\n  Begin(p);\n  ${code}\n  End(p);\n} }\n`,
  },
  cpp: {
    path: "a.cpp",
    was: (one) => cpp`begin(${one}); ${body} end(${one});`,
    file: (ahead, code) =>
      `void begin(int by);\nvoid end(int by);\nint f(int p, int q) {\n  ${ahead}\n  begin(p);\n  ${code}\n  end(p);\n}\n`,
  },
  php: {
    path: "a.php",
    was: (one) => php`begin(${one}); ${body} finish(${one});`,
    file: (ahead, code) =>
      `<?php\nfunction begin($by) {}\nfunction finish($by) {}\nfunction f($p, $q) {\n  ${ahead}\n  begin($p);\n  ${code}\n  finish($p);\n}\n`,
  },
  powershell: {
    path: "a.ps1",
    was: (one) => powershell`
      Begin-It ${one}
      ${body}
      End-It ${one}
    `,
    file: (ahead, code) =>
      `function F($p, $q) {\n  $ys = $q\n  ${ahead}\n  Begin-It $p\n  ${code}\n  End-It $p\n}\n`,
  },
};

async function fate(language: string, one: Hole, condition: Condition, text: string): Promise<string> {
  const { path, was } = AROUND[language]!;
  const engine = new Engine([make({ was: was(one), given: [condition], advice: "look" })]);
  const { advice, heldBack } = (await engine.file(path, text))!;
  return advice?.[0]?.trust ?? (heldBack[0] ? "held" : "not found");
}

const WRITTEN = neverWritten(kept, { in: body });

/** Code that leaves the variable `p` alone. */
const ALONE: [string, string, string][] = [
  ["javascript", "", "log('x'); q = p + 1;"],
  ["javascript", "const g = () => { p = null; };", "q = p + 1;"],
  ["python", "", "log('x')\nq = p + 1"],
  ["ruby", "", "log('x'); q = p + 1"],
  ["java", "", "log(1); q = p + 1;"],
  ["csharp", "", "Log(1); q = p + 1; Use(in p);"],
  ["cpp", "", "log(1); q = p + 1; int z[] = {p, 1};"],
  ["cpp", "int& r = p;", "q = 3;"],
  ["php", "", "log('x'); $q = strlen($p);"],
  ["php", "$g = fn() => $p = 3;", "$g();"],
  ["powershell", "", "$q = $p + 1"],
];

/** Code that changes `p`, or may: ahead of it, and between the two calls. */
const CHANGED: Record<string, readonly (string | [string, string])[]> = {
  javascript: [
    "p = 1;",
    "p++;",
    "[p] = q;",
    "({ k: p } = q);",
    "for (p of q) {}",
    "p ||= q;",
    "eval(q);",
    ["const g = () => { p = null; };", "g();"],
    ["q.on('x', () => { p = null; });", "log();"],
    ["const o = { set x(v) { p = v; } };", "o.x = 2;"],
    ["", "arguments[0] = 3;"],
    ["", "change(arguments);"],
  ],
  python: [
    "p = 1",
    "for p in q: pass",
    "del p",
    "with q as p: pass",
    "import p",
    "from q import *",
    "try: pass\nexcept E as p: pass",
    "(p := 3)",
    "[(p := x) for x in q]",
    "match q:\n    case {'a': p}: pass",
    "def p(): pass",
    "exec(q)",
    ["def g():\n        nonlocal p\n        p = 3", "g()"],
  ],
  ruby: [
    "p = 1",
    "p ||= 1",
    "p, q = q",
    "for p in q do; end",
    "q.each { p = 3 }",
    "begin; rescue => p; end",
    "case q; in [p, *] then 1; end",
    "q => {p:}",
    "/(?<p>x)/ =~ q",
    "eval(q)",
    ["g = -> { p = 3 }", "g.call"],
    ["define_method(:g) { p = 3 }", "g"],
  ],
  java: ["p = 1;", "p++;", "for (p = 0; p < 3; p++) {}"],
  csharp: [
    "p = 1;",
    "Set(ref p);",
    "Set(out p);",
    "(p, q) = Two();",
    ["ref int r = ref p;", "r = 3;"],
    ["ref int r = ref (q > 1 ? ref p : ref q);", "r = 3;"],
    ["Action g = () => { p = 3; };", "g();"],
    ["void G() { p = 3; }", "G();"],
    ["var s = new Span<int>(ref p);", "s[0] = 3;"],
  ],
  cpp: [
    "p = 1;",
    "Holder k(p);",
    "Holder k{p};",
    "Holder k = {p};",
    "Holder k{.r = p};",
    "auto h = new Holder{p};",
    "use(Holder{p});",
    "take({p, 1});",
    'asm("" : "=r"(p));',
    "auto l = [&r = p] { r = 3; };",
    "(q ? p : q) = 3;",
    "(q, p) = 3;",
    "take(q ? p : q);",
    "take((int&)p);",
    "static_cast<int&>(p) = 3;",
    "in >> p;",
    "archive & q & p;",
    "auto& r = q ? p : q; r = 3;",
    'scanf("%d", &(p));',
    ["int& r = p;", "r = 3;"],
    ["int* r = &p;", "*r = 3;"],
    ["Holder k{p};", "k.clear();"],
    ["auto f = [&] { p = 3; };", "f();"],
    ["auto f = [&]() -> int& { return p; };", "f() = 3;"],
    ["auto r = std::ref(p);", "r.get() = 3;"],
    ["auto [x, y] = std::tie(p, q);", "x = 3;"],
    ["keep(p);", "change();"],
  ],
  php: [
    "$p = 1;",
    "$p .= 'x';",
    "['x' => $p] = $q;",
    "foreach ($q as $p => $v) {}",
    "unset($p);",
    "$p[] = 1;",
    "unset($p['x']);",
    "$l = ['k' => &$p]; $l['k'] = 3;",
    "[&$r] = $p;",
    "foreach ($p as $k => &$v) { $v = 3; }",
    "take($p);",
    "preg_match('/x/', $q, $p);",
    "take($p[0]);",
    "extract($q);",
    "$$q = 3;",
    "include 'x.php';",
    ["$r = &$p;", "$r = 3;"],
    ["$g = function () use (&$p) { $p = 3; };", "$g();"],
    ["$q->bind_result($p);", "$q->fetch();"],
  ],
  powershell: [
    "$P = 1",
    "$p, $z = $q",
    "foreach ($P in $q) {}",
    "${p} = 3",
    "[int]$p = 3",
    "$local:p = 3",
    "[int]::TryParse($q, [ref]$p)",
    "Set-Variable p 3",
    "Get-Item x -OutVariable p",
    "$q | Tee-Object -Variable p",
    ". ./x.ps1",
    "$q | % { $p = 3 }",
    ["$r = [ref]$p", "$r.Value = 3"],
    ["$g = { $p = 3 }", ". $g"],
  ],
};

test.each(ALONE)("in %s, after `%s`, `%s` leaves the variable alone", async (language, ahead, code) => {
  expect(await fate(language, kept, WRITTEN, AROUND[language]!.file(ahead, code))).toBe("certain");
});

const changed = Object.entries(CHANGED).flatMap(([language, all]) =>
  all.map(
    (one): [string, string, string] => [language, ...(typeof one === "string" ? ["", one] : one)] as never,
  ),
);

test.each(changed)("in %s, after `%s`, `%s` may change the variable", async (language, ahead, code) => {
  const got = await fate(language, kept, WRITTEN, AROUND[language]!.file(ahead, code));
  expect(["held", "possible", "likely"]).toContain(got);
});

/** Whole files, with what becomes of the place in them. */
test.each([
  [
    "javascript",
    "let p = 1;\nfunction g() { p = 2; }\nexport function f() { begin(p); g(); end(p); }",
    "likely",
  ],
  ["javascript", "let p = 1;\nexport function f() { begin(p); g(); end(p); }", "certain"],
  ["javascript", "export function f() { begin(p); g(); end(p); }", "likely"],
  ["python", "p = 1\ndef g():\n    global p\n    p = 3\nbegin(p)\ng()\nend(p)\n", "likely"],
  ["python", "p = 1\nbegin(p)\ng()\nend(p)\n", "certain"],
  ["ruby", "class A\n  def f\n    start(@p)\n    g\n    stop(@p)\n  end\nend\n", "likely"],
  ["java", "class A { private int p; void g() { p = 3; } void f() { begin(p); g(); end(p); } }", "likely"],
  ["java", "class A { private int p = 1; void f() { begin(p); g(); end(p); } }", "certain"],
  ["java", "class A { int p; void f() { begin(p); g(); end(p); } }", "likely"],
  [
    "csharp",
    "class A { int p; int P { set { p = value; } } void F() { Begin(p); P = 3; End(p); } }",
    "likely",
  ],
  ["csharp", "partial class A { int p; void F() { Begin(p); G(); End(p); } }", "likely"],
  ["csharp", "class A { void F(in int p) { Begin(p); G(); End(p); } }", "likely"],
  ["cpp", "void begin(int);\nint p = 1;\nvoid f() { begin(p); g(); end(p); }", "likely"],
  [
    "cpp",
    "void begin(int);\nvoid end(int);\nstatic int p = 1;\nvoid f() { begin(p); g(); end(p); }",
    "certain",
  ],
  ["cpp", "void f(const int& p, int& q) { begin(p); q = 3; end(p); }", "likely"],
  ["php", "<?php function f() { static $p; begin($p); g(); finish($p); }", "likely"],
  ["php", "<?php function f(&$p) { begin($p); g(); finish($p); }", "likely"],
])("in %s, `%s` is %s", async (language, text, wanted) => {
  expect(await fate(language, kept, WRITTEN, text)).toBe(wanted);
});

const SAME = unchangedDuring(list, { during: body });

test.each([
  ["javascript", "q = 1;", "certain"],
  ["javascript", "p.length = 0;", "held"],
  ["javascript", "ys.length = 0;", "likely"],
  ["javascript", "q.on = 1;", "likely"],
  ["python", "q.items = 3", "likely"],
  ["python", "q = [z for z in ys]", "certain"],
  ["ruby", "q = p + q", "certain"],
  ["ruby", "p << 1", "held"],
  ["ruby", "ys << 1", "likely"],
  ["ruby", "change", "likely"],
  ["powershell", "$p += 1", "held"],
  ["powershell", "$q = 1", "certain"],
  ["php", "$p[] = 1;", "held"],
  ["php", "$q = 1;", "certain"],
])("in %s, a list is the same after `%s`: %s", async (language, code, wanted) => {
  expect(await fate(language, list, SAME, AROUND[language]!.file("", code))).toBe(wanted);
});
