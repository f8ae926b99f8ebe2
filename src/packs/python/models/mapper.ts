import { z } from "zod";
import { need, originOf } from "../../../core.js";
import type { Need, SyntaxNode } from "../../../core.js";

/** A name by where it comes from: `combmapper.Column`. */
const origin = z
  .string()
  .regex(/^[\w.]+\.\w+$/, "must be a module and a name in it, such as `mapper.Column`");

/** The old name and the new one. */
const move = z.tuple([origin, origin]);

/** What the config says of the library that maps classes to tables: nothing is found without it. */
export const mapper = z.object({
  base: move.optional().describe("The function that makes the base class, and the class to derive it from."),
  column: move.optional().describe("What makes a column, and what makes one whose type an annotation says."),
  relation: move.optional().describe("What makes a relation to other rows, before and after."),
  typed: origin.optional().describe("What an annotation of a column or a relation is written with."),
  reference: origin.optional().describe("What a column refers to another table with."),
  types: z
    .record(z.string(), z.string())
    .default({})
    .describe(
      'The types of columns, with those of their values: `{ Whole: "int", Day: "datetime.date" }`. A type that is the first with its values need not be written any more.',
    ),
  missing: z.string().default("nullable").describe("The argument that says whether a value may be missing."),
  primary: z.string().default("primary_key").describe("The argument of the column that is the key."),
  many: z
    .string()
    .default("uselist")
    .describe("The argument that says whether a relation leads to many rows."),
  words: z
    .record(z.string(), z.string())
    .default({})
    .describe("Arguments that have another name in the new version."),
});
export type Mapper = z.output<typeof mapper>;

/** Does a call, or a name that is given, come from where the config says? */
export function isFrom(node: SyntaxNode | undefined, wanted: string | undefined): boolean {
  const called = node?.is("call") ? node.child("function") : node;
  if (!called?.is(["identifier", "attribute"]) || wanted === undefined) return false;
  const found = originOf(called);
  return (
    found !== undefined &&
    (found.name === undefined ? found.module : `${found.module}.${found.name}`) === wanted
  );
}

/** The last part of a name. */
export const lastOf = (full: string): string => full.slice(full.lastIndexOf(".") + 1);

/** Something of a module, by its whole name. */
export const needFor = (full: string): Need => need(full.slice(0, full.lastIndexOf(".")), lastOf(full));
