import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import type { Sandbox } from "../cli/run.js";
import { MAIN } from "./page.js";
import { decisionsOf, HIVES, idsOf, project, reviewOf, say } from "./reviewed.js";

const SCRIPT = spawnSync("script", ["--version"]).status === 0;
if (!SCRIPT) console.warn("skipped: no `script` on this machine, so the review in a terminal is not tried");

/** A review in a pseudo-terminal: keys in, what is printed out. */
class Terminal {
  readonly #child: ChildProcess;
  #out = "";
  #seen = 0;
  readonly ended: Promise<string>;

  constructor(
    sandbox: Sandbox,
    { env = {}, columns = 80 }: { env?: Record<string, string>; columns?: number } = {},
  ) {
    const command = `tty > tty.txt; stty cols ${columns} rows 40; exec '${process.execPath}' '${MAIN}' review --terminal`;
    this.#child = spawn("script", ["-qec", command, "/dev/null"], {
      cwd: sandbox.root,
      env: { ...process.env, NO_COLOR: "1", NODE_OPTIONS: "", LC_ALL: "C.UTF-8", ...env },
    });
    this.#child.stdout!.on("data", (data: Buffer) => (this.#out += String(data)));
    this.ended = new Promise((done) => this.#child.on("close", () => done(this.#out)));
  }

  press(keys: string): this {
    this.#child.stdin!.write(keys);
    return this;
  }

  /** Waits until something is printed behind what was waited for before; gives what came up to it. */
  async until(text: string): Promise<string> {
    for (let waited = 0; waited < 20_000; waited += 20) {
      const at = this.#out.indexOf(text, this.#seen);
      if (at >= 0) {
        const passed = this.#out.slice(this.#seen, at + text.length);
        this.#seen = at + text.length;
        return passed;
      }
      await new Promise((done) => setTimeout(done, 20));
    }
    throw new Error(`never printed: ${text}\n${this.#out}`);
  }

  kill(): void {
    this.#child.kill("SIGKILL");
  }
}

