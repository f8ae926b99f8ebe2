import ts from "typescript";
import { afterImports, importing } from "./import-edits";
import type { Action, TextChange } from "./protocol";
import { ruleAt, ruleFile, valueOf } from "./rule-parts";
import { appendTo, applied, propertyBehind } from "./text-edits";

/** The file with one more trial of a rule. */
export function withTrial(text: string, action: Extract<Action, { does: "trial" }>): string {
  const known = ruleFile(text);
  const { file } = known;
  const { spec } = ruleAt(known, action.rule);
  const trials = valueOf(spec, "trials");
  const list = trials && ts.isArrayLiteralExpression(trials) ? trials : undefined;
  if (trials && !list)
    throw new Error("The trials of this rule are worked out by code; write the trial there.");
  const added = list
    ? applied(text, [trialIn(list, action.source, file)])
    : applied(text, [propertyBehind(spec, [], `trials: [\n    ${action.source},\n  ]`, file)]);
  const now = ruleFile(added);
  const functions = now.trials.find(({ language, isPlain }) => language === action.language && isPlain);
  if (functions) {
    const has = functions.binding.elements.some(({ name }) => name.getText(now.file) === action.function);
    if (has) return added;
    return applied(added, [
      appendTo(functions.binding.elements, functions.binding, action.function, now.file),
    ]);
  }
  const at = Math.max(afterImports(now.file), ...now.holes.map(({ statement }) => statement.end + 1));
  const line = `const { ${action.function} } = trialsIn(${JSON.stringify(action.language)});\n`;
  return importing(
    applied(added, [{ from: at, to: at, insert: now.holes.length === 0 ? `\n${line}` : line }]),
    ["trialsIn"],
  );
}

/** One more trial on lines of its own. */
function trialIn(list: ts.ArrayLiteralExpression, source: string, file: ts.SourceFile): TextChange {
  const last = list.elements.at(-1);
  if (!last) return { from: list.getStart(file), to: list.end, insert: `[\n    ${source},\n  ]` };
  const from = last.end;
  const isComma = /^\s*,/.exec(file.text.slice(from));
  const at = from + (isComma?.[0].length ?? 0);
  const rest = file.text.slice(at, list.end);
  return {
    from: at,
    to: at,
    insert: `${isComma ? "" : ","}\n    ${source},${rest.includes("\n") ? "" : "\n  "}`,
  };
}
