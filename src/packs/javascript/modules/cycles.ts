import { referencesAt, referencesOf, unknown } from "../../../core.js";
import type { Answer, SyntaxNode } from "../../../core.js";
import { runsAtLoad } from "./code-file.js";
import type { Reading } from "./forms.js";
import { NotAModule } from "./not-a-module.js";

/**
 * Files that load each other. Throws a NotAModule where one uses what another exports while both are still being loaded, which a
 * module does not allow; gives a doubt for each circle otherwise.
 */
export function refuseLateCycles(readings: readonly Reading[]): Answer[] {
  const groups = circles(readings);
  const doubts: Answer[] = [];
  for (const group of groups) {
    for (const file of group)
      for (const { call, loaded, declarator, how, isLate } of file.loadings) {
        if (loaded.is !== "own" || how === "bare" || !group.some(({ path }) => path === loaded.path))
          continue;
        const used = how !== "inline" ? usedAtLoad(declarator!) : isLate ? undefined : call;
        if (used)
          throw new NotAModule(
            used,
            `${file.path} and ${loaded.path} load each other, and this runs while they are loaded`,
            "flow.order",
          );
      }
    const names = group.map(({ path }) => path);
    doubts.push(unknown("flow.order", `${names.slice(0, 3).join(" and ")} load each other`));
  }
  return doubts;
}

/** Where a variable of a declaration is used while the file is loaded. */
function usedAtLoad(declarator: SyntaxNode): SyntaxNode | undefined {
  const target = declarator.child("name")!;
  const names = [...target.descendants(), target].filter((node) =>
    node.is(["identifier", "shorthand_property_identifier_pattern"]),
  );
  for (const name of names) {
    const to = referencesAt(name).find((one) => one.to && !one.member)?.to;
    const used = to && referencesOf(to).find(({ node }) => !declarator.holds(node) && runsAtLoad(node));
    if (used) return used.node;
  }
  return undefined;
}

/** The groups of files of which each loads, by way of others, every other; Tarjan's algorithm, 1972. */
function circles(readings: readonly Reading[]): Reading[][] {
  const byPath = new Map(readings.map((one) => [one.path, one]));
  const order = new Map<string, number>();
  const low = new Map<string, number>();
  const stack: string[] = [];
  const found: Reading[][] = [];
  const visit = (path: string): void => {
    order.set(path, order.size);
    low.set(path, order.get(path)!);
    stack.push(path);
    for (const { loaded } of byPath.get(path)!.loadings) {
      if (loaded.is !== "own" || !byPath.has(loaded.path)) continue;
      if (!order.has(loaded.path)) visit(loaded.path);
      if (stack.includes(loaded.path)) low.set(path, Math.min(low.get(path)!, low.get(loaded.path)!));
    }
    if (low.get(path) !== order.get(path)) return;
    const group = stack.splice(stack.indexOf(path));
    const isCircle =
      group.length > 1 ||
      byPath.get(path)!.loadings.some(({ loaded }) => loaded.is === "own" && loaded.path === path);
    if (isCircle) found.push(group.map((one) => byPath.get(one)!));
  };
  for (const { path } of readings) if (!order.has(path)) visit(path);
  return found;
}
