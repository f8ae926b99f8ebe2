import { chmodSync } from "node:fs";
import { Sandbox } from "../cli/run.js";
import { HIVES, idsOf, project, propose, say } from "./reviewed.js";

/** A formatter that marks what it was run over, and with which lines. */
const MARKER = `
const { readFileSync, writeFileSync } = require("node:fs");
const [lines, ...files] = process.argv.slice(2);
for (const file of files) writeFileSync(file, [readFileSync(file, "utf8"), "// laid out ", lines, "\\n"].join(""));
`;
const config = (formatters: object[]): string => JSON.stringify({ formatters });

function git(sandbox: Sandbox, ...args: string[]): string {
  return sandbox.run("git", "-c", "user.name=Keeper", "-c", "user.email=keeper@thistledown.example", ...args)
    .out;
}

async function inGit(): Promise<Sandbox> {
  const sandbox = await project({ "src/hives.js": HIVES, "src/old.js": HIVES, "notes.txt": "a\n" });
  git(sandbox, "init", "-q", "-b", "main");
  for (const [key, value] of [
    ["name", "Keeper"],
    ["email", "keeper@thistledown.example"],
  ])
    git(sandbox, "config", `user.${key}`, value!);
  git(sandbox, "add", "-A");
  git(sandbox, "commit", "-q", "-m", "Begin");
  return sandbox;
}

describe("formatters", () => {
  test("run over the files that were written, or over the changed lines; undo takes that back too", async () => {
    const sandbox = await project({
      "src/it's.js": HIVES,
      "-b.js": HIVES,
      "other.py": "x = 1\n",
      "mark.cjs": MARKER,
      "uvran.config.json": config([
        { files: ["*.js"], run: "node mark.cjs all {files}" },
        { files: ["src/"], run: "node mark.cjs {from}-{to} {file}" },
        { files: ["*.py"], run: "exit 1 {files}" },
      ]),
    });
    const { out, exit } = sandbox.uvran("apply", "--trust", "possible");
    expect([exit, out.includes("6 changes in 2 files.")]).toEqual([0, true]);
    expect(sandbox.read("-b.js")).toMatch(/\?\? "none";\n\}\n\/\/ laid out all\n$/);
    expect(sandbox.read("src/it's.js")).toMatch(
      /laid out all\n\/\/ laid out 8-8\n\/\/ laid out 5-5\n\/\/ laid out 2-2\n$/,
    );
    expect(sandbox.uvran("undo").exit).toBe(0);
    expect([sandbox.read("src/it's.js"), sandbox.read("-b.js")]).toEqual([HIVES, HIVES]);
  });

  test("that fail are named, and what was written stays and can be taken back", async () => {
    const sandbox = await project({
      "hives.js": HIVES,
      "uvran.config.json": config([{ files: ["*"], run: "echo cannot lay out >&2; exit 3 # {files}" }]),
    });
    const { err, exit } = sandbox.uvran("apply", "--trust", "possible");
    expect([exit, err]).toEqual([
      1,
      "The formatter failed: echo cannot lay out >&2; exit 3 # './hives.js'\n  cannot lay out\n",
    ]);
    expect(sandbox.read("hives.js")).not.toBe(HIVES);
    sandbox.uvran("undo");
    expect(sandbox.read("hives.js")).toBe(HIVES);
  });

  test("that are cut off leave an apply that undo takes back", async () => {
    const sandbox = await project({
      "hives.js": HIVES,
      "uvran.config.json": config([{ files: ["*"], run: "echo // half >> {file}; kill -9 $PPID; sleep 1" }]),
    });
    expect(sandbox.uvran("apply", "--trust", "possible").exit).toBeNull();
    expect(sandbox.read("hives.js")).toMatch(/\/\/ half\n$/);
    expect(sandbox.uvran("survey").err).toContain("An apply was interrupted while the formatters ran");
    expect(sandbox.uvran("undo").exit).toBe(0);
    expect(sandbox.read("hives.js")).toBe(HIVES);
  });

  test("must say where the files go", async () => {
    const sandbox = new Sandbox({ "uvran.config.json": config([{ files: ["*"], run: "layout" }]) });
    expect(sandbox.uvran("survey").err).toContain("must have `{files}` or `{file}` in it");
  });
});

