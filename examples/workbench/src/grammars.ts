import { setWasmSource } from "uvran";
import runtime from "web-tree-sitter/web-tree-sitter.wasm?url";
import javascript from "@vscode/tree-sitter-wasm/wasm/tree-sitter-javascript.wasm?url";
import python from "@vscode/tree-sitter-wasm/wasm/tree-sitter-python.wasm?url";
import tsx from "@vscode/tree-sitter-wasm/wasm/tree-sitter-tsx.wasm?url";
import typescript from "@vscode/tree-sitter-wasm/wasm/tree-sitter-typescript.wasm?url";

const urls: Readonly<Record<string, string>> = {
  "web-tree-sitter.wasm": runtime,
  "tree-sitter-javascript.wasm": javascript,
  "tree-sitter-python.wasm": python,
  "tree-sitter-tsx.wasm": tsx,
  "tree-sitter-typescript.wasm": typescript,
};

setWasmSource(async (file) => {
  const url = urls[file];
  if (url === undefined) throw new Error(`${file} is not part of this page`);
  const answer = await fetch(url);
  if (!answer.ok) throw new Error(`${file} could not be fetched (${answer.status})`);
  return new Uint8Array(await answer.arrayBuffer());
});
