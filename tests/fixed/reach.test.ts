import "uvran/node";
import { Engine, holes, javascript, need, python, filesNaming, textAfter } from "uvran/core";
import { SHIPPED } from "uvran/packs";
import { make, run } from "../rules/run-rule.js";

const { value } = holes({ value: "expression" });

const shipped = (...ids: string[]): Engine =>
  new Engine(
    SHIPPED.flatMap(({ rules }) => rules).filter(({ id }) => ids.includes(id)),
    { files: filesNaming([]), targets: { targetOf: () => ({ version: "9999", says: "by the test" }) } },
  );

async function rewritten(engine: Engine, path: string, code: string): Promise<string> {
  return textAfter(path, code, (await engine.file(path, code))!.changes);
}

test("a name that nothing imports is no member of a module under another name, and neither is a method of some object", async () => {
  const rule = make({
    was: javascript`${need("shelf", "keys")}(${value})`,
    becomes: javascript`Object.keys(${value})`,
  });
  const { now, plan } = await run(rule, {
    "a.js": "f(jars);\njars.map(g)(1);\nrows.filter(a).map(b);\nkeys(jars);\n",
  });
  expect(now["a.js"]).toBe("f(jars);\njars.map(g)(1);\nrows.filter(a).map(b);\nObject.keys(jars);\n");
  expect(plan.changes.map(({ trust }) => trust)).toEqual(["possible"]);
});

test("several first items of an import go, and the module stays", async () => {
  const rule = make({ was: python`${need("bees", "drone")}(${value})`, becomes: python`${value}` });
  const other = make({ was: python`${need("bees", "egg")}(${value})`, becomes: python`${value}` });
  const engine = new Engine([rule, { ...other, id: "python/other" }]);
  expect(
    await rewritten(
      engine,
      "a.py",
      "from bees import drone, egg, queen\n\na = drone(1)\nb = egg(2)\nc = queen\n",
    ),
  ).toBe("from bees import queen\n\na = 1\nb = 2\nc = queen\n");
});

test("the name of a module in its own import, and a member of the same name, keep no import", async () => {
  const rule = make({
    was: javascript`${need("bees", "buzz")}(${value})`,
    becomes: javascript`${value}.bees`,
  });
  expect(await rewritten(new Engine([rule]), "a.js", 'import bees from "bees";\nbees.buzz(jars);\n')).toBe(
    "jars.bees;\n",
  );
});

test("what becomes of a use further away joins the change of the code that it reaches into", async () => {
  const code = `
const fs = require("fs");
function a(x, cb) {
  fs.stat(x, function (e, s) { if (e) return cb(e); cb(null, s); });
}
function b(x, cb) {
  a(x, function (e, s) { if (e) return cb(e); cb(null, s.size); });
}
b("x", function (e, n) { if (e) { fail(e); } else { show(n); } });
`;
  const now = await rewritten(shipped("javascript/steps-awaited", "javascript/arrow"), "a.js", code);
  expect(now).toContain("const s = await a(x);\n  return s.size;");
  expect(now).toContain('b("x").then((n) => {');
});

test("lines side by side that each change within themselves keep what is said of them to a tool", async () => {
  const code =
    "function f() {\n  // lint-disable-next-line\n  var a = g();\n  var b = h();\n  return a + b;\n}\n";
  expect(await rewritten(shipped("javascript/block-scoped"), "a.js", code)).toBe(
    code.replaceAll("var", "const"),
  );
});
