import {
  DiagnosticSeverity,
  DiagnosticTag,
  type Diagnostic,
  type DiagnosticRelatedInformation,
} from "vscode-languageserver/node";
import type { PlanChange } from "../plan/index.js";
import type { Kind, Rule } from "../rules/index.js";
import type { Workspace } from "../workspace/index.js";
import { lineRange, rangeOf } from "./convert.js";
import { uriOf, type OpenFile } from "./open-files.js";

type Evidence = Pick<PlanChange["evidence"][number], "says" | "line" | "range" | "path">;

const SEVERITY: Readonly<Record<Kind, DiagnosticSeverity>> = {
  breaks: DiagnosticSeverity.Error,
  deprecated: DiagnosticSeverity.Warning,
  smell: DiagnosticSeverity.Information,
  idiom: DiagnosticSeverity.Hint,
};

/** The name under which an editor lists what comes from here. */
export const SOURCE = "uvran";

/** What was found in a file, as an editor shows it: changes, and advice. */
export function diagnosticsOf({ plan: { changes, advice }, workspace }: OpenFile): Diagnostic[] {
  const ruleOf = (id: string): Rule | undefined => workspace.project.allRules.find((rule) => rule.id === id);
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
      relatedInformation: informationOf(related, workspace, path),
    };
  });
  const advised = advice.map(({ id, rule, kind, title, says, range, evidence, path }): Diagnostic => ({
    ...common({ rule, kind, id }, ruleOf),
    range: rangeOf(range),
    message: `${title}: ${says}`,
    relatedInformation: informationOf(evidence, workspace, path),
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
function informationOf(
  said: readonly Evidence[],
  workspace: Workspace,
  own: string,
): DiagnosticRelatedInformation[] {
  return said.flatMap(({ says, line, range, path = own }) => {
    const place = range ? rangeOf(range) : line === undefined ? undefined : lineRange(line);
    const uri = uriOf(workspace, path);
    return place ? [{ location: { uri, range: place }, message: says }] : [];
  });
}
