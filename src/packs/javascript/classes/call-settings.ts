import { z } from "zod";

/** What the config says of calls that make classes. */
export const settings = z.object({
  calls: z
    .array(
      z
        .string()
        .regex(
          /^(\*\.|[\p{L}_$][\p{L}\p{N}_$.]*\.)?[\p{L}_$][\p{L}\p{N}_$]*$/u,
          "must be a name, or a member such as `Hive.extend` or `*.extend`",
        ),
    )
    .default([])
    .describe(
      "The calls that make a class of an object: `Hive.extend`, `*.extend` for a method of any class, `makeClass`. What a method is called on is the parent.",
    ),
  starts: z
    .string()
    .default("")
    .describe("The method that is to be the constructor; none where it is empty."),
  supers: z.string().default("this._super").describe("How a method calls the one that it overrides."),
  name: z.string().default("").describe("The property whose text names a class that nothing else names."),
  values: z
    .enum(["accessor", "field"])
    .default("accessor")
    .describe(
      "What a property with a plain value becomes: a getter, or a field that each object has of its own.",
    ),
});
export type Settings = z.output<typeof settings>;
