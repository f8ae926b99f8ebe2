import type { SyntaxNode } from "./node.js";

/** What a class says of one of its members. */
export interface DeclaredMember {
  /** Its name; `==` for an operator, the type for a conversion, `[]` for items read by index. */
  readonly name: string;
  readonly as: "method" | "property" | "field" | "operator" | "conversion" | "constructor";
  readonly node: SyntaxNode;
  /** Reading it runs no code: a field, or a property that the language fills in itself. */
  readonly isPlain: boolean;
  readonly isStatic: boolean;
  /** Can code outside of the class use it? */
  readonly isOpen: boolean;
  /** The type that it has or gives, as it is written, where the language's facts look for it. */
  readonly type?: string;
}

/** How a language declares classes and their like, for finding those of a project by name. */
export interface ClassFacts {
  /** Nodes that declare one; those for which `parentsOf` and `nameOf` say nothing are passed over. */
  readonly kinds: readonly string[];
  /** Undefined for a class without a name. */
  nameOf(node: SyntaxNode): string | undefined;
  /** The last words of the names of what it is derived from, or of what it adds to. */
  parentsOf(node: SyntaxNode): readonly string[];
  membersOf(node: SyntaxNode): readonly DeclaredMember[];
  /** Text that declares a class, or anything else that takes the name: an alias, a macro. */
  declaring(name: string): RegExp;
  /** Text that may derive something from a class of this name. */
  deriving(name: string): RegExp;
}

/** For a language of which nothing is read. */
export const noClasses: ClassFacts = {
  kinds: [],
  nameOf: () => undefined,
  parentsOf: () => [],
  membersOf: () => [],
  declaring: () => /(?!)/,
  deriving: () => /(?!)/,
};

/** The parts of a class's body with those that stand in a condition of some kind, whichever way it goes. */
export function withBranches(parts: readonly SyntaxNode[], conditions: readonly string[]): SyntaxNode[] {
  return parts.flatMap((part) => (part.is(conditions) ? withBranches(part.parts, conditions) : [part]));
}

/** A name as it stands in a regular expression. */
export const escaped = (name: string): string => name.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");

/** The last words of the type names in code, without type arguments. */
export function typeWords(code: string): string[] {
  let text = code;
  for (let before = ""; before !== text;) {
    before = text;
    text = text.replace(/<[^<>]*>|\[[^[\]]*\]|\([^()]*\)/g, "");
  }
  const names = text.match(/[\p{L}_$][\p{L}\p{N}_$]*(?:(?:::|\.|\\)[\p{L}_$][\p{L}\p{N}_$]*)*/gu) ?? [];
  return names.map((name) => name.split(/::|\.|\\/).at(-1)!);
}

/** A member by its `name` field. */
export function member(
  node: SyntaxNode,
  as: DeclaredMember["as"],
  {
    isPlain = as === "field",
    isStatic = false,
    isOpen = true,
    name = node.child("name")?.text,
    type,
  }: {
    isPlain?: boolean;
    isStatic?: boolean;
    isOpen?: boolean;
    name?: string | undefined;
    type?: string | undefined;
  } = {},
): DeclaredMember[] {
  return name === undefined
    ? []
    : [{ name, as, node, isPlain, isStatic, isOpen, ...(type === undefined ? {} : { type }) }];
}
