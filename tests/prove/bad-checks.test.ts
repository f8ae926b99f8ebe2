import { spawnSync } from "node:child_process";
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { NEW_JS, OLD_JS, Sandbox } from "../cli/run.js";
import { FALLBACK, planned, processesWith, proved } from "./project.js";

const named = (name: string, run: string, more: object = {}): { name: string; run: string } => ({
  name,
  run,
  ...more,
});

test("a check that hangs, kills itself, floods or fails already proves nothing, and says why", () => {
  const sandbox = planned({ "a.js": FALLBACK }, [
    named("hangs", "sleep 1000", { seconds: 1 }),
    named("ends itself", "kill -9 0"),
    named("floods", "yes"),
    named("fails", "echo no such hive >&2; exit 3"),
    named("means to fail", "exit 3", { exit: 3 }),
    named("eats", `${process.execPath} -e "const a = []; for (;;) a.push(Buffer.alloc(1e7, 1))"`, {
      megabytes: 300,
    }),
    named("asks", "read answer </dev/tty"),
    named("reads", 'read answer; test -t 1 || echo "no terminal, [$answer]"'),
  ]);
  const { checks } = proved(sandbox);
  expect(checks.map(({ name, verdict, why }) => [name, verdict, why])).toEqual([
    ["hangs", "failing", "it took more than 1 s"],
    ["ends itself", "failing", "it ends with a signal on the old code"],
    ["floods", "failing", "it printed more than 50 MB"],
    ["fails", "failing", "it ends with 3 on the old code: no such hive"],
    ["means to fail", "same", undefined],
    ["eats", "failing", "it used more than 300 MB of memory"],
    ["asks", "failing", expect.stringContaining("/dev/tty")],
    ["reads", "same", undefined],
  ]);
  expect(checks.at(-1)!.before.output).toBe("no terminal, []\n");
});

test("nothing outlives a proof: not what leaves its group, not what goes on in the background", () => {
  const sandbox = planned({ "a.js": FALLBACK }, [
    named("leaves", "setsid sleep 98765 & sleep 98766 & echo done"),
    named("forks on", "setsid sh -c 'while :; do sleep 98767 & sleep 0.05; done' >/dev/null 2>&1 & true"),
  ]);
  expect(proved(sandbox).checks.map(({ verdict }) => verdict)).toEqual(["same", "same"]);
  for (const number of ["98765", "98766", "98767"]) expect(processesWith(number)).toEqual([]);
  expect(existsSync(sandbox.path(".uvran/scratch"))).toBe(false);
});

test("what a check writes stays in its copy, and is gone before the next one", () => {
  const writes =
    "echo 'broken(' > a.js; mkdir -p out/deep; echo x > out/deep/z; rm b.js; echo y > node_modules/.cache; cat a.js";
  const clean = "test ! -e out && test -e b.js && cat a.js";
  const sandbox = planned({ "a.js": FALLBACK, "b.js": "", "node_modules/p/index.js": "exports.p = 1;\n" }, [
    named("writes", writes),
    named("is clean", clean),
  ]);
  const before = statSync(sandbox.path("a.js")).mtimeMs;
  const { checks } = proved(sandbox, "--no-search");
  expect(checks.map(({ verdict }) => verdict)).toEqual(["same", "different"]);
  expect(checks[1]!.before.output).toBe(FALLBACK);
  expect(sandbox.read("a.js")).toBe(FALLBACK);
  expect(statSync(sandbox.path("a.js")).mtimeMs).toBe(before);
  expect(readdirSync(sandbox.path("node_modules"))).toEqual(["p"]);
});

test("what one check makes is there for those that say so, and may be kept for the next run", () => {
  const sandbox = planned({ "a.js": FALLBACK, "made/.keep": "" }, [
    named("makes", "test -e made/cache && echo warm >&2; cp a.js made/cache; mkdir out; echo 1 > out/x", {
      keeps: ["made/"],
    }),
    named("uses", "cat out/x", { after: ["makes"] }),
    named("does not say so", "cat out/x"),
  ]);
  expect(proved(sandbox).checks.map(({ verdict }) => verdict)).toEqual(["same", "same", "failing"]);
});

