import { readFileSync } from "node:fs";
import { parse } from "yaml";
import "uvran/node";
import { changes, Engine, runTrials, tableFaults, textAfter, type ChangeTable } from "uvran/core";

type Row = ChangeTable["rows"][number];

/** A table with one row, of which only what a test is about is said. */
function table(row: Partial<Row>, rest: Partial<ChangeTable> = {}): ChangeTable {
  return {
    product: "combwork",
    language: "python",
    module: "combwork",
    ...rest,
    rows: [{ old: "drain(hive)", note: "It is gone.", example: { old: "drain(hive)" }, ...row }],
  };
}

/** A row whose example becomes this. */
const becomes = (row: Partial<Row>, old: string, now: string): Partial<Row> => ({
  ...row,
  example: { old, new: now },
});

async function failures(written: ChangeTable): Promise<string[]> {
  const found = [];
  for (const one of changes(written).rules)
    for (const { failure } of await runTrials(one)) if (failure !== undefined) found.push(failure);
  return found;
}

const py = "python";
const ts = { language: "typescript" } as const;
const java = { language: "java", module: "org.combwork" } as const;

const WORKING: [what: string, row: Partial<Row>, rest?: Partial<ChangeTable>][] = [
  [
    "a name under an alias keeps it",
    becomes(
      { old: "Frame", from: "Frame", new: "Comb", to: "Comb from combwork.combs" },
      "from combwork import Frame as F, Hive\nf = F(Hive())\n",
      "from combwork import Hive\nfrom combwork.combs import Comb as F\nf = F(Hive())\n",
    ),
  ],
  [
    "a type among other names keeps its alias",
    becomes(
      { old: "Frame", from: "Frame", new: "Comb", to: "Comb" },
      'import { Hive, type Frame as F } from "combwork";\nlet f: F = Hive;\n',
      'import { Hive } from "combwork";\nimport type { Comb as F } from "combwork";\nlet f: F = Hive;\n',
    ),
    ts,
  ],
  [
    "names that are taken out of what require gives",
    becomes(
      { old: "Frame", from: "Frame", new: "Comb", to: "Comb from combwork/combs" },
      "var { Frame: F, Hive } = require('combwork');\nnew F(Hive);\n",
      "var { Hive } = require('combwork');\nvar { Comb: F } = require('combwork/combs');\nnew F(Hive);\n",
    ),
    ts,
  ],
  [
    "a name through its module",
    becomes(
      { old: "Frame", from: "Frame", new: "Comb", to: "Comb" },
      "import combwork as cw\nf = cw.Frame()\n",
      "import combwork as cw\nf = cw.Comb()\n",
    ),
  ],
  [
    "a short form names two things",
    becomes(
      { old: "open", from: "open", new: "openHive", to: "openHive" },
      'import { open } from "combwork";\nexport const api = { open };\nexport { open };\n',
      'import { openHive } from "combwork";\nexport const api = { open: openHive };\nexport { openHive as open };\n',
    ),
    ts,
  ],
  [
    "a default export becomes a named one",
    becomes(
      { old: "Yard", from: "default as Yard", new: "Yard", to: "Yard" },
      'import Yard from "combwork";\nnew Yard();\n',
      'import { Yard } from "combwork";\nnew Yard();\n',
    ),
    ts,
  ],
  [
    "require, whose module alone changes",
    becomes(
      { old: "Hive", from: "Hive", new: "Hive", to: "Hive from combwork/hives" },
      "const { Hive } = require('combwork');\nnew Hive();\n",
      "const { Hive } = require('combwork/hives');\nnew Hive();\n",
    ),
    ts,
  ],
  [
    "a class in Java, in types, constructors and static calls",
    becomes(
      { old: "Hive", from: "Hive", new: "Colony", to: "Colony from org.combwork.bees" },
      "import org.combwork.Hive;\n\nclass A {\n  Hive hive = new Hive();\n  Object all = Hive.all();\n}\n",
      "import org.combwork.bees.Colony;\n\nclass A {\n  Colony hive = new Colony();\n  Object all = Colony.all();\n}\n",
    ),
    java,
  ],
  [
    "arguments that become an object, and are given by name",
    becomes(
      { old: "open(name, size)", any: "name, size", from: "open", new: "open({ name: name, size: size })" },
      'import { open } from "combwork";\nopen("Linden", 10);\n',
      'import { open } from "combwork";\nopen({ name: "Linden", size: 10 });\n',
    ),
    ts,
  ],
  [
    "the rest of the arguments, also where there is none",
    becomes(
      { old: "put(name, …)", any: "name", from: "put", new: "store(name, …)", to: "store" },
      "from combwork import put\nput(a)\nput(b, 1, depth=2)\n",
      "from combwork import store\nstore(a)\nstore(b, 1, depth=2)\n",
    ),
  ],
  [
    "a method of objects of a class, and the same method of others",
    becomes(
      { id: "weigh", old: "hive.weigh(kg)", any: "hive: Hive, kg", new: "hive.load(kg)" },
      "from combwork import Hive\n\ndef f(hive: Hive):\n    hive.weigh(3)\n    [].weigh(3)\n",
      "from combwork import Hive\n\ndef f(hive: Hive):\n    hive.load(3)\n    [].weigh(3)\n",
    ),
  ],
  [
    "a property that becomes a method, where it is read and neither called nor written",
    becomes(
      { id: "mass", old: "hive.mass", any: "hive: Hive", new: "hive.mass()" },
      "from combwork import Hive\n\ndef f(hive: Hive):\n    hive.mass = 3\n    return hive.mass + hive.mass()\n",
      "from combwork import Hive\n\ndef f(hive: Hive):\n    hive.mass = 3\n    return hive.mass() + hive.mass()\n",
    ),
  ],
  [
    "a member of what may be missing",
    becomes(
      { id: "mass", old: "hive.mass", any: "hive: Hive", new: "hive.mass()" },
      'import type { Hive } from "combwork";\nconst f = (hive: Hive) => [hive?.mass, hive.mass];\n',
      'import type { Hive } from "combwork";\nconst f = (hive: Hive) => [hive?.mass(), hive.mass()];\n',
    ),
    ts,
  ],
  [
    "a result that is wrapped, once",
    becomes(
      { old: "names(hives)", any: "hives", from: "names", new: "list(names(hives))" },
      "from combwork import names\nfirst = names(hives)[0]\n",
      "from combwork import names\nfirst = list(names(hives))[0]\n",
    ),
  ],
  [
    "an event, by name alone",
    becomes(
      { id: "swarm", old: 'hive.on("swarm", …)', any: "hive", new: 'hive.on("swarmed", …)' },
      "h.on('swarm', f)\n",
      'h.on("swarmed", f)\n',
    ),
  ],
  [
    "what changes places, where that can be told and where not",
    becomes(
      { old: "mix(a, b)", any: "a, b", from: "mix", new: "blend(b, a)", to: "blend" },
      "from combwork import mix\nmix(wax(), honey())\nmix(3, honey())\n",
      "from combwork import blend, mix\nmix(wax(), honey())\nblend(honey(), 3)\n",
    ),
  ],
  [
    "advice",
    {
      from: "drain",
      old: "drain(…)",
      advice: "Take the frames out.",
      example: { old: "from combwork import drain\ndrain(3)" },
    },
  ],
  [
    "full names in Ruby",
    becomes(
      {
        id: "hive",
        old: "Combwork::Hive",
        from: "Combwork::Hive",
        new: "Combwork::Colony",
        to: "Combwork::Colony",
      },
      "require 'combwork'\nh = Combwork::Hive.new\n",
      "require 'combwork'\nh = Combwork::Colony.new\n",
    ),
    { language: "ruby" },
  ],
  [
    "methods in PHP",
    becomes(
      { id: "weigh", old: "$hive->weigh($kg)", any: "$hive: Hive, $kg", new: "$hive->setWeight($kg)" },
      "<?php\nuse Combwork\\Hive;\nfunction f(Hive $h) { $h->weigh(3); }\n",
      "<?php\nuse Combwork\\Hive;\nfunction f(Hive $h) { $h->setWeight(3); }\n",
    ),
    { language: "php", module: "Combwork" },
  ],
  [
    "functions in C++",
    becomes(
      { old: "cw_weigh(h, kg)", any: "h, kg", new: "cw_set_weight(kg, h)" },
      "void f(Hive *h) { cw_weigh(h, 3); }\n",
      "void f(Hive *h) { cw_set_weight(3, h); }\n",
    ),
    { language: "cpp" },
  ],
  [
    "parameters in PowerShell",
    becomes(
      { id: "colour", old: "Get-Hive -Colour $c", any: "$c", new: "Get-Hive -Color $c" },
      "$h = Get-Hive -Colour red\n",
      "$h = Get-Hive -Color red\n",
    ),
    { language: "powershell" },
  ],
];

