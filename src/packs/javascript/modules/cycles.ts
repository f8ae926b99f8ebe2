import { referencesAt, referencesOf, unknown } from "../../../core.js";
import type { Answer, SyntaxNode } from "../../../core.js";
import { runsAtLoad } from "./at-load.js";
import { NotAModule } from "./not-a-module.js";
import type { Reading } from "./reading.js";

/**
 * Files that load each other, as doubts. Throws a NotAModule where one uses what another exports while both are still being loaded, which a
 * module does not allow.
 */
export function circlesOf(readings: readonly Reading[]): Answer[] {
  const groups = circles(readings);
  const doubts: Answer[] = [];
  for (const group of groups) {
    const paths = new Set(group.map(({ path }) => path));
    for (const file of group)
      for (const { call, loaded, declarator, how, isLate } of file.loadings) {
        if (loaded.is !== "own" || how === "bare" || !paths.has(loaded.path)) continue;
        const used = how !== "inline" ? usedAtLoad(declarator!) : isLate ? undefined : call;
        if (used)
          throw new NotAModule(
            used,
            `${file.path} and ${loaded.path} load each other, and this runs while they are loaded`,
            "flow.order",
          );
      }
    doubts.push(unknown("flow.order", `${[...paths].slice(0, 3).join(" and ")} load each other`));
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
  const onStack = new Set<string>();
  const found: Reading[][] = [];
  const visit = (path: string): void => {
    order.set(path, order.size);
    low.set(path, order.get(path)!);
    stack.push(path);
    onStack.add(path);
    for (const { loaded } of byPath.get(path)!.loadings) {
      if (loaded.is !== "own" || !byPath.has(loaded.path)) continue;
      if (!order.has(loaded.path)) visit(loaded.path);
      if (onStack.has(loaded.path)) low.set(path, Math.min(low.get(path)!, low.get(loaded.path)!));
    }
    if (low.get(path) !== order.get(path)) return;
    const group = stack.splice(stack.lastIndexOf(path));
    for (const one of group) onStack.delete(one);
    const isCircle =
      group.length > 1 ||
      byPath.get(path)!.loadings.some(({ loaded }) => loaded.is === "own" && loaded.path === path);
    if (isCircle) found.push(group.map((one) => byPath.get(one)!));
  };
  for (const { path } of readings) if (!order.has(path)) visit(path);
  return found;
}
