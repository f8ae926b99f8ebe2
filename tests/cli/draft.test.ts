import { mkdirSync, symlinkSync } from "node:fs";
import { resolve } from "node:path";
import { Sandbox } from "./run.js";

const BEFORE = `def weigh(hives):
    for i in range(len(hives)):
        note(i, hives[i])
    return sum(hives)


def clear(jars):
    for k in range(len(jars)):
        jars[k] = 0
`;
const AFTER = BEFORE.replace("i in range(len(hives))", "i, hive in enumerate(hives)").replace(
  "hives[i]",
  "hive",
);

/** A git repository in which each of some states is a commit, and which has Uvran installed. */
function repository(...states: Readonly<Record<string, string>>[]): Sandbox {
  const sandbox = new Sandbox({ ".gitignore": "node_modules/\n" });
  mkdirSync(sandbox.path("node_modules"));
  symlinkSync(resolve("."), sandbox.path("node_modules/uvran"));
  const git = (...args: string[]) =>
    sandbox.run("git", "-c", "user.email=keeper@thistledown.example", "-c", "user.name=Keeper", ...args);
  git("init", "-q");
  states.forEach((files, i) => {
    for (const [path, text] of Object.entries(files)) sandbox.write(path, text);
    git("add", "-A");
    git("commit", "-qm", `state ${i}`);
    git("tag", `v${i}`);
  });
  return sandbox;
}

test("a rule drafted from two files runs in a project as it was written", () => {
  const sandbox = repository({
    "old.py": BEFORE,
    "new.py": AFTER,
    "more.py": BEFORE.replaceAll("hives", "queens"),
  });
  const drafted = sandbox.uvran(
    "draft",
    "old.py",
    "new.py",
    "--among",
    "more.py",
    "--id",
    "python/item-too",
    "--out",
    "own.ts",
  );
  expect(drafted.err).toBe("");
  expect(drafted.exit).toBe(0);
  expect(drafted.out).toContain("1  python/item-too   1 edit in 1 file\n       old.py:2\n");
  expect(drafted.out).toMatch(/● middle: changes 1 more place, holds 2 places back\n/);
  expect(drafted.out).toContain("more.py:2  for i in range(len(queens)):");
  expect(drafted.out).toMatch(/\nWritten to own\.ts\. .* uvran rules --try\n$/);
  sandbox.write(
    "uvran.config.ts",
    `import { pack } from "uvran";
import { defineConfig } from "uvran/node";
import { itemToo } from "./own.js";
export default defineConfig({ packs: [pack("own", [itemToo])] });
`,
  );
  expect(sandbox.uvran("rules", "python/item-too", "--try")).toMatchObject({
    exit: 0,
    out: "passed  python/item-too  2 trials\n",
  });
  sandbox.uvran("propose", "more.py");
  expect(sandbox.uvran("apply", "--trust", "likely").exit).toBe(0);
  expect(sandbox.read("more.py")).toContain("for i, queen in enumerate(queens):\n        note(i, queen)\n");
});

test("folders are compared file by file, also those with a new name", () => {
  const sandbox = new Sandbox({
    "was/hives.py": BEFORE,
    "was/lots.py": "x = dict()\ny = 1\nz = 2\n",
    "was/same.py": "q = dict()\n",
    "now/hives.py": AFTER,
    "now/honey/lots.py": "x = {}\ny = 1\nz = 2\n",
    "now/same.py": "q = dict()\n",
  });
  const { moves } = JSON.parse(sandbox.uvran("draft", "was", "now", "--move", "2", "--json").out);
  expect(moves.map(({ edits }: { edits: { path: string }[] }) => edits.map(({ path }) => path))).toEqual([
    ["hives.py"],
    ["lots.py"],
  ]);
  const [tight] = moves[1].rules;
  expect(tight).toMatchObject({ id: "python/dict", was: "dict()", becomes: "{}", usual: true });
  expect(tight.others).toEqual([{ path: "same.py", line: 1, code: "q = dict()", trust: "likely" }]);
});

test("of a range of commits each is an edit, and uncommitted edits are learnt from too", () => {
  const [a, b, c] = ["x = dict()\ny = dict()\n", "x = {}\ny = dict()\n", "x = {}\ny = {}\n"];
  const notes = (text: string) => ({ "notes.txt": text, "guide.md": text });
  const sandbox = repository(
    { "a.py": a!, ...notes("1\n") },
    { "a.py": b!, ...notes("2\n") },
    { "a.py": c! },
  );
  const range = sandbox.uvran("draft", "v0", "v2");
  expect(range.err).toMatch(
    /^[0-9a-f]{7}:guide\.md is left out: its code is only a part of it\.\n1 file of other kinds changed as well\.\n$/,
  );
  expect(range.out).toMatch(/1 {2}python\/dict {3}2 edits in 2 files\n {7}[0-9a-f]{7}:a\.py:1\n/);
  sandbox.write("a.py", "x = {}\ny = {}\nz = set([])\n");
  sandbox.run("git", "commit", "-qam", "three");
  sandbox.write("a.py", "x = {}\ny = {}\nz = set()\n");
  expect(sandbox.uvran("draft", "HEAD").out).toContain("set([])\n         becomes set()\n");
});

