import { Option, type Command } from "commander";
import { Problem } from "../node/index.js";
import {
  CHANGE_DECISIONS,
  fits,
  PLACE_DECISIONS,
  type Decision,
  type Filter,
  type Plan,
  type PlanChange,
} from "../plan/index.js";
import { decisionsList, plural } from "../report/index.js";
import type { Review } from "../workspace/index.js";
import { filterOf, openForPlan, trustOption, withPlan, type PlanOptions } from "./common.js";
import { deliver, examples, paintFor } from "./terminal.js";

interface Options extends PlanOptions {
  readonly list?: boolean;
  readonly json?: boolean;
  readonly decide?: Decision["decision"] | "none";
  readonly note?: string;
  readonly out?: string;
}

export function addReview(program: Command): void {
  withPlan(
    program
      .command("review")
      .summary("go through the plan: keep, drop, later")
      .description(
        "Goes through the changes of the plan and stores what is decided in .uvran/decisions.jsonl, which is meant to\n" +
          "be committed. What is decided stays with a change when its lines move, when its file is renamed, and when the\n" +
          "plan is made anew.",
      ),
  )
    .addOption(trustOption("only changes that are at least this sure"))
    .option("--list", "list the changes with what is decided about them")
    .option("--json", "with --list: as JSON")
    .addOption(
      new Option(
        "--decide <decision>",
        "decide about all changes that are meant, without going through them",
      ).choices([...CHANGE_DECISIONS, ...PLACE_DECISIONS, "none"]),
    )
    .option("--note <text>", "with --decide: a note for those who read it later")
    .option("--out <file>", "write the whole review into a file, for the page that needs no server")
    .addHelpText(
      "after",
      examples(
        "uvran review",
        "uvran review src --trust likely",
        "uvran review --list --rule javascript/guarded-read",
        'uvran review legacy --decide drop --note "goes away in spring"',
      ),
    )
    .action(reviewCommand);
}

async function reviewCommand(paths: string[], options: Options): Promise<void> {
  if (options.json && !options.list) throw new Problem("--json only means something together with --list.");
  if (options.note !== undefined && options.decide === undefined)
    throw new Problem("--note only means something together with --decide.");
  const workspace = await openForPlan(options);
  const review = workspace.review(workspace.plan(options.plan));
  const { trust } = options;
  const filter: Filter = { ...filterOf(workspace.root, paths, options), ...(trust ? { trust } : {}) };
  const meant = review.plan.changes.filter((change) => fits(change, filter));
  if (options.out !== undefined) deliver(`${JSON.stringify(review.desk())}\n`, options.out);
  else if (options.decide !== undefined) await decideAll(review, meant, filter, options.decide, options.note);
  else if (options.list) list(review, meant, options);
  else throw new Problem("not yet");
}

/** The held-back places and pieces of advice that a filter means. */
function placesMeant({ heldBack, advice }: Plan, { rules, paths, ids }: Filter): { readonly id: string }[] {
  return [...heldBack, ...advice].filter(
    ({ id, rule, path }) =>
      (ids?.includes(id) ?? true) &&
      (rules?.some((one) => rule.split(" + ").includes(one)) ?? true) &&
      (paths?.some((below) => below === "" || path === below || path.startsWith(`${below}/`)) ?? true),
  );
}

async function decideAll(
  review: Review,
  changes: readonly PlanChange[],
  filter: Filter,
  decide: Decision["decision"] | "none",
  note: string | undefined,
): Promise<void> {
  const isOfPlaces = (PLACE_DECISIONS as readonly string[]).includes(decide);
  const meant = isOfPlaces ? placesMeant(review.plan, filter) : changes;
  const missing = filter.ids?.filter((id) => !meant.some((one) => one.id === id)) ?? [];
  if (missing.length > 0)
    throw new Problem(
      `The plan has no ${isOfPlaces ? "place" : "change"} ${missing.join(", ")} among those that are meant.`,
    );
  await review.decide(
    meant.map(({ id }) => ({
      id,
      ...(decide === "none" ? {} : { decision: decide }),
      ...(note === undefined ? {} : { note }),
    })),
  );
  const word = decide === "none" ? "open again" : decide;
  process.stdout.write(`${plural(meant.length, isOfPlaces ? "place" : "change")}: ${word}.\n`);
  if (meant.length === 0) process.exitCode = 1;
}

function list(review: Review, changes: readonly PlanChange[], { json }: Options): void {
  const standings = review.standings();
  if (!json)
    return deliver(decisionsList(review.plan, changes, standings, paintFor(process.stdout)), undefined);
  const shown = changes.map(({ id, rules, kind, trust, path, line, title }) => ({
    id,
    rules,
    kind,
    trust,
    path,
    line,
    title,
    ...standings.of(id),
  }));
  deliver(`${JSON.stringify({ changes: shown, strays: standings.strays }, null, 1)}\n`, undefined);
}
