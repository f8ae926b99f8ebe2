import "uvran/node";
import { assumedVersions, Engine, textAfter, type Change } from "uvran";
import pack from "uvran/packs/javascript";

/** What a way of a `switch` may be for. */
const LABELS = [
  "case null:",
  "case undefined:",
  "case 0:",
  "case null: case undefined:",
  "case null: case 0:",
];
const WAYS = [
  "return d;",
  "return x;",
  "y = d; break;",
  "y = x; break;",
  "y = d;",
  "y = x;",
  "n++; return d;",
];

/** `switch` statements with one way for some values and one for all else, in both orders. */
const SWITCHES = LABELS.flatMap((label) =>
  WAYS.flatMap((one) =>
    WAYS.flatMap((other) => [
      `switch (x) { ${label} ${one} default: ${other} }`,
      `switch (x) { default: ${other} ${label} ${one} }`,
    ]),
  ),
).map((code) => `let y; let n = 0; ${code} return [y, n];`);

/** Locals that keep a value, the test of them, and what is called of them. */
const COPIES = ["x.q", "x.find(1)", "x", "x.list[0]", "x?.q", "x.q ?? d", "new Maker()", "await x.q"].flatMap(
  (value) =>
    ["const q ="].flatMap((declares) =>
      ["if (q)", "if (q != null)", "if (q !== null)", "if (q && q.on)", "if (d && q)"].flatMap((test) =>
        [
          "q.on(1);",
          "q.on(q);",
          "q.on.call(q, 1);",
          "q(1);",
          "{ q.on(1); q.on(2); }",
          "q.on(1); q = 2;",
          "q.on(() => q);",
          "q.q?.on(1);",
        ].map((use) => `${declares} ${value}; ${test} ${use} return x && x.log;`),
      ),
    ),
);

const FILLS = ["x != null", "x", "!x", "x == null", "x !== undefined"].flatMap((test) =>
  ["return;", "return x;", "return 1;"].flatMap((way) =>
    ["x = d;", "x = d; log(x);", "y = d;"].map(
      (made) => `let y; try { f(); } finally { log(x); } function f() { if (${test}) ${way} ${made} }`,
    ),
  ),
);

const engine = new Engine(pack.rules, { targets: assumedVersions });

/** Objects that note what is called of them, and values that are no objects. */
const inputs = (): unknown[] => {
  const log: unknown[] = [];
  const made = (name: string): Record<string, unknown> => {
    const self: Record<string, unknown> & { list?: unknown[] } = { log, name, list: [] };
    self["on"] = function (this: { name?: unknown } | undefined, ...args: unknown[]): void {
      log.push(
        this?.name,
        args.map((one) => typeof one),
      );
    };
    self["find"] = (): unknown => self["q"];
    return self;
  };
  const [outer, inner] = [made("outer"), made("inner")];
  inner["q"] = made("deep");
  outer["q"] = inner;
  (outer["list"] as unknown[]).push(inner);
  const lone = made("lone");
  const odd = { ...made("odd"), q: 0, list: [""], find: () => false };
  const plain = {
    ...made("plain"),
    q: function called(this: unknown): void {
      log.push(this === undefined);
    },
  };
  return [null, undefined, 0, "", false, 5, outer, lone, odd, plain];
};

/** What a function gives for each input, what it throws, and what was called meanwhile. */
async function outcomes(body: string): Promise<string[]> {
  const kind = body.includes("await") ? "async function" : "function";
  const program = `"use strict"; class Maker { on() { log("made"); } } return ${kind} (x, d) { ${body} };`;
  const make = new Function("log", program) as (
    log: (one: unknown) => void,
  ) => (...args: unknown[]) => unknown;
  const all: string[] = [];
  for (const x of inputs()) {
    const log = (x as { log?: unknown[] } | null | undefined)?.log ?? [];
    try {
      const given = await make((one) => void log.push(typeof one))(x, "d");
      all.push(JSON.stringify([given === x ? "itself" : String(given), given === log, log]));
    } catch (error) {
      all.push(error instanceof Error ? error.constructor.name : "thrown");
    }
  }
  return all;
}

test.each([
  ["switch", SWITCHES],
  ["copied to a local", COPIES],
  ["filled in at the end", FILLS],
])("what is certain behaves as before: %s", async (_name, bodies) => {
  let certain = 0;
  for (const body of bodies) {
    const text = `${body.includes("await") ? "async " : ""}function f(x, d) { ${body} }\n`;
    const { changes } = (await engine.file("a.js", text))!;
    const sure: Change[] = changes.filter(({ trust }) => trust === "certain");
    if (sure.length === 0) continue;
    certain++;
    const now = await textAfter("a.js", text, sure);
    const inner = /^(?:async )?function f\(x, d\) \{ ([^]*) \}\n$/.exec(now)![1]!;
    expect([body, ...(await outcomes(inner))]).toEqual([body, ...(await outcomes(body))]);
  }
  expect(certain).toBeGreaterThan(1);
});