describe("apply --commit", () => {
  test("makes a commit for each rule, with its title and why, and what it says is what is in it", async () => {
    const sandbox = await inGit();
    chmodSync(sandbox.path("src/old.js"), 0o755);
    git(sandbox, "commit", "-q", "-a", "-m", "Make it run");
    const { out, exit } = sandbox.uvran("apply", "--trust", "possible", "--commit");
    expect([exit, out.includes("2 commits made.")]).toEqual([0, true]);
    expect(git(sandbox, "log", "--reverse", "--format=%s").split("\n").slice(2, 4)).toEqual([
      "Use ?. to read from a value that may be missing",
      "Use ?? for the default of a missing value",
    ]);
    const body = git(sandbox, "log", "-1", "--format=%b");
    expect(body).toContain("2 changes in 2 files by javascript/value-or-fallback.");
    expect(Math.max(...body.split("\n").map((line) => line.length))).toBeLessThanOrEqual(72);
    expect(git(sandbox, "show", "HEAD~1:src/hives.js")).toBe(
      HIVES.replaceAll("hive && hive.queen", "hive?.queen"),
    );
    expect(git(sandbox, "ls-tree", "HEAD", "src/old.js")).toMatch(/^100755/);
    expect(git(sandbox, "status", "--short")).toBe("");
  });

  test("is refused on a dirty tree, unless told so, and always where its own files or the index have changes", async () => {
    const sandbox = await inGit();
    sandbox.write("notes.txt", "b\n");
    const refused = sandbox.uvran("apply", "--commit");
    expect([refused.exit, refused.err.includes("Commit them, or add --even-dirty")]).toEqual([1, true]);
    expect(sandbox.read("src/hives.js")).toBe(HIVES);
    const [one, two] = await idsOf(sandbox);
    await say(sandbox, "drop", two);
    git(sandbox, "add", ".uvran");
    git(sandbox, "commit", "-q", "-m", "Decide");
    await say(sandbox, "keep", one);
    expect(sandbox.uvran("apply", "--only-kept", "--commit", "--even-dirty").exit).toBe(0);
    expect(git(sandbox, "show", "--name-only", "--format=%s", "HEAD")).toContain("src/hives.js");
    expect(git(sandbox, "status", "--short")).toBe(" M .uvran/decisions.jsonl\n M notes.txt\n");
    git(sandbox, "add", "notes.txt");
    await propose(sandbox);
    expect(sandbox.uvran("apply", "--commit", "--even-dirty").err).toContain("git has something staged");
    git(sandbox, "reset", "-q");
    sandbox.write("src/old.js", `${HIVES}// mine\n`);
    await propose(sandbox);
    expect(sandbox.uvran("apply", "--commit", "--even-dirty", "--trust", "possible").err).toContain(
      "src/old.js",
    );
    expect(sandbox.read("src/old.js")).toBe(`${HIVES}// mine\n`);
  });

  test("needs git, and --even-dirty needs --commit", async () => {
    const sandbox = await project();
    expect(sandbox.uvran("apply", "--commit", "--trust", "possible").err).toContain("needs a git work tree");
    expect(sandbox.uvran("apply", "--even-dirty").exit).toBe(2);
  });

  test("from a folder below the top of the work tree commits the right files", async () => {
    const sandbox = new Sandbox({ "part/hives.js": HIVES, "part/uvran.config.json": "{}" });
    const part = sandbox.below("part");
    git(sandbox, "init", "-q");
    git(sandbox, "config", "user.name", "Keeper");
    git(sandbox, "config", "user.email", "keeper@thistledown.example");
    git(sandbox, "add", "hives.js", "uvran.config.json");
    git(sandbox, "commit", "-q", "-m", "Begin");
    part.uvran("propose");
    expect(part.uvran("apply", "--trust", "possible", "--commit").out).toContain("2 commits made");
    expect(git(sandbox, "status", "--short")).toBe("");
  });
});
