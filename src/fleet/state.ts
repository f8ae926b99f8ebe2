import { mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { z } from "zod";
import type { Repository } from "./list.js";
import { withoutSecrets } from "./secrets.js";

/** What is done with a repository, in this order. */
export const STEPS = ["fetch", "prepare", "propose", "prove", "commit"] as const;
export type Step = (typeof STEPS)[number];

const counts = z.object({
  /** Files that were read. */
  files: z.number(),
  changes: z.number(),
  certain: z.number(),
  likely: z.number(),
  possible: z.number(),
  heldBack: z.number(),
  advice: z.number(),
  /** Changes that are committed. */
  committed: z.number(),
  /** Changes that a check did not stand. */
  setAside: z.number(),
  commits: z.number(),
});
export type Counts = z.output<typeof counts>;

const schema = z.object({
  uvranFleet: z.literal(1),
  name: z.string(),
  from: z.string(),
  is: z.enum(["working", "done", "failed"]),
  /** The step that is being taken, or that failed. */
  step: z.enum(STEPS),
  /** Which attempt it is, from 1. */
  attempt: z.number(),
  /** The commit that the work began from. */
  commit: z.string().optional(),
  /** What the work was done with: the same text, the same result. */
  basis: z.string(),
  branch: z.string().optional(),
  counts: counts.optional(),
  checks: z.array(z.object({ name: z.string(), verdict: z.string(), summary: z.string() })).default([]),
  /** What is left to say of a repository that is done. */
  remark: z.string().optional(),
  /** Why it failed, and whether it may go right another time. */
  says: z.string().optional(),
  mayPass: z.boolean().optional(),
  seconds: z.number(),
});

/** How far a repository is. */
export type RepositoryState = z.output<typeof schema>;

/** The state of a repository on which an attempt begins. */
export function begun({ name, from }: Repository, attempt: number, basis = ""): RepositoryState {
  const what = { uvranFleet: 1 as const, name, from: withoutSecrets(from) };
  return { ...what, is: "working", step: "fetch", attempt, basis, checks: [], seconds: 0 };
}

/** A state that came from elsewhere. Throws an Error for what is none. */
export const stateFrom = (value: unknown): RepositoryState => schema.parse(value);

const FILE = "state.json";

/** What is known of a repository; undefined where nothing is, or nothing that can be read. */
export function readState(folder: string): RepositoryState | undefined {
  try {
    return schema.parse(JSON.parse(readFileSync(join(folder, FILE), "utf8")));
  } catch {
    return undefined;
  }
}

/** Keeps what is known of a repository, wholly or not at all. */
export function writeState(folder: string, state: RepositoryState): void {
  writeWhole(folder, FILE, JSON.stringify(state, null, 1) + "\n");
}

/** Puts a file into a folder in one step. */
export function writeWhole(folder: string, name: string, text: string): void {
  mkdirSync(folder, { recursive: true });
  const temporary = join(folder, `.${name}.${process.pid}`);
  writeFileSync(temporary, text, { flush: true });
  renameSync(temporary, join(folder, name));
}
