import { readFileSync } from "node:fs";
import { basename } from "node:path";
import { z } from "zod";
import { messageOf, Problem } from "../node/index.js";
import type { Earlier } from "../report/index.js";

const stored = z.object({
  made: z.iso.date().optional(),
  stock: z.object({
    all: z.object({ total: z.int().nonnegative() }),
    byRule: z.array(z.object({ name: z.string(), total: z.int().nonnegative() })),
  }),
});

/** What a survey counted that was stored as JSON. Throws a Problem for a file that holds none. */
export function earlierSurvey(file: string): Earlier {
  let found;
  try {
    found = stored.parse(JSON.parse(readFileSync(file, "utf8")));
  } catch (error) {
    const why = error instanceof z.ZodError ? "it holds no survey" : messageOf(error);
    throw new Problem(
      `${file} cannot be compared with: ${why}. Make one with: uvran survey --as json --out FILE`,
    );
  }
  const { made, stock } = found;
  return {
    name: made ?? basename(file),
    total: stock.all.total,
    byRule: new Map(stock.byRule.map(({ name, total }) => [name, total])),
  };
}
