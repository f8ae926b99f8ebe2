/** A sentence with the code in it set as code. */
export function Words({ text }: { readonly text: string }) {
  return text.split("`").map((part, i) => (i % 2 === 1 ? <code key={i}>{part}</code> : part));
}

/** A number with what is counted. */
export function plural(count: number, what: string): string {
  return `${count} ${what}${count === 1 ? "" : "s"}`;
}

/** The sign of an answer, and the word for those who do not see it. */
export const SIGNS = { yes: "✓", unknown: "?", no: "✗" } as const;
