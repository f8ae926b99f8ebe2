import { compile, Snippet, SnippetError } from "../pattern/index.js";
import type { ChangeTable, Pack } from "../rules/index.js";
import { languageOf, loadGrammars, type LanguageId } from "../syntax/index.js";
import { Problem } from "./problem.js";

/**
 * Throws a Problem that names the file, the row and the column for code of a table that does not parse, with the nearest that
 * would.
 */
export async function checkTable(file: string, table: ChangeTable, { rules }: Pack): Promise<void> {
  const { language, rows, product } = table;
  await loadGrammars([languageOf(language)]);
  for (const [i, row] of rows.entries()) {
    const rule = rules[i];
    if (rule === undefined || row.inText !== undefined) continue;
    for (const snippet of rule.alternatives) {
      const fault = snippet instanceof Snippet ? faultIn(snippet, language) : undefined;
      if (fault === undefined) continue;
      const near = nearest(snippet as Snippet, row.old, language);
      const hint = near === undefined ? "" : `\nThis would parse: ${near}`;
      throw new Problem(`${file}: table "${product}", row ${i + 1}, old: ${fault}${hint}`);
    }
  }
}

function faultIn(snippet: Snippet, language: LanguageId): string | undefined {
  try {
    compile(snippet, language);
    return undefined;
  } catch (error) {
    if (error instanceof SnippetError) return error.message;
    throw error;
  }
}

/** What makes code whole that is often left unfinished: a bracket, an end of a statement, something to decorate or to do. */
const ENDS = [")", "]", "}", ";", "()", "\nclass A {}", "\nclass A: pass", " {}", "\npass", "\nend"];

/** The code so that it parses: with something at its end, or without its last sign. */
function nearest(snippet: Snippet, code: string, language: LanguageId): string | undefined {
  const { texts, parts } = snippet;
  const last = texts.at(-1)!.trimEnd();
  const parses = (end: string): boolean =>
    faultIn(new Snippet(snippet.language, [...texts.slice(0, -1), end], parts), language) === undefined;
  const end = ENDS.find((one) => parses(last + one));
  if (end !== undefined) return code.trimEnd() + end;
  return last !== "" && parses(last.slice(0, -1)) ? code.trimEnd().slice(0, -1) : undefined;
}
