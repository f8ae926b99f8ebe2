import { existsSync, readFileSync, realpathSync } from "node:fs";
import { basename, join, relative, resolve, sep } from "node:path";
import { editsFor, type Explanation } from "../engine/index.js";
import {
  applyChanges,
  changedSince,
  checkCommittable,
  decode,
  findSources,
  hasPlan,
  interruptedApply,
  loadPart,
  loadPlan,
  locked,
  makeCommits,
  goalIn,
  goalText,
  ownersIn,
  ruleInProject,
  stepOf,
  messageOf,
  Problem,
  rewrittenFiles,
  storePlan,
  undoLast,
  type Applied,
  type Check,
  type Project,
  type Restored,
  type Rewritten,
  type Sources,
} from "../node/index.js";
import {
  countBy,
  isInShard,
  joined,
  makePlan,
  shardText,
  pathsOf,
  type Examined,
  type Plan,
  type PlanChange,
  type Shard,
  type Wish,
  storedProof,
} from "../plan/index.js";
import type { Account, Examples, ExampleTask, Progress, Suggested } from "../prove/index.js";
import { loadProof, storeProof } from "../prove/stored.js";
import { suggestedChecks } from "../prove/suggest.js";
import { changeLines, shownPath, stockOf } from "../report/index.js";
import type { DiffLine, Proved, Stock, Survey } from "../report/index.js";
import type { Edit } from "../rewrite/index.js";
import type { Rule } from "../rules/index.js";
import { commitsFor, formatCommit } from "./commits.js";
import { Memory } from "./memory.js";
import { openProject, type Opening } from "./opening.js";
import { Results } from "./results.js";
import { Review } from "./review.js";
import { appliedSides, isFresh, planSides, type Sides } from "./sides.js";
import { signatureOf } from "./signature.js";
import { emptySurvey, limited, onlyChanged, versionAsked } from "./surveyed.js";

/** What to look at, and how to tell of the progress. */
export interface Task {
  /** Files and folders, relative to `cwd`; all of the project where there are none. */
  readonly paths?: readonly string[];
  /** The root where nothing is said. */
  readonly cwd?: string;
  /** Only lines that have changed since this commit of git. */
  readonly since?: string | undefined;
  /** Only this part of the files. */
  readonly shard?: Shard | undefined;
  readonly progress?: (done: number, total: number) => void;
}

/** The plan for a project's sources, with what a survey needs to know beside it. */
export interface Examination {
  readonly plan: Plan;
  readonly survey: Survey;
  /** Why what was found could not be remembered. */
  readonly forgotten?: string;
}

/** What a workspace needs to know of a project. */
export type Opened = Pick<Project, "root" | "rules"> & Partial<Project>;

/** How a workspace goes about its work; what comes of it is the same. */
export interface Working {
  /** Remember results in `.uvran/cache`, and use those of earlier runs. */
  readonly cache?: boolean | undefined;
  /** On how many cores to work files out; 1 for this thread alone. As many as pay where it is not said. */
  readonly workers?: number | undefined;
}

/**
 * An opened project, on which commands, pages and editors stand. It keeps what it has worked out about each file until
 * that file changes, or another one that its result looked at.
 */
export class Workspace {
  readonly project: Project;
  readonly #opening: Opening | undefined;
  readonly #isNarrowed: boolean;
  readonly #working: Working;
  #results: Results | undefined;
  #found: Sources | undefined;

  /**
   * Only a project that was opened, as `opening` says, can be opened in other threads too, and its results be remembered.
   * `isNarrowed` says that only some of its rules are asked for.
   */
  constructor(
    { sources, ...project }: Opened,
    {
      opening,
      isNarrowed = false,
      ...working
    }: Working & { readonly opening?: Opening | undefined; readonly isNarrowed?: boolean } = {},
  ) {
    this.#opening = opening;
    this.#isNarrowed = isNarrowed;
    this.#working = working;
    this.#found = sources;
    this.project = {
      configFiles: [],
      allRules: project.rules,
      shippedRules: new Set(),
      languages: undefined,
      tables: [],
      journeys: [],
      effort: {},
      leaveOut: [],
      targets: {},
      checks: [],
      scratch: {},
      formatters: [],
      library: undefined,
      fileTime: undefined,
      ...project,
    };
  }

