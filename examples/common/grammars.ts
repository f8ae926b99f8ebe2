import { setWasmSource } from "uvran/core";

/** How far a grammar is loaded. */
export type Loading =
  { readonly file: string; readonly received: number; readonly total: number | undefined } | undefined;

/** The parser's own file, and a grammar for each language, as files beside the page. */
const URLS: Readonly<Record<string, string>> = Object.fromEntries(
  Object.entries({
    ...import.meta.glob<string>("../../node_modules/web-tree-sitter/web-tree-sitter.wasm", {
      query: "?url",
      import: "default",
      eager: true,
    }),
    ...import.meta.glob<string>(
      "../../node_modules/@vscode/tree-sitter-wasm/wasm/tree-sitter-{javascript,typescript,tsx,python,java,cpp,c-sharp,php,ruby}.wasm",
      { query: "?url", import: "default", eager: true },
    ),
    ...import.meta.glob<string>("../../node_modules/tree-sitter-pwsh/*.wasm", {
      query: "?url",
      import: "default",
      eager: true,
    }),
  }).map(([path, url]) => [path.split("/").at(-1)!, url]),
);

/** Brings grammars over the network, and tells how far each one is. */
export function bringGrammars(tell: (loading: Loading) => void): void {
  setWasmSource(async (file) => {
    const url = URLS[file];
    if (url === undefined) throw new Error(`${file} is not part of this page`);
    const answer = await fetch(url);
    if (!answer.ok || !answer.body) throw new Error(`${file} could not be fetched (${answer.status})`);
    const length = Number(answer.headers.get("content-length"));
    const total = length > 0 ? length : undefined;
    const chunks: Uint8Array[] = [];
    let received = 0;
    const reader = answer.body.getReader();
    for (let part = await reader.read(); !part.done; part = await reader.read()) {
      chunks.push(part.value);
      received += part.value.length;
      tell({ file, received, total });
    }
    const bytes = new Uint8Array(received);
    let at = 0;
    for (const chunk of chunks) {
      bytes.set(chunk, at);
      at += chunk.length;
    }
    tell(undefined);
    return bytes;
  });
}
