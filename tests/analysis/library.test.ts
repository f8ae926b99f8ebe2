import { execFileSync } from "node:child_process";
import { createRequire } from "node:module";
import {
  calledFromLibrary,
  filesNaming,
  isSideEffectFree,
  placeIn,
  shippedLibrary,
  type Library,
  type LibraryCalls,
  type LibraryLanguage,
  type LanguageId,
} from "uvran/core";
import { treeOf } from "../languages.js";
import { testWith } from "../toolchains.js";

function calledIn(language: LanguageId, code: string, library?: Library): LibraryCalls | undefined {
  const tree = treeOf(language, code);
  placeIn(tree, { path: "a", library, files: filesNaming([]) });
  const { calls } = tree.language;
  return [...tree.root.descendants()]
    .filter((node) => node.is(calls))
    .map((node) => calledFromLibrary(node))
    .findLast((row) => row !== undefined);
}

test.each<[LanguageId, string, string | undefined]>([
  ["python", "n = len(jars)\n", "none"],
  ["python", "def len(jars): pass\nn = len(jars)\n", undefined],
  ["python", "import os\np = os.path.join(a, b)\n", "reads"],
  ["python", "from os.path import join as glue\np = glue(a, b)\n", "reads"],
  ["python", "from shelf import join\np = join(a, b)\n", undefined],
  ["python", "def f(label: str):\n    return label.strip()\n", "none"],
  ["python", "def f(label):\n    return label.strip()\n", undefined],
  ["python", "x = 'a'.upper().strip()\n", "none"],
  ["javascript", "const n = Math.max(a, b);\n", "none"],
  ["javascript", "const Math = shelf; const n = Math.max(a, b);\n", undefined],
  ["javascript", 'import { join } from "node:path"; const p = join(a, b);\n', "reads"],
  ["javascript", 'import path from "path"; const p = path.join(a, b);\n', "reads"],
  ["javascript", "const n = shelf.max(a, b);\n", undefined],
  ["typescript", "function f(label: string) { return label.trim(); }\n", "none"],
  ["typescript", "function f(label?: string) { return label?.trim(); }\n", undefined],
  ["csharp", "class A { string F(string a) { return a?.Trim(); } }\n", undefined],
  ["csharp", "class A { string F(string a) { return a.Trim(); } }\n", "none"],
  ["ruby", "s = 'a'\nn = s&.strip\n", undefined],
  ["java", "class A { int f(int a) { return Math.max(a, 1); } }\n", "none"],
  ["java", "import shelf.Math; class A { int f(int a) { return Math.max(a, 1); } }\n", undefined],
  [
    "java",
    "import java.util.Objects; class A { boolean f(Object a) { return Objects.isNull(a); } }\n",
    "none",
  ],
  [
    "java",
    "import shelf.Objects; class A { boolean f(Object a) { return Objects.isNull(a); } }\n",
    undefined,
  ],
  ["java", "class A { String f(String a) { return a.trim(); } }\n", "none"],
  ["csharp", "class A { bool F(string a) { return string.IsNullOrEmpty(a); } }\n", "none"],
  ["csharp", "using System.IO; class A { bool F(string a) { return File.Exists(a); } }\n", "reads"],
  ["csharp", "class A { class File {} bool F(string a) { return File.Exists(a); } }\n", undefined],
  ["cpp", "void f(FILE* a) { fflush(a); }\n", "changes"],
  ["cpp", "void f(FILE* a) { std::fflush(a); }\n", "changes"],
  ["cpp", "int fflush(Hive* a) { return 0; } void f(Hive* a) { fflush(a); }\n", undefined],
  ["cpp", "#define fflush(a) jump(a)\nvoid f(FILE* a) { fflush(a); }\n", undefined],
  ["javascript", "const n = new Date(a, b);\n", "reads"],
  ["javascript", "class Date {} const n = new Date(a, b);\n", undefined],
  ["javascript", "Math.max = shelf; const n = Math.max(a, b);\n", undefined],
  ["javascript", 'Math["max"] = shelf; const n = Math.max(a, b);\n', undefined],
  ["javascript", 'Object.defineProperty(Math, "max", shelf); const n = Math.max(a, b);\n', undefined],
  ["javascript", 'String.prototype.trim = shelf; const n = " a".trim();\n', undefined],
  ["javascript", 'const n = " a".trim();\n', "none"],
  ["python", "import os\nos.path.join = shelf\np = os.path.join(a, b)\n", undefined],
  ["ruby", "module Shelf\n  refine String do\n    def strip; 1; end\n  end\nend\nn = 'a'.strip\n", undefined],
  ["ruby", "class String\n  def strip; 1; end\nend\nn = 'a'.strip\n", undefined],
  ["java", "class A { boolean f(Shelf Objects) { return Objects.isNull(1); } }\n", undefined],
  ["php", "<?php $n = strlen($a);\n", "none"],
  ["php", "<?php $n = \\StrLen($a);\n", "none"],
  ["php", "<?php function strlen($a) { return 0; } $n = strlen($a);\n", undefined],
  ["ruby", "n = 'a'.strip\n", "reads"],
  ["ruby", "n = File.join(a, b)\n", "reads"],
  ["ruby", "n = hive.strip\n", undefined],
  ["powershell", "$n = Test-Path $a\n", "reads"],
  ["powershell", "function Test-Path { 1 }\n$n = Test-Path $a\n", undefined],
])("%s: what is called in `%s` does: %s", (language, code, effect) => {
  expect(calledIn(language, code)?.effect).toBe(effect);
});

