import { classesNamed, no, originOf, placeOf, surroundingsOf, unknown, yes } from "../../../core.js";
import type { Answer, OwnClass, SyntaxNode, SyntaxTree } from "../../../core.js";

const MOST_PARENTS = 8;

/** Does a class of the project have a method of that name, or what is it derived from? */
function ofProject(own: OwnClass, method: string, tree: SyntaxTree, depth: number): Answer {
  const here = surroundingsOf(tree).path === own.path ? classAt(own, tree) : undefined;
  if (here) return depth < MOST_PARENTS ? isTestCase(here, method, depth + 1) : deep;
  const name = own.name ?? "";
  const place = placeOf(own);
  if (own.members.some((member) => member.name === method))
    return no("name.library", `\`${name}\` (${place}) has a method \`${method}\` of its own`);
  const answers = own.parents.map((parent): Answer => {
    if (/^unittest\.(case\.)?\w*TestCase$/.test(parent))
      return yes("type.is", `\`${name}\` (${place}) is derived from \`${parent}\``);
    const above = classesNamed(tree, parent.split(".").at(-1)!).classes.filter(
      (one) => one.name !== own.name,
    );
    return above.length === 1 && depth < MOST_PARENTS
      ? ofProject(above[0]!, method, tree, depth + 1)
      : unknown("type.is", `what \`${parent}\` is derived from is not known`);
  });
  return (
    strongest(answers) ??
    unknown("type.not-known", `\`${name}\` (${place}) is not known to be a class of tests`)
  );
}

const deep = unknown("type.is", "the parents are too many to follow");

/** The class in this file that is meant. */
function classAt(own: OwnClass, tree: SyntaxTree): SyntaxNode | undefined {
  const names = tree.named(own.name ?? "").map((id) => tree.node(id));
  return names
    .map(({ parent }) => parent)
    .find((one) => one?.is("class_definition") && one.line === own.line);
}

/** A no counts before a yes, and a yes before what is not known: one parent that is a class of tests is enough. */
function strongest(answers: readonly Answer[]): Answer | undefined {
  const is = (what: Answer["is"]): Answer | undefined => answers.find((answer) => answer.is === what);
  return is("no") ?? is("yes") ?? is("unknown");
}

/** Is a class derived from the library's class for tests, and does none on the way have a method of that name? */
export function isTestCase(owner: SyntaxNode, method: string, depth = 0): Answer {
  const name = owner.child("name")?.text ?? "";
  const defines = [...owner.descendants()].find(
    (node) => node.is("function_definition") && node.child("name")?.text === method,
  );
  if (defines) return no("name.library", `\`${name}\` has a method \`${method}\` of its own`, defines);
  const bases = owner.child("superclasses")?.parts.filter((part) => !part.is("keyword_argument")) ?? [];
  const answers = bases.map((base): Answer => {
    const last = base.text.split(".").at(-1)!;
    if (originOf(base)?.module.split(".")[0] === "unittest" && /TestCase$/.test(last))
      return yes("type.is", `\`${name}\` is derived from \`${base.text}\` of unittest`, base);
    const { classes } = classesNamed(owner.tree, last);
    return classes.length === 1
      ? ofProject(classes[0]!, method, owner.tree, depth)
      : unknown("type.is", `what \`${base.text}\` is derived from is not known`, base);
  });
  return (
    strongest(answers) ?? unknown("type.not-known", `\`${name}\` is not known to be a class of tests`, owner)
  );
}

/** The class on whose own object a member is read. */
export function ownerOf(node: SyntaxNode): SyntaxNode | undefined {
  const object = node.child("object");
  const around = [...node.ancestors()].filter((above) => above.is("function_definition"));
  const self = around
    .map((one) => one.child("parameters")?.firstPart?.text)
    .find((one) => one === object?.text);
  return self === undefined ? undefined : node.closest(["class_definition"]);
}
