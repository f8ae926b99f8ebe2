import { cpp, holes, use } from "../../../index.js";
import type { Hole, Match, Snippet, SyntaxNode, UseClause } from "../../../index.js";

/** How an owner is spoken to: code with the variable's hole in it. */
export interface Owner {
  /** The raw pointer. */
  readonly raw: Snippet;
  /** Does it count as true where it holds something, and can it be compared with nothing? */
  readonly isTested: boolean;
  /** Can `->` and `*` be written as for the pointer? */
  readonly isRead: boolean;
  /** The function or method that gives it back, whose every call must be understood. */
  readonly releasedBy: string | undefined;
}

const { other } = holes({ other: "expression" });

/** Calls that take over what they are given, or that need the variable itself. */
const TAKES_OVER =
  /^(free|delete|(?:std::)?(?:move|swap|exchange|ref|cref|addressof|forward|unique_ptr|shared_ptr|auto_ptr|launder)\b.*|.*(?:\.|->)(?:reset|swap|adopt\w*|take\w*|own\w*|setOwned\w*))$/;

/** The node of the variable, or of `this->name`. */
function whole(match: Match): SyntaxNode {
  return match.node;
}

/** What is called where the use is an argument: the text before the brackets; undefined where it is none. */
export function takerOf(argument: SyntaxNode): string | undefined {
  const list = argument.parent;
  if (!list?.is("argument_list")) return undefined;
  const call = list.parent;
  if (call?.is("call_expression")) return call.child("function")?.text;
  if (call?.is(["new_expression", "init_declarator", "field_initializer", "compound_literal_expression"]))
    return call.parts[0]?.text ?? "";
  return undefined;
}

/** Is a pointer handed to something that only looks at it, as far as its name tells? */
function isLent(match: Match, releasedBy: string | undefined): boolean {
  const taker = takerOf(whole(match));
  return taker !== undefined && !TAKES_OVER.test(taker) && lastWord(taker) !== releasedBy;
}

const lastWord = (name: string): string => name.split(/::|\.|->/).at(-1)!;

/** `p->x`, `*p`, and tests of `p`. */
function isDereferenced(match: Match, releasedBy: string | undefined): boolean {
  const node = whole(match);
  const { parent } = node;
  if (parent?.is("field_expression") && parent.child("field")?.text === releasedBy) return false;
  if (parent?.is("field_expression"))
    return node.field === "argument" && parent.children.some((child) => child.kind === "->");
  return parent?.is("pointer_expression") === true && parent.children[0]?.kind === "*";
}

function isTested(match: Match): boolean {
  const node = whole(match);
  const { parent, field } = node;
  if (!parent) return false;
  if (parent.is("condition_clause")) return field === "value";
  if (parent.is(["if_statement", "while_statement", "conditional_expression", "for_statement"]))
    return field === "condition";
  if (parent.is("unary_expression")) return parent.children[0]?.kind === "!";
  if (!parent.is("binary_expression")) return false;
  const operator = parent.child("operator")?.text ?? "";
  if (operator === "&&" || operator === "||") return true;
  if (operator !== "==" && operator !== "!=") return false;
  const beside = field === "left" ? parent.child("right") : parent.child("left");
  return beside?.is("null") === true || beside?.text === "0";
}

function isCompared(match: Match): boolean {
  const { parent } = whole(match);
  return (
    parent?.is("binary_expression") === true &&
    /^(==|!=|<|>|<=|>=)$/.test(parent.child("operator")?.text ?? "")
  );
}

/** Clauses for the uses of a pointer that neither take it over nor give it up. */
export function harmlessUses(p: Hole, owner: Owner): UseClause[] {
  const { raw, releasedBy } = owner;
  const isReached = (match: Match): boolean => isDereferenced(match, releasedBy);
  const isHanded = (match: Match): boolean => isLent(match, releasedBy);
  const clauses: UseClause[] = [];
  for (const read of [cpp`${p}`, cpp`this->${p}`]) {
    const bare = read.parts.length === 1 && read.texts.every((text) => text === "");
    const code = bare ? raw : cpp`this->${raw}`;
    const pattern = use(read);
    clauses.push(
      owner.isRead ? pattern.when(isReached).stays() : pattern.when(isReached).becomes(code),
      owner.isTested ? pattern.when(isTested).stays() : pattern.when(isTested).becomes(code),
      pattern.when(isCompared).becomes(code),
      pattern.when(isHanded).becomes(code),
    );
  }
  return clauses;
}

/** The same for a member of another object: `other.p`, `other->p`. */
export function usesThroughObjects(p: Hole, { raw, releasedBy }: Owner): UseClause[] {
  const isReached = (match: Match): boolean => isDereferenced(match, releasedBy);
  const isHanded = (match: Match): boolean => isLent(match, releasedBy);
  return [
    { read: cpp`${other}.${p}`, code: cpp`${other}.${raw}` },
    { read: cpp`${other}->${p}`, code: cpp`${other}->${raw}` },
  ].flatMap(({ read, code }) => [
    use(read).when(isReached).stays(),
    use(read).when(isTested).stays(),
    use(read).when(isCompared).becomes(code),
    use(read).when(isHanded).becomes(code),
  ]);
}
