import { createRequire } from "node:module";
import { inspect } from "node:util";
import { runInNewContext } from "node:vm";
import "uvran/node";
import { applyEdits, Engine } from "uvran";
import javascriptPack from "uvran/packs/javascript";

// What the libraries themselves give for many calls must be what the rewritten calls give, wherever that is certain.

const load = createRequire(import.meta.url);
const [rule] = javascriptPack.rules.filter(({ id }) => id === "javascript/native-function");

const SUBJECTS = [
  "[1, 2, 2, 3]",
  "[]",
  "['b', 'a', '']",
  "[[1], [2, [3]]]",
  "[{ age: 1, name: 'x' }, { age: 2, name: 'y' }]",
  "new Array(3)",
  "[1, , 3]",
  "null",
  "undefined",
  "'abc'",
  "' x '",
  "{ a: 1, b: { c: 2 } }",
  "{ length: 2, 0: 'p', 1: 'q' }",
  "[NaN, -0, 0]",
  "[0, null, '', false, 5]",
  "[['k', 1], ['l', 2]]",
  "-2",
  "() => 1",
];
const FUNCTIONS = ["(x) => x", "function (x) { return x === 2; }", "(x, i) => [x, i]", "(v, key) => key + v"];
const SHORT = ["'age'", "{ name: 'x' }", "['age', 2]"];
const ALONE =
  "first head last initial tail rest compact uniq flatten flattenDeep reverse fromPairs keys values toPairs entries " +
  "isEmpty size sum clone isArray isUndefined isNull isNil isFunction isString isNumber isBoolean isInteger isFinite " +
  "isNaN trim toUpper toLower range";
const WITH_FUNCTION =
  "map filter reject some every find findIndex flatMap pluck where findWhere sumBy keyBy indexBy forOwn each";
const WITH_VALUE: Readonly<Record<string, readonly string[]>> = {
  "take first drop rest tail takeRight dropRight": ["0", "1", "-1", "k"],
  "concat without indexOf includes": ["2", "NaN", "'a'", "k"],
  "join split startsWith endsWith repeat padStart": ["'a'", "2"],
  "has get": ["'a'", "'0'", "'b.c'", "'[1].age'"],
  "assign extend": ["{ z: 1 }", "k"],
  range: ["4", "-3"],
};
const CHAINS = [
  "_.chain(V).filter((x) => x).map((x) => x + 1).uniq().value()",
  "_(V).map('age').compact().first()",
  "_(V).keys().map((x) => x + 1).join('-')",
  "!_.isEmpty(V)",
  "_.reduce(V, (s, x) => s + x, 0)",
];

/** Calls of the library's functions, each as the code of a function without parameters. */
function callsOf(has: (name: string) => boolean): string[] {
  const known = (names: string): string[] => names.split(" ").filter(has);
  const forms = [
    ...known(ALONE).map((name) => `_.${name}(V)`),
    ...known(WITH_FUNCTION).flatMap((name) => [...FUNCTIONS, ...SHORT].map((fn) => `_.${name}(V, ${fn})`)),
    ...Object.entries(WITH_VALUE).flatMap(([names, values]) =>
      known(names).flatMap((name) => values.map((value) => `_.${name}(V, ${value})`)),
    ),
    ...CHAINS.filter((chain) =>
      [...chain.matchAll(/\.(\w+)\(/g)].every(([, name]) => name === "value" || has(name!)),
    ),
  ];
  return forms.flatMap((form) =>
    SUBJECTS.map((subject) => `const v = ${subject}; return ${form.replace("V", "v")};`),
  );
}

const gives = (code: string, context: object): string => {
  try {
    return inspect(runInNewContext(`(function () { ${code} })()`, context), { depth: 5 });
  } catch (error) {
    return `throws ${(error as Error).name}`;
  }
};

test.each(["lodash", "underscore"])("what is certain of %s gives what the library gives", async (library) => {
  const _ = load(library) as Record<string, unknown>;
  const calls = callsOf((name) => typeof _[name] === "function");
  const context = { _, k: 1 };
  const odd: string[] = [];
  let rewritten = 0;
  for (let at = 0; at < calls.length; at += 60) {
    const some = calls.slice(at, at + 60);
    const head = `import _ from "${library}";\n`;
    const code = head + some.map((call) => `run(function () { ${call} });\n`).join("");
    const { changes } = (await new Engine([rule!]).file("a.js", code))!;
    const certain = changes.filter(({ trust }) => trust === "certain");
    const lines = applyEdits(
      code,
      certain.flatMap(({ edits }) => edits),
    )
      .split("\n")
      .slice(1);
    for (const [i, call] of some.entries()) {
      const now = lines[i]!.slice("run(function () { ".length, -" });".length);
      if (now === call) continue;
      rewritten++;
      const [old, is] = [gives(call, context), gives(now, context)];
      if (old !== is) odd.push(`${call}\n  became ${now}\n  gave ${old}\n  gives ${is}`);
    }
  }
  expect(odd).toEqual([]);
  expect(rewritten).toBeGreaterThan(300);
});
