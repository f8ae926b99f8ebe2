import { holesFilled, holesIn, Hole, Need, Snippet, type Part } from "../pattern/index.js";
import { allLanguages, languageOf, type LanguageId } from "../syntax/index.js";
import type { Old, RuleSpec } from "./rule.js";

/** What is wrong with a rule that can be told before it meets any code, with what to do about it. */
export function authorFault(spec: RuleSpec, alternatives: readonly Old[]): string | undefined {
  if (!Array.isArray(spec.trials))
    return "`trials` must be there, if only as an empty list: code that it rewrites, and code that it leaves alone";
  const snippets = alternatives.filter((old) => old instanceof Snippet);
  return (
    first(snippets, bareFault) ??
    first(snippets, listFault) ??
    languageFault(spec, snippets) ??
    missingHole(spec, alternatives)
  );
}

function first<T>(list: readonly T[], ask: (one: T) => string | undefined): string | undefined {
  for (const one of list) {
    const found = ask(one);
    if (found !== undefined) return found;
  }
  return undefined;
}

/** A pattern of nothing but a hole fits all there is. */
function bareFault({ texts, parts }: Snippet): string | undefined {
  const [part] = parts;
  if (parts.length !== 1 || texts.some((text) => text.trim() !== "")) return undefined;
  if (part instanceof Need)
    return "the old code is nothing but what `need` names: write `named(…)` for every use of it, or `brought(…)` for its imports";
  if (part instanceof Hole)
    return `the old code is nothing but the hole \`${part.name}\`, which would fit all code: write what stands around it`;
  return undefined;
}

/** Of two lists side by side nobody knows where the first one ends. */
function listFault({ texts, parts }: Snippet): string | undefined {
  const isList = (part: Part | undefined): part is Hole => part instanceof Hole && part.isList;
  for (const [i, part] of parts.entries()) {
    const next = parts[i + 1];
    if (!isList(part) || !isList(next) || part.kind !== next.kind) continue;
    if (/^[\s,;]*$/.test(texts[i + 1]!))
      return `the lists \`${part.name}\` and \`${next.name}\` stand side by side, and nothing tells where the first one ends: make one hole of them, or write what stands between them`;
  }
  return undefined;
}

/** Old and new code must be understood in the files of some language. */
function languageFault({ becomes }: RuleSpec, snippets: readonly Snippet[]): string | undefined {
  if (!(becomes instanceof Snippet)) return undefined;
  const reads = (id: LanguageId): string[] =>
    allLanguages()
      .filter(({ speaks }) => speaks.includes(id))
      .map((language) => language.id);
  const now = reads(becomes.language);
  const other = snippets.find(({ language }) => !reads(language).some((id) => now.includes(id)));
  return (
    other &&
    `the old code is ${languageOf(other.language).title} and the new code ${languageOf(becomes.language).title}: no file holds both`
  );
}

/** A hole that the new code or a condition has and that nothing ever fills. */
function missingHole(spec: RuleSpec, alternatives: readonly Old[]): string | undefined {
  const { where = [], given = [], becomes } = spec;
  const old = holesIn(alternatives);
  if (old.isOpen || where.some(({ brings }) => brings === undefined)) return undefined;
  const filled = new Set<Hole>([...old.holes, ...where.flatMap(({ brings }) => [...brings!])]);
  const names = [...filled].map(({ name }) => `\`${name}\``).join(", ") || "none";
  const known = `it has ${names}`;
  if (becomes instanceof Snippet) {
    const hole = holesFilled(becomes).find((one) => !filled.has(one));
    if (hole) return `the new code has the hole \`${hole.name}\`, which the old code has not: ${known}`;
  }
  for (const { must, about = [] } of given) {
    const hole = about.find((one) => !filled.has(one));
    if (hole) return `"${must}" asks about the hole \`${hole.name}\`, which the old code has not: ${known}`;
  }
  return undefined;
}
