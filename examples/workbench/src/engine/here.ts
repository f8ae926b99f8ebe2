import {
  assumedVersions,
  Engine,
  languageOfFile,
  loadGrammars,
  parse,
  saidAt,
  type Rule,
  type SyntaxNode,
} from "uvran/core";
import type { Here, Sample, Step } from "./protocol";

const NOTHING: Here = { trail: [], parts: [], origin: undefined, reads: [], why: [] };

/** What stands at a position of a sample, what it reads as, and what the rules make of its line. */
export async function hereIn({ path, text }: Sample, offset: number, rules: readonly Rule[]): Promise<Here> {
  const at = touched(text, offset);
  const line = text.slice(0, at).split("\n").length;
  const language = languageOfFile(path);
  const engine = new Engine(rules, { targets: assumedVersions });
  const why = [];
  for (const rule of rules)
    for (const { code, says } of (await engine.explain(rule, path, text, line)) ?? [])
      why.push({ rule: rule.id, code, says });
  if (!language) return { ...NOTHING, why };
  await loadGrammars([language]);
  const node = parse(text, language).nodeAt(at);
  const trail = [node, ...node.ancestors()].reverse().map(stepOf);
  const { origin, reads } = saidAt(node);
  return { trail, parts: node.parts.map(stepOf), origin, reads, why };
}

/** The offset of the character that a caret touches: the one behind it, or the one ahead where that ends a name or a line. */
export function touched(text: string, offset: number): number {
  const at = Math.min(offset, text.length);
  const isWord = (place: number): boolean => /[\p{L}\p{N}_$]/u.test(text[place] ?? "");
  const isCode = (place: number): boolean => /\S/.test(text[place] ?? "");
  if (isWord(at)) return at;
  return isWord(at - 1) || (!isCode(at) && isCode(at - 1)) ? at - 1 : at;
}

export function stepOf({ kind, field, start, end }: SyntaxNode): Step {
  return { kind, field, start, end };
}
