import { areKin } from "../analysis/index.js";
import { regionsOf, type Region } from "../embed/index.js";
import type { Around, Rule } from "../rules/index.js";
import {
  allLanguages,
  languageOfFile,
  loadGrammars,
  offsetOf,
  placeOfOffset,
  type Language,
  type LanguageId,
  type TextPlace,
  type TextRange,
} from "../syntax/index.js";
import type { Change, FileResult, Ground, HeldBack, IdleKeep } from "./change.js";
import { changesInFile } from "./file.js";
import { lower } from "../rules/index.js";
import { PreparedRules } from "./prepare.js";
import { explain, type Explanation } from "./why.js";

const NOTHING: FileResult = { changes: [], heldBack: [] };

/** Rules at work: give it files, it gives changes. Grammars are loaded when the first file needs them. */
export class Engine {
  readonly #rules: readonly Rule[];
  readonly #prepared: Map<LanguageId, PreparedRules>;

  readonly #surroundings: Omit<Around, "path">;

  /**
   * `surroundings` are the other files of the project, its compiler and its target versions. An engine that had the same rules, in
   * a state of the project that is past, hands on what it has made ready.
   */
  constructor(rules: readonly Rule[], surroundings: Omit<Around, "path"> = {}, earlier?: Engine) {
    const isSame =
      earlier !== undefined &&
      earlier.#rules === rules &&
      earlier.#surroundings.library === surroundings.library;
    this.#rules = rules;
    this.#surroundings = surroundings;
    this.#prepared = isSame ? earlier.#prepared : new Map<LanguageId, PreparedRules>();
  }

  /** The rules made ready for a language, loading its grammar. Throws a RuleError for a broken rule. */
  async prepare(language: Language): Promise<PreparedRules> {
    let prepared = this.#prepared.get(language.id);
    if (!prepared) {
      const reachesOut = this.#rules.some((rule) => rule.uses !== undefined);
      await loadGrammars(reachesOut ? allLanguages().filter((other) => areKin(other, language)) : [language]);
      prepared = new PreparedRules(this.#rules, language.id, this.#surroundings.library);
      this.#prepared.set(language.id, prepared);
    }
    return prepared;
  }

  /** Can a file of this name, in which `has` finds words, hold a match of any rule? */
  async mayMatch(path: string, has: (word: string) => boolean): Promise<boolean> {
    const language = languageOfFile(path);
    if (!language) return true;
    return (await this.prepare(language)).mayMatch(has);
  }

  /**
   * Why a rule does at a line what it does, or does nothing there; undefined when the file's name belongs to no kind of
   * file that holds code. Lines are 1-based.
   */
  async explain(rule: Rule, path: string, text: string, line: number): Promise<Explanation[] | undefined> {
    const regions = await regionsOf(path, text);
    const found: Explanation[] = [];
    for (const region of regions ?? []) {
      await this.prepare(region.language);
      const ahead = text.slice(0, region.start).split("\n").length - 1;
      const around = { path, ...(region.isWhole ? this.#surroundings : {}) };
      const here = explain(rule, around, region.text, region.language, line - ahead);
      found.push(...here.map((one) => ({ ...one, line })));
    }
    return regions && found;
  }

  /** The changes for one file; undefined when its name belongs to no kind of file that holds code. */
  async file(path: string, text: string): Promise<FileResult | undefined> {
    const regions = await regionsOf(path, text);
    if (!regions) return undefined;
    const results: FileResult[] = [];
    for (const [i, region] of regions.entries()) {
      const rules = await this.prepare(region.language);
      if (rules.isEmpty || !rules.mayMatch((word) => region.text.includes(word))) continue;
      const name = regions.length > 1 ? `${path}#${i + 1}` : path;
      const { targets } = this.#surroundings;
      const around = { path: name, ...(region.isWhole ? this.#surroundings : { targets }) };
      results.push(inFile(path, text, region, changesInFile(around, region.text, region.language, rules)));
    }
    return results.length === 0 ? NOTHING : results.length === 1 ? results[0] : together(results);
  }
}

/** Cells and scripts share their names with the rest of their file, and documentation leaves out what is around. */
const ELSEWHERE: Ground = {
  answer: "unknown",
  code: "file.part",
  says: "only this piece of code was looked at, not the rest of the file",
};

/** What was found in a region, with the places of the file around it. */
function inFile(path: string, text: string, region: Region, result: FileResult): FileResult {
  const outward = (place: TextPlace): TextPlace => {
    const at = offsetOf(region.text, place);
    return placeOfOffset(text, region.outward({ start: at, end: at, text: "" }).start);
  };
  const ranged = ({ start, end }: TextRange): TextRange =>
    region.isWhole ? { start, end } : { start: outward(start), end: outward(end) };
  const placed = <T extends { readonly line?: number | undefined; readonly range?: TextRange | undefined }>(
    entry: T,
  ): T => ({
    ...entry,
    ...(entry.line === undefined ? {} : { line: region.line(entry.line) }),
    ...(entry.range === undefined ? {} : { range: ranged(entry.range) }),
  });
  /** Lines of another file stay as they are. */
  const said = <T extends Parameters<typeof placed>[0] & { readonly path?: string | undefined }>(
    entry: T,
  ): T => (entry.path === undefined ? placed(entry) : entry);
  const held = (entry: HeldBack): HeldBack => {
    const { at, atRange, atPath } = entry;
    if (atPath !== undefined) return { ...placed(entry), path };
    return {
      ...placed(entry),
      path,
      ...(at === undefined ? {} : { at: region.line(at) }),
      ...(atRange === undefined ? {} : { atRange: ranged(atRange) }),
    };
  };
  const change = (entry: Change): Change => ({
    ...placed(entry),
    path,
    trust: region.isWhole ? entry.trust : lower(entry.trust, "likely"),
    evidence: [...entry.evidence.map(said), ...(region.isWhole ? [] : [ELSEWHERE])],
    cautions: entry.cautions.map(said),
    edits: entry.edits.map((edit) => region.outward(edit)),
  });
  return {
    changes: result.changes.map(change),
    heldBack: result.heldBack.map(held),
    advice: (result.advice ?? []).map((entry) => ({
      ...placed(entry),
      path,
      trust: region.isWhole ? entry.trust : lower(entry.trust, "likely"),
      evidence: entry.evidence.map(said),
    })),
    silenced: (result.silenced ?? []).map((entry) => ({ ...placed(entry), path })),
    idleKeeps: (result.idleKeeps ?? []).map((keep): IdleKeep => ({ ...placed(keep), path })),
    failures: (result.failures ?? []).map((entry) => ({ ...placed(entry), path })),
    unread: (result.unread ?? []).map((entry) => ({ ...placed(entry), path })),
    ...(result.unparsed ? { unparsed: { ...placed(result.unparsed), path } } : {}),
  };
}

function together(results: readonly FileResult[]): FileResult {
  const unparsed = results.find((result) => result.unparsed)?.unparsed;
  return {
    changes: results.flatMap((result) => result.changes),
    heldBack: results.flatMap((result) => result.heldBack),
    advice: results.flatMap((result) => result.advice ?? []),
    silenced: results.flatMap((result) => result.silenced ?? []),
    idleKeeps: results.flatMap((result) => result.idleKeeps ?? []),
    failures: results.flatMap((result) => result.failures ?? []),
    unread: results.flatMap((result) => result.unread ?? []),
    ...(unparsed ? { unparsed } : {}),
  };
}