  /**
   * Opens the project around a folder: the nearest config upwards counts. Throws a Problem for a config that cannot be loaded,
   * and a rule that is not there.
   */
  static async open(
    from: string,
    { config, root, rules, kinds, goal, onlyFor, ...working }: Omit<Opening, "from"> & Working = {},
  ): Promise<Workspace> {
    const opening = { from, config, root, rules, kinds, goal, onlyFor };
    const isNarrowed = [rules, kinds, goal].some((one) => one !== undefined);
    return new Workspace(await openProject(opening), { opening, isNarrowed, ...working });
  }

  get root(): string {
    return this.project.root;
  }

  /** A sentence for somebody who works in another folder than the root, where the config has moved it. */
  elsewhere(cwd: string): string | undefined {
    const { root, configFile } = this.project;
    if (configFile === undefined || realpathSync(root) === realpathSync(cwd)) return undefined;
    return `Working on ${root}, where the config is: ${basename(configFile)}`;
  }

  /** A sentence about an apply that was cut off; undefined where there is none. */
  interrupted(): string | undefined {
    return existsSync(join(this.root, ".uvran")) ? interruptedApply(this.root) : undefined;
  }

  /** Looks over all files again; gives the paths of those of which what was said does not hold any more. */
  refresh(): string[] {
    return this.#results?.refresh(this.#sources()) ?? [];
  }

