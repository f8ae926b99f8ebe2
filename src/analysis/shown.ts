/** Code short enough for a sentence. */
export function shortened(code: string): string {
  const line = code.replace(/\s+/g, " ");
  return line.length > 40 ? line.slice(0, 37) + "…" : line;
}