test("a full disk is said, and leaves no copy behind", () => {
  const place = mkdtempSync(join(tmpdir(), "uvran-small-"));
  const mounted = spawnSync("mount", ["-t", "tmpfs", "-o", "size=3m", "tmpfs", place]);
  if (mounted.status !== 0) return void console.warn("not tested: no small file system can be mounted here");
  try {
    const sandbox = new Sandbox();
    Object.defineProperty(sandbox, "root", { value: join(place, "project") });
    sandbox.write("a.js", FALLBACK);
    sandbox.write("large.bin", "x".repeat(2_000_000));
    sandbox.write("uvran.config.json", JSON.stringify({ checks: [named("runs", "true")] }));
    sandbox.uvran("propose");
    const { exit, err } = sandbox.uvran("prove", "--trust", "possible");
    expect([exit, err]).toEqual([1, expect.stringContaining("no space for the copies")]);
    expect(existsSync(sandbox.path(".uvran/scratch"))).toBe(false);
    const config = { checks: [named("runs", "test -s large.bin")], scratch: { link: ["*.bin"] } };
    sandbox.write("uvran.config.json", JSON.stringify(config));
    expect(sandbox.uvran("prove", "--trust", "possible").exit).toBe(0);
  } finally {
    spawnSync("umount", [place]);
  }
});

test("git in a copy is the copy's own: what is committed, what is not, and nothing that reaches the project", () => {
  const sandbox = planned({ "a.js": FALLBACK, "committed.txt": "1\n", "lib/b.js": "" }, [
    named(
      "asks",
      "git rev-parse --verify HEAD >/dev/null && git status --short && git log --format=%s && git ls-files lib",
    ),
    named(
      "throws away",
      "git stash --include-untracked --quiet; git checkout -q -b other; git remote; git gc --quiet --prune=now",
    ),
  ]);
  const git = (...parts: string[]): string =>
    sandbox.run("git", "-c", "user.name=Keeper", "-c", "user.email=k@thistledown.example", ...parts).out;
  git("init", "-q", "-b", "main");
  git("add", ".");
  git("commit", "-qm", "Hives");
  sandbox.write("committed.txt", "2\n");
  const before = [git("status", "--porcelain"), git("stash", "list"), git("branch")];
  const { checks } = proved(sandbox, "--no-search");
  expect(checks.map(({ verdict }) => verdict)).toEqual(["different", "same"]);
  expect(checks[0]!.before.output).toBe(" M committed.txt\nHives\nlib/b.js\n");
  expect(checks[0]!.lines).toContain("+ M a.js");
  expect([git("status", "--porcelain"), git("stash", "list"), git("branch")]).toEqual(before);
});

test("no git, a submodule, links inside the project and out of it, a project behind a link", () => {
  const outside = mkdtempSync(join(tmpdir(), "uvran-outside-"));
  writeFileSync(join(outside, "shared.txt"), "shared\n");
  const module = new Sandbox({ "m.txt": "module\n" });
  const own = [
    "-c",
    "user.name=Keeper",
    "-c",
    "user.email=k@thistledown.example",
    "-c",
    "protocol.file.allow=always",
  ];
  module.run("git", "init", "-q");
  module.run("git", ...own, "add", ".");
  module.run("git", ...own, "commit", "-qm", "m");
  const real = new Sandbox({
    "src/a.js": OLD_JS,
    "lib/package.json": '{"name":"lib","main":"index.js"}',
    "lib/index.js": OLD_JS,
  });
  symlinkSync("src/a.js", real.path("near.js"));
  symlinkSync(real.path("src/a.js"), real.path("full.js"));
  symlinkSync(join(outside, "shared.txt"), real.path("shared.txt"));
  mkdirSync(real.path("node_modules/@own"), { recursive: true });
  symlinkSync("../lib", real.path("node_modules/lib"));
  symlinkSync("../../lib", real.path("node_modules/@own/lib"));
  const reads = "cat near.js full.js shared.txt node_modules/lib/index.js node_modules/@own/lib/index.js";
  const checks = [named("reads", reads), named("module", "cat module/m.txt")];
  real.write("uvran.config.json", JSON.stringify({ checks: checks.slice(0, 1) }));
  const link = join(mkdtempSync(join(tmpdir(), "uvran-link-")), "project");
  symlinkSync(real.root, link);
  const linked = new Sandbox();
  Object.defineProperty(linked, "root", { value: link });
  linked.uvran("propose");
  const [first] = proved(linked, "--no-search").checks;
  // Every way to the file leads to the copy's.
  expect([first!.verdict, first!.before.output]).toEqual([
    "different",
    `${OLD_JS}${OLD_JS}shared\n${OLD_JS}${OLD_JS}`,
  ]);
  expect(first!.lines.filter((line) => line === `+${NEW_JS.trim()}`).length).toBe(4);
  real.run("git", "init", "-q");
  real.run("git", ...own, "submodule", "--quiet", "add", module.root, "module");
  real.run("git", ...own, "commit", "-qam", "all");
  real.write("uvran.config.json", JSON.stringify({ checks }));
  real.uvran("propose");
  expect(proved(real, "--no-search").checks.map(({ verdict }) => verdict)).toEqual(["different", "same"]);
  expect(readFileSync(join(outside, "shared.txt"), "utf8")).toBe("shared\n");
});
