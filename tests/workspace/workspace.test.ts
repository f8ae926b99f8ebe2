import { mkdirSync, mkdtempSync, readFileSync, rmSync, utimesSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { applyEdits } from "uvran";
import { SHIPPED } from "uvran/packs";
import { Workspace } from "uvran/workspace";

const rules = SHIPPED.flatMap((pack) => pack.rules).filter(({ taste }) => !taste);
let root: string;

beforeEach(() => {
  root = mkdtempSync(join(tmpdir(), "uvran-workspace-"));
});
afterEach(() => {
  rmSync(root, { recursive: true, force: true });
});

function write(path: string, text: string): void {
  mkdirSync(dirname(join(root, path)), { recursive: true });
  writeFileSync(join(root, path), text);
}

/** Rewritten, and certain as long as `Hive` has no operator of its own. */
const USES = "class Yard {\n  Hive F(Hive a, Hive b) {\n    return a != null ? a : b;\n  }\n}\n";
const PLAIN = "class Hive { public int Weight; }\n";
const OWN = "class Hive {\n  public static bool operator ==(Hive a, Hive b) { return true; }\n}\n";
const FALLS_BACK = "export const w = (h) => (h !== null && h !== undefined ? h : 0);\n";

test("a workspace surveys, plans, shows, applies and undoes", async () => {
  write("a.js", FALLS_BACK);
  const workspace = new Workspace({ root, rules, targets: { javascript: "2022" } });
  const { plan, survey, stored } = await workspace.propose();
  expect(survey.changes).toHaveLength(1);
  expect(JSON.parse(readFileSync(stored, "utf8"))).toEqual(plan);
  const now = "export const w = (h) => (h ?? 0);\n";
  expect(applyEdits(workspace.text("a.js"), await workspace.edits(plan.changes[0]!))).toBe(now);
  await workspace.apply(plan, workspace.review(plan).select({ trust: "certain" }).chosen);
  expect(readFileSync(join(root, "a.js"), "utf8")).toBe(now);
  const { before, after } = await workspace.sides({ trust: "certain" });
  expect([...before.keys(), ...after.keys()]).toEqual(["a.js"]);
  await workspace.undo();
  expect((await workspace.examine()).plan).toEqual(plan);
});

test("a change of one file tells which results do not hold any more", async () => {
  write("a.cs", USES);
  write("b.cs", PLAIN);
  write("c.js", FALLS_BACK);
  const workspace = new Workspace({ root, rules });
  const trust = async (): Promise<string | undefined> =>
    (await workspace.examine()).plan.changes.find(({ path }) => path === "a.cs")?.trust;
  expect(await trust()).toBe("certain");
  expect(workspace.refresh()).toEqual([]);

  write("b.cs", OWN);
  expect(workspace.refresh()).toEqual(["a.cs", "b.cs"]);
  expect(await trust()).toBeUndefined();

  write("c.js", "export const d = 1;\n");
  expect(workspace.refresh()).toEqual(["c.js"]);

  rmSync(join(root, "b.cs"));
  expect(workspace.refresh()).toEqual(["a.cs", "b.cs"]);
  expect(await trust()).toBe("likely");

  write("new/e.cs", PLAIN);
  expect(workspace.refresh()).toEqual(["a.cs"]);
  expect(await trust()).toBe("certain");
});

test("what a manifest or the compiler says is asked again when it changes", async () => {
  write("a.js", FALLS_BACK);
  write("b.ts", "import { g } from './g';\nexport const n = g() || 1;\n");
  write("g.ts", "export const g = (): object | undefined => undefined;\n");
  write("c.py", "y = 1\n");
  write("tsconfig.json", '{ "compilerOptions": { "strict": true } }\n');
  const workspace = new Workspace({ root, rules });
  const found = async (): Promise<string[]> => {
    const { plan, survey } = await workspace.examine();
    return [...plan.changes.map(({ path }) => path), ...survey.versions.map(({ version }) => version)];
  };
  expect(await found()).toEqual(["a.js", "b.ts", "JavaScript 2022", "TypeScript 2022"]);

  write("package.json", '{ "engines": { "node": ">=8" } }\n');
  expect(workspace.refresh()).toEqual(["a.js", "b.ts"]);
  expect(await found()).toEqual(["b.ts", "JavaScript 2017", "TypeScript 2022"]);
  rmSync(join(root, "package.json"));
  expect(await found()).toEqual(["a.js", "b.ts", "JavaScript 2022", "TypeScript 2022"]);

  write("g.ts", "export const g = (): number => 0;\n");
  expect(workspace.refresh()).toEqual(["b.ts", "g.ts"]);
  expect(await found()).toEqual(["a.js", "JavaScript 2022"]);
});

test("what is said of a package is said again when another of its files, its manifest or an installed package changes", async () => {
  const modules = SHIPPED.flatMap((pack) => pack.rules).filter(({ id }) => id === "javascript/es-modules");
  write("package.json", '{ "private": true, "main": "a.js" }');
  write("a.js", "const scales = require('scales');\nexports.weigh = (jar) => scales(jar);\n");
  write("b.js", "exports.seal = 1;\n");
  write("node_modules/scales/package.json", '{ "main": "index.js" }');
  // What was written just now may be written again within the same tick.
  utimesSync(join(root, "node_modules/scales/package.json"), 1, 1);
  const workspace = new Workspace({ root, rules: modules });
  const edited = async (): Promise<string[]> => {
    const { changes } = (await workspace.examine()).plan;
    return changes.flatMap(({ path, elsewhere, edits }) => [
      path + edits.length,
      ...elsewhere.map((one) => one.path + one.edits.length),
    ]);
  };
  expect(await edited()).toEqual(["a.js2", "b.js1", "package.json1"]);
  expect(workspace.refresh()).toEqual([]);

  write("b.js", "exports.seal = 1;\nexports.lid = 2;\n");
  expect(workspace.refresh()).toEqual(["a.js", "b.js"]);
  expect(await edited()).toEqual(["a.js2", "b.js2", "package.json1"]);

  write("package.json", '{ "private": true, "type": "module", "main": "a.js" }');
  workspace.refresh();
  expect(await edited()).toEqual(["a.js2", "b.js2"]);

  write("node_modules/scales/package.json", '{ "type": "module", "main": "index.js", "version": "2.0.0" }');
  expect(workspace.refresh()).toEqual(["a.js"]);
  // It stays a call of `require`, which is made first.
  expect(await edited()).toEqual(["a.js2", "b.js2"]);
  const { plan } = await workspace.examine();
  expect(plan.changes[0]!.edits.map(({ text }) => text).join("")).toContain("createRequire");
});

test("a library that changes is read anew", async () => {
  const gives = (type: string): string => `export declare const g: () => ${type};\n`;
  write("a.ts", "import { g } from 'shelf';\nexport const n = g() || 1;\n");
  write(
    "tsconfig.json",
    '{ "compilerOptions": { "strict": true, "module": "esnext", "moduleResolution": "bundler" } }\n',
  );
  write("node_modules/shelf/index.d.ts", gives("object | undefined"));
  const workspace = new Workspace({ root, rules });
  const trusts = async () => (await workspace.examine()).plan.changes.map(({ trust }) => trust);
  const before = await trusts();
  write("node_modules/shelf/index.d.ts", gives("number | undefined"));
  const now = await trusts();
  expect(now).not.toEqual(before);
  expect(now).toEqual(
    (await new Workspace({ root, rules }).examine()).plan.changes.map(({ trust }) => trust),
  );
});

test("a file that is written again as it was makes nothing stale, and no result is worked out twice", async () => {
  write("a.cs", USES);
  const workspace = new Workspace({ root, rules });
  const first = await workspace.examine();
  write("a.cs", USES);
  expect(workspace.refresh()).toEqual([]);
  const [again, other] = await Promise.all([workspace.examine(), workspace.examine()]);
  expect(again).toEqual(first);
  expect(other).toEqual(first);
});

test("after any changes a kept workspace says what a new one says", async () => {
  const bodies = [USES, OWN, PLAIN, PLAIN + USES, "class {\n", ""];
  const names = ["a.cs", "b.cs", "c/d.cs", "e.cs"];
  const workspace = new Workspace({ root, rules });
  let seed = 7;
  const next = (below: number): number => (seed = (seed * 1103515245 + 12345) % 2147483648) % below;
  for (let round = 0; round < 40; round++) {
    const name = names[next(names.length)]!;
    const body = bodies[next(bodies.length)]!;
    if (body === "") rmSync(join(root, name), { force: true });
    else write(name, body);
    expect(await workspace.examine()).toEqual(await new Workspace({ root, rules }).examine());
  }
});
