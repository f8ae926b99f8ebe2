import {
  languageOf,
  parse,
  significantChildren,
  unwrapped,
  type Language,
  type LanguageId,
  type NodeId,
  type SyntaxTree,
} from "../syntax/index.js";
import { Hole, type Snippet } from "./hole.js";
import { linesOf } from "./snippet-text.js";

/** One node of a compiled pattern. Kinds are the grammar's numbers. */
export type PatternNode =
  | { readonly type: "hole"; readonly hole: Hole }
  | { readonly type: "list"; readonly hole: Hole; readonly commaBefore: boolean }
  | { readonly type: "leaf"; readonly kind: number; readonly kindName: string; readonly text: string }
  | { readonly type: "inner"; readonly kind: number; readonly children: readonly PatternNode[] };

/** A pattern ready for matching in files of one language. */
export interface CompiledPattern {
  readonly snippet: Snippet;
  readonly language: Language;
  /** Neighbouring statements, or one node. Never starts with a list. */
  readonly sequence: readonly PatternNode[];
  /** Does it match statements, rather than one expression? */
  readonly isStatements: boolean;
  /** Kind of the node a match starts at. */
  readonly rootKind: number;
  /** Texts without which no file can hold a match. */
  readonly words: readonly string[];
}

/** A snippet that cannot be understood, with what is wrong and the text in question. */
export class SnippetError extends Error {
  override readonly name = "SnippetError";
}

const placeholder = (i: number): string => `uvranHole${i}z`;
const PLACEHOLDER = /^uvranHole(\d+)z$/;

/** The language whose grammar reads this snippet in files of `target`, or undefined if they do not fit. */
export function snippetFits(snippet: Snippet, target: LanguageId): boolean {
  return languageOf(target).speaks.includes(snippet.language);
}

/** The snippet as plain code, with `fill` giving the text of each part. */
export function snippetCode(snippet: Snippet, fill: (part: number) => string): string {
  const step = languageOf(snippet.language).indentUnit;
  return linesOf(snippet)
    .map(({ level, items }) => {
      const text = items.map((item) => (typeof item === "number" ? fill(item) : item)).join("");
      return text === "" ? "" : step.repeat(level) + text;
    })
    .join("\n");
}

/**
 * Compiles a snippet for files of one language: holes become names that are legal there, the text is parsed
 * in the first context without an error, and the tree is turned into a matcher.
 * Throws a SnippetError when no context parses, or when nothing but a hole is left.
 */
export function compile(snippet: Snippet, target: LanguageId): CompiledPattern {
  let byLanguage = compiled.get(snippet);
  if (!byLanguage) compiled.set(snippet, (byLanguage = new Map()));
  let pattern = byLanguage.get(target);
  if (!pattern) byLanguage.set(target, (pattern = compileAnew(snippet, target)));
  return pattern;
}

const compiled = new WeakMap<Snippet, Map<LanguageId, CompiledPattern>>();

function compileAnew(snippet: Snippet, target: LanguageId): CompiledPattern {
  const language = languageOf(target);
  const code = snippetCode(snippet, placeholder);
  for (const context of language.contexts) {
    const tree = parse(context.before + code + context.after, language);
    if (tree.errors.length > 0) {
      tree.dispose();
      continue;
    }
    try {
      return new Compiler(snippet, tree, code).compile(context.name === "expression");
    } finally {
      tree.dispose();
    }
  }
  throw new SnippetError(
    `This ${language.title} snippet has a syntax error in every context tried ` +
      `(${language.contexts.map((c) => c.name).join(", ")}):\n${snippetCode(snippet, (i) => holeName(snippet, i))}`,
  );
}

function holeName(snippet: Snippet, i: number): string {
  const part = snippet.parts[i];
  return part instanceof Hole ? `⟨${part.name}⟩` : "⟨…⟩";
}

class Compiler {
  readonly #snippet: Snippet;
  readonly #tree: SyntaxTree;
  readonly #code: string;
  readonly #words = new Set<string>();

  constructor(snippet: Snippet, tree: SyntaxTree, code: string) {
    this.#snippet = snippet;
    this.#tree = tree;
    this.#code = code;
  }

  compile(unwrapParentheses: boolean): CompiledPattern {
    const tree = this.#tree;
    const { language } = tree;
    let roots = significantChildren(tree, 0);
    let isStatements = true;
    const only = roots[0];
    if (roots.length === 1 && only !== undefined && tree.kind(only) === language.expressionStatement) {
      const inner = significantChildren(tree, only);
      const endsOpen = !this.#code.trimEnd().endsWith(language.statementSeparator);
      const isExpression = inner.length === 1 && !language.notExpressions.includes(tree.kind(inner[0]!));
      if (isExpression && endsOpen) {
        roots = [unwrapParentheses ? unwrapped(tree, inner[0]!) : inner[0]!];
        isStatements = false;
      }
    }
    const sequence = roots.map((root) => this.#node(root, language.expressionStatement));
    const first = sequence[0];
    if (!first || first.type === "hole" || first.type === "list") {
      throw new SnippetError(`A pattern must start with something other than a hole: ${this.#code}`);
    }
    return {
      snippet: this.#snippet,
      language,
      sequence,
      isStatements,
      rootKind: first.kind,
      words: [...this.#words],
    };
  }

  #hole(n: NodeId): Hole | undefined {
    const { language } = this.#tree;
    if (!this.#tree.isLeaf(n) || !language.names.includes(this.#tree.kind(n))) return undefined;
    const number = PLACEHOLDER.exec(this.#tree.textOf(n))?.[1];
    if (number === undefined) return undefined;
    const part = this.#snippet.parts[Number(number)];
    // In a replacement compiled for comparison, a fresh name or a replacing stands like an expression.
    return part instanceof Hole ? part : new Hole(`part ${number}`, "expression");
  }

  #node(n: NodeId, statementKind: string): PatternNode {
    const tree = this.#tree;
    n = unwrapped(tree, n);
    if (tree.kind(n) === statementKind) {
      const inner = significantChildren(tree, n);
      const hole = inner.length === 1 ? this.#hole(inner[0]!) : undefined;
      if (hole?.kind === "statements") return { type: "list", hole, commaBefore: false };
      if (hole?.kind === "statement") return { type: "hole", hole };
    }
    const hole = this.#hole(n);
    if (hole) return { type: "hole", hole };
    const kind = tree.kindIds[n]!;
    const kindName = tree.kind(n);
    if (tree.isLeaf(n) || tree.language.strings.includes(kindName)) {
      const text = tree.textOf(n);
      this.#words.add(tree.language.strings.includes(kindName) ? text.replace(/^\W+|\W+$/g, "") : text);
      return { type: "leaf", kind, kindName, text };
    }
    const isArguments = tree.language.argumentLists.includes(kindName);
    const children: PatternNode[] = [];
    for (const child of significantChildren(tree, n)) {
      const hole = isArguments ? this.#hole(child) : undefined;
      if (hole?.kind !== "arguments") {
        children.push(this.#node(child, statementKind));
        continue;
      }
      const before = children.at(-1);
      const commaBefore = before?.type === "leaf" && before.text === ",";
      if (commaBefore) children.pop();
      children.push({ type: "list", hole, commaBefore });
    }
    return { type: "inner", kind, children };
  }
}
