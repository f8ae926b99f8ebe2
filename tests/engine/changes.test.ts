import fc from "fast-check";
import "uvran/node";
import {
  applyEdits,
  cpp,
  Engine,
  holes,
  javascript,
  python,
  rule,
  ruby,
  type Change,
  type Rule,
  type RuleSpec,
} from "uvran";
import javascriptPack from "uvran/packs/javascript";
import pythonPack from "uvran/packs/python";

const shipped = [...javascriptPack.rules, ...pythonPack.rules];
const { a, b, body } = holes({ a: "expression", b: "expression", body: "statements" });

const make = (id: string, spec: Pick<RuleSpec, "was" | "becomes"> & Partial<RuleSpec>): Rule =>
  rule({ id: `test/${id}`, kind: "idiom", title: id, why: "to try the engine", trials: [], ...spec });

async function run(rules: readonly Rule[], code: string, file = "a.js") {
  const result = (await new Engine(rules).file(file, code))!;
  const after = (changes: readonly Change[]): string =>
    applyEdits(
      code,
      changes.flatMap((change) => change.edits),
    );
  return { ...result, after, all: after(result.changes) };
}

test("a match that an earlier change made possible joins it, against the original text", async () => {
  const first = make("first", { was: javascript`one(${a})`, becomes: javascript`two(${a})` });
  const second = make("second", {
    was: javascript`two(${a}) + ${b}`,
    becomes: javascript`three(${b}, ${a})`,
  });
  const code = "x(one(1) + 2); y(one(3));";
  const { changes, all } = await run([first, second], code);
  expect(changes.map((change) => change.rules)).toEqual([["test/first", "test/second"], ["test/first"]]);
  expect(all).toBe("x(three(2, 1)); y(two(3));");
  expect(applyEdits(code, changes[1]!.edits)).toBe("x(one(1) + 2); y(two(3));");
});

test("inner changes apply inside captured code, each on its own", async () => {
  const { changes, after, all } = await run(shipped, "f(p != null ? p : g(q == null ? 1 : q));\n");
  const [outer, inner] = changes;
  expect(all).toBe("f(p ?? g(q ?? 1));\n");
  expect(after([outer!])).toBe("f(p ?? g(q == null ? 1 : q));\n");
  expect(after([inner!])).toBe("f(p != null ? p : g(q ?? 1));\n");
});

test("rules that undo each other are named, and what they made is held back", async () => {
  const there = make("there", { was: javascript`left(${a})`, becomes: javascript`right(${a})` });
  const back = make("back", { was: javascript`right(${a})`, becomes: javascript`left(${a})` });
  const { changes, heldBack } = await run([there, back], "left(1); x != null ? x : 1;");
  expect(changes).toEqual([]);
  expect(heldBack[0]!.reason).toMatch(
    /the rules test\/back and test\/there find work in what the other has written/,
  );
});

test("what would not parse or would lose a comment is held back, and the rest goes on", async () => {
  const broken = make("broken", {
    was: javascript`bad(${a})`,
    becomes: ({ node }) => [{ start: node.start, end: node.end - 1 }],
  });
  const lossy = make("lossy", { was: javascript`drop(${a})`, becomes: javascript`kept()` });
  const code = "bad(1);\ndrop(/* why */ 2);\ndrop(3);\ndrop(\n  4, // no\n);\n";
  const { all, heldBack } = await run([broken, lossy], code);
  expect(all).toBe("bad(1);\n/* why */ kept();\nkept();\nkept( // no\n);\n");
  expect(heldBack.map((entry) => entry.reason)).toEqual(["the new code `bad(1` has a syntax error"]);
});

test("a comment may not end a line that has to go on", async () => {
  const rename = make("rename", { was: javascript`drop(${a})`, becomes: javascript`kept()` });
  const code = "const f = () => {\n  return drop( // why\n    1);\n};\nx = drop( // how\n  2);\n";
  const { all, heldBack } = await run([rename], code);
  expect(all).toBe("const f = () => {\n  return drop( // why\n    1);\n};\nx = // how\n  kept();\n");
  expect(heldBack.map((entry) => entry.reason)).toEqual([
    "a comment in the old code has no place in the new",
  ]);
});

/** One statement that becomes two. */
const OPENED = {
  js: {
    id: "javascript",
    was: javascript`keep(hive);`,
    becomes: javascript`open(hive);
kept(hive);`,
    end: ";",
  },
  py: {
    id: "python",
    was: python.statement`keep(hive)`,
    becomes: python`open(hive)
kept(hive)`,
    end: "",
  },
  rb: {
    id: "ruby",
    was: ruby.statement`keep(hive)`,
    becomes: ruby`open(hive)
kept(hive)`,
    end: "",
  },
};

