import { existsSync, readFileSync } from "node:fs";
import { basename, join } from "node:path";
import { editsFor, errorsIn, hashText } from "../engine/index.js";
import {
  changeDecisions,
  decode,
  insideRoot,
  isSource,
  loadDecisions,
  Problem,
  type Project,
} from "../node/index.js";
import {
  CHANGE_DECISIONS,
  linesFor,
  linesOfChange,
  makeDesk,
  pathsOf,
  PLACE_DECISIONS,
  plannedText,
  select,
  SET_ASIDE,
  standingsOf,
  withSaid,
  withText,
  type Decision,
  type Desk,
  type DeskRule,
  ProofReader,
  type Plan,
  type PlanChange,
  type ProofOfChange,
  type Said,
  type Selection,
  type Standings,
  type Wish,
} from "../plan/index.js";
import type { SetAside } from "../prove/index.js";
import { loadProof } from "../prove/stored.js";
import type { Edit } from "../rewrite/index.js";
import type { Rule } from "../rules/index.js";

/** Somebody else has decided meanwhile. */
export class DecidedMeanwhile extends Problem {
  constructor(readonly ids: readonly string[]) {
    super(
      `Somebody else has decided meanwhile about ${ids.length === 1 ? "this change" : `${ids.length} of these changes`}. Look again.`,
      1,
    );
  }
}

/** Of what is different, how much goes into a note. */
const LINES_NOTED = 8;
const LONGEST_NOTE = 10_000;

/** A plan, the texts it was made for, and what is decided about it: what pages and terminals review. */
export class Review {
  readonly #root: string;
  readonly #rules: readonly Rule[];
  readonly #leaveOut: readonly string[];
  #proof: { readonly reader: ProofReader | undefined } | undefined;
  readonly #texts = new Map<string, string | undefined>();

  constructor(
    { root, allRules, leaveOut }: Pick<Project, "root" | "allRules" | "leaveOut">,
    readonly plan: Plan,
  ) {
    this.#root = root;
    this.#rules = allRules;
    this.#leaveOut = leaveOut;
  }

  /** The text of a file as the plan knows it; undefined where the file has other text now. */
  readonly textOf = (path: string): string | undefined => {
    if (!this.#texts.has(path)) {
      const text = this.#read(path);
      const expected = this.plan.files[path];
      const isOther = text !== undefined && expected !== undefined && hashText(text) !== expected;
      this.#texts.set(path, isOther ? undefined : text);
    }
    return this.#texts.get(path);
  };

  /** The files that have other text than the plan was made for. */
  outdated(): string[] {
    this.#texts.clear();
    return Object.keys(this.plan.files).filter((path) => this.textOf(path) === undefined);
  }

  /** The files of a change that have other text now than the plan was made for; looked at anew. */
  outdatedOf(change: PlanChange): string[] {
    for (const path of pathsOf(change)) this.#texts.delete(path);
    return this.#outdatedOf(change);
  }

