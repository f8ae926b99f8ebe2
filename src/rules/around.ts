import {
  checkPattern,
  compile,
  holesIn,
  matchesIn,
  matchOneAt,
  type Hole,
  type PatternMatch,
  type Snippet,
} from "../pattern/index.js";
import type { SyntaxNode } from "../syntax/index.js";
import type { Match } from "./match.js";

/**
 * Narrows a pattern by what is around the matched code or in it. A match that comes back stands for more holes
 * than the one that went in: those of the pattern that was found.
 */
export type Narrowing = ((match: Match) => boolean | Match) & {
  /** The holes that it fills; undefined where only it knows. */
  readonly brings?: ReadonlySet<Hole>;
};

const bringing = (narrowing: (match: Match) => boolean | Match, ...snippets: readonly Snippet[]): Narrowing =>
  Object.assign(narrowing, { brings: holesIn(snippets).holes });

/** How far `inside` looks: to the nearest function around the match, or through the whole file. */
export interface Reach {
  readonly upTo?: "function" | "file";
}

/** The matched code lies in code that fits a pattern; the nearest such code counts. */
export function inside(snippet: Snippet, { upTo = "file" }: Reach = {}): Narrowing {
  checkPattern(snippet);
  return bringing((match) => {
    const { tree, found } = match;
    const patterns = compile(snippet, tree.language.id);
    for (const above of match.node.ancestors()) {
      const around = matchOneAt(patterns, tree, above.id, found.captures);
      if (around) return match.and(around);
      if (upTo === "function" && above.is(tree.language.functions)) return false;
    }
    return false;
  }, snippet);
}

/** The matched code, or what one of its holes stands for, has code in it that fits a pattern. */
export function containing(snippet: Snippet, { in: where }: { in?: Hole } = {}): Narrowing {
  checkPattern(snippet);
  return bringing((match) => {
    const { tree, found } = match;
    const patterns = compile(snippet, tree.language.id);
    for (const node of where ? match.all(where) : match.nodes) {
      for (const inner of matchesIn(patterns, tree, node.id, found.captures)) {
        const isItself = !where && inner.start === found.start && inner.end === found.end;
        if (!isItself) return match.and(inner);
      }
    }
    return false;
  }, snippet);
}

/** What a hole stands for is, from its first node to its last, what one of some patterns fits. */
export function consistsOf(where: Hole, snippets: readonly Snippet[]): Narrowing {
  snippets.forEach(checkPattern);
  return bringing(
    (match) => {
      const { tree, found } = match;
      const patterns = snippets.flatMap((snippet) => compile(snippet, tree.language.id));
      const nodes = match.all(where);
      const [first, last] = [nodes[0], nodes.at(-1)];
      if (!first || !last) return false;
      const fitting = patterns.flatMap(
        (pattern) => matchOneAt([pattern], tree, first.id, found.captures) ?? [],
      );
      const whole = fitting.find(({ nodes: own }) => own.at(-1) === last.id);
      return whole ? match.and(whole) : false;
    },
    ...snippets,
  );
}

/** How near the other code must be: right beside the match, or anywhere among its neighbours. */
export interface Distance {
  readonly directly?: boolean;
}

/** Code that fits a pattern follows the matched code, in the same list of statements or members. */
export function before(snippet: Snippet, { directly = false }: Distance = {}): Narrowing {
  checkPattern(snippet);
  return bringing((match) => {
    const last = inList(match.nodes.at(-1)!);
    const following = (last?.parent?.parts ?? []).filter((node) => node.start >= last!.end);
    return firstFitting(snippet, match, directly ? following.slice(0, 1) : following);
  }, snippet);
}

/** Code that fits a pattern comes ahead of the matched code, in the same list of statements or members. */
export function after(snippet: Snippet, { directly = false }: Distance = {}): Narrowing {
  checkPattern(snippet);
  return bringing((match) => {
    const first = inList(match.nodes[0]!);
    const ahead = (first?.parent?.parts ?? []).filter((node) => node.end <= first!.start).reverse();
    return firstFitting(snippet, match, directly ? ahead.slice(0, 1) : ahead);
  }, snippet);
}

function firstFitting(snippet: Snippet, match: Match, nodes: readonly SyntaxNode[]): Match | false {
  const patterns = compile(snippet, match.tree.language.id);
  for (const node of nodes) {
    const other = fitting(patterns, node, match.found);
    if (other) return match.and(other);
  }
  return false;
}

/** A statement that fits, or for a pattern of an expression one that has it in it. */
function fitting(
  patterns: ReturnType<typeof compile>,
  { tree, id }: SyntaxNode,
  { captures }: PatternMatch,
): PatternMatch | undefined {
  const whole = matchOneAt(patterns, tree, id, captures);
  if (whole || patterns.some((pattern) => pattern.isStatements)) return whole;
  for (const inner of matchesIn(patterns, tree, id, captures)) return inner;
  return undefined;
}

/** The node's nearest self or ancestor that stands in a list of statements or members. */
function inList(node: SyntaxNode): SyntaxNode | undefined {
  const { statementLists, memberLists } = node.tree.language;
  for (let at: SyntaxNode | undefined = node; at?.parent; at = at.parent) {
    if (at.parent.is(statementLists) || at.parent.is(memberLists)) return at;
  }
  return undefined;
}

/** The opposite of another narrowing; holes of its pattern stand for nothing afterwards. */
export function not(narrowing: Narrowing): Narrowing {
  return bringing((match) => narrowing(match) === false);
}
