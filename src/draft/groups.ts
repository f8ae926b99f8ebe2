import type { Instance } from "./instances.js";
import { generalise, WIDTHS, type Generalised } from "./generalise.js";
import type { Keys } from "./keys.js";
import type { DraftCode, DraftPart } from "./model.js";

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
    const isMoved = sameOn(instance, keys);
    const general = isMoved ? undefined : widest(instance, keys);
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
    let tried = 0;
    const at = groups.findIndex((other) => {
      if (tried >= MOST_TRIED || !mayBeTogether(other, one)) return false;
      tried++;
      return together(other, one, keys) !== undefined;
    });
    if (at < 0) groups.push(one);
    else groups[at] = together(groups[at]!, one, keys)!;
  }
  return { groups: groups.sort((a, b) => b.instances.length - a.instances.length), unexplained };
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

/** Numbers say little of what an edit is about. */
const signsOf = ({ texts, parts }: DraftCode): string[] => [
  ...(texts.join(" ").match(/[\p{L}_][\p{L}\p{N}_]*|[^\s\p{L}\p{N}_,;()[\]{}.]+/gu) ?? []),
  ...parts.flatMap((part) => (part.is === "need" ? [part.wanted.name ?? part.wanted.module] : [])),
];

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
  const most = Math.max(constants(a.general.was), constants(b.general.was));
  if (constants(general.was) < most * LEFT || constants(general.was) === 0) return undefined;
  const parts = [a, b].flatMap((one) => one.parts ?? [one]);
  return { instances: [...a.instances, ...b.instances], general, parts };
}

/** How many words and signs of code are no holes; brackets and commas do not count. */
function constants(code: DraftCode): number {
  return signsOf(code).length;
}

/** Code with its holes by numbers, to be compared. */
export function written(code: DraftCode, seen = new Map<unknown, number>()): string {
  const number = (what: unknown): number => {
    if (!seen.has(what)) seen.set(what, seen.size);
    return seen.get(what)!;
  };
  const of = (part: DraftPart): string => {
    if (part.is === "hole") return `<${number(part.hole)}>`;
    if (part.is === "fresh") return `<new ${number(part.fresh)}>`;
    if (part.is === "need") return `<${part.wanted.module}.${part.wanted.name ?? ""}>`;
    const pieces = part.pieces.map(
      ({ pattern, becomes }) => `${written(pattern, seen)}→${written(becomes, seen)}`,
    );
    return `<${number(part.hole)} with ${pieces.join("; ")}>`;
  };
  return code.texts
    .map((text, i) => (i === 0 ? "" : of(code.parts[i - 1]!)) + text.replace(/\s+/g, " "))
    .join("");
}
