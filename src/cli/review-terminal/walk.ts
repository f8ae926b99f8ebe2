import { extname } from "node:path";
import { emitKeypressEvents, type Key } from "node:readline";
import { messageOf, Problem } from "../../node/index.js";
import {
  linesOfChange,
  PlanError,
  similar,
  standsAs,
  type Decision,
  type Plan,
  type PlanChange,
  type Said,
  type Standings,
} from "../../plan/index.js";
import { paintStanding, plural, shownPath, standingWord } from "../../report/index.js";
import type { Review, Workspace } from "../../workspace/index.js";
import { paintFor } from "../terminal.js";
import { ask, inEditor } from "./asking.js";
import { changeScreen, placeScreen, plain, type Place } from "./screen.js";

const KEYS: readonly (readonly [string, string])[] = [
  ["k", "keep this change, go on to the next that is open"],
  ["d", "drop it"],
  ["l", "leave it for later"],
  ["u", "take back what was decided last"],
  ["x", "take back what is decided about this one"],
  ["e", "edit the new lines in your editor"],
  ["n", "write a note; the next decision takes it along"],
  ["s", "decide all that are like this one"],
  ["j, down", "next"],
  ["i, up", "previous"],
  ["o", "next that is not decided"],
  ["r", "what the rule is about"],
  ["p", "propose again, and keep what is decided"],
  ["t", "changes, or held-back places and advice"],
  ["h, a", "held-back places: done by hand, or leave as it is"],
  ["?", "these keys"],
  ["q", "end; what is decided is stored"],
];

/**
 * Goes through a review in a terminal, one change after another. Text is only ever added below, so that it can be read aloud
 * and scrolled back; the width is asked for anew each time.
 */
export class TerminalWalk {
  readonly #paint = paintFor(process.stdout);
  #review: Review;
  #changes: readonly PlanChange[] = [];
  #places: readonly Place[] = [];
  #standings: Standings;
  #at = 0;
  #ofPlaces = false;
  #note = "";
  /** What stood before each thing that was said, the last at the end. */
  readonly #before: Said[][] = [];
  #end: () => void = () => undefined;
  #isAsking = false;
  /** Does the question stand at the end of what was printed? */
  #isPrompted = false;

  /** `meant` chooses among the changes of a plan. */
  constructor(
    readonly workspace: Workspace,
    review: Review,
    readonly meant: (plan: Plan) => readonly PlanChange[],
  ) {
    this.#review = review;
    this.#standings = review.standings();
    this.#open(review);
  }

  get review(): Review {
    return this.#review;
  }

