import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { setFlagsFromString } from "node:v8";
import { RUNTIME_FILE, setWasmSource } from "../syntax/index.js";

const require = createRequire(import.meta.url);

/** The package that holds a WebAssembly file, and its folder there; for those that are not among all the others. */
const APART: Readonly<Record<string, readonly [name: string, folder: string]>> = {
  "tree-sitter-powershell.wasm": ["tree-sitter-pwsh", "."],
};

/** Where the installed packages keep a WebAssembly file. */
export function wasmPath(file: string): string {
  if (file === RUNTIME_FILE) return require.resolve(`web-tree-sitter/${RUNTIME_FILE}`);
  const [name, folder] = APART[file] ?? ["@vscode/tree-sitter-wasm", "wasm"];
  return join(dirname(require.resolve(`${name}/package.json`)), folder, file);
}

/**
 * Of this grammar, the optimising compiler of the engine takes ten seconds over one function, which the process would
 * wait for at its end. What the baseline compiler makes of it is nearly as fast.
 */
const LONG_TO_OPTIMISE = "tree-sitter-powershell.wasm";

setWasmSource((file) => {
  if (file === LONG_TO_OPTIMISE) {
    setFlagsFromString("--no-wasm-dynamic-tiering");
    setFlagsFromString("--no-wasm-tier-up");
  }
  return readFile(wasmPath(file));
});
