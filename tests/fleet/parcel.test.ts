import { existsSync } from "node:fs";
import { gzipSync } from "node:zlib";
import { unpackConfig, unpackResult, type Parcel } from "../../dist/fleet/parcel.js";
import { Sandbox } from "../cli/run.js";

const DONE = {
  ...{ uvranFleet: 1, name: "hives", from: "/hives", is: "done", step: "commit" },
  ...{ attempt: 1, basis: "b", checks: [], seconds: 1 },
};
const HIVES = { name: "hives", from: "/hives" };
const packed = (text: string): string => gzipSync(text).toString("base64");

test("what comes back from another machine is put into the folder of its repository, and nowhere else", () => {
  const sandbox = new Sandbox();
  const folder = sandbox.path("work/hives");
  const files = { "plan.json": packed("{}"), "../../out.json": packed("{}"), "state.json": packed("{}") };
  const parcel = { state: { ...DONE, name: "../lots" }, files } as unknown as Parcel;
  expect(unpackResult(parcel, HIVES, "branch", folder).name).toBe("hives");
  expect(sandbox.read("work/hives/plan.json")).toBe("{}");
  expect(JSON.parse(sandbox.read("work/hives/state.json"))).toMatchObject({ is: "done", name: "hives" });
  expect(existsSync(sandbox.path("out.json"))).toBe(false);
});

test.each([
  ["nothing", undefined],
  ["another form", { ...DONE, uvranFleet: 2 }],
  ["a state that there is not", { ...DONE, is: "perfect" }],
])("a result with %s in place of the state is refused", (_, state) => {
  const folder = new Sandbox().path("hives");
  expect(() => unpackResult({ state, files: {} } as unknown as Parcel, HIVES, "branch", folder)).toThrow();
  expect(existsSync(folder)).toBe(false);
});

test("a config that would lie outside of its folder is refused", () => {
  const sandbox = new Sandbox();
  const config = { main: "uvran.config.mjs", files: { "../evil.mjs": "" } };
  expect(() => unpackConfig(config, sandbox.path("config"))).toThrow("leads out of its folder");
  expect(existsSync(sandbox.path("evil.mjs"))).toBe(false);
});
