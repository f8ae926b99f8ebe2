import { startOf, endOf, type Run } from "./run.js";
import { languageOfRule, type DraftCode, type DraftPart } from "./model.js";

/** A part of drafted code, and what it stands for in the instance that the code is taken from. */
export interface Placed {
  readonly run: Run;
  readonly part: DraftPart;
}

/** The code of a run with parts in the place of some of its pieces; without comments, which a rule says nothing of. */
export function codeOf(run: Run, placed: readonly Placed[]): DraftCode {
  const { tree } = run;
  if (run.nodes.length === 0) return { language: languageOfRule(tree.language), texts: [""], parts: [] };
  const [start, end] = [startOf(run), endOf(run)];
  const sorted = placed
    .filter(({ run: { nodes } }) => nodes.length > 0)
    .sort((a, b) => startOf(a.run) - startOf(b.run));
  const texts: string[] = [];
  let at = start;
  for (const { run: piece } of sorted) {
    texts.push(plain(run, at, startOf(piece)));
    at = endOf(piece);
  }
  texts.push(plain(run, at, end));
  if (texts.some((text) => text.includes("\n"))) texts[0] = tree.indentAt(start) + texts[0]!;
  return { language: languageOfRule(tree.language), texts, parts: sorted.map(({ part }) => part) };
}

/** Text between two places without its comments. */
function plain({ tree }: Run, from: number, to: number): string {
  let text = "";
  let at = from;
  for (const comment of tree.commentsIn(from, to)) {
    const [start, end] = [tree.starts[comment]!, tree.ends[comment]!];
    if (start < at) continue;
    const before = tree.text.slice(at, start);
    // A comment on lines of its own goes with them.
    const ownLine = /\n[ \t]*$/.test(before) && /^[ \t]*\r?\n/.test(tree.text.slice(end));
    text += ownLine
      ? before.replace(/\r?\n[ \t]*$/, "")
      : before.trimEnd() === ""
        ? before
        : before.replace(/[ \t]+$/, "");
    at = end;
  }
  return (text + tree.text.slice(at, to)).replace(/\r\n/g, "\n");
}
