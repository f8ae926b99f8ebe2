import { loadProject } from "uvran/node";
import { Sandbox } from "../cli/run.js";

const LIGHT = {
  language: "python",
  acquire: "light(…)",
  from: "light from smoker",
  release: "handle.put_out()",
};

function project(handle: object, files: Readonly<Record<string, string>>): Sandbox {
  return new Sandbox({ "uvran.config.json": JSON.stringify({ handles: [handle] }), ...files });
}

/** What is found, as `rule trust line`. */
function found(handle: object, path: string, code: string): string[] {
  const { out, err } = project(handle, { [path]: code }).uvran("survey", "--json");
  if (out === "") throw new Error(err);
  const { places } = JSON.parse(out) as { places: { rules: string[]; trust: string; line: number }[] };
  return places.map(({ rules, trust, line }) => `${rules.join(" + ")} ${trust} ${line}`);
}

const HELD = (call: string): string =>
  `s = ${call}\ntry:\n    s.puff()\nfinally:\n    s.put_out()\n`.replace(/^/gm, "    ").trimEnd() + "\n";

test.each([
  ["from its module", `import smoker\ndef f(hive):\n${HELD("smoker.light(hive)")}`, "certain 3"],
  ["under another name", `from smoker import light as l\ndef f(hive):\n${HELD("l(hive)")}`, "certain 3"],
  ["from another module", `from lamp import light\ndef f(hive):\n${HELD("light(hive)")}`, undefined],
  ["as a member of something else", `def f(lamp, hive):\n${HELD("lamp.light(hive)")}`, undefined],
])("a resource is known by where its name comes from: %s", (_, code, says) => {
  expect(found(LIGHT, "a.py", code)).toEqual(says === undefined ? [] : [`python/scoped-resource ${says}`]);
});

test("classes are told by their import too, and what has none is the project's own", () => {
  const smoker = {
    language: "javascript",
    acquire: "new Smoker(…)",
    release: "handle.out()",
    scoped: "none",
  };
  const code = (from: string): string =>
    `import { Smoker } from "${from}";\nexport function f(hive) {\n  const s = new Smoker(hive);\n  s.puff();\n  s.out();\n}\n`;
  const imported = { ...smoker, from: "Smoker from smoker" };
  expect(found(imported, "a.js", code("smoker"))).toEqual(["javascript/released-in-finally likely 3"]);
  expect(found(imported, "a.js", code("lamp"))).toEqual([]);
  const own = { language: "ruby", acquire: "Smoker.light(…)", release: "handle.close" };
  expect(
    found(
      own,
      "a.rb",
      "def f(h)\n  s = Smoker.light(h)\n  begin\n    s.puff\n  ensure\n    s.close\n  end\nend\n",
    ),
  ).toEqual(["ruby/block-form certain 2"]);
});

test.each<[string, object, string]>([
  [
    "a module in the code",
    { acquire: "smoker.light(…)", from: undefined },
    'Write: acquire: "light(…)", from: "light from smoker"',
  ],
  ["no module", { from: "light" }, 'handles.0.acquire: "light" does not say where it comes from'],
  ["a name that is not there", { from: "lamp from smoker" }, '"lamp" comes from elsewhere by `from`'],
  ["code that does not parse", { release: "handle.put_out((" }, "handles.0.release: "],
  ["nothing for the variable", { release: "put_out()" }, "must have `handle` in it"],
])("what is wrong with a handle is named: %s", async (_, wrong, says) => {
  const { root } = project({ ...LIGHT, ...wrong }, {});
  await expect(loadProject(root)).rejects.toThrow(says);
});
