import { existsSync, readFileSync, renameSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { decisionsText, PlanError, readDecisions, type Decision } from "../plan/index.js";
import { locked } from "./lock.js";
import { messageOf, Problem } from "./problem.js";
import { cleanTemporaries, mergedByLines, temporaryFolder } from "./state.js";

const NAME = "decisions.jsonl";
const MOST_BYTES = 100_000_000;
/** How long to wait for another command that writes. */
const PATIENCE = 3000;

/** Where a project's decisions are. */
export function decisionsFile(root: string): string {
  return join(root, ".uvran", NAME);
}

/** What was decided so far. Throws a Problem or a PlanError for a file that is not in order; it is left as it is. */
export function loadDecisions(root: string): Decision[] {
  return loadFrom(decisionsFile(root));
}

function loadFrom(file: string): Decision[] {
  let text: string;
  try {
    if (!existsSync(file)) return [];
    if (statSync(file).size > MOST_BYTES) throw new Problem(`${file} is too large to hold decisions.`);
    text = readFileSync(file, "utf8");
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw new Problem(`The decisions cannot be read: ${messageOf(error)}`);
  }
  try {
    return readDecisions(text);
  } catch (error) {
    throw error instanceof PlanError ? new PlanError(`${error.message}\n  ${file}`) : error;
  }
}

/**
 * Changes the decisions in one step: what others have written meanwhile is given, and what is returned is on disk when
 * this resolves. Throws a Problem, with the old decisions left whole, where it cannot be written.
 */
export function changeDecisions(
  root: string,
  change: (now: readonly Decision[]) => readonly Decision[],
): Promise<Decision[]> {
  return locked(
    root,
    "review",
    () => {
      const file = decisionsFile(root);
      const next = [...change(loadFrom(file))];
      const temporary = join(temporaryFolder(root), NAME);
      try {
        mergedByLines(root);
        writeFileSync(temporary, decisionsText(next), { flush: true });
        renameSync(temporary, file);
      } catch (error) {
        throw new Problem(
          `The decision cannot be written, and the ones before stay as they are: ${messageOf(error)}`,
          1,
        );
      } finally {
        cleanTemporaries(root);
      }
      return next;
    },
    PATIENCE,
  );
}
