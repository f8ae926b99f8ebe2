import {
  calledFromLibrary,
  callOf,
  condition,
  copy,
  fresh,
  holes,
  isLeftAlone,
  itemText,
  neverWritten,
  no,
  referencesAt,
  removal,
  runsLater,
  shortened,
  singular,
  unknown,
  walked,
  yes,
} from "../../core.js";
import type { Answer, FreshName, Hole, Match, RuleSpec, Segment, SyntaxNode } from "../../core.js";

/** How a language with typed loops walks a list. */
export interface Walking {
  readonly index: Hole;
  readonly items: Hole;
  readonly body: Hole;
  /** The type of an item with its name, as the loop's header declares it; undefined where nobody says the type. */
  readonly declared: (match: Match, own: Own | undefined, name: string) => string | undefined;
  readonly header: (declared: string, items: string) => string;
  /** Is what is walked a list or an array, which the loop walks as it is counted? */
  readonly isList: (items: SyntaxNode) => Answer;
  /** Methods of a list that only look at it. */
  readonly looks: readonly string[];
  /** Is an item in the loop the same as one that is looked up, whatever is done with it? */
  readonly isTheItem?: (match: Match) => Answer;
}

/** The first statement of the body, where all that it does is to give the item a name. */
export interface Own {
  readonly name: SyntaxNode;
  readonly statement: SyntaxNode;
}

export const ownOf = ({ loop }: Match): Own | undefined => {
  const { own } = loop;
  const count = own?.statement.parts.filter((part) =>
    /declarator|variable_declaration/.test(part.kind),
  ).length;
  return own && (count ?? 0) <= 1 && !own.statement.is("expression_statement") ? own : undefined;
};

const named = new WeakMap<Match, FreshName>();

/** The name of an item: what the body calls it, else a new one after what is walked. */
export function nameOf(match: Match, own: Own | undefined): string {
  if (own) return own.name.text.replace(/^\W+/, "");
  let name = named.get(match);
  if (!name) {
    const last = match.loop.items.text
      .replace(/\([^()]*\)$/, "")
      .split(/\.|->/)
      .at(-1)!;
    const plain = last
      .replace(/^(?:m_|s_|_)+|_+$/g, "")
      .replace(/^get(?=[A-Z])/, "")
      .replace(/(?<=[a-z])(Set|List)$/, "s");
    const one = singular(plain);
    named.set(
      match,
      (name = fresh(one === undefined ? "item" : one.charAt(0).toLowerCase() + one.slice(1), {
        or: ["item"],
      })),
    );
  }
  return match.named(name);
}

/** The list may not change while it is walked. */
export function isSame(match: Match, { items, looks }: Pick<Walking, "items" | "looks">): Answer {
  const { loop } = match;
  const list = match.the(items);
  const last = [...list.descendants()].findLast((one) => one.isLeaf && one.named)!.text;
  const isLookUp = (node: SyntaxNode): boolean => loop.lookUps.some((read) => read.holds(node));
  const written = loop.lookUps.find(isWritten);
  if (written) return no("flow.written", `\`${written.text}\` is given another value`, written);
  let doubt: Answer | undefined;
  for (const node of loop.body.flatMap((part) => [...part.descendants()])) {
    if (isLookUp(node)) continue;
    const call = node.is(match.tree.language.calls) ? callOf(node) : undefined;
    const isOwn = call?.receiver?.text === list.text;
    if (isOwn && !looks.includes(call!.method))
      return no("flow.written", `\`${shortened(node.text)}\` could change what is walked`, node);
    const isHarmless = isOwn || (calledFromLibrary(node)?.effect ?? "changes") !== "changes";
    if (call && !isHarmless)
      doubt ??= unknown("flow.written", `\`${shortened(node.text)}\` could change \`${list.text}\``, node);
    const isNamed = node.isLeaf && node.named && node.text === last;
    if (isNamed && referencesAt(node).some(({ does }) => does === "write" || does === "update"))
      return no("flow.written", `\`${list.text}\` is changed here`, node);
    const isLook = [...node.ancestors()]
      .slice(0, 3)
      .some((above) => callOf(above)?.receiver?.text === list.text);
    if (isNamed && !isLook) doubt ??= unknown("flow.written", `\`${list.text}\` is used here as well`, node);
  }
  return doubt ?? yes("flow.written", `nothing in the loop can change \`${list.text}\``);
}

/** Is an item given another value where it is looked up? */
function isWritten(read: SyntaxNode): boolean {
  const { parent } = read;
  const isLeft = parent?.child("left")?.same(read) === true && /assignment/.test(parent.kind);
  return (
    isLeft ||
    (/^(update_expression|postfix_unary_expression|prefix_unary_expression)$/.test(parent?.kind ?? "") &&
      /\+\+|--/.test(parent!.text))
  );
}

