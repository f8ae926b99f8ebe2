import type { HoleKind, Import, Language, LanguageId } from "../syntax/index.js";

/** A hole of a rule that is being drafted. */
export interface DraftHole {
  name: string;
  kind: HoleKind;
}

/** What stands between the texts of drafted code. */
export type DraftPart =
  | { readonly is: "hole"; readonly hole: DraftHole }
  | { readonly is: "fresh"; readonly fresh: DraftName }
  | { readonly is: "need"; readonly wanted: Import; readonly name: string }
  | { readonly is: "each"; readonly hole: DraftHole; readonly pieces: readonly DraftPiece[] };

/** A name for something that the new code declares. */
export interface DraftName {
  readonly name: string;
  readonly singularOf: DraftHole | undefined;
}

/** A piece inside the code of a hole, and what stands in its place. */
export interface DraftPiece {
  readonly pattern: DraftCode;
  readonly becomes: DraftCode;
}

/** Code with parts left open. */
export interface DraftCode {
  readonly language: LanguageId;
  readonly texts: readonly string[];
  readonly parts: readonly DraftPart[];
}

/** A language in which rules are written. */
export type RuleLanguage = Exclude<LanguageId, "tsx">;

/** The language in which a snippet for a file is written, and a rule about it named: what is TSX is written in TypeScript. */
export function languageOfRule({ id }: Language): RuleLanguage {
  return id === "tsx" ? "typescript" : id;
}
