import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Workspace, type Examination } from "uvran/workspace";
import { Sandbox } from "../cli/run.js";

const USES = "class Yard {\n  Hive F(Hive a, Hive b) {\n    return a != null ? a : b;\n  }\n}\n";
const PLAIN = "class Hive { public int Weight; }\n";
const OWN = "class Hive {\n  public static bool operator ==(Hive a, Hive b) { return true; }\n}\n";
const FALLS_BACK = "export const w = (h) => (h !== null && h !== undefined ? h : 0);\n";
const TYPED = (from: string): string => `import { g } from '${from}';\nexport const n = g() || 1;\n`;
const GIVES = (type: string): string => `export declare const g: () => ${type};\n`;

/** What a rule of the project itself is asked about is written down, which shows what was worked out anew. */
const CONFIG = `import { appendFileSync } from "node:fs";
import { holes, javascript, pack, rule } from "uvran";
import { becomes } from "./rules/new-code";
const { list } = holes({ list: "expression" });
const log = (path) => (appendFileSync("LOG", path + "\\n"), true);
const own = rule({
  id: "javascript/own", kind: "idiom", title: "Own", why: "It is old.",
  was: javascript\`old(\${list})\`, where: [(match) => log(match.around.path)],
  becomes: becomes(list), trials: [],
});
export default { packs: [pack("own", [own])] };
`;
const NEW_CODE = (name: string): string =>
  `import { javascript } from "uvran";\nexport const becomes = (list) => javascript\`${name}(\${list})\`;\n`;

const remembering = async (sandbox: Sandbox): Promise<Examination> =>
  (await Workspace.open(sandbox.root, { cache: true })).examine();
const fresh = async (sandbox: Sandbox): Promise<Examination> =>
  (await Workspace.open(sandbox.root)).examine();

/** A project with one rule, and the files that it is tried on. */
function project(files: Record<string, string>): { sandbox: Sandbox; workedOut: () => Promise<string[]> } {
  const sandbox = new Sandbox({ "rules/new-code.ts": NEW_CODE("now"), ...files });
  const log = join(mkdtempSync(join(tmpdir(), "uvran-log-")), "log.txt");
  sandbox.write("uvran.config.ts", CONFIG.replace("LOG", log));
  const workedOut = async (): Promise<string[]> => {
    writeFileSync(log, "");
    await remembering(sandbox);
    return [...new Set(readFileSync(log, "utf8").trim().split("\n"))].sort();
  };
  return { sandbox, workedOut };
}

test("what is known of unchanged files is not worked out again", async () => {
  const { sandbox, workedOut } = project({ "a.js": "old(1);\n", "b.js": "old(2);\n", "c.js": "other();\n" });
  expect(await workedOut()).toEqual(["a.js", "b.js"]);
  expect(await workedOut()).toEqual([""]);
  sandbox.write("b.js", "old(3);\n");
  expect(await workedOut()).toEqual(["b.js"]);
  expect((await remembering(sandbox)).plan).toEqual((await fresh(sandbox)).plan);
});

test.each([
  ["a file that the config is made from", (s: Sandbox) => s.write("rules/new-code.ts", NEW_CODE("then"))],
  ["the config", (s: Sandbox) => s.write("uvran.config.ts", s.read("uvran.config.ts") + "// new\n")],
])("nothing that was found under other rules counts: %s changes", async (_what, change) => {
  const { sandbox, workedOut } = project({ "a.js": "old(1);\n" });
  await workedOut();
  change(sandbox);
  expect(await workedOut()).toEqual(["a.js"]);
  expect((await remembering(sandbox)).plan).toEqual((await fresh(sandbox)).plan);
});

test("a rule that the config makes from what no import names counts as another one where it is another one", async () => {
  const { sandbox, workedOut } = project({ "a.js": "old(1);\n", "names.json": '"first"' });
  sandbox.write(
    "rules/new-code.ts",
    `import { readFileSync } from "node:fs";
    import { javascript } from "uvran";
    const name = JSON.parse(readFileSync("${sandbox.path("names.json")}", "utf8"));
    export const becomes = (list) => name === "first" ? javascript\`one(\${list})\` : javascript\`two(\${list})\`;\n`,
  );
  await workedOut();
  expect(await workedOut()).toEqual([""]);
  sandbox.write("names.json", '"second"');
  expect(await workedOut()).toEqual(["a.js"]);
  expect((await remembering(sandbox)).plan).toEqual((await fresh(sandbox)).plan);
});

