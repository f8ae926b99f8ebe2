import { readFileSync } from "node:fs";
import "uvran/node";
import { allLanguages, loadGrammars } from "uvran/core";
import { parseFile, reparse } from "../../dist/syntax/parse.js";
import type { SyntaxTree } from "../../dist/syntax/tree.js";

await loadGrammars(allLanguages());
const ENDINGS = {
  javascript: "js",
  python: "py",
  java: "java",
  cpp: "cpp",
  csharp: "cs",
  php: "php",
  ruby: "rb",
};

/** What a tree says, whoever built it. */
const said = ({ size, kindIds, starts, ends, parents, errors }: SyntaxTree): unknown => ({
  size,
  kinds: [...kindIds.subarray(0, size)],
  spans: [...starts.subarray(0, size), ...ends.subarray(0, size)],
  parents: [...parents.subarray(0, size)],
  errors,
});

test.each(Object.entries(ENDINGS))("what edits make of %s is read as if it were new", (id, ending) => {
  const language = allLanguages().find((one) => one.id === id)!;
  const text = readFileSync(`tests/golden/languages/mixed.before.${ending}`, "utf8");
  const tree = parseFile(text, language);
  expect(tree.errors).toEqual([]);
  const after = (edits: readonly { start: number; end: number; text: string }[]): string =>
    [...edits]
      .reverse()
      .reduce((now, { start, end, text }) => now.slice(0, start) + text + now.slice(end), text);
  const leaves = Array.from({ length: tree.size }, (_, n) => n).filter(
    (n) => tree.isLeaf(n) && tree.isNamed(n),
  );
  for (const every of [7, 19, 40]) {
    const some = leaves.filter((_, i) => i % every === 3);
    const edits = some.map((n) => ({
      start: tree.starts[n]!,
      end: tree.ends[n]!,
      text: `${tree.textOf(n)}\n`,
    }));
    // A hole, so that the last text does not parse.
    for (const all of [edits, [...edits, { start: text.length, end: text.length, text: "\n(\n" }]]) {
      const again = reparse(tree, all, after(all));
      // Another text was read in between.
      for (let i = 0; i < 6; i++) parseFile(`${text}\n`, language);
      expect(said(reparse(tree, all, after(all)))).toEqual(said(again));
      expect(said(again)).toEqual(said(parseFile(after(all), language)));
    }
  }
});
