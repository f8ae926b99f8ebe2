import { readFileSync, renameSync, writeFileSync } from "node:fs";
import { decisionsText, PlanError, readDecisions, readDesk } from "uvran/core";
import { Workspace } from "uvran/workspace";
import type { Sandbox } from "../cli/run.js";
import { MAIN } from "./page.js";
import {
  DECISIONS,
  decisionsOf,
  FALLBACK,
  HIVES,
  idsOf,
  project,
  propose,
  reviewOf,
  say,
} from "./reviewed.js";

const linesOf = (sandbox: Sandbox): string[] => sandbox.read(DECISIONS).trimEnd().split("\n");

/** Changes what is stored of the only decision. */
function restate(sandbox: Sandbox, change: (line: Record<string, unknown>) => void): void {
  const [head, line] = linesOf(sandbox);
  const data = JSON.parse(line!) as Record<string, unknown>;
  change(data);
  sandbox.write(DECISIONS, `${head}\n${JSON.stringify(data)}\n`);
}

test("apply writes what is kept, leaves what is dropped or put off, and says why; undo keeps the decisions", async () => {
  const sandbox = await project();
  const [one, two, three] = await idsOf(sandbox);
  await say(sandbox, "keep", one);
  sandbox.uvran("review", "--decide", "drop", "--id", two, "--note", "the queen is there");
  await say(sandbox, "later", three);
  const dry = sandbox.uvran("apply", "--dry");
  expect(dry.out).toContain("1 change in 1 file. Nothing was written.");
  expect(sandbox.read("src/hives.js")).toBe(HIVES);
  const { out, exit } = sandbox.uvran("apply", "--trust", "possible");
  expect(exit).toBe(0);
  expect(out).toContain("Left as it is: 2 changes");
  expect(out).toMatch(/dropped {2}1\n {4}src\/hives\.js:5/);
  expect(out).toMatch(/put off until later {2}1\n {4}src\/hives\.js:8/);
  expect(sandbox.read("src/hives.js")).toBe(HIVES.replace("hive && hive.queen", "hive?.queen"));
  expect(sandbox.uvran("survey").out).toContain("decided        1 drop, 1 later");
  sandbox.uvran("undo");
  expect(sandbox.read("src/hives.js")).toBe(HIVES);
  await propose(sandbox);
  expect(await decisionsOf(sandbox)).toEqual(["keep", "drop", "later"]);
  expect((await reviewOf(sandbox)).standings().of(two).note).toBe("the queen is there");
});

test("without a decision what is sure enough is written, unless only what is kept is asked for", async () => {
  const sandbox = await project();
  const { out } = sandbox.uvran("apply", "--only-kept", "--trust", "possible");
  expect(out).toContain("0 changes in 0 files.");
  expect(out).toContain("not decided  3");
  expect(sandbox.uvran("apply", "--rule", FALLBACK, "--trust", "possible").out).toContain("1 change in 1");
});

test("changes are decided about by rule, kind, folder, trust and code; and minds change", async () => {
  const sandbox = await project({ "src/hives.js": HIVES, "old/hives.js": HIVES, "old.js": HIVES });
  const decide = (...args: string[]): string => sandbox.uvran("review", ...args).out;
  expect(decide("old", "--decide", "drop")).toBe("3 changes: drop.\n");
  expect(decide("--rule", FALLBACK, "--decide", "keep")).toBe("3 changes: keep.\n");
  expect(await decisionsOf(sandbox)).toEqual([
    undefined,
    undefined,
    "keep",
    "drop",
    "drop",
    "keep",
    undefined,
    undefined,
    "keep",
  ]);
  expect(decide("--kind", "smell", "--decide", "keep")).toBe("0 changes: keep.\n");
  expect(decide("--trust", "certain", "--decide", "none")).toMatch(/^[369] changes: open again/);
  expect(decide("old", "--code", "name.not-there", "--decide", "keep")).toBe("0 changes: keep.\n");
  expect(sandbox.uvran("review", "--decide", "keep", "--id", "0123456789abcdef").err).toContain(
    "The plan has no change 0123456789abcdef",
  );
  expect(sandbox.uvran("review", "../elsewhere", "--list").err).toContain("outside the project");
});

