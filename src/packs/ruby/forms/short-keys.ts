import { copy, holes, jumpOf, ofKind, rule, trialsIn } from "../../../core.js";
import type { Edit, SyntaxNode } from "../../../core.js";

const { pairs } = holes({ pairs: { kind: "expression", node: ["hash", "argument_list", "array"] } });

/** A symbol that can stand as a key without its arrow; quoted ones and operators stay. */
const PLAIN = /^:[A-Za-z_]\w*$/;

/** How one key is written in short; undefined where it cannot be. */
function inShort(pair: SyntaxNode): readonly Edit[] | undefined {
  const [key, value] = [pair.child("key"), pair.child("value")];
  if (!key || !value || !key.is("simple_symbol") || !PLAIN.test(key.text)) return undefined;
  const between = pair.tree.text.slice(key.end, value.start);
  const gap = /^([ \t]*)=>([ \t]*)$/.exec(between);
  if (!gap) return undefined;
  // Arrows that stand below each other leave their values below each other.
  const space = gap[1] === "" ? " " : gap[1]!;
  return [
    { start: key.start, end: key.start + 1, text: "" },
    { start: key.end, end: value.start, text: `:${space}` },
  ];
}

/** All keys of a list of pairs in short; undefined where one of them cannot be, or none needs it. */
function allInShort(list: SyntaxNode): readonly Edit[] | undefined {
  // `return a: 1` is a syntax error.
  if (list.is("argument_list") && list.parent && jumpOf(list.parent) !== undefined && !list.parent.is("call"))
    return undefined;
  const found = list.parts.filter((part) => part.is("pair"));
  const long = found.filter((pair) => !pair.child("key")?.is("hash_key_symbol"));
  const edits = long.map(inShort);
  return long.length > 0 && edits.every((one) => one !== undefined) ? edits.flat() : undefined;
}

const { rewrites, ignores } = trialsIn("ruby");

export const shortKeys = rule({
  id: "ruby/short-keys",
  kind: "idiom",
  title: "Write symbols as keys without arrows",
  why: "`a: 1` says the same as `:a => 1`, and reads as the names of arguments do.",
  was: ofKind(pairs, { when: (list) => allInShort(list) !== undefined }),
  mentions: ["=>"],
  target: "1.9",
  becomes: (match) => {
    const list = match.the(pairs);
    return [copy(list.start, list.end, allInShort(list))];
  },
  trials: [
    rewrites("jar = { :size => 1, :label => nil }\n", "jar = { size: 1, label: nil }\n"),
    rewrites('f(1, :size=>[:big], :if => "x", **more)\n', 'f(1, size: [:big], if: "x", **more)\n'),
    rewrites("f :size => 1 do |y|\n  g\nend\n", "f size: 1 do |y|\n  g\nend\n"),
    rewrites(
      "LABELS = {\n  :honey   => 1, # by weight\n  :beeswax => 2,\n}\n",
      "LABELS = {\n  honey:   1, # by weight\n  beeswax: 2,\n}\n",
    ),
    rewrites("f(:a => { :b => 1 }, c: 2)\n", "f(a: { b: 1 }, c: 2)\n"),
    rewrites('x = "#{f(:a => 1)}"\n', 'x = "#{f(a: 1)}"\n'),
    rewrites("yield :a => ::B\n", "yield a: ::B\n"),
    rewrites("raise A, :a => 1\n", "raise A, a: 1\n"),
    rewrites("return { :a => 1 }\n", "return { a: 1 }\n"),
    ignores("return :a => 1\n"),
    ignores("f { break :a => 1 }\n"),
    ignores("f { next 2, :a => 1 }\n"),
    ignores('jar = { :size => 1, "label" => 2 }\n'),
    ignores('jar = { :"big size" => 1 }\n'),
    ignores("jar = { :+ => 1, :[] => 2, :a= => 3 }\n"),
    ignores("jar = { :size =>\n  1 }\n"),
    ignores("jar = { :size => 1, key => 2 }\n"),
    ignores("begin\n  f\nrescue A => e\n  g\nend\n"),
    ignores("jar = { size: 1 }\n"),
    ignores("case jar\nin { size: Integer => n }\n  n\nend\n"),
    trialsIn("ruby", "1.8").ignores("jar = { :size => 1 }\n"),
  ],
});
