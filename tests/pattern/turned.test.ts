import "uvran/node";
import { exactly, holes, javascript, python, ruby, type Snippet } from "uvran";
import { make, run } from "../rules/run-rule.js";

const { x, a, b } = holes({ x: "expression", a: "expression", b: "expression" });
const inBraces = javascript`if (${x} == null) { f(${a}); } else { f(${b}); }`;
const chosen = (was: Snippet) => make({ was, becomes: javascript`f(choose(${x}, ${a}, ${b}));` });

test.each([
  ["as it is", "if (q == null) { f(1); } else { f(2); }", "f(choose(q, 1, 2));"],
  ["turned round", "if (q != null) { f(2); } else { f(1); }", "f(choose(q, 1, 2));"],
  ["turned round, sides swapped, no braces", "if (null != q) f(2); else f(1);", "f(choose(q, 1, 2));"],
  ["another test", "if (q === null) { f(1); } else { f(2); }", "if (q === null) { f(1); } else { f(2); }"],
  ["not turned round", "if (q != null) { f(2); }", "if (q != null) { f(2); }"],
])("a branch with two ways fits %s", async (_how, code, expected) => {
  expect((await run(chosen(inBraces), { "a.js": `${code}\n` })).now["a.js"]).toBe(`${expected}\n`);
});

test("exactly fits a branch as it is written only", async () => {
  const code = "if (q != null) { f(2); } else { f(1); }\n";
  expect((await run(chosen(exactly(inBraces)), { "a.js": code })).now["a.js"]).toBe(code);
});

test("a test that is no comparison is negated, and one that is negated is bare", async () => {
  const rule = make({
    was: javascript.expression`${x}.ready ? ${a} : ${b}`,
    becomes: javascript.expression`pick(${x}, ${a}, ${b})`,
  });
  const { now } = await run(rule, { "a.js": "y = !q.ready ? 2 : 1;\nz = !(q.ready) ? 2 : 1;\n" });
  expect(now["a.js"]).toBe("y = pick(q, 1, 2);\nz = pick(q, 1, 2);\n");
});

test("so it is in other languages", async () => {
  const one = make({
    was: python`
      if ${x} is None:
          f(${a})
      else:
          f(${b})
    `,
    becomes: python`f(choose(${x}, ${a}, ${b}))`,
  });
  const { now } = await run(one, { "a.py": "if q is not None:\n    f(2)\nelse:\n    f(1)\n" });
  expect(now["a.py"]).toBe("f(choose(q, 1, 2))\n");
  const two = make({
    was: ruby.expression`${x}.ready? ? ${a} : ${b}`,
    becomes: ruby.expression`pick(${x}, ${a}, ${b})`,
  });
  expect((await run(two, { "a.rb": "y = !q.ready? ? 2 : 1\n" })).now["a.rb"]).toBe("y = pick(q, 1, 2)\n");
});