test("decisions survive lines that move, a new plan, and a renamed file; and never go to something else", async () => {
  const sandbox = await project();
  const [one, two] = await idsOf(sandbox);
  await say(sandbox, "keep", two);
  await say(sandbox, "drop", FALLBACK);
  sandbox.write("src/hives.js", `// A line more.\n\n${HIVES}`);
  await propose(sandbox);
  expect(await decisionsOf(sandbox)).toEqual([undefined, "keep", "drop"]);
  renameSync(sandbox.path("src/hives.js"), sandbox.path("src/colonies.js"));
  await propose(sandbox);
  // Two changes are alike, so the decision about one of them cannot be carried over; the other can.
  expect(await decisionsOf(sandbox)).toEqual([undefined, undefined, "drop"]);
  expect((await reviewOf(sandbox)).standings().strays.map(({ id }) => id)).toEqual([two]);
  expect((await reviewOf(sandbox)).desk().gone).toEqual(["src/hives.js"]);
  renameSync(sandbox.path("src/colonies.js"), sandbox.path("src/hives.js"));
  sandbox.write("src/hives.js", HIVES.replace(/export function second[^}]*\}\n/, ""));
  await propose(sandbox);
  expect(await idsOf(sandbox)).toContain(one);
  expect(await decisionsOf(sandbox)).toEqual([undefined, "drop"]);
  expect(sandbox.uvran("review", "--list").out).toContain(
    "1 decision about code that the plan does not have",
  );
});

test.each<[string, (line: Record<string, unknown>) => void, string]>([
  ["other new code", (line) => (line["code"] = "0000000000000000"), "was said of other new code"],
  ["less trust than then", (line) => (line["trust"] = "certain"), "it is only"],
  ["nothing said of what it was", (line) => delete line["code"], "does not say which code it was about"],
  ["a caution that is new", (line) => delete line["cautions"], "before there was this caution"],
])(
  "a decision that was said of a change with %s does not fit, says so, and nothing is written",
  async (_, change, says) => {
    const sandbox = await project({ "src/lots.js": "export const label = (lot) => lot || 'none';\n" });
    await say(sandbox, "keep");
    expect(await decisionsOf(sandbox)).toEqual(["keep"]);
    restate(sandbox, change);
    expect((await decisionsOf(sandbox))[0]).toContain(says);
    const { chosen, left } = (await reviewOf(sandbox)).select({ trust: "possible" });
    expect(chosen).toEqual([]);
    expect(left[0]!.why).toContain("a decision does not fit any more");
  },
);

test("held-back places and advice are marked as done by hand or left", async () => {
  const sandbox = await project({
    "hives.js": "// uvran-keep javascript/guarded-read: wanted\nconst jar = lot && lot.jar;\n",
  });
  const { plan } = await reviewOf(sandbox);
  expect(plan.heldBack.length).toBeGreaterThan(0);
  const { id, line } = plan.heldBack[0]!;
  expect(sandbox.uvran("review", "--decide", "leave", "--id", id).out).toBe("1 place: leave.\n");
  expect(sandbox.uvran("review", "--list").out).toContain(`hives.js:${line}`);
  expect(sandbox.uvran("review", "--decide", "keep", "--id", id).exit).toBe(2);
});

