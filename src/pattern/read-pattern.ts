import {
  anyCase,
  significantChildren,
  tokenIdsOf,
  unwrapped,
  type ContextName,
  type NodeId,
  type SyntaxTree,
} from "../syntax/index.js";
import { Hole, Need, type Snippet } from "./hole.js";
import type { InnerNode, LeafNode, ListNode, PatternNode, TextNode } from "./pattern-node.js";
import { kindOf } from "./spelling.js";
import { splitString } from "./strings.js";

/** What a snippet's tree comes to. */
export interface PatternNodes {
  readonly sequence: readonly PatternNode[];
  readonly isStatements: boolean;
  readonly words: readonly string[];
}

interface Place {
  readonly start: number;
  readonly end: number;
}

/**
 * Turns the part of a tree from `start` to `end` into pattern nodes. `places` are where the snippet's parts
 * stand in the tree's text; offsets in UTF-16 code units.
 */
export function patternNodes(
  tree: SyntaxTree,
  start: number,
  end: number,
  snippet: Snippet,
  places: readonly Place[],
  context: ContextName,
): PatternNodes {
  return new Reader(tree, snippet, places).read(start, end, context);
}

class Reader {
  readonly #tree: SyntaxTree;
  readonly #snippet: Snippet;
  readonly #places: readonly Place[];
  readonly #words = new Set<string>();

  constructor(tree: SyntaxTree, snippet: Snippet, places: readonly Place[]) {
    this.#tree = tree;
    this.#snippet = snippet;
    this.#places = places;
  }

