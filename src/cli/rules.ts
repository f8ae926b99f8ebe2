import { InvalidArgumentError, type Command } from "commander";
import { CODES } from "../analysis/index.js";
import { adviceGiven, reasonHeld, runTrials, tableFaults } from "../engine/index.js";
import { Problem, projectFolder, tableDraft, type Project } from "../node/index.js";
import { plural, type Paint } from "../report/index.js";
import type { Pack, Rule } from "../rules/index.js";
import type { Workspace } from "../workspace/index.js";
import { runAgain } from "./again.js";
import { openWorkspace } from "./common.js";
import { deliver } from "./deliver.js";
import { examples, paintFor } from "./terminal.js";

interface Options {
  readonly config?: string;
  readonly try?: boolean;
  readonly watch?: boolean;
  readonly why?: WhyPlace;
  readonly json?: boolean;
  readonly fromNotes?: readonly string[];
  readonly out?: string;
}

interface WhyPlace {
  readonly file: string;
  readonly line: number;
}

function whyPlace(text: string): WhyPlace {
  const match = /^(.+):(\d+)$/.exec(text);
  if (!match) throw new InvalidArgumentError("Write it as FILE:LINE, with the line counted from 1.");
  return { file: match[1]!, line: Number(match[2]) };
}

export function describeRules(command: Command): void {
  command
    .description("Lists the rules; explains one; with --try runs their trials.")
    .argument("[id]", "a rule, or a code of evidence, to explain")
    .option("--try", "run the trials, of one rule or of all")
    .option("--watch", "with --try: again whenever a file changes that rules are written in")
    .option("--why <file:line>", "why the rule does there what it does, or does nothing", whyPlace)
    .option(
      "--from-notes <file...>",
      "a first table of changes from a product's notes, in Markdown or reStructuredText",
    )
    .option("--out <file>", "write that table to a file")
    .option("--json", "the list as JSON, or with --why the explanation")
    .option("--config <file>", "the config to use instead of the nearest uvran.config.*")
    .addHelpText(
      "after",
      examples(
        "uvran rules",
        "uvran rules python/index-and-item",
        "uvran rules python/index-and-item --why src/hives.py:12",
        "uvran rules flow.throws",
        "uvran rules --try",
        "uvran rules python/lit-smoker --try --watch",
        "uvran rules --from-notes notes/2.0.md notes/3.0.md --out moves.yaml",
      ),
    )
    .action(rules);
}

async function rules(id: string | undefined, options: Options): Promise<void> {
  if (options.fromNotes) return deliver(tableDraft(options.fromNotes), options.out);
  if (options.out !== undefined) throw new Problem("--out only means something together with --from-notes.");
  if (options.watch && !options.try) throw new Problem("--watch only means something together with --try.");
  if (options.watch) return runAgain(projectFolder(process.cwd(), options.config), process.argv.slice(2));
  if (id !== undefined && Object.hasOwn(CODES, id)) {
    const asks = CODES[id as keyof typeof CODES];
    process.stdout.write(`${id} is a code of evidence, reasons and cautions. It asks ${asks}.\n`);
    return;
  }
  const workspace = await openWorkspace(options.config === undefined ? {} : { config: options.config });
  const { project } = workspace;
  const chosen = id === undefined ? project.allRules : project.allRules.filter((rule) => rule.id === id);
  if (chosen.length === 0) throw new Problem(`There is no rule "${id}". List the rules with: uvran rules`);
  const paint = paintFor(process.stdout);
  if (options.why) await why(workspace, id, chosen, options.why, options.json === true);
  else if (options.try) await tryRules(chosen, project.tables, paint);
  else if (options.json)
    process.stdout.write(
      JSON.stringify(
        chosen.map((rule) => asData(rule, project)),
        null,
        1,
      ) + "\n",
    );
  else if (id === undefined) process.stdout.write(list(project, paint));
  else process.stdout.write(await explanation(chosen[0]!, project, paint));
}

/** What a rule makes of one place, step by step. */
async function why(
  workspace: Workspace,
  id: string | undefined,
  [rule]: readonly Rule[],
  { file, line }: WhyPlace,
  asJson: boolean,
): Promise<void> {
  if (id === undefined || !rule)
    throw new Problem("--why is about one rule: name it, as in uvran rules ID --why FILE:LINE");
  const found = await workspace.explain(rule, file, line, process.cwd());
  if (asJson) return void process.stdout.write(`${JSON.stringify(found, null, 1)}\n`);
  if (found.length === 0)
    process.stdout.write(`Nothing on line ${line} of ${file} begins like the old code of ${id}.\n`);
  for (const { code, says } of found)
    process.stdout.write(`${file}:${line}  ${code}\n${says.map((one) => `  ${one}\n`).join("")}`);
}

