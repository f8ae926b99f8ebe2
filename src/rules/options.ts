import { z } from "zod";
import type { Rule } from "./rule.js";

/** What the config may set of a rule, and the rule for what it sets. Made by `options`. */
export interface RuleOptions {
  /** The settings by name, each with its default and what it is for. */
  readonly schema: z.ZodObject;
  /** The rule for settings; throws a z.ZodError for those that do not fit. */
  with(settings: unknown): Rule;
}

/**
 * Settings of a rule: a schema in which every one has a default and a description, and a function that makes the rule for
 * them. The rule hands them on as its `options`, and is itself made for the defaults:
 *
 *     const make = (set: Settings): Rule => rule({ …, options: options(settings, make) });
 *     export const classFromCall = make(settings.parse({}));
 */
export function options<S extends z.ZodObject>(
  schema: S,
  make: (settings: z.output<S>) => Rule,
): RuleOptions {
  return { schema, with: (settings) => make(schema.strict().parse(settings) as z.output<S>) };
}

/** The settings of a rule for its page: name, default as JSON (empty where there is none), what it is for. */
export function settingsOf({ schema }: RuleOptions): { name: string; preset: string; says: string }[] {
  return Object.entries(schema.shape).map(([name, field]) => {
    const preset = (field as z.ZodType).safeParse(undefined);
    return {
      name,
      preset: preset.success && preset.data !== undefined ? JSON.stringify(preset.data) : "",
      says: (field as z.ZodType).description ?? "",
    };
  });
}