test.each(WORKING)("%s", async (_, row, ...rest) => {
  const one = table(row, ...rest);
  // A place that is held back on purpose is no failure of the example.
  expect((await failures(one)).filter((says) => !says.startsWith("held back"))).toEqual([]);
});

const trust = async (row: Partial<Row>, code: string): Promise<string[]> => {
  const found = await new Engine(changes(table(row)).rules).file("a.py", code);
  return [
    ...(found?.changes ?? []).map((one) => one.trust),
    ...(found?.heldBack ?? []).map((one) => one.reason),
  ];
};

const load: Partial<Row> = {
  id: "weigh",
  old: "hive.weigh(kg)",
  any: "hive: Hive, kg",
  new: "hive.load(kg)",
  example: { old: "a", new: "b" },
};

test("how sure a place is goes by what is known of the receiver and of the name", async () => {
  const known = "from combwork import Hive\n\ndef f(hive: Hive):\n    hive.weigh(3)\n";
  expect(await trust(load, known)).toEqual(["certain"]);
  expect(await trust(load, "hive.weigh(3)\n")).toEqual(["possible"]);
  expect(await trust(load, "class Hive: pass\nhive = Hive()\nhive.weigh(3)\n")).toEqual([
    expect.stringContaining("which is no `Hive`"),
  ]);
  expect(await trust({ ...load, any: "hive, kg" }, known)).toEqual(["possible"]);
});