test("after any changes a run that remembers says what one says that does not", async () => {
  const sandbox = new Sandbox();
  const bodies: Record<string, readonly string[]> = {
    "a.cs": [USES, PLAIN + USES, "class {\n"],
    "b.cs": [OWN, PLAIN, ""],
    "c/d.cs": [OWN, PLAIN, USES, ""],
    "e.js": [FALLS_BACK, `// d\n${FALLS_BACK}`, "export const d = 1;\n"],
    "f.ts": [TYPED("./g"), TYPED("shelf")],
    "g.ts": [
      "export const g = (): object | undefined => undefined;\n",
      "export const g = (): number => 0;\n",
    ],
    "node_modules/shelf/index.d.ts": [GIVES("object | undefined"), GIVES("number"), ""],
    "package.json": ["{}", '{ "engines": { "node": ">=8" } }\n', ""],
    "tsconfig.json": [
      '{ "compilerOptions": { "strict": true, "moduleResolution": "bundler", "module": "esnext" } }\n',
      '{ "compilerOptions": { "strict": false } }\n',
      "",
    ],
  };
  const names = Object.keys(bodies);
  let seed = 11;
  const next = (below: number): number => ((seed = (seed * 1103515245 + 12345) % 2147483648) >> 8) % below;
  let [found, without] = [new Set<string>(), 0];
  for (let round = 0; round < 30; round++) {
    for (let files = 0; files < 3; files++) {
      const name = names[next(names.length)]!;
      const body = bodies[name]![next(bodies[name]!.length)]!;
      if (body === "") rmSync(sandbox.path(name), { force: true });
      else sandbox.write(name, body);
    }
    const examined = await remembering(sandbox);
    expect(JSON.parse(JSON.stringify(examined))).toEqual(JSON.parse(JSON.stringify(await fresh(sandbox))));
    found.add(JSON.stringify(examined.plan));
    without += examined.forgotten === undefined ? 0 : 1;
  }
  expect(found.size).toBeGreaterThan(10);
  expect(without).toBe(0);
}, 240_000);

test("a file that another program writes during a run leaves nothing behind that rests on what it was", async () => {
  const sandbox = new Sandbox({ "a.cs": USES, "aa.js": "old(1);\n", "b.cs": PLAIN });
  sandbox.write(
    "uvran.config.ts",
    `import { existsSync, writeFileSync } from "node:fs";
    import { holes, javascript, pack, rule } from "uvran";
    import csharp from "uvran/packs/csharp";
    const { list } = holes({ list: "expression" });
    const writes = () => {
      if (existsSync("${sandbox.path("../written")}-${sandbox.root.slice(-6)}")) return true;
      writeFileSync("${sandbox.path("../written")}-${sandbox.root.slice(-6)}", "");
      writeFileSync("${sandbox.path("b.cs")}", ${JSON.stringify(OWN)});
      return true;
    };
    const own = rule({ id: "javascript/own", kind: "idiom", title: "Own", why: "It is old.", trials: [],
      was: javascript\`old(\${list})\`, where: [writes], becomes: javascript\`now(\${list})\` });
    export default { packs: [csharp, pack("own", [own])] };\n`,
  );
  const first = await remembering(sandbox);
  expect(first.plan.changes.map(({ path }) => path)).toContain("a.cs");
  expect(sandbox.read("b.cs")).toBe(OWN);
  const second = await remembering(sandbox);
  expect(second.plan.changes.map(({ path }) => path)).not.toContain("a.cs");
  expect(second.plan).toEqual((await fresh(sandbox)).plan);
});

test("what is damaged is worked out again", async () => {
  const { sandbox, workedOut } = project({ "a.js": "old(1);\n", "b.js": "old(2);\n" });
  await workedOut();
  const [key] = readdirSync(sandbox.path(".uvran/cache"));
  const file = `.uvran/cache/${key}`;
  const lines = sandbox.read(file).split("\n");
  const spoilt = lines.map((line) => line.replace("now(", "never("));
  sandbox.write(file, spoilt.join("\n"));
  expect(JSON.stringify((await remembering(sandbox)).plan)).not.toContain("never");
  for (const bad of [
    "",
    "\0\0\n",
    lines.slice(1).join("\n"),
    sandbox.read(file).slice(0, 200),
    `${lines[0]}\n${lines[1]!.slice(3)}\n`,
  ]) {
    sandbox.write(file, bad);
    expect((await remembering(sandbox)).plan).toEqual((await fresh(sandbox)).plan);
  }
});

test("only so many are kept, and two that run at once do not disturb each other", async () => {
  const { sandbox } = project({ "a.js": "old(1);\n" });
  for (let i = 0; i < 12; i++) {
    sandbox.write("rules/new-code.ts", NEW_CODE(`now${i}`));
    const [one, other] = await Promise.all([remembering(sandbox), remembering(sandbox)]);
    expect(one.plan).toEqual(other.plan);
  }
  expect(readdirSync(sandbox.path(".uvran/cache"))).toHaveLength(8);
});

test("the command says when it cannot remember, and --no-cache leaves no trace", async () => {
  const sandbox = new Sandbox({ "a.js": FALLS_BACK });
  expect(sandbox.uvran("survey", "--no-cache").err).toBe("");
  expect(readdirSync(sandbox.root)).not.toContain(".uvran");
  const { exit, out, err } = sandbox.asNobody().uvran("survey");
  expect(exit).toBe(0);
  expect(out).toContain("1 place to modernise");
  expect(err).toMatch(/^Results cannot be kept for the next run: .*permission denied.*\n$/);
});
