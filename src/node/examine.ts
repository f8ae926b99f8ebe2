import { readFileSync } from "node:fs";
import { join } from "node:path";
import { Engine, type Failure, type IdleKeep, type Silenced, type Unparsed } from "../engine/index.js";
import { makePlan, type Examined, type Plan } from "../plan/index.js";
import type { Skipped, Survey } from "../report/index.js";
import type { Rule } from "../rules/index.js";
import { findSources } from "./files.js";
import "./grammars.js";
import { messageOf } from "./problem.js";
import { ProjectFiles } from "./project-files.js";
import { decode, inspect } from "./read.js";
import { ProjectTargets, type Targets } from "./targets.js";
import { TypeScriptTypes } from "./typescript-types.js";

/** What to look at. */
export interface Task {
  readonly root: string;
  readonly rules: readonly Rule[];
  readonly leaveOut: readonly string[];
  /** Versions by language that go before what manifests say. */
  readonly targets?: Targets;
  /** Files and folders, relative to `cwd`; all of the root when empty. */
  readonly paths: readonly string[];
  readonly cwd: string;
  /** The time in milliseconds after which a file is given up; a minute where nothing is said. */
  readonly fileTime?: number | undefined;
  readonly progress?: (done: number, total: number) => void;
}

/** The plan for a project's sources, with what a survey needs to know beside it. */
export interface Examination {
  readonly plan: Plan;
  readonly survey: Survey;
  /** Texts of the files that have changes. */
  readonly texts: ReadonlyMap<string, string>;
}

const MOST_TIME = 60_000;

/** Reads all sources and works out the plan. Files without any rule's words are never decoded or parsed. */
export async function examine(task: Task): Promise<Examination> {
  const { root, rules } = task;
  const sources = findSources(root, task.paths, task.cwd, task.leaveOut);
  const everything = task.paths.length === 0 ? sources : findSources(root, [], root, task.leaveOut);
  const files = new ProjectFiles(root, everything.paths);
  const targets = new ProjectTargets(root, task.targets);
  const { fileTime = MOST_TIME } = task;
  const engine = new Engine(rules, { files, types: new TypeScriptTypes(root), targets, fileTime });
  const examined: Examined[] = [];
  const unparsed: Unparsed[] = [];
  const idleKeeps: IdleKeep[] = [];
  const silenced: Silenced[] = [];
  const failures: Failure[] = [];
  const skipped: Skipped[] = [...sources.skipped];
  const unreadable: Skipped[] = [...sources.unreadable];
  let done = 0;
  let filesRead = 0;
  for (const path of sources.paths) {
    task.progress?.(done++, sources.paths.length);
    let bytes: Buffer;
    try {
      bytes = readFileSync(join(root, path));
    } catch (error) {
      unreadable.push({ path, why: messageOf(error) });
      continue;
    }
    const verdict = inspect(bytes);
    if (verdict && "skip" in verdict) skipped.push({ path, why: verdict.skip });
    else if (verdict) unreadable.push({ path, why: verdict.bad });
    if (verdict) continue;
    filesRead++;
    if (!(await engine.mayMatch(path, (word) => bytes.includes(word)))) continue;
    const text = decode(bytes);
    const result = (await engine.file(path, text)) ?? { changes: [], heldBack: [] };
    if (result.unparsed) unparsed.push(result.unparsed);
    idleKeeps.push(...(result.idleKeeps ?? []));
    silenced.push(...(result.silenced ?? []));
    failures.push(...(result.failures ?? []));
    const { changes, heldBack, advice = [] } = result;
    if (changes.length + heldBack.length + advice.length > 0) examined.push({ path, text, result });
    if (done % 50 === 0) await new Promise(setImmediate);
  }
  const plan = makePlan(examined, (path) => files.text(path));
  const texts = new Map(examined.map((e) => [e.path, e.text]));
  for (const path of Object.keys(plan.files)) if (!texts.has(path)) texts.set(path, files.text(path));
  const { changes, heldBack, advice } = plan;
  const survey: Survey = {
    filesRead,
    rules,
    changes,
    heldBack,
    advice,
    unparsed,
    silenced,
    failures,
    versions: targets.asked(),
    idleKeeps,
    unreadable,
    skipped,
    notCovered: sources.notCovered,
  };
  return { plan, survey, texts };
}