test("what a file hands on is listed and left alone", async () => {
  const row = { old: "open", from: "open", new: "openHive", to: "openHive", example: { old: "a", new: "b" } };
  const found = await new Engine(changes(table(row, ts)).rules).file(
    "a.ts",
    'export { open } from "combwork";\n',
  );
  expect(found?.changes).toEqual([]);
  expect(found?.heldBack.map(({ reason }) => reason)).toEqual(["`open` is handed on to other files here"]);
});

/** What becomes of code by a table with one row, how sure each change is, and what is advised. */
async function result(
  row: Partial<Row>,
  rest: Partial<ChangeTable>,
  path: string,
  code: string,
): Promise<{ now: string; trusts: string[]; advice: number[] }> {
  const example = { old: "a", new: "b" };
  const found = await new Engine(changes(table({ example, ...row }, rest)).rules).file(path, code);
  const { changes: made = [], advice = [] } = found ?? {};
  return {
    now: await textAfter(path, code, made),
    trusts: made.map(({ trust: sure }) => sure),
    advice: advice.map(({ line }) => line),
  };
}

test("a tag changes at both ends, also in one of its own kind", async () => {
  const row = { old: "Frame", from: "Frame", new: "Comb", to: "Comb" };
  const code =
    'import { Frame } from "combwork";\nconst a = <Frame size={3}>wax <Frame>{Frame.x}<Frame /></Frame></Frame>;\n';
  const { now, trusts } = await result(row, ts, "a.tsx", code);
  expect(now).toBe(code.replaceAll("Frame", "Comb"));
  expect(new Set(trusts)).toEqual(new Set(["certain"]));
});

