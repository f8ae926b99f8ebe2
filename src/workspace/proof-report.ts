import { plural, type Outcome, type Proved, type Survey } from "../report/index.js";
import type { Account, Proof } from "../prove/index.js";
import type { Sides } from "./sides.js";
import type { Workspace } from "./workspace.js";

/** What was proved, as a survey of nothing but those changes; without any where an apply was looked at. */
export function proofSurvey({ project }: Workspace, { candidates }: Sides): Survey {
  const changes = candidates?.changes ?? [];
  const used = new Set(changes.map(({ rules }) => rules[0]));
  return {
    rules: project.allRules.filter(({ id }) => used.has(id)),
    changes,
    filesRead: new Set(changes.map(({ path }) => path)).size,
    ...{ heldBack: [], advice: [], unparsed: [], unread: [], silenced: [], versions: [], idleKeeps: [] },
    ...{ failures: [], unreadable: [], skipped: [], notCovered: new Map() },
  };
}

/** What a proof found, for a report. */
export function provedBy({ final, kept, setAside, unsettled }: Account): Proved {
  const passed = final.filter(({ verdict }) => verdict === "same").length;
  const outcomes = new Map<string, Outcome>();
  const isDifferent = unsettled.length > 0 || final.some(({ verdict }) => verdict === "different");
  if (passed > 0 && !isDifferent) {
    const says = `It passed ${plural(passed, "check")}, together with all other changes that were kept.`;
    for (const { id } of kept) outcomes.set(id, { is: "passed", says, lines: [] });
  }
  for (const { change, check, lines } of setAside)
    outcomes.set(change.id, { is: "set aside", says: `Set aside: "${check}" is different with it.`, lines });
  return { checks: final.map(checked), outcomeOf: (id) => outcomes.get(id) };
}

function checked({ check, verdict, why, compared }: Proof): Proved["checks"][number] {
  const { name, run } = check;
  const lines = verdict === "different" || verdict === "flaky" ? compared.lines : [];
  return { name, command: run, verdict, says: why ?? compared.summary, lines };
}
