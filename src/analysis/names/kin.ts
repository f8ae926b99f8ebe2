import type { Language } from "../../syntax/index.js";

/** Can files of these languages use each other? */
export function areKin(a: Language, b: Language): boolean {
  return a.speaks.some((id) => b.speaks.includes(id)) || a.speaks.includes(b.id) || b.speaks.includes(a.id);
}
