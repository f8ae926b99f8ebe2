import { execFileSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Script } from "node:vm";
import "uvran/node";
import ts from "typescript";
import {
  Engine,
  holes,
  javascript,
  php,
  python,
  rule,
  ruby,
  textAfter,
  typescript,
  type Snippet,
} from "uvran";
import { isInstalled } from "../toolchains.js";

// Grammars take code without parentheses where the languages want some: what is put in a place of another code must
// still be code to those who run it.

interface Spoken {
  readonly file: string;
  readonly needs?: string;
  readonly was: Snippet;
  readonly becomes: Snippet;
  /** Where `@` is put, each in a function of its own. */
  readonly places: string;
  readonly values: string;
  readonly comment: string;
  readonly inFunction: (code: string) => string;
  readonly areFine: (programs: readonly string[]) => readonly boolean[];
}

const { value } = holes({ value: "expression" });

/** Asks an interpreter about many programs at once: its script reads them from the file it is told, and prints the answers. */
function asked(command: string, args: readonly string[], programs: readonly string[]): boolean[] {
  const file = join(mkdtempSync(join(tmpdir(), "uvran-bare-")), "programs.json");
  writeFileSync(file, JSON.stringify(programs));
  const stdio = ["ignore", "pipe", "ignore"] as const;
  const out = execFileSync(command, [...args, file], { encoding: "utf8", maxBuffer: 1e8, stdio: [...stdio] });
  return JSON.parse(out) as boolean[];
}

const PYTHON = `
import json, sys
def fine(code):
    try: return bool(compile(code, "f", "exec"))
    except SyntaxError: return False
print(json.dumps([fine(code) for code in json.load(open(sys.argv[1]))]))`;
const RUBY = `
def fine(code) = !!RubyVM::InstructionSequence.compile(code) rescue false
puts JSON.dump(JSON.parse(File.read(ARGV[0])).map { |code| begin; fine(code); rescue SyntaxError; false; end })`;
const PHP = `
function fine($code) { try { token_get_all($code, TOKEN_PARSE); return true; } catch (ParseError) { return false; } }
echo json_encode(array_map('fine', json_decode(file_get_contents($argv[1]))));`;

const isScript = (code: string): boolean => {
  try {
    return new Script(code) instanceof Script;
  } catch {
    return false;
  }
};

