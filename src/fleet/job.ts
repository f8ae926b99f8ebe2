import { spawnSync } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { hashText } from "../engine/index.js";
import { filesBehind, locked, messageOf, Problem, refusedByMachine, shownVersion } from "../node/index.js";
import { provesSomething, type Wish } from "../plan/index.js";
import { jsonReport } from "../report/formats/json.js";
import {
  documentOf,
  journeyLines,
  provedBy,
  Workspace,
  type Account,
  type Examination,
} from "../workspace/index.js";
import { withoutSecrets } from "./secrets.js";
import { commitOf, dropBranch, fetchCopy, Outage, startBranch } from "./checkout.js";
import { goalOf, type Policy, type Repository } from "./list.js";
import {
  begun,
  readState,
  writeState,
  writeWhole,
  type Counts,
  type RepositoryState,
  type Step,
} from "./state.js";

/** One repository to be worked through; it can go to another process, or another machine. */
export interface Job {
  readonly repository: Repository;
  readonly policy: Policy;
  /** Where its copy, state and reports are. */
  readonly folder: string;
  readonly attempt: number;
  /** What came of it the last time, where that is kept on another machine, with the branch. */
  readonly known?: RepositoryState | undefined;
  /** What it is done with, where that was reckoned on another machine. */
  readonly basis?: string | undefined;
}

/** The copy of a repository, in the folder of its job. */
export const copyIn = (folder: string): string => join(folder, "code");

/** Asks whether the commits that a state speaks of are in the copy of its folder. */
export function hasItsCommits(folder: string, { branch, counts }: RepositoryState): boolean {
  if ((counts?.commits ?? 0) === 0) return true;
  return existsSync(copyIn(folder)) && commitOf(copyIn(folder), branch!) !== undefined;
}

/**
 * What a job is done with, as a text that is another one when anything of that is: the policy, the config for all with what it
 * imports, the program. Where the config lies does not count.
 */
export function basisOf(policy: Policy): string {
  const { config, attempts, minutes, ...rest } = policy;
  const code = config === undefined ? [] : filesBehind(config).map((file) => readFileSync(file, "utf8"));
  return hashText(JSON.stringify([shownVersion(), rest, code]));
}

/**
 * Works a repository through: a fresh copy, the plan, the proof, a branch with a commit for each rule, a report. Everything
 * begins anew at each attempt, so that one that was cut off leaves nothing behind. Nothing is done where the repository and
 * what is done with it are as they were the last time. Gives the state, which is stored as well.
 */
export async function runJob(job: Job): Promise<RepositoryState> {
  endAlone();
  // One that was cut off a moment ago may not be gone yet.
  return locked(job.folder, "fleet", () => worked(job), PATIENCE_MILLISECONDS);
}

const PATIENCE_MILLISECONDS = 20_000;

/** Ends this process, with all that it has started, as soon as the one is gone that waits for it. */
function endAlone(): void {
  if (!process.channel) return;
  process.once("disconnect", () =>
    process.kill(process.platform === "win32" ? process.pid : -process.pid, "SIGKILL"),
  );
  process.channel.unref();
}

async function worked({ repository, policy, folder, attempt, known, ...job }: Job): Promise<RepositoryState> {
  const started = Date.now();
  const before = readState(folder);
  let state = begun(repository, attempt);
  /** Says how far it is. */
  const tell: Tell = (step, more = {}) => {
    const seconds = Math.round((Date.now() - started) / 100) / 10;
    state = { ...state, ...more, step, seconds };
    writeState(folder, state);
    return state;
  };
  try {
    const basis = job.basis ?? basisOf(policy);
    state = { ...state, basis };
    const copy = copyIn(folder);
    const isLikeBefore = before?.is === "done" && before.basis === basis;
    // What is done stays done until there is something new.
    if (!isLikeBefore) tell("fetch");
    const commit = fetchCopy(repository, copy);
    if (isLikeBefore && before.commit === commit && commitOf(copy, policy.branch) !== undefined)
      return before;
    if (known?.is === "done" && known.basis === basis && known.commit === commit) {
      // A branch that is here belongs to another time.
      dropBranch(copy, policy.branch);
      writeState(folder, known);
      return known;
    }
    startBranch(copy, policy.branch, commit);
    tell("prepare", { commit, branch: policy.branch });
    if (policy.prepare !== undefined) prepare(copy, policy.prepare);
    tell("propose");
    return await workOut(policy, { name: repository.name, folder }, tell);
  } catch (error) {
    const mayPass = error instanceof Outage || refusedByMachine(error) !== undefined;
    return tell(state.step, { is: "failed", says: withoutSecrets(messageOf(error)), mayPass });
  }
}

/** A repository by its name, and the folder of its job. */
interface Place {
  readonly name: string;
  readonly folder: string;
}

type Tell = (step: Step, more?: Partial<RepositoryState>) => RepositoryState;

