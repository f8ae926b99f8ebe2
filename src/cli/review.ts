import { InvalidArgumentError, Option, type Command } from "commander";
import { Problem } from "../node/index.js";
import {
  CHANGE_DECISIONS,
  countBy,
  fits,
  fitsPlace,
  PLACE_DECISIONS,
  type Decision,
  type Filter,
  type Plan,
  type PlanChange,
} from "../plan/index.js";
import { decisionsList, plural, standingWord } from "../report/index.js";
import type { Review, Workspace } from "../workspace/index.js";
import { filterOf, openForPlan, trustOption, withPlan, type PlanOptions } from "./common.js";
import { deliver } from "./deliver.js";
import { examples, paintFor } from "./terminal.js";

interface Options extends PlanOptions {
  readonly list?: boolean;
  readonly json?: boolean;
  readonly decide?: Decision["decision"] | "none";
  readonly note?: string;
  readonly out?: string;
  readonly terminal?: boolean;
  readonly port?: number;
  readonly open: boolean;
}

export function describeReview(command: Command): void {
  withPlan(
    command.description(
      "Goes through the changes of the plan and stores what is decided in .uvran/decisions.jsonl, which is meant to " +
        "be committed. What is decided stays with a change when its lines move, when its file is renamed, and when the " +
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
    .option("--terminal", "go through the changes in the terminal, with the same keys as on the page")
    .option("--port <number>", "the port of the page; one that is free without", port)
    .option("--no-open", "only print the address of the page, and do not open it in the browser")
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
  const { out, decide, list: lists, terminal } = options;
  if ([out !== undefined, decide !== undefined, lists, terminal].filter(Boolean).length > 1)
    throw new Problem(
      "--out, --decide, --list and --terminal are different things to do. Choose one of them.",
    );
  const workspace = await openForPlan(options);
  const review = workspace.review(workspace.plan(options.plan));
  const { trust } = options;
  const filter: Filter = { ...filterOf(workspace.root, paths, options), ...(trust ? { trust } : {}) };
  const meant = review.plan.changes.filter((change) => fits(change, filter));
  if (options.out !== undefined) deliver(`${JSON.stringify(review.desk())}\n`, options.out);
  else if (options.decide !== undefined) await decideAll(review, meant, filter, options.decide, options.note);
  else if (options.list) list(review, meant, options);
  else if (options.terminal) await walk(workspace, review, filter);
  else await serve(workspace, review.plan, paths, options);
}

/** Goes through changes in the terminal. */
async function walk(workspace: Workspace, review: Review, filter: Filter): Promise<void> {
  if (!process.stdin.isTTY || !process.stdout.isTTY)
    throw new Problem(
      "--terminal needs a terminal. To decide without one: uvran review --decide, and --list to look.",
    );
  const { TerminalWalk } = await import("./review-terminal/walk.js");
  const all = new TerminalWalk(workspace, review, ({ changes }) =>
    changes.filter((one) => fits(one, filter)),
  );
  await all.run();
  process.stdout.write(decidedText(all.review));
}

function port(text: string): number {
  const number = Number(text);
  if (!/^\d+$/.test(text) || number > 65_535) throw new InvalidArgumentError("Write a number up to 65535.");
  return number;
}

/** Serves the page until its last tab is closed, or the command is interrupted. */
async function serve(workspace: Workspace, plan: Plan, paths: string[], options: Options): Promise<void> {
  const { serveReview, openBrowser } = await import("../serve/index.js");
  const { paths: below = [], ...filter } = { ...filterOf(workspace.root, paths, options) };
  const view = new URLSearchParams([
    ...below.map((path) => ["path", path]),
    ...(filter.rules ?? []).map((rule) => ["rule", rule]),
    ...(filter.kinds ?? []).map((kind) => ["kind", kind]),
    ...(filter.codes ?? []).map((code) => ["code", code]),
    ...(filter.ids ?? []).map((id) => ["id", id]),
    ...(options.trust === undefined ? [] : [["trust", options.trust]]),
  ]);
  const server = await serveReview(workspace, { plan, port: options.port ?? 0, view: view.toString() });
  process.stdout.write(`The review is at  ${server.address}\n`);
  process.stdout.write(
    "It ends when its last page is closed, or with Ctrl-C. Decisions are written as they are made.\n",
  );
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const)
    process.once(signal, () => void server.close());
  if (options.open && !(await openBrowser(server.address)))
    process.stdout.write("No browser could be opened. Open the address yourself.\n");
  await server.ended;
  process.stdout.write(decidedText(server.review()));
}

function decidedText(review: Review): string {
  const standings = review.standings();
  const counts = countBy(review.plan.changes, ({ id }) => standingWord(standings.of(id)).split(",")[0]!);
  return `The review has ended: ${[...counts].map(([word, count]) => `${count} ${word}`).join(", ")}. Next: uvran prove, uvran apply.\n`;
}

async function decideAll(
  review: Review,
  changes: readonly PlanChange[],
  filter: Filter,
  decide: Decision["decision"] | "none",
  note: string | undefined,
): Promise<void> {
  const isOfPlaces = (PLACE_DECISIONS as readonly string[]).includes(decide);
  const meant = isOfPlaces
    ? [...review.plan.heldBack, ...review.plan.advice].filter((place) => fitsPlace(place, filter))
    : changes;
  const missing = filter.ids?.filter((id) => !meant.some((one) => one.id === id)) ?? [];
  if (missing.length > 0)
    throw new Problem(
      `The plan has no ${isOfPlaces ? "place" : "change"} ${missing.join(", ")} among those that are meant.`,
    );
  const standings = review.standings();
  await review.decide(
    meant.map(({ id }) => {
      const before = standings.of(id);
      return {
        id,
        decision: decide === "none" ? undefined : decide,
        note: note ?? before.note,
        edited: decide === "keep" ? before.edited : undefined,
      };
    }),
  );
  const word = decide === "none" ? "open again" : decide;
  process.stdout.write(`${plural(meant.length, isOfPlaces ? "place" : "change")}: ${word}.\n`);
  if (meant.length === 0) process.exitCode = 1;
}

function list(review: Review, changes: readonly PlanChange[], { json }: Options): void {
  const standings = review.standings();
  if (!json)
    return deliver(
      decisionsList(review.plan, changes, standings, paintFor(process.stdout), (change) =>
        review.proof(change),
      ),
      undefined,
    );
  const shown = changes.map((change) => {
    const { id, rules, kind, trust, path, line, title } = change;
    const proof = review.proof(change);
    return { id, rules, kind, trust, path, line, title, ...standings.of(id), ...(proof ? { proof } : {}) };
  });
  deliver(`${JSON.stringify({ changes: shown, strays: standings.strays }, null, 1)}\n`, undefined);
}
