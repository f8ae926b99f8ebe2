import { spawnSync } from "node:child_process";
import type { LanguageId } from "uvran";
import { SHIPPED } from "uvran/packs";

/** The compiler of TypeScript, which reads JavaScript as well. */
function byCompiler(fileName: string): readonly string[] {
  const code = `const ts = require("typescript");
    const options = { allowJs: true, target: "esnext", jsx: "preserve" };
    const faultIn = (code) =>
      ts.transpileModule(code, { fileName: "${fileName}", compilerOptions: options, reportDiagnostics: true })
        .diagnostics.map(({ messageText }) => ts.flattenDiagnosticMessageText(messageText, " "))[0] ?? null;
    console.log(JSON.stringify(JSON.parse(require("fs").readFileSync(0, "utf8")).map(faultIn)));`;
  return [process.execPath, "-e", code];
}

/** Programs of the languages themselves: given a list of texts, they name those that they cannot read. */
const READERS: Partial<Record<LanguageId, readonly string[]>> = {
  ruby: [
    "ruby",
    "-W0",
    "-rjson",
    "-e",
    `def fault(code)
       RubyVM::InstructionSequence.compile(code)
       nil
     rescue SyntaxError => e
       e.message
     end
     # What yields stands in a method.
     puts JSON.parse($stdin.read).map { |code| fault(code) && fault("def m\\n#{code}\\nend") }.to_json`,
  ],
  javascript: byCompiler("a.jsx"),
  typescript: byCompiler("a.ts"),
  python: [
    "python3",
    "-Wignore",
    "-c",
    `import json, sys, textwrap
def fault(code):
    try:
        compile(textwrap.dedent(code), "trial", "exec")
    except SyntaxError as e:
        return str(e)
print(json.dumps([fault(code) for code in json.load(sys.stdin)]))`,
  ],
  php: [
    "php",
    "-r",
    `echo json_encode(array_map(function ($code) {
       try { token_get_all($code, TOKEN_PARSE); } catch (ParseError $e) { return $e->getMessage(); }
       return null;
     }, json_decode(stream_get_contents(STDIN))));`,
  ],
};

/** What the trials of all rules come to, in one language, without what was no program to begin with. */
function pairsIn(language: LanguageId): { readonly was: string; readonly now: string }[] {
  const trials = SHIPPED.flatMap(({ rules }) => rules).flatMap((rule) => rule.trials);
  return trials
    .filter((trial) => trial.language === language && trial.now !== trial.was)
    .map(({ was, now }) => ({ was, now }));
}

test.each(Object.keys(READERS) as LanguageId[])(
  "what rules make of their trials is accepted by %s itself",
  (language) => {
    const [program, ...words] = READERS[language]!;
    if (spawnSync(program!, ["--version"]).error) return console.warn(`${program} is not installed`);
    const faultsIn = (texts: readonly string[]): (string | null)[] => {
      const { stdout, stderr } = spawnSync(program!, words, {
        input: JSON.stringify(texts),
        encoding: "utf8",
      });
      if (stdout === "") throw new Error(stderr);
      return JSON.parse(stdout) as (string | null)[];
    };
    const pairs = pairsIn(language);
    expect(pairs.length).toBeGreaterThan(50);
    const before = faultsIn(pairs.map(({ was }) => was));
    const after = faultsIn(pairs.map(({ now }) => now));
    const worse = pairs.filter((_, i) => before[i] === null && after[i] !== null).map(({ now }) => now);
    expect(worse).toEqual([]);
    expect(before.filter((fault) => fault === null).length).toBeGreaterThan(pairs.length * 0.6);
  },
);