const SIZE: Partial<Row> = {
  id: "size",
  old: "open(name, { …, size: n, … })",
  any: "name, n",
  from: "open",
  new: "open(name, { …, frames: n, … })",
};
const OPEN = 'import { open } from "combwork";\n';

test.each([
  ["alone", 'open("a", { size: 3 });', 'open("a", { frames: 3 });'],
  ["ahead of others", 'open("a", {size: 3, wax: 1});', 'open("a", {frames: 3, wax: 1});'],
  [
    "between lines",
    'open("a", {\n  wax: 1,\n  size: 3, // many\n});',
    'open("a", {\n  wax: 1,\n  frames: 3, // many\n});',
  ],
  ["in its short form", 'open("a", { size, wax });', 'open("a", { frames: size, wax });'],
  ["in nothing but its short form", "open(a, { size });", "open(a, { frames: size });"],
  ["not there", 'open("a", { wax: 1 });', 'open("a", { wax: 1 });'],
])("an option is renamed among others: %s", async (_, old, now) => {
  expect((await result(SIZE, ts, "a.ts", `${OPEN}${old}\n`)).now).toBe(`${OPEN}${now}\n`);
});

test("arguments of a function that stays are reported where they cannot be seen", async () => {
  const calls = [
    'open("a")',
    'open("a", { wax })',
    'open("a", wax)',
    "open(...all)",
    'open("a", { ...wax })',
    "keep(open)",
  ];
  const { advice } = await result(SIZE, ts, "a.ts", OPEN + calls.map((call) => `${call};\n`).join(""));
  expect(advice).toEqual([4, 5, 6]);
  const named = { old: "open(name, size)", any: "name, size", from: "open", new: "open(name, frames=size)" };
  const python =
    'from combwork import open\nopen("a", 3)\nopen("a")\nopen("a", frames=3)\nopen(*a)\nopen("a", **k)\n';
  expect((await result(named, {}, "a.py", python)).advice).toEqual([5, 6]);
});

test("arguments that change places under the same name change them once, and are never sure", async () => {
  const row = { old: "mark(a, b)", any: "a, b", from: "mark", new: "mark(b, a)" };
  const code = "from combwork import mark\nmark(x, 1)\nmark(mark(y, 2), 3)\n";
  expect(await result(row, {}, "a.py", code)).toMatchObject({
    now: "from combwork import mark\nmark(1, x)\nmark(3, mark(2, y))\n",
    trusts: ["likely", "likely", "likely"],
  });
  expect(
    await failures(
      table(
        becomes(row, "from combwork import mark\nmark(x, 1)\n", "from combwork import mark\nmark(1, x)\n"),
      ),
    ),
  ).toEqual([]);
});

test("what is known of a row's code is asked in a product's own files too", async () => {
  const row = { old: "swap(a, b)", any: "a, b", new: "turn(b, a)", files: "combwork.config.*" };
  const code = "swap(wax(), honey());\nswap(1, x);\n";
  const { now } = await result(row, ts, "combwork.config.ts", code);
  expect(now).toBe("swap(wax(), honey());\nturn(x, 1);\n");
});

test("arguments that cannot be seen are told from others in PHP, whose arguments have a node of their own", async () => {
  const row = {
    old: "open($a, ['size' => $n])",
    any: "$a, $n",
    from: "open from Combwork",
    new: "open($a, ['frames' => $n])",
  };
  const calls = ["open('a', ['size' => 3])", "open(...$all)", "open('a', $wax)", "open('a')"];
  const code = `<?php\nuse function Combwork\\open;\n${calls.map((call) => `${call};\n`).join("")}`;
  const { advice } = await result(row, { language: "php", module: undefined as never }, "a.php", code);
  expect(advice).toEqual([4, 5]);
});

