/** The codes of why a rewrite cannot be made or may not stay, each with what it is about. */
export const EDIT_CODES = {
  "edit.syntax-error": "whether the new code parses",
  "edit.layout": "whether the lines of the new code are laid out as the language wants",
  "edit.comment": "whether each comment of the old code has a place in the new",
  "edit.comment-for-tool": "whether a comment that speaks to a tool stays on the line that it speaks of",
  "edit.read-differently": "whether the new code, and what stands beside it, is read as it is meant",
  "edit.no-room": "whether the place holds what the new code needs, such as a line or a block of its own",
  "edit.clash": "whether another change, or another part of this one, wants the same text",
  "edit.calls-itself": "whether the new code calls the function that it stands in, which would never end",
  "edit.loop": "whether the rules come to an end, instead of finding work in their own results",
  "edit.import": "whether what the new code needs can be imported and named",
} as const;

export type EditCode = keyof typeof EDIT_CODES;
