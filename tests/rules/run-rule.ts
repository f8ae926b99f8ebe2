import {
  byPath,
  Engine,
  filesNaming,
  languageOfFile,
  hashText,
  makePlan,
  parse,
  plannedText,
  rule,
  type Plan,
  type Rule,
  type RuleSpec,
} from "uvran/core";

/** A rule with no more said of it than a test needs. */
export const make = (spec: Pick<RuleSpec, "was"> & Partial<RuleSpec>): Rule =>
  rule({ id: "test/uses", kind: "idiom", title: "t", why: "w", trials: [], ...spec });

/** What a rule makes of some files, with the plan that says why. */
export async function run(
  one: Rule,
  files: Record<string, string>,
): Promise<{ plan: Plan; now: Record<string, string> }> {
  const all = Object.entries(files).map(([path, text]) => ({ path, text }));
  const engine = new Engine([one], { files: filesNaming(all) });
  const examined = [];
  for (const [path, text] of Object.entries(files)) {
    examined.push({ path, hash: hashText(text), result: (await engine.file(path, text))! });
  }
  const plan = makePlan(examined, (path) => files[path]!);
  const now = { ...files };
  for (const [path, changes] of byPath(plan.changes))
    now[path] = await plannedText(path, files[path]!, changes);
  for (const [path, text] of Object.entries(now)) {
    if (languageOfFile(path)) expect(parse(text, languageOfFile(path)!).errors).toEqual([]);
  }
  return { plan, now };
}