  /** Works out the plan, as far as it is not known yet. Files without any rule's words are never decoded or parsed. */
  async examine(task: Task = {}): Promise<Examination> {
    const { paths = [], cwd = this.root, since, shard, progress } = task;
    const all = this.#sources();
    const changed = since === undefined ? undefined : changedSince(this.root, since);
    const below = paths.length === 0 ? all : findSources(this.root, paths, cwd, this.project.leaveOut);
    const sources = limited(
      below,
      (path) => (changed?.has(path) ?? true) && (!shard || isInShard(path, shard)),
    );
    if (this.#results) this.#results.refresh(all);
    const results = (this.#results ??= this.#newResults(all));
    await results.workOut(sources.paths, (done) => progress?.(done, sources.paths.length));
    const examined: Examined[] = [];
    const found = emptySurvey(this.project.rules, sources);
    const versions = new Map<string, Survey["versions"][number]>();
    for (const path of sources.paths) {
      const { textHash, skipped, unreadable, lookedAt, ...known } = await results.of(path);
      const result = changed && known.result ? onlyChanged(known.result, changed) : known.result;
      if (skipped !== undefined) found.skipped.push({ path, why: skipped });
      else if (unreadable !== undefined) found.unreadable.push({ path, why: unreadable });
      else found.filesRead++;
      for (const asked of lookedAt.targets) {
        const version = versionAsked(asked);
        versions.set(`${version.version} ${version.says ?? ""}`, version);
      }
      if (!result) continue;
      if (result.unparsed) found.unparsed.push(result.unparsed);
      found.idleKeeps.push(...(result.idleKeeps ?? []));
      found.silenced.push(...(result.silenced ?? []));
      found.failures.push(...(result.failures ?? []));
      found.unread.push(...(result.unread ?? []));
      if (textHash !== undefined) examined.push({ path, hash: textHash, result });
    }
    const plan = makePlan(examined, (path) => results.text(path), this.#asked(task));
    const { changes, heldBack, advice } = plan;
    const asked = [...versions].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, version]) => version);
    const said = { decided: this.#decided(plan), proved: this.#proved(plan) };
    const forgotten = this.#remember(results);
    return {
      plan,
      survey: { ...found, changes, heldBack, advice, versions: asked, ...said },
      ...(forgotten === undefined ? {} : { forgotten }),
    };
  }

  /**
   * What a report of a survey, a plan or a proof is made from. `showsChanges` says that each place shows what its change does;
   * else it shows the code as it is.
   */
  async stock(
    survey: Survey,
    {
      showsChanges = false,
      context,
      proved,
    }: {
      readonly showsChanges?: boolean;
      readonly context?: number | undefined;
      readonly proved?: Proved;
    } = {},
  ): Promise<Stock> {
    const { journeys, effort } = this.project;
    const way = journeys.find(({ steps }) => steps.length > 0);
    return stockOf(survey, {
      textOf: (path) => this.text(path),
      effort,
      ownersOf: ownersIn(this.root),
      ...(way === undefined ? {} : { stepOf: (rule) => stepOf(rule, way) }),
      ...(showsChanges ? { differences: await this.#differences(survey.changes, context) } : {}),
      ...(context === undefined ? {} : { context }),
      ...(proved === undefined ? {} : { proved }),
    });
  }

  async #differences(
    changes: readonly PlanChange[],
    context?: number,
  ): Promise<ReadonlyMap<string, readonly DiffLine[]>> {
    const result = new Map<string, readonly DiffLine[]>();
    for (const change of changes) {
      const edits = await this.edits(change).catch(() => change.edits);
      const elsewhere = change.elsewhere.flatMap(({ path, edits: there }): DiffLine[] => [
        { mark: "…", text: shownPath(path) },
        ...changeLines(this.text(path), there, context),
      ]);
      result.set(change.id, [...changeLines(this.text(change.path), edits, context), ...elsewhere]);
    }
    return result;
  }

  /**
   * Takes a text for that of a file, as an editor has it, as long as it is not undefined. Gives the paths of which what was said
   * does not hold any more. Nothing happens for a file that the project leaves out.
   */
  setUnsaved(path: string, text: string | undefined): string[] {
    return this.#known().setUnsaved(path, text);
  }

  /** Is this the text of a file on the disk? */
  isSaved(path: string, text: string): boolean {
    try {
      return decode(readFileSync(join(this.root, path))) === text;
    } catch {
      return false;
    }
  }

  /** What there is to say of one file, as it is now; undefined for one that the project leaves out. */
  async fileNow(path: string): Promise<{ readonly plan: Plan; readonly text: string } | undefined> {
    const results = this.#known();
    if (!results.has(path)) return undefined;
    const { result, textHash } = await results.of(path);
    const examined = result && textHash !== undefined ? [{ path, hash: textHash, result }] : [];
    return { plan: makePlan(examined, (other) => results.text(other)), text: results.text(path) };
  }

  /** Works out the plan and stores it; gives its path beside it. */
  async propose(task: Task = {}): Promise<Examination & { readonly stored: string }> {
    const examination = await this.examine(task);
    const stored = await locked(this.root, "propose", () => storePlan(this.root, examination.plan));
    return { ...examination, stored };
  }

  /**
   * Puts plans together that were made of parts of the project, and stores what comes of it; gives its path beside it. Throws a
   * Problem for a file that holds no plan, and a PlanError for plans that do not belong together.
   */
  async join(files: readonly string[]): Promise<{ readonly plan: Plan; readonly stored: string }> {
    const plan = joined(files.map((name) => ({ name, plan: loadPart(name) })));
    return { plan, stored: await locked(this.root, "join", () => storePlan(this.root, plan)) };
  }

  /** Works out a plan anew, for the same paths and with the same rules as the one before was asked for. */
  async proposeAgain({ asked = {} }: Plan): Promise<Review> {
    const { paths = [], rules, to, since } = asked;
    const workspace = rules ? this.#narrowedTo(rules, to) : this;
    const { plan } = await workspace.propose({ paths, since });
    return this.review(plan);
  }

  /** The text of a file of the project. */
  text(path: string): string {
    return this.#known().text(path);
  }

  /**
   * Why a rule does at a line of a file what it does, or does nothing there. Lines are 1-based. Throws a Problem for a file
   * that cannot be read, that holds no code, or that has fewer lines.
   */
  async explain(rule: Rule, file: string, line: number, cwd: string): Promise<Explanation[]> {
    const [path] = findSources(this.root, [file], cwd, this.project.leaveOut).paths;
    if (path === undefined) throw new Problem(`${file} is no file that the rules look at.`);
    const results = this.#known();
    const lines = results.text(path).trimEnd().split("\n").length;
    if (line < 1 || line > lines)
      throw new Problem(`${file} has ${lines} lines, and none of them is ${line}.`);
    const found = await results.explain(rule, path, line);
    if (!found) throw new Problem(`${file} is of a kind in which the rules find no code.`);
    return found;
  }

  /** All that a change does to its own file, its imports too. Throws a RangeError where these cannot be written. */
  edits(change: PlanChange): Promise<Edit[]> {
    return editsFor(change.path, this.text(change.path), [change]);
  }

  hasPlan(): boolean {
    return hasPlan(this.root);
  }

  /** The plan that was stored last, or the one in a file. Throws a Problem where there is none. */
  plan(file?: string): Plan {
    return loadPlan(this.root, file);
  }

  /** A plan with its texts and what is decided about it. */
  review(plan: Plan = this.plan()): Review {
    return new Review(this.project, plan);
  }

  /** What changes of a plan make of their files, without writing anything. */
  rewritten(plan: Plan, changes: readonly PlanChange[]): Promise<Rewritten[]> {
    return rewrittenFiles(this.root, plan, changes, this.project.leaveOut);
  }

  /** Writes changes of a plan, and runs the formatters over what was written. */
  apply(plan: Plan, changes: readonly PlanChange[]): Promise<Applied> {
    return applyChanges(this.project, plan, changes);
  }

  /**
   * Writes changes of a plan and commits them, those of one rule at a time. Throws a Problem, with nothing written, where
   * the work tree has other changes, unless these are allowed; what git cannot commit stays written.
   */
  async applyAndCommit(
    plan: Plan,
    changes: readonly PlanChange[],
    evenDirty: boolean,
  ): Promise<Applied & { readonly commits: number }> {
    const paths = [...new Set(changes.flatMap(pathsOf))];
    checkCommittable(this.root, paths, evenDirty);
    const commits = await commitsFor(this.project, plan, changes);
    const applied = await this.apply(plan, changes);
    const formatted = this.project.formatters.length === 0 ? [] : [formatCommit(applied)];
    try {
      return { ...applied, commits: makeCommits(this.root, [...commits, ...formatted]) };
    } catch (error) {
      throw new Problem(
        `${messageOf(error)}\nThe changes are written, and not all of them are committed. Take them back with: uvran undo`,
        1,
      );
    }
  }

  /** Takes the last apply back; `partly` leaves alone what was changed since. */
  undo(partly = false): Promise<Restored[]> {
    return undoLast(this.root, partly);
  }

  /**
   * Old and new code to prove one against the other: the plan's new code before an apply, and after it what the apply
   * wrote.
   */
  async sides(wish: Wish, planFile?: string): Promise<Sides> {
    const plan = planFile !== undefined || this.hasPlan() ? this.plan(planFile) : undefined;
    const applied = plan && isFresh(this.root, plan) ? undefined : appliedSides(this.root);
    if (applied) return applied;
    const review = this.review(plan ?? this.plan(planFile));
    const sides = await planSides(this.project, review.plan, review.select(wish).chosen);
    return { ...sides, review };
  }

  /**
   * Calls the changed functions of a plan's sides, old and new, with inputs that are made for them. `marks` says that changes
   * which make a difference are marked "later" in the decisions.
   */
  async compareByExample(
    { candidates, review }: Sides,
    {
      marks = true,
      ...options
    }: Omit<ExampleTask, "root" | "candidates"> & { readonly marks?: boolean } = {},
  ): Promise<Examples> {
    if (!candidates || !review)
      throw new Problem(
        "Functions are compared by example before an apply. Take it back first: uvran undo",
        1,
      );
    const { root, project } = this;
    const { scratch, leaveOut } = project;
    const { compareByExample } = await import("../prove/by-example/by-example.js");
    const examples = await compareByExample({ root, scratch, leaveOut, candidates, ...options });
    const faults = examples.tried.flatMap(({ name, difference }) =>
      (difference?.changes ?? []).map((change) => ({
        change,
        check: `by example: ${name}`,
        lines: [
          ...difference!.program.split("\n"),
          `old ${difference!.old.result}`,
          `new ${difference!.now.result}`,
        ],
      })),
    );
    if (marks && faults.length > 0) await review.setAside(faults);
    return examples;
  }

  /** Checks that fit the project, by its manifests. Nothing is run. */
  suggestedChecks(): Suggested {
    return suggestedChecks(this.root, this.project.leaveOut);
  }

  /** Has `prove` stored what it found? */
  hasProof(): boolean {
    return loadProof(this.root) !== undefined;
  }

  /**
   * Runs checks of the project on both sides, finds the changes that they do not stand, and stores what came of it. Where the
   * sides are a plan's, `marks` says that changes which are set aside are marked "later" in the decisions.
   */
  async prove(
    { before, after, candidates, review }: Sides,
    {
      checks = this.project.checks,
      searches = true,
      marks = true,
      ...options
    }: {
      readonly checks?: readonly Check[];
      readonly searches?: boolean;
      readonly marks?: boolean;
      readonly atOnce?: number;
      readonly signal?: AbortSignal;
      readonly progress?: (event: Progress) => void;
    } = {},
  ): Promise<Account> {
    const { root, project } = this;
    const sides = { before, after, searches, ...(candidates ? { candidates } : {}) };
    const { prove } = await import("../prove/prove.js");
    const account = await prove({ root, scratch: project.scratch, checks, ...sides, ...options });
    if (!review || !candidates) return account;
    const { setAside, final } = account;
    if (marks && setAside.length > 0) await review.setAside(setAside);
    const summaries = final.map(({ check, verdict, why, compared }) => ({
      name: check.name,
      verdict,
      summary: why ?? compared.summary,
    }));
    await storeProof(
      root,
      storedProof(summaries, account.unsettled.length > 0 ? [] : account.kept, setAside, candidates.textOf),
    );
    return account;
  }

  /** The same project with those of these rules alone that it still has, in the way that the plan was made for which it is. */
  #narrowedTo(ids: readonly string[], to: string | undefined): Workspace {
    const goal = to === undefined ? undefined : goalIn(to);
    const { project } = this;
    const known = project.allRules.filter(({ id }) => ids.includes(id));
    const inProject = known.map((rule) => ruleInProject(project, rule, goal));
    const opening = this.#opening && {
      ...this.#opening,
      rules: known.map(({ id }) => id),
      kinds: undefined,
      goal,
    };
    return new Workspace(
      { ...project, goal, rules: inProject },
      { opening, isNarrowed: true, ...this.#working },
    );
  }

  #known(): Results {
    return (this.#results ??= this.#newResults(this.#sources()));
  }

  #newResults(sources: Sources): Results {
    const { project } = this;
    const opening = this.#opening;
    const { cache = false, workers } = this.#working;
    if (!opening) return new Results(project, sources);
    return new Results(project, sources, {
      memory: cache ? new Memory(this.root, signatureOf(project)) : undefined,
      workers: async (all, threads) => {
        const { Workers } = await import("./workers.js");
        return new Workers(opening, all, project, threads);
      },
      threads: workers,
    });
  }

