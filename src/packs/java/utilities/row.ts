import { need, Snippet } from "../../../core.js";
import type { Answer, Hole, Match, Need, Part } from "../../../core.js";

/** What a library does that the standard library can do itself. */
export interface Row {
  /** The old code: through the class, and by a name that is imported alone. */
  readonly was: readonly Snippet[];
  readonly becomes: Snippet | ((match: Match) => Snippet);
  /** Does the standard library take what is given? */
  readonly takes?: ((match: Match) => Answer) | undefined;
  /** Does it do the same with it? */
  readonly doesSame?: ((match: Match) => Answer) | undefined;
}

type Asked = Pick<Row, "takes" | "doesSame">;

/** An expression of its pieces, with commas between those of a list. */
export function codeOf(...pieces: readonly (string | Part | Snippet | readonly Part[])[]): Snippet {
  const texts = [""];
  const parts: Part[] = [];
  const add = (piece: string | Part): void => {
    if (typeof piece === "string") texts[texts.length - 1] += piece;
    else {
      parts.push(piece);
      texts.push("");
    }
  };
  for (const piece of pieces) {
    if (piece instanceof Snippet)
      piece.texts.forEach((text, at) => [text, ...piece.parts.slice(at, at + 1)].forEach(add));
    else if (isList(piece)) piece.forEach((one, at) => (at > 0 ? [", ", one] : [one]).forEach(add));
    else add(piece);
  }
  return new Snippet("java", texts, parts, "expression");
}

const isList = (piece: Part | string | readonly Part[]): piece is readonly Part[] => Array.isArray(piece);

/** A static member of a class, by its full name: `com.google.common.base.Objects.equal`. */
interface Named {
  readonly owner: Need;
  /** By a name that is imported alone. */
  readonly alone: Need;
  readonly member: string;
}

function namedBy(name: string): Named {
  const [member, owner, ...packages] = name.split(".").reverse();
  const module = packages.reverse().join(".");
  return { owner: need(module, owner), alone: need(`${module}.${owner!}`, member), member: member! };
}

/** A static method of a library, by its full name. */
export function calls(name: string, args: readonly Hole[], becomes: Row["becomes"], asked: Asked = {}): Row {
  const { owner, alone, member } = namedBy(name);
  const was = [codeOf(owner, `.${member}(`, args, ")"), codeOf(alone, "(", args, ")")];
  return { was, becomes, ...asked };
}

/** A constant of a library, by its full name. */
export function constant(name: string, becomes: Snippet): Row {
  const { owner, member } = namedBy(name);
  return { was: [codeOf(owner, `.${member}`)], becomes };
}

/** A static method of a library that does no more than make an object: `Lists.newArrayList()`. */
export function makes(
  name: string,
  made: Need,
  types: readonly Hole[],
  args: readonly Hole[] = [],
  { given = codeOf(args), ...asked }: Asked & { readonly given?: Row["becomes"] } = {},
): Row[] {
  const { owner, member } = namedBy(name);
  const inside = (match: Match): Snippet => (given instanceof Snippet ? given : given(match));
  return [
    calls(name, args, (match) => codeOf("new ", made, "<>(", inside(match), ")"), asked),
    {
      was: [codeOf(owner, ".<", types, `>${member}(`, args, ")")],
      becomes: (match) => codeOf("new ", made, "<", types, ">(", inside(match), ")"),
      ...asked,
    },
  ];
}
