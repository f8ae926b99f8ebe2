import { isTarget, nameInFile, unknown } from "../../../core.js";
import type { Answer, SyntaxNode, SyntaxTree } from "../../../core.js";
import { given, isCommonJs } from "./code-file.js";
import { NotAModule } from "./not-a-module.js";

/** The directive that makes a file strict; it stands among the texts at the beginning, or is none. */
export function strictDirective({ root }: SyntaxTree): SyntaxNode | undefined {
  const code = root.parts.filter((part) => !part.is(["comment", "hash_bang_line"]));
  const isText = (part: SyntaxNode): boolean =>
    part.is("expression_statement") && part.firstPart?.is("string") === true;
  const rest = code.findIndex((part) => !isText(part));
  return code
    .slice(0, rest < 0 ? undefined : rest)
    .find((part) => part.firstPart!.text.slice(1, -1) === "use strict");
}

/** Names that strict code does not allow. */
const WORDS = "implements interface let package private protected public static yield".split(" ");
const METHODS = ["method_definition", "class_static_block", "field_definition", "public_field_definition"];

/**
 * Modules are strict. Throws a NotAModule for what strict code does not allow; gives what may behave differently in it, for a
 * file that was not strict before.
 */
export function strictnessOf(tree: SyntaxTree): Answer[] {
  try {
    return strictness(tree);
  } catch (error) {
    if (!(error instanceof NotAModule) || isCommonJs(tree)) throw error;
    // It may be a script that pages load, for which nothing changes.
    return [unknown(error.code, `${error.why}, if Node runs the file`, error.at)];
  }
}

function strictness(tree: SyntaxTree): Answer[] {
  const nodes = [...tree.root.descendants()];
  refuseAtTop(tree, nodes);
  if (strictDirective(tree)) return [];
  const banned = nodes.find(isBanned);
  if (banned) throw new NotAModule(banned, "the file is not strict, and strict code does not allow this");
  const shared = nodes.find(
    (node) => node.is("identifier") && node.text === "arguments" && sharesParameters(node),
  );
  if (shared)
    throw new NotAModule(
      shared,
      "a parameter gets another value, and `arguments` follows it only where code is not strict",
    );
  for (const name of tree.names.filter((one) => !tree.language.builtins.includes(one))) {
    const undeclared = nameInFile(name, tree).references.find(
      ({ member, to, does }) => !member && !to && does !== "read",
    );
    if (undeclared && !isExports(undeclared.node) && !isInStrictClass(undeclared.node))
      throw new NotAModule(undeclared.node, `\`${name}\` is declared nowhere, which makes it global`);
  }
  const self = nodes.find((node) => node.is("this") && mayBeGlobal(node));
  return self
    ? [
        unknown(
          "value.result",
          "`this` is undefined in strict code where the function is called by itself, and was the global object",
          self,
        ),
      ]
    : [];
}

/** What the top of a module does not allow, whether its code was strict or not. */
function refuseAtTop(tree: SyntaxTree, nodes: readonly SyntaxNode[]): void {
  const self = nodes.find((node) => node.is("this") && thisOwner(node) === undefined);
  if (self) throw new NotAModule(self, "`this` is no longer the exports at the top of the file");
  const back = nodes.find(
    (node) => node.is("return_statement") && !node.closest([...OWN_THIS, "arrow_function"]),
  );
  if (back) throw new NotAModule(back, "an ES module cannot return");
  const main = tree.named("mainModule").map((id) => tree.node(id))[0];
  if (main) throw new NotAModule(main, "`process.mainModule` is not there where an ES module is started");
  const awaited = tree
    .named("await")
    .map((id) => tree.node(id))
    .find((node) => node.is("identifier"));
  if (awaited) throw new NotAModule(awaited, "`await` is no name in an ES module");
  const list = given("arguments", tree).find((node) => thisOwner(node) === undefined);
  if (list) throw new NotAModule(list, "`arguments` is not there at the top of an ES module");
  const text = given("eval", tree).find((node) => node.parent?.is("call_expression"));
  if (text) throw new NotAModule(text, "`eval` runs code that may use `require`");
}

const OWN_THIS = [
  "function_declaration",
  "function_expression",
  "generator_function_declaration",
  "generator_function",
  ...METHODS,
];

/** The function or member whose `this` is meant. */
const thisOwner = (node: SyntaxNode): SyntaxNode | undefined => node.closest(OWN_THIS);

/** Is a function that uses `this` perhaps called by itself? One that is a method, or looks like a class, is not meant to be. */
function mayBeGlobal(self: SyntaxNode): boolean {
  const owner = thisOwner(self)!;
  if (owner.is(METHODS)) return false;
  const { parent } = owner;
  const name =
    owner.child("name")?.text ?? (parent?.is("variable_declarator") ? parent.child("name")?.text : undefined);
  if (name !== undefined && /^\p{Lu}/u.test(name)) return false;
  const isMember =
    parent?.is("assignment_expression") === true &&
    parent.child("left")!.is(["member_expression", "subscript_expression"]);
  return !isMember && parent?.is("pair") !== true;
}

function isBanned(node: SyntaxNode): boolean {
  if (node.is("with_statement")) return true;
  if (node.is("number")) return /^0\d/.test(node.text);
  if (node.is("escape_sequence")) return /^\\([1-9]|0\d)/.test(node.text) && !node.closest(["regex"]);
  if (node.is("unary_expression"))
    return node.has("delete") && node.child("argument")?.is("identifier") === true;
  if (node.is("member_expression")) return /^arguments\s*\.\s*(callee|caller)$/.test(node.text);
  if (node.is("identifier") && WORDS.includes(node.text)) return true;
  if (node.is("identifier") && node.text === "arguments")
    return isTarget(node) || (node.parent?.is("subscript_expression") === true && isTarget(node.parent));
  if (node.is("formal_parameters")) {
    const names = node.parts.filter((part) => part.is("identifier")).map((part) => part.text);
    return new Set(names).size < names.length;
  }
  // Seen outside of its block only where code is not strict.
  return node.is("function_declaration") &&
    !node.parent!.is("program") &&
    !node.parent!.parent?.is([...OWN_THIS, "arrow_function"])
    ? isUsedOutside(node)
    : false;
}

function isUsedOutside(declared: SyntaxNode): boolean {
  const name = declared.child("name");
  if (!name) return false;
  const block = declared.parent!;
  return nameInFile(name.text, declared.tree).references.some(
    ({ node, member }) => !member && !block.holds(node),
  );
}

/** Is a parameter given another value in a function that reads `arguments`, where both change together in code that is not strict? */
function sharesParameters(node: SyntaxNode): boolean {
  if (/^arguments\s*\.\s*length$/.test(node.parent!.text)) return false;
  const owner = node.closest(OWN_THIS);
  const names = owner?.child("parameters")?.parts.filter((part) => part.is("identifier")) ?? [];
  return names.some((name) =>
    nameInFile(name.text, node.tree).references.some(
      (use) => use.to?.at.some((at) => at.same(name)) === true && use.does !== "read" && !use.node.same(name),
    ),
  );
}

const isExports = ({ text }: SyntaxNode): boolean => ["exports", "module", "require"].includes(text);
const isInStrictClass = (node: SyntaxNode): boolean => node.closest(["class_body"]) !== undefined;