async function tryRules(chosen: readonly Rule[], tables: readonly Pack[], paint: Paint): Promise<void> {
  let failed = 0;
  for (const rule of chosen) {
    const results = await runTrials(rule);
    const failures = results.filter((result) => result.failure !== undefined);
    failed += failures.length;
    const verdict = failures.length === 0 ? paint.green("passed") : paint.red("failed");
    process.stdout.write(`${verdict}  ${rule.id}  ${plural(results.length, "trial")}\n`);
    for (const { trial, failure } of failures) {
      process.stdout.write(`${indented(trial.was, "    | ")}\n${indented(failure!, "    ")}\n`);
    }
  }
  for (const table of tables) {
    for (const { rule, other, says } of await tableFaults(table)) {
      if (!chosen.some(({ id }) => id === rule || id === other)) continue;
      failed++;
      process.stdout.write(`${paint.red("failed")}  ${rule} and ${other}: ${says}\n`);
    }
  }
  if (failed > 0) process.exitCode = 1;
}

/** Rules of tables work in a project in a form of their own, under the same id. */
const isOn = ({ id }: Rule, active: readonly Rule[]): boolean => active.some((rule) => rule.id === id);

function list({ allRules, rules: active }: Project, paint: Paint): string {
  const width = Math.max(...allRules.map((rule) => rule.id.length)) + 2;
  const lines = allRules.map((rule) => {
    const state = isOn(rule, active) ? paint.green("on ") : paint.dim("off");
    return `${state}  ${rule.id.padEnd(width)}${rule.kind.padEnd(12)}${rule.title}`;
  });
  return `${lines.join("\n")}\n\nExplain one with: uvran rules ID. Switch it in the config: rules: { "ID": true }\n`;
}

async function explanation(rule: Rule, { rules: active }: Project, paint: Paint): Promise<string> {
  const state = isOn(rule, active) ? "on" : rule.taste ? "off (a matter of taste)" : "off";
  const versions = [
    ...(rule.since === undefined ? [] : [`since ${rule.since}`]),
    ...(rule.until === undefined ? [] : [`until ${rule.until}`]),
  ];
  const facts = [rule.id, rule.kind, state, ...versions].join(" · ");
  const link = rule.link === undefined ? [] : [rule.link];
  const out = [paint.bold(rule.title), facts, "", rule.why, ...link, ""];
  const [example] = rule.trials.filter((trial) => trial.was !== trial.now);
  if (example) {
    const before = indented(example.was.trimEnd(), "  - ");
    out.push(paint.red(before), paint.green(indented(example.now.trimEnd(), "  + ")), "");
  }
  const reported = rule.trials.find(({ says }) => says !== undefined);
  if (reported) {
    out.push(indented(reported.was.trimEnd(), "  | "));
    out.push(paint.cyan(`  it says: ${await adviceGiven(rule, reported)}`), "");
  }
  const given = rule.given ?? [];
  if (given.length > 0) out.push("It is certain when it is known that");
  for (const condition of given) out.push(`  · ${condition.must}`);
  const held = rule.trials.filter((trial) => trial.because !== undefined);
  if (held.length > 0) out.push("", "It keeps its hands off, for instance, here:");
  for (const trial of held.slice(0, 3)) {
    out.push(
      indented(trial.was.trimEnd(), "  | "),
      paint.cyan(`  because ${await reasonHeld(rule, trial)}`),
      "",
    );
  }
  return out.join("\n").trimEnd() + "\n";
}

function asData(
  { id, kind, title, why, taste, given, trials, link, since, until }: Rule,
  { rules: active }: Project,
): object {
  return {
    id,
    kind,
    title,
    why,
    on: active.some((rule) => rule.id === id),
    taste: taste ?? false,
    given: (given ?? []).map((condition) => condition.must),
    trials: trials.length,
    ...(link === undefined ? {} : { link }),
    ...(since === undefined ? {} : { since }),
    ...(until === undefined ? {} : { until }),
  };
}

function indented(code: string, prefix: string): string {
  return code
    .split("\n")
    .map((line) => prefix + line)
    .join("\n");
}
