import type { DeclaredMember, SyntaxNode } from "../../syntax/index.js";

/** A member of a class of the project, without the tree that it was read from. */
export interface OwnMember {
  readonly name: string;
  readonly as: DeclaredMember["as"];
  readonly isPlain: boolean;
  readonly isStatic: boolean;
  readonly isOpen: boolean;
  /** The type that it has or gives, as it is written; only of languages whose facts look for it. */
  readonly type?: string;
  /** Its source text. */
  readonly text: string;
  readonly line: number;
}

/** A class, or the like, that the project declares or adds to. */
export interface OwnClass {
  /** Undefined for one without a name. */
  readonly name: string | undefined;
  /** The grammar's name for what declares it. */
  readonly kind: string;
  readonly path: string;
  readonly line: number;
  readonly parents: readonly string[];
  readonly members: readonly OwnMember[];
  /** Its source text up to its body. */
  readonly head: string;
}

/** Reads a class from the node that declares it; undefined for a node that declares none. */
export function ownClassAt(node: SyntaxNode, path: string): OwnClass | undefined {
  const { classFacts } = node.tree.language;
  if (!node.is(classFacts.kinds)) return undefined;
  const name = classFacts.nameOf(node);
  const parents = classFacts.parentsOf(node);
  if (name === undefined && parents.length === 0) return undefined;
  const { kind, line } = node;
  const members = classFacts
    .membersOf(node)
    .map(({ node: at, ...rest }): OwnMember => ({ ...rest, text: at.text, line: at.line }));
  const body = node.child("body");
  const head = body ? node.tree.text.slice(node.start, body.start) : node.text.split("{")[0]!;
  return { name, kind, path, line, parents, members, head };
}

/** Where a class stands, as the end of a sentence. */
export function placeOf({ path, line }: OwnClass): string {
  return path === "" ? `line ${line}` : `${path}, line ${line}`;
}