(SCRIPT ? describe : describe.skip)("the review in a terminal", () => {
  let terminal: Terminal;
  afterEach(() => terminal.kill());

  test("20 decisions by keys, a note, an edit, taking back; ended, resumed, applied, undone", async () => {
    const files = Object.fromEntries(Array.from({ length: 8 }, (_, i) => [`hives${i}.js`, HIVES]));
    const sandbox = await project(files);
    terminal = new Terminal(sandbox);
    await terminal.until("Change 1 of 24, 24 open");
    for (let i = 0; i < 19; i++) {
      terminal.press("kkdl"[i % 4]!);
      await terminal.until(`Change ${i + 2} of 24, ${23 - i} open`);
    }
    terminal.press("u");
    await terminal.until("taken back");
    await terminal.until("Change 19 of 24, 6 open");
    terminal.press("n");
    await terminal.until("Note: ");
    terminal.press("not sure\r");
    await terminal.until("next note: not sure");
    terminal.press("l");
    await terminal.until("Change 20 of 24, 5 open");
    terminal.press("q");
    const out = await terminal.ended;
    expect(out).toContain("The review has ended: 10 keep, 4 drop, 5 later, 5 open.");

    const editor = "sed -i 's/$/ \\/\\/ by hand/'";
    terminal = new Terminal(sandbox, { env: { EDITOR: editor } });
    await terminal.until("Change 20 of 24, 5 open");
    terminal.press("e");
    await terminal.until("Change 21 of 24, 4 open");
    terminal.press("i");
    const screen = await terminal.until("keep, edited");
    expect(screen).toContain("// by hand");
    terminal.press("q");
    await terminal.ended;

    expect(sandbox.uvran("apply", "--only-kept").out).toContain("11 changes in");
    expect(sandbox.read("hives6.js")).toContain("// by hand");
    sandbox.uvran("undo");
    expect(sandbox.read("hives6.js")).toBe(HIVES);
  });

  test("cautions stand last before the question; text by hand that does not parse is refused and the walk goes on", async () => {
    const sandbox = await project({ "lot.js": "export const label = (lot) => lot || 'none';\n" });
    terminal = new Terminal(sandbox, { env: { EDITOR: "sed -i 's/$/ ((/'" } });
    const screen = await terminal.until("[k keep");
    expect(screen).toMatch(/! CAUTION: when `lot` is .*\r\n {2}open \[k keep$/);
    terminal.press("e");
    await terminal.until("would have a syntax error, so it was not taken");
    terminal.press("kq");
    await terminal.ended;
    expect(await decisionsOf(sandbox)).toEqual(["keep"]);
  });

  test("what is alike is decided together; the rule, the keys and the places that were held back are there", async () => {
    const sandbox = await project({
      "a.js": `// uvran-keep javascript/guarded-read: wanted\nconst jar = lot && lot.jar;\n${HIVES}`,
      "b.js": HIVES,
    });
    terminal = new Terminal(sandbox);
    await terminal.until("Change 1 of 6, 6 open");
    terminal.press("s");
    await terminal.until("Decide all 4: keep, drop, later, or nothing? ");
    terminal.press("d\r");
    await terminal.until("4 changes: drop");
    await terminal.until("Change 3 of 6, 2 open");
    terminal.press("r");
    await terminal.until("javascript/value-or-fallback\r\nUse ?? for the default");
    terminal.press("?");
    await terminal.until("q        end; what is decided is stored");
    terminal.press("t");
    await terminal.until("held back: ");
    terminal.press("a");
    await terminal.until("Nothing is open any more");
    terminal.press("\u0003");
    await terminal.ended;
    const review = await reviewOf(sandbox);
    expect(
      review
        .decisions()
        .map(({ decision }) => decision)
        .sort(),
    ).toEqual(["drop", "drop", "drop", "drop", "leave"]);
  });

  test("a file that changed meanwhile is said; a key proposes again and keeps what is decided", async () => {
    const sandbox = await project();
    terminal = new Terminal(sandbox);
    await terminal.until("Change 1 of 3, 3 open");
    terminal.press("kd");
    await terminal.until("Change 3 of 3, 1 open");
    sandbox.write("src/hives.js", `// One line more.\n${HIVES}`);
    terminal.press("i");
    await terminal.until("src/hives.js has changed since; p proposes again");
    terminal.press("p");
    await terminal.until("Change 3 of 3, 1 open");
    terminal.press("q");
    expect(await terminal.ended).toContain("The review has ended: 1 keep, 1 drop, 1 open.");
    expect(await decisionsOf(sandbox)).toEqual(["keep", "drop", undefined]);
  });

  test("narrow, without Unicode and without colour; drawn again when the size changes", async () => {
    const sandbox = await project();
    terminal = new Terminal(sandbox, { columns: 40, env: { LC_ALL: "C" } });
    const screen = await terminal.until("q end] ");
    expect(screen).not.toMatch(/[^\u0000-\u007f]|\u001b/);
    expect(screen).toMatch(/^ {2}\+ /m);
    spawnSync("stty", ["-F", sandbox.read("tty.txt").trim(), "cols", "120"]);
    await terminal.until("Change 1 of 3, 3 open");
    terminal.press("q");
    await terminal.ended;
  });

  test("a decision that somebody else made meanwhile is not written over", async () => {
    const sandbox = await project();
    terminal = new Terminal(sandbox);
    await terminal.until("Change 1 of 3, 3 open");
    const [one] = await idsOf(sandbox);
    await say(sandbox, "drop", one);
    terminal.press("k");
    await terminal.until("Somebody else has decided meanwhile");
    terminal.press("q");
    await terminal.ended;
    expect(await decisionsOf(sandbox)).toEqual(["drop", undefined, undefined]);
  });
});

test("without a terminal it says what to do instead", async () => {
  const { exit, err } = (await project()).uvran("review", "--terminal");
  expect([exit, err]).toEqual([2, expect.stringContaining("--terminal needs a terminal")]);
});
