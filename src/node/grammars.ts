import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { RUNTIME_FILE, setWasmSource } from "../syntax/index.js";

const require = createRequire(import.meta.url);

/** Where the installed packages keep the WebAssembly files. */
setWasmSource((file) => {
  const path =
    file === RUNTIME_FILE
      ? require.resolve(`web-tree-sitter/${RUNTIME_FILE}`)
      : join(dirname(require.resolve("@vscode/tree-sitter-wasm/package.json")), "wasm", file);
  return readFile(path);
});
