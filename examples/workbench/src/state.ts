import type { Sample } from "./engine/protocol";

/** An edit made by hand, from which a rule is drafted. */
export interface HandEdit {
  readonly path: string;
  readonly before: string;
  readonly after: string;
}

/** All that is kept of a workbench: what a link to it holds. */
export interface BenchState {
  readonly samples: readonly Sample[];
  /** The rule file. */
  readonly rule: string;
  readonly edit: HandEdit | undefined;
}

/** Is this what a link or an older page may hold? */
export function isBenchState(value: unknown): value is BenchState {
  if (typeof value !== "object" || value === null) return false;
  const { samples, rule, edit } = value as Partial<BenchState>;
  const isText = (one: unknown): boolean => typeof one === "string";
  return (
    Array.isArray(samples) &&
    samples.every((one: Partial<Sample> | null) => isText(one?.path) && isText(one?.text)) &&
    isText(rule) &&
    (edit === undefined || (isText(edit?.path) && isText(edit?.before) && isText(edit?.after)))
  );
}
