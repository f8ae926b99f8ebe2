import { condition, holes, ofKind, rule, shortened, text, trialsIn, unknown, yes } from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { isOfNamespace } from "../system.js";

const { literal } = holes({ literal: { kind: "expression", node: "string_literal" } });

/** Exceptions of the library, with the place of the parameter's name among their arguments: by how many there are. */
const EXCEPTIONS: Readonly<Record<string, readonly number[]>> = {
  ArgumentNullException: [0, 0],
  ArgumentOutOfRangeException: [0, 0, 0],
  ArgumentException: [-1, 1, 1],
};

/** What a text names: a parameter of the method around it, or a property of the class around it. */
interface Named {
  readonly what: "parameter" | "property";
  /** Does the one who gets the text certainly want a name? */
  readonly isCertain: boolean;
}

function namedBy(node: SyntaxNode): Named | undefined {
  const name = node.text.slice(1, -1);
  if (!/^"[A-Za-z_]\w*"$/.test(node.text)) return undefined;
  const list = node.parent?.is("argument") ? node.parent.parent : node.parent;
  const own = node.parent?.is("argument") ? node.parent : node;
  const call = list?.is("argument_list") ? list.parent : undefined;
  const place = list?.parts.findIndex((part) => part.same(own)) ?? -1;
  if (!call || node.parent?.child("name")) return undefined;
  if (call.is("object_creation_expression")) {
    const type = call.child("type")!.text.replace(/^System\./, "");
    const isLast = EXCEPTIONS[type]?.[list!.parts.length - 1] === place;
    if (isLast && parametersAround(node).includes(name)) return { what: "parameter", isCertain: true };
    const isChange = /^(System\.ComponentModel\.)?PropertyChang(ed|ing)EventArgs$/.test(type) && place === 0;
    return isChange && hasProperty(node, name) ? { what: "property", isCertain: true } : undefined;
  }
  const callee = call.child("function");
  const called = callee?.is("member_access_expression") ? callee.child("name")!.text : callee?.text;
  const isRaised =
    call.is("invocation_expression") && /Propert(y|ies)Chang(ed|ing)$|^SetProperty$/.test(called ?? "");
  return isRaised && hasProperty(node, name) ? { what: "property", isCertain: false } : undefined;
}

/** The parameters that are in sight: those of the method and of the functions in it. */
function parametersAround(node: SyntaxNode): string[] {
  const names: string[] = [];
  for (const above of node.ancestors()) {
    if (above.is(["class_declaration", "struct_declaration", "record_declaration"])) break;
    const list = above.child("parameters");
    names.push(
      ...(list?.parts.flatMap(
        (part) => part.child("name")?.text ?? (part.is("identifier") ? part.text : []),
      ) ?? []),
    );
    // `value` is what a property is given.
    if (
      above.is("accessor_declaration") &&
      /^(set|init|add|remove)\b/.test(above.text.replace(/^\[.*?\]\s*/s, ""))
    )
      names.push("value");
    if (
      above.is("property_declaration") ||
      above.is("method_declaration") ||
      above.is("constructor_declaration")
    )
      break;
  }
  return names;
}

function hasProperty(node: SyntaxNode, name: string): boolean {
  const around = node.closest(["class_declaration", "struct_declaration", "record_declaration"]);
  return (
    around
      ?.child("body")
      ?.parts.some((part) => part.is("property_declaration") && part.child("name")?.text === name) === true
  );
}

/** Does the one who gets the text ask for a name? */
function asksForName(match: Match): Answer {
  const node = match.the(literal);
  const { what, isCertain } = namedBy(node)!;
  const call = node.closest(["object_creation_expression", "invocation_expression"])!;
  const type = call.child("type");
  if (isCertain && type) {
    const name = type.text.replace(/^.*\./, "");
    const namespace = name.startsWith("Propert") ? "System.ComponentModel" : "System";
    const meant = isOfNamespace(name, namespace, type);
    if (meant.is !== "yes") return meant;
    return yes("name.scope", `${node.text} is the name of a ${what} here, and \`${name}\` takes one`, node);
  }
  const callee = shortened(call.child("function")!.text);
  const says = `${node.text} is the name of a ${what} here; \`${callee}\` could mean something else by it`;
  return unknown("name.scope", says, node);
}