test("keys in another order are no keys of the row, and are reported", async () => {
  const row = {
    old: "open({ name: a, size: b })",
    any: "a, b",
    from: "open",
    new: "open(a, b)",
  };
  const { now, advice } = await result(
    row,
    ts,
    "a.ts",
    `${OPEN}open({ name, size: 3 });\nopen({ size: 3, name });\nopen({ wax });\n`,
  );
  expect([now, advice]).toEqual([`${OPEN}open(name, 3);\nopen({ size: 3, name });\nopen({ wax });\n`, [3]]);
});

test.each<[string, Partial<Row>, Partial<ChangeTable>, string, string, string]>([
  [
    "Python",
    { old: "drain(h)", any: "h", from: "drain", new: "empty(h)\nclose(h)", to: "empty, close" },
    {},
    "a.py",
    "from combwork import drain\ndef f(h):\n    drain(h)\n    x = drain(h)\n",
    "from combwork import close, drain, empty\ndef f(h):\n    empty(h)\n    close(h)\n    x = drain(h)\n",
  ],
  [
    "TypeScript",
    { old: "drain(h);", any: "h", from: "drain", new: "empty(h);\nclose(h);", to: "empty, close" },
    ts,
    "a.ts",
    'import { drain } from "combwork";\n{\n  drain(h);\n  if (h) drain(h);\n}\n',
    'import { close, drain, empty } from "combwork";\n{\n  empty(h);\n  close(h);\n  if (h) drain(h);\n}\n',
  ],
  [
    "Ruby",
    { id: "drain", old: "drain(h)", any: "h", new: "empty(h)\nclose(h)" },
    { language: "ruby" },
    "a.rb",
    "drain(a)\nx = drain(b)\n",
    "empty(a)\nclose(a)\nx = drain(b)\n",
  ],
  [
    "PowerShell",
    { id: "drain", old: "Drain-Hive $h", any: "$h", new: "Clear-Hive $h\nClose-Hive $h" },
    { language: "powershell" },
    "a.ps1",
    "Drain-Hive $a\n$x = Drain-Hive $b\n",
    "Clear-Hive $a\nClose-Hive $a\n$x = Drain-Hive $b\n",
  ],
])("several statements in place of one that stands alone, in %s", async (_, row, rest, path, old, now) => {
  expect((await result(row, rest, path, old)).now).toBe(now);
});

test("words in texts that are handed to the product, and in no others", async () => {
  const row = {
    id: "card",
    old: "hive-card",
    new: "hive-tile",
    inText: "html, define",
    from: "html, define",
  };
  const code = (card: string): string =>
    'import { html, define } from "combwork";\n' +
    `const a = html\`<${card}>\n    \${other("hive-card")}<hive-card-list>\n  </${card}>\`;\n` +
    `define({ template: "<${card}/>", x() { return "hive-card"; } });\n` +
    'log("hive-card");\n';
  const { now, trusts } = await result(row, ts, "a.ts", code("hive-card"));
  expect(now).toBe(code("hive-tile"));
  expect(new Set(trusts)).toEqual(new Set(["likely"]));
});

test("keys of files that the product names", async () => {
  const row = {
    id: "max",
    old: "export default { …, maxFrames: n, … }",
    any: "n",
    new: "export default { …, frames: { max: n }, … }",
    files: "combwork.config.*",
  };
  const code = (key: string): string => `export default {\n  // how many\n  wax: 1,\n  ${key},\n};\n`;
  const there = await result(row, ts, "deep/combwork.config.ts", code("maxFrames: 10"));
  // Nothing but the name of the file says whose it is.
  expect(there).toMatchObject({ now: code("frames: { max: 10 }"), trusts: ["likely"] });
  expect((await result(row, ts, "other.ts", code("maxFrames: 10"))).trusts).toEqual([]);
});

test("uses of a name that goes are reported where no row fits them", async () => {
  const row = becomes(
    { old: "put(a, b)", any: "a, b", from: "put", new: "store(b, a)", to: "store" },
    "from combwork import put\nput(1, 2)\n",
    "from combwork import store\nstore(2, 1)\n",
  );
  const code = "from combwork import put\n\nput(1, 2)\nput(1)\nqueue(put)\n";
  const found = await new Engine(changes(table(row)).rules).file("a.py", code);
  expect(found?.changes.map(({ line }) => line)).toEqual([3]);
  expect(found?.advice?.map(({ line, rule, says }) => [line, rule, says])).toEqual(
    [4, 5].map((line) => [
      line,
      "python/combwork-put-otherwise",
      "`put` goes, and no row of the table fits this use of it: It is gone.",
    ]),
  );
});

