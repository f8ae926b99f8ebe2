import {
  condition,
  copy,
  holes,
  no,
  ofKind,
  referencesAt,
  referencesOf,
  rule,
  trialsIn,
  typeOf,
  yes,
} from "../../../core.js";
import type { Answer, Edit, Match, SyntaxNode } from "../../../core.js";
import { isLibraryName } from "../types.js";

const { declaration } = holes({ declaration: { kind: "statement", node: "local_variable_declaration" } });

/** Methods that give the buffer itself. */
const GOES_ON = /^(?:append|appendCodePoint|insert|delete|deleteCharAt|replace|reverse)$/;
/** Methods that give something else, or nothing. */
const LOOKS =
  /^(?:toString|length|charAt|substring|subSequence|indexOf|lastIndexOf|isEmpty|capacity|codePointAt|setLength|setCharAt|ensureCapacity|trimToSize)$/;

const OLD = "StringBuffer";
const isOld = (node: SyntaxNode | undefined): boolean => node?.text === OLD;

const declaratorsOf = (node: SyntaxNode): SyntaxNode[] =>
  node.parts.filter((part) => part.is("variable_declarator"));

/** Are all variables of a declaration given a new buffer? */
function makesBuffers(node: SyntaxNode): boolean {
  return (
    isOld(node.child("type")) &&
    declaratorsOf(node).every((one) => {
      const value = one.child("value");
      const isMade = value?.is("object_creation_expression") === true && isOld(value.child("type"));
      return isMade && !value.parts.some((part) => part.is("class_body"));
    })
  );
}

/** Does a use only fill the buffer, or look at it? */
function staysHere(use: SyntaxNode): boolean {
  const { parent } = use;
  if (parent?.is("method_invocation") && parent.child("object")?.same(use)) {
    const method = parent.child("name")!.text;
    if (LOOKS.test(method)) return true;
    return GOES_ON.test(method) && (parent.parent?.is("expression_statement") === true || staysHere(parent));
  }
  if (parent?.is("binary_expression")) return parent.child("operator")?.text === "+";
  const call = parent?.is("argument_list") ? parent.parent : undefined;
  return (
    call?.is("method_invocation") === true &&
    parent!.parts.length === 1 &&
    call.child("name")!.text === "append" &&
    isText(call.child("object"))
  );
}

/** Is a text built here, by one of the two classes? */
function isText(node: SyntaxNode | undefined): boolean {
  let at = node;
  while (at?.is("method_invocation")) at = at.child("object");
  return at !== undefined && /^String(?:Buffer|Builder)$/.test(typeOf(at)?.name ?? "");
}

function isSeenHereOnly(match: Match): Answer {
  const code = "flow.escapes";
  for (const one of declaratorsOf(match.the(declaration))) {
    const name = one.child("name")!;
    const to = referencesAt(name).find((reference) => reference.to)?.to;
    if (!to) return no(code, `it is not known what uses \`${name.text}\``, name);
    for (const { node, captured } of referencesOf(to)) {
      if (node.same(name)) continue;
      if (captured) return no(code, `what is run later sees \`${name.text}\`, maybe in another thread`, node);
      if (!staysHere(node))
        return no(code, `\`${name.text}\` is handed on, or used as the class that it is`, node);
    }
  }
  return yes(code, "only this method sees it, in one thread");
}

const { rewrites, ignores, holds } = trialsIn("java", "5");
const inMethod = (code: string, imports = ""): string =>
  `${imports}class A {\n    String f(String s, StringBuilder other) {\n        ${code.replaceAll("\n", "\n        ")}\n    }\n}\n`;

export const unsharedText = rule({
  id: "java/unshared-text",
  kind: "idiom",
  title: "Use a StringBuilder for a text that one method builds",
  why: "A StringBuffer takes and releases a lock at every call, for threads that never come.",
  target: "5",
  was: ofKind(declaration, { when: makesBuffers }),
  mentions: [OLD],
  given: [
    condition("both classes are those of the library", (match) => isLibraryName(OLD, "java.lang", match)),
    condition("`StringBuilder` is the one of the library", (match) =>
      isLibraryName("StringBuilder", "java.lang", match),
    ),
    condition("nobody else sees it", isSeenHereOnly),
  ],
  becomes: (match) => {
    const node = match.the(declaration);
    const types = [
      node.child("type")!,
      ...declaratorsOf(node).map((one) => one.child("value")!.child("type")!),
    ];
    const edits = types.map(({ start, end }): Edit => ({ start, end, text: "StringBuilder" }));
    return [copy(node.start, node.end, edits)];
  },
  trials: [
    rewrites(
      inMethod(
        'StringBuffer text = new StringBuffer();\ntext.append("a").append(s);\nreturn text.toString();',
      ),
      inMethod(
        'StringBuilder text = new StringBuilder();\ntext.append("a").append(s);\nreturn text.toString();',
      ),
    ),
    rewrites(
      inMethod(
        'final StringBuffer a = new StringBuffer(s), b = new StringBuffer(16); // two\na.setLength(a.length() - 1);\nb.append(a);\nother.append(b);\nreturn b + "x";',
      ),
      inMethod(
        'final StringBuilder a = new StringBuilder(s), b = new StringBuilder(16); // two\na.setLength(a.length() - 1);\nb.append(a);\nother.append(b);\nreturn b + "x";',
      ),
    ),
    rewrites(
      inMethod("StringBuffer text = new StringBuffer();\nreturn text.append(s).reverse().substring(1);"),
      inMethod("StringBuilder text = new StringBuilder();\nreturn text.append(s).reverse().substring(1);"),
    ),
    // Somebody else gets it, or its class is asked for.
    holds(
      inMethod("StringBuffer text = new StringBuffer();\nfill(text);\nreturn text.toString();"),
      "handed on",
    ),
    holds(
      inMethod("StringBuffer text = new StringBuffer();\nthis.text = text.append(s);\nreturn s;"),
      "handed on",
    ),
    holds(
      inMethod("StringBuffer text = new StringBuffer();\nmatcher.appendTail(text);\nreturn s;"),
      "handed on",
    ),
    holds(
      inMethod("StringBuffer text = new StringBuffer();\nsynchronized (text) { g(); }\nreturn s;"),
      "handed on",
    ),
    holds(
      inMethod("StringBuffer text = new StringBuffer();\nreturn text.equals(s) ? s : null;"),
      "handed on",
    ),
    holds(
      inMethod("StringBuffer text = new StringBuffer();\ntext = next();\nreturn text.toString();"),
      "handed on",
    ),
    holds(
      inMethod(
        "StringBuffer text = new StringBuffer();\nall.forEach(x -> text.append(x));\nreturn text.toString();",
      ),
      "maybe in another thread",
    ),
    holds(
      inMethod(
        "StringBuffer text = new StringBuffer();\nreturn text.toString();",
        "import hive.StringBuffer;\n",
      ),
      "is imported from",
    ),
    ignores(inMethod("StringBuffer text = next();\nreturn text.toString();")),
    ignores("class A {\n    private StringBuffer text = new StringBuffer();\n}\n"),
  ],
});
