import "uvran/node";
import {
  applyEdits,
  assumedVersions,
  Engine,
  languageOf,
  loadGrammars,
  parseFile,
  type FileResult,
} from "uvran/core";
import { SHIPPED } from "uvran/packs";

const rules = SHIPPED.flatMap((pack) => pack.rules).filter(({ taste }) => !taste);
await loadGrammars([languageOf("cpp"), languageOf("csharp"), languageOf("python"), languageOf("typescript")]);

const run = async (path: string, text: string): Promise<FileResult> =>
  (await new Engine(rules, { targets: assumedVersions }).file(path, text))!;
const fates = ({ changes, heldBack, unread = [] }: FileResult): string[] => [
  ...changes.map(({ line, trust }) => `${line} ${trust}`),
  ...heldBack.map(({ line, code }) => `${line} ${code}`),
  ...unread.map(({ line, why }) => `${line} ${why}`),
];

const NULLS = "void load() {\n  int *jar = NULL;\n}\n";
const ALONE = await run("a.cpp", NULLS);

test("without anything in the way the place is found and certain", () => {
  expect(fates(ALONE)).toEqual(["2 certain"]);
});

/** Code that the parser cannot read as it stands, and the function in it that is not looked at. */
test.each([
  [
    "a directive before else",
    "void f(int a) {\n  if (a) g();\n#ifdef B\n  else if (b) h();\n#endif\n  else i();\n}\n",
    "f",
  ],
  [
    "a directive among arguments",
    "void f() {\n  g(1,\n#if A\n    2,\n#else\n    3,\n#endif\n    4);\n}\n",
    "f",
  ],
  ["two heads, one body", "#ifdef A\nvoid f(int a) {\n#else\nvoid f() {\n#endif\n  g();\n}\n", "f"],
  [
    "nested elif",
    "void f(int a) {\n  if (a\n#if A\n#if B\n  && 1\n#elif C\n  && 2\n#else\n  && 3\n#endif\n#elif D\n  && 4\n#endif\n  ) g();\n}\n",
    "f",
  ],
  ["a macro that declares", "HIVE_DECLARE(Jar, Lid)\nHIVE_DECLARE(Pot, Lid)\n", undefined],
  ["a macro of mixed case", "RegisterHives(Jar)\n\n", undefined],
  ["a macro before a name", "class HIVE_API Jar;\nextern int HIVE_CALL weigh(int);\n", undefined],
  [
    "a macro in the head of a class",
    "class HIVE_API Jar : public Lid {};\nstruct HIVE_API Pot {};\n",
    undefined,
  ],
  [
    "a macro with arguments in the head of a class",
    "struct HIVE_EXPORT(jars) Jar final : Lid {};\nclass visible_to(jars) Lid<T*> {};\n",
    undefined,
  ],
  [
    "a macro behind the parameters",
    "int weigh(int) const HIVE_NOEXCEPT;\nstruct Hive { int f() HIVE_PURE; };\n",
    undefined,
  ],
])("C++: %s costs nothing but itself", async (_what, code, unread) => {
  const lines = code.split("\n").length - 1;
  for (const [text, line] of [
    [code + NULLS, lines + 2],
    [NULLS + code, 2],
  ] as const) {
    const result = await run("a.cpp", text);
    expect(result.unparsed).toBeUndefined();
    expect(fates(result).filter((fate) => !fate.includes("could not be read"))).toEqual([`${line} certain`]);
    expect(result.unread?.length ?? 0).toBe(unread === undefined ? 0 : 1);
  }
});

test.each([
  [
    "how parameters of a type vary",
    "interface A<in out T, out U = never> {\n  t: T;\n}\ntype B<\n  // in\n  in T extends A<T>,\n> = T;\n",
  ],
  ["all types of a file handed on", "export type * from './jars';\nexport type * as lids from './lids';\n"],
  [
    "an accessor",
    "abstract class Jar {\n  static accessor count = 1;\n  abstract accessor lid: string;\n}\n",
  ],
  ["a type of another file", "type Lid = import('./jars').Lid<Map<string, Jar>>;\n"],
])("TypeScript: %s costs nothing but itself", async (_what, code) => {
  const plain =
    "export const weight = (jar: Jar | undefined) => (jar !== undefined ? jar.weight : undefined);\n";
  for (const text of [code + plain, plain + code]) {
    const result = await run("a.ts", text);
    expect(result.unparsed).toBeUndefined();
    expect(result.unread ?? []).toEqual([]);
    const [change] = result.changes;
    expect(applyEdits(text, change!.edits)).toBe(
      text.replace("(jar !== undefined ? jar.weight : undefined)", "(jar?.weight)"),
    );
  }
});

