import { languageOf, parse, type Language, type LanguageId, type SnippetContext } from "../syntax/index.js";
import { Hole, type Snippet } from "./hole.js";
import type { PatternNode } from "./pattern-node.js";
import { patternNodes } from "./read-pattern.js";
import { SnippetError } from "./snippet-error.js";
import { snippetCode, spell, spellings } from "./spelling.js";
import { turnedRound, type Placed } from "./turned.js";
import { holesOf, variantsOf } from "./variants.js";

/** A pattern ready for matching in files of one language. */
export interface CompiledPattern {
  readonly snippet: Snippet;
  readonly language: Language;
  /** The surroundings in which the snippet parsed. */
  readonly context: SnippetContext;
  /** How each part of the snippet was spelt for that. */
  readonly spelling: readonly string[];
  /** Neighbouring statements or members, or one node. Never starts with a list. */
  readonly sequence: readonly PatternNode[];
  /** Does it match statements or members that stand side by side, rather than one node within them? */
  readonly isStatements: boolean;
  /** Kind of the node a match starts at. */
  readonly rootKind: number;
  /** Is this the variant in which a hole for modifiers stands for none? */
  readonly withoutModifiers: boolean;
  /** Texts without which no file can hold a match. */
  readonly words: readonly string[];
}

/** Is a snippet in this language understood in files of `target`? */
export function snippetFits(snippet: Snippet, target: LanguageId): boolean {
  return languageOf(target).speaks.includes(snippet.language);
}

const compiled = new WeakMap<Snippet, Map<LanguageId, readonly CompiledPattern[]>>();

/**
 * Compiles a snippet for files of one language: holes are spelt so that the grammar takes them for what they
 * stand for, the text is parsed in the first context without an error, and the tree is turned into a matcher.
 * Optional parts and holes for operators make several patterns, of which the fullest comes first.
 * Throws a SnippetError when no context parses, or when nothing but a hole is left.
 */
export function compile(snippet: Snippet, target: LanguageId): readonly CompiledPattern[] {
  let byLanguage = compiled.get(snippet);
  if (!byLanguage) compiled.set(snippet, (byLanguage = new Map()));
  let patterns = byLanguage.get(target);
  if (!patterns) byLanguage.set(target, (patterns = compileAnew(snippet, target)));
  return patterns;
}

function compileAnew(snippet: Snippet, target: LanguageId): CompiledPattern[] {
  const language = languageOf(target);
  const contexts = language.contexts.filter((c) => !snippet.context || c.name === snippet.context);
  if (contexts.length === 0) throw new SnippetError(`${language.title} has no context "${snippet.context}".`);
  const result: CompiledPattern[] = [];
  const seen = new Set<string>();
  for (const variant of variantsOf(snippet)) {
    const withoutModifiers = countModifiers(variant) < countModifiers(snippet);
    for (const bare of compileVariant(variant, language, contexts)) {
      const pattern = { ...bare, withoutModifiers };
      const key = shapeOf(pattern);
      if (!seen.has(key)) result.push(pattern);
      seen.add(key);
    }
  }
  return result;
}

function countModifiers(snippet: Snippet): number {
  return holesOf(snippet).filter((hole) => hole.kind === "modifiers").length;
}

/** Pattern nodes as text, to tell whether two patterns are the same. */
function shapeOf({ sequence }: CompiledPattern): string {
  return JSON.stringify(sequence, (key, value: unknown) => (value instanceof Hole ? value.name : value));
}

type BarePattern = Omit<CompiledPattern, "withoutModifiers">;

function compileVariant(
  snippet: Snippet,
  language: Language,
  contexts: readonly SnippetContext[],
): BarePattern[] {
  const missing = snippet.parts.find((part) => part instanceof Hole && !language.holes[part.kind]);
  if (missing instanceof Hole) {
    throw new SnippetError(`${language.title} has no place for a hole of kind "${missing.kind}".`);
  }
  for (const context of contexts) {
    const result = compileIn(context, snippet, language);
    if (result.length > 0) return result;
  }
  throw new SnippetError(
    `This ${language.title} snippet has a syntax error in every context tried ` +
      `(${contexts.map((c) => c.name).join(", ")}):\n${readable(snippet)}`,
  );
}

/** The nodes of a pattern whose branch is turned round. */
function turnedNodes(
  { code, ranges }: Placed,
  snippet: Snippet,
  context: SnippetContext,
  language: Language,
): Pick<BarePattern, "sequence" | "isStatements" | "words" | "rootKind"> | undefined {
  const tree = parse(context.before + code + context.after, language);
  if (tree.errors.length > 0) return undefined;
  const shift = context.before.length;
  const places = ranges.map(({ start, end }) => ({ start: start + shift, end: end + shift }));
  const nodes = patternNodes(tree, shift, shift + code.length, snippet, places, context.name);
  const [first] = nodes.sequence;
  return first && first.type !== "hole" && first.type !== "list"
    ? { ...nodes, rootKind: first.kind }
    : undefined;
}

function readable(snippet: Snippet): string {
  return snippetCode(snippet, (i) => {
    const part = snippet.parts[i];
    return part instanceof Hole ? `⟨${part.name}⟩` : "⟨…⟩";
  });
}

/** Of the spellings that parse in this context the first one for each choice of operators. */
function compileIn(context: SnippetContext, snippet: Snippet, language: Language): BarePattern[] {
  const result: BarePattern[] = [];
  const chosen = new Set<string>();
  for (const { parts, operators } of spellings(snippet, language)) {
    if (chosen.has(operators)) continue;
    const { code, ranges } = spell(snippet, (i) => parts[i]!);
    const tree = parse(context.before + code + context.after, language);
    if (tree.errors.length > 0) continue;
    const shift = context.before.length;
    const places = ranges.map(({ start, end }) => ({ start: start + shift, end: end + shift }));
    const nodes = patternNodes(tree, shift, shift + code.length, snippet, places, context.name);
    const [first] = nodes.sequence;
    if (!first) continue;
    if (first.type === "hole" || first.type === "list") {
      throw new SnippetError(`A pattern must start with something other than a hole: ${readable(snippet)}`);
    }
    chosen.add(operators);
    const common = { snippet, language, context, spelling: parts };
    result.push({ ...common, rootKind: first.kind, ...nodes });
    const other = snippet.isExact ? undefined : turnedRound(tree, shift, { code, ranges });
    const again = other && turnedNodes(other, snippet, context, language);
    if (again) result.push({ ...common, ...again });
  }
  return result;
}
