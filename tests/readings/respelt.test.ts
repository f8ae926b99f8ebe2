import { countErrors, Engine, languageOf, parse, textAfter, type LanguageId } from "uvran/core";
import "uvran/node";
import { SHIPPED } from "uvran/packs";
import { behaviours } from "../../bench/respell/behave.js";
import { respellings } from "../../bench/respell/respell.js";
import "../languages.js";

/** A sample of the respelling battery; `bench/respell.ts` has all of it. */
test.each<[string, LanguageId, string, string]>([
  ["javascript/value-or-fallback", "javascript", "js", "function f(x) {\n  return x != null ? x : 1;\n}\n"],
  [
    "javascript/assigned-if-missing",
    "javascript",
    "js",
    "function f(x) {\n  if (x == null) x = 1;\n  return x;\n}\n",
  ],
  [
    "javascript/guarded-call",
    "javascript",
    "js",
    "function f(x) {\n  return x != null ? x.a : undefined;\n}\n",
  ],
  [
    "python/branch-to-value",
    "python",
    "py",
    "def f(x):\n    if x:\n        y = x\n    else:\n        y = 0\n    return y\n",
  ],
  ["python/lookup-or-default", "python", "py", "def f(x: dict, k):\n    return x[k] if k in x else 0\n"],
  ["php/value-or-fallback", "php", "php", "<?php\nfunction f($x) {\n    return isset($x) ? $x : 1;\n}\n"],
  ["ruby/fetch-or-default", "ruby", "rb", "h = { a: 1 }\nx = h.key?(:a) ? h[:a] : 0\n"],
  [
    "csharp/value-or-fallback",
    "csharp",
    "cs",
    "class A { object F(object a, object b) {\n    return a != null ? a : b;\n} }\n",
  ],
  [
    "powershell/value-or-fallback",
    "powershell",
    "ps1",
    "function F($x) {\n    if ($null -eq $x) { $y = 1 } else { $y = $x }\n}\n",
  ],
])(
  "%s finds what its code says in other spellings, and it does the same afterwards",
  async (id, language, ending, code) => {
    const rule = SHIPPED.flatMap(({ rules }) => rules).find((one) => one.id === id)!;
    const newest = { powershell: "7.2", php: "8.2" } as Partial<Record<LanguageId, string>>;
    const version = newest[language];
    const targets = {
      targetOf: () => (version === undefined ? undefined : { version, says: "the test says it" }),
    };
    const engine = new Engine([rule], { targets: targets as never });
    const all = [{ how: "as it is", code }, ...respellings(parse(code, languageOf(language)))].filter(
      (one) => countErrors(one.code, languageOf(language)) === 0,
    );
    expect(all.length).toBeGreaterThan(4);
    const did = behaviours(
      language,
      all.map((one) => one.code),
    );
    const same = all.filter((_, i) => !did || did[i] === did[0]);
    const missed: string[] = [];
    const results: string[] = [];
    for (const one of same) {
      const { changes } = (await engine.file(`trial.${ending}`, one.code))!;
      if (changes.length === 0) missed.push(`${one.how}\n${one.code}`);
      results.push(await textAfter(`trial.${ending}`, one.code, changes));
    }
    expect(missed).toEqual([]);
    const after = behaviours(language, results);
    if (after && did) expect(new Set(after)).toEqual(new Set([did[0]]));
  },
);
