// Writes the parts of docs/ that are made from the code.
import { writeFileSync } from "node:fs";
import { planJsonSchema } from "uvran";

writeFileSync(
  new URL("../docs/plan.schema.json", import.meta.url),
  JSON.stringify(planJsonSchema(), null, 2) + "\n",
);
