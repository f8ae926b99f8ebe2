import "uvran/node";
import { everyUseOf, holes, isOfType, java, python, renamed, typescript, use } from "uvran";
import { make, run } from "../rules/run-rule.js";

const { name, given, value, body, params, object } = holes({
  name: "name",
  given: "arguments",
  value: "expression",
  body: "statements",
  params: "parameters",
  object: "expression",
});

/** A function whose callers in every file get another argument in front. */
const withReason = (becomes: ReturnType<typeof python> | undefined) =>
  make({
    was: python`
      def ${name}(${params}):
          ${body}
    `,
    where: [(match) => match.textOf(name) === "warn"],
    ...(becomes ? { becomes } : {}),
    uses: everyUseOf(name, [use(python`${name}(${given})`).becomes(python`${name}(${params}, ${given})`)]),
  });

const declared = "def warn(code):\n    return code\n";

test("a hole of the main match, in a use in another file, holds the text of its own file", async () => {
  const { now, plan } = await run(withReason(undefined), {
    "a.py": declared,
    "b.py": "from a import warn\n\nprint('a long line in front of it all', warn(1))\n",
  });
  expect(plan.heldBack).toEqual([]);
  expect(now["b.py"]).toBe("from a import warn\n\nprint('a long line in front of it all', warn(code, 1))\n");
});

test("an import that brings a name in under another is no use that a clause rewrites", async () => {
  const bare = make({
    was: python`
      def ${name}(${params}):
          ${body}
    `,
    where: [(match) => match.textOf(name) === "warn"],
    uses: everyUseOf(name, [use(python`${name}`).becomes(python`warning`)]),
  });
  const { now } = await run(bare, {
    "a.py": "def warn(code):\n    return code\n\n\nuse(warn)\n",
    "b.py": "from a import warn as w\nfrom a import warn\n\nuse(w, warn)\n",
  });
  expect(now["a.py"]).toContain("use(warning)");
  expect(now["b.py"]).toBe("\nuse(warning, warning)\n");
});

test("uses in other files change while the declaration stays", async () => {
  const { now, plan } = await run(withReason(undefined), {
    "a.py": declared,
    "b.py": "from a import warn\nwarn(1)\n",
    "c.py": "from a import warn\nwarn(2)\n",
  });
  expect(plan.heldBack).toEqual([]);
  expect([now["a.py"], now["b.py"], now["c.py"]]).toEqual([
    declared,
    "from a import warn\nwarn(code, 1)\n",
    "from a import warn\nwarn(code, 2)\n",
  ]);
});

const renames = (publicName?: "stays" | "changes") =>
  make({
    was: typescript`const ${name} = ${value};`,
    where: [(match) => match.textOf(name) === "jar"],
    uses: renamed(name, "pot", publicName ? { publicName } : {}),
  });
const exported = { "a.ts": "export const jar = 1;\n" };

test.each<[string, Record<string, string>, Record<string, string>]>([
  [
    "export *",
    { "b.ts": 'export * from "./a";\n', "c.ts": 'import { jar } from "./b";\nuse(jar);\n' },
    { "c.ts": 'import { pot } from "./b";\nuse(pot);\n' },
  ],
  [
    "export { x } from",
    { "b.ts": 'export { jar } from "./a";\n', "c.ts": 'import { jar } from "./b";\nuse(jar);\n' },
    { "b.ts": 'export { pot } from "./a";\n', "c.ts": 'import { pot } from "./b";\nuse(pot);\n' },
  ],
  [
    "export { x as default } from",
    { "b.ts": 'export { jar as default } from "./a";\n', "c.ts": 'import mine from "./b";\nuse(mine);\n' },
    { "b.ts": 'export { pot as default } from "./a";\n' },
  ],
  [
    "export * as ns from",
    { "b.ts": 'export * as a from "./a";\n', "c.ts": 'import { a } from "./b";\nuse(a.jar);\n' },
    { "c.ts": 'import { a } from "./b";\nuse(a.pot);\n' },
  ],
  [
    "typeof import()",
    { "c.ts": 'type Jar = typeof import("./a").jar;\n' },
    { "c.ts": 'type Jar = typeof import("./a").pot;\n' },
  ],
  [
    "await import()",
    {
      "c.ts": 'const { jar } = await import("./a");\nuse(jar);\n',
      "d.ts": 'use((await import("./a")).jar);\n',
    },
    { "d.ts": 'use((await import("./a")).pot);\n' },
  ],
])("a renamed name is followed through %s", async (_way, files, wanted) => {
  const { now, plan } = await run(renames("changes"), { ...exported, ...files });
  expect(plan.heldBack).toEqual([]);
  expect(now["a.ts"]).toBe("export const pot = 1;\n");
  expect(now).toMatchObject(wanted);
});

test("of a local that is exported below, the author says whether the public name changes", async () => {
  const files = {
    "a.ts": "const jar = 1;\nexport { jar };\n",
    "b.ts": 'import { jar } from "./a";\nuse(jar);\n',
  };
  const stays = await run(renames("stays"), files);
  expect(stays.now["a.ts"]).toBe("const pot = 1;\nexport { pot as jar };\n");
  expect(stays.now["b.ts"]).toBe(files["b.ts"]);
  const changes = await run(renames("changes"), files);
  expect(changes.now["a.ts"]).toBe("const pot = 1;\nexport { pot };\n");
  expect(changes.now["b.ts"]).toBe('import { pot } from "./a";\nuse(pot);\n');
});

test("an old import stays with a word where only a text names it, and goes where nothing does", async () => {
  const quiet = make({
    was: python`logging.warn(${given})`,
    becomes: python`note(${given})`,
  });
  const code = (rest: string): string => `import logging\n\nlogging.warn("x")\n${rest}`;
  const { now, plan } = await run(quiet, {
    "a.py": code('__all__ = ["logging"]\n'),
    "b.py": code('print("no logging here")\n'),
    "c.py": code("x.logging.warn\n"),
  });
  expect(now["a.py"]).toMatch(/^import logging\n/);
  expect(plan.changes.find(({ path }) => path === "a.py")!.notes).toEqual([
    "nothing else uses `logging`, but its import stays, since line 4 names it in a text",
  ]);
  expect(now["b.py"]).toBe('note("x")\nprint("no logging here")\n');
});

test("what a class is derived from takes nothing from what imports say of its types", async () => {
  const dated = make({
    was: java`${object}.getYear()`,
    given: [isOfType(object, "Date", { module: "java.util" })],
    becomes: java`${object}.yearOf()`,
  });
  const { plan } = await run(dated, {
    "A.java":
      "import java.util.Date;\n\nclass A extends Base {\n  int y(Date d) { return d.getYear(); }\n}\n",
  });
  expect(plan.changes.map(({ trust }) => trust)).toEqual(["certain"]);
});