  #open(review: Review): void {
    const { plan } = review;
    this.#review = review;
    this.#changes = this.meant(plan);
    this.#places = [...plan.heldBack, ...plan.advice];
    this.#standings = review.standings();
    this.#ofPlaces = false;
    this.#at = Math.max(
      this.#changes.findIndex(({ id }) => this.#isOpen(id)),
      0,
    );
  }

  /** Resolves when the reader ends it, or the terminal is gone. */
  async run(): Promise<void> {
    if (this.#entries.length === 0) return this.#say("There is no change to review.");
    const { stdin, stdout } = process;
    emitKeypressEvents(stdin);
    stdin.setRawMode(true);
    let working = Promise.resolve();
    const press = (text: string | undefined, key: Key): void => {
      if (this.#isAsking) return;
      working = working.then(() => this.#press(text, key)).catch((error: unknown) => this.#fail(error));
    };
    const redraw = (): void => {
      if (this.#isAsking) return;
      working = working.then(() => this.#show()).catch((error: unknown) => this.#fail(error));
    };
    const ended = new Promise<void>((resolve) => (this.#end = resolve));
    stdin.on("keypress", press);
    stdin.once("end", this.#end);
    stdout.on("resize", redraw);
    redraw();
    await ended;
    await working;
    stdin.off("keypress", press);
    stdout.off("resize", redraw);
    stdin.setRawMode(false);
    stdin.pause();
    stdout.write("\n");
  }

  get #entries(): readonly { readonly id: string }[] {
    return this.#ofPlaces ? this.#places : this.#changes;
  }

  get #change(): PlanChange | undefined {
    return this.#ofPlaces ? undefined : this.#changes[this.#at];
  }

  async #press(text: string | undefined, { name, ctrl }: Key): Promise<void> {
    if (ctrl && (name === "c" || name === "d")) return this.#end();
    const key = text === "?" ? "?" : (name ?? text ?? "").toLowerCase();
    const steps: Readonly<Record<string, () => unknown>> = {
      j: () => this.#go(this.#at + 1),
      down: () => this.#go(this.#at + 1),
      i: () => this.#go(this.#at - 1),
      up: () => this.#go(this.#at - 1),
      o: () => this.#go(this.#nextOpen() ?? this.#at),
      u: () => this.#takeBack(),
      x: () => this.#sayAll([{ id: this.#entries[this.#at]!.id }], "open again"),
      n: () => this.#askNote(),
      p: () => this.#propose(),
      t: () => this.#turn(),
      "?": () => this.#help(),
      q: () => this.#end(),
      ...(this.#ofPlaces
        ? { h: () => this.#decide("done"), a: () => this.#decide("leave") }
        : {
            k: () => this.#decide("keep"),
            d: () => this.#decide("drop"),
            l: () => this.#decide("later"),
            e: () => this.#edit(),
            s: () => this.#similar(),
            r: () => this.#rule(),
          }),
    };
    if (Object.hasOwn(steps, key)) await steps[key]!();
  }

  /** What cannot be done is said, and the walk goes on; a fault ends it. */
  #fail(error: unknown): void {
    this.#say(this.#paint.red(messageOf(error)));
    if (error instanceof Problem || error instanceof PlanError) this.#prompt();
    else this.#end();
  }

  async #show(): Promise<void> {
    const entry = this.#entries[this.#at];
    if (!entry) return;
    const { bold } = this.#paint;
    const count = `${this.#at + 1} of ${this.#entries.length}`;
    const open = this.#entries.filter(({ id }) => this.#isOpen(id)).length;
    this.#say("", bold(`${this.#ofPlaces ? "Place" : "Change"} ${count}, ${open} open`));
    const change = this.#change;
    if (change)
      this.#say(...(await changeScreen(this.#review, change, this.#standings.of(change.id), this.#paint)));
    else this.#say(...placeScreen(this.#review, entry as Place, this.#paint));
    this.#prompt();
  }

  #prompt(): void {
    const entry = this.#entries[this.#at];
    if (!entry) return;
    const standing = this.#standings.of(entry.id);
    const word = paintStanding(this.#paint, standing)(standingWord(standing));
    const why = standing.misfit === undefined ? "" : ` (${standing.misfit})`;
    const notes = [standing.note, this.#note === "" ? undefined : `next note: ${this.#note}`];
    for (const note of notes) if (note !== undefined) this.#say(`  "${note}"`);
    const keys = this.#ofPlaces
      ? "h done by hand, a leave, j next, t changes, ? keys, q end"
      : "k keep, d drop, l later, e edit, j next, ? keys, q end";
    process.stdout.write(plain(`  ${word}${why} [${keys}] `));
    this.#isPrompted = true;
  }

  /** Says what comes of a key, beside the question. */
  #answer(text: string): void {
    process.stdout.write(`${plain(text)}\n`);
    this.#isPrompted = false;
  }

  #say(...lines: readonly string[]): void {
    if (this.#isPrompted) process.stdout.write("\n");
    this.#isPrompted = false;
    for (const line of lines) process.stdout.write(`${plain(line)}\n`);
  }

  #isOpen(id: string): boolean {
    return ["open", "again"].includes(standsAs(this.#standings.of(id)));
  }

  #nextOpen(): number | undefined {
    const count = this.#entries.length;
    const order = Array.from({ length: count - 1 }, (_, i) => (this.#at + 1 + i) % count);
    return order.find((i) => this.#isOpen(this.#entries[i]!.id));
  }

  async #go(to: number): Promise<void> {
    this.#at = Math.min(Math.max(to, 0), this.#entries.length - 1);
    await this.#show();
  }

  async #propose(): Promise<void> {
    this.#answer("proposing again");
    this.#open(await this.workspace.proposeAgain(this.#review.plan));
    if (this.#changes.length > 0) return this.#show();
    this.#say("There is nothing to review any more.");
    this.#end();
  }

  async #turn(): Promise<void> {
    if (!this.#ofPlaces && this.#places.length === 0) {
      this.#say("Nothing was held back, and there is no advice.");
      return this.#prompt();
    }
    this.#ofPlaces = !this.#ofPlaces;
    return this.#go(0);
  }

  async #decide(decision: Decision["decision"], edited?: string): Promise<void> {
    const { id } = this.#entries[this.#at]!;
    const { note, edited: before } = this.#standings.of(id);
    const text = edited ?? (decision === "keep" ? before : undefined);
    await this.#sayAll(
      [
        {
          id,
          decision,
          saw: this.#seen(id),
          ...this.#noted(note),
          ...(text === undefined ? {} : { edited: text }),
        },
      ],
      decision,
    );
  }

  /** What stands here for a change, so that what somebody else said meanwhile is not written over. */
  #seen(id: string): Said["saw"] {
    const { decision, misfit } = this.#standings.of(id);
    return misfit === undefined ? (decision ?? "none") : undefined;
  }

  #noted(old?: string): { note?: string } {
    const note = this.#note || old;
    return note === undefined || note === "" ? {} : { note };
  }

  async #sayAll(said: readonly Said[], word: string): Promise<void> {
    const old = said.map(({ id }): Said => {
      const { decision, note, edited } = this.#standings.of(id);
      return { id, decision, note, edited };
    });
    try {
      await this.#review.decide(said);
    } finally {
      this.#standings = this.#review.standings();
    }
    this.#before.push(old);
    this.#note = "";
    this.#answer(said.length === 1 ? word : `${plural(said.length, "change")}: ${word}`);
    const next = this.#nextOpen();
    if (next === undefined) this.#say("", this.#paint.bold("Nothing is open any more. q ends the review."));
    await this.#go(next ?? this.#at);
  }

  async #takeBack(): Promise<void> {
    const last = this.#before.pop();
    if (!last) {
      this.#say("Nothing was decided here yet.");
      return this.#prompt();
    }
    await this.#review.decide(last);
    this.#standings = this.#review.standings();
    this.#answer(last.length === 1 ? "taken back" : `${plural(last.length, "decision")} taken back`);
    const index = this.#entries.findIndex(({ id }) => id === last[0]!.id);
    await this.#go(index < 0 ? this.#at : index);
  }

  async #similar(): Promise<void> {
    const change = this.#change!;
    const others = similar(this.#changes, this.#standings, change);
    if (others.length === 0) {
      this.#say("No other open change is like this one.");
      return this.#prompt();
    }
    this.#say(
      "",
      `${plural(others.length, "other open change")} of this rule with the same evidence, for instance:`,
    );
    for (const { path, line } of [...others].sort(() => Math.random() - 0.5).slice(0, 5))
      this.#say(`  ${shownPath(path)}:${line}`);
    const answer = await this.#asked(`Decide all ${others.length + 1}: keep, drop, later, or nothing? `);
    const decision = (["keep", "drop", "later"] as const).find(
      (one) => answer !== "" && one.startsWith(answer),
    );
    if (!decision) return this.#prompt();
    await this.#sayAll(
      [change, ...others].map(({ id }) => ({ id, decision, saw: this.#seen(id), ...this.#noted() })),
      decision,
    );
  }

  async #askNote(): Promise<void> {
    this.#note = await this.#asked("Note: ");
    this.#prompt();
  }

  async #edit(): Promise<void> {
    const change = this.#change!;
    const text = this.#review.textOf(change.path);
    const lines = text === undefined ? undefined : linesOfChange(text, change);
    if (!lines) throw new Problem("There is nothing here to edit by hand.", 1);
    const before = this.#standings.of(change.id).edited ?? lines.now;
    const written = inEditor(before, extname(change.path));
    if (written === before) {
      this.#say("Nothing was changed.");
      return this.#prompt();
    }
    await this.#decide("keep", written);
  }

  #rule(): void {
    for (const id of this.#change!.rules) {
      const rule = this.workspace.project.allRules.find((one) => one.id === id);
      this.#say(
        "",
        this.#paint.bold(id),
        rule ? `${rule.title}. ${rule.why}` : "It is not among the rules any more.",
      );
      for (const { must } of rule?.given ?? []) this.#say(`  certain when ${must}`);
    }
    this.#prompt();
  }

  #help(): void {
    this.#say("", ...KEYS.map(([key, does]) => `  ${key.padEnd(8)} ${does}`));
    this.#prompt();
  }

  async #asked(question: string): Promise<string> {
    this.#isAsking = true;
    this.#isPrompted = false;
    try {
      return await ask(question);
    } finally {
      this.#isAsking = false;
    }
  }
}
