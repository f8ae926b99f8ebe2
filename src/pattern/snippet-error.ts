import { Hole, Maybe, Need, type Snippet } from "./hole.js";

/** A snippet that cannot be understood, with what is wrong and the text in question. */
export class SnippetError extends Error {
  override readonly name = "SnippetError";
}

/** Throws a SnippetError for a pattern with parts that only a replacement can have. */
export function checkPattern(snippet: Snippet): void {
  for (const part of snippet.parts) {
    if (part instanceof Maybe) checkPattern(part.snippet);
    else if (!(part instanceof Hole || part instanceof Need)) {
      throw new SnippetError(
        "a pattern has holes, `need` and `maybe` only; fresh names and `each` go into replacements",
      );
    }
  }
}
