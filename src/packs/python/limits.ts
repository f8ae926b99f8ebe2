/** Longest line, in characters, that a rule may make out of several. */
export const LINE_LIMIT = 79;