  #outdatedOf(change: PlanChange): string[] {
    return pathsOf(change).filter((path) => this.textOf(path) === undefined);
  }

  /**
   * All that a change does to its own file, its imports too, which depend on what else the file holds; only its own edits
   * where these cannot be written.
   */
  async edits(change: PlanChange): Promise<readonly Edit[]> {
    const text = this.textOf(change.path);
    if (text === undefined) return change.edits;
    try {
      return await editsFor(change.path, text, [change]);
    } catch {
      return change.edits; // apply says what is wrong; here the change is shown without
    }
  }

  decisions(): Decision[] {
    return loadDecisions(this.#root);
  }

  standings(decisions: readonly Decision[] = this.decisions()): Standings {
    return standingsOf(this.plan, decisions, { textOf: this.textOf, isThere: this.#isThere });
  }

  /** What to write of the plan. */
  select(wish: Wish): Selection {
    const selection = select(this.plan, this.standings(), wish, this.textOf);
    if (!wish.onlyProven) return selection;
    const isProven = (change: PlanChange): boolean => this.proof(change)?.passed === true;
    const unproven = selection.chosen.filter((change) => !isProven(change));
    return {
      chosen: selection.chosen.filter(isProven),
      left: [...unproven.map((change) => ({ change, why: this.#whyUnproven(change) })), ...selection.left],
    };
  }

  /**
   * Stores what was said; all of it or nothing. Throws a Problem for what the plan does not have, for text by hand that
   * does not parse, and a DecidedMeanwhile where somebody else was faster. Gives all decisions.
   */
  async decide(said: readonly Said[]): Promise<Decision[]> {
    const changes = new Map(this.plan.changes.map((change) => [change.id, change]));
    const places = new Map([...this.plan.heldBack, ...this.plan.advice].map((place) => [place.id, place]));
    // A file may have changed just now.
    for (const { id } of said)
      for (const path of changes.has(id) ? pathsOf(changes.get(id)!) : []) this.#texts.delete(path);
    for (const one of said) {
      const isChange = changes.has(one.id);
      if (!isChange && !places.has(one.id))
        throw new Problem(`The plan has no change and no place with the id ${one.id}.`);
      const possible: readonly string[] = isChange ? CHANGE_DECISIONS : PLACE_DECISIONS;
      if (one.decision !== undefined && !possible.includes(one.decision))
        throw new Problem(
          `"${one.decision}" cannot be said of ${one.id}. It can be: ${possible.join(", ")}.`,
        );
      const outdated = changes.has(one.id) ? this.#outdatedOf(changes.get(one.id)!) : [];
      if (outdated.length > 0 && one.decision !== undefined)
        throw new Problem(
          `${outdated.join(", ")} has changed since the plan was made. Make the plan anew before you decide about it.`,
          1,
        );
      if (one.edited !== undefined) await this.#checkEdited(one.id, one.edited);
    }
    return changeDecisions(this.#root, (now) => {
      const standings = this.standings(now);
      const taken = said.filter(
        ({ id, saw }) => saw !== undefined && (standings.of(id).decision ?? "none") !== saw,
      );
      if (taken.length > 0) throw new DecidedMeanwhile(taken.map(({ id }) => id));
      return withSaid(now, standings, said, linesFor(this.plan, said, this.textOf));
    });
  }

  /** Marks changes that checks did not stand: "later", with what is different with them. What was noted before stays. */
  setAside(faults: readonly SetAside[]): Promise<Decision[]> {
    const standings = this.standings();
    return this.decide(
      // Of a file that has changed meanwhile nothing is decided.
      faults
        .filter(({ change }) => this.outdatedOf(change).length === 0)
        .map(({ change: { id }, check, lines }) => {
          const { note, edited } = standings.of(id);
          const own = [
            `${SET_ASIDE}: "${check}" is different with this change.`,
            ...lines.slice(0, LINES_NOTED),
          ];
          const before = note === undefined || note.startsWith(SET_ASIDE) ? [] : ["", note];
          return {
            id,
            decision: "later",
            note: [...own, ...before].join("\n").slice(0, LONGEST_NOTE),
            edited,
          };
        }),
    );
  }

  #whyUnproven(change: PlanChange): string {
    const proof = this.proof(change);
    return proof ? `set aside by prove: "${proof.checks.join(", ")}" is different with it` : "not proven";
  }

  /** What the last proof found of a change; undefined where it says nothing of this code. */
  proof(change: PlanChange): ProofOfChange | undefined {
    if (!this.#proof) {
      const stored = loadProof(this.#root);
      this.#proof = { reader: stored && new ProofReader(stored, this.textOf) };
    }
    return this.#proof.reader?.of(change);
  }

  /** All of it as one value, for a page. */
  desk(): Desk {
    const { plan } = this;
    const paths = new Set([
      ...Object.keys(plan.files),
      ...[...plan.heldBack, ...plan.advice].map(({ path }) => path),
      ...plan.heldBack.flatMap(({ atPath }) => atPath ?? []),
      ...[...plan.changes, ...plan.advice].flatMap(({ evidence }) =>
        evidence.flatMap(({ path }) => path ?? []),
      ),
    ]);
    const texts: Record<string, string> = {};
    for (const path of [...paths].sort()) {
      const text = this.textOf(path);
      if (text !== undefined) texts[path] = text;
    }
    const named = new Set([
      ...plan.changes.flatMap((change) => change.rules),
      ...[...plan.heldBack, ...plan.advice].flatMap(({ rule }) => rule.split(" + ")),
    ]);
    const rules = Object.fromEntries(
      this.#rules.filter(({ id }) => named.has(id)).map((rule) => [rule.id, aboutRule(rule)]),
    );
    this.#proof = undefined; // there may be a new one
    const proofs = Object.fromEntries(
      plan.changes.flatMap((change) => {
        const proof = this.proof(change);
        return proof ? [[change.id, proof]] : [];
      }),
    );
    const decisions = this.decisions();
    const gone = [...new Set(decisions.map(({ path }) => path))].filter((path) => !this.#isThere(path));
    return makeDesk({ project: basename(this.#root), plan, texts, rules, decisions, proofs, gone });
  }

  async #checkEdited(id: string, written: string): Promise<void> {
    const change = this.plan.changes.find((one) => one.id === id);
    const text = change && this.textOf(change.path);
    if (!change || text === undefined || !linesOfChange(text, change))
      throw new Problem(`There is nothing in ${change?.path ?? id} to edit by hand. Propose again.`, 1);
    if (/\p{Surrogate}/u.test(written)) throw new Problem("The text has half a character in it.", 1);
    const after = await plannedText(change.path, text, [withText(text, change, written)]);
    if ((await errorsIn(change.path, after)) > (await errorsIn(change.path, text)))
      throw new Problem(`With this text ${change.path} would have a syntax error, so it was not taken.`, 1);
  }

  readonly #isThere = (path: string): boolean => existsSync(join(this.#root, path));

  /** A plan is not trusted: nothing is shown of a file that Uvran would not look at by itself. */
  #read(path: string): string | undefined {
    try {
      if (!isSource(this.#root, path, this.#leaveOut)) return undefined;
      return decode(readFileSync(insideRoot(this.#root, path)));
    } catch {
      return undefined;
    }
  }
}

function aboutRule({ title, why, given = [], trials }: Rule): DeskRule {
  const example = trials.find(({ was, now }) => was !== now);
  return {
    title,
    why,
    given: given.map(({ must }) => must),
    ...(example ? { example: { was: example.was, now: example.now } } : {}),
  };
}
