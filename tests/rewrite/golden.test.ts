import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import "uvran/node";
import { Engine, textAfter } from "uvran";
import javascriptPack from "uvran/packs/javascript";
import pythonPack from "uvran/packs/python";
import { GOLDEN_RULES } from "./golden-rules.js";

const shipped = new Engine([...javascriptPack.rules, ...pythonPack.rules]);
const moving = new Engine(GOLDEN_RULES, {
  targets: { targetOf: () => ({ version: "9999", says: "by the test" }) },
});
const pairs = [
  ["tests/golden", shipped],
  ["tests/golden/languages", moving],
] as const;

/** `UPDATE_GOLDEN=1 npm test` writes the files that are compared with; read the difference before committing. */
test.each(
  pairs.flatMap(([folder, engine]) =>
    readdirSync(folder)
      .filter((name) => name.includes(".before."))
      .map((name) => [`${folder}/${name}`, engine] as const),
  ),
)("%s becomes its golden form", async (path, engine) => {
  const before = readFileSync(path, "utf8");
  const after = await textAfter(path, before, (await engine.file(path, before))!.changes);
  const golden = path.replace(".before.", ".after.");
  if (process.env["UPDATE_GOLDEN"] || !existsSync(golden)) writeFileSync(golden, after);
  expect(after).toBe(readFileSync(golden, "utf8"));
  expect((await engine.file(path, after))!.changes).toEqual([]);
});