test("--move and --take choose; without --out the rule is printed", () => {
  const sandbox = new Sandbox({ "a.js": "f(x && x.y, g(2));\n", "b.js": "f(x?.y, h(2));\n" });
  const usual = sandbox.uvran("draft", "a.js", "b.js");
  expect(usual.out).toContain("○ tight: changes nothing else\n");
  expect(usual.out).toContain("● meaning: ");
  expect(usual.out).toContain("  becomes: (match) => takenSafely(match.chain),\n");
  const tight = sandbox.uvran("draft", "a.js", "b.js", "--take", "tight");
  expect(tight.out).toContain("  was: javascript`${x} && ${x}.y`,\n");
  expect(sandbox.uvran("draft", "a.js", "b.js", "--move", "2").out).toContain(
    "  was: javascript`g(${value})`,\n",
  );
});

test("the trials of a rule say which version its new code needs", () => {
  const sandbox = repository({
    "a.php": "<?php\n$a = strpos($jar, 'x') !== false;\n",
    "b.php": "<?php\n$a = str_contains($jar, 'x');\n",
    "uvran.config.ts": `import { pack } from "uvran";
import { defineConfig } from "uvran/node";
import { contained } from "./own.js";
export default defineConfig({ packs: [pack("own", [contained])] });
`,
  });
  sandbox.uvran("draft", "a.php", "b.php", "--id", "php/contained", "--out", "own.ts");
  expect(sandbox.read("own.ts")).toContain('trialsIn("php", "8.0")');
  expect(sandbox.uvran("rules", "php/contained", "--try").out).toBe("passed  php/contained  1 trial\n");
});

test("what cannot be learnt from is said, with what to do", () => {
  const sandbox = new Sandbox({
    "a.py": BEFORE,
    "b.py": AFTER,
    "c.js": "f()\n",
    "d.txt": "d\n",
    "e.py": "def (:\n",
  });
  const said = (...args: string[]): [number | null, string] => {
    const { exit, err } = sandbox.uvran("draft", ...args);
    return [exit, err];
  };
  expect(said("a.py", "a.py")).toEqual([
    1,
    "a.py and a.py are the same, so there is no edit to learn from.\n",
  ]);
  expect(said("a.py", "c.js")).toEqual([
    2,
    "a.py is Python and c.js is JavaScript. A rule is about code of one language.\n",
  ]);
  expect(said("a.py", ".")).toEqual([
    2,
    "a.py is a file and . is a folder. Name two files, two folders, or two revisions.\n",
  ]);
  expect(said("d.txt", "d.txt")[1]).toBe("d.txt and d.txt are of a kind that Uvran does not read.\n");
  expect(said("nothing", "here")[1]).toContain('There is no file or folder "nothing" or "here"');
  expect(said("a.py", "e.py")).toEqual([
    1,
    "a.py is left out: it has a syntax error after the edit.\nNo file that Uvran reads was edited there, so there is nothing to learn from.\n",
  ]);
  expect(said("a.py", "b.py", "--move", "7")).toEqual([2, "There is no move 7; there is 1.\n"]);
  expect(said("a.py", "b.py", "--id", "Item Too")).toEqual([
    2,
    '"Item Too" is no id for a rule: write the language, a slash and words with hyphens, as in python/lit-smoker.\n',
  ]);
  expect(said("a.py", "b.py", "--id", "java/item-too")[1]).toContain(
    'No file of the language of "java/item-too"',
  );
  expect(said("a.py", "b.py", "--take", "meaning")).toEqual([
    1,
    "No reading finds these edits, so there is no rule by meaning. Leave --take out, or take middle.\n",
  ]);
  sandbox.write("kept.ts", "mine\n");
  expect(said("a.py", "b.py", "--out", "kept.ts")[0]).toBe(2);
  expect(sandbox.read("kept.ts")).toBe("mine\n");
});

test("where no rule does what the edit did, that is the answer", () => {
  const sandbox = new Sandbox({ "a.py": "a = 1\nb = 2\n", "b.py": "b = 2\na = 1\n" });
  const { exit, out } = sandbox.uvran("draft", "a.py", "b.py");
  expect(exit).toBe(1);
  expect(out).toMatch(/no rule found|without a rule/);
});
