import { testWith } from "../toolchains.js";
import { Sandbox } from "./run.js";

/** The parts of the demo in languages that not every machine has, with what each needs. */
const PARTS: readonly (readonly [part: string, ...tools: string[]])[] = [
  ["shop"],
  ["desk"],
  ["reports", "python3"],
  ["models", "python3"],
  ["ledger", "javac", "java"],
  ["queens", "g++"],
  ["jars", "mcs", "mono"],
  ["notices", "php"],
  ["kiosk", "ruby"],
];

testWith(
  ["python3"],
  "models need nothing of the mapper's first version when it has been applied",
  async () => {
    const demo = Sandbox.demo();
    const strictly = ["-B", "-W", "error", "models/main.py"];
    expect(demo.run("python3", ...strictly).err).toContain("DeprecationWarning: make_base is of version 1");
    demo.uvran("propose", "models");
    demo.uvran("apply", "--trust", "likely");
    expect(demo.run("python3", ...strictly)).toMatchObject({
      exit: 0,
      out: demo.read("models/expected.txt"),
    });
  },
);

describe("all that is likely is applied to the demo", () => {
  let demo: Sandbox;
  let again: readonly { path: string; trust: string }[];
  beforeAll(() => {
    demo = Sandbox.demo();
    demo.uvran("propose");
    expect(demo.uvran("apply", "--trust", "likely").exit).toBe(0);
    again = (JSON.parse(demo.uvran("propose", "--json").out) as { changes: typeof again }).changes;
  });

  for (const [part, ...tools] of PARTS) {
    testWith(tools, `${part} prints the same, and nothing more is found in it`, async () => {
      const expected = demo.read(`${part}/expected.txt`);
      expect(Sandbox.demo().run("sh", "check.sh", part).out).toBe(expected);
      expect(demo.run("sh", "check.sh", part).out).toBe(expected);
      expect(again.filter(({ path, trust }) => path.startsWith(`${part}/`) && trust !== "possible")).toEqual(
        [],
      );
    });
  }
});
