import { spawnSync } from "node:child_process";
import "uvran/node";
import { Engine, textAfter, type Change } from "uvran";
import pack from "uvran/packs/python";

const lines = (...all: string[]): string => all.filter((line) => line !== "").join("\n");
const indented = (code: string): string => code.replace(/^/gm, "    ");

/** Ways to count the positions of `xs`: what stands ahead, the loop, its last statement, and the read of the item. */
const COUNTING = [
  { ahead: "", loop: "for i in range(len(xs)):", step: "", item: "xs[i]" },
  { ahead: "", loop: "for i in range(0, len(xs), 1):", step: "", item: "xs[i]" },
  { ahead: "", loop: "for i in range(1, len(xs) + 1):", step: "", item: "xs[i - 1]" },
  { ahead: "n = len(xs)", loop: "for i in range(n):", step: "", item: "xs[i]" },
  { ahead: "n = len(xs)\nEXTRA", loop: "for i in range(n):", step: "", item: "xs[i]" },
  { ahead: "i = 0", loop: "while i < len(xs):", step: "i += 1", item: "xs[i]" },
  { ahead: "i = 0\nEXTRA", loop: "while len(xs) > i:", step: "i = i + 1", item: "xs[i]" },
  { ahead: "i = 1", loop: "while i <= len(xs):", step: "i += 1", item: "xs[i - 1]" },
] as const;

/** What may stand between the length, or the first position, and the loop. */
const EXTRAS = ["out.append(7)", "xs.append(6)", "xs = [1, 2]", "n = 2", "keep = lambda: i"];

const BODIES = [
  "out.append(ITEM)",
  "x = ITEM\nout.append(x)",
  "x = ITEM\nx = x + 1\nout.append(x + ITEM)",
  "out.append((i, ITEM))",
  "if ITEM == 4: continue\nout.append(ITEM)",
  "if ITEM == 4: break\nout.append(ITEM)",
  "if ITEM == 4: return out\nout.append(ITEM)",
  "if len(xs) < 6: xs.append(5)\nout.append(ITEM)",
  "ITEM = 9\nout.append(ITEM)",
  "out.append(lambda: ITEM)",
  "out.append(lambda: i)\nout.append(ITEM)",
  "for y in [1, 2]: out.append(y + ITEM)",
  "i += 1\nout.append(ITEM)",
  "if ITEM == 3: del xs[0]\nout.append(3)",
  "xs = xs[:2]\nout.append(ITEM)",
  "out.append(len(xs) - ITEM)",
  "out.append(max(xs[0], ITEM))",
  "out = out + [ITEM]",
  "out.append(str(ITEM).strip())",
  "ITEM",
  "item = 1\nout.append(item + ITEM)",
  "out += [ITEM, *xs]",
  "out.append([y for y in xs if y > ITEM])",
  "alias.append(1) if len(alias) < 6 else None\nout.append(ITEM)",
];

const AFTER = ["", "out.append(i)", "keep = lambda: i\nout.append(keep())"];
const IN_EXPRESSIONS = [
  "out = [xs[i] for i in range(len(xs))]",
  "out = [xs[i] for i in range(len(xs)) if xs[i] > 3]",
  "out = [(i, xs[i]) for i in range(0, len(xs))]",
  "out = {i: xs[i] for i in range(len(xs))}",
  "out = sorted({xs[i] for i in range(len(xs))})",
  "out = sum(xs[i] for i in range(len(xs)))",
  "made = (xs[i] for i in range(len(xs)))\nxs.append(1)\nout = list(made)",
  "out = [xs.pop() + xs[i] for i in range(len(xs)) if i < 2]",
  "out = [lambda: xs[i] for i in range(len(xs))]",
  "i = 1\nout = [[xs[i] for i in range(len(xs))], i]",
  "out = [y for i in range(len(xs)) for y in [xs[i], i]]",
  "out = [y + xs[i] for y in [1, 2] for i in range(len(xs))]",
  "out = [[xs[i] for i in range(len(xs))] for xs in [xs, [1]]]",
];

