import type { CompiledPattern } from "../pattern/index.js";
import type { Rule } from "../rules/index.js";

/** One pattern of one rule, compiled for one language. */
export interface Entry {
  readonly rule: Rule;
  /** Place of the rule among the active ones by its id, which settles ties. */
  readonly order: number;
  readonly alternative: number;
  readonly pattern: CompiledPattern;
}