  read(start: number, end: number, context: ContextName): PatternNodes {
    const tree = this.#tree;
    const { language } = tree;
    let roots = this.#rootsIn(start, end);
    const parent = roots.length > 0 ? tree.parents[roots[0]!]! : -1;
    const list = parent >= 0 ? tree.kind(parent) : "";
    let isStatements = language.statementLists.includes(list) || language.memberLists.includes(list);
    if (context === "expression" || context === "type" || context === "parameter") isStatements = false;
    const [only] = roots;
    if (roots.length === 1 && only !== undefined && context !== "member") {
      const inner = this.#bareExpression(only, context);
      if (inner !== undefined) {
        roots = [context === "expression" ? unwrapped(tree, inner) : inner];
        isStatements = false;
      }
    }
    const sequence = roots.map((root) => this.#node(root));
    const brought = this.#snippet.parts.flatMap((part) => (part instanceof Need ? [part.word] : []));
    return { sequence, isStatements, words: [...new Set([...this.#words, ...brought])] };
  }

  /** The outermost neighbouring nodes that together fill the range, comments and layout aside. */
  #rootsIn(start: number, end: number): NodeId[] {
    const tree = this.#tree;
    let n = 0;
    search: for (;;) {
      for (const c of significantChildren(tree, n)) {
        const isWider = tree.starts[c]! < start || tree.ends[c]! > end;
        if (isWider && tree.starts[c]! <= start && tree.ends[c]! >= end) {
          n = c;
          continue search;
        }
      }
      const inside = significantChildren(tree, n).filter((c) => {
        return tree.starts[c]! >= start && tree.ends[c]! <= end && tree.ends[c]! > tree.starts[c]!;
      });
      // Nodes that only hold a list of others stand for what they hold.
      const [only] = inside;
      if (inside.length !== 1 || only === undefined || !this.#isList(only)) return inside;
      n = only;
    }
  }

  #isList(n: NodeId): boolean {
    const { language } = this.#tree;
    const kind = this.#tree.kind(n);
    return language.statementLists.includes(kind) && !this.#hasBrackets(n);
  }

  #hasBrackets(n: NodeId): boolean {
    const [first] = this.#tree.children(n);
    return first !== undefined && !this.#tree.isNamed(first);
  }

  /** The expression that the snippet is, if it is nothing more. */
  #bareExpression(n: NodeId, context: ContextName): NodeId | undefined {
    const tree = this.#tree;
    const { expressionStatement, notExpressions, statementLists } = tree.language;
    if (expressionStatement === "") {
      const parent = tree.parents[n]!;
      const inList = parent >= 0 && statementLists.includes(tree.kind(parent));
      return inList && context === "statement" && this.#snippet.context !== "statement" ? n : undefined;
    }
    if (tree.kind(n) !== expressionStatement || this.#snippet.context === "statement") return undefined;
    const inner = significantChildren(tree, n);
    const [only] = inner;
    if (inner.length !== 1 || only === undefined || notExpressions.includes(tree.kind(only)))
      return undefined;
    return tree.textOf(n).endsWith(tree.language.statementSeparator) ? undefined : only;
  }

  #node(n: NodeId): PatternNode {
    const tree = this.#tree;
    const { language } = tree;
    const outer = n;
    n = unwrapped(tree, n);
    const hole = this.#holeAt(n);
    if (hole?.isList) return { type: "list", hole, comma: undefined };
    if (hole) return { type: "hole", hole, parentheses: this.#layers(outer, n) };
    const kind = tree.kindIds[n]!;
    const kindName = tree.kind(n);
    const inside = this.#partsIn(n);
    const isString = language.strings.includes(kindName);
    const isToken = tree.isLeaf(n) || (isString && inside.every((i) => this.#kindOf(i) === "text"));
    if (isToken && inside.length > 0) return this.#withText(n, inside);
    if (isToken) {
      const text = tree.textOf(n);
      const mayDiffer = anyCase(language, kindName, tree.isNamed(n));
      // Braces may be left out around a single statement, a comma goes with a list that stands for nothing, a colon in a short form.
      const isInShort = Object.values(language.shortForms).includes(tree.kind(tree.parents[n]!));
      const mayGo = text === "{" || text === "}" || text === "," || (text === ":" && isInShort);
      const isMirrored = text in language.mirrored && this.#commutes(tree.parents[n]!);
      if (!mayDiffer && !mayGo && !isMirrored)
        this.#words.add(isString ? (splitString(text)?.body ?? text) : text);
      return { type: "leaf", kind, kindName, text, anyCase: mayDiffer };
    }
    const children = this.#children(n);
    return {
      type: "inner",
      kind,
      children,
      mayBeMissing: children.length > 0 && children.every((child) => child.type === "list"),
      lone: language.optionalBraces.includes(kindName) ? this.#lone(n, children) : undefined,
      short: this.#short(kindName, children),
      commutes: children.length === 3 && this.#commutes(n),
      mirrored: children.length === 3 && this.#commutes(n) ? this.#mirrored(children[1]!) : undefined,
    };
  }

  /** The operator with which a comparison says the same when its sides are swapped. */
  #mirrored(operator: PatternNode): LeafNode | undefined {
    const { mirrored } = this.#tree.language;
    const text = operator.type === "leaf" ? mirrored[operator.text] : undefined;
    if (operator.type !== "leaf" || text === undefined) return undefined;
    const [kind] = tokenIdsOf(this.#tree.language, [text]);
    return kind === undefined ? undefined : { ...operator, kind, kindName: text, text };
  }

  /** A key with its value may be one name that is both. */
  #short(kindName: string, children: readonly PatternNode[]): InnerNode["short"] {
    const { language } = this.#tree;
    const [name] = Object.entries(language.shortForms).find(([, whole]) => whole === kindName) ?? [];
    const [key] = children;
    const value = children.at(-1);
    if (name === undefined || children.length !== 3 || key?.type !== "leaf" || value?.type !== "hole")
      return undefined;
    return { kindName: name, text: key.text, value };
  }

  /** The only statement of a block, unless that stands for any number of them. */
  #lone(block: NodeId, children: readonly PatternNode[]): PatternNode | undefined {
    const named = significantChildren(this.#tree, block).map((child) => this.#tree.isNamed(child));
    const statements = children.filter((_, i) => named[i]);
    const [only] = statements;
    const isOne = named.length === children.length && statements.length === 1;
    return isOne && only?.type !== "list" ? only : undefined;
  }

  /** Parenthesised nodes from `outer` down to `inner`. */
  #layers(outer: NodeId, inner: NodeId): number {
    let count = 0;
    for (let n = inner; n !== outer; n = this.#tree.parents[n]!) count++;
    return count;
  }

  #commutes(n: NodeId): boolean {
    const tree = this.#tree;
    const [, operator] = significantChildren(tree, n);
    if (operator === undefined || !tree.language.binary.includes(tree.kind(n))) return false;
    const { commutative, mirrored } = tree.language;
    const text = tree.textOf(operator).toLowerCase();
    return commutative.includes(text) || text in mirrored;
  }

  /** The children that count, with lists taking the comma on one side of them. */
  #children(n: NodeId): PatternNode[] {
    const tree = this.#tree;
    const children: PatternNode[] = [];
    let comma: "after" | undefined;
    for (const child of significantChildren(tree, n)) {
      const before = children.at(-1);
      if (comma && tree.kind(child) === ",") {
        children[children.length - 1] = { ...(before as ListNode), comma };
        comma = undefined;
        continue;
      }
      const node = this.#node(child);
      comma = undefined;
      if (node.type === "list" && before?.type === "leaf" && before.text === ",") {
        children[children.length - 1] = { ...node, comma: "before" };
        continue;
      }
      if (node.type === "list") comma = "after";
      children.push(node);
    }
    return children;
  }

  #kindOf(i: number): Hole["kind"] {
    return kindOf(this.#snippet.parts[i]!);
  }

  /** Parts that stand in the text of a node. */
  #partsIn(n: NodeId): number[] {
    const start = this.#tree.starts[n]!;
    const end = this.#tree.ends[n]!;
    return this.#places.flatMap((place, i) => (place.start >= start && place.end <= end ? [i] : []));
  }

  /** The hole that this node is spelt for. */
  #holeAt(n: NodeId): Hole | undefined {
    const tree = this.#tree;
    const start = tree.starts[n]!;
    const end = tree.ends[n]!;
    const i = this.#places.findIndex((place) => place.start === start && place.end === end);
    const part = this.#snippet.parts[i];
    if (part === undefined) return undefined;
    const kind = this.#kindOf(i);
    if (kind === "text" && tree.language.strings.includes(tree.kind(n))) return undefined;
    const [child] = significantChildren(tree, n);
    const isWhole = child !== undefined && tree.starts[child] === start && tree.ends[child] === end;
    if (isWhole && (WITHIN.includes(kind) || this.#holdsLists(n))) return undefined;
    // In a replacement, what is not a hole stands like one.
    if (part instanceof Need) return part.hole;
    return part instanceof Hole ? part : new Hole(`part ${i}`, kind);
  }

  /** Nodes whose children a list hole stands for. */
  #holdsLists(n: NodeId): boolean {
    const { statementLists, memberLists, argumentLists, parameterLists, modifierLists } = this.#tree.language;
    const kind = this.#tree.kind(n);
    const lists = [statementLists, memberLists, argumentLists, parameterLists, modifierLists];
    return lists.some((kinds) => kinds.includes(kind));
  }

  /** A leaf or a string with holes in its text. */
  #withText(n: NodeId, inside: readonly number[]): TextNode {
    const tree = this.#tree;
    const pieces: (string | Hole)[] = [];
    let at = tree.starts[n]!;
    for (const i of inside) {
      const part = this.#snippet.parts[i]!;
      pieces.push(tree.text.slice(at, this.#places[i]!.start));
      pieces.push(part instanceof Hole ? part : new Hole(`part ${i}`, "text"));
      at = this.#places[i]!.end;
    }
    pieces.push(tree.text.slice(at, tree.ends[n]));
    return { type: "text", kind: tree.kindIds[n]!, pieces };
  }
}

/** Kinds of hole that are the innermost of the nodes with their range. */
const WITHIN: readonly Hole["kind"][] = ["name", "expression", "operator", "text"];
