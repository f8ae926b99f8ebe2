import { singular } from "../rewrite/index.js";
import type { HoleKind, Import, NodeId } from "../syntax/index.js";
import { align, allIn, keyOfParts, nodeOf, type Aligned } from "./aligned.js";
import { codeOf, type Placed } from "./code.js";
import { importedAs, isMember } from "./code-kinds.js";
import { declaredIn, type Instance } from "./instances.js";
import type { Keys } from "./keys.js";
import type { DraftCode, DraftHole, DraftName, DraftPart, DraftPiece } from "./model.js";
import { HoleNames } from "./hole-names.js";
import { regionsBetween } from "./regions.js";
import { kindsFor, mayStandOpen } from "./openness.js";
import { isListKind, listKind, textOfRun, type Run } from "./run.js";
import type { Width } from "./width.js";

/** What is said of a piece of old code for which holes are drafted. */
export interface Opened {
  readonly hole: DraftHole;
  /** The kinds that are to be tried, the likeliest first. */
  readonly kinds: readonly HoleKind[];
  /** How often it stands in the old code, and in the new. */
  readonly times: { readonly before: number; readonly after: number };
  /** A variable that the old code declares. */
  readonly isOwn: boolean;
  /** Statements between others that are rewritten with them. */
  readonly isBetween: boolean;
}

/** Old and new code with holes, out of one instance of an edit or of several. */
export interface Generalised {
  readonly was: DraftCode;
  readonly becomes: DraftCode;
  readonly opened: readonly Opened[];
  readonly fresh: readonly DraftName[];
  readonly needs: readonly Import[];
  /** Without parts that are code: nothing but holes. */
  readonly isBare: boolean;
}

/** What is looked up is the same in every instance, or nothing. */
interface Shared {
  readonly key: string;
  readonly pieces: readonly Aligned[];
}

/**
 * Code with holes that fits all instances on both sides; undefined where something in the new code is not explained by the
 * old. `closed` are pieces, by their keys, that no hole stands for.
 */
export function generalise(
  instances: readonly Instance[],
  width: Width,
  keys: Keys,
): Generalised | undefined {
  const closed = new Set<string>();
  for (let round = 0; round < 30; round++) {
    const attempt = new Attempt(instances, width, keys, closed).work();
    if (attempt === undefined || "was" in attempt) return attempt;
    if (closed.has(attempt.close)) return undefined;
    closed.add(attempt.close);
  }
  return undefined;
}

class Attempt {
  readonly #old: Aligned;
  readonly #now: Aligned;
  readonly #byKey = new Map<string, Shared>();
  /** Runs of the old code's lists, by their keys. */
  readonly #runs = new Map<string, Shared>();
  readonly #holes = new Map<
    string,
    { hole: DraftHole; shared: Shared; after: number; before: number; isOwn: boolean; isBetween: boolean }
  >();
  readonly #fresh = new Map<string, DraftName>();
  readonly #placedNow: Placed[] = [];
  readonly #placedOld: Placed[] = [];
  readonly #names = new HoleNames();
  readonly #declaredNow: ReadonlyMap<string, NodeId>;
  readonly #declaredOld: ReadonlyMap<string, NodeId>;
  readonly #needs: Import[] = [];
  #unexplained = false;
  readonly #each: { hole: DraftHole; pieces: DraftPiece[]; old: Aligned; now: Aligned }[] = [];