describe("text by hand", () => {
  test("takes the place of what was proposed, is parsed, applied and undone", async () => {
    const sandbox = await project();
    const review = await reviewOf(sandbox);
    const [one, , three] = await idsOf(sandbox);
    await expect(
      review.decide([{ id: one, decision: "keep", edited: "  if (hive?.queen mark(hive);" }]),
    ).rejects.toThrow("would have a syntax error");
    await review.decide([{ id: one, decision: "keep", edited: "  if (hive?.queen) mark(hive); // by hand" }]);
    await review.decide([{ id: three, decision: "keep" }]);
    expect(sandbox.uvran("review", "--list").out).toContain("keep, edited");
    await propose(sandbox);
    const { out } = sandbox.uvran("apply", "--only-kept");
    expect(out).toContain("2 changes in 1 file.");
    const now = sandbox.read("src/hives.js");
    expect(now).toContain(
      "  if (hive?.queen) mark(hive); // by hand\n}\nexport function second(hive) {\n  if (hive && ",
    );
    expect(now).toContain('return queen ?? "none";');
    sandbox.uvran("undo");
    expect(sandbox.read("src/hives.js")).toBe(HIVES);
  });

  test("and notes are not lost when all are kept at once", async () => {
    const sandbox = await project();
    const [one] = await idsOf(sandbox);
    const review = await reviewOf(sandbox);
    await review.decide([{ id: one, decision: "keep", edited: "  mark(hive);", note: "always" }]);
    sandbox.uvran("review", "--decide", "keep");
    expect(review.standings().of(one)).toEqual({ decision: "keep", edited: "  mark(hive);", note: "always" });
  });

  test("takes the line ends of the file", async () => {
    const sandbox = await project({ "hives.js": HIVES.replaceAll("\n", "\r\n") });
    const [one] = await idsOf(sandbox);
    const review = await reviewOf(sandbox);
    await review.decide([
      { id: one, decision: "keep", edited: "  // looked at\n  if (hive?.queen) mark(hive);" },
    ]);
    const workspace = await Workspace.open(sandbox.root);
    await workspace.apply(review.plan, review.select({ trust: "certain", onlyKept: true }).chosen);
    const now = sandbox.read("hives.js");
    expect(now).toContain("{\r\n  // looked at\r\n  if (hive?.queen) mark(hive);\r\n}");
    expect(now.replaceAll("\r\n", "")).not.toMatch(/[\r\n]/);
  });

  test("does not fit once the code on its lines is other code", async () => {
    const sandbox = await project({ "lot.js": "const a = lot && lot.jar, b = 1;\n" });
    const review = await reviewOf(sandbox);
    await review.decide([
      { id: review.plan.changes[0]!.id, decision: "keep", edited: "const a = lot?.jar, b = 2;" },
    ]);
    sandbox.write("lot.js", "const a = lot && lot.jar, b = 3;\n");
    await propose(sandbox);
    expect((await decisionsOf(sandbox))[0]).toContain("not what it was when it was edited by hand");
  });

  test("that reaches into another change that is written is left", async () => {
    const sandbox = await project({ "lot.js": "const a = lot && lot.jar, b = hive && hive.queen;\n" });
    const review = await reviewOf(sandbox);
    const [one] = await idsOf(sandbox);
    await review.decide([{ id: one, decision: "keep", edited: "const a = lot?.jar, b = 4;" }]);
    const { chosen, left } = review.select({ trust: "possible" });
    expect(chosen).toHaveLength(1);
    expect(left[0]!.why).toContain("reaches into another change");
  });
});

