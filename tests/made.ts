import { Engine, languageOfFile, rule, textAfter, type RuleSpec } from "uvran/core";
import "uvran/node";

/** What a rule with this old and new code makes of a file, and why it holds places back. */
export async function made(path: string, spec: Pick<RuleSpec, "was" | "becomes">, code: string) {
  const own = { id: `${languageOfFile(path)!.id}/own`, kind: "idiom", title: "Try", why: "w" } as const;
  const { changes, heldBack } = (await new Engine([rule({ ...own, ...spec, trials: [] })]).file(path, code))!;
  return {
    now: await textAfter(path, code, changes),
    changes,
    reasons: heldBack.map(({ reason }) => reason),
  };
}
