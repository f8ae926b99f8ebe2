import { cpSync, readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { Sandbox } from "./run.js";

const RULE = ["--rule", "javascript/es-modules"];
const LIKELY = ["--trust", "likely"];

/** The co-operative's stock list, in files that load each other in the ways of old. */
const STOCK = {
  "package.json": '{\n  "name": "stock",\n  "version": "1.0.0",\n  "private": true,\n  "main": "lib"\n}\n',
  "start.js": `#!/usr/bin/env node
'use strict';
// Prints the stock.
var list = require('./lib'),
    sizes = require('./sizes.json');

console.log(list.total(sizes), list.Jar.name, require('./lib/report')(list.total, sizes));
console.log(require('path').basename(__filename), require.main === module);
`,
  "lib/index.js": `exports.total = function total(sizes) { return sizes.reduce(add, 0); };
exports.Jar = require('./jar');
function add(sum, size) { return sum + size; }
`,
  "lib/jar.js": "module.exports = class Jar {\n  seal() { return require('./report'); }\n};\n",
  "lib/report.js":
    "module.exports = report;\nmodule.exports.unit = 'g';\nfunction report(total, sizes) { return total(sizes) + report.unit; }\n",
  "sizes.json": "[250, 500]\n",
};

const printed = (sandbox: Sandbox, ...args: string[]): string => {
  const { out, err } = sandbox.run(process.execPath, ...args);
  return out + err;
};

test("a package becomes one of ES modules as one change, runs as before, and is taken back whole", () => {
  const sandbox = new Sandbox(STOCK);
  const before = printed(sandbox, "start.js");
  expect(before).toBe("750 Jar 750g\nstart.js true\n");
  const { out } = sandbox.uvran("propose", ...RULE, ...LIKELY, "--diff");
  expect(out).toContain('+  "type": "module",');
  expect(sandbox.uvran("apply", ...LIKELY).exit).toBe(0);
  expect(printed(sandbox, "start.js")).toBe(before);
  expect(sandbox.read("start.js")).toMatch(/^#!\/usr\/bin\/env node\n\/\/ Prints the stock\.\nimport /);
  expect(sandbox.read("lib/index.js")).toBe(
    "export function total(sizes) { return sizes.reduce(add, 0); }\n" +
      "export { default as Jar } from './jar.js';\nfunction add(sum, size) { return sum + size; }\n",
  );
  expect(sandbox.uvran("propose", ...RULE, "--trust", "possible").out).toBe("");
  sandbox.uvran("undo");
  for (const [path, text] of Object.entries(STOCK)) expect(sandbox.read(path)).toBe(text);
});

test("what is found out about a package is found out again when any of its files, or a manifest, changes", () => {
  const sandbox = new Sandbox(STOCK);
  const proposed = (): string => sandbox.uvran("propose", ...RULE, ...LIKELY).out;
  expect(proposed()).toContain("Move a package to ES modules");
  sandbox.write("lib/tool.cjs", "require('./jar');\n");
  expect(proposed()).toContain("lib/tool.cjs stays CommonJS");
  const why = sandbox.uvran("rules", "javascript/es-modules", "--why", "lib/index.js:1").out;
  expect(why).toContain("✗ every file of the package can be a module: lib/tool.cjs stays CommonJS");
  sandbox.write("lib/tool.cjs", "require('fs');\n");
  expect(proposed()).not.toContain("stays CommonJS");
  sandbox.write("package.json", STOCK["package.json"].replace('"main"', '"bin": "bin/stock",\n  "main"'));
  expect(proposed()).toContain("`bin/stock` is no source of the project");
  sandbox.write(
    "bin/stock",
    "#!/usr/bin/env node\nconst { stock } = require('../lib/index.js');\nstock();\n",
  );
  expect(proposed()).toContain("bin/stock has no ending; Node takes it for a module from 18.19 and 20.10 on");
});

test("a package whose main file is minified is held back at another file", () => {
  const sandbox = new Sandbox({
    ...STOCK,
    "lib/index.js": `exports.sizes = [${"1,".repeat(3000)}];\n`,
  });
  expect(sandbox.uvran("propose", ...RULE, ...LIKELY).out).toContain(
    "lib/index.js is not to be changed: it is minified",
  );
});

test("a plan cannot write more into a manifest than what kind of modules its files are", () => {
  const sandbox = new Sandbox(STOCK);
  sandbox.uvran("propose", ...RULE, ...LIKELY, "--json", "--out", "plan.json");
  const plan = sandbox.read("plan.json");
  sandbox.write(
    "plan.json",
    plan.replace('\\"type\\": \\"module\\",', '\\"type\\": \\"module\\", \\"scripts\\": {},'),
  );
  const { exit, err } = sandbox.uvran("apply", "--plan", "plan.json", ...LIKELY);
  expect(exit).toBe(2);
  expect(err).toContain('writes more into "package.json" than a kind of module');
  expect(sandbox.read("lib/jar.js")).toBe(STOCK["lib/jar.js"]);
});

test("a package of fifty files that nobody here wrote exports the same from each of them", () => {
  const sandbox = new Sandbox();
  const folder = sandbox.path("semver");
  cpSync("node_modules/semver", folder, { recursive: true });
  sandbox.write("uvran.config.json", '{ "targets": { "javascript": "2022" } }');
  const files = readdirSync(folder, { recursive: true, encoding: "utf8" }).filter(
    (path) => path.endsWith(".js") && !path.startsWith("bin"),
  );
  expect(files.length).toBeGreaterThan(40);
  const shape = `const shape = (of) => typeof of + " " + Object.keys(of).sort().map((key) => key + ":" + typeof of[key]);`;
  const loads = files.map((file) => JSON.stringify(join(folder, file)));
  sandbox.write(
    "old.cjs",
    `${shape}\nfor (const file of [${loads.join()}]) console.log(shape(require(file)));`,
  );
  sandbox.write(
    "new.mjs",
    `${shape}\nfor (const file of [${loads.join()}]) {\n  const all = await import(file);\n  console.log(shape(all.default ?? all).replace(/^\\w+/, (kind) => all.default ? kind : "object"));\n}`,
  );
  const before = printed(sandbox, "old.cjs");
  expect(before).not.toContain("Error");
  sandbox.uvran("propose", ...RULE, "--trust", "possible");
  expect(sandbox.uvran("apply", "--trust", "possible").err).toBe("");
  expect(readFileSync(sandbox.path("semver/index.js"), "utf8")).toContain("import ");
  expect(printed(sandbox, "new.mjs")).toBe(before);
});