describe("the file of decisions", () => {
  const line = (more: object = {}): string =>
    JSON.stringify({ path: "a.js", rules: ["x/y"], id: "0123456789abcdef", decision: "keep", ...more });

  test("is sorted, a line each, and read back the same", async () => {
    const two = readDecisions(`${line({ path: "b.js" })}\n\n${line()}\r\n${line()}\n`);
    expect(two).toHaveLength(2);
    const text = decisionsText(two);
    expect(text.split("\n").map((one) => one.slice(0, 16))).toEqual([
      '{"uvranDecisions',
      '{"path":"a.js","',
      '{"path":"b.js","',
      "",
    ]);
    expect(readDecisions(text)).toEqual(readDecisions(decisionsText([...two].reverse())));
  });

  test.each([
    ["marks of a merge", `${line()}\n<<<<<<< HEAD\n`, "line 2: it marks a conflict of a merge"],
    ["unknown fields", line({ run: "rm" }), "line 1: Unrecognized key"],
    ["a megabyte on one line", `"${"x".repeat(1_000_000)}"`, "line 1: it has 1000002 characters"],
    ["no JSON", "keep it all", "line 1: it is not JSON"],
    ["another word", line({ decision: "perhaps" }), "line 1: decision:"],
    ["a newer form", '{"uvranDecisions":7}', "The decisions have form 7"],
  ])("with %s is refused, and left as it is", async (_, text, says) => {
    expect(() => readDecisions(text)).toThrow(PlanError);
    expect(() => readDecisions(text)).toThrow(says);
    const sandbox = await project();
    sandbox.write(DECISIONS, text);
    await expect(say(sandbox, "keep")).rejects.toThrow("decisions.jsonl");
    expect(sandbox.read(DECISIONS)).toBe(text);
  });

  test("that is not in order stops every command that goes by it", async () => {
    const sandbox = await project();
    sandbox.write(DECISIONS, "<<<<<<< HEAD\n");
    for (const command of ["apply", "survey"])
      expect(sandbox.uvran(command)).toMatchObject({
        exit: 2,
        err: expect.stringContaining("conflict of a merge"),
      });
    expect(sandbox.read("src/hives.js")).toBe(HIVES);
  });

  test("two people's decisions merge in git; where they contradict each other, nothing is decided", async () => {
    const sandbox = await project();
    const git = (...args: string[]): void =>
      void sandbox.run(
        "git",
        "-c",
        "user.name=Keeper",
        "-c",
        "user.email=keeper@thistledown.example",
        ...args,
      );
    git("init", "-q", "-b", "main");
    const [one, two, three] = await idsOf(sandbox);
    const commit = (): void => (git("add", "-A"), git("commit", "-q", "-m", "Decide"));
    commit();
    git("checkout", "-q", "-b", "other");
    await say(sandbox, "drop", one);
    await say(sandbox, "keep", two);
    commit();
    git("checkout", "-q", "main");
    await say(sandbox, "keep", one);
    await say(sandbox, "later", three);
    commit();
    git("merge", "-q", "-m", "Both", "other");
    const decided = await decisionsOf(sandbox);
    expect(decided.slice(1)).toEqual(["keep", "later"]);
    expect(decided[0]).toMatch(/there are two decisions: (keep and drop|drop and keep)/);
    await say(sandbox, "keep", one);
    expect(await decisionsOf(sandbox)).toEqual(["keep", "keep", "later"]);
    expect(linesOf(sandbox)).toHaveLength(4);
    expect(sandbox.run("git", "status", "--short").out).toBe(" M .uvran/decisions.jsonl\n");
  });

  test("what two write at the same time is all there", async () => {
    const sandbox = await project({ "a.js": HIVES, "b.js": HIVES });
    const [first, second] = [await reviewOf(sandbox), await reviewOf(sandbox)];
    const ids = first.plan.changes.map(({ id }) => id);
    await Promise.all(ids.map((id, i) => (i % 2 ? first : second).decide([{ id, decision: "keep" }])));
    expect(
      readDecisions(readFileSync(sandbox.path(DECISIONS), "utf8"))
        .map(({ id }) => id)
        .sort(),
    ).toEqual([...ids].sort());
    await first.decide([{ id: ids[0]!, decision: "drop", saw: "keep" }]);
    await expect(second.decide([{ id: ids[0]!, decision: "later", saw: "keep" }])).rejects.toThrow(
      "Somebody else has decided",
    );
  });
});

test("a plan that was made for other text is refused before any decision is doubted", async () => {
  const sandbox = await project();
  await say(sandbox, "keep");
  writeFileSync(sandbox.path("src/hives.js"), `\n${HIVES}`);
  const { exit, err } = sandbox.uvran("apply");
  expect([exit, err.includes("made for other content")]).toEqual([1, true]);
});

test("prove proves what apply would write", async () => {
  const check = { name: "new code", run: "cat src/hives.js" };
  const sandbox = await project({
    "src/hives.js": HIVES,
    "uvran.config.json": JSON.stringify({ checks: [check] }),
  });
  await say(sandbox, "drop");
  expect(sandbox.uvran("prove", "--trust", "possible")).toMatchObject({
    exit: 0,
    out: expect.stringMatching(/^same/),
  });
  await say(sandbox, "keep", FALLBACK);
  const { exit, out } = sandbox.uvran("prove", "--only-kept");
  expect([exit, out]).toEqual([1, expect.stringContaining('queen ?? "none"')]);
  expect(out).not.toContain("hive?.queen");
});

