import { spawnSync } from "node:child_process";
import { assumedVersions, Engine, textAfter, type Change } from "uvran";
import "uvran/node";
import pack from "uvran/packs/python";

/** Ways to acquire and release one file by hand, each with all that may stand around it. */
function* spelt(): Generator<string> {
  for (const where of ["ahead", "null", "inside", "straight"] as const)
    for (const release of ["f.close()", "if f: f.close()", "try:\n    f.close()\nexcept OSError:\n    pass"])
      for (const handler of ["", "except ValueError:\n    step(4)", "except ValueError:\n    return step(4)"])
        for (const more of ["", "step(5)"])
          for (const extra of ["", "step(1)"])
            for (const early of ["", "return step(3)", "f.close()\nreturn 3"]) {
              const open = "f = open(path)";
              const leaves = early === "" ? [] : ["if flag:", indented(early)];
              const body = ["step(2)", ...leaves, "f.read()"];
              if (where === "straight") {
                if (handler === "" && more === "")
                  yield lines(open, extra, ...body, release, "step(6)", "return 8");
                continue;
              }
              const inside = where === "ahead" ? body : [extra, open, ...body];
              yield lines(
                where === "ahead" ? open : where === "null" ? "f = None" : "",
                where === "ahead" ? extra : "",
                "try:",
                indented(lines(...inside)),
                handler,
                "finally:",
                indented(lines(release, more)),
                "step(6)",
                "return 8",
              );
            }
}

const lines = (...all: string[]): string => all.filter((line) => line !== "").join("\n");
const indented = (code: string): string => code.replace(/^/gm, "    ");

/** Runs each function with each step failing, and prints what was done and what came of it. */
const HARNESS = `
import builtins, json, sys
held, log, failing = set(), [], None
def fails(what, error=ValueError):
    if failing == what: raise error(what)
class File:
    def __enter__(self): return self
    def __exit__(self, *_): self.close()
    def __iter__(self): return iter(())
    def read(self): log.append("read"); fails("read")
    def close(self): held.discard(self); fails("close", OSError)
def fake(path):
    fails("open", OSError); log.append("open"); f = File(); held.add(f); return f
def step(n):
    log.append(n); fails(n); return n
builtins.open = fake
def runs(functions):
    global failing
    result = []
    for f in functions:
        for failing in [None, 1, 2, 3, 4, 5, 6, "open", "read", "close"]:
            for flag in [False, True]:
                log.clear(); held.clear()
                try: outcome = repr(f("p", flag))
                except BaseException as error: outcome = type(error).__name__
                result.append([[*log], outcome, len(held), str(failing)])
    return result
names = [name for name in dir() if name.startswith("case_")]
print(json.dumps(runs([globals()[name] for name in sorted(names)])))
`;

type Run = readonly [log: unknown[], outcome: string, stillHeld: number, failing: string];
const PER_CASE = 20;
const LEAST_CHANGED = 0.6;
const LEAST_CERTAIN = 0.1;

const python = spawnSync("python3", ["--version"]).status === 0;
if (!python) console.warn("skipped: no python3 on this machine, so nothing is run");

(python ? test : test.skip)("what is certain of resources does the same, whatever goes wrong", async () => {
  const cases = [...new Set(spelt())];
  const nameOf = (i: number): string => `case_${String(i).padStart(4, "0")}`;
  const source = cases.map((code, i) => `def ${nameOf(i)}(path, flag):\n${indented(code)}\n`).join("\n");
  const engine = new Engine(
    pack.rules.filter(({ id }) => id === "python/scoped-resource"),
    { targets: assumedVersions },
  );
  const found = (await engine.file("a.py", source))!;
  const after = await textAfter("a.py", source, found.changes);
  const run = (text: string): Run[] => {
    const { stdout, stderr } = spawnSync("python3", ["-"], { input: text + HARNESS, encoding: "utf8" });
    expect(stderr).toBe("");
    return JSON.parse(stdout) as Run[];
  };
  const [old, now] = [run(source), run(after)];
  let line = 1;
  const lineOf = cases.map((code) => {
    const at = line;
    line += code.split("\n").length + 2;
    return at;
  });
  const changed = new Map<number, Change>();
  for (const change of found.changes)
    changed.set(
      lineOf.findLastIndex((line) => line <= change.line),
      change,
    );
  const wrong: string[] = [];
  for (const [i, change] of changed) {
    for (let k = i * PER_CASE; k < (i + 1) * PER_CASE; k++) {
      const [a, b] = [old[k]!, now[k]!];
      const isSame = JSON.stringify(a.slice(0, 2)) === JSON.stringify(b.slice(0, 2));
      // What was left open before is closed now, as the change says in a note, and closing can fail.
      const isClosed = a[2] > b[2] && b[3] === "close";
      if (!isSame && !isClosed && change.trust === "certain")
        wrong.push(`${cases[i]!}\n  ${JSON.stringify(a)} became ${JSON.stringify(b)}`);
      // Whatever happens, nothing is left open that was not before.
      if (b[2] > a[2]) wrong.push(`left open:\n${cases[i]!}\n  ${JSON.stringify(b)}`);
    }
  }
  expect(wrong.slice(0, 5)).toEqual([]);
  // Most cases are rewritten, and many for sure.
  const certain = [...changed.values()].filter(({ trust }) => trust === "certain").length;
  expect(changed.size / cases.length).toBeGreaterThan(LEAST_CHANGED);
  expect(certain / cases.length).toBeGreaterThan(LEAST_CERTAIN);
});
