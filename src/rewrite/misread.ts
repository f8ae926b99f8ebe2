import { parse, type Language, type SyntaxNode } from "../syntax/index.js";
import { CannotRewrite } from "./settle.js";

/** Why new code cannot stand in the place of a node: it does not parse by itself, or it means something else there. */
export function misread({ tree: { language } }: SyntaxNode, code: string): CannotRewrite {
  const line = code.replace(/\s+/g, " ").trim();
  const shown = line.length > 60 ? `${line.slice(0, 59)}…` : line;
  return parsesAlone(code, language)
    ? new CannotRewrite(
        "edit.read-differently",
        `the new code \`${shown}\` would be read differently in this place`,
      )
    : new CannotRewrite("edit.syntax-error", `the new code \`${shown}\` has a syntax error`);
}

/** Does code parse in one of the places where code of the language can stand? */
function parsesAlone(code: string, language: Language): boolean {
  return language.contexts.some(
    ({ before, after }) => parse(before + code + after, language).errors.length === 0,
  );
}
