import { existsSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { z } from "zod";
import { locked } from "./lock.js";
import { messageOf, Problem } from "./problem.js";
import { cleanTemporaries, mergedByLines, stateFolder, temporaryFolder } from "./state.js";

const NAME = "line.jsonl";

/** How many places a rule has in a folder. */
const entry = z.strictObject({ rule: z.string(), folder: z.string(), places: z.int().nonnegative() });
export type LineEntry = z.output<typeof entry>;

/** What a count is compared with. */
export interface LineVerdict {
  readonly risen: readonly (LineEntry & { readonly was: number })[];
  readonly fallen: readonly (LineEntry & { readonly was: number })[];
}

/**
 * The numbers of places that a project holds the line at; undefined where none were recorded. Of two lines about the same
 * rule and folder, as a merge may leave them, the lower counts. Throws a Problem for a file that is not in order.
 */
export function loadLine(root: string): LineEntry[] | undefined {
  const file = join(root, ".uvran", NAME);
  if (!existsSync(file)) return undefined;
  const lowest = new Map<string, LineEntry>();
  for (const [i, line] of readFileSync(file, "utf8").split(/\r?\n/).entries()) {
    if (line.trim() === "") continue;
    let parsed;
    try {
      parsed = entry.parse(JSON.parse(line));
    } catch {
      throw new Problem(
        `${file}:${i + 1}: this is no count of a rule and a folder. Take the line out, or draw the line anew.`,
      );
    }
    const known = lowest.get(keyOf(parsed));
    if (!known || parsed.places < known.places) lowest.set(keyOf(parsed), parsed);
  }
  return [...lowest.values()];
}

/** Records the numbers of places. Throws a Problem where the file cannot be written; what was recorded stays then. */
export function storeLine(root: string, entries: readonly LineEntry[]): Promise<void> {
  return locked(root, "survey", () => {
    const temporary = join(temporaryFolder(root), NAME);
    const lines = entries
      .filter(({ places }) => places > 0)
      .sort((a, b) => (keyOf(a) < keyOf(b) ? -1 : 1))
      .map(({ rule, folder, places }) => `${JSON.stringify({ rule, folder, places })}\n`);
    try {
      mergedByLines(root);
      writeFileSync(temporary, lines.join(""), { flush: true });
      renameSync(temporary, join(stateFolder(root), NAME));
    } catch (error) {
      throw new Problem(`The line cannot be recorded: ${messageOf(error)}`, 1);
    } finally {
      cleanTemporaries(root);
    }
  });
}

/** Compares what is found with what was recorded, for the rules that were asked for. */
export function compareLine(
  recorded: readonly LineEntry[],
  found: readonly LineEntry[],
  rules: ReadonlySet<string>,
): LineVerdict {
  const before = new Map(recorded.map((one) => [keyOf(one), one.places]));
  const now = new Map(found.map((one) => [keyOf(one), one.places]));
  const all = [...new Map([...recorded, ...found].map((one) => [keyOf(one), one])).values()]
    .filter(({ rule }) => rules.has(rule))
    .map((one) => ({ ...one, places: now.get(keyOf(one)) ?? 0, was: before.get(keyOf(one)) ?? 0 }))
    .sort((a, b) => (keyOf(a) < keyOf(b) ? -1 : 1));
  return {
    risen: all.filter(({ places, was }) => places > was),
    fallen: all.filter(({ places, was }) => places < was),
  };
}

const keyOf = ({ rule, folder }: LineEntry): string => `${rule}\0${folder}`;