const LANGUAGES: readonly Spoken[] = [
  {
    file: "a.py",
    needs: "python3",
    was: python`hold(${value})`,
    becomes: python`${value}`,
    places: `x = @; x += @; x: int = @; return @; raise @; assert @; f(@); f(1, @); f(a=@); f(*@); [@]; [1, *@]; {@}; {1: @};
      {**@}; (1, @); x[@]; x[@:1]; @.a; @[0]; @ + 1; 1 + @; a and @; a == @; not @; -@; await @; @ if c else d;
      a if @ else d; a if c else @; lambda: @; lambda a=@: 1; [@ for a in b]; [a for a in @]; [a for a in b if @]; f'{@}'`,
    values: `(yield); (yield 1); (yield from q); (n := 1); (lambda: 1); (not q); (await q); (q if r else s); (-q); (q or r);
      (q == r); (q | r); (q ** r); 1; (q, r)`,
    comment: "#",
    inFunction: (code) => `def fn():\n    ${code}\n`,
    areFine: (programs) => asked("python3", ["-W", "ignore", "-c", PYTHON], programs),
  },
  {
    file: "a.js",
    was: javascript`hold(${value})`,
    becomes: javascript`${value}`,
    places: `@; x = @; return @; f(@); f(...@); [@]; y = {a: @}; y = {[@]: 1}; x[@]; @.a; @[0]; @(); new @(); @ + 1; 1 + @;
      a && @; @ ?? b; a === @; !@; typeof @; await @; @ ? c : d; a ? @ : d; a ? c : @; y = () => @; for (const q of @) {};
      class A extends @ {}; @ ** 2; a ** @; @?.a; x += @; if (@) {}`,
    values: `yield; yield 1; q => 1; async () => {}; q = 1; q += 1; await q; q ? r : s; (q, r); q ?? r; q || r; !q; -q; q ** r;
      {a: 1}; function () {}; class {}; new q; new q(); q?.r; q++; typeof q; 1`,
    comment: "//",
    inFunction: (code) => `async function* fn() {\n  ${code};\n}\n`,
    areFine: (programs) => programs.map(isScript),
  },
  {
    file: "a.ts",
    was: typescript`hold(${value})`,
    becomes: typescript`${value}`,
    places: `@; x = @; return @; f(@); [@]; x[@]; @.a; @!; @[0]; @(); new @(); @ + 1; a && @; @ ?? b; @ < b; !@; await @; @ ? c : d;
      a ? @ : d; y = () => @; for (const q of @) {}; class A extends @ {}; @ ** 2; @?.a; @ as T; @ satisfies T`,
    values: `q as T; q satisfies T; q!; <T>q; q => 1; q = 1; q ? r : s; -q; q<T>; new Q<T>; new Q; {a: 1}; q?.r!`,
    comment: "//",
    inFunction: (code) => `async function* fn() {\n  ${code};\n}\n`,
    areFine: (programs) =>
      programs.map(
        (code) =>
          ts.transpileModule(code, {
            reportDiagnostics: true,
            compilerOptions: { target: ts.ScriptTarget.ESNext },
          }).diagnostics?.length === 0,
      ),
  },
  {
    file: "a.php",
    needs: "php",
    was: php`hold(${value})`,
    becomes: php`${value}`,
    places: `@; $x = @; return @; f(@); $y = [@]; $y = [...@]; $x[@]; @->a; @?->a; @[0]; @ + 1; 1 + @; 'a' . @; $a && @;
      @ ?? $b; $a === @; $a <=> @; !@; -@; (int) @; clone @; @ ? 1 : 2; $a ? @ : 2; $a ? 1 : @; $a ?: @; $y = fn() => @;
      foreach (@ as $q) {}; yield @; @ ** 2; $x .= @; @ instanceof A`,
    values: `yield 1; fn() => 1; $q = 1; $q ? 1 : 2; $q ?? 2; $q and 2; !$q; -$q; $q ** 2; $q === 2; function () {}; new Q;
      new Q(); $q->r; $q++; (int) $q; clone $q; 1; 'a'; [1]; Q::r(); $q instanceof R; $q . 1; $q <=> 1; @$q`,
    comment: "//",
    inFunction: (code) => `function f1() {\n  ${code};\n}\n`,
    areFine: (programs) =>
      asked(
        "php",
        ["-r", PHP, "--"],
        programs.map((code) => `<?php\n${code}`),
      ),
  },
  {
    file: "a.rb",
    needs: "ruby",
    was: ruby`hold(${value})`,
    becomes: ruby`${value}`,
    places: `@; x = @; x ||= @; return @; f(@); f(1, @); f(*@); f(a: @); [@]; y = {a: @}; x[@]; @.a; @&.a; @ + 1; 1 + @; a && @;
      a and @; @ == b; !@; not @; -@; @ ? c : d; a ? @ : d; a ? c : @; "#{@}"; f if @; @ if a; (1..@); @ ** 2; a <=> @; yield @; yield(@)`,
    values: `(q = 1); (q ? 1 : 2); (q || 2); (q or r); (not q); (!q); (-q); (q ** 2); (q r); (q.r 1, 2); (yield 1); (1..2); (q == r);
      (q <=> 1); {a: 1}; [1]; 1; (q = 1, 2); (q.r { 1 })`,
    comment: "#",
    inFunction: (code) => `def fn\n  ${code}\nend\n`,
    areFine: (programs) => asked("ruby", ["-W0", "-rjson", "-e", RUBY], programs),
  },
];

const listed = (text: string): string[] =>
  text
    .split(";")
    .map((one) => one.trim().replace(/\n\s*/, " "))
    .filter((one) => one !== "");

for (const { file, needs, was, becomes, places, values, comment, inFunction, areFine } of LANGUAGES)
  (needs === undefined || isInstalled(needs) ? test : test.skip)(
    `what is put in another's place has the parentheses that it needs there: ${file}`,
    async () => {
      const all = listed(places).flatMap((place) =>
        listed(values).map((one) => inFunction(place.replace("@", `hold(${one})`))),
      );
      const isFine = areFine(all);
      const programs = all.filter((_, i) => isFine[i]);
      expect(programs.length).toBeGreaterThan(200);
      const mark = `${comment} next`;
      const start = file.endsWith(".php") ? "<?php\n" : "";
      const source = start + programs.join(`${mark}\n`);
      const held = rule({
        id: "tests/held",
        kind: "idiom",
        title: "Give what is held",
        why: "…",
        was,
        becomes,
        trials: [],
      });
      const { changes } = (await new Engine([held]).file(file, source))!;
      expect(changes.length).toBeGreaterThan(programs.length / 2);
      const after = (await textAfter(file, source, changes)).slice(start.length).split(`${mark}\n`);
      expect(after).toHaveLength(programs.length);
      const stillFine = areFine(after);
      expect(after.filter((_, i) => !stillFine[i])).toEqual([]);
    },
  );
