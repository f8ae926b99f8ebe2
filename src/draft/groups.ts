import type { Instance } from "./instances.js";
import { generalise, type Generalised } from "./generalise.js";
import type { Keys } from "./keys.js";
import { WIDTHS } from "./width.js";
import { signsOf, written } from "./written.js";

/** Edits that are instances of one move. */
export interface Group {
  readonly instances: readonly Instance[];
  /** Old and new code that fits all of them, in general. */
  readonly general: Generalised;
  /** The groups of which it is made, each of which is of one move for certain. */
  readonly parts?: readonly Group[];
}

/** How much of what one edit alone has in common with itself must be left for two to be of one move. */
const LEFT = 0.7;

/**
 * Puts edits together that are instances of one move: those that are the same but for what is shared by old and new code,
 * then those that still have much in common. What cannot be explained (new code that the old code does not account for) is
 * given back as it is.
 */
export function grouped(
  instances: readonly Instance[],
  keys: Keys,
): { readonly groups: readonly Group[]; readonly unexplained: readonly Instance[] } {
  const bySignature = new Map<string, { instances: Instance[]; general: Generalised }>();
  const unexplained: Instance[] = [];
  for (const instance of instances.flatMap((one) => oneByOne(one, keys))) {
    // Half of an edit is no move, and code that was only put somewhere else is none either.
    const general = instance.isHalf || sameOn(instance, keys) ? undefined : widest(instance, keys);
    if (!general) {
      unexplained.push(instance);
      continue;
    }
    const { language } = instance.before.tree;
    const signature = `${language.grammar}\n${written(general.was)}\n${written(general.becomes)}`;
    const known = bySignature.get(signature);
    if (known) known.instances.push(instance);
    else bySignature.set(signature, { instances: [instance], general });
  }
  const groups: Group[] = [];
  for (const one of [...bySignature.values()].sort((a, b) => b.instances.length - a.instances.length)) {
    const joined = joinedWith(one, groups, keys);
    if (joined) groups[joined.at] = joined.both;
    else groups.push(one);
  }
  return { groups: groups.sort((a, b) => b.instances.length - a.instances.length), unexplained };
}

/** The first group that another one is of one move with, and both as one. */
function joinedWith(
  one: Group,
  groups: readonly Group[],
  keys: Keys,
): { readonly at: number; readonly both: Group } | undefined {
  let tried = 0;
  for (const [at, other] of groups.entries()) {
    if (!mayBeTogether(other, one)) continue;
    if (tried++ >= MOST_TRIED) return undefined;
    const both = together(other, one, keys);
    if (both) return { at, both };
  }
  return undefined;
}

/** The most general code that fits an edit and is more than holes. */
function widest(instance: Instance, keys: Keys): Generalised | undefined {
  for (const width of [...WIDTHS].reverse()) {
    const general = generalise([instance], width, keys);
    if (general && !general.isBare) return general;
  }
  return undefined;
}

/** Code that was only put somewhere else. */
function sameOn({ before, after }: Instance, keys: Keys): boolean {
  return keys.ofRun(before.tree, before.nodes) === keys.ofRun(after.tree, after.nodes);
}

/** An edit of several statements as one of each, where each new statement is accounted for by the old one in its place. */
function oneByOne(instance: Instance, keys: Keys): Instance[] {
  const { before, after } = instance;
  if (before.nodes.length < 2 || before.nodes.length !== after.nodes.length) return [instance];
  const single = before.nodes.map((n, i) => ({
    ...instance,
    before: { tree: before.tree, nodes: [n] },
    after: { tree: after.tree, nodes: [after.nodes[i]!] },
  }));
  const changed = single.filter((one) => !sameOn(one, keys));
  const isWhole = (one: Instance): boolean => {
    const general = generalise([one], "middle", keys);
    return general !== undefined && !general.isBare && general.becomes.parts.length > 0;
  };
  return changed.every(isWhole) ? changed : [instance];
}

/** A group is compared with so many others that look like it. */
const MOST_TRIED = 60;

/** Do two groups have words and signs in common that are no holes, on both sides? */
function mayBeTogether(a: Group, b: Group): boolean {
  return (["was", "becomes"] as const).every((side) => {
    const [x, y] = [a, b].map(({ general }) => new Set(signsOf(general[side])));
    if (x!.size === 0 || y!.size === 0) return x!.size === y!.size;
    const both = [...x!].filter((sign) => y!.has(sign)).length;
    return both >= Math.max(x!.size, y!.size) * LEFT;
  });
}

function together(a: Group, b: Group, keys: Keys): Group | undefined {
  const roots = [a, b].map(({ instances: [one] }) =>
    [one!.before, one!.after].map(({ tree, nodes }) => nodes.map((n) => tree.kind(n)).join()),
  );
  const [from, to] = roots;
  if (a.instances[0]!.before.tree.language.grammar !== b.instances[0]!.before.tree.language.grammar)
    return undefined;
  if (from![0] !== to![0] && from![0]!.includes(",") === to![0]!.includes(",")) return undefined;
  // Some of each stand for all.
  const some = [...a.instances.slice(0, 4), ...b.instances.slice(0, 4)];
  const general = generalise(some, "middle", keys);
  if (!general || general.isBare) return undefined;
  const most = Math.max(signsOf(a.general.was).length, signsOf(b.general.was).length);
  const left = signsOf(general.was).length;
  if (left < most * LEFT || left === 0) return undefined;
  const parts = [a, b].flatMap((one) => one.parts ?? [one]);
  return { instances: [...a.instances, ...b.instances], general, parts };
}
