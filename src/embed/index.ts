/** A file's name and text in, the stretches of code in it out, each with the way back to the file. */
import { languageOfFile } from "../syntax/index.js";
import { scriptsInHtml } from "./html.js";
import { fencesInMarkdown } from "./markdown.js";
import { cellsInNotebook } from "./notebook.js";
import { wholeFile, type Region } from "./region.js";

export { type Region } from "./region.js";

const HOSTS: readonly (readonly [readonly string[], (text: string) => Region[]])[] = [
  [[".md", ".markdown"], fencesInMarkdown],
  [[".ipynb"], cellsInNotebook],
  [[".html", ".htm"], scriptsInHtml],
];

function hostOf(path: string): ((text: string) => Region[]) | undefined {
  return HOSTS.find(([endings]) => endings.some((ending) => path.toLowerCase().endsWith(ending)))?.[1];
}

/** Can there be code in a file of this name, or, where it has no ending, with this first line? */
export function mayHoldCode(path: string, text?: string): boolean {
  return languageOfFile(path, text) !== undefined || hostOf(path) !== undefined;
}

/** The stretches of code in a file; undefined when it is of no kind that has any. */
export function regionsOf(path: string, text: string): Region[] | undefined {
  const language = languageOfFile(path, text);
  if (language) return [wholeFile(text, language)];
  return hostOf(path)?.(text);
}
