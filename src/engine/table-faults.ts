import type { Pack, Rule, Trial } from "../rules/index.js";
import { clash } from "../rewrite/index.js";
import { languageOf } from "../syntax/index.js";
import type { Change } from "./change.js";
import { textAfter } from "./outcome.js";
import { Engine } from "./project.js";

/** Two rows of a table that get in each other's way. */
export interface TableFault {
  readonly rule: string;
  readonly other: string;
  readonly says: string;
}

/** A rule with an engine of its own. */
interface Row {
  readonly rule: Rule;
  readonly engine: Engine;
}

/**
 * Rows of a table for the same version that change the same code, or of which one takes back or changes again what the other
 * has written: found by the examples of the rows.
 */
export async function tableFaults({ rules }: Pack): Promise<TableFault[]> {
  const rows = rules.map((rule): Row => ({ rule, engine: new Engine([rule], {}) }));
  const faults: TableFault[] = [];
  for (const row of rows)
    for (const trial of row.rule.trials) {
      const others = rows.filter((one) => one !== row && one.rule.since === row.rule.since);
      faults.push(...(await faultsOf(row, others, trial)));
    }
  return faults;
}

async function faultsOf({ rule, engine }: Row, others: readonly Row[], trial: Trial): Promise<TableFault[]> {
  const path = `trial${languageOf(trial.language).extensions[0]!}`;
  const by = async (one: Engine, text: string): Promise<readonly Change[]> =>
    (await one.mayMatch(path, (word) => text.includes(word)))
      ? ((await one.file(path, text))?.changes ?? [])
      : [];
  const edits = (await by(engine, trial.was)).flatMap((change) => change.edits);
  const faults: TableFault[] = [];
  for (const other of others) {
    const say = (says: string): void => void faults.push({ rule: rule.id, other: other.rule.id, says });
    const its = await by(other.engine, trial.was);
    if (rule.id < other.rule.id && its.some((change) => clash(edits, change.edits)))
      say("both rewrite the same code of the example");
    if (trial.now === trial.was || its.length > 0) continue;
    const again = await by(other.engine, trial.now);
    if (again.length === 0) continue;
    const after = await textAfter(path, trial.now, again);
    say(
      after === trial.was
        ? "the one takes back what the other has written"
        : "the one rewrites what the other has written",
    );
  }
  return faults;
}