const { rewrites, ignores, holds } = trialsIn("csharp");

export const nameOf = rule({
  id: "csharp/name-of",
  kind: "idiom",
  title: "Use nameof instead of a name as text",
  why: "A text keeps the old name when the parameter or property is renamed, and nobody notices.",
  target: "6.0",
  was: ofKind(literal, { when: (node) => namedBy(node) !== undefined }),
  mentions: [
    "ArgumentNullException",
    "ArgumentException",
    "ArgumentOutOfRangeException",
    "PropertyChanged",
    "PropertyChanging",
    "PropertyChangedEventArgs",
    "PropertyChangingEventArgs",
    "OnPropertyChanged",
    "RaisePropertyChanged",
    "NotifyPropertyChanged",
    "SetProperty",
  ],
  given: [condition("the text is asked for as a name", asksForName)],
  becomes: (match) => [text(`nameof(${match.textOf(literal).slice(1, -1)})`)],
  trials: [
    rewrites(
      'using System; class A { void F(string jar) { if (jar == null) throw new ArgumentNullException("jar"); } }',
      "using System; class A { void F(string jar) { if (jar == null) throw new ArgumentNullException(nameof(jar)); } }",
    ),
    rewrites(
      'using System; class A { void F(int n) { throw new System.ArgumentOutOfRangeException("n", n, "too many"); } }',
      'using System; class A { void F(int n) { throw new System.ArgumentOutOfRangeException(nameof(n), n, "too many"); } }',
    ),
    rewrites(
      'using System; class A { void F(int n) { throw new ArgumentException("n", "n"); } }',
      'using System; class A { void F(int n) { throw new ArgumentException("n", nameof(n)); } }',
    ),
    rewrites(
      'using System; class A { int n; int N { set { if (value < 0) throw new ArgumentOutOfRangeException("value"); n = value; } } }',
      "using System; class A { int n; int N { set { if (value < 0) throw new ArgumentOutOfRangeException(nameof(value)); n = value; } } }",
    ),
    rewrites(
      'using System; class A { public int Age { get; set; } void F() { OnPropertyChanged("Age"); } }',
      "using System; class A { public int Age { get; set; } void F() { OnPropertyChanged(nameof(Age)); } }",
      "likely",
    ),
    rewrites(
      'using System.ComponentModel; class A { public int Age { get; set; } void F() { P(this, new PropertyChangedEventArgs("Age")); } }',
      "using System.ComponentModel; class A { public int Age { get; set; } void F() { P(this, new PropertyChangedEventArgs(nameof(Age))); } }",
    ),
    rewrites(
      'class A { void F(int n) { throw new ArgumentNullException("n"); } }',
      "class A { void F(int n) { throw new ArgumentNullException(nameof(n)); } }",
      "likely",
    ),
    // A message that happens to be one word.
    ignores('class A { void F(int n) { throw new ArgumentException("n"); } }'),
    ignores('class A { void F(int n) { throw new ArgumentNullException("jar"); } }'),
    ignores('class A { void F(int n) { Log("n"); } }'),
    ignores('class A { void F() { OnPropertyChanged("Age"); } }'),
    ignores('class A { void F(int n) { throw new ArgumentNullException("the n"); } }'),
    holds(
      'using System; class ArgumentNullException { ArgumentNullException(string s) {} } class A { void F(int n) { throw new ArgumentNullException("n"); } }',
      "of its own",
    ),
    trialsIn("csharp", "5.0").ignores(
      'using System; class A { void F(string jar) { throw new ArgumentNullException("jar"); } }',
    ),
  ],
});
