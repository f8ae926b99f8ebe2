import { mkdirSync, readFileSync, symlinkSync } from "node:fs";
import { resolve } from "node:path";
import { Sandbox } from "./cli/run.js";

/** A project that has Uvran installed. */
function consumer(files: Record<string, string>): Sandbox {
  const sandbox = new Sandbox(files);
  mkdirSync(sandbox.path("node_modules"));
  symlinkSync(resolve("."), sandbox.path("node_modules/uvran"));
  return sandbox;
}

/** The fenced code of a page, block by block. */
function codeOf(page: string): string[] {
  return [...readFileSync(page, "utf8").matchAll(/^```ts\n([\s\S]*?)^```/gm)].map((match) => match[1]!);
}

test("what the README shows of the library works as it stands", () => {
  const example = codeOf("README.md").find((code) => code.includes("new Engine"))!;
  const { out, err } = consumer({ "use.mjs": example }).run(process.execPath, "use.mjs");
  expect(err).toBe("");
  expect(out).toBe("if (hive?.queen) mark(hive);\n");
});

test("the rule in the guide passes its trials, and its config loads", () => {
  const [rule, config] = codeOf("docs/writing-rules.md").filter(
    (code) => !/python\/(ordered|lit-smoker)|cpp\/owned-handle|csharp\/was-there/.test(code),
  );
  const sandbox = consumer({
    "last-item.ts": rule!,
    "uvran.config.ts": config!,
    "a.js": "const jars = [1, 2];\nf(jars[jars.length - 1]);\n",
  });
  const tried = sandbox.uvran("rules", "javascript/last-item", "--try");
  expect(tried.out).toBe("passed  javascript/last-item  4 trials\n");
  expect(tried.exit).toBe(0);
  expect(sandbox.uvran("survey").out).toMatch(/javascript\/last-item +idiom +1/);
});

test.each([
  ["python/ordered", "ordered", 2],
  ["cpp/owned-handle", "ownedHandle", 2],
  ["csharp/was-there", "wasThere", 4],
  ["python/lit-smoker", "litSmoker", 3],
])("the rule %s in the guide passes its trials", (id, name, trials) => {
  const rule = codeOf("docs/writing-rules.md").find((code) => code.includes(id))!;
  const config = `import { defineConfig } from "uvran/node";
import { pack } from "uvran";
import { ${name} } from "./own.js";
export default defineConfig({ packs: [pack("own", [${name}])] });`;
  const sandbox = consumer({ "own.ts": rule, "uvran.config.ts": config });
  expect(sandbox.uvran("rules", id, "--try").out).toBe(`passed  ${id}  ${trials} trials\n`);
});

test("every rule of the cookbook runs as it stands", () => {
  const rules = codeOf("docs/cookbook.md");
  expect(rules.length).toBeGreaterThanOrEqual(40);
  const files = Object.fromEntries(rules.map((code, i) => [`rules/r${i}.ts`, code]));
  const names = rules.map((code) => /export const (\w+) = (rule|changes)/.exec(code)!);
  const sandbox = consumer({
    ...files,
    "uvran.config.ts": `import { pack } from "uvran";
${names.map(([, name], i) => `import { ${name} } from "./rules/r${i}.js";`).join("\n")}
export default { packs: [
  pack("own", [${names.flatMap(([, name, made]) => (made === "rule" ? [name] : [])).join(", ")}]),
  ${names.flatMap(([, name, made]) => (made === "rule" ? [] : [name])).join(", ")},
] };`,
  });
  const { out, exit } = sandbox.uvran("rules", "--try");
  expect(out.split("\n").filter((line) => line !== "" && !line.startsWith("passed"))).toEqual([]);
  expect(out.match(/^passed/gm)).toHaveLength(rules.length);
  expect(exit).toBe(0);
});

test("the page of names is that of the declarations, and says what each is for", async () => {
  const { apiPage } = (await import("../scripts/api-page.mjs" as string)) as { apiPage: () => string };
  const page = apiPage();
  expect(page).toBe(readFileSync("docs/api.md", "utf8"));
  const bare = page.split(/^(?=\*\*`|## )/m).filter((entry) => /^\*\*`[^\n]*\n*$/.test(entry));
  expect(bare).toEqual([]);
});

test("every entry point can be imported, and the core brings no Node module with it", () => {
  const sandbox = consumer({
    "all.mjs": `
      for (const name of ["uvran", "uvran/core", "uvran/node", "uvran/testing", "uvran/packs/javascript", "uvran/packs/python"]) {
        console.log(name, Object.keys(await import(name)).length > 0);
      }`,
  });
  expect(sandbox.run(process.execPath, "all.mjs").out.match(/ true/g)).toHaveLength(6);
});

const ALL_ENTRIES = `import { Engine, rule, javascript, type Rule } from "uvran";
import { languageOf } from "uvran/core";
import { defineConfig } from "uvran/node";
import { Workspace } from "uvran/workspace";
import { expectTrialsToPass } from "uvran/testing";
import python from "uvran/packs/python";
const one: Rule = python.rules[0]!;
const engine: Engine = new Engine([one]);
const title: string = languageOf("python").title;
const opened: Promise<Workspace> = Workspace.open(".");
// @ts-expect-error a config has no such part
defineConfig({ rulez: {} });
export { engine, opened, title, rule, javascript, expectTrialsToPass };
`;

test.each([
  ["bundler", "esnext", "use.ts"],
  ["node16", "node16", "use.mts"],
  ["nodenext", "nodenext", "use.cts"],
  ["node10", "esnext", "use.ts"],
])("the types are right for a project that looks modules up by %s (%s, %s)", (resolution, module, file) => {
  const sandbox = consumer({ [file]: ALL_ENTRIES });
  const settings = [
    "--strict",
    "--noEmit",
    "--types",
    "node",
    "--target",
    "es2023",
    "--skipLibCheck",
    "false",
  ];
  const { out, exit } = sandbox.run(
    process.execPath,
    resolve("node_modules/typescript/bin/tsc"),
    ...settings,
    ...["--typeRoots", resolve("node_modules/@types"), "--ignoreDeprecations", "6.0"],
    // Once the declarations that Uvran's own stand on are looked at too.
    ...[
      "--moduleResolution",
      resolution,
      "--module",
      module,
      "--skipLibCheck",
      `${resolution !== "bundler"}`,
    ],
    file,
  );
  expect(out).toBe("");
  expect(exit).toBe(0);
});
