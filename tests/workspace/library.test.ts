import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Workspace } from "uvran/workspace";

const CODE = "import scales\n\n\ndef f(d: dict, k):\n    return d[k] if k in d else scales.tare(1)\n";

async function trustWith(config: unknown): Promise<string[]> {
  const root = mkdtempSync(join(tmpdir(), "uvran-library-"));
  writeFileSync(join(root, "uvran.config.json"), JSON.stringify(config));
  writeFileSync(join(root, "yard.py"), CODE);
  const workspace = await Workspace.open(root);
  const { survey } = await workspace.examine();
  return survey.changes.map(({ trust }) => trust);
}

const row = { language: "python", in: "scales", calls: ["tare"], effect: "none", gives: "float" };

test.each([
  ["nothing", {}, []],
  ["that a function only works something out", { library: { calls: [row] } }, ["likely"]],
  ["that it never throws either", { library: { calls: [{ ...row, neverThrows: true }] } }, ["certain"]],
  ["that of another module", { library: { calls: [{ ...row, in: "shelf" }] } }, []],
])("what a config says of the project's functions counts: %s", async (_what, config, trust) => {
  expect(await trustWith(config)).toEqual(trust);
});