/** Runs the command that makes a copy ready. Throws a Problem with the end of what it says where it fails. */
function prepare(copy: string, command: string): void {
  const { status, signal, stdout, stderr } = spawnSync(command, {
    cwd: copy,
    shell: true,
    encoding: "utf8",
    maxBuffer: 1 << 28,
  });
  if (status === 0) return;
  const end = `${stdout}${stderr}`.trim().split("\n").slice(-MOST_LINES).join("\n");
  // What it asks of other machines may be there another time.
  throw new Outage(`"${command}" ended with ${signal ?? status}${end === "" ? "" : `:\n${end}`}`);
}

const MOST_LINES = 12;

/** From the plan to the branch, in a fresh copy. */
async function workOut(
  { config, rules, kinds, to, trust, onlyProven }: Policy,
  { name, folder }: Place,
  tell: Tell,
): Promise<RepositoryState> {
  const root = copyIn(folder);
  const goal = to === undefined ? undefined : goalOf(to);
  const workspace = await Workspace.open(root, {
    ...(config === undefined ? {} : { config, root }),
    rules,
    kinds,
    goal,
    workers: 1,
    onlyFor: [],
  });
  const examination = await workspace.propose();
  const { plan } = examination;
  let counts = countsOf(examination);
  const wish: Wish = { filter: {}, trust, onlyKept: false, onlyProven: false };
  const chosen = workspace.review(plan).select(wish).chosen;
  let account: Account | undefined;
  if (workspace.project.checks.length > 0 && chosen.length > 0) {
    tell("prove", { counts });
    account = await workspace.prove(await workspace.sides(wish));
    counts = { ...counts, setAside: account.setAside.length };
  }
  const checks = (account?.final ?? []).map(({ check, verdict, why, compared }) => ({
    name: check.name,
    verdict,
    summary: why ?? compared.summary,
  }));
  await report(workspace, examination, account, { name, folder });
  tell("commit", { counts, checks });
  const isProven = account !== undefined && provesSomething(account.final) && account.unsettled.length === 0;
  const remark = remarkOn({ chosen: chosen.length, account, isProven, onlyProven });
  const mayCommit = account === undefined ? !onlyProven : isProven;
  const kept =
    account === undefined ? chosen : workspace.review(plan).select({ ...wish, onlyProven: true }).chosen;
  if (!mayCommit || kept.length === 0) return tell("commit", { is: "done", ...remark });
  const { commits, complaints } = await workspace.applyAndCommit(plan, kept, true);
  for (const complaint of complaints) throw new Problem(complaint, 1);
  return tell("commit", { is: "done", counts: { ...counts, committed: kept.length, commits }, ...remark });
}

/** What somebody must know of a repository for which nothing is committed, or not all. */
function remarkOn({
  chosen,
  account,
  isProven,
  onlyProven,
}: {
  readonly chosen: number;
  readonly account: Account | undefined;
  readonly isProven: boolean;
  readonly onlyProven: boolean;
}): Pick<RepositoryState, "remark"> {
  if (chosen === 0) return { remark: "nothing to change" };
  if (account === undefined)
    return { remark: onlyProven ? "not committed: there are no checks" : "no checks: nothing is proved" };
  if (account.unsettled.length > 0) return { remark: `not committed: ${account.unsettled[0]!.why}` };
  if (!isProven) {
    const how = account.final.map(({ check, verdict }) => `${check.name} ${verdict}`);
    return { remark: `not committed: no check passed (${how.join(", ")})` };
  }
  const { setAside } = account;
  return setAside.length > 0 ? { remark: `${setAside.length} set aside by the checks` } : {};
}

function countsOf({ plan, survey }: Examination): Counts {
  const sure = (trust: Policy["trust"]): number => plan.changes.filter((one) => one.trust === trust).length;
  return {
    files: survey.filesRead,
    changes: plan.changes.length,
    certain: sure("certain"),
    likely: sure("likely"),
    possible: sure("possible"),
    heldBack: plan.heldBack.length,
    advice: (plan.advice ?? []).length,
    committed: 0,
    setAside: 0,
    commits: 0,
  };
}

/** Writes what there is to read of a repository: the plan, and a page with all places and what was proved of them. */
async function report(
  workspace: Workspace,
  { plan, survey }: Examination,
  account: Account | undefined,
  { name, folder }: Place,
): Promise<void> {
  const proved = account === undefined ? {} : { proved: provedBy(account) };
  const stock = await workspace.stock(survey, { showsChanges: true, ...proved });
  const heading = {
    title: `The plan for ${name}`,
    journey: journeyLines(workspace.project.journeys),
    compared: [],
  };
  const made = new Date().toISOString().slice(0, 10);
  writeWhole(folder, "survey.json", jsonReport(survey, stock, heading, made));
  writeWhole(folder, "plan.json", JSON.stringify(plan, null, 1) + "\n");
  writeWhole(folder, PAGE, await documentOf(workspace, survey, stock, heading, "html", shownVersion()));
}

/** The page about a repository, in its folder. */
export const PAGE = "report.html";
