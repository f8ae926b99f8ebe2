import { isSideEffectFree, referencesAt, shortened, unknown } from "../../../core.js";
import type { Answer, SyntaxNode } from "../../../core.js";
import { inner, unwrapped } from "./brackets.js";
import type { CodeFile } from "./code-file.js";
import { NotAModule } from "./not-a-module.js";
import type { Loading } from "./requires.js";

/** What runs ahead of a module today and will run after it, and how sure it is that this makes no difference. */
export interface Overtaken {
  readonly answer: Answer;
  readonly unknownIs: "likely" | "possible";
}

/**
 * Imports are loaded before any of the file's own code runs. Gives the first piece of code with an effect that a module was
 * loaded after. Throws a NotAModule for what is done so that modules find it.
 */
export function overtakenIn({ tree }: CodeFile, loadings: readonly Loading[]): Overtaken | undefined {
  const last = loadings
    .filter(({ how, loaded, isLate }) => how !== "stays" && loaded.is !== "built in" && !isLate)
    .at(-1);
  if (!last) return undefined;
  const ahead = tree.root.parts.flatMap(piecesOf).filter(({ end }) => end <= last.call.start);
  const set = ahead.find(setsGlobal);
  if (set)
    throw new NotAModule(
      set,
      `\`${shortened(set.text)}\` must run before modules are loaded; put it into a file of its own that is loaded first`,
      "flow.order",
    );
  const loud = ahead.map((statement) => effectOf(statement, loadings)).filter((found) => found !== undefined);
  const [first] = [...loud.filter(({ unknownIs }) => unknownIs === "possible"), ...loud];
  if (!first) return undefined;
  const next = loadings.find(
    ({ how, loaded, call, isLate }) =>
      how !== "stays" && loaded.is !== "built in" && !isLate && call.start >= first.node.end,
  );
  const says = `\`${shortened(first.node.text)}\` runs after \`${next!.name}\` is loaded from now on, and ran before`;
  return { answer: unknown("flow.order", says, first.node), unknownIs: first.unknownIs };
}

/** The declarations of a statement, which are made one after the other; any other statement as it is. */
function piecesOf(statement: SyntaxNode): SyntaxNode[] {
  return statement.is(["variable_declaration", "lexical_declaration"]) ? statement.parts : [statement];
}

/** Does a statement do nothing but set a global variable, or one of the environment? */
function setsGlobal(statement: SyntaxNode): boolean {
  const assignment = statement.is("expression_statement") ? statement.firstPart : undefined;
  if (!assignment?.is(["assignment_expression", "augmented_assignment_expression"])) return false;
  let base = assignment.child("left");
  let member = base;
  while (base?.is(["member_expression", "subscript_expression"]))
    [member, base] = [base, base.child("object")];
  if (!base?.is("identifier") || referencesAt(base).some(({ to }) => to)) return false;
  return base.text === "process"
    ? member?.child("property")?.text === "env"
    : ["global", "globalThis"].includes(base.text);
}

const QUIET = [
  "function_declaration",
  "generator_function_declaration",
  "class_declaration",
  "comment",
  "empty_statement",
  "hash_bang_line",
];

/** What a statement or declaration does that a module could notice; nothing where it only makes something. */
function effectOf(
  statement: SyntaxNode,
  loadings: readonly Loading[],
): { node: SyntaxNode; unknownIs: Overtaken["unknownIs"] } | undefined {
  if (statement.is(QUIET)) return undefined;
  // Imports run in their order; what goes on to be loaded by a call runs after them.
  const isLoad = (node: SyntaxNode): boolean =>
    loadings.some(
      ({ call, how, loaded, name }) =>
        call.same(inner(node)) && (how !== "stays" || loaded.is === "built in" || name.endsWith(".json")),
    );
  const isQuiet = (node: SyntaxNode): boolean =>
    isLoad(node) ||
    (node.is("member_expression") && isLoad(node.child("object")!)) ||
    node.is(["function_expression", "arrow_function", "generator_function", "string"]) ||
    ((node.is("object") || node.is("array")) && node.parts.every(isQuietMember)) ||
    isSideEffectFree(node).is === "yes";
  const isQuietMember = (node: SyntaxNode): boolean =>
    node.is("pair") ? isQuiet(node.child("value")!) : node.is("method_definition") || isQuiet(node);
  if (statement.is("variable_declarator")) {
    const value = statement.child("value");
    const isLoud = value !== undefined && !isQuiet(value) && !isExportsChain(value, isQuiet);
    return isLoud ? { node: statement, unknownIs: "likely" } : undefined;
  }
  const expression = statement.is("expression_statement") ? statement.firstPart : undefined;
  if (!expression) return { node: statement, unknownIs: "possible" };
  if (isQuiet(expression) || isExportsChain(expression, isQuiet)) return undefined;
  return { node: expression, unknownIs: isOnOwn(expression, loadings) ? "likely" : "possible" };
}

/** Is this done to something that the file has made itself? */
function isOnOwn(node: SyntaxNode, loadings: readonly Loading[]): boolean {
  let base: SyntaxNode | undefined = node;
  while (base && !base.is("identifier"))
    base = base.child("left") ?? base.child("function") ?? base.child("object");
  if (!base || base.same(node.child("function"))) return false;
  const to = referencesAt(base).find((one) => !one.member)?.to;
  const isLoaded = loadings.some(({ declarator }) => to?.at.some((at) => declarator?.holds(at)));
  return to?.scope.is("program") === true && !isLoaded;
}

/** Does it only set what the file exports? */
function isExportsChain(node: SyntaxNode, isQuiet: (value: SyntaxNode) => boolean): boolean {
  if (!unwrapped(node).is("assignment_expression")) return false;
  const value = node.child("right")!;
  const isOwn = /^(module\.)?exports(\.\w+)?$/.test(node.child("left")!.text);
  return isOwn && (isQuiet(value) || isExportsChain(value, isQuiet));
}
