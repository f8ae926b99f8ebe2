import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { extname, join } from "node:path";
import { createInterface, emitKeypressEvents, type Key } from "node:readline";
import { messageOf, Problem } from "../node/index.js";
import {
  linesOfChange,
  PlanError,
  similar,
  standsAs,
  withText,
  type Decision,
  type Plan,
  type PlanChange,
  type Said,
  type Standings,
} from "../plan/index.js";
import {
  changeText,
  elsewhereLines,
  paintStanding,
  placeBehind,
  plural,
  shownPath,
  standingWord,
} from "../report/index.js";
import type { Review, Workspace } from "../workspace/index.js";
import { paintFor } from "./terminal.js";

type Place = Plan["heldBack"][number] | Plan["advice"][number];

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
const NARROWEST = 40;

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
    const redraw = (): void => void (this.#isAsking || this.#show());
    const ended = new Promise<void>((resolve) => (this.#end = resolve));
    stdin.on("keypress", press);
    stdin.once("end", this.#end);
    stdout.on("resize", redraw);
    this.#show();
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

  get #width(): number {
    return Math.max(process.stdout.columns || 80, NARROWEST);
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

  #show(): void {
    const entry = this.#entries[this.#at];
    if (!entry) return;
    const { bold } = this.#paint;
    const count = `${this.#at + 1} of ${this.#entries.length}`;
    const open = this.#entries.filter(({ id }) => this.#isOpen(id)).length;
    this.#say("", bold(`${this.#ofPlaces ? "Place" : "Change"} ${count}, ${open} open`));
    const change = this.#change;
    if (change) this.#showChange(change);
    else this.#showPlace(entry as Place);
    this.#prompt();
  }

  #showChange(change: PlanChange): void {
    const textOf = (path: string): string => this.#review.textOf(path) ?? "";
    const { edited } = this.#standings.of(change.id);
    const text = textOf(change.path);
    const { edits } = edited === undefined ? change : withText(text, change, edited);
    const body = { ...change, cautions: [] };
    this.#say(changeText(body, text, text === "" ? [] : edits, this.#paint, this.#width));
    if (change.elsewhere.every(({ path }) => textOf(path) !== ""))
      this.#say(...elsewhereLines(change, textOf, this.#paint));
    const outdated = this.#review.outdatedOf(change).map(shownPath).join(", ");
    if (outdated !== "") this.#say(this.#paint.yellow(`  ! ${outdated} has changed since; p proposes again`));
    // What must not be overlooked stands last, beside the question.
    for (const caution of change.cautions) {
      const where = placeBehind(caution, change.line);
      this.#say(this.#paint.yellow(`  ! CAUTION: ${caution.says}${where} · ${caution.code}`));
    }
  }

  #showPlace(place: Place): void {
    const { path, line, rule, range } = place;
    this.#say(`${this.#paint.bold(`${shownPath(path)}:${line}`)}  ${rule}`);
    const lines = (this.#review.textOf(path) ?? "").split("\n");
    const last = Math.min(range.end.line, range.start.line + 12);
    for (let i = Math.max(range.start.line - 2, 1); i <= Math.min(last + 2, lines.length); i++) {
      const shown = `    ${String(i).padStart(5)}  ${lines[i - 1] ?? ""}`;
      this.#say(i >= range.start.line && i <= last ? this.#paint.bold(shown) : this.#paint.dim(shown));
    }
    if ("reason" in place) {
      const where = placeBehind({ line: place.at, path: place.atPath }, line);
      this.#say(`  held back: ${place.reason}${where} · ${place.code}`);
    } else this.#say(`  advice: ${place.says}`);
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
    process.stdout.write(this.#plain(`  ${word}${why} [${keys}] `));
    this.#isPrompted = true;
  }

  /** Says what comes of a key, beside the question. */
  #answer(text: string): void {
    process.stdout.write(`${this.#plain(text)}\n`);
    this.#isPrompted = false;
  }

  #say(...lines: readonly string[]): void {
    if (this.#isPrompted) process.stdout.write("\n");
    this.#isPrompted = false;
    for (const line of lines) process.stdout.write(`${this.#plain(line)}\n`);
  }

  /** The same without signs that only some terminals have, and with control characters shown. */
  #plain(text: string): string {
    const safe = text.replace(
      /\u001b(?!\[[\d;]*m)|[\u0000-\u0008\u000b-\u001a\u001c-\u001f\u007f-\u009f]/g,
      "?",
    );
    return HAS_UNICODE
      ? safe
      : safe.replace(/[✓✗·…→—]/g, (sign) => ASCII[sign]!).replace(/[^\u0000-\u007f]/g, "?");
  }

  #isOpen(id: string): boolean {
    return ["open", "again"].includes(standsAs(this.#standings.of(id)));
  }

  #nextOpen(): number | undefined {
    const count = this.#entries.length;
    const order = Array.from({ length: count - 1 }, (_, i) => (this.#at + 1 + i) % count);
    return order.find((i) => this.#isOpen(this.#entries[i]!.id));
  }

  #go(to: number): void {
    this.#at = Math.min(Math.max(to, 0), this.#entries.length - 1);
    this.#show();
  }

  async #propose(): Promise<void> {
    this.#answer("proposing again");
    this.#open(await this.workspace.proposeAgain(this.#review.plan));
    if (this.#changes.length > 0) return this.#show();
    this.#say("There is nothing to review any more.");
    this.#end();
  }

  #turn(): void {
    if (!this.#ofPlaces && this.#places.length === 0) {
      this.#say("Nothing was held back, and there is no advice.");
      return this.#prompt();
    }
    this.#ofPlaces = !this.#ofPlaces;
    this.#go(0);
  }

  async #decide(decision: Decision["decision"], edited?: string): Promise<void> {
    const { id } = this.#entries[this.#at]!;
    const { note, edited: before } = this.#standings.of(id);
    const text = edited ?? (decision === "keep" ? before : undefined);
    const saw = standsAs(this.#standings.of(id));
    await this.#sayAll(
      [
        {
          id,
          decision,
          ...(saw === "again" ? {} : { saw: saw === "open" ? "none" : saw }),
          ...this.#noted(note),
          ...(text === undefined ? {} : { edited: text }),
        },
      ],
      decision,
    );
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
    this.#go(next ?? this.#at);
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
    this.#go(index < 0 ? this.#at : index);
  }

  async #similar(): Promise<void> {
    const change = this.#change!;
    const others = similar(this.#review.plan, this.#standings, change);
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
    const answer = await this.#ask(`Decide all ${others.length + 1}: keep, drop, later, or nothing? `);
    const decision = (["keep", "drop", "later"] as const).find(
      (one) => answer !== "" && one.startsWith(answer),
    );
    if (!decision) return this.#prompt();
    await this.#sayAll(
      [change, ...others].map(({ id }) => ({ id, decision, ...this.#noted() })),
      decision,
    );
  }

  async #askNote(): Promise<void> {
    this.#note = await this.#ask("Note: ");
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

  /** A line of text, typed with the usual keys; "" where it is given up. */
  async #ask(question: string): Promise<string> {
    this.#isAsking = true;
    process.stdin.setRawMode(false);
    const asking = createInterface({ input: process.stdin, output: process.stdout });
    process.stdout.write("\n");
    this.#isPrompted = false;
    try {
      return await new Promise<string>((resolve) => {
        asking.once("close", () => resolve(""));
        asking.once("SIGINT", () => asking.close());
        asking.question(question, resolve);
      }).then((answer) => answer.trim());
    } finally {
      asking.close();
      process.stdin.setRawMode(true);
      process.stdin.resume();
      this.#isAsking = false;
    }
  }
}

const ASCII: Readonly<Record<string, string>> = {
  "✓": "+",
  "✗": "x",
  "·": "-",
  "…": "...",
  "→": "->",
  "—": "-",
};
const HAS_UNICODE = /utf-?8/i.test(
  process.env["LC_ALL"] ||
    process.env["LC_CTYPE"] ||
    process.env["LANG"] ||
    (process.platform === "linux" ? "" : "utf-8"),
);

/** Lets the user write on a text in their editor, as git does. Throws a Problem where that does not work. */
function inEditor(text: string, ending: string): string {
  const editor = process.env["VISUAL"] || process.env["EDITOR"] || "vi";
  const folder = mkdtempSync(join(tmpdir(), "uvran-lines-"));
  const file = join(folder, `lines${ending}`);
  try {
    writeFileSync(file, `${text}\n`);
    process.stdin.setRawMode(false);
    const { status, error } = spawnSync(`${editor} "${file}"`, { shell: true, stdio: "inherit" });
    if (status !== 0)
      throw new Problem(`The editor ${editor} failed: ${error?.message ?? `exit code ${status}`}`, 1);
    const written = readFileSync(file, "utf8");
    return written.endsWith("\n") ? written.slice(0, -1) : written;
  } finally {
    process.stdin.setRawMode(true);
    rmSync(folder, { recursive: true, force: true });
  }
}
