import { rewrittenFiles, type Applied, type Commit, type Project } from "../node/index.js";
import type { Plan, PlanChange } from "../plan/index.js";
import { plural, shownPath } from "../report/index.js";

/** A commit for each rule, in the order of the plan; each holds what the files are with all changes up to it. */
export async function commitsFor(
  { root, leaveOut, allRules }: Pick<Project, "root" | "leaveOut" | "allRules">,
  plan: Plan,
  changes: readonly PlanChange[],
): Promise<Commit[]> {
  const groups = new Map<string, PlanChange[]>();
  for (const change of changes) {
    const rules = change.rules.join(" + ");
    groups.set(rules, [...(groups.get(rules) ?? []), change]);
  }
  const commits: Commit[] = [];
  const soFar: PlanChange[] = [];
  for (const [rules, own] of groups) {
    soFar.push(...own);
    const files = await rewrittenFiles(root, plan, soFar, leaveOut);
    const why = own[0]!.rules.flatMap((id) => allRules.find((rule) => rule.id === id)?.why ?? []);
    const touched = new Set(own.map(({ path }) => path)).size;
    const what = `${plural(own.length, "change")} in ${plural(touched, "file")} by ${rules}.`;
    commits.push({
      subject: own[0]!.title,
      body: [...why, what].map(wrapped).join("\n\n"),
      files,
    });
  }
  return commits;
}

/** The commit of what formatters made of the files after all others. */
export function formatCommit({ files }: Applied): Commit {
  const body = `Written by the formatters of the config, for:\n${files.map(({ path }) => `  ${shownPath(path)}`).join("\n")}`;
  return { subject: "Lay out what was changed", body, files };
}

const WIDTH = 72;

function wrapped(text: string): string {
  const lines: string[] = [];
  for (const word of text.split(/\s+/)) {
    const last = lines.at(-1);
    if (last === undefined || last.length + word.length >= WIDTH) lines.push(word);
    else lines[lines.length - 1] = `${last} ${word}`;
  }
  return lines.join("\n");
}