  /** Stores what was found; gives the reason where that cannot be done. */
  #remember(results: Results): string | undefined {
    try {
      results.remember();
      return undefined;
    } catch (error) {
      return messageOf(error);
    }
  }

  /** What a plan was asked for; undefined for all of the project with all of its rules. */
  #asked({ paths = [], cwd = this.root, since, shard }: Task): Plan["asked"] {
    if (paths.length === 0 && !this.#isNarrowed && since === undefined && !shard) return undefined;
    const below = paths.map((path) => relative(this.root, resolve(cwd, path)).split(sep).join("/") || ".");
    return {
      ...(below.length > 0 ? { paths: below } : {}),
      ...(this.#isNarrowed ? { rules: this.project.rules.map(({ id }) => id) } : {}),
      ...(this.project.goal === undefined ? {} : { to: goalText(this.project.goal) }),
      ...(since === undefined ? {} : { since }),
      ...(shard ? { shard: shardText(shard) } : {}),
    };
  }

  /** How many of the changes were decided about, by what was said; undefined where nothing ever was. */
  #decided(plan: Plan): ReadonlyMap<string, number> | undefined {
    const review = this.review(plan);
    const decisions = review.decisions();
    if (decisions.length === 0) return undefined;
    const standings = review.standings(decisions);
    return countBy(plan.changes, ({ id }) => {
      const { decision, misfit } = standings.of(id);
      return misfit === undefined ? (decision ?? "open") : "to decide again";
    });
  }

  /** What the last proof found of the changes; undefined where it says nothing of any. */
  #proved(plan: Plan): ReadonlyMap<string, number> | undefined {
    if (!this.hasProof()) return undefined;
    const review = this.review(plan);
    const found = plan.changes.map((change) => review.proof(change));
    if (found.every((proof) => proof === undefined)) return undefined;
    return countBy(found, (proof) => (proof === undefined ? "not" : proof.passed ? "passed" : "set aside"));
  }

  /** All sources; the first time those that were found when the project was loaded. */
  #sources(): Sources {
    const found = this.#found ?? findSources(this.root, [], this.root, this.project.leaveOut);
    this.#found = undefined;
    return found;
  }
}