test("a project says what its own functions do, and by where they come from", () => {
  const library: Library = {
    calls: [{ language: "python", in: "scales", calls: ["tare"], effect: "none", gives: "int" }],
  };
  const asked = (code: string): string => {
    const tree = treeOf("python", code);
    placeIn(tree, { path: "a.py", library });
    const [call] = [...tree.root.descendants()].filter((node) => node.is("call"));
    return isSideEffectFree(call!).is;
  };
  expect(asked("import scales\nw = scales.tare(1)\n")).toBe("yes");
  expect(asked("import shelf as scales\nw = scales.tare(1)\n")).toBe("no");
  expect(calledIn("python", "import scales\nw = scales.tare(1)\n")).toBeUndefined();
});

const LANGUAGES: readonly LibraryLanguage[] = [
  "cpp",
  "csharp",
  "java",
  "javascript",
  "php",
  "powershell",
  "python",
  "ruby",
];

test.each(LANGUAGES)(
  "%s: no function stands in two rows, and none that may be missing never is",
  (language) => {
    const { calls } = shippedLibrary(language);
    const names = calls.flatMap((row) => row.calls.map((name) => `${row.in ?? ""} ${name}`));
    expect(names.filter((name, i) => names.indexOf(name) !== i)).toEqual([]);
    expect(calls.filter(({ runs, neverThrows }) => runs === true && neverThrows === true)).toEqual([]);
  },
);

/** Rows as the language's own program checks them: the functions are there, and give what the row says. */
const rowsFor = (language: LibraryLanguage): string =>
  JSON.stringify(
    shippedLibrary(language).calls.flatMap((row) =>
      row.calls.map((call) => ({
        call,
        in: row.in ?? "",
        gives: row.gives ?? "",
        neverThrows: row.neverThrows === true,
        runs: row.runs === true,
        effect: row.effect,
      })),
    ),
  );

const PYTHON = `
import builtins, importlib, itertools, json, sys
odd = []
pool = ["a,b", 2, [1, 2], {"a": 1}, b"a", 1.5, 0.5, None, object(), ("a",), "%s", ".", str, int]
def attempts(f, owner):
    for n in range(0, 3):
        for args in itertools.product(pool, repeat=n):
            yield args
samples = {"str": "a,b", "bytes": b"ab", "list": [1, 2], "dict": {"a": 1}, "set": {1}}
for row in json.load(sys.stdin):
    call = row["call"]
    try:
        if "#" in call:
            owner, name = call.split("#")
            target = getattr(samples[owner], name)
        elif row["in"]:
            target = getattr(importlib.import_module(row["in"]), call)
        else:
            target = getattr(builtins, call)
    except Exception as error:
        odd.append(call + " is not there")
        continue
    if row["effect"] in ("changes", "prints"):
        continue
    seen = 0
    for args in attempts(target, call):
        try:
            value = target(*args)
        except Exception as error:
            if row["neverThrows"] and not isinstance(error, TypeError):
                odd.append(call + " throws " + repr(error))
            continue
        seen += 1
        if row["gives"] and not isinstance(value, (frozenset if call == "frozenset" else getattr(builtins, row["gives"]))):
            odd.append(call + repr(args) + " gives " + repr(value))
            break
        if seen > 20:
            break
    if not seen and row["gives"]:
        odd.append(call + " was never called")
print(json.dumps(odd))
`;

const RUBY = `
require "json"
odd = []
samples = { "String" => "a,b", "Integer" => 2, "Float" => 1.5, "Symbol" => :a, "Array" => [2, 1], "Hash" => { "a" => 1 } }
pool = ["a", 2, 1.5, [1], "/"]
JSON.parse(STDIN.read).each do |row|
  call = row["call"]
  if call.include?("#")
    owner, name = call.split("#")
    receiver = samples.fetch(owner)
  else
    owner, name = call.split(".")
    receiver = Object.const_get(owner)
  end
  unless receiver.respond_to?(name)
    odd << "#{call} is not there"
    next
  end
  next if row["gives"] == "" || row["effect"] == "changes" || owner == "File" && name.start_with?("read")
  seen = false
  [[], *pool.map { |one| [one] }, *pool.product(pool)].each do |args|
    value = begin
      row["runs"] ? receiver.public_send(name, *args) { |one| one } : receiver.public_send(name, *args)
    rescue StandardError
      next
    end
    seen = true
    odd << "#{call} #{args.inspect} gives #{value.inspect}" unless value.is_a?(Object.const_get(row["gives"]))
    break
  end
  odd << "#{call} was never called" unless seen
end
puts JSON.dump(odd)
`;

