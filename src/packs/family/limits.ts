import type { LanguageId, Match } from "../../core.js";

/** How long a line usually is, in characters, where a project says nothing. */
const USUAL: Partial<Record<LanguageId, number>> = { python: 79, java: 110, ruby: 120 };
const ELSEWHERE = 100;

/** The longest line, in characters, that a rule may make: as the project says, else as is usual in the language. */
export const mostInLine = (match: Match): number =>
  match.lineLimit?.most ?? USUAL[match.tree.language.id] ?? ELSEWHERE;
