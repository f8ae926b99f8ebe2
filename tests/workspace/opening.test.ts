import { readdirSync } from "node:fs";
import { Workspace } from "uvran/workspace";
import { Sandbox } from "../cli/run.js";

const OLD = "if (hive && hive.queen) mark(hive);\n";

async function packsOf(
  files: Readonly<Record<string, string>>,
  rules?: readonly string[],
  onlyFor: string[] = [],
): Promise<string> {
  const root = new Sandbox(files).root;
  const { project } = await Workspace.open(root, { onlyFor, rules });
  return [...new Set(project.allRules.map(({ id }) => id.split("/")[0]))].join(" ");
}

const ALL = "javascript python java csharp cpp php ruby powershell";

test("rules are loaded for the languages of a project's files, and all where more may be asked for", async () => {
  expect(await packsOf({ "a.js": OLD })).toBe("javascript");
  expect(await packsOf({ "a.tsx": OLD, "lib/b.rb": "" })).toBe("javascript ruby");
  expect(await packsOf({ "a.h": "", "b.cs": "" })).toBe("csharp cpp");
  // Documentation, and what somebody names, may be of any language.
  expect(await packsOf({ "a.js": OLD, "b.md": "" })).toBe(ALL);
  expect(await packsOf({ "a.js": OLD }, ["python/scoped-resource"])).toBe(ALL);
  expect(await packsOf({ "a.js": OLD, "b/c.rb": "" }, undefined, ["b", "a.js"])).toBe("javascript ruby");
  expect(await packsOf({ "a.js": OLD, ".gitignore": "b", "b/c.rb": "" }, undefined, ["b"])).toBe(ALL);
  const switched = '{ "rules": { "python/scoped-resource": false } }';
  expect(await packsOf({ "a.js": OLD, "uvran.config.json": switched })).toBe(ALL);
});

test("what is remembered does not depend on rules of languages that a project has not", async () => {
  const sandbox = new Sandbox({ "a.js": OLD });
  sandbox.uvran("survey");
  const remembered = (): string[] => readdirSync(sandbox.path(".uvran/cache"));
  const [first] = remembered();
  await (await Workspace.open(sandbox.root, { cache: true })).examine();
  expect(remembered()).toEqual([first]);
  await (await Workspace.open(sandbox.root, { cache: true, kinds: ["breaks"] })).examine();
  expect(remembered()).toHaveLength(2);
  sandbox.write("b.rb", "");
  await (await Workspace.open(sandbox.root, { cache: true })).examine();
  expect(remembered()).toHaveLength(3);
});
