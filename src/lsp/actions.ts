import {
  CodeActionKind,
  type CodeAction,
  type Diagnostic,
  type Range,
  type TextDocumentEdit,
} from "vscode-languageserver/node";
import { editsFor, keepComment } from "../engine/index.js";
import { TRUSTS } from "../rules/index.js";
import type { PlanChange } from "../plan/index.js";
import { plural } from "../report/index.js";
import type { Edit } from "../rewrite/index.js";
import { meet, rangeOf, textEdits } from "./convert.js";
import { uriOf, type OpenFile } from "./open-file.js";

/** The command that decides about a change of the file: its address, the id, and what is decided. */
export const DECIDE = "uvran.decide";
/** All certain changes of a file at once, for editors that do so when a file is saved. */
export const FIX_ALL = `${CodeActionKind.SourceFixAll}.uvran`;

/** The version of the text that an editor has of a file; null for one that it does not have open. */
export type VersionOf = (uri: string) => number | null;

/** What can be done in a stretch of a file: each change that meets it, all that are like it, or leaving the place as it is. */
export async function actionsAt(
  file: OpenFile,
  range: Range,
  only: readonly string[] | undefined,
  versionOf: VersionOf,
  reported: readonly Diagnostic[],
): Promise<CodeAction[]> {
  const wants = (kind: string): boolean =>
    only?.some((one) => kind === one || kind.startsWith(`${one}.`)) ?? kind !== FIX_ALL;
  const actions: CodeAction[] = [];
  if (wants(FIX_ALL)) actions.push(...(await fixAll(file, versionOf)));
  if (!wants(CodeActionKind.QuickFix)) return actions;
  const here = file.plan.changes.filter((change) => meet(rangeOf(change.range), range));
  for (const change of here) {
    const diagnostics = reported.filter(
      ({ data }) => (data as { id?: string } | undefined)?.id === change.id,
    );
    const one = await written(file, [change], versionOf);
    if (one)
      actions.push({
        title: `${change.title} (${change.trust})`,
        kind: CodeActionKind.QuickFix,
        diagnostics,
        edit: { documentChanges: one },
        isPreferred: change.trust === "certain",
      });
    actions.push(
      ...(await allLike(change, file, versionOf)),
      ...(await leaveAsItIs(change, file, versionOf)),
    );
  }
  return actions;
}

/** The same in all of the file, as far as it is as sure. */
async function allLike(change: PlanChange, file: OpenFile, versionOf: VersionOf): Promise<CodeAction[]> {
  const isLike = ({ rules, trust, elsewhere }: PlanChange): boolean =>
    rules.join() === change.rules.join() &&
    TRUSTS.indexOf(trust) <= TRUSTS.indexOf(change.trust) &&
    elsewhere.length === 0;
  const alike = file.plan.changes.filter(isLike);
  if (alike.length < 2 || change.elsewhere.length > 0) return [];
  const edit = await written(file, alike, versionOf);
  const title = `All ${plural(alike.length, "change")} of ${change.rules.join(" + ")} in this file`;
  return edit ? [{ title, kind: CodeActionKind.QuickFix, edit: { documentChanges: edit } }] : [];
}

async function leaveAsItIs(change: PlanChange, file: OpenFile, versionOf: VersionOf): Promise<CodeAction[]> {
  const [rule] = change.rules;
  const { path, text, uri } = file;
  const comment = await keepComment(path, text, change.range.start, rule!);
  const kept: CodeAction[] = comment
    ? [
        {
          title: `Keep this from ${rule} with a comment`,
          kind: CodeActionKind.QuickFix,
          edit: { documentChanges: [documentEdit(uri, text, [comment], versionOf)] },
        },
      ]
    : [];
  // A decision is about what is on the disk.
  const dropped: CodeAction[] = file.isSaved
    ? [
        {
          title: `Drop this change of ${rule}, for everybody`,
          kind: CodeActionKind.QuickFix,
          command: { title: "Drop", command: DECIDE, arguments: [uri, change.id, "drop"] },
        },
      ]
    : [];
  return [...kept, ...dropped];
}

async function fixAll(file: OpenFile, versionOf: VersionOf): Promise<CodeAction[]> {
  const sure = file.plan.changes.filter(
    ({ trust, elsewhere }) => trust === "certain" && elsewhere.length === 0,
  );
  const edit = sure.length > 0 ? await written(file, sure, versionOf) : undefined;
  const title = `Make the ${plural(sure.length, "certain change")} of this file`;
  return edit ? [{ title, kind: FIX_ALL, edit: { documentChanges: edit } }] : [];
}

/** What changes do to all files; undefined where an import cannot be written. */
async function written(
  { path, text, uri, workspace }: OpenFile,
  changes: readonly PlanChange[],
  versionOf: VersionOf,
): Promise<TextDocumentEdit[] | undefined> {
  try {
    const own = documentEdit(uri, text, await editsFor(path, text, changes), versionOf);
    const others = changes.flatMap(({ elsewhere }) =>
      elsewhere.map((other) =>
        documentEdit(uriOf(workspace, other.path), workspace.text(other.path), other.edits, versionOf),
      ),
    );
    return [own, ...others];
  } catch {
    return undefined;
  }
}

function documentEdit(
  uri: string,
  text: string,
  edits: readonly Edit[],
  versionOf: VersionOf,
): TextDocumentEdit {
  return { textDocument: { uri, version: versionOf(uri) }, edits: textEdits(text, edits) };
}
