/** Renames, in one file, all that can be renamed in it, each to a name that nothing else has. */
import {
  applyEdits,
  nameInFile,
  parse,
  renamings,
  usesOf,
  type Declaration,
  type Edit,
  type Language,
} from "uvran/core";

export interface Renamed {
  readonly text: string;
  /** How many things got another name. */
  readonly count: number;
  /** How many were left, since not all their uses are known. */
  readonly left: number;
}

/** `wanted` picks the declarations; those with a doubt about their uses are left alone. */
export function renameAll(
  text: string,
  language: Language,
  wanted: (declaration: Declaration) => boolean,
): Renamed {
  const tree = parse(text, language);
  const edits = new Map<number, Edit>();
  let count = 0;
  let left = 0;
  if (tree.errors.length === 0) {
    for (const name of tree.names) {
      for (const declaration of nameInFile(name, tree).declarations) {
        if (!wanted(declaration)) continue;
        const at = declaration.at[0]!;
        if (edits.has(at.start)) continue;
        const sure = usesOf(declaration).doubts.length === 0;
        const renamed = sure ? renamings(declaration, newName(at.text, count + 1)) : undefined;
        if (!renamed) {
          left++;
          continue;
        }
        count++;
        for (const { node, text: replacement } of renamed) {
          edits.set(node.start, { start: node.start, end: node.end, text: replacement });
        }
      }
    }
  }
  const result = { text: applyEdits(text, [...edits.values()]), count, left };
  return result;
}

function newName(old: string, number: number): string {
  const sigil = /^[@$#]*/.exec(old)![0];
  return `${sigil}${old.slice(sigil.length)}_${number}u`;
}
