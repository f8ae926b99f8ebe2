import { pathToFileURL } from "node:url";
import { join } from "node:path";
import {
  DiagnosticSeverity,
  DiagnosticTag,
  type Diagnostic,
  type DiagnosticRelatedInformation,
} from "vscode-languageserver/node";
import type { Plan, PlanChange } from "../plan/index.js";
import type { Kind, Rule } from "../rules/index.js";
import { lineRange, rangeOf } from "./convert.js";

type Evidence = Pick<PlanChange["evidence"][number], "says" | "line" | "range" | "path">;

const SEVERITY: Readonly<Record<Kind, DiagnosticSeverity>> = {
  breaks: DiagnosticSeverity.Error,
  deprecated: DiagnosticSeverity.Warning,
  smell: DiagnosticSeverity.Information,
  idiom: DiagnosticSeverity.Hint,
};

/** The name under which an editor lists what comes from here. */
export const SOURCE = "uvran";

/** What a plan says of a file, as an editor shows it: changes, and advice. `ruleOf` gives the rule with an id. */
export function diagnosticsOf(
  { changes, advice }: Plan,
  root: string,
  ruleOf: (id: string) => Rule | undefined,
): Diagnostic[] {
  const found = changes.map((change): Diagnostic => {
    const doubts = change.evidence.filter(({ answer }) => answer !== "yes");
    const { id, rules, kind, title, trust, range, path } = change;
    const related = [
      ...change.cautions,
      ...doubts,
      ...change.evidence.filter(({ answer }) => answer === "yes"),
    ];
    return {
      ...common({ rule: rules[0]!, kind, id }, ruleOf),
      range: rangeOf(range),
      message: `${title} (${trust})`,
      relatedInformation: informationOf(related, root, path),
    };
  });
  const advised = advice.map(({ id, rule, kind, title, says, range, evidence, path }): Diagnostic => ({
    ...common({ rule, kind, id }, ruleOf),
    range: rangeOf(range),
    message: `${title}: ${says}`,
    relatedInformation: informationOf(evidence, root, path),
  }));
  return [...found, ...advised];
}

function common(
  { rule, kind, id }: { readonly rule: string; readonly kind: Kind; readonly id: string },
  ruleOf: (id: string) => Rule | undefined,
): Pick<Diagnostic, "severity" | "code" | "codeDescription" | "source" | "tags" | "data"> {
  const link = ruleOf(rule)?.link;
  return {
    severity: SEVERITY[kind],
    code: rule,
    source: SOURCE,
    data: { id },
    ...(link === undefined ? {} : { codeDescription: { href: link } }),
    ...(kind === "deprecated" ? { tags: [DiagnosticTag.Deprecated] } : {}),
  };
}

/** Sentences that have a place. */
function informationOf(said: readonly Evidence[], root: string, own: string): DiagnosticRelatedInformation[] {
  return said.flatMap(({ says, line, range, path = own }) => {
    const place = range ? rangeOf(range) : line === undefined ? undefined : lineRange(line);
    const uri = pathToFileURL(join(root, path)).href;
    return place ? [{ location: { uri, range: place }, message: says }] : [];
  });
}
