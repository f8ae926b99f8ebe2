import { languageOfFile, loadGrammars, parseFile } from "../../syntax/index.js";
import { literalOf } from "./literals.js";
import type { Value } from "./value.js";

const MOST_SITES = 20;
/** Of files that hold a name, how many are looked at. */
const MOST_FILES = 20;

/** Calls in some files whose arguments are all written out, by the last part of the function's name. */
export async function callSites(
  name: string,
  files: readonly string[],
  textOf: (path: string) => string | undefined,
): Promise<Value[][]> {
  const last = name.split(".").at(-1)!;
  const found = new Map<string, Value[]>();
  let looked = 0;
  for (const path of files) {
    if (looked >= MOST_FILES || found.size >= MOST_SITES) break;
    const text = textOf(path);
    if (text === undefined || !text.includes(`${last}(`)) continue;
    looked++;
    const language = languageOfFile(path)!;
    await loadGrammars([language]);
    const tree = parseFile(text, language);
    for (const node of tree.root.descendants()) {
      if (!node.is(["call_expression", "call"])) continue;
      const called = node.child("function")?.text ?? "";
      if (called !== last && !called.endsWith(`.${last}`)) continue;
      const args = (node.child("arguments")?.parts ?? []).map(literalOf);
      if (args.every((one) => one !== undefined)) found.set(JSON.stringify(args), args);
    }
  }
  return [...found.values()].slice(0, MOST_SITES);
}
