import * as uvran from "uvran";
import * as core from "uvran/core";
import * as zod from "zod";
import type { Pack, Rule } from "uvran/core";

/** What a rule file may import here. */
const MODULES: Readonly<Record<string, unknown>> = {
  uvran,
  "uvran/core": core,
  zod,
};

/** The rules that a rule file exports, alone, in lists and in packs. Throws what the file throws. */
export function rulesOf(js: string): Rule[] {
  const module: { exports: Record<string, unknown> } = { exports: {} };
  const require = (name: string): unknown => {
    if (name in MODULES) return MODULES[name];
    throw new Error(`"${name}" is not at hand in the workbench: a rule imports from "uvran" and "zod" here.`);
  };
  new Function("require", "module", "exports", js)(require, module, module.exports);
  const found = new Set<Rule>();
  for (const value of Object.values(module.exports)) for (const rule of rulesIn(value)) found.add(rule);
  return [...found];
}

function rulesIn(value: unknown): readonly Rule[] {
  if (core.isRule(value)) return [value];
  if (Array.isArray(value)) return value.flatMap(rulesIn);
  const rules = (value as Partial<Pack> | null | undefined)?.rules;
  return Array.isArray(rules) ? rules.flatMap(rulesIn) : [];
}

/** What went wrong, as a person reads it. */
export function messageOf(error: unknown): string {
  if (!(error instanceof Error)) return String(error);
  return error.name === "Error" ? error.message : `${error.name}: ${error.message}`;
}
