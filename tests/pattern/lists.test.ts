import fc from "fast-check";
import { compile, holes, matchesIn, python, type Snippet } from "uvran/core";
import { treeOf } from "../languages.js";

const { n, x, first, second } = holes({ n: "name", x: "name", first: "statements", second: "statements" });

/** Offsets and ends of all matches. */
function ranges(snippet: Snippet, code: string): [number, number][] {
  const tree = treeOf("python", code);
  return [...matchesIn(compile(snippet, "python"), tree, 0)].map((match) => [match.start, match.end]);
}

/** The same found the slow way: lines `begin N`, then the first `mid X` and `end X` after which all fits. */
function slowly(
  lines: readonly string[],
  fits: (i: number, j: number, k: number) => boolean,
): [number, number][] {
  const starts = lines.map((_, i) => lines.slice(0, i).join("\n").length + (i > 0 ? 1 : 0));
  const found: [number, number][] = [];
  for (let i = 0; i < lines.length; i++) {
    search: for (let j = i + 1; j < lines.length; j++) {
      for (let k = j + 1; k < lines.length; k++) {
        if (!fits(i, j, k)) continue;
        found.push([starts[i]!, starts[k]! + lines[k]!.length]);
        break search;
      }
    }
  }
  return found;
}

const line = fc.constantFrom("begin(a)", "begin(b)", "mid(a)", "mid(b)", "end(a)", "end(b)", "x = a");
const programs = fc.array(line, { minLength: 1, maxLength: 14 });
const argument = (text: string): string => text.slice(text.indexOf("("));
const is = (text: string | undefined, call: string): boolean => text?.startsWith(call) ?? false;

test("two lists between three statements, one name in all of them", () => {
  const snippet = python`
    begin(${n})
    ${first}
    mid(${n})
    ${second}
    end(${n})
  `;
  fc.assert(
    fc.property(programs, (lines) => {
      const same = (...at: number[]): boolean => new Set(at.map((i) => argument(lines[i]!))).size === 1;
      const fits = (i: number, j: number, k: number): boolean =>
        is(lines[i], "begin") && is(lines[j], "mid") && is(lines[k], "end") && same(i, j, k);
      expect(ranges(snippet, lines.join("\n"))).toEqual(slowly(lines, fits));
    }),
    { numRuns: 400, seed: 5 },
  );
});

test("a name that is filled between the lists is tried again with another", () => {
  const snippet = python`
    begin(${n})
    ${first}
    mid(${x})
    ${second}
    end(${x})
  `;
  fc.assert(
    fc.property(programs, (lines) => {
      const fits = (i: number, j: number, k: number): boolean =>
        is(lines[i], "begin") &&
        is(lines[j], "mid") &&
        is(lines[k], "end") &&
        argument(lines[j]!) === argument(lines[k]!);
      expect(ranges(snippet, lines.join("\n"))).toEqual(slowly(lines, fits));
    }),
    { numRuns: 400, seed: 6 },
  );
});

test("lists side by side: the second takes what there is", () => {
  const snippet = python`
    begin(${n})
    ${first}
    ${second}
    end(${n})
  `;
  const code = "begin(a)\nx = 1\ny = 2\nend(a)";
  const tree = treeOf("python", code);
  const [match] = [...matchesIn(compile(snippet, "python"), tree, 0)];
  const taken = [first, second].map((hole) => match!.captures.get(hole)!.nodes.length);
  expect(taken).toEqual([0, 2]);
});

test("the same list twice means the same statements twice", () => {
  const twice = python`
    if ${n}:
        ${first}
    else:
        ${first}
  `;
  expect(ranges(twice, "if a:\n    x = 1\n    y()\nelse:\n    x = (1)\n    y()  # too\n")).toHaveLength(1);
  expect(ranges(twice, "if a:\n    x = 1\nelse:\n    x = 2\n")).toHaveLength(0);
});
