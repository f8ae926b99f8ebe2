import {
  holes,
  javascript,
  matchesIn,
  python,
  typescript,
  compile,
  type LanguageId,
  type Snippet,
  SnippetError,
} from "uvran/core";
import { treeOf } from "../languages.js";

const { a, b, n, rest, body } = holes({
  a: "expression",
  b: "expression",
  n: "name",
  rest: "arguments",
  body: "statements",
});

/** For each match the texts of the holes, by name. */
function found(snippet: Snippet, language: LanguageId, code: string): Record<string, string>[] {
  const tree = treeOf(language, code);
  return [...matchesIn(compile(snippet, language), tree, 0)].map(({ captures }) =>
    Object.fromEntries([...captures].map(([hole, c]) => [hole.name, code.slice(c.start, c.end)])),
  );
}

test("a hole that occurs twice means the same code twice, layout and quotes aside", () => {
  const twice = javascript`${a} && ${a}.${n}`;
  expect(found(twice, "javascript", "x['k'] && x[ \"k\" ].y; p && q.r;")).toEqual([{ a: "x['k']", n: "y" }]);
});

test("parentheses and comments do not matter, structure does", () => {
  expect(found(javascript`${a} != null`, "typescript", "((x)) /* ? */ != null")).toEqual([{ a: "((x))" }]);
  expect(found(javascript`${a} + ${b} * 2`, "javascript", "(x + y) * 2; x + (y * 2)")).toEqual([
    { a: "x", b: "y" },
  ]);
});

test("list holes take any number, also none", () => {
  const code = "f(); f(1); f(1, 2, 3); g(1); f(...x);";
  expect(found(javascript`f(${rest})`, "javascript", code).map((m) => m["rest"])).toEqual([
    "",
    "1",
    "1, 2, 3",
    "...x",
  ]);
  expect(found(javascript`f(${a}, ${rest})`, "javascript", code)).toEqual([
    { a: "1", rest: "" },
    { a: "1", rest: "2, 3" },
  ]);
});

test("statements side by side are matched as far as the first end that fits", () => {
  const window = python`
    ${n} = open(${a})
    ${body}
    ${n}.close()
  `;
  const code = "f = open(p)\nx = 1\ng.close()\ny = 2\nf.close()\nf.close()\n";
  expect(found(window, "python", code)).toEqual([{ n: "f", a: "p", body: "x = 1\ng.close()\ny = 2" }]);
  expect(found(window, "python", "f = open(p); x = 1; f.close()\n")).toEqual([]);
});

test("a hole for an expression does not take what is not one", () => {
  expect(found(javascript`f(${a})`, "javascript", "f(...x)")).toEqual([]);
  expect(found(python`f(${a})`, "python", "f(k=1); f(*x); f(y)")).toEqual([{ a: "y" }]);
  expect(found(python`${n} = ${a}`, "python", "x = y = 1")).toEqual([]);
});

test("a hole for one statement takes any one, with its semicolon or without", () => {
  const { s } = holes({ s: "statement" });
  const code = "if (x) { y() } if (x) { return; } if (x) { a; b; } if (x) {}";
  expect(found(javascript`if (x) { ${s} }`, "javascript", code)).toEqual([{ s: "y()" }, { s: "return;" }]);
});

test("snippets of JavaScript are understood in TypeScript and TSX, not the other way round", () => {
  const call = javascript`f(${a})`;
  expect(found(call, "typescript", "f(x as T)")).toEqual([{ a: "x as T" }]);
  expect(found(call, "tsx", "<p>{f(<b/>)}</p>")).toEqual([{ a: "<b/>" }]);
  expect(found(typescript`${a} as ${n}`, "tsx", "x as T")).toEqual([{ a: "x", n: "T" }]);
});

test("alternatives of layout: one-line suites, tokens that hold white space, keywords as text", () => {
  const missing = python`
    if ${a} is not None:
        ${body}
  `;
  expect(found(missing, "python", "if x  is  not\\\n None: y = 1; z = 2\n")).toEqual([
    { a: "x", body: "y = 1; z = 2" },
  ]);
  expect(found(python`${a} not in ${b}`, "python", "x not in y; x in y")).toEqual([{ a: "x", b: "y" }]);
});

test("a snippet that does not parse is refused with its text", () => {
  expect(() => compile(javascript`if (${a} {`, "javascript")).toThrow(SnippetError);
  expect(() => compile(javascript`if (${a} {`, "javascript")).toThrow("⟨a⟩");
  expect(() => compile(javascript`${a}`, "javascript")).toThrow("other than a hole");
});
