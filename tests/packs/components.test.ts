import { spawnSync } from "node:child_process";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import ts from "typescript";
import { Engine, filesNaming, languageOfFile, loadGrammars, textAfter } from "uvran/core";
import "uvran/node";
import { SHIPPED } from "uvran/packs";

/** Components whose effects work on the document; what they become; and what the document is while they are used. */
const FOLDER = "tests/golden/components";
const rules = SHIPPED.flatMap((pack) => pack.rules).filter(({ id }) => id === "javascript/component-state");
const engine = new Engine(rules, { files: filesNaming([]) });

/** What the document is at first and after each of the things that happen to a component, the same ones each time. */
function driven(path: string): string {
  const { stdout, stderr, status } = spawnSync(process.execPath, [join(FOLDER, "drive.mjs"), path], {
    encoding: "utf8",
  });
  return `${stdout}${stderr}exit ${status}`;
}

function complaints(path: string): string[] {
  const program = ts.createProgram([resolve(path)], {
    jsx: ts.JsxEmit.ReactJSX,
    strict: true,
    noEmit: true,
    skipLibCheck: true,
    module: ts.ModuleKind.ESNext,
    moduleResolution: ts.ModuleResolutionKind.Bundler,
    target: ts.ScriptTarget.ES2022,
    types: [],
  });
  return ts
    .getPreEmitDiagnostics(program)
    .map(({ messageText }) => ts.flattenDiagnosticMessageText(messageText, "\n"));
}

test.each(["desk.jsx", "ways.jsx", "typed.tsx"])(
  "the components of %s show the same, by state",
  async (file) => {
    const [name, ending] = file.split(".") as [string, string];
    const old = join(FOLDER, `${name}.before.${ending}`);
    const golden = join(FOLDER, `${name}.after.${ending}`);
    const before = readFileSync(old, "utf8");
    await loadGrammars([languageOfFile(file)!]);
    const found = await engine.file(file, before);
    const after = await textAfter(file, before, found?.changes ?? []);
    if (process.env["UPDATE_GOLDEN"] || !existsSync(golden)) writeFileSync(golden, after);
    expect(after).toBe(readFileSync(golden, "utf8"));
    expect(found!.changes.every(({ trust }) => trust === "likely")).toBe(true);
    const shown = driven(old);
    expect(shown).toMatch(/exit 0$/);
    expect(driven(golden)).toBe(shown);
    if (ending === "tsx") expect([complaints(old), complaints(golden)]).toEqual([[], []]);
  },
);
