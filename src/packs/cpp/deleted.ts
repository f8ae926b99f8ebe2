import {
  condition,
  copy,
  holes,
  no,
  ofKind,
  rule,
  standsInProject,
  surroundingsOf,
  text,
  textFound,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match, SyntaxNode } from "../../core.js";
import { specialMember } from "./special-members.js";

const { method } = holes({
  method: { kind: "statement", node: ["declaration", "field_declaration"] },
});

/** A copy that is declared where nobody can call it, and not written there. */
function isHiddenCopy(node: SyntaxNode): boolean {
  const special = specialMember(node);
  if (!special?.inside || (special.is !== "copy" && special.is !== "copy assignment")) return false;
  if (!/\)\s*;$/.test(node.text) || /\b(virtual|static|friend)\b/.test(node.text)) return false;
  let at = node.previousPart;
  while (at && !at.is("access_specifier")) at = at.previousPart;
  return at ? at.text.startsWith("private") : special.inside.is("class_specifier");
}

/** Files of which the names do not say that they are C++. */
const OTHER_PARTS = /#\s*include\s*["<][^">]*\.(?!h\b|hh\b|hpp\b|hxx\b|inl\b|ipp\b|tpp\b)\w+[">]/;

/** Nobody has written the function: what calls it would not link, and does not compile now. */
function isNowhere({ node, tree }: Match): Answer {
  const { of, is } = specialMember(node)!;
  const what = is === "copy" ? `${of}\\s*\\(` : "operator\\s*=\\s*\\(";
  if (standsInProject(tree, of, new RegExp(`\\b${of}\\b[^;{}()]*::\\s*${what}[^()]*&`)))
    return no("name.other-uses", `the function is written outside of \`${of}\``, node);
  const part = textFound(tree, OTHER_PARTS);
  if (!surroundingsOf(tree).files || part !== undefined)
    return unknown("name.other-uses", "a file that is not read could write the function", node);
  return yes("name.other-uses", "nothing in the project writes the function");
}

/** Older compilers make a value that is given back without a copy, and demand that it could be copied. */
function isNotGiven({ node }: Match): Answer {
  const { of, is, inside } = specialMember(node)!;
  const giver = new RegExp(`(?:^|[;{}:\\s])(?:static\\s+)?${of}\\s+\\w+\\s*\\(|\\bfriend\\b`).exec(
    inside!.text,
  )?.[0];
  return is === "copy" && giver !== undefined
    ? unknown(
        "value.result",
        `\`${giver.trim()}\` could give one back, for which older compilers demand a copy`,
        node,
      )
    : yes("value.result", "nothing that may copy one gives one back");
}

const { rewrites, ignores, holds } = trialsIn("cpp", "11");

export const deleted = rule({
  id: "cpp/deleted",
  kind: "idiom",
  title: "Delete a copy that is declared private and never written",
  why: "The compiler then says at the call that there is no copy, and not the linker somewhere.",
  target: "11",
  was: ofKind(method, { when: isHiddenCopy }),
  given: [
    condition("nobody has written the function", isNowhere),
    condition("nothing gives one back", isNotGiven),
  ],
  becomes: ({ node }) => {
    const end = node.start + node.text.replace(/\s*;$/, "").length;
    return [copy(node.start, end), text(" = delete;")];
  },
  trials: [
    rewrites(
      "class Hive {\npublic:\n  Hive();\nprivate:\n  Hive(const Hive&); // not copied\n  Hive& operator=(const Hive& other);\n  int n;\n};\n",
      "class Hive {\npublic:\n  Hive();\nprivate:\n  Hive(const Hive&) = delete; // not copied\n  Hive& operator=(const Hive& other) = delete;\n  int n;\n};\n",
    ),
    rewrites(
      "class Hive {\n  Hive(Hive const &);\n};\n",
      "class Hive {\n  Hive(Hive const &) = delete;\n};\n",
    ),
    rewrites(
      "class Hive {\n  void operator=(const Hive&);\npublic:\n  Hive();\n};\n",
      "class Hive {\n  void operator=(const Hive&) = delete;\npublic:\n  Hive();\n};\n",
    ),
    rewrites(
      "template <class T> class Box {\n  Box(const Box<T>&);\n};\n",
      "template <class T> class Box {\n  Box(const Box<T>&) = delete;\n};\n",
    ),
    // A value that is given back needs no copy, and must have one.
    rewrites(
      "class Hive {\npublic:\n  static Hive make() { return Hive(); }\nprivate:\n  Hive();\n  Hive(const Hive&);\n};\n",
      "class Hive {\npublic:\n  static Hive make() { return Hive(); }\nprivate:\n  Hive();\n  Hive(const Hive&) = delete;\n};\n",
      "likely",
    ),
    rewrites(
      'class Hive {\n  Hive(const Hive&);\n};\n#include "hive.tcc"\n',
      'class Hive {\n  Hive(const Hive&) = delete;\n};\n#include "hive.tcc"\n',
      "likely",
    ),
    holds(
      "template <class T> class Box {\n  Box(const Box&);\n};\ntemplate <class T> Box<pair<T, map<T, T>>>::Box(const Box& other) {}\n",
      "is written outside",
    ),
    holds(
      "class Hive {\n  Hive(const Hive&);\n};\nHive::Hive(const Hive& other) { n = other.n; }\n",
      "is written outside",
    ),
    holds(
      "class Hive {\n  Hive& operator=(const Hive&);\n};\nHive& Hive::operator=(const Hive& other) { return *this; }\n",
      "is written outside",
    ),
    ignores("class Hive {\npublic:\n  Hive(const Hive&);\n};\n"),
    ignores("struct Hive {\n  Hive(const Hive&);\n};\n"),
    ignores("class Hive {\nprotected:\n  Hive(const Hive&);\n};\n"),
    ignores("class Hive {\n  Hive(const Hive&) = default;\n};\n"),
    ignores("class Hive {\n  Hive(const Hive& other) { n = other.n; }\n};\n"),
    ignores("class Hive {\n  Hive(Hive&&);\n  Hive(const Jar&);\n  Hive(const Hive&, int);\n};\n"),
    trialsIn("cpp", "98").ignores("class Hive {\n  Hive(const Hive&);\n};\n"),
  ],
});
