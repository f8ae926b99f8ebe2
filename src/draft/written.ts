import type { DraftCode, DraftPart } from "./model.js";

/** The words and signs of code that are no holes; brackets and commas do not count, and numbers say little of what an edit is about. */
export const signsOf = ({ texts, parts }: DraftCode): string[] => [
  ...(texts.join(" ").match(/[\p{L}_][\p{L}\p{N}_]*|[^\s\p{L}\p{N}_,;()[\]{}.]+/gu) ?? []),
  ...parts.flatMap((part) => (part.is === "need" ? [part.wanted.name ?? part.wanted.module] : [])),
];

/** Code with its holes by numbers, to be compared. */
export function written(code: DraftCode, seen = new Map<unknown, number>()): string {
  const number = (what: unknown): number => {
    if (!seen.has(what)) seen.set(what, seen.size);
    return seen.get(what)!;
  };
  const of = (part: DraftPart): string => {
    if (part.is === "hole") return `<${number(part.hole)}>`;
    if (part.is === "fresh") return `<new ${number(part.fresh)}>`;
    if (part.is === "need") return `<${part.wanted.module}.${part.wanted.name ?? ""}>`;
    const pieces = part.pieces.map(
      ({ pattern, becomes }) => `${written(pattern, seen)}→${written(becomes, seen)}`,
    );
    return `<${number(part.hole)} with ${pieces.join("; ")}>`;
  };
  return code.texts
    .map((text, i) => (i === 0 ? "" : of(code.parts[i - 1]!)) + text.replace(/\s+/g, " "))
    .join("");
}
