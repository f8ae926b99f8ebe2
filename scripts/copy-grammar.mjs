/** Copies the grammar of PowerShell, with its licence, to where the program looks for it. */
import { copyFileSync, mkdirSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";

const from = dirname(createRequire(import.meta.url).resolve("tree-sitter-pwsh/package.json"));
const to = "dist/grammars";
mkdirSync(to, { recursive: true });
copyFileSync(join(from, "tree-sitter-powershell.wasm"), join(to, "tree-sitter-powershell.wasm"));
copyFileSync(join(from, "LICENSE"), join(to, "tree-sitter-powershell.LICENSE"));
