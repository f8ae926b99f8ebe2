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
import { uriOf, type OpenFile } from "./open-files.js";

/** The command that decides about a change of the file: its address, the id, and what is decided. */
export const DECIDE = "uvran.decide";
/** All certain changes of a file at once, for editors that do so when a file is saved. */
export const FIX_ALL = `${CodeActionKind.SourceFixAll}.uvran`;

/** The version of the text that an editor has of a file; null for one that it does not have open. */
export type VersionOf = (uri: string) => number | null;

/** What an action does, as an editor hands it back when it asks for the edits. */
export interface Wanted {
  readonly uri: string;
  readonly version: number;
  readonly does: "one" | "alike" | "keep" | "certain";
  /** The change that it is about; empty where it is about all. */
  readonly id: string;
}

/**
 * What can be done in a stretch of a file: each change that meets it, all that are like it, or leaving the place as it is. The edits
 * are not worked out yet.
 */
export function actionsAt(
  file: OpenFile,
  range: Range,
  only: readonly string[] | undefined,
  reported: readonly Diagnostic[],
): CodeAction[] {
  const wants = (kind: string): boolean =>
    only?.some((one) => kind === one || kind.startsWith(`${one}.`)) ?? kind !== FIX_ALL;
  const { uri, version, plan } = file;
  const action = (title: string, does: Wanted["does"], id = ""): CodeAction => ({
    title,
    kind: does === "certain" ? FIX_ALL : CodeActionKind.QuickFix,
    data: { uri, version, does, id } satisfies Wanted,
  });
  const sure = certainOf(file).length;
  const all = sure > 0 ? [action(`Make the ${plural(sure, "certain change")} of this file`, "certain")] : [];
  const here = plan.changes.filter((change) => meet(rangeOf(change.range), range));
  const ofHere = here.flatMap((change): CodeAction[] => {
    const { id, title, trust, rules } = change;
    const alike = alikeOf(change, file).length;
    const about = ({ data }: Diagnostic): boolean => (data as { id?: string } | undefined)?.id === id;
    return [
      {
        ...action(`${title} (${trust})`, "one", id),
        diagnostics: reported.filter(about),
        isPreferred: trust === "certain",
      },
      ...(alike > 1
        ? [action(`All ${plural(alike, "change")} of ${rules.join(" + ")} in this file`, "alike", id)]
        : []),
      action(`Keep this from ${rules[0]!} with a comment`, "keep", id),
      // A decision is about what is on the disk.
      ...(file.isSaved ? [dropping(change, uri)] : []),
    ];
  });
  return [...(wants(FIX_ALL) ? all : []), ...(wants(CodeActionKind.QuickFix) ? ofHere : [])];
}

/** The same with its edits; undefined where they cannot be written, or the file has other text by now. */
export async function withEdits(
  action: CodeAction,
  file: OpenFile,
  versionOf: VersionOf,
): Promise<CodeAction | undefined> {
  const { does, id, version } = action.data as Wanted;
  const change = file.plan.changes.find((one) => one.id === id);
  if (version !== file.version) return undefined;
  if (does === "keep") {
    const { path, text, uri } = file;
    const comment = change && (await keepComment(path, text, change.range.start, change.rules[0]!));
    if (!comment) return undefined;
    return { ...action, edit: { documentChanges: [documentEdit(uri, text, [comment], versionOf)] } };
  }
  if (does !== "certain" && !change) return undefined;
  const changes =
    does === "certain" ? certainOf(file) : does === "alike" ? alikeOf(change!, file) : [change!];
  const documentChanges = await written(file, changes, versionOf);
  return documentChanges && { ...action, edit: { documentChanges } };
}

/** The changes that one rule makes in all of the file, as far as they are as sure as this one. */
function alikeOf(change: PlanChange, { plan }: OpenFile): PlanChange[] {
  if (change.elsewhere.length > 0) return [];
  return plan.changes.filter(
    ({ rules, trust, elsewhere }) =>
      rules.join() === change.rules.join() &&
      TRUSTS.indexOf(trust) <= TRUSTS.indexOf(change.trust) &&
      elsewhere.length === 0,
  );
}

const certainOf = ({ plan }: OpenFile): PlanChange[] =>
  plan.changes.filter(({ trust, elsewhere }) => trust === "certain" && elsewhere.length === 0);

const dropping = ({ id, rules }: PlanChange, uri: string): CodeAction => ({
  title: `Drop this change of ${rules[0]!}, for everybody`,
  kind: CodeActionKind.QuickFix,
  command: { title: "Drop", command: DECIDE, arguments: [uri, id, "drop"] },
});

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
