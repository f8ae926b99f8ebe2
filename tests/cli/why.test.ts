import { Sandbox } from "./run.js";

const CODE = `function f(x, lots) {
  const y = x !== 0 ? x : 1;
  if (x == null) { x = 1; note(x); }
  const z = x == null ? 1 : x;
  const q = take() != null ? take() : 1;
  const r = lots[lots.length];
}
`;
const sandbox = new Sandbox({ "a.js": CODE });
const why = (rule: string, place: string) => sandbox.uvran("rules", rule, "--why", place);

test("--why says which part of a rule does not fit a place", () => {
  expect(why("javascript/value-or-fallback", "a.js:2").out).toBe(
    "a.js:2  x !== 0 ? x : 1\n  where `x !== 0` is true, the value is `x`\n".replaceAll("\\\n", "\n"),
  );
  expect(why("javascript/assigned-if-missing", "a.js:3").out).toContain(
    "`x` is filled in here, and `note(x);` is done as well",
  );
  expect(why("javascript/falsy-fallback", "a.js:4").out).toContain(
    "the code has `==` where the rule has `||`",
  );
  expect(why("javascript/value-or-fallback", "a.js:6").out).toBe(
    "Nothing on line 6 of a.js begins like the old code of javascript/value-or-fallback.\n",
  );
});

test("--why gives the answers of the conditions and the outcome where the code fits", () => {
  const found = why("javascript/value-or-fallback", "a.js:4");
  expect(found.out).toMatch(
    /the code fits\n  ✓ .*: evaluating `x` does nothing else\n[^]*it is rewritten, certain\n$/,
  );
  expect(found.exit).toBe(0);
  expect(why("javascript/value-or-fallback", "a.js:5").out).toContain(
    "it is held back: `take()` calls something",
  );
});

test("--why knows a place by the line on which it begins, where the plan has it", () => {
  const list =
    "def f(jars):\n    names = []\n    for jar in jars:\n        names.append(jar.name)\n    return names\n";
  const own = new Sandbox({ "a.py": list });
  const asked = (line: number): string =>
    own.uvran("rules", "python/comprehension", "--why", `a.py:${line}`).out;
  expect(own.uvran("propose").out).toContain("a.py:2 ");
  expect(asked(2)).toMatch(/^a\.py:2 [^]*it is rewritten, certain\n$/);
  expect(asked(3)).toContain("it is rewritten, certain");
  expect(asked(5)).toContain("Nothing on line 5");
});

test("--why asks for what it needs", () => {
  expect(why("javascript/value-or-fallback", "a.js:90")).toMatchObject({
    exit: 2,
    err: "a.js has 7 lines, and none of them is 90.\n",
  });
  expect(why("javascript/value-or-fallback", "a.js").err).toContain("Write it as FILE:LINE");
  expect(sandbox.uvran("rules", "--why", "a.js:2").err).toContain("name it");
  expect(why("javascript/value-or-fallback", "b.js:2").exit).toBe(2);
});

test("a place of a known kind that no form fits is listed with its reason", () => {
  const { out } = sandbox.uvran("propose");
  expect(out).toContain("`x` is filled in here, and `note(x);` is done as well · form.fits");
});
