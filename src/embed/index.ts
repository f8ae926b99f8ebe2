/** A file's name and text in, the stretches of code in it out, each with the way back to the file. */
import { languageOfFile } from "../syntax/index.js";
import { wholeFile, type Region } from "./region.js";

export { type Region } from "./region.js";

type Regions = (text: string) => Region[];

/** Files that hold code of other languages; what reads them is large, and is loaded with the first of them. */
const HOSTS: readonly (readonly [readonly string[], () => Promise<Regions>])[] = [
  [[".md", ".markdown"], async () => (await import("./markdown.js")).fencesInMarkdown],
  [[".ipynb"], async () => (await import("./notebook.js")).cellsInNotebook],
  [[".html", ".htm"], async () => (await import("./html.js")).scriptsInHtml],
];

function hostOf(path: string): (() => Promise<Regions>) | undefined {
  return HOSTS.find(([endings]) => endings.some((ending) => path.toLowerCase().endsWith(ending)))?.[1];
}

/** Can there be code in a file of this name, or, where it has no ending, with this first line? */
export function mayHoldCode(path: string, text?: string): boolean {
  return languageOfFile(path, text) !== undefined || hostOf(path) !== undefined;
}

/** The stretches of code in a file; undefined when it is of no kind that has any. */
export async function regionsOf(path: string, text: string): Promise<Region[] | undefined> {
  const language = languageOfFile(path, text);
  if (language) return [wholeFile(text, language)];
  return (await hostOf(path)?.())?.(text);
}
