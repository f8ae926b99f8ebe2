import { basename } from "node:path";
import { InvalidArgumentError, Option, type Command } from "commander";
import { Problem, shownVersion } from "../node/index.js";
import { FORMATS, type Format, type Heading } from "../report/formats/format.js";
import type { Stock, Survey } from "../report/index.js";
import { documentByTemplate, documentOf, journeyLines, type Workspace } from "../workspace/index.js";
import { deliver } from "./deliver.js";

/** Options of commands that make a report. */
export interface ReportOptions {
  readonly as?: Format;
  readonly json?: boolean;
  readonly diff?: boolean;
  readonly template?: string;
  readonly context?: number;
  readonly out?: string;
}

export function withReport(command: Command): Command {
  return command
    .addOption(new Option("--as <format>", "the form of the report").choices([...FORMATS]))
    .option("--json", "the same as --as json")
    .option("--template <file>", "a report by a Handlebars template of your own")
    .option("--context <lines>", "so many lines around each place", lineCount)
    .option("--out <file>", "write to a file");
}

function lineCount(text: string): number {
  if (!/^\d{1,3}$/.test(text)) throw new InvalidArgumentError("Write a number of lines, from 0 to 999.");
  return Number(text);
}

/** The form that is asked for; a template of the user's own is one too. Throws a Problem where there are two. */
export function formOf({ as, json, diff, template }: ReportOptions): Format | "template" {
  const asked = [
    ...(as === undefined ? [] : [as]),
    ...(json ? ["json" as const] : []),
    ...(diff ? ["diff" as const] : []),
    ...(template === undefined ? [] : ["template" as const]),
  ];
  if (asked.length > 1)
    throw new Problem(
      "--as, --json, --diff and --template say in what form the report is. Choose one of them.",
    );
  return asked[0] ?? "text";
}

/** What a report is made from. */
export interface Reported {
  /** What it is about, ahead of the project's name. */
  readonly about: string;
  readonly survey: Survey;
  /** The same, counted; asked for where the form needs it. */
  readonly stock: () => Stock | Promise<Stock>;
  readonly compared?: Heading["compared"];
}

/** Writes a report in the form that is asked for; `text` and `json` are the command's own. */
export async function writeReport(
  workspace: Workspace,
  { about, survey, stock, compared = [] }: Reported,
  options: ReportOptions,
  own: Readonly<Record<"text" | "json", (heading: Heading) => string | Promise<string>>>,
): Promise<void> {
  const form = formOf(options);
  const journey = journeyLines(workspace.project.journeys);
  const heading: Heading = { title: `${about} ${basename(workspace.root)}`, journey, compared };
  if (form === "text" || form === "json") return deliver(await own[form](heading), options.out);
  const counted = await stock();
  deliver(
    form === "template"
      ? await documentByTemplate(counted, heading, options.template!)
      : await documentOf(workspace, survey, counted, heading, form, shownVersion()),
    options.out,
  );
}
