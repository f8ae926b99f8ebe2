import { Workspace } from "uvran/workspace";
import { Sandbox } from "../cli/run.js";

/** Languages whose imports name no more than a module: the row, a file, and what the project has beside it. */
const WHOLE: [
  language: string,
  row: object,
  path: string,
  code: string,
  other: Record<string, string>,
  trust: string,
][] = [
  ...(
    [
      ["", {}, "certain"],
      ["using Yard.Parts;\n", { "Parts.cs": "namespace Yard.Parts { class Comb {} }\n" }, "certain"],
      ["using Yard.Parts;\n", {}, "possible"],
      ["", { "Base.cs": "class Base { protected Shelf Hive { get; } }\n" }, "possible"],
      ["", { "Own.cs": "namespace Own { class Hive {} }\n" }, "possible"],
    ] as const
  ).map(([using, other, trust]): (typeof WHOLE)[number] => [
    "csharp",
    { old: "Hive.Open(n)", any: "n", from: "Hive from Combwork", new: "Hive.Start(n)" },
    "A.cs",
    `using System;\nusing Combwork;\n${using}\nclass A { void F() { Hive.Open(3); } }\n`,
    other,
    trust,
  ]),
  ...(
    [
      [{}, "certain"],
      [{ "own.rb": "module Combwork\n  class Hive\n  end\nend\n" }, "possible"],
    ] as const
  ).map(([other, trust]): (typeof WHOLE)[number] => [
    "ruby",
    {
      old: "Combwork::Hive.open(n)",
      any: "n",
      from: "Combwork::Hive from combwork",
      new: "Combwork::Hive.start(n)",
    },
    "a.rb",
    'require "combwork"\nrequire "set"\n\nCombwork::Hive.open(3)\n',
    other,
    trust,
  ]),
  ...(
    [
      [{}, "certain"],
      [{ "own.cpp": "int cw_open(int n) {\n  return n;\n}\n" }, "possible"],
    ] as const
  ).map(([other, trust]): (typeof WHOLE)[number] => [
    "cpp",
    {
      old: "cw_open(n)",
      any: "n",
      from: "cw_open from <combwork.h>",
      new: "cw_start(n)",
      to: "cw_start from <combwork.h>",
    },
    "a.cpp",
    "#include <combwork.h>\n\nvoid f() { cw_open(3); }\n",
    other,
    trust,
  ]),
];

test.each(WHOLE)(
  "%s: %j in %s is sure where its module is brought in as a whole",
  async (language, row, path, code, other, trust) => {
    const example = { old: "a", new: "b" };
    const table = {
      product: "combwork",
      language,
      rows: [{ id: "open", note: "It is called so now.", example, ...row }],
    };
    const sandbox = new Sandbox({
      "moves.json": JSON.stringify(table),
      "uvran.config.json": JSON.stringify({ tables: ["moves.json"], products: { combwork: "2" } }),
      [path]: code,
      ...other,
    });
    const workspace = await Workspace.open(sandbox.root, { rules: [`${language}/combwork-open`] });
    const { survey } = await workspace.examine();
    expect(survey.changes.map((change) => change.trust)).toEqual([trust]);
  },
);
