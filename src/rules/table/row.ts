import { z } from "zod";
import { allLanguages, type LanguageId } from "../../syntax/index.js";
import { KINDS } from "../levels.js";

const text = z.string().min(1);

const rowSchema = z.strictObject({
  /** The last part of the rule's id; worked out from the old code where it is left out. */
  id: z
    .string()
    .regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, "must be in lower case, with hyphens")
    .optional(),
  /** The old code, as it is written, with the names of `any` standing for whatever stands there. */
  old: text,
  /** The new code; a row without it gives advice. */
  new: text.optional(),
  /** What stands for anything: `name`, `rest: arguments`, `hive: Hive from combwork`, with commas between. */
  any: text.optional(),
  /** Where names of the code come from: `Hive from combwork, open from combwork.yard`. */
  from: text.optional(),
  /** The same for the new code, where it is another place. */
  to: text.optional(),
  /** Names among those of `from` to which texts are handed: `old` and `new` are words in such texts then, and no code. */
  inText: text.optional(),
  /** The files in which the code is the product's, as lines of a .gitignore name files: `combwork.config.*`. */
  files: text.optional(),
  kind: z.enum(KINDS).default("breaks"),
  /** The version from which on the new code is right. */
  since: z
    .string()
    .regex(/^\d+(\.\d+)*$/, "must be a version such as 2.1")
    .optional(),
  /** The version from which on this row is wrong again. */
  until: z
    .string()
    .regex(/^\d+(\.\d+)*$/, "must be a version such as 2.1")
    .optional(),
  link: z.url({ protocol: /^https?$/ }).optional(),
  title: text.optional(),
  /** What has changed, in a sentence. */
  note: text,
  /** What to do, for a row that writes nothing. */
  advice: text.optional(),
  /** Code that the row must rewrite, or report; run as the trial of its rule. */
  example: z.strictObject({ old: text, new: text.optional() }),
});

/** What a table of changes looks like in a file, as JSON or YAML, and in TypeScript. */
export const tableSchema = z.strictObject({
  /** The product whose changes these are, as its manifests call it. */
  product: z.string().regex(/^[@\w./:-]+$/, "must be the name by which the product is installed"),
  language: z.enum(allLanguages().map(({ id }) => id) as [LanguageId, ...LanguageId[]]),
  /** Where names come from of which a row does not say it. */
  module: text.optional(),
  /** Versions that cannot be skipped on the way. */
  steps: z.array(z.string().regex(/^\d+(\.\d+)*$/, "must be a version such as 2.1")).optional(),
  rows: z.array(rowSchema).min(1),
});

/** A list of what a product has changed, as it is written. */
export type ChangeTable = z.input<typeof tableSchema>;
/** One of its rows, checked. */
export type ChangeRow = z.output<typeof rowSchema>;
/** The table, checked. */
export type Table = z.output<typeof tableSchema>;
