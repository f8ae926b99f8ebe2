import type { NameUse, SyntaxNode, Use } from "../../syntax/index.js";

/** A name in one of its uses. `{ hive }` has two: it reads a variable and names a property. */
export interface Occurrence {
  readonly node: SyntaxNode;
  readonly use: NameUse;
}

/** The part of a name that is looked up, without its sign. */
export function leafOf(name: SyntaxNode): SyntaxNode | undefined {
  const { leaves } = name.tree.language.binding;
  return [name, ...name.descendants()].find((one) => one.isLeaf && leaves[one.kind] !== undefined);
}

/** The largest target that a name is part of (`[a, b]` for `a` in `[a, b] = list`), else the name itself. */
export function targetAround(name: SyntaxNode): SyntaxNode {
  const { groups } = name.tree.language.binding;
  let at = name;
  for (let above = at.parent; above; above = at.parent) {
    const fields = groups[above.kind];
    if (!fields || (fields.length > 0 && !fields.includes(at.field ?? ""))) break;
    at = above;
  }
  return at;
}

/** What a name does where it stands, by the facts of its language. */
export function useOf(name: SyntaxNode): Use {
  const use = plainUse(name);
  return typeof use === "string" || use.memberOf === undefined ? use : useOfMember(name, use);
}

/** What is done to a member is what is done to the code that reaches it: `hive.weight = 1` writes. */
function useOfMember(name: SyntaxNode, use: NameUse): NameUse {
  const { binding } = name.tree.language;
  const receiver = receiverOf(name, use);
  if (!receiver || use.does !== "read") return use;
  const access = receiver.parent!;
  const target = targetAround(access);
  const above = entryFor(access, target);
  if (above === undefined || typeof above === "string" || above.does === "read") return use;
  const { does } = above;
  const owner = binding.assignedMembers && does === "write" ? binding.selfOf(receiver) : undefined;
  if (!owner) return { ...use, does };
  return { ...use, does, declares: { as: "field", in: () => owner, spaces: ["member"] } };
}

/** Is this expression assigned to, changed in place or deleted? */
export function isTarget(expression: SyntaxNode): boolean {
  const entry = entryFor(expression, targetAround(expression));
  return typeof entry === "object" && entry.does !== "read" && entry.does !== "passed";
}

/** The code whose member a name is, where it is written out. */
export function receiverOf(name: SyntaxNode, { memberOf }: NameUse): SyntaxNode | undefined {
  if (memberOf === undefined || memberOf === "") return undefined;
  for (const access of [name.parent, targetAround(name).parent]) {
    const receiver = memberOf === "first" ? access?.firstPart : access?.child(memberOf);
    if (receiver && !receiver.holds(name)) return receiver;
  }
  return undefined;
}

/** The places in code that may mean a variable of this name; a member of something, which is called so, is none. */
export function mentionsOf(code: SyntaxNode, name: string): SyntaxNode[] {
  return code.mentions(name).filter((one) => {
    const use = useOf(one);
    return typeof use === "string" || receiverOf(one, use) === undefined;
  });
}

function entryFor(leaf: SyntaxNode, at: SyntaxNode): Use | undefined {
  const kind = at.parent?.kind;
  if (kind === undefined) return undefined;
  const { uses } = leaf.tree.language.binding;
  const field = at.field;
  const byField = field === undefined ? undefined : (uses[`${kind}.${field}`] ?? uses[`.${field}`]);
  const entry = byField ?? uses[kind];
  return typeof entry === "function" ? entry(leaf, at) : entry;
}

function plainUse(name: SyntaxNode): Use {
  const { leaves } = name.tree.language.binding;
  const leaf = leaves[name.kind];
  if (leaf === undefined) return "nothing";
  const usual = typeof leaf === "function" ? leaf(name) : leaf;
  const direct = name.parent && entryFor(name, name);
  if (direct !== undefined) return direct;
  const target = targetAround(name);
  const grouped = target.same(name) ? undefined : entryFor(name, target);
  return grouped ?? usual;
}

/** All that a name does where it stands; nothing for words that name nothing. */
export function occurrencesAt(node: SyntaxNode): Occurrence[] {
  const result: Occurrence[] = [];
  const use = useOf(node);
  if (typeof use === "string") return result;
  for (let at: NameUse | undefined = use; at; at = at.also) result.push({ node, use: at });
  return result;
}