test("what holds something hidden is not looked at, and the survey can say which and why", async () => {
  const text =
    "void f(int a) {\n  int *jar = NULL;\n  if (a) g();\n#ifdef B\n  else if (b) h();\n#endif\n  else i();\n}\n";
  const result = await run("a.cpp", text);
  expect(fates(result)).toEqual(["1 the conditional at line 4 could not be read where it stands"]);
  expect(result.unread).toEqual([expect.objectContaining({ path: "a.cpp", line: 1, code: "void f(int a)" })]);
});

test("a name that stands in what is hidden too is not resolved", async () => {
  const text = (branch: string): string =>
    `void f(int a) {\n  if (a) g();\n#ifdef B\n  else h();\n#else\n  else ${branch};\n#endif\n}\nstatic int weight;\nint h(int b) {\n  return weight + b;\n}\n`;
  const declared = (code: string): boolean => {
    const tree = parseFile(code, languageOf("cpp"));
    return tree.hiddenWith("weight").length > 0;
  };
  expect(declared(text("if (weight) h()"))).toBe(true);
  expect(declared(text("if (jar) h()"))).toBe(false);
});

test("members of all branches of a class count", async () => {
  const uses = "class Yard {\n  Hive F(Hive a, Hive b) {\n    return a != null ? a : b;\n  }\n}\n";
  const hive = (member: string): string =>
    `class Hive {\n  int F(bool a) {\n    if (a) return 1;\n#if ONE\n    else return 2;\n#else\n    else return 3;\n#endif\n  }\n#if ONE\n  int w;\n#else\n  ${member}\n#endif\n}\n`;
  const broken =
    "class Jar {\n  void F(bool a) {\n    if (a) G();\n#if ONE\n    else H();\n#endif\n    else I();\n  }\n}\n";
  expect(fates(await run("a.cs", uses + hive("int v;") + broken))[0]).toBe("3 certain");
  const own = "public static bool operator ==(Hive a, Hive b) { return true; }";
  expect(fates(await run("a.cs", uses + hive(own) + broken))[0]).toBe("3 type.operator");
});

test("a using that stands in a conditional is none for the rest of the file", () => {
  const broken =
    "class Jar {\n  void F(bool a) {\n    if (a) G();\n#if ONE\n    else H();\n#endif\n    else I();\n  }\n}\n";
  const tree = parseFile(`using System;\n#if A\nusing System.IO;\n#endif\n${broken}`, languageOf("csharp"));
  expect(tree.errors).toEqual([]);
});

test("what a conditional hides stays byte for byte, and what is beside it is rewritten", async () => {
  const code =
    "#ifdef A\nvoid f(int a) {\n#else\nvoid f() {\n#endif\n  g();\n}\nvoid load() {\n  int *jar = NULL; // why\n#ifdef B\n  h();\n#endif\n}\n";
  const result = await run("a.cpp", code);
  expect(fates(result).slice(0, 1)).toEqual(["9 certain"]);
  expect(result.changes[0]!.edits).toEqual([
    { start: code.indexOf("NULL"), end: code.indexOf("NULL") + 4, text: "nullptr" },
  ]);
});

const notebook = (...cells: string[]): string =>
  JSON.stringify({
    cells: cells.map((source) => ({ cell_type: "code", source: source.split(/(?<=\n)/) })),
    metadata: { language_info: { name: "python" } },
  });

test("cells with magics are looked at, and their magics stay", async () => {
  const old = "if x is None:\n    y = 1\nelse:\n    y = x\n";
  const all = notebook(
    `%matplotlib inline\n${old}`,
    `!pip install jars\n${old}`,
    `%%time\n${old}`,
    `${old}hives?\n`,
    `%%bash\nls -l\n`,
    `if x:\n    %run y\n${old}`,
  );
  const plain = await run("a.ipynb", notebook(old));
  const result = await run("a.ipynb", all);
  expect(plain.changes).toHaveLength(1);
  expect(result.unparsed).toMatchObject({ line: 1 });
  expect(result.changes).toHaveLength(4);
});

test("a file whose errors nothing explains stays what it was", () => {
  const text = "void f() { return 1 +; }\n#ifdef A\n#endif\n";
  const tree = parseFile(text, languageOf("cpp"));
  expect([tree.errors.length, tree.masks]).toEqual([1, []]);
});
