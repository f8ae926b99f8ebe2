import { testWith } from "../toolchains.js";
import { Sandbox } from "./run.js";

/** The parts of the demo in languages that not every machine has, with what each needs. */
const PARTS: readonly (readonly [part: string, ...tools: string[]])[] = [
  ["shop"],
  ["reports", "python3"],
  ["ledger", "javac", "java"],
  ["queens", "g++"],
  ["jars", "mcs", "mono"],
  ["notices", "php"],
  ["kiosk", "ruby"],
];

for (const [part, ...tools] of PARTS) {
  testWith(tools, `${part} prints the same when all that is likely has been applied`, async () => {
    const demo = Sandbox.demo();
    expect(demo.run("sh", "check.sh", part).out).toBe(demo.read(`${part}/expected.txt`));
    demo.uvran("propose", part);
    expect(demo.uvran("apply", "--trust", "likely").exit).toBe(0);
    expect(demo.run("sh", "check.sh", part).out).toBe(demo.read(`${part}/expected.txt`));
    const again = JSON.parse(demo.uvran("propose", part, "--json").out) as { changes: { trust: string }[] };
    expect(again.changes.filter(({ trust }) => trust !== "possible")).toEqual([]);
  });
}
