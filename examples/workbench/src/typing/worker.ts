import { expose } from "comlink";
import ts from "typescript";
import type { Action, Complaint, FileParts, Suggestions, TextChange, Translated } from "./protocol";
import { done } from "./rule-edits";
import { partsOf } from "./rule-parts";
import { RULE_FILE, service, setText } from "./service";

const FORMAT: ts.FormatCodeSettings = { indentSize: 2, tabSize: 2 };
const WISHES: ts.UserPreferences = {
  includeCompletionsForModuleExports: true,
  includeCompletionsWithInsertText: false,
  quotePreference: "double",
};

const messageOf = (message: string | ts.DiagnosticMessageChain): string =>
  ts.flattenDiagnosticMessageText(message, "\n");

/** All that needs the TypeScript compiler, away from the thread that draws the page. */
const typing = {
  /** A rule file as JavaScript that can be run at once. */
  translate(text: string): Translated {
    const { outputText, diagnostics = [] } = ts.transpileModule(text, {
      reportDiagnostics: true,
      fileName: RULE_FILE,
      compilerOptions: { target: ts.ScriptTarget.ES2022, module: ts.ModuleKind.CommonJS, strict: true },
    });
    const [first] = diagnostics;
    if (!first) return { js: outputText };
    const line = text.slice(0, first.start ?? 0).split("\n").length;
    return { line, problem: messageOf(first.messageText) };
  },

  /** What the compiler complains of. */
  complaints(text: string): Complaint[] {
    setText(text);
    const found = [
      ...service.getSyntacticDiagnostics(RULE_FILE),
      ...service.getSemanticDiagnostics(RULE_FILE),
    ];
    return found.map(({ start = 0, length = 0, category, messageText }) => ({
      from: start,
      to: Math.min(text.length, start + Math.max(1, length)),
      severity: category === ts.DiagnosticCategory.Error ? "error" : "warning",
      message: messageOf(messageText),
    }));
  },

  /** The words that can stand at an offset. */
  suggestions(text: string, offset: number, isAsked: boolean): Suggestions | undefined {
    setText(text);
    const before = /[\p{L}_$][\p{L}\p{N}_$]*$/u.exec(text.slice(0, offset))?.[0] ?? "";
    const trigger = text[offset - before.length - 1];
    if (!isAsked && before === "" && trigger !== "." && trigger !== '"') return undefined;
    const found = service.getCompletionsAtPosition(RULE_FILE, offset, WISHES);
    if (!found) return undefined;
    const words = found.entries
      .filter(({ source }) => source === undefined || source === "uvran")
      .map(({ name, kind, source, data, sortText, labelDetails }) => ({
        label: name,
        type: TYPES[kind] ?? "variable",
        detail: source === undefined ? labelDetails?.detail : "from uvran",
        source,
        data: data && JSON.stringify(data),
        rank: sortText,
      }));
    return { from: offset - before.length, words };
  },

  /** What a word is, in the compiler's words and in those of its documentation; and what else must be written for it. */
  details(
    text: string,
    offset: number,
    { label, source, data }: Pick<Suggestions["words"][number], "label" | "source" | "data">,
  ): { readonly says: string; readonly changes: readonly TextChange[] } {
    setText(text);
    const given = data === undefined ? undefined : (JSON.parse(data) as ts.CompletionEntryData);
    const found = service.getCompletionEntryDetails(RULE_FILE, offset, label, FORMAT, source, WISHES, given);
    const changes = (found?.codeActions ?? [])
      .flatMap((action) => action.changes)
      .flatMap((change) => change.textChanges)
      .map(({ span, newText }) => ({ from: span.start, to: span.start + span.length, insert: newText }));
    return { says: said(found?.displayParts, found?.documentation), changes };
  },

  /** What the name at an offset is. */
  hover(
    text: string,
    offset: number,
  ): { readonly from: number; readonly to: number; readonly says: string } | undefined {
    setText(text);
    const found = service.getQuickInfoAtPosition(RULE_FILE, offset);
    if (!found) return undefined;
    const { start, length } = found.textSpan;
    return { from: start, to: start + length, says: said(found.displayParts, found.documentation) };
  },

  parts: (text: string): FileParts => partsOf(text),

  /** Does something to a rule file; an Error that says why not comes back as its message. */
  act(text: string, action: Action): { readonly text: string } | { readonly problem: string } {
    try {
      return { text: done(text, action) };
    } catch (error) {
      return { problem: (error as Error).message };
    }
  },
};

const TYPES: Readonly<Record<string, string>> = {
  function: "function",
  method: "method",
  property: "property",
  const: "constant",
  keyword: "keyword",
  class: "class",
  interface: "interface",
  type: "type",
  string: "text",
};

function said(
  parts: readonly ts.SymbolDisplayPart[] | undefined,
  documentation: readonly ts.SymbolDisplayPart[] | undefined,
): string {
  return [ts.displayPartsToString([...(parts ?? [])]), ts.displayPartsToString([...(documentation ?? [])])]
    .filter((one) => one !== "")
    .join("\n\n");
}

export type Typing = typeof typing;

expose(typing);
