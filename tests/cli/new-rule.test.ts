import { spawn } from "node:child_process";
import { mkdirSync, symlinkSync } from "node:fs";
import { resolve } from "node:path";
import { Sandbox } from "./run.js";

const LANGUAGES = [
  "javascript",
  "typescript",
  "python",
  "java",
  "cpp",
  "csharp",
  "php",
  "ruby",
  "powershell",
];

function consumer(): Sandbox {
  const sandbox = new Sandbox();
  mkdirSync(sandbox.path("node_modules"));
  symlinkSync(resolve("."), sandbox.path("node_modules/uvran"));
  return sandbox;
}

test("a new rule has one trial that passes and one that fails, in every language", () => {
  const sandbox = consumer();
  for (const language of LANGUAGES)
    expect(sandbox.uvran("new", "rule", `${language}/first-${language}`).exit).toBe(0);
  const names = LANGUAGES.map((language) => `first${language[0]!.toUpperCase()}${language.slice(1)}`);
  sandbox.write(
    "uvran.config.ts",
    `import { pack } from "uvran";
import { defineConfig } from "uvran/node";
${names.map((name, i) => `import { ${name} } from "./rules/first-${LANGUAGES[i]}.js";`).join("\n")}
export default defineConfig({ packs: [pack("own", [${names.join(", ")}])] });
`,
  );
  const { out, exit } = sandbox.uvran("rules", "--try");
  expect(exit).toBe(1);
  expect(out.match(/^failed {2}\S+\/first-\S+ {2}2 trials$/gm)).toHaveLength(LANGUAGES.length);
  expect(out.match(/^ {4}expected - .*(?:measure|Measure-Hive)/gm)).toHaveLength(LANGUAGES.length);
  // It says where the code ended to fit.
  expect(out).toContain("line 1, `weigh(hive, 2)`: the code has `(hive, 2)` where the rule has `( ⟨hive⟩ )`");
  // The one that passes is not shown.
  expect(out).not.toMatch(/\| weigh\(hive\)/);
});

test("a new rule takes no other file's place, and needs an id", () => {
  const sandbox = consumer();
  expect(sandbox.uvran("new", "rule", "python/lit-smoker").out).toContain(
    "uvran rules python/lit-smoker --try --watch\n",
  );
  expect(sandbox.uvran("new", "rule", "python/lit-smoker")).toMatchObject({
    exit: 2,
    err: "rules/lit-smoker.ts is there already. Choose another name with --out.\n",
  });
  expect(sandbox.uvran("new", "rule", "cobol/jar").err).toContain('Uvran does not read "cobol"');
  expect(sandbox.uvran("rules", "--watch").err).toBe("--watch only means something together with --try.\n");
});

test("--watch runs the trials again when the rule changes", async () => {
  const sandbox = consumer();
  sandbox.uvran("new", "rule", "python/lit-smoker");
  sandbox.write(
    "uvran.config.ts",
    `import { pack } from "uvran";
import { defineConfig } from "uvran/node";
import { litSmoker } from "./rules/lit-smoker.js";
export default defineConfig({ packs: [pack("own", [litSmoker])] });
`,
  );
  const child = spawn(
    process.execPath,
    [resolve("dist/program/uvran.js"), "rules", "python/lit-smoker", "--try", "--watch"],
    { cwd: sandbox.root, env: { ...process.env, NO_COLOR: "1" } },
  );
  let out = "";
  const waitFor = (what: string): Promise<void> =>
    new Promise((done) => {
      const look = (): void => {
        if (out.includes(what)) done();
        else child.stdout.once("data", look);
      };
      look();
    });
  child.stdout.on("data", (data: Buffer) => (out += data.toString()));
  await waitFor("Waiting for changes");
  expect(out).toContain("failed  python/lit-smoker  2 trials\n");
  out = "";
  const source = sandbox.read("rules/lit-smoker.ts");
  sandbox.write("rules/lit-smoker.ts", source.replace(/ {4}\/\/ This one fails[^]*?\n {2}\],/, "  ],"));
  await waitFor("Waiting for changes");
  await new Promise((done) => {
    child.on("close", done);
    child.kill();
  });
  expect(out).toContain("passed  python/lit-smoker  1 trial\n");
});
