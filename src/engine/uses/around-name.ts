import { CannotRewrite, clash, treeAfter, withLineEnds, type Edit } from "../../rewrite/index.js";
import { EveryUse, lower, Match, Renaming, Together, type Rule, type Trust } from "../../rules/index.js";
import { languageOfFile, parseFile, type Import } from "../../syntax/index.js";
import type { FileEdits, Ground } from "../change.js";
import { faultIn } from "../verify.js";
import type { Piece } from "./piece.js";
import { renameEverywhere } from "./rename.js";
import { rewriteUses } from "./rewrite-uses.js";

/** What a rule does to the uses of a name, or to several files together, beside what it does to the match itself. */
export interface AroundName {
  readonly edits: readonly Edit[];
  readonly needs: readonly Import[];
  readonly elsewhere: readonly FileEdits[];
  readonly evidence: readonly Ground[];
  readonly trust: Trust;
}

/** Works out what becomes of the uses of a name, or of several files. Throws CannotRewrite where one of them is not understood. */
export function aroundName(rule: Rule, match: Match): AroundName {
  const uses = typeof rule.uses === "function" ? rule.uses(match) : rule.uses;
  if (!uses) return { edits: [], needs: [], elsewhere: [], evidence: [], trust: "certain" };
  const parts = partsOf(uses, match);
  const own = parts.filter(({ path }) => path === undefined).flatMap(({ edits }) => edits);
  const others = new Map<string, { text: string; edits: Edit[] }>();
  for (const { path, text, edits } of parts) {
    if (path === undefined) continue;
    const file = others.get(path) ?? { text, edits: [] };
    file.edits.push(...edits);
    others.set(path, file);
  }
  const elsewhere = [...others].map(([path, { text, edits }]): FileEdits => {
    const sound = soundEdits(path, text, edits, match);
    return { path, edits: sound };
  });
  return {
    edits: ordered(own, match.tree.text),
    needs: parts.flatMap(({ needs }) => needs ?? []),
    elsewhere: elsewhere.filter(({ edits }) => edits.length > 0).sort((a, b) => (a.path < b.path ? -1 : 1)),
    evidence: parts.flatMap(({ evidence }) => evidence ?? []),
    trust: parts.map(({ trust }) => trust ?? "certain").reduce(lower, "certain"),
  };
}

function partsOf(uses: EveryUse | Renaming | Together, match: Match): Piece[] {
  if (uses instanceof Renaming) return renameEverywhere(uses, match);
  if (uses instanceof EveryUse) return rewriteUses(uses, match);
  const own = match.around.path;
  return uses.files.map(({ path, ...file }) => ({ path: path === own ? undefined : path, ...file }));
}

/** The edits without repeats. Throws CannotRewrite where two want the same text. */
function ordered(edits: readonly Edit[], text: string): Edit[] {
  const result: Edit[] = [];
  for (const edit of [...edits].sort((a, b) => a.start - b.start || a.end - b.end)) {
    const last = result.at(-1);
    if (last && last.start === edit.start && last.end === edit.end && last.text === edit.text) continue;
    if (clash([edit], result)) {
      const line = text.slice(0, edit.start).split("\n").length;
      throw new CannotRewrite("edit.clash", `two uses on line ${line} cannot be rewritten together`);
    }
    result.push(edit);
  }
  return result;
}

/** The edits of another file. Throws CannotRewrite where they would not pass the checks that a change must pass. */
function soundEdits(path: string, text: string, edits: readonly Edit[], { around }: Match): Edit[] {
  const sorted = ordered(withLineEnds(text, edits), text);
  const language = languageOfFile(path, text);
  if (!language) return sorted;
  const before = around.files?.trees?.treeOf(path, text, language) ?? parseFile(text, language);
  const fault = faultIn(before, treeAfter(before, sorted), [{ edits: sorted }]);
  if (fault) throw new CannotRewrite(fault.code, `${path}: ${fault.says}`);
  return sorted;
}
