import { isTarget, referencesAt } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";
import { isAtLoad, runsAtLoad } from "./at-load.js";
import { unwrapped } from "./brackets.js";
import { type CodeFile, given, topStatement } from "./code-file.js";
import { type Loaded, meant, type Whereabouts } from "./loaded.js";
import { NotAModule } from "./not-a-module.js";

/** A call of `require`, and what its value is used for. */
export interface Loading {
  readonly call: SyntaxNode;
  /** What is loaded, as it is written there, and without its quotes. */
  readonly text: SyntaxNode;
  readonly name: string;
  readonly loaded: Loaded;
  /** The statement of the file around it. */
  readonly statement: SyntaxNode;
  /**
   * `stays`: it is loaded by a call as before. `bare`: nothing is done with the value. `bound`: a declaration at the top of the
   * file gives it names. `inline`: it stands in an expression that is always evaluated.
   */
  readonly how: "stays" | "bare" | "bound" | "inline";
  /** It is loaded when a function is called, and not while the file is. */
  readonly isLate: boolean;
  /** The declaration that names it, and the one member of it that is named, if it is one. */
  readonly declarator?: SyntaxNode;
  readonly member?: SyntaxNode;
}

/** The calls of `require` in a file. Throws a NotAModule for one that an import cannot take the place of. */
export function loadingsIn(file: CodeFile, where: Whereabouts): Loading[] {
  return given("require", file.tree).flatMap((name) => {
    const { parent } = name;
    if (parent?.is("member_expression") && parent.child("object")?.same(name)) {
      const member = parent.child("property")!.text;
      if (member === "main" || member === "resolve") return [];
      throw new NotAModule(parent, `\`require.${member}\` is not there in an ES module`);
    }
    if (parent?.is("unary_expression") && parent.has("typeof"))
      throw new NotAModule(parent, "the file asks what loads it");
    if (isTarget(name)) throw new NotAModule(name, "`require` is given another value");
    if (!parent?.is("call_expression") || !parent.child("function")?.same(name))
      throw new NotAModule(name, "`require` is used as a value");
    return [loading(parent, file, where)];
  });
}

/** Is `require` still needed for a use that is no call of it? */
export function resolvesPaths({ tree }: CodeFile): boolean {
  return given("require", tree).some(
    ({ parent }) => parent?.is("member_expression") && parent.child("property")?.text === "resolve",
  );
}

function loading(call: SyntaxNode, { path }: CodeFile, where: Whereabouts): Loading {
  const [text, ...more] = call.child("arguments")?.parts ?? [];
  if (!text || more.length > 0) throw new NotAModule(call, "what is loaded is not understood");
  const statement = topStatement(call);
  if (!text.is("string") || text.text.includes("\\")) {
    if (mayBeOwn(text))
      throw new NotAModule(call, "which file of the package is loaded is worked out while the program runs");
    return { call, text, name: text.text, loaded: { is: "unknown" }, statement, isLate: false, how: "stays" };
  }
  const name = text.text.slice(1, -1);
  const loaded = meant(name, path, where, call);
  const base = { call, text, name, loaded, statement, isLate: false };
  if (loaded.is === "data") return { ...base, how: "stays" };
  if (!isAtLoad(call)) {
    if (loaded.is !== "own") return { ...base, how: "stays" };
    const isUsed = !unwrapped(call).parent?.is("expression_statement");
    const isTried = call.closest(["try_statement"]) !== undefined;
    if (runsAtLoad(call) || isTried || !isUsed)
      throw new NotAModule(call, "a file of the package is loaded only when it is needed");
    return { ...base, how: "inline", isLate: true };
  }
  const around = unwrapped(call).parent;
  if (around?.is("expression_statement")) {
    if (around.same(statement)) return { ...base, how: "bare" };
    if (loaded.is !== "own") return { ...base, how: "stays" };
    throw new NotAModule(call, "a file of the package is loaded for what it does, within a function");
  }
  const { parent } = call;
  const read = parent?.is("member_expression") && parent.child("object")?.same(call) ? parent : undefined;
  const member = read?.child("property");
  const value = read ?? call;
  const declarator = value.parent;
  const isDeclared = declarator?.is("variable_declarator") && declarator.child("value")?.same(value);
  if (declarator && isDeclared && declarator.parent?.same(statement))
    return { ...base, how: "bound", declarator, ...(member ? { member } : {}) };
  return { ...base, how: "inline" };
}

/** Could a path that is worked out be that of a file of the package: is it built on the path of this file, or do such paths stand in it? */
function mayBeOwn(path: SyntaxNode): boolean {
  const seen = new Set<string>();
  const looksOwn = (node: SyntaxNode): boolean =>
    [node, ...node.descendants()].some((part) => {
      if (part.is("identifier") && ["__dirname", "__filename"].includes(part.text)) return true;
      if (part.is("string_fragment")) return /^\.\.?(\/|$)/.test(part.text);
      if (!part.is("identifier") || seen.has(part.text)) return false;
      seen.add(part.text);
      const to = referencesAt(part).find((one) => !one.member)?.to;
      const values = (to?.at ?? []).map((at) => at.closest(["variable_declarator"])?.child("value"));
      return values.some((value) => value !== undefined && looksOwn(value));
    });
  return (
    looksOwn(path) || path.tree.ofKinds(["string_fragment"]).some((id) => isLoosePath(path.tree.node(id)))
  );
}

/** Is this the path of a file beside this one, in a list of such paths perhaps? */
function isLoosePath(fragment: SyntaxNode): boolean {
  const call = fragment.parent?.parent?.parent;
  const isLoaded = call?.is("call_expression") && call.child("function")?.text === "require";
  return /^\.\.?\//.test(fragment.text) && !isLoaded;
}
