import { readFileSync } from "node:fs";
import { Language, Parser } from "web-tree-sitter";
import wabt from "wabt";
import { allLanguages, loadGrammars } from "uvran/core";
import { WALK_BYTES } from "../../dist/syntax/walk/walk-bytes.js";
import { walkByCursor } from "../../dist/syntax/walk/walk.js";
import { walkTree } from "../../dist/syntax/grammars.js";
import { wasmPath } from "uvran/node";

test("the bytes of the walk are its text, assembled", async () => {
  const { parseWat } = await wabt();
  const text = readFileSync("src/syntax/walk/walk.wat", "utf8");
  const { buffer } = parseWat("walk.wat", text).toBinary({});
  expect(WALK_BYTES).toBe(Buffer.from(buffer).toString("base64"));
});

const SAMPLES = ["javascript", "python", "java", "cpp", "csharp", "php", "ruby", "powershell"] as const;
const ENDINGS = ["js", "py", "java", "cpp", "cs", "php", "rb", "ps1"];

test.each(SAMPLES.map((id, i) => [id, ENDINGS[i]!] as const))(
  "one call walks a tree of %s as the parser's own cursor does, errors too",
  async (id, ending) => {
    const language = allLanguages().find((one) => one.id === id)!;
    await loadGrammars([language]);
    const parser = new Parser();
    parser.setLanguage(await Language.load(wasmPath(`${language.grammar}.wasm`)));
    const sound = readFileSync(`tests/golden/languages/mixed.before.${ending}`, "utf8");
    for (const text of [sound, sound.slice(0, sound.length >> 1) + ") } = ( { é🐝", ""]) {
      const tree = parser.parse(text)!;
      expect(walkTree(tree)).toEqual(walkByCursor(tree));
      tree.delete();
    }
  },
);
