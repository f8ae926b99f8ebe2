import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { setFlagsFromString } from "node:v8";
import { RUNTIME_FILE, setWasmSource } from "../syntax/index.js";

const require = createRequire(import.meta.url);

/** The grammar that is not among all the others: the build copies it, since its package would be compiled where it is installed. */
const OWN = "tree-sitter-powershell.wasm";

/** Where a WebAssembly file is: in an installed package, or beside the program. */
export function wasmPath(file: string): string {
  if (file === RUNTIME_FILE) return require.resolve(`web-tree-sitter/${RUNTIME_FILE}`);
  if (file === OWN) return fileURLToPath(new URL(`../grammars/${OWN}`, import.meta.url));
  return join(dirname(require.resolve("@vscode/tree-sitter-wasm/package.json")), "wasm", file);
}

/**
 * Of this grammar, the optimising compiler of the engine takes ten seconds over one function, which the process would
 * wait for at its end. What the baseline compiler makes of it is nearly as fast.
 */
const LONG_TO_OPTIMISE = OWN;

setWasmSource((file) => {
  if (file === LONG_TO_OPTIMISE) {
    setFlagsFromString("--no-wasm-dynamic-tiering");
    setFlagsFromString("--no-wasm-tier-up");
  }
  return readFile(wasmPath(file));
});
