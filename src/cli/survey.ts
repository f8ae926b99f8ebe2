import type { Command } from "commander";
import { Problem } from "../node/index.js";
import { atLeast } from "../plan/index.js";
import type { Heading } from "../report/formats/format.js";
import { jsonReport } from "../report/formats/json.js";
import { comparedWith, placesText, stockText, surveyText } from "../report/index.js";
import type { Stock, Survey } from "../report/index.js";
import type { Trust } from "../rules/index.js";
import { earlierSurvey, type Workspace } from "../workspace/index.js";
import {
  exitForBadInput,
  openWorkspace,
  sayForgotten,
  taskOf,
  toOption,
  trustOption,
  withProgress,
  withSources,
} from "./common.js";
import type { ProjectOptions } from "./common.js";
import { holdLine } from "./hold-line.js";
import { formOf, withReport, writeReport, type ReportOptions } from "./report-options.js";
import { examples, paintForOut, widthForOut } from "./terminal.js";

interface Options extends ProjectOptions, ReportOptions {
  readonly trust: Trust;
  readonly against?: string;
  readonly places?: boolean;
  readonly expectNone?: boolean;
  readonly holdLine?: boolean;
  readonly tighten?: boolean;
}

export function describeSurvey(command: Command): void {
  withReport(
    withSources(
      command.description(
        "Takes stock: what is outdated, how much of it, and how sure that is. Nothing is changed.",
      ),
    )
      .addOption(toOption())
      .addOption(trustOption("count changes that are at least this sure", "possible"))
      .option("--places", "list every place with its line of code"),
  )
    .option("--against <file>", "compare with an earlier survey, stored as JSON")
    .option("--expect-none", "exit with 1 when any place is found, so that the old code stays away")
    .option(
      "--hold-line",
      "exit with 1 when a rule has more places in a folder than were recorded; record them at first",
    )
    .option("--tighten", "with --hold-line: record lower numbers where there are fewer places now")
    .addHelpText(
      "after",
      examples(
        "uvran survey",
        "uvran survey src --places",
        "uvran survey --to combwork@3.0",
        "uvran survey --as html --out survey.html",
        "uvran survey --as json --out before.json",
        "uvran survey --against before.json",
        "uvran survey --since main --expect-none",
        "uvran survey --hold-line --tighten",
      ),
    )
    .action(survey);
}

async function survey(paths: string[], options: Options): Promise<void> {
  checkOptions(paths, options);
  // A line is held for rules of which nothing is found any more, too.
  const onlyFor = options.holdLine ? undefined : paths;
  const workspace = await openWorkspace(options, { onlyFor });
  const examination = await withProgress((progress) =>
    workspace.examine({ ...taskOf(paths, options), progress }),
  );
  const found = { ...examination.survey, changes: atLeast(examination.survey.changes, options.trust) };
  const { to, context, against } = options;
  const stock = await workspace.stock(found, { context });
  const compared = against === undefined ? [] : comparedWith(earlierSurvey(against), stock);
  const about = to === undefined ? "What is outdated in" : `From here to ${to.product} ${to.version}:`;
  await writeReport(workspace, { about, survey: found, stock: () => stock, compared }, options, {
    json: (heading) => jsonReport(found, stock, heading, new Date().toISOString().slice(0, 10)),
    text: (heading) => textOf(workspace, found, stock, heading, options),
  });
  sayForgotten(examination);
  exitForBadInput(examination, paths);
  if (options.expectNone && found.changes.length > 0) process.exitCode ??= 1;
  if (options.holdLine) await holdLine(workspace, stock, options.tighten === true);
}

function checkOptions(paths: readonly string[], options: Options): void {
  const { holdLine, tighten, since, shard, to } = options;
  formOf(options);
  if (tighten && !holdLine) throw new Problem("--tighten only means something together with --hold-line.");
  if (holdLine && (paths.length > 0 || [since, shard, to].some((one) => one !== undefined)))
    throw new Problem(
      "--hold-line counts the places of the whole project: name no paths, no --since, no --shard and no --to.",
    );
}

function textOf(
  workspace: Workspace,
  found: Survey,
  stock: Stock,
  { journey, compared }: Heading,
  { out, places: withPlaces }: Options,
): string {
  const paint = paintForOut(out);
  const places = withPlaces ? placesText(found, (path) => workspace.text(path), paint) : "";
  const ahead = [...journey, ...(journey.length > 0 ? [""] : [])].map((line) => `${line}\n`).join("");
  const behind = compared.map((line) => `${line}\n`).join("");
  return (
    ahead +
    surveyText(found, paint, widthForOut(out)) +
    stockText(stock, paint) +
    (behind && `\n${behind}`) +
    places
  );
}
