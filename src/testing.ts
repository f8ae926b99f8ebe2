/** For a rule author's own test suite: every trial of a rule as a test. */
import { runTrials } from "./engine/index.js";
import type { Rule } from "./rules/index.js";
import "./node/grammars.js";

/** Runs the trials of rules; throws an Error that shows each failure. Use it inside a test. */
export async function expectTrialsToPass(rules: readonly Rule[]): Promise<void> {
  const failures: string[] = [];
  for (const rule of rules) {
    for (const { trial, failure } of await runTrials(rule)) {
      if (failure !== undefined) failures.push(`${rule.id}\n${trial.was.trimEnd()}\n→ ${failure}`);
    }
  }
  if (failures.length > 0) throw new Error(`${failures.length} trials failed\n\n${failures.join("\n\n")}`);
}