test("a class of the project with a member of its own holds its calls back", async () => {
  const code = `
from combwork import Hive

class Nucleus(Hive):
    def weigh(self, kg): ...

def f(hive: Hive):
    hive.weigh(3)
`;
  expect(await trust(load, code)).toEqual([
    "`Nucleus` (a.py, line 4) is derived from `Hive` and has a `weigh` of its own",
  ]);
});

test("an import that is tried is not certain", async () => {
  const row = { old: "Frame", from: "Frame", new: "Frame", to: "Frame from combwork.frames" };
  const code = "try:\n    from combwork import Frame\nexcept ImportError:\n    ";
  const tried = { ...row, example: { old: "a", new: "b" } };
  expect(await trust(tried, `${code}raise SystemExit\n`)).toEqual(["likely"]);
  expect(await trust(tried, `${code}Frame = None\n`)).toEqual(["possible"]);
});

const partial: Partial<Row> = {
  old: "partial",
  from: "partial",
  new: "part",
  to: "part",
  example: { old: "a", new: "b" },
};

const IMPORTED: [what: string, code: string, now: string, held: string[]][] = [
  [
    "within a function",
    "def f():\n    from combwork import partial\n    return partial(1)\n",
    "def f():\n    from combwork import part as partial\n    return partial(1)\n",
    [],
  ],
  [
    "twice",
    "from combwork import partial\n\ndef f():\n    from combwork import partial\n\npartial(2)\n",
    // The first is free to go once the second is called something else; that name is that of a local, so it stays.
    "from combwork import part as part_2, partial\n\ndef f():\n    from combwork import part as partial\n\npart_2(2)\n",
    [],
  ],
  [
    "and named in a text",
    'from combwork import partial\n\n__all__ = ["partial"]\npartial(2)\n',
    'from combwork import partial\n\n__all__ = ["partial"]\npartial(2)\n',
    ["`partial` is named in a text too, in line 3"],
  ],
];

test.each(IMPORTED)("a name that is imported %s", async (_, code, now, held) => {
  const found = await new Engine(changes(table(partial)).rules).file("a.py", code);
  expect(await textAfter("a.py", code, found!.changes)).toBe(now);
  expect(found!.heldBack.map(({ reason }) => reason)).toEqual(held);
});

test("two things that would go by one name are told apart", async () => {
  const row = (from: string): Partial<Row> => ({
    id: from,
    old: "open(x)",
    any: "x",
    from: `open from ${from}`,
    new: "start(x)",
    to: `start from ${from}`,
    example: { old: "a", new: "b" },
  });
  const one = { ...table({}), rows: ["combs", "yards"].flatMap((from) => table(row(from)).rows) };
  const code = "from combs import open\nfrom yards import open as unlock\n\nopen(1)\nunlock(2)\n";
  const found = await new Engine(changes(one).rules).file("a.py", code);
  expect(await textAfter("a.py", code, found!.changes)).toBe(
    "from combs import start\nfrom yards import start as start_2\n\nstart(1)\nstart_2(2)\n",
  );
});

test("a list that stands for nothing needs no comma in the file", async () => {
  const row = {
    ...load,
    id: "put",
    old: "put(a, …)",
    any: "a",
    from: "put",
    new: "store(a, …)",
    to: "store",
  };
  expect(await trust(row, "from combwork import put\nput(1)\n")).toEqual(["certain"]);
});

