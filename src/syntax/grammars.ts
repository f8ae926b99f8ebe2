/// <reference types="emscripten" preserve="true" />
import { Language as Grammar, Parser } from "web-tree-sitter";
import type { Language } from "./language.js";
import { walkByCursor, walkInMemory, type Walk } from "./walk/walk.js";

/** Brings the bytes of a WebAssembly file by its name, from disk or over the network. */
export type WasmSource = (file: string) => Promise<Uint8Array>;

export const RUNTIME_FILE = "web-tree-sitter.wasm";

interface Loaded {
  readonly parser: Parser;
  readonly grammar: Grammar;
}

let source: WasmSource | undefined;
let runtime: Promise<void> | undefined;
const loading = new Map<string, Promise<void>>();
const loaded = new Map<string, Loaded>();

/** Says where grammars come from. Node and the browser differ in this and in nothing else. */
export function setWasmSource(from: WasmSource): void {
  source = from;
}

/** Loads the grammars of these languages once; needed before anything is parsed. */
export async function loadGrammars(languages: readonly Language[]): Promise<void> {
  const bring = source;
  if (!bring) {
    throw new Error(
      'No source of grammars is set: import "uvran/node", or call setWasmSource() in the browser.',
    );
  }
  runtime ??= bring(RUNTIME_FILE).then(start);
  await runtime.catch((error: unknown) => {
    runtime = undefined;
    throw error;
  });
  await Promise.all(languages.map((language) => loadOnce(language.grammar, bring)));
}

interface Imports extends WebAssembly.Imports {
  readonly env: { readonly memory: WebAssembly.Memory } & WebAssembly.ModuleImports;
}

/** Starts the parser and keeps hold of its memory and its functions, for the walk in one call. */
async function start(bytes: Uint8Array): Promise<void> {
  await Parser.init({
    instantiateWasm(imports: Imports, receive: (instance: WebAssembly.Instance, module: unknown) => void) {
      void WebAssembly.instantiate(bytes.slice().buffer, imports).then(({ instance, module }) => {
        walk = walkInMemory(instance.exports, imports.env.memory) ?? walkByCursor;
        receive(instance, module);
      });
      return {};
    },
  });
}

let walk: Walk = walkByCursor;

/** Walks a parser's tree in the fastest way that this parser allows. */
export const walkTree: Walk = (tree) => walk(tree);

function loadOnce(name: string, bring: WasmSource): Promise<void> {
  let promise = loading.get(name);
  if (!promise) {
    promise = bring(`${name}.wasm`).then(async (bytes) => {
      const grammar = await Grammar.load(bytes);
      const parser = new Parser();
      parser.setLanguage(grammar);
      loaded.set(name, { parser, grammar });
    });
    loading.set(name, promise);
    // What could not be brought may be asked for again.
    promise.catch(() => loading.delete(name));
  }
  return promise;
}

/** The parser for a language whose grammar is loaded. */
export function grammarOf(language: Language): Loaded {
  const found = loaded.get(language.grammar);
  if (!found) throw new Error(`The grammar of ${language.title} is not loaded; call loadGrammars() first.`);
  return found;
}
