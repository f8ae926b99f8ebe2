import {
  condition,
  copy,
  holes,
  isValueSeen,
  no,
  ofKind,
  rule,
  text,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { isOfLanguage } from "../values.js";

const { method } = holes({ method: { kind: "statement", node: "method" } });

/** The names that Ruby itself calls, or that mean something else as attributes. */
const OWN = /^(initialize\w*|[A-Z]\w*|method_missing|respond_to_missing)$/;

/** Does a method stand in a class of its own right, where its visibility is that of what is around it? */
const isMember = (node: SyntaxNode): boolean =>
  node.parent?.is("body_statement") === true &&
  node.parent.parent?.is(["class", "module", "singleton_class"]) === true;

/** The name of the variable of which a method gives the value, and does nothing else. */
function readBy(node: SyntaxNode): string | undefined {
  const name = node.child("name")?.text ?? "";
  const body = node.child("body");
  const only = body?.is("instance_variable") ? body : body?.parts.length === 1 ? body.firstPart : undefined;
  const isPlain = (node.child("parameters")?.parts.length ?? 0) === 0;
  return isPlain && only?.is("instance_variable") && only.text === `@${name}` && !OWN.test(name)
    ? name
    : undefined;
}

/** The name of the variable that a method gives its only argument, and does nothing else. */
function writtenBy(node: SyntaxNode): string | undefined {
  const setter = node.child("name");
  const name = setter?.is("setter") ? setter.child("name")?.text : undefined;
  const [given, ...others] = node.child("parameters")?.parts ?? [];
  const body = node.child("body");
  const only = body?.parts.length === 1 ? body.firstPart : undefined;
  const isPlain = given !== undefined && given.is("identifier") && others.length === 0;
  const [left, right] = only?.is("assignment") ? [only.child("left"), only.child("right")] : [];
  return isPlain && left?.text === `@${name}` && right?.text === given.text && !OWN.test(name ?? "")
    ? name
    : undefined;
}

/** A method with its counterpart right behind it, if that is there. */
function together(node: SyntaxNode): readonly SyntaxNode[] | undefined {
  if (!isMember(node)) return undefined;
  const name = readBy(node) ?? writtenBy(node);
  if (name === undefined || partner(node, node.previousPart, name)) return undefined;
  const next = partner(node, node.nextPart, name);
  return next ? [node, next] : [node];
}

/** A neighbour that does the other half for the same variable, with nothing but blank between. */
function partner(node: SyntaxNode, other: SyntaxNode | undefined, name: string): SyntaxNode | undefined {
  if (!other?.is("method")) return undefined;
  const isOther = readBy(node) === undefined ? readBy(other) === name : writtenBy(other) === name;
  const [from, to] = node.start < other.start ? [node.end, other.start] : [other.end, node.start];
  return isOther && /^\s*$/.test(node.tree.text.slice(from, to)) ? other : undefined;
}

function declaredAs(match: Match): string {
  const nodes = together(match.the(method))!;
  if (nodes.length > 1) return "attr_accessor";
  return readBy(nodes[0]!) === undefined ? "attr_writer" : "attr_reader";
}

/** A comment on the line on which a method begins, which is about its name. */
function besideHead(node: SyntaxNode): SyntaxNode | undefined {
  const { comments } = node.tree.language;
  const { tree } = node;
  return [...node.descendants()].find((one) => one.is(comments) && tree.lineAt(one.start) === node.line);
}

/** What changes how methods are declared does not change attributes. */
function isDeclaredAlike(match: Match): Answer {
  const node = match.the(method);
  const before = node.parent!.parts.filter((part) => part.end <= node.start);
  const mode = before.find((part) => part.is("identifier") && part.text === "module_function");
  if (mode) return no("form.fits", "`module_function` makes functions of methods alone", mode);
  if (isValueSeen(node) || isClassSeen(node))
    return no("value.result", "the name of the method is what the class comes to", node);
  const last = node.previousPart;
  return last && isSaidOfNext(last, node)
    ? unknown("form.fits", `\`${last.child("method")!.text}\` could be said of the method behind it`, last)
    : yes("form.fits", "it is declared in the same way");
}

/** What every class can call, and what says nothing of the next method. */
const ORDINARY =
  /^(attr_\w+|include|extend|prepend|alias_method|define_method|private\w*|public\w*|protected|module_function|require\w*)$/;

/** Is a call right above a method such as many libraries have for the method that comes next: a signature, a description? */
const isSaidOfNext = (call: SyntaxNode, { tree, line }: SyntaxNode): boolean =>
  call.is("call") &&
  !call.child("receiver") &&
  !ORDINARY.test(call.child("method")?.text ?? "") &&
  tree.lineAt(call.end) === line - 1;

/** Is the value of a class used, with the method as its last statement? */
function isClassSeen(node: SyntaxNode): boolean {
  const around = node.parent!.parent!;
  return (
    node.nextPart === undefined && around.parent?.is(["program", "body_statement", "block_body"]) !== true
  );
}

const { rewrites, ignores, holds } = trialsIn("ruby");
const inClass = (body: string): string => `class Hive\n${body}end\n`;

export const attribute = rule({
  id: "ruby/attribute",
  kind: "idiom",
  title: "Use attr_reader, attr_writer and attr_accessor to reach a variable",
  why: "Three lines say what one does, and somebody must read them to see that nothing else is done.",
  was: ofKind(method, { together }),
  given: [
    condition("the method is declared in a plain way", isDeclaredAlike),
    condition("the declaration is the one of the language", (match) =>
      isOfLanguage(declaredAs(match), match.node),
    ),
  ],
  becomes: (match) => {
    const [first, second] = together(match.the(method))!;
    const beside = besideHead(first!) ?? (second && besideHead(second));
    const declared = `${declaredAs(match)} :${readBy(first!) ?? writtenBy(first!)}`;
    return [text(declared), ...(beside ? [text(" "), copy(beside.start, beside.end)] : [])];
  },
  trials: [
    rewrites(inClass("  def queen\n    @queen\n  end\n"), inClass("  attr_reader :queen\n")),
    rewrites(
      inClass("  def queen() @queen; end\n\n  def f\n    1\n  end\n"),
      inClass("  attr_reader :queen\n\n  def f\n    1\n  end\n"),
    ),
    rewrites(
      inClass("  def queen # :nodoc:\n    @queen\n  end\n"),
      inClass("  attr_reader :queen # :nodoc:\n"),
    ),
    rewrites(inClass("  def queen = @queen\n"), inClass("  attr_reader :queen\n")),
    rewrites(inClass("  def queen=(value)\n    @queen = value\n  end\n"), inClass("  attr_writer :queen\n")),
    rewrites(
      inClass(
        "  # Who lays the eggs.\n  def queen\n    @queen\n  end\n\n  def queen=(queen)\n    @queen = queen\n  end\n",
      ),
      inClass("  # Who lays the eggs.\n  attr_accessor :queen\n"),
    ),
    rewrites(
      inClass("  private\n\n  def queen=(q)\n    @queen = q\n  end\n\n  def queen\n    @queen\n  end\n"),
      inClass("  private\n\n  attr_accessor :queen\n"),
    ),
    rewrites(
      "class Hive\n  class << self\n    def all\n      @all\n    end\n  end\nend\n",
      "class Hive\n  class << self\n    attr_reader :all\n  end\nend\n",
    ),
    holds("module Hive\n  module_function\n\n  def queen\n    @queen\n  end\nend\n", "module_function"),
    rewrites(
      inClass("  sig { returns(Queen) }\n  def queen\n    @queen\n  end\n"),
      inClass("  sig { returns(Queen) }\n  attr_reader :queen\n"),
      "likely",
    ),
    rewrites(
      "class Hive < Home\n  def queen\n    @queen\n  end\nend\n",
      "class Hive < Home\n  attr_reader :queen\nend\n",
      "likely",
    ),
    rewrites(
      inClass("  extend Named\n\n  def queen\n    @queen\n  end\n"),
      inClass("  extend Named\n\n  attr_reader :queen\n"),
      "likely",
    ),
    holds("x = class Hive\n  def queen\n    @queen\n  end\nend\n", "comes to"),
    holds(
      inClass("  def self.attr_reader(*names)\n    f\n  end\n\n  def queen\n    @queen\n  end\n"),
      "means something else",
    ),
    ignores(inClass("  def queen\n    @bee\n  end\n")),
    ignores(inClass("  def queen?\n    @queen\n  end\n")),
    ignores(inClass("  def queen\n    @queen ||= f\n  end\n")),
    ignores(inClass("  def queen(at)\n    @queen\n  end\n")),
    ignores(inClass("  def self.queen\n    @queen\n  end\n")),
    ignores(inClass("  private def queen\n    @queen\n  end\n")),
    ignores(inClass("  def queen\n    @queen\n  rescue E\n    1\n  end\n")),
    ignores(inClass("  def queen=(value)\n    @queen = value.to_s\n  end\n")),
    ignores("def queen\n  @queen\nend\n"),
    ignores("Class.new do\n  def queen\n    @queen\n  end\nend\n"),
  ],
});
