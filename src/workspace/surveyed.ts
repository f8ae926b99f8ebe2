import { type Change, type FileResult } from "../engine/index.js";
import { touches, type ChangedLines, type Sources } from "../node/index.js";
import type { Survey } from "../report/index.js";
import type { Rule } from "../rules/index.js";
import { languageOf } from "../syntax/index.js";
import type { AskedTarget } from "./looking.js";

/** The version of its language that a file must run on, as a survey lists it. */
export function versionAsked({ language, target }: AskedTarget): Survey["versions"][number] {
  const { title, assumedVersion } = languageOf(language);
  return { version: `${title} ${target?.version ?? assumedVersion}`, says: target?.says };
}

/** Those of some sources that count, with what was said of them. */
export function limited(sources: Sources, counts: (path: string) => boolean): Sources {
  const fits = ({ path }: { readonly path: string }): boolean => counts(path);
  const { paths, skipped, unreadable } = sources;
  return {
    ...sources,
    paths: paths.filter(counts),
    skipped: skipped.filter(fits),
    unreadable: unreadable.filter(fits),
  };
}

/** What was found in lines that have changed. */
export function onlyChanged(result: FileResult, changed: ChangedLines): FileResult {
  const fits = ({ path, range }: Pick<Change, "path" | "range">): boolean =>
    touches(changed, path, range.start.line, range.end.line);
  const { changes, heldBack, advice = [] } = result;
  return {
    ...result,
    changes: changes.filter(fits),
    heldBack: heldBack.filter(fits),
    advice: advice.filter(fits),
  };
}

/** A survey that is filled in file by file. */
export function emptySurvey(rules: readonly Rule[], { skipped, unreadable, notCovered }: Sources) {
  return {
    rules,
    filesRead: 0,
    unparsed: [] as Survey["unparsed"][number][],
    unread: [] as Survey["unread"][number][],
    idleKeeps: [] as Survey["idleKeeps"][number][],
    silenced: [] as Survey["silenced"][number][],
    failures: [] as Survey["failures"][number][],
    skipped: [...skipped],
    unreadable: [...unreadable],
    notCovered,
  };
}
