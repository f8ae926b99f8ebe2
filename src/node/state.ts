import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { readPlan, type Plan } from "../plan/index.js";
import { Problem } from "./problem.js";

const PLAN = "plan.json";

/** The project's `.uvran` folder, made when needed. Everything in it but decisions is ignored by git. */
export function stateFolder(root: string): string {
  const folder = join(root, ".uvran");
  mkdirSync(folder, { recursive: true });
  const ignoreFile = join(folder, ".gitignore");
  if (!existsSync(ignoreFile)) writeFileSync(ignoreFile, "*\n!decisions.json\n!.gitignore\n");
  return folder;
}

/** Stores the plan where the other commands look for it; gives the path. */
export function storePlan(root: string, plan: Plan): string {
  const path = join(stateFolder(root), PLAN);
  writeFileSync(path, JSON.stringify(plan, null, 1) + "\n");
  return path;
}

/** The plan that `propose` stored, or the one in `file`. Throws a Problem when there is none. */
export function loadPlan(root: string, file?: string): Plan {
  const path = file ?? join(root, ".uvran", PLAN);
  let json: string;
  try {
    json = readFileSync(path, "utf8");
  } catch {
    throw new Problem(`There is no plan at ${path}. Make one with: uvran propose`);
  }
  return readPlan(json);
}
