import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import "uvran/node";
import { applyEdits, Engine } from "uvran";
import javascriptPack from "uvran/packs/javascript";
import pythonPack from "uvran/packs/python";

const FOLDER = "tests/golden";
const engine = new Engine([...javascriptPack.rules, ...pythonPack.rules]);

/** `UPDATE_GOLDEN=1 npm test` writes the files that are compared with; read the difference before committing. */
test.each(readdirSync(FOLDER).filter((name) => name.includes(".before.")))(
  "%s becomes its golden form",
  async (name) => {
    const before = readFileSync(`${FOLDER}/${name}`, "utf8");
    const result = (await engine.file(name, before))!;
    const after = applyEdits(
      before,
      result.changes.flatMap((change) => change.edits),
    );
    const golden = `${FOLDER}/${name.replace(".before.", ".after.")}`;
    if (process.env["UPDATE_GOLDEN"] || !existsSync(golden)) writeFileSync(golden, after);
    expect(after).toBe(readFileSync(golden, "utf8"));
    expect((await engine.file(name, after))!.changes).toEqual([]);
  },
);
