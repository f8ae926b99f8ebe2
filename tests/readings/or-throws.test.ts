import { languageOf, loadGrammars, orThrows, holes, parse, type LanguageId } from "uvran/core";
import "uvran/node";

const { value, error } = holes({ value: "expression", error: "expression" });

/** What is read anywhere in a piece of code: the value, the error, and the statement that the value goes to. */
async function read(id: LanguageId, code: string): Promise<string[]> {
  const language = languageOf(id);
  await loadGrammars([language]);
  const tree = parse(code, language);
  const reading = orThrows(value, error);
  const kinds = reading.kindsIn(language);
  return [...tree.root.descendants()].flatMap((node) => {
    const found = node.is(kinds) ? reading.readAt(node) : undefined;
    if (!found) return [];
    const shown = [value, error].map((hole) => {
      const { start, end } = found.captures.get(hole)!;
      return tree.text.slice(start, end);
    });
    return [[...shown, found.frame!.statement.text].join(" | ")];
  });
}

const inJava = (code: string): string => `class A { Hive f(Hive x) { ${code} } }`;
const inPhp = (code: string): string => `<?php function f($x) { ${code} }`;
const inScript = (code: string): string => `function f(x) { ${code} }`;

test.each<[LanguageId, string, string[]]>([
  ["java", inJava("if (x == null) throw new E(); return x;"), ["x | new E() | return x;"]],
  ["java", inJava("if (x != null) { return x; } throw new E();"), ["x | new E() | return x;"]],
  ["java", inJava("if (!(x == null)) return x; else throw new E();"), ["x | new E() | return x;"]],
  ["java", inJava("if (null == x) { throw e; } else { y = x; }"), ["x | e | y = x;"]],
  ["java", inJava("if (x == null) throw new E(); Hive y = x;"), ["x | new E() | Hive y = x;"]],
  ["csharp", inJava("if (x is null) throw new E(); return x;"), ["x | new E() | return x;"]],
  ["php", inPhp("if ($x === null) { throw new E(); } return $x;"), ["$x | new E() | return $x;"]],
  ["php", inPhp("if (!is_null($x)) return $x; throw new E();"), ["$x | new E() | return $x;"]],
  ["javascript", inScript("if (x == null) throw new E(); return x;"), ["x | new E() | return x;"]],
  ["typescript", inScript("if (x != null) { y = x; } else { throw new E(); }"), ["x | new E() | y = x;"]],
  ["python", "def f(x):\n    if x is None:\n        raise E()\n    return x\n", ["x | E() | return x"]],
  // What leaves is no exception, the value is another, or more is done.
  ["php", inPhp("if ($x === null) { exit(1); } return $x;"), []],
  ["php", "<?php function &f($x) { if ($x === null) throw new E(); return $x; }", []],
  ["java", inJava("if (x == null) throw new E(); return x.next;"), []],
  ["java", inJava("if (x != null) throw new E(); return x;"), []],
  ["java", inJava("if (x == null) { log(); throw new E(); } return x;"), []],
  ["java", inJava("if (x != null) { y = x; } throw new E();"), []],
  ["java", inJava("if (x == null) return y; return x;"), []],
])("%s: %s", async (id, code, wanted) => {
  expect(await read(id, code)).toEqual(wanted);
});
