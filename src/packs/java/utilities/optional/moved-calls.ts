import { isSideEffectFree, changesOf, referencesAt, shortened, typeOf } from "../../../../core.js";
import type { Edit, SyntaxNode } from "../../../../core.js";
import type { Doubts } from "./doubts.js";
import { kindOf } from "./kind-of.js";
import { namesIt } from "./library-optional.js";
import type { Members } from "./members.js";
import { Refusal } from "./refusal.js";

/** Methods of the class that have another name in the standard library. */
const STATIC: ReadonlyMap<string, string> = new Map([
  ["absent", "empty"],
  ["fromNullable", "ofNullable"],
]);
const SAME = ["of", "get", "isPresent", "equals", "hashCode", "toString"];
/** Methods of an object that have another name, or take something else. */
const OTHERWISE = ["or", "orNull", "transform", "asSet", "toJavaUtil"];
const PRIMARY = ["identifier", "field_access", "method_invocation", "parenthesized_expression"];
const FUNCTIONS = ["lambda_expression", "method_reference"];

const renamed = (node: SyntaxNode, text: string): Edit => ({ start: node.start, end: node.end, text });
const after = ({ end }: SyntaxNode, text: string): Edit => ({ start: end, end, text });

/** Other text for a piece of a call. Throws a Refusal where a comment would go with it. */
function replaced(call: SyntaxNode, start: number, end: number, text: string): Edit {
  const { comments } = call.tree.language;
  const lost = [...call.descendants()].find(
    (node) => node.is(comments) && start <= node.start && node.end <= end,
  );
  if (lost) throw new Refusal("the comment here would be lost", lost);
  return { start, end, text };
}

export interface Moving {
  readonly members: Members;
  readonly doubts: Doubts;
  /** May the new code need Java 9? */
  readonly hasOr: boolean;
}

/** The edits to a call of one of the type's methods. Throws a Refusal. */
export function callMoved(call: SyntaxNode, moving: Moving): Edit[] {
  const object = call.child("object");
  const name = call.child("name")!;
  if (!object) return [];
  if (namesIt(object)) return staticMoved(call, name);
  if (!OTHERWISE.includes(name.text)) return [];
  const kind = kindOf(object, moving.members);
  if (kind === "unknown" && mayBeIt(object, name.text, moving.members))
    throw new Refusal(`nobody can tell whether \`${shortened(object.text)}\` is an \`Optional\``, call);
  return kind === "moved" ? methodMoved(call, object, name, moving) : [];
}

function staticMoved(call: SyntaxNode, name: SyntaxNode): Edit[] {
  const { text } = name;
  const [first, ...more] = call.child("arguments")!.parts;
  if (text === "fromJavaUtil" || text === "toJavaUtil") {
    if (!first?.is(PRIMARY) || more.length > 0)
      throw new Refusal(`\`${text}\` is needed no more, but cannot be left out here`, call);
    return [replaced(call, call.start, first.start, ""), replaced(call, first.end, call.end, "")];
  }
  const other = STATIC.get(text);
  if (other !== undefined) return [renamed(name, other)];
  if (SAME.includes(text)) return [];
  throw new Refusal(`the standard library has no \`${text}\``, call);
}

/** Could a receiver of which nothing is known have the type? */
function mayBeIt(object: SyntaxNode, name: string, members: Members): boolean {
  const type = typeOf(object);
  if (type) return false;
  if (/^(orNull|asSet|toJavaUtil)$/.test(name)) return true;
  return [...object.descendants()].some((node) => node.is("identifier") && members.names.has(node.text));
}

function methodMoved(call: SyntaxNode, object: SyntaxNode, name: SyntaxNode, moving: Moving): Edit[] {
  const [first] = call.child("arguments")!.parts;
  if (name.text === "orNull") return [replaced(call, name.start, call.end, "orElse(null)")];
  if (name.text === "toJavaUtil") return [replaced(call, object.end, call.end, "")];
  if (name.text === "asSet" || !first)
    throw new Refusal(`the standard library has no \`${name.text}\``, call);
  if (name.text === "or") return otherwise(name, first, moving);
  moving.doubts.mayGiveNull(first);
  if (first.is(FUNCTIONS)) return [renamed(name, "map")];
  // A function of the library is none of the standard library in each of its versions.
  if (!first.is(PRIMARY))
    throw new Refusal(`\`${shortened(first.text)}\` may be a function of the library`, first);
  return [renamed(name, "map"), after(first, "::apply")];
}

/** What is taken where the value is missing: another value, what a function gives, or another object of the type. */
function otherwise(name: SyntaxNode, value: SyntaxNode, { members, doubts, hasOr }: Moving): Edit[] {
  if (value.is(FUNCTIONS)) return [renamed(name, "orElseGet")];
  const shown = shortened(value.text);
  const kind = kindOf(value, members);
  if (kind === "moved") {
    if (!hasOr) throw new Refusal("`or` with another `Optional` needs Java 9", value, "version.target");
    if (isSideEffectFree(value).is !== "yes")
      throw new Refusal(
        `\`${shown}\` was evaluated in any case, and may do something`,
        value,
        "effect.evaluated",
      );
    const open = changedLocal(value);
    if (open) throw new Refusal(`\`${open.text}\` is changed, so that no lambda can read it`, open);
    return [{ start: value.start, end: value.start, text: "() -> " }];
  }
  if (kind === "library") throw new Refusal(`\`${shown}\` gives the library's own type`, value);
  const type = typeOf(value)?.name;
  if (type === "Supplier" && value.is(PRIMARY)) return [renamed(name, "orElseGet"), after(value, "::get")];
  if (kind === "unknown" && type === undefined) doubts.mayBeSupplier(value);
  doubts.mayBeNull(value);
  return [renamed(name, "orElse")];
}

/** A variable in an expression that is given another value after its declaration. */
function changedLocal(value: SyntaxNode): SyntaxNode | undefined {
  return [...value.descendants()].find((node) =>
    referencesAt(node).some(
      ({ to }) => to && changesOf(to).some((change) => !to.at.some((at) => at.same(change.node))),
    ),
  );
}

/** `Optional::absent` and its like. Throws a Refusal. */
export function referenceMoved(node: SyntaxNode): Edit[] {
  const [owner, name] = node.parts;
  if (!owner || !name || !namesIt(owner) || SAME.includes(name.text)) return [];
  const other = STATIC.get(name.text);
  if (other !== undefined) return [renamed(name, other)];
  if (name.text === "orElse") return [];
  throw new Refusal(`\`${node.text}\` cannot be written with the standard library's type`, node);
}
