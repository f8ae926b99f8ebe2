import { loadProject, Problem, ruleInProject, type Goal, type Project } from "../node/index.js";
import type { Sources } from "../node/index.js";
import type { Kind, Rule } from "../rules/index.js";

/** What a project was opened with, so that it can be opened again in another thread. */
export interface Opening {
  /** The folder around which the project lies; the nearest config upwards counts. */
  readonly from: string;
  /** Another config than that. */
  readonly config?: string;
  /** The ids of the only rules to use, whether they are on or not. */
  readonly rules?: readonly string[];
  /** The only kinds of rules to use. */
  readonly kinds?: readonly Kind[];
  /** The version of a product to reach, by those rules alone that lead to it. */
  readonly goal?: Goal;
}

/**
 * Opens a project, narrowed to the rules that are asked for; `sources` are its files, where they have been looked for already.
 * Throws a Problem for a config that cannot be loaded, and a rule that is not there.
 */
export async function openProject(
  { from, config, rules: ids, kinds, goal }: Opening,
  sources?: Sources,
): Promise<Project> {
  const project = await loadProject(from, config, goal, sources);
  const rules = ids?.map((id): Rule => {
    const found = project.allRules.find((rule) => rule.id === id);
    if (!found) throw new Problem(`There is no rule "${id}". List the rules with: uvran rules`);
    return ruleInProject(project, found, goal);
  });
  const asked = (rules ?? project.rules).filter(({ kind }) => kinds?.includes(kind) ?? true);
  return { ...project, rules: asked };
}

/** Is a project opened with some of its rules only? */
export const isNarrow = ({ rules, kinds, goal }: Opening): boolean =>
  [rules, kinds, goal].some((one) => one !== undefined);