function* spelt(): Generator<string> {
  for (const { ahead, loop, step, item } of COUNTING)
    for (const extra of ahead.includes("EXTRA") ? EXTRAS : [""])
      for (const body of BODIES)
        for (const after of AFTER) {
          const inside = lines(...body.replaceAll("ITEM", item).split("\n"), step);
          yield lines(ahead.replace("EXTRA", extra), loop, indented(inside), after);
        }
  yield* IN_EXPRESSIONS;
}

/** Runs each function, and tells what it gives, what becomes of the list, or how it fails. */
const HARNESS = `
import json
def value(x): return value(x()) if callable(x) else [value(y) for y in x] if isinstance(x, list) else repr(x)
def outcome(f):
    global left
    left = 0
    try: return value(list(f()))
    except BaseException as error: return type(error).__name__
names = sorted(name for name in dir() if name.startswith("case_"))
print(json.dumps([outcome(globals()[name]) for name in names]))
`;

const python = spawnSync("python3", ["--version"]).status === 0;
if (!python) console.warn("skipped: no python3 on this machine, so nothing is run");

(python ? test : test.skip)("a loop that walks the items does what the one that counted did", async () => {
  const cases = [...new Set(spelt())];
  const nameOf = (i: number): string => `case_${String(i).padStart(4, "0")}`;
  const source = cases
    .map((code, i) => {
      const body = lines("xs = [3, 4, 5]", "alias = xs", "out = []", code, "return [out, xs]");
      return `def ${nameOf(i)}():\n${indented(body)}\n`;
    })
    .join("\n");
  const engine = new Engine(pack.rules.filter(({ id }) => id === "python/index-and-item"));
  const found = (await engine.file("a.py", source))!;
  const after = await textAfter("a.py", source, found.changes);
  const run = (text: string): unknown[] => {
    const { stdout, stderr } = spawnSync("python3", ["-"], { input: text + HARNESS, encoding: "utf8" });
    expect(stderr).toBe("");
    return JSON.parse(stdout) as unknown[];
  };
  // Loops that go on for ever, since the step is skipped, are not run.
  const [old, now] = [run(stopped(source)), run(stopped(after))];
  const starts: number[] = [];
  let line = 1;
  for (const code of cases) {
    starts.push(line);
    line += code.split("\n").length + 6;
  }
  const changed = new Map<number, Change>();
  for (const change of found.changes)
    changed.set(
      starts.findLastIndex((at) => at <= change.line),
      change,
    );
  const wrong = [...changed].flatMap(([i, { trust }]) =>
    JSON.stringify(old[i]) === JSON.stringify(now[i])
      ? []
      : [`${trust}:\n${cases[i]!}\n  ${JSON.stringify(old[i])} became ${JSON.stringify(now[i])}`],
  );
  expect(wrong.filter((one) => one.startsWith("certain")).slice(0, 5)).toEqual([]);
  // What is likely says that the list could change through another name, and only there it does.
  expect(wrong.filter((one) => !one.includes("alias.append")).slice(0, 5)).toEqual([]);
  expect(changed.size / cases.length).toBeGreaterThan(LEAST_CHANGED);
  const certain = [...changed.values()].filter(({ trust }) => trust === "certain").length;
  expect(certain / cases.length).toBeGreaterThan(LEAST_CERTAIN);
});

const LEAST_CHANGED = 0.3;
const LEAST_CERTAIN = 0.03;

/** Each round of a `while` costs something, so that none goes on for ever. */
function stopped(source: string): string {
  const rounds = `
left = 0
def goes(test):
    global left
    left += 1
    if left > 1000: raise RuntimeError("for ever")
    return test
`;
  return rounds + source.replace(/^( *)while (.*):$/gm, "$1while goes($2):");
}
