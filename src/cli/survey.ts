import type { Command } from "commander";
import { atLeast } from "../plan/index.js";
import { placesText, surveyText } from "../report/index.js";
import type { Trust } from "../rules/index.js";
import { exitForBadInput, openWorkspace, trustOption, withProgress, withSources } from "./common.js";
import type { ProjectOptions } from "./common.js";
import { deliver, examples, paintFor } from "./terminal.js";

interface Options extends ProjectOptions {
  readonly trust: Trust;
  readonly places?: boolean;
  readonly json?: boolean;
  readonly out?: string;
  readonly expectNone?: boolean;
}

export function addSurvey(program: Command): void {
  withSources(
    program
      .command("survey")
      .summary("what is outdated, how much, how sure; nothing is changed")
      .description(
        "Takes stock: what is outdated, how much of it, and how sure that is. Nothing is changed.",
      ),
  )
    .addOption(trustOption("count changes that are at least this sure", "possible"))
    .option("--places", "list every place with its line of code")
    .option("--json", "the survey as JSON")
    .option("--out <file>", "write to a file")
    .option("--expect-none", "exit with 1 when any place is found, so that the old code stays away")
    .addHelpText(
      "after",
      examples(
        "uvran survey",
        "uvran survey src --places",
        "uvran survey --json --out survey.json",
        "uvran survey --expect-none",
      ),
    )
    .action(survey);
}

async function survey(paths: string[], options: Options): Promise<void> {
  const workspace = await openWorkspace(options);
  const examination = await withProgress((progress) =>
    workspace.examine({ paths, cwd: process.cwd(), progress }),
  );
  const found = { ...examination.survey, changes: atLeast(examination.survey.changes, options.trust) };
  const paint = paintFor(process.stdout);
  const places = options.places ? placesText(found, (path) => workspace.text(path), paint) : "";
  deliver(options.json ? asJson(found) : surveyText(found, paint) + places, options.out);
  exitForBadInput(examination, paths);
  if (options.expectNone && found.changes.length > 0) process.exitCode ??= 1;
}

function asJson(found: Parameters<typeof surveyText>[0]): string {
  const places = found.changes.map(({ id, rules, kind, trust, path, line, range, title }) => ({
    id,
    rules,
    kind,
    trust,
    path,
    line,
    range,
    title,
  }));
  const { filesRead, heldBack, advice, unparsed, idleKeeps, unreadable, skipped, notCovered } = found;
  const { silenced, versions, failures, unread } = found;
  const rest = {
    heldBack,
    advice,
    silenced,
    versions,
    unparsed,
    unread,
    failures,
    idleKeeps,
    unreadable,
    skipped,
    notCovered: Object.fromEntries(notCovered),
  };
  return JSON.stringify({ filesRead, places, ...rest }, null, 1) + "\n";
}
