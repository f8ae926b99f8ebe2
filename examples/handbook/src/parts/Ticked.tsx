/** A sentence with code between backticks. */
export function Ticked({ text }: { readonly text: string }) {
  return text
    .split(/(`[^`]+`)/)
    .map((part, i) =>
      part.startsWith("`") && part.length > 1 ? <code key={i}>{part.slice(1, -1)}</code> : part,
    );
}
