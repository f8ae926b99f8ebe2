import type { Match } from "../../core.js";

/** The longest line, in characters, that a rule may make out of several: as the project says, else as the language's style guide does. */
export const mostInLine = (match: Match): number => match.lineLimit?.most ?? 79;
