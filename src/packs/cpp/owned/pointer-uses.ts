import { cpp, holes, use } from "../../../core.js";
import type { Hole, Match, Snippet, SyntaxNode, UseClause } from "../../../core.js";

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

/** What is called where the use is an argument: the text before the brackets; undefined where it is none. */
export function takerOf(argument: SyntaxNode): string | undefined {
  const list = argument.parent;
  if (!list?.is("argument_list")) return undefined;
  const call = list.parent;
  if (call?.is("call_expression")) return call.child("function")?.text;
  if (call?.is(["new_expression", "init_declarator", "field_initializer", "compound_literal_expression"]))
    return call.firstPart?.text ?? "";
  return undefined;
}

/** Is a pointer handed to something that only looks at it, as far as its name tells? */
function isLent(node: SyntaxNode, releasedBy: string | undefined): boolean {
  const taker = takerOf(node);
  return taker !== undefined && !TAKES_OVER.test(taker) && lastWord(taker) !== releasedBy;
}

const lastWord = (name: string): string => name.split(/::|\.|->/).at(-1)!;

/** Is what is read through a pointer anything but what gives it back? */
const keeps =
  (releasedBy: string | undefined) =>
  ({ node }: Match): boolean =>
    releasedBy === undefined || node.parent?.child("field")?.text !== releasedBy;

/** Clauses for the uses of a pointer that neither take it over nor give it up. */
export function harmlessUses(p: Hole, owner: Owner): UseClause[] {
  const { raw, releasedBy } = owner;
  return [cpp`${p}`, cpp`this->${p}`].flatMap((read) => {
    const isBare = read.texts.every((text) => text === "");
    const code = isBare ? raw : cpp`this->${raw}`;
    const reached = use(read).as("dereferenced").when(keeps(releasedBy));
    const tested = use(read).as("tested");
    return [
      owner.isRead ? reached.stays() : reached.becomes(code),
      owner.isTested ? tested.stays() : tested.becomes(code),
      ...handedOn(read, code, releasedBy),
    ];
  });
}

/** The same for a member of another object: `other.p`, `other->p`. */
export function usesThroughObjects(p: Hole, { raw, releasedBy }: Owner): UseClause[] {
  return [
    { read: cpp`${other}.${p}`, code: cpp`${other}.${raw}` },
    { read: cpp`${other}->${p}`, code: cpp`${other}->${raw}` },
  ].flatMap(({ read, code }) => [
    use(read).as("dereferenced").when(keeps(releasedBy)).stays(),
    use(read).as("tested").stays(),
    ...handedOn(read, code, releasedBy),
  ]);
}

/** Uses for which the raw pointer is needed. */
const handedOn = (read: Snippet, code: Snippet, releasedBy: string | undefined): UseClause[] => [
  use(read).as("compared").becomes(code),
  use(read)
    .when(({ node }) => isLent(node, releasedBy))
    .becomes(code),
];
