import { spawnSync } from "node:child_process";

/** What the comparison of names with a language's own tools says, over some folders. */
function compare(script: string, folders: readonly string[]): { out: string; status: number | null } {
  const { stdout, status } = spawnSync("npx", ["jiti", `bench/names/${script}.ts`, ...folders], {
    encoding: "utf8",
  });
  return { out: stdout, status };
}

test("names mean what the TypeScript compiler says that they mean", () => {
  const { out, status } = compare("typescript", [
    "src",
    "examples/workbench/src",
    "node_modules/zod/src/v4/core",
  ]);
  expect(out).toMatch(/^\d{5,} names: \d+ as the TypeScript checker, 0 otherwise, 0 unknown/m);
  expect(status).toBe(0);
});

const { stdout: folder } = spawnSync(
  "python3",
  ["-c", "import json, os; print(os.path.dirname(os.path.dirname(json.__file__)))"],
  {
    encoding: "utf8",
  },
);
const library = folder?.trim();

// Without a Python there is nothing to compare with.
(library ? test : test.skip)("names mean what Python's symtable says that they mean", () => {
  const folders = ["json", "email", "asyncio", "logging"].map((name) => `${library}/${name}`);
  const { out, status } = compare("python", folders);
  expect(out).toMatch(/^\d{5,} names: \d+ as symtable, 0 otherwise, 0 unknown/m);
  expect(status).toBe(0);
});
