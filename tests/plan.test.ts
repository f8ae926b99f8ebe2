import { readFileSync } from "node:fs";
import { planJsonSchema, readPlan, PlanError } from "uvran/core";

test("the published schema is the one in force; `npm run docs` writes it", () => {
  expect(JSON.parse(readFileSync("docs/plan.schema.json", "utf8"))).toEqual(planJsonSchema());
});

test.each([
  ["not JSON", "{", "not JSON"],
  ["another version", '{"uvranPlan":1,"files":{},"changes":[],"heldBack":[]}', "has form 1"],
  [
    "more than is asked for",
    '{"uvranPlan":3,"files":{},"changes":[],"heldBack":[],"advice":[],"run":"rm"}',
    "run",
  ],
])("a plan that is %s is refused", (_, json, says) => {
  expect(() => readPlan(json)).toThrow(PlanError);
  expect(() => readPlan(json)).toThrow(says);
});