  constructor(
    readonly instances: readonly Instance[],
    readonly width: Width,
    readonly keys: Keys,
    readonly closed: ReadonlySet<string>,
  ) {
    this.#old = align(
      instances.map(({ before }) => before),
      keys,
    );
    this.#now = align(
      instances.map(({ after }) => after),
      keys,
    );
    const [first] = instances;
    this.#declaredNow = declaredIn(first!.after);
    this.#declaredOld = declaredIn(first!.before);
    for (const piece of allIn(this.#old)) {
      const known = this.#byKey.get(piece.key);
      if (known) (known.pieces as Aligned[]).push(piece);
      else this.#byKey.set(piece.key, { key: piece.key, pieces: [piece] });
    }
    for (const list of allIn(this.#old)) this.#listRuns(list);
  }

  #listRuns(list: Aligned): void {
    const kind = this.#kindOfList(list, "before");
    if (kind === undefined) return;
    const { parts } = list;
    for (let from = 0; from < parts.length; from++)
      for (let to = parts.length; to > from; to--) {
        const key = keyOfParts(parts.slice(from, to), this.keys);
        if (!this.#runs.has(key)) this.#runs.set(key, { key, pieces: parts.slice(from, to) });
      }
  }

  /** What a piece holds side by side; the outermost may be statements without a node around them. */
  #kindOfList(list: Aligned, side: "before" | "after"): Aligned["list"] {
    if (list.list !== undefined) return list.list;
    const whole = side === "before" ? this.#old : this.#now;
    if (list !== whole || nodeOf(list) !== undefined) return undefined;
    const { tree, nodes } = this.instances[0]![side];
    const parent = nodes[0] === undefined ? -1 : tree.parents[nodes[0]]!;
    return parent < 0 ? undefined : listKind(tree, parent);
  }

  work(): Generalised | { close: string } | undefined {
    this.#walkNow(this.#now);
    if (this.#unexplained) return undefined;
    this.#walkOld(this.#old);
    // A hole inside another one stands for nothing of its own: the outer one is opened.
    for (const { hole, shared, before } of this.#holes.values()) {
      if (before > 0) continue;
      const outer = [...this.#holes.entries()].find(
        ([, other]) =>
          other.hole !== hole &&
          other.before > 0 &&
          other.shared.pieces.some((piece) =>
            shared.pieces.some((inner) => holdsPiece(piece, inner) && piece.key !== inner.key),
          ),
      );
      return outer ? { close: outer[0] } : undefined;
    }
    const [first] = this.instances;
    for (const each of this.#each) if (!this.#fillEach(each)) return undefined;
    const was = codeOf(first!.before, this.#placedOld);
    const becomes = codeOf(first!.after, this.#placedNow);
    const opened = [...this.#holes.values()].map(
      ({ hole, shared, before, after, isOwn, isBetween }): Opened => ({
        hole,
        kinds: isListKind(hole.kind) ? [hole.kind] : kindsFor(shared.pieces[0]!, isOwn, this.width),
        times: { before, after },
        isOwn,
        isBetween,
      }),
    );
    return {
      was,
      becomes,
      opened,
      fresh: [...this.#fresh.values()],
      needs: this.#needs,
      isBare:
        !/[\p{L}\p{N}_]|[^\s\p{L}\p{N}_;,(){}[\]]/u.test(was.texts.join("")) &&
        was.parts.every(({ is }) => is === "hole"),
    };
  }

  #walkNow(now: Aligned): void {
    const shared = this.#byKey.get(now.key);
    const node = nodeOf(now);
    if (shared && node !== undefined && this.#mayOpen(shared)) {
      this.#placeNow(now.runs[0]!, this.#holeFor(shared));
      return;
    }
    const kind = this.#kindOfList(now, "after");
    if (kind !== undefined && now.parts.length > 0) {
      this.#walkList(now, kind);
      return;
    }
    if (now.parts.length === 0) this.#leafNow(now);
    for (const part of now.parts) this.#walkNow(part);
  }

  /** A list of the new code: runs that stand in the old code too, and the items between them. */
  #walkList(now: Aligned, kind: NonNullable<Aligned["list"]>): void {
    const { parts } = now;
    const isWhole = (run: readonly Aligned[]): boolean => run.length === parts.length;
    for (let from = 0; from < parts.length;) {
      let to = parts.length;
      let found: Shared | undefined;
      for (; to > from; to--) {
        const run = parts.slice(from, to);
        const shared = this.#runs.get(keyOfParts(run, this.keys));
        if (!shared || this.closed.has(shared.key)) continue;
        const differs = run.some((part) => part.differs && part.runs.some(({ nodes }) => nodes.length !== 1));
        const wanted =
          kind === "statements" || kind === "members"
            ? !this.#isOutermost(shared)
            : isWhole(run) && run.length > 1 && this.width === "wide";
        if (wanted || differs) {
          found = shared;
          break;
        }
      }
      if (found) {
        const run = parts.slice(from, to);
        const all = { tree: run[0]!.runs[0]!.tree, nodes: run.flatMap(({ runs }) => runs[0]!.nodes) };
        this.#placeNow(all, this.#holeFor(found, kind));
        from = to;
      } else if (kind === "statements" && from === 0 && this.#startEach(now)) return;
      else this.#walkNow(parts[from++]!);
    }
  }

  /** Is a run all that the old code is? A pattern is more than a list. */
  #isOutermost({ pieces }: Shared): boolean {
    return nodeOf(this.#old) === undefined
      ? pieces.length === this.#old.parts.length && pieces[0] === this.#old.parts[0]
      : pieces.length === 1 && pieces[0] === this.#old;
  }

  /** Statements that are those of the old code but for pieces inside. */
  #startEach(now: Aligned): boolean {
    for (const old of allIn(this.#old)) {
      if (old.list !== "statements" || old === this.#old || old.parts.length !== now.parts.length) continue;
      const key = keyOfParts(old.parts, this.keys);
      if (this.#holes.has(key)) continue;
      const [before, after] = [old.runs[0]!, now.runs[0]!];
      const regions = regionsWithin(before, after, this.keys);
      if (regions.length === 0 || regions.length > 12) continue;
      if (regions.some(({ before, after }) => before.nodes.length !== 1 || after.nodes.length !== 1))
        continue;
      // Where all of it has changed, nothing is carried over.
      const size = regions.reduce((sum, region) => sum + textOfRun(region.before).length, 0);
      if (size === textOfRun(before).length) continue;
      const shared = this.#runs.get(key) ?? { key, pieces: old.parts };
      const { hole } = this.#holeFor(shared, "statements");
      this.#each.push({ hole, pieces: [], old, now });
      const all = { tree: after.tree, nodes: now.parts.flatMap(({ runs }) => runs[0]!.nodes) };
      this.#holes.get(key)!.after++;
      this.#placedNow.push({ run: all, part: { is: "each", hole, pieces: this.#each.at(-1)!.pieces } });
      return true;
    }
    return false;
  }

  /** What changes inside a hole's code, once all holes are known. */
  #fillEach({ old, now, pieces }: { old: Aligned; now: Aligned; pieces: DraftPiece[] }): boolean {
    const seen = new Set<string>();
    for (const { before, after } of regionsWithin(old.runs[0]!, now.runs[0]!, this.keys)) {
      const text = `${textOfRun(before)} → ${textOfRun(after)}`;
      if (seen.has(text)) continue;
      seen.add(text);
      const pattern = codeOf(before, this.#knownIn(before));
      const becomes = codeOf(after, this.#knownIn(after));
      if (pattern.parts.length === 0) return false;
      pieces.push({ pattern, becomes });
    }
    return true;
  }

  /** The places in a run for which a hole or a new name is known. */
  #knownIn({ tree, nodes }: Run): Placed[] {
    const found: Placed[] = [];
    const visit = (n: NodeId): void => {
      const key = this.keys.of(tree, n);
      const known = [...this.#holes.values()].find(
        ({ shared, hole }) => !isListKind(hole.kind) && Number(shared.key.split(" ")[0]) === key,
      );
      const text = tree.textOf(n);
      const fresh = tree.isLeaf(n) ? this.#fresh.get(text) : undefined;
      if (known) found.push({ run: { tree, nodes: [n] }, part: { is: "hole", hole: known.hole } });
      else if (fresh) found.push({ run: { tree, nodes: [n] }, part: { is: "fresh", fresh } });
      else for (const child of tree.children(n)) visit(child);
    };
    for (const n of nodes) visit(n);
    return found;
  }

  /** A name, a literal or a place where the instances differ, in the new code. */
  #leafNow(now: Aligned): void {
    const { tree, nodes } = now.runs[0]!;
    const [node] = nodes;
    if (node === undefined) {
      this.#unexplained ||= now.differs;
      return;
    }
    const text = tree.textOf(node);
    const isName = tree.isLeaf(node) && tree.language.binding.leaves[tree.kind(node)] !== undefined;
    if (isName && (this.#fresh.has(text) || this.#isNew(text))) {
      this.#placeNow(now.runs[0]!, { is: "fresh", fresh: this.#freshFor(now, text) });
      return;
    }
    if (now.differs) {
      this.#unexplained = true;
      return;
    }
    const wanted = isName ? importedAs(tree, node) : undefined;
    if (wanted) this.#placeNow(now.runs[0]!, this.#need(wanted));
  }

  #need(wanted: Import): DraftPart {
    const known = this.#needs.find(({ module, name }) => module === wanted.module && name === wanted.name);
    if (!known) this.#needs.push(wanted);
    return { is: "need", wanted: known ?? wanted, name: this.#names.forNeed(known ?? wanted) };
  }

  /** Is this a name that the new code declares, and that the old code does not have? */
  #isNew(name: string): boolean {
    if (!this.#declaredNow.has(name)) return false;
    const { tree, nodes } = this.instances[0]!.before;
    return !nodes.some((n) => tree.node(n).mentions(name).length > 0);
  }

  #freshFor({ runs }: Aligned, name: string): DraftName {
    let known = this.#fresh.get(name);
    if (!known) {
      const texts = runs.map(({ tree, nodes }) => tree.textOf(nodes[0]!));
      const singularOf = [...this.#byKey.values()].find(({ pieces: [piece] }) =>
        piece!.runs.every((run, i) => run.nodes.length === 1 && singular(textOfRun(run)) === texts[i]),
      );
      const open = singularOf && this.#mayOpen(singularOf) ? this.#holeFor(singularOf).hole : undefined;
      this.#fresh.set(name, (known = { name, singularOf: open }));
    }
    return known;
  }

  #placeNow(run: Run, part: DraftPart): void {
    this.#placedNow.push({ run, part });
    if (part.is !== "hole") return;
    const known = [...this.#holes.values()].find(({ hole }) => hole === part.hole)!;
    known.after++;
  }

  /** Old code from the top: what has a hole, what differs, what is arbitrary. */
  #walkOld(old: Aligned): void {
    const node = nodeOf(old);
    const known = node === undefined || old === this.#old ? undefined : this.#holes.get(old.key);
    if (known) {
      this.#placeOld(old.runs[0]!, known);
      known.isOwn ||= this.#isOwn(old);
      return;
    }
    const kind = this.#kindOfList(old, "before");
    if (kind !== undefined && old.parts.length > 0) {
      this.#walkOldList(old, kind);
      return;
    }
    if (old.parts.length === 0) {
      this.#leafOld(old);
      return;
    }
    for (const part of old.parts) this.#walkOld(part);
  }

  #walkOldList(old: Aligned, kind: NonNullable<Aligned["list"]>): void {
    const { parts } = old;
    for (let from = 0; from < parts.length;) {
      let to = parts.length;
      for (; to > from; to--) {
        const key = keyOfParts(parts.slice(from, to), this.keys);
        const known = this.#holes.get(key);
        // A piece that is no list has its place as a piece.
        if (!known || (to - from === 1 && !isListKind(known.hole.kind))) continue;
        const run = parts.slice(from, to);
        const all = { tree: run[0]!.runs[0]!.tree, nodes: run.flatMap(({ runs }) => runs[0]!.nodes) };
        this.#placeOld(all, known);
        known.isOwn ||= to - from === 1 && this.#isOwn(run[0]!);
        known.isBetween ||= kind === "statements" && to < parts.length;
        break;
      }
      if (to > from) from = to;
      else {
        const part = parts[from++]!;
        if (part.differs && nodeOf(part) === undefined && part.parts.length === 0) {
          if (part.runs[0]!.nodes.length === 0) this.#unexplained = true;
          const shared = { key: part.key, pieces: [part] };
          this.#holeFor(shared, kind);
          this.#placeOld(part.runs[0]!, this.#holes.get(part.key)!);
        } else this.#walkOld(part);
      }
    }
  }

  #leafOld(old: Aligned): void {
    const { tree, nodes } = old.runs[0]!;
    const [node] = nodes;
    if (node === undefined) return;
    const text = tree.textOf(node);
    const isName = tree.isLeaf(node) && tree.language.binding.leaves[tree.kind(node)] !== undefined;
    const isOwn = isName && this.#declaredOld.has(text) && !isMember(tree, node);
    if (old.differs || (isOwn && !this.closed.has(old.key))) {
      const shared = this.#byKey.get(old.key)!;
      this.#holeFor(shared);
      const known = this.#holes.get(old.key)!;
      known.isOwn ||= isOwn;
      this.#placeOld(old.runs[0]!, known);
      return;
    }
    const wanted = isName ? importedAs(tree, node) : undefined;
    if (wanted) this.#placedOld.push({ run: old.runs[0]!, part: this.#need(wanted) });
  }

  /** Is this the name of a variable that the old code declares? */
  #isOwn({ runs: [run] }: Aligned): boolean {
    const { tree, nodes } = run!;
    const [node] = nodes;
    if (node === undefined || nodes.length > 1 || !tree.isLeaf(node)) return false;
    return this.#declaredOld.has(tree.textOf(node)) && !isMember(tree, node);
  }

  #placeOld(run: Run, known: { hole: DraftHole; before: number }): void {
    known.before++;
    if (run.nodes.length > 0) this.#placedOld.push({ run, part: { is: "hole", hole: known.hole } });
  }

  #holeFor(shared: Shared, list?: NonNullable<Aligned["list"]>): Extract<DraftPart, { is: "hole" }> {
    let known = this.#holes.get(shared.key);
    if (!known) {
      const run = shared.pieces[0]!.runs[0]!;
      const hole: DraftHole = { name: this.#names.forRun(run, list), kind: list ?? "expression" };
      known = { hole, shared, after: 0, before: 0, isOwn: false, isBetween: false };
      this.#holes.set(shared.key, known);
    }
    return { is: "hole", hole: known.hole };
  }

  /** May a hole stand for this, by what it is and how wide the draft is to be? */
  #mayOpen({ key, pieces: [piece] }: Shared): boolean {
    return !this.closed.has(key) && piece !== this.#old && mayStandOpen(piece!, this.width);
  }
}

function holdsPiece(outer: Aligned, inner: Aligned): boolean {
  const [a, b] = [outer.runs[0]!, inner.runs[0]!];
  if (a.nodes.length === 0 || b.nodes.length === 0) return false;
  return a.nodes[0]! <= b.nodes[0]! && b.nodes.at(-1)! < a.tree.after[a.nodes.at(-1)!]!;
}

function regionsWithin(before: Run, after: Run, keys: Keys) {
  return regionsBetween(before.tree, after.tree, keys, before.nodes[0]!, after.nodes[0]!).regions;
}
