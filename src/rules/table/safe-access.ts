import { Hole, Snippet } from "../../pattern/index.js";
import { languageOf } from "../../syntax/index.js";

/** Code that begins with a member of a hole, with that member read safely; undefined for other code, and other languages. */
export function readSafely({ language, texts, parts, context }: Snippet): Snippet | undefined {
  const [ahead = "", behind = "", ...rest] = texts;
  if (!(parts[0] instanceof Hole) || ahead.trim() !== "") return undefined;
  const steps = Object.entries(languageOf(language).flow.safeStep?.tokens ?? {});
  const [plain, safe] = steps.find(([step]) => behind.startsWith(step)) ?? [];
  if (plain === undefined || safe === undefined || plain === safe) return undefined;
  return new Snippet(language, [ahead, safe + behind.slice(plain.length), ...rest], parts, context);
}
