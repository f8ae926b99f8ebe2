import {
  condition,
  exitsOf,
  jumpOf,
  functionAround,
  isDefinedInProject,
  nameInFile,
  no,
  referencesAt,
  shortened,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Condition, Hole, Match, SyntaxNode } from "../../core.js";
import { everyTest } from "../family/conditions.js";

const VARIABLES = ["instance_variable", "class_variable", "global_variable", "self"];

/** May this be evaluated once instead of twice? In Ruby a bare name can be a call. */
export function isReadTwice(node: SyntaxNode): Answer {
  const name = shortened(node.text);
  if (node.is(VARIABLES)) return yes("effect.evaluated", `\`${name}\` is a plain variable`, node);
  if (node.is(["constant", "scope_resolution"]))
    return yes("effect.evaluated", `\`${name}\` is a constant`, node);
  if (node.is("identifier")) {
    return referencesAt(node).some(({ to, member }) => to && !member)
      ? yes("effect.evaluated", `\`${name}\` is a plain variable`, node)
      : unknown("effect.evaluated", `\`${name}\` is a method, and is called once instead of twice`, node);
  }
  const isPlainCall = node.is("call") && !node.child("arguments") && !node.child("block");
  const receiver = node.child("receiver") ?? node.child("object");
  if ((isPlainCall || node.is("element_reference")) && receiver) {
    const inner = isReadTwice(receiver);
    if (inner.is === "no") return inner;
    const index = node.is("element_reference") ? node.parts.slice(1) : [];
    const odd = index.find(
      (part) => !part.is(["identifier", "integer", "string", "simple_symbol", ...VARIABLES]),
    );
    if (odd)
      return no(
        "effect.evaluated",
        `\`${shortened(odd.text)}\` would be evaluated once instead of twice`,
        odd,
      );
    if (/[!]$/.test(node.child("method")?.text ?? ""))
      return no("effect.evaluated", `\`${name}\` changes something`, node);
    return unknown("effect.evaluated", `\`${name}\` is read once instead of twice`, node);
  }
  return no("effect.evaluated", `\`${name}\` would be evaluated once instead of twice`, node);
}

/** `&.` and `||=` differ for false: is this ever false? */
export function isNeverFalse(node: SyntaxNode): Answer {
  const type = typeOf(node);
  if (type && !["true", "false", "TrueClass", "FalseClass"].includes(type.name))
    return yes("value.falsy", type.why, type.at);
  return unknown("value.falsy", `\`${shortened(node.text)}\` could be false, which is not nil`, node);
}

/** Does `nil?` ask for nil alone? A class of the project may say otherwise, as null objects do. */
export function asksForNil(node: SyntaxNode): Answer {
  const type = typeOf(node);
  const defined = isDefinedInProject("nil?", node.tree);
  if (!defined) return yes("name.library", "no class of the project has a `nil?` of its own");
  const isBuiltin = type && Object.values(node.tree.language.literalTypes).includes(type.name);
  return isBuiltin && type.declared === undefined
    ? yes("value.falsy", type.why, type.at)
    : unknown(
        "type.stand-in",
        `${defined.evidence.says}, and \`${shortened(node.text)}\` could be of its class`,
        node,
      );
}

/** What moves into a block is not seen outside of it by `binding`, `eval` and the like. */
export function isNotAskedByName({ node, tree }: Match): Answer {
  const { reflection } = tree.language;
  const around = functionAround(node) ?? tree.root;
  const asks = [...around.descendants()].find(
    (one) => one.isLeaf && one.is("identifier") && reflection.includes(one.text),
  );
  return asks
    ? no("name.reflection", `\`${asks.text}\` can see the variables of what becomes a block`, asks)
    : yes("name.reflection", "nothing asks for variables by their names");
}

/** What becomes the body of a block may not leave a loop around it, or go on with its next round. */
export function endsNoLoop(body: Hole): Condition {
  return condition("nothing in it goes on with a loop around it", (match) => {
    const jump = exitsOf(match.has(body) ? match.all(body) : []).find((exit) =>
      ["break", "continue", "anywhere"].includes(jumpOf(exit) ?? ""),
    );
    return jump
      ? no("name.scope", `\`${jump.text}\` would end the block and not the loop around it`, jump)
      : yes("name.scope", "no loop around is left");
  });
}

/** What is tested is read once instead of twice. */
export function readOnce(): Condition {
  return everyTest("evaluating what is tested once instead of twice makes no difference", (_match, test) =>
    test.times === 0
      ? yes("effect.evaluated", "it is evaluated as often as before", test.subject)
      : isReadTwice(test.subject),
  );
}

/** A test for nil asks for nil alone: neither `nil?` nor `==` is given another meaning. */
export function asksForNilAlone(): Condition {
  return everyTest("the test asks for nil alone", (_match, { asks, by, subject }) => {
    if (asks === "truth") return yes("type.stand-in", "nil? is not asked");
    if (by !== "operator") return asksForNil(subject);
    const type = typeOf(subject);
    const isPlain = type !== undefined && type.declared === undefined;
    return isPlain
      ? yes("type.operator", type.why, type.at)
      : unknown("type.operator", `\`${shortened(subject.text)}\` could have a \`==\` of its own`, subject);
  });
}

/** Does a name mean what the language means by it? */
export function isOfLanguage(name: string, at: SyntaxNode): Answer {
  const [here] = nameInFile(name, at.tree).declarations.flatMap((one) => one.at);
  if (here) return no("name.library", `\`${name}\` means something else in this file`, here);
  const own = isDefinedInProject(name, at.tree);
  if (own) return unknown("name.library", `${own.evidence.says}, which could be meant`, at);
  const from = [at, ...at.ancestors()].flatMap((around) => bringersIn(around))[0];
  return from
    ? unknown("name.library", `\`${shortened(from.text)}\` could bring another \`${name}\``, from)
    : yes("name.library", `no file of the project has a \`${name}\` of its own`);
}

const BRINGING = /^(include|extend|prepend)$/;

/** What a class, a module or a file takes names from: another class, modules. */
function bringersIn(node: SyntaxNode): SyntaxNode[] {
  if (node.is("class")) return [node.child("superclass") ?? []].flat();
  if (!node.is(["body_statement", "program"])) return [];
  return node.parts.filter(
    (part) => part.is("call") && !part.child("receiver") && BRINGING.test(part.child("method")?.text ?? ""),
  );
}
