import { spawn } from "node:child_process";
import {
  chmodSync,
  existsSync,
  linkSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { hostname } from "node:os";
import { resolve } from "node:path";
import { NEW_JS, OLD_JS, Sandbox } from "./run.js";

const MAIN = resolve("dist/program/uvran.js");
const COUNT = 40;

const names = Array.from({ length: COUNT }, (_, i) => `src/hive${i}.js`);

function hives(): Sandbox {
  const sandbox = new Sandbox(Object.fromEntries(names.map((name) => [name, OLD_JS])));
  sandbox.uvran("propose");
  return sandbox;
}

/** Starts a command and kills it after a while; resolves when it is gone. */
function killed(sandbox: Sandbox, command: string, after: number): Promise<void> {
  return new Promise((done) => {
    const child = spawn(process.execPath, [MAIN, command], { cwd: sandbox.root, stdio: "ignore" });
    const timer = setTimeout(() => child.kill("SIGKILL"), after);
    child.on("exit", () => {
      clearTimeout(timer);
      done();
    });
  });
}

const isOneOf = (text: string): boolean => text === OLD_JS || text === NEW_JS;
/** Everything in the project that is no source and not the state folder. */
const strangers = (sandbox: Sandbox): string[] =>
  readdirSync(sandbox.path("src")).filter((name) => !/^hive\d+\.js$/.test(name));

test("an apply and an undo that are killed at any moment leave each file whole, and can be taken back", async () => {
  const sandbox = hives();
  const moments = Array.from({ length: 14 }, (_, i) => 250 + i * 25);
  for (const after of moments) {
    await killed(sandbox, "apply", after);
    for (const name of names) expect(isOneOf(sandbox.read(name))).toBe(true);
    expect(strangers(sandbox)).toEqual([]);
    const written = names.filter((name) => sandbox.read(name) === NEW_JS).length;
    if (written > 0 && written < COUNT) {
      const { err } = sandbox.uvran("survey");
      expect(err).toContain(`An apply was interrupted: ${written} of ${COUNT} files are written.`);
      expect(err).toContain("uvran undo");
      expect(sandbox.uvran("apply").exit).toBe(1);
    }
    await killed(sandbox, "undo", after);
    for (const name of names) expect(isOneOf(sandbox.read(name))).toBe(true);
    sandbox.uvran("undo");
    for (const name of names) expect(sandbox.read(name)).toBe(OLD_JS);
  }
  expect(sandbox.uvran("apply").exit).toBe(0);
  for (const name of names) expect(sandbox.read(name)).toBe(NEW_JS);
  expect(readdirSync(sandbox.path(".uvran")).sort()).toEqual([".gitignore", "cache", "journal", "plan.json"]);
  expect(readdirSync(sandbox.path(".uvran/journal")).every((name) => /^\d+$/.test(name))).toBe(true);
});

test("an apply that is asked to stop puts back what it has written", async () => {
  const sandbox = hives();
  const child = spawn(process.execPath, [MAIN, "apply"], { cwd: sandbox.root });
  let err = "";
  child.stderr.on("data", (text: Buffer) => (err += text.toString()));
  const isBegun = (): boolean => existsSync(sandbox.path(".uvran/journal/1"));
  while (!isBegun() && child.exitCode === null) await new Promise((next) => setTimeout(next, 1));
  child.kill("SIGINT");
  const exit = await new Promise<number | null>((done) => child.on("exit", done));
  const texts = new Set(names.map((name) => sandbox.read(name)));
  expect(texts.size).toBe(1);
  if (exit === 0) return;
  expect(err).toContain("interrupted (SIGINT)");
  expect(err).toContain("All files are as they were before.");
  expect([...texts]).toEqual([OLD_JS]);
});

test("a folder that cannot be written: everything is put back, and the reason is said without a stack", () => {
  const sandbox = new Sandbox({ "a/one.js": OLD_JS, "b/two.js": OLD_JS });
  sandbox.run("chown", "-R", "65534", sandbox.root);
  sandbox.asNobody();
  sandbox.uvran("propose");
  chmodSync(sandbox.path("b"), 0o555);
  const { err, exit } = sandbox.uvran("apply");
  expect(err).toContain("The apply failed: EACCES");
  expect(err).toContain("All files are as they were before.");
  expect(err).not.toContain("    at ");
  expect(exit).toBe(1);
  expect([sandbox.read("a/one.js"), sandbox.read("b/two.js")]).toEqual([OLD_JS, OLD_JS]);
  expect(readdirSync(sandbox.path("a"))).toEqual(["one.js"]);
  chmodSync(sandbox.path("b"), 0o755);
  expect(sandbox.uvran("apply").exit).toBe(0);
});

test("a file with several names, or of somebody else, is not replaced", () => {
  const sandbox = new Sandbox({ "one.js": OLD_JS });
  linkSync(sandbox.path("one.js"), sandbox.path("other.txt"));
  sandbox.uvran("propose");
  const linked = sandbox.uvran("apply");
  expect(linked.err).toContain('"one.js" has 2 names (hard links)');
  expect(linked.exit).toBe(1);
  expect(sandbox.read("one.js")).toBe(OLD_JS);
  rmSync(sandbox.path("other.txt"));
  chmodSync(sandbox.path("one.js"), 0o754);
  expect(sandbox.uvran("apply").exit).toBe(0);
  expect(statSync(sandbox.path("one.js")).mode & 0o777).toBe(0o754);
});

test("only one command at a time changes a project, and the lock of a dead one is taken over", () => {
  const sandbox = hives();
  const lock = (pid: number): void =>
    sandbox.write(".uvran/lock", JSON.stringify({ pid, host: hostname(), command: "apply", since: "now" }));
  lock(process.pid);
  for (const command of ["apply", "undo", "propose"]) {
    const { err, exit } = sandbox.uvran(command);
    expect(err).toContain("`uvran apply` (process");
    expect(exit).toBe(1);
  }
  expect(sandbox.uvran("survey").exit).toBe(0);
  lock(2 ** 22 + 1);
  expect(sandbox.uvran("apply").exit).toBe(0);
  expect(existsSync(sandbox.path(".uvran/lock"))).toBe(false);
});

test("undo restores the rest when it may, and goes on remembering what it left alone", () => {
  const sandbox = new Sandbox({ "a.js": OLD_JS, "b.js": OLD_JS, "c.js": OLD_JS });
  sandbox.uvran("propose");
  sandbox.uvran("apply");
  sandbox.write("b.js", "mine();\n");
  rmSync(sandbox.path("c.js"));
  const refused = sandbox.uvran("undo");
  expect(refused.err).toMatch(/Changed since the apply:\n {2}b\.js\nNot there any more:\n {2}c\.js/);
  expect(refused.err).toContain("uvran undo --partly");
  expect(refused.exit).toBe(1);
  expect(sandbox.read("a.js")).toBe(NEW_JS);
  const { out } = sandbox.uvran("undo", "--partly");
  expect(out).toContain("restored  a.js");
  expect(out).toContain("left alone: changed since  b.js");
  expect(sandbox.read("a.js")).toBe(OLD_JS);
  expect(sandbox.read("b.js")).toBe("mine();\n");
  sandbox.write("b.js", NEW_JS);
  sandbox.write("c.js", NEW_JS);
  expect(sandbox.uvran("undo").out).toContain("2 files as before");
  expect(sandbox.read("c.js")).toBe(OLD_JS);
});

test("names that are legal here work from propose to undo, and never reach the terminal raw", () => {
  const odd = ["a:b.js", "back\\..\\s.js", "new\nline.js", "tab\there.js", "-dash.js", "esc\u001b[31m.js"];
  const sandbox = new Sandbox(Object.fromEntries(odd.map((name) => [name, OLD_JS])));
  sandbox.run("git", "init", "-q");
  const { out } = sandbox.uvran("propose");
  for (const shown of ['"back\\\\..\\\\s.js"', '"new\\nline.js"', '"esc\\033[31m.js"'])
    expect(out).toContain(shown);
  expect(out).not.toContain("\u001b");
  sandbox.uvran("propose", "--diff", "--out", "all.patch");
  expect(sandbox.run("git", "apply", "--check", "all.patch")).toMatchObject({ exit: 0 });
  expect(sandbox.uvran("apply").out).toContain('"tab\\there.js"');
  for (const name of odd) expect(sandbox.read(name)).toBe(NEW_JS);
  expect(sandbox.uvran("undo").exit).toBe(0);
  for (const name of odd) expect(sandbox.read(name)).toBe(OLD_JS);
  expect(sandbox.run("git", "status", "--porcelain").out).not.toContain(".uvran");
});

test.each([
  ["./a.js", "not how Uvran writes a path"],
  [".", "not how Uvran writes a path"],
  ["src", "would never look at"],
  [".git/hook.js", "would never look at"],
  [".uvran/a.js", "would never look at"],
  ["node_modules/a.js", "would never look at"],
  ["ignored/a.js", "would never look at"],
  ["notes.txt", "would never look at"],
  ["link.js", "would never look at"],
  ["a\u0000.js", "which is no path"],
  ["x".repeat(5000), "a path of 5000 characters"],
])("a plan that names %j is refused", (path, says) => {
  const sandbox = new Sandbox({ "a.js": OLD_JS, ".gitignore": "ignored\n", "notes.txt": OLD_JS });
  for (const folder of ["src", ".git", "node_modules", "ignored"]) mkdirSync(sandbox.path(folder));
  for (const file of [".git/hook.js", ".uvran/a.js", "node_modules/a.js", "ignored/a.js"])
    sandbox.write(file, OLD_JS);
  sandbox.run("ln", "-s", "a.js", "link.js");
  sandbox.uvran("propose", "a.js");
  const plan = sandbox.read(".uvran/plan.json").replaceAll('"a.js"', JSON.stringify(path));
  sandbox.write("forged.json", plan);
  const { err, exit } = sandbox.uvran("apply", "--plan", "forged.json");
  expect(err).toContain(says);
  expect(err).not.toContain("    at ");
  expect(exit).toBe(2);
  expect(sandbox.read("a.js")).toBe(OLD_JS);
});

test("a plan whose edits break a file, or hold half a character, is refused", () => {
  const sandbox = new Sandbox({ "a.js": OLD_JS });
  sandbox.uvran("propose");
  const plan = JSON.parse(sandbox.read(".uvran/plan.json"));
  for (const [text, says] of [
    ["if (", "would have a syntax error"],
    ["\ud83d", "half a character"],
  ] as const) {
    plan.changes[0].edits[0].text = text;
    writeFileSync(sandbox.path("forged.json"), JSON.stringify(plan));
    const { err, exit } = sandbox.uvran("apply", "--plan", "forged.json");
    expect(err).toContain(says);
    expect(exit).toBe(2);
  }
  expect(readFileSync(sandbox.path("a.js"), "utf8")).toBe(OLD_JS);
});

test("what a command left that was killed while it took the lock goes with the next one", () => {
  const sandbox = hives();
  sandbox.uvran("propose");
  const left = `.uvran/lock.${encodeURIComponent(hostname())}.4194999`;
  sandbox.write(left, "{");
  expect(sandbox.uvran("apply").exit).toBe(0);
  expect(existsSync(sandbox.path(left))).toBe(false);
});