const PHP = `
$odd = [];
$pool = ["a,b", 2, 1.5, ["a" => 1], ",", null];
$types = ["integer" => "int", "double" => "float", "boolean" => "bool", "string" => "string", "array" => "array"];
foreach (json_decode(stream_get_contents(STDIN), true) as $row) {
  $call = $row["call"];
  // Strings of several bytes are an extension that not every machine has.
  if (str_starts_with($call, "mb_") && !extension_loaded("mbstring")) continue;
  if (!is_callable($call)) { $odd[] = "$call is not there"; continue; }
  if ($row["gives"] === "" || $row["effect"] === "changes") continue;
  $seen = false;
  $tries = [[]];
  foreach ($pool as $a) { $tries[] = [$a]; foreach ($pool as $b) { $tries[] = [$a, $b]; $tries[] = [$a, $b, 1]; } }
  foreach ($tries as $args) {
    try { $value = @$call(...$args); }
    catch (ArgumentCountError $error) { continue; }
    catch (Error $error) { if ($row["neverThrows"]) $odd[] = "$call throws"; continue; }
    $seen = true;
    if (($types[gettype($value)] ?? "") !== $row["gives"]) { $odd[] = "$call gives " . gettype($value); break; }
  }
  if (!$seen) $odd[] = "$call was never called";
}
echo json_encode($odd);
`;

const judged = (command: string, args: readonly string[], language: LibraryLanguage): unknown =>
  JSON.parse(execFileSync(command, args, { input: rowsFor(language), encoding: "utf8" }));

testWith(["python3"], "python's own program finds what the table says", async () => {
  expect(judged("python3", ["-c", PYTHON], "python")).toEqual([]);
});

testWith(["ruby"], "ruby's own program finds what the table says", async () => {
  expect(judged("ruby", ["-e", RUBY], "ruby")).toEqual([]);
});

testWith(["php"], "php's own program finds what the table says", async () => {
  expect(judged("php", ["-r", PHP], "php")).toEqual([]);
});

const fromHere = createRequire(import.meta.url);
const libraryNamed = (name: string): Record<string, unknown> => fromHere(name) as Record<string, unknown>;

/** `lodash-es` has the same functions in another form. */
const LIBRARIES: Readonly<Record<string, Record<string, unknown>>> = {
  lodash: libraryNamed("lodash"),
  "lodash-es": libraryNamed("lodash"),
  underscore: libraryNamed("underscore"),
};

const kindOf = (value: unknown): string =>
  typeof value === "object" && value !== null ? "Object" : typeof value;

test("node finds what the table of JavaScript says", async () => {
  const odd: string[] = [];
  const samples: Record<string, unknown> = {
    string: "a,b",
    number: 2,
    Array: [2, 1],
    Map: new Map([["a", 1]]),
    WeakMap: new WeakMap(),
    Set: new Set(["a"]),
    WeakSet: new WeakSet(),
  };
  const pool: unknown[] = ["a", 2, [1], {}, null, undefined, (x: unknown) => x, Symbol("a"), 1n];
  const tries = [[], ...pool.map((one) => [one]), ...pool.flatMap((a) => pool.map((b) => [a, b]))];
  for (const { calls, in: from, gives, effect, neverThrows } of shippedLibrary("javascript").calls)
    for (const call of calls) {
      const [, owner, sign, name = call] = /^(?:(\w+)(#|\.))?(\w+)$/.exec(call) ?? [];
      const space: Record<string, unknown> =
        from === undefined
          ? { ...globalThis, Math, performance }
          : (LIBRARIES[from] ?? (await import(`node:${from}`)));
      const all = from === undefined ? (globalThis as Record<string, unknown>) : space;
      const receiver = sign === "#" ? samples[owner!] : owner === undefined ? all : all[owner];
      const makes = sign === "." && name === "new";
      const target: unknown = makes ? receiver : (receiver as Record<string, unknown> | undefined)?.[name];
      if (typeof target !== "function") {
        odd.push(`${call} is not there`);
        continue;
      }
      if (effect === "changes" || effect === "prints" || from === "fs") continue;
      let seen = false;
      for (const args of tries) {
        let value: unknown;
        try {
          value = makes ? Reflect.construct(target, args) : Reflect.apply(target, receiver, args);
        } catch (error) {
          if (neverThrows === true) odd.push(`${call} throws ${String(error)}`);
          continue;
        }
        seen = true;
        const is = Array.isArray(value) ? "Array" : gives === "Object" ? kindOf(value) : typeof value;
        if (gives !== undefined && is !== gives) odd.push(`${call} gives ${is}`);
      }
      if (!seen) odd.push(`${call} was never called`);
    }
  expect(odd).toEqual([]);
});
