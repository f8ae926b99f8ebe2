import type { Rule } from "../rules/index.js";
import { languageOfFile, loadGrammars, type Language, type LanguageId } from "../syntax/index.js";
import type { FileResult } from "./change.js";
import { changesInFile } from "./file.js";
import { PreparedRules } from "./prepare.js";

/** Rules at work: give it files, it gives changes. Grammars are loaded when the first file needs them. */
export class Engine {
  readonly #rules: readonly Rule[];
  readonly #prepared = new Map<LanguageId, PreparedRules>();

  constructor(rules: readonly Rule[]) {
    this.#rules = rules;
  }

  /** The rules made ready for a language, loading its grammar. Throws a RuleError for a broken rule. */
  async prepare(language: Language): Promise<PreparedRules> {
    let prepared = this.#prepared.get(language.id);
    if (!prepared) {
      await loadGrammars([language]);
      prepared = new PreparedRules(this.#rules, language.id);
      this.#prepared.set(language.id, prepared);
    }
    return prepared;
  }

  /** The changes for one file; undefined when its name belongs to no language. */
  async file(path: string, text: string): Promise<FileResult | undefined> {
    const language = languageOfFile(path);
    if (!language) return undefined;
    const rules = await this.prepare(language);
    if (rules.isEmpty || !rules.mayMatch((word) => text.includes(word))) return { changes: [], heldBack: [] };
    return changesInFile(path, text, language, rules);
  }
}
