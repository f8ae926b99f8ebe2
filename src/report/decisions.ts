import {
  countBy,
  proofSentence,
  SET_ASIDE,
  type Plan,
  type PlanChange,
  type ProofOfChange,
  type Standing,
  type Standings,
} from "../plan/index.js";
import { paintTrust, type Paint } from "./paint.js";
import { shownPath } from "./path.js";
import { plural } from "./counted.js";

/** What stands for a change in lists: what was said, that nothing was, or that it has to be said again. */
export function standingWord({ decision, misfit, edited }: Standing): string {
  if (misfit !== undefined) return "decide again";
  if (decision === undefined) return "open";
  return edited === undefined ? decision : `${decision}, edited`;
}

/** The colour of what was said. */
export function paintStanding(paint: Paint, { decision, misfit }: Standing): (text: string) => string {
  if (misfit !== undefined) return paint.magenta;
  if (decision === "keep" || decision === "done") return paint.green;
  if (decision === "drop" || decision === "leave") return paint.red;
  return decision === "later" ? paint.yellow : paint.dim;
}

const WIDTH = "decide again".length + 2;

/** Changes with what is decided about them, a line each, and the counts. */
export function decisionsList(
  plan: Plan,
  changes: readonly PlanChange[],
  standings: Standings,
  paint: Paint,
  proofOf: (change: PlanChange) => ProofOfChange | undefined = () => undefined,
): string {
  const out: string[] = [];
  for (const change of changes) {
    const standing = standings.of(change.id);
    const word = paintStanding(paint, standing)(standingWord(standing).padEnd(WIDTH));
    const trust = paintTrust(paint, change.trust)(change.trust.padEnd(8));
    const place = `${shownPath(change.path)}:${change.line}`;
    const proof = proofOf(change);
    const proved = proof?.passed === true ? paint.green("  proved") : "";
    out.push(
      `${word} ${trust}  ${place}  ${change.rules.join(" + ")} ${paint.dim(`· ${change.id}`)}${proved}`,
    );
    // The note of one that prove has set aside says it.
    const isSaid = proof?.passed !== false || standing.note?.startsWith(SET_ASIDE) === true;
    const found = isSaid ? undefined : `prove: ${proofSentence(proof)}`;
    for (const text of [standing.misfit, found, standing.note])
      for (const line of text?.split("\n") ?? []) out.push(`${"".padEnd(WIDTH)} ${line}`.trimEnd());
  }
  const marked = [...plan.heldBack, ...plan.advice].filter(
    ({ id }) => standings.of(id).decision !== undefined,
  );
  for (const place of marked) {
    const standing = standings.of(place.id);
    const word = paintStanding(paint, standing)(standingWord(standing).padEnd(WIDTH));
    out.push(`${word} ${"by hand".padEnd(8)}  ${shownPath(place.path)}:${place.line}  ${place.rule}`);
  }
  const counts = countBy(changes, ({ id }) => standingWord(standings.of(id)).split(",")[0]!);
  const parts = [...counts].map(([word, count]) => `${count} ${word}`);
  out.push(`${plural(changes.length, "change")}${parts.length > 0 ? `: ${parts.join(", ")}` : ""}`);
  if (standings.strays.length > 0)
    out.push(
      `${plural(standings.strays.length, "decision")} about code that the plan does not have (any more); kept, and applied to nothing.`,
    );
  return out.join("\n") + "\n";
}