test("a plan of a newer Uvran is refused by every command that works on one", async () => {
  const sandbox = await project();
  sandbox.write(".uvran/plan.json", '{"uvranPlan":99}');
  for (const command of [["review", "--list"], ["review"], ["apply"], ["prove"]]) {
    const { exit, err } = sandbox.uvran(...command);
    if (command[0] !== "prove")
      expect([exit, err]).toEqual([2, expect.stringContaining("The plan has form 99")]);
  }
});

test("half a character in a file, as UTF-16 may hold it, does not get in the way", async () => {
  const text = "\ufeffconst a = lot && lot.jar; // \ud83d\r\n";
  const sandbox = await project({ "lot.js": Buffer.from(text, "utf16le") });
  const review = await reviewOf(sandbox);
  expect(review.plan.changes).toHaveLength(1);
  await say(sandbox, "keep");
  expect(readDesk(JSON.stringify(review.desk())).texts["lot.js"]).toContain("\ud83d");
  expect(await decisionsOf(sandbox)).toEqual(["keep"]);
  sandbox.uvran("apply");
  expect(Buffer.from(readFileSync(sandbox.path("lot.js"))).toString("utf16le")).toBe(
    text.replace("lot && lot.jar", "lot?.jar"),
  );
});

test("a disk that takes no more leaves the decisions as they were", async () => {
  const files = Object.fromEntries(Array.from({ length: 9 }, (_, i) => [`hives${i}.js`, HIVES]));
  const sandbox = await project(files);
  await say(sandbox, "keep", FALLBACK);
  const before = sandbox.read(DECISIONS);
  // A process that may write no more than so many blocks to a file.
  const { exit, err } = sandbox.run("bash", "-c", `ulimit -f 2; exec node '${MAIN}' review --decide drop`);
  expect([exit, err]).toEqual([
    1,
    expect.stringContaining("cannot be written, and the ones before stay as they are"),
  ]);
  expect(sandbox.read(DECISIONS)).toBe(before);
});

test("nothing is shown of a file that a forged plan names and Uvran would not look at", async () => {
  const sandbox = await project({ "src/hives.js": HIVES, ".git/config.js": "secret", "notes.txt": "secret" });
  const { plan } = await reviewOf(sandbox);
  const forged = [".git/config.js", "notes.txt", ".uvran/plan.json"].map((path, i) => ({
    ...plan.changes[0]!,
    id: `000000000000000${i}`,
    evidence: [{ answer: "yes", code: "own.seen", says: "seen", line: 1, path }],
  }));
  sandbox.write("forged.json", JSON.stringify({ ...plan, changes: [...plan.changes, ...forged] }));
  sandbox.uvran("review", "--plan", "forged.json", "--out", "desk.json");
  const { texts } = readDesk(sandbox.read("desk.json"));
  expect(texts).toEqual({ "src/hives.js": HIVES });
  expect(sandbox.uvran("review", "--list", "--decide", "keep").err).toContain("Choose one of them");
});

test("nothing is decided about a file that has changed since the plan was made", async () => {
  const sandbox = await project({ "a.js": HIVES, "b.js": "const jar = lot && lot.jar;\n" });
  const review = await reviewOf(sandbox);
  review.standings();
  sandbox.write("a.js", `\n${HIVES}`);
  const of = (path: string) => review.plan.changes.find((change) => change.path === path)!.id;
  await expect(review.decide([{ id: of("a.js"), decision: "keep" }])).rejects.toThrow(
    "a.js has changed since",
  );
  await review.decide([{ id: of("b.js"), decision: "keep" }]);
  expect(Object.keys(readDesk(JSON.stringify(review.desk())).texts)).toEqual(["b.js"]);
});