test.each([
  ["of the next line", "js", "// tool-disable-next-line all", false],
  ["of the next line", "js", "// @ts-expect-error", false],
  ["of the next line", "py", "# type: ignore", false],
  ["of the file", "js", "// @ts-check", true],
  ["of the file", "js", "/* @flow */", true],
  ["of what follows", "js", "/* tool-disable all */", true],
  ["of what follows", "py", "# tool: disable=all", true],
  ["of what follows", "rb", "# tool:disable Layout/All", true],
] as const)("a comment that speaks to a tool %s, in %s: %s", async (_, kind, comment, isChanged) => {
  const { id, was, becomes, end } = OPENED[kind];
  const spec = { was, becomes, title: "Open first", why: "to try the engine", trials: [] };
  const opened = rule({ id: `${id}/opened`, kind: "idiom", ...spec });
  const code = `${comment}\nkeep(hive)${end}\n`;
  const { all, heldBack } = await run([opened], code, `a.${kind}`);
  expect(heldBack.map((held) => held.code)).toEqual(isChanged ? [] : ["edit.comment-for-tool"]);
  expect(all).toBe(isChanged ? `${comment}\nopen(hive)${end}\nkept(hive)${end}\n` : code);
});

test("statements are moved with their comments, blank lines, strings and line ends", async () => {
  const wrap = make("wrap", {
    was: python`
      begin(${a})
      ${body}
      end()
    `,
    becomes: python`
      with block(${a}):
          ${body}
    `,
  });
  const code =
    'def f():\r\n\tbegin(1)  # first\r\n\r\n\t# second\r\n\tx = """\r\n\traw"""\r\n\tif x:\r\n\t\ty()\r\n\tend()  # last';
  const { all } = await run([wrap], code, "a.py");
  expect(all).toBe(
    'def f():\r\n\twith block(1):  # first\r\n\r\n\t\t# second\r\n\t\tx = """\r\n\traw"""\r\n\t\tif x:\r\n\t\t\ty()  # last',
  );
});

test("an expression is put in parentheses where its new place asks for them", async () => {
  const sum = make("sum", { was: javascript`add(${a}, ${b})`, becomes: javascript`${a} + ${b}` });
  const { all } = await run(
    [sum],
    "x * add(1, 2); add(a, b ? c : d); y = add(1, 2); add(1, 2).z; `${add(p, q)}`;",
  );
  expect(all).toBe("x * (1 + 2); a + (b ? c : d); y = 1 + 2; (1 + 2).z; `${p + q}`;");
});

/** Code with many matches that nest and touch. */
const snippets = fc.constantFrom(
  "if (a && a.b && a.b.c) { d(); }",
  "x = y != null ? y : (z == null ? [] : z);",
  "a && a.b(c || {}, d && d.e);",
  "const q = /* 1 */ r || 'none'; // 2",
  "f(g && g.h || 'x', () => h !== undefined && h !== null ? h : i || 0);",
);

test("any subset of the changes gives what the whole gives there, and the whole leaves nothing to do", async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(snippets, { minLength: 1, maxLength: 5 }),
      fc.infiniteStream(fc.boolean()),
      async (lines, coins) => {
        const code = lines.join("\n");
        const { changes, after, all } = await run(shipped, code);
        const again = await run(shipped, all);
        expect(again.changes).toEqual([]);
        const kept = changes.filter(() => coins.next().value);
        const rest = (await run(shipped, after(kept))).changes;
        expect(rest).toHaveLength(changes.length - kept.length);
      },
    ),
    { numRuns: 40, seed: 11 },
  );
});

test("ids do not depend on the order of rules or on lines above", async () => {
  const code = "if (a && a.b) c();\nx = y || {};\n";
  const ids = (changes: readonly Change[]): string[] => changes.map((change) => change.id).sort();
  const usual = await run(shipped, code);
  const moved = await run([...shipped].reverse(), `// one more line\n\n${code}`);
  expect(ids(moved.changes)).toEqual(ids(usual.changes));
});

test("where the parser gets the rank of operators wrong, nothing is changed", async () => {
  const same = make("same", { was: javascript`${a} === ${b}`, becomes: javascript`same(${a}, ${b})` });
  const code = "x = w !== u && s!.b === 1;\nif (a && a.b) c();\n";
  const { changes, heldBack } = (await new Engine([same, ...shipped]).file("a.ts", code))!;
  expect(changes.map(({ line }) => line)).toEqual([2]);
  expect(heldBack.map(({ line, reason }) => [line, reason])).toEqual([
    [1, "the parser reads `w !== u && s!` otherwise than the language does"],
  ]);
});

test("in C++ a function is looked at that parses on its own, and no change in it is certain", async () => {
  const old = make("old", { was: cpp`old(${a})`, becomes: cpp`fresh(${a})` });
  const code = "int g() { return 1 +; }\nvoid f() {\n  old(1);\n}\n";
  const { changes, unparsed } = (await new Engine([old]).file("a.cpp", code))!;
  expect(unparsed).toMatchObject({ soundFunctions: 1 });
  expect(changes.map(({ line, trust }) => [line, trust])).toEqual([[3, "likely"]]);
});
