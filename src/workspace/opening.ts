import { loadProject, Problem, ruleInProject, type Goal, type Project, type Sources } from "../node/index.js";
import type { Kind, Rule } from "../rules/index.js";

/** What a project was opened with, so that it can be opened again in another thread. */
export interface Opening {
  /** The folder around which the project lies; the nearest config upwards counts. */
  readonly from: string;
  /** Another config than that. */
  readonly config?: string | undefined;
  /** The project's root, where it is not the folder of the config. */
  readonly root?: string | undefined;
  /** The ids of the only rules to use, whether they are on or not. */
  readonly rules?: readonly string[] | undefined;
  /** The only kinds of rules to use. */
  readonly kinds?: readonly Kind[] | undefined;
  /** The version of a product to reach, by those rules alone that lead to it. */
  readonly goal?: Goal | undefined;
  /**
   * The files and folders that will be asked about, none for all that there are: rules that ship for other languages than theirs
   * are left out, where none is asked for by its id. What is opened so must be asked only for what was found then.
   */
  readonly onlyFor?: readonly string[] | undefined;
}

/**
 * Opens a project, narrowed to the rules that are asked for; `sources` are its files, where they have been looked for already.
 * Throws a Problem for a config that cannot be loaded, and a rule that is not there.
 */
export async function openProject(
  { from, config, root, rules: ids, kinds, goal, onlyFor }: Opening,
  sources?: Sources,
): Promise<Project> {
  const narrow = ids === undefined ? onlyFor : undefined;
  const project = await loadProject(from, { config, root, goal, sources, onlyFor: narrow });
  const rules = ids?.map((id): Rule => {
    const found = project.allRules.find((rule) => rule.id === id);
    if (!found) throw new Problem(`There is no rule "${id}". List the rules with: uvran rules`);
    return ruleInProject(project, found, goal);
  });
  const asked = (rules ?? project.rules).filter(({ kind }) => kinds?.includes(kind) ?? true);
  return { ...project, rules: asked };
}
