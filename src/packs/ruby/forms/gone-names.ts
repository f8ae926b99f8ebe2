import { condition, copy, holes, ofKind, rule, text, trialsIn } from "../../../core.js";
import type { Edit, SyntaxNode } from "../../../core.js";
import { isOfLanguage } from "../values.js";

/** Constants that Ruby had, and what has their place. */
const CONSTANTS: Readonly<Record<string, string>> = {
  Fixnum: "Integer",
  Bignum: "Integer",
  TRUE: "true",
  FALSE: "false",
  NIL: "nil",
};
/** Methods of classes that are gone, and what does the same. */
const METHODS: Readonly<Record<string, string>> = {
  "File.exists?": "File.exist?",
  "FileTest.exists?": "FileTest.exist?",
  "Dir.exists?": "Dir.exist?",
  "URI.escape": "URI::DEFAULT_PARSER.escape",
  "URI.encode": "URI::DEFAULT_PARSER.escape",
  "URI.unescape": "URI::DEFAULT_PARSER.unescape",
  "URI.decode": "URI::DEFAULT_PARSER.unescape",
};

const { use } = holes({ use: { kind: "expression", node: ["constant", "call"] } });

/** What has the place of a constant that is read, or of the method that is called; undefined for all others. */
function replacementOf(node: SyntaxNode): { readonly edit: Edit; readonly name: string } | undefined {
  if (node.is("constant")) {
    const now = Object.hasOwn(CONSTANTS, node.text) ? CONSTANTS[node.text] : undefined;
    const isRead = !node.parent?.is(["scope_resolution", "class", "module", "superclass"]);
    const isWritten = node.parent?.child("left")?.same(node) === true;
    return now !== undefined && isRead && !isWritten && node.field !== "method"
      ? { edit: { start: node.start, end: node.end, text: now }, name: node.text }
      : undefined;
  }
  const [receiver, method] = [node.child("receiver"), node.child("method")];
  if (!receiver?.is("constant") || !method) return undefined;
  const now = METHODS[`${receiver.text}.${method.text}`];
  return now === undefined
    ? undefined
    : { edit: { start: receiver.start, end: method.end, text: now }, name: receiver.text };
}

/** Code that asks which Ruby it runs on, or whether there is such a name, knows that it may be gone. */
const KNOWS =
  /\bRUBY_VERSION\b|\bRUBY_ENGINE\b|defined\?|const_defined\?|respond_to\?\s*\(?\s*:(exists\?|(un)?escape)/;

const { rewrites, ignores, holds } = trialsIn("ruby");

export const goneNames = rule({
  id: "ruby/gone-names",
  kind: "breaks",
  title: "Use the names that Ruby 3 has",
  why: "The old ones are gone, and code that comes to one of them fails.",
  was: ofKind(use, { when: (node) => replacementOf(node) !== undefined && !KNOWS.test(node.tree.text) }),
  mentions: [...Object.keys(CONSTANTS), "exists?", "escape", "unescape", "encode", "decode"],
  // From there on, whole numbers are all of one class.
  target: "2.4",
  given: [
    condition("the name means what the language means by it", (match) =>
      isOfLanguage(replacementOf(match.the(use))!.name, match.the(use)),
    ),
  ],
  becomes: (match) => {
    const node = match.the(use);
    const { edit } = replacementOf(node)!;
    return node.is("constant") ? [text(edit.text)] : [copy(node.start, node.end, [edit])];
  },
  trials: [
    rewrites("x.is_a?(Fixnum)\n", "x.is_a?(Integer)\n"),
    rewrites("y = x == NIL ? TRUE : FALSE\n", "y = x == nil ? true : false\n"),
    rewrites("case x\nwhen Bignum then 1\nend\n", "case x\nwhen Integer then 1\nend\n"),
    rewrites("f if File.exists?(path)\n", "f if File.exist?(path)\n"),
    rewrites("f unless Dir.exists? path\n", "f unless Dir.exist? path\n"),
    rewrites(
      'require "uri"\nx = URI.escape(y, /a/)\n',
      'require "uri"\nx = URI::DEFAULT_PARSER.escape(y, /a/)\n',
    ),
    rewrites("class A < B\n  X = NIL\nend\n", "class A < B\n  X = nil\nend\n", "likely"),
    rewrites(
      "class A\n  include Limits\n  X = FALSE\nend\n",
      "class A\n  include Limits\n  X = false\nend\n",
      "likely",
    ),
    holds("class Fixnum2\n  NIL = 1\n  def f\n    NIL\n  end\nend\n", "means something else"),
    ignores("x = Hive::NIL\n"),
    ignores("class Fixnum\n  def hours\n    self\n  end\nend\n"),
    ignores("x = defined?(Fixnum) ? Fixnum : Integer\n"),
    ignores("if RUBY_VERSION < '2.4'\n  f(Fixnum)\nend\n"),
    ignores("hive.exists?(path)\nx = Store::File.exists?(path)\n"),
    ignores("x = Integer\nFile.exist?(x)\n"),
    trialsIn("ruby", "2.3").ignores("x.is_a?(Fixnum)\n"),
  ],
});
