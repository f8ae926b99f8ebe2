import type { Command } from "commander";
import { openForPlan, type PlanOptions } from "./common.js";
import { nextLine } from "./propose.js";
import { examples } from "./terminal.js";

export function describeJoin(command: Command): void {
  command
    .description(
      "Puts plans together that were made of parts of a project, each on a machine of its own: the shards of `uvran propose " +
        "--shard`, or plans for different paths or rules. What comes of it is stored like the plan of one machine.",
    )
    .argument("<plan...>", "files that `uvran propose --as json --out` has written")
    .option("--config <file>", "the config to use instead of the nearest uvran.config.*")
    .addHelpText(
      "after",
      examples(
        "uvran propose --shard 1/2 --as json --out plan-1.json",
        "uvran propose --shard 2/2 --as json --out plan-2.json",
        "uvran join plan-1.json plan-2.json",
      ),
    )
    .action(join);
}

async function join(files: string[], options: PlanOptions): Promise<void> {
  const workspace = await openForPlan(options, { asksRules: false });
  const { plan, stored } = await workspace.join(files);
  process.stderr.write(nextLine(plan, stored));
}