const WRONG: [what: string, written: unknown, says: RegExp][] = [
  ["a column that is none", table({ nwe: "x" } as Partial<Row>), /^table "combwork", row 1: .*nwe/],
  ["a language that is none", table({}, { language: "cobol" as "java" }), /^table "combwork", language: /],
  ["neither new code nor advice", table({}), /row 1: there is neither `new` code nor `advice`/],
  ["no example of the result", table({ new: "x" }), /row 1, example: it does not say what becomes/],
  ["a hole that is not in the code", table({ any: "kg", advice: "x" }), /row 1: "kg" is not in `old`/],
  ["a hole of no kind", table({ any: "a b: c d", advice: "x" }), /row 1, any: "a b: c d" is no name/],
  ["a hole twice", table({ any: "hive, hive", advice: "x" }), /row 1, any: "hive" stands there twice/],
  [
    "a name from nowhere",
    table({ from: "drain", advice: "x" }, { module: undefined as never }),
    /row 1, from: "drain" does not say where it comes from/,
  ],
  [
    "more lists in new code than in old",
    table(becomes({ old: "f(…)", new: "f(…, 1, …)" }, "a", "b")),
    /row 1, new: it has more `…` than `old`/,
  ],
  [
    "a text for nobody",
    table(becomes({ old: "a", new: "b", inText: "html" }, "a", "b")),
    /row 1, inText: "html" is not in `from`/,
  ],
  ["a version that is none", table({ since: "two", advice: "x" }), /row 1, since: must be a version/],
  ["a link that is none", table({ link: "javascript:alert(1)", advice: "x" }), /row 1, link: /],
  ["no rows", { product: "combwork", language: py, rows: [] }, /^table "combwork", rows: /],
  ["nothing at all", undefined, /^the table/],
  [
    "two rows of one name",
    { ...table({ advice: "x" }), rows: [...table({ advice: "x" }).rows, ...table({ advice: "y" }).rows] },
    /row 2: it would be called "python\/combwork-drain" as row 1 is/,
  ],
];

test.each(WRONG)("a table with %s is refused, with the row and the column", (_, written, says) => {
  expect(() => changes(written as ChangeTable)).toThrow(says);
});

test("code that does not parse is named with the rule", async () => {
  const one = changes(table({ id: "odd", old: "drain((", advice: "x" }));
  await expect(runTrials(one.rules[0]!)).rejects.toThrow(/python\/combwork-odd/);
});

test("rows that get in each other's way are found by their examples", async () => {
  const there = becomes(
    { old: "open(x)", any: "x", from: "open", new: "start(x)", to: "start" },
    "from combwork import open\nopen(1)\n",
    "from combwork import start\nstart(1)\n",
  );
  const back = becomes(
    { old: "start(x)", any: "x", from: "start", new: "open(x)", to: "open" },
    "from combwork import start\nstart(1)\n",
    "from combwork import open\nopen(1)\n",
  );
  const again = { ...there, id: "again", new: "begin(x)", to: "begin" };
  const rows = [there, back, again].flatMap((row) => table(row).rows);
  const said = (await tableFaults(changes({ ...table({}), rows }))).map(
    ({ rule, other, says }) => `${rule} ${other}: ${says}`,
  );
  expect(said).toContain(
    "python/combwork-open python/combwork-start: the one takes back what the other has written",
  );
  expect(said).toContain(
    "python/combwork-again python/combwork-open: both rewrite the same code of the example",
  );
  const apart = rows.map((row, i) => ({ ...row, since: `${i + 1}.0` }));
  expect(await tableFaults(changes({ ...table({}), rows: apart }))).toEqual([]);
});

test("thirty changes of a library are said in a table, each with its example", async () => {
  const written = parse(readFileSync("tests/golden/moves/thirty.yaml", "utf8")) as ChangeTable;
  expect(written.rows).toHaveLength(30);
  expect(await failures(written)).toEqual([]);
  expect(await tableFaults(changes(written))).toEqual([]);
});

test("the table of the guide is in order", async () => {
  const [block] = /```yaml\n([^]*?)```/.exec(readFileSync("docs/moving-versions.md", "utf8"))!.slice(1);
  expect(await failures(parse(block!) as ChangeTable)).toEqual([]);
});