export function isReadHere(match: Match): Answer {
  const { loop } = match;
  const later = loop.lookUps.find((at) => loop.body.some((part) => part.holds(at) && runsLater(at, part)));
  return later
    ? no("resource.used-after", "the item is looked up in a function that may run later", later)
    : yes("value.result", "all look-ups run in the loop");
}

/** Where the item is written, an item that is looked up again is not what it names. */
function isNamedAlike(match: Match): Answer {
  const own = ownOf(match);
  const { loop } = match;
  if (!own) return yes("flow.written", "the item has a name of its own");
  const written = isLeftAlone(own.name, loop.body.slice(1));
  const again = loop.lookUps.find((read) => !own.statement.holds(read));
  return written.is !== "yes" && again
    ? no("flow.written", `\`${own.name.text}\` is written, and the item is looked up again`, again)
    : yes("flow.written", `\`${own.name.text}\` names the item`);
}

function isDeclaredHere(match: Match): Answer {
  const { loop } = match;
  const first = loop.node.child("init") ?? loop.node.child("initializer");
  const isHere = first !== undefined && first.holds(loop.index) && /declaration/.test(first.kind);
  if (!isHere)
    return no("resource.used-after", `\`${loop.index.text}\` is declared ahead of the loop`, loop.index);
  const names = [...first.descendants()].filter((one) => /declarator$/.test(one.kind));
  const other = names
    .map((one) => one.child("name") ?? one.child("declarator"))
    .find((one) => one && !one.same(loop.index));
  const used = other && loop.body.flatMap((part) => part.mentions(other.text))[0];
  return used
    ? no("name.other-uses", `\`${used.text}\` is declared in the header, and used here`, used)
    : yes("resource.used-after", `\`${loop.index.text}\` is seen in the loop only`);
}

function looped(match: Match, walking: Walking): Segment[] {
  const { loop } = match;
  const own = ownOf(match);
  const name = nameOf(match, own);
  const header = walking.header(walking.declared(match, own, name)!, loop.items.text);
  const isKept = own !== undefined && isLeftAlone(own.name, loop.body.slice(1)).is !== "yes";
  return withHeader(match, { own, name: isKept ? undefined : name, header });
}

/** A loop with another header, in which the items have a name. */
export function withHeader(
  { loop, nodes }: Match,
  { own, name, header }: { own: Own | undefined; name: string | undefined; header: string },
): Segment[] {
  const again = loop.lookUps.filter((read) => own?.statement.holds(read) !== true);
  const named = again.map((read) => {
    const { start, end, suffix } = itemText(read);
    return { start, end, text: `${name}${suffix}` };
  });
  const edits = [
    ...[...loop.counting, ...(own ? [own.statement] : [])].map(removal),
    ...(name === undefined ? [] : named),
    { start: loop.header.start, end: loop.header.end, text: header },
  ].sort((a, b) => a.start - b.start);
  return [copy(nodes[0]!.start, nodes.at(-1)!.end, edits)];
}

/** The holes of a loop over positions. */
export function loopHoles(): Pick<Walking, "index" | "items" | "body"> {
  return holes({ index: "name", items: "expression", body: "statements" });
}

/** The rule for a loop that only looks its items up by their positions, but for its id, title and trials. */
export function eachItem(walking: Walking): Pick<RuleSpec, "was" | "where" | "given" | "becomes"> {
  const { index, items, body } = walking;
  return {
    was: walked({ index, items, body }),
    where: [
      ({ loop }) => loop.form === "counted" && loop.from === 0 && loop.others.length === 0,
      (match) => /^(?:this(?:\.|->))?[A-Za-z_]\w*(?:(?:\.|->)\w+)*$/.test(match.textOf(items)),
      (match) =>
        !match
          .textOf(items)
          .split(/\.|->/)
          .includes(nameOf(match, ownOf(match))),
      (match) => walking.declared(match, ownOf(match), nameOf(match, ownOf(match))) !== undefined,
    ],
    given: [
      neverWritten(index, { in: body }),
      condition("what is walked stays the same", (match) => isSame(match, walking)),
      condition("it is a list", (match) => walking.isList(match.the(items)), { unknownIs: "possible" }),
      condition("the item is read in the loop only", isReadHere),
      ...(walking.isTheItem
        ? [condition("what is done to the item is done to the one in the list", walking.isTheItem)]
        : []),
      condition("the position is declared in the loop", isDeclaredHere),
      condition("the name of the item is written nowhere else", isNamedAlike),
    ],
    becomes: (match) => looped(match, walking),
  };
}

/** Unknown with a sentence for what is no known list. */
export const noKnownList = (items: SyntaxNode): Answer =>
  unknown(
    "type.not-known",
    `\`${shortened(items.text)}\` could be something that is walked in another way than it is counted`,
    items,
  );
