import {
  classesNamed,
  condition,
  copy,
  holes,
  ofKind,
  placeOf,
  rule,
  text,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match, OwnClass, SyntaxNode } from "../../core.js";
import { specialMember } from "./special-members.js";

const { method } = holes({ method: { kind: "statement", node: "function_definition" } });

/** A constructor without parameters or a destructor, with nothing in it and nothing at its head that says more. */
function doesNothing(node: SyntaxNode): boolean {
  const body = node.child("body");
  const special = specialMember(node);
  if (!special || !body?.is("compound_statement") || !/^\{\s*\}$/.test(body.text)) return false;
  if (special.is !== "constructor" && special.is !== "destructor") return false;
  if (!special.inside || special.inside.is("union_specifier")) return false;
  const head = node.tree.text.slice(node.start, body.start);
  return !/\b(noexcept|throw|constexpr|requires)\b|:\s*\w+\s*[({]/.test(head.replace(/::/g, ""));
}

/** A semicolon behind the braces is the one that the new form has. */
function withSemicolon(node: SyntaxNode): readonly SyntaxNode[] {
  const all = node.parent!.children;
  const next = all[all.findIndex((one) => one.same(node)) + 1];
  return next?.text === ";" ? [node, next] : [node];
}

/** Members whose objects have something to do when they go. */
const NEVER_TRIVIAL =
  /\bstd::(?:w?string|vector|deque|list|map|set|unordered_\w+|unique_ptr|shared_ptr|function|thread|\w*stream|mutex)\b/;

/** Has a class something by which it is never taken for plain memory? */
function isNeverTrivial({ members, parents }: OwnClass, tree: SyntaxNode["tree"], depth = 0): boolean {
  if (members.some((one) => /\bvirtual\b|\boverride\b/.test(one.text.split("{")[0]!))) return true;
  if (
    members.some(
      (one) =>
        one.as === "field" &&
        !one.isStatic &&
        NEVER_TRIVIAL.test(one.text) &&
        !/[*&]|(?:>|string)::/.test(one.text),
    )
  )
    return true;
  return (
    depth < 4 &&
    parents.some((name) => {
      const [own, ...more] = classesNamed(tree, name).classes;
      return own !== undefined && more.length === 0 && isNeverTrivial(own, tree, depth + 1);
    })
  );
}

/** What changes with a function that the compiler writes: only where it is first declared. */
function meansTheSame({ node }: Match): Answer {
  const { is, of, inside } = specialMember(node)!;
  const [own, ...more] = classesNamed(node.tree, of).classes;
  if (!own || more.length > 0)
    return unknown("type.not-known", `the members of \`${of}\` are not known`, node);
  if (/\bunion\b/.test(inside!.text))
    return unknown(
      "type.is",
      `\`${of}\` holds a union, whose members the compiler does not make (${placeOf(own)})`,
      node,
    );
  if (is === "constructor") {
    const bare = own.members.find((one) => one.as === "field" && !one.isStatic && !/[={]/.test(one.text));
    return bare || own.parents.length > 0
      ? unknown(
          "type.same",
          `a constant \`${of}\` could no longer be made without a value, and \`${of}()\` sets its members to 0`,
          node,
        )
      : yes("type.same", `all members of \`${of}\` have values of their own`, node);
  }
  return isNeverTrivial(own, node.tree)
    ? yes("type.same", `\`${of}\` has more to do at its end than to be forgotten`, node)
    : unknown(
        "type.same",
        `\`${of}\` could be handed over in another way, between parts that are compiled apart`,
        node,
      );
}

const { rewrites, ignores } = trialsIn("cpp", "11");

export const defaulted = rule({
  id: "cpp/defaulted",
  kind: "idiom",
  title: "Let the compiler write a function that does nothing of its own",
  why: "Empty braces hide that the function is meant to be the ordinary one.",
  target: "11",
  was: ofKind(method, { when: doesNothing, together: withSemicolon }),
  given: [condition("the function of the compiler does the same", meansTheSame)],
  becomes: ({ node }) => {
    const body = node.child("body")!;
    const gap = /\s*$/.exec(node.tree.text.slice(node.start, body.start))![0].length;
    return [copy(node.start, body.start - gap), text(" = default;")];
  },
  trials: [
    rewrites(
      "class Hive {\npublic:\n  Hive();\n  virtual ~Hive() {}\n  int n;\n};\n",
      "class Hive {\npublic:\n  Hive();\n  virtual ~Hive() = default;\n  int n;\n};\n",
    ),
    rewrites(
      "struct Jar {\n  std::string name;\n  ~Jar()\n  {\n  }\n};\n",
      "struct Jar {\n  std::string name;\n  ~Jar() = default;\n};\n",
    ),
    rewrites(
      "class Base { public: virtual void weigh(); };\nclass Hive : public Base { public: ~Hive() {}; };\n",
      "class Base { public: virtual void weigh(); };\nclass Hive : public Base { public: ~Hive() = default; };\n",
    ),
    rewrites("struct Jar { Jar() {} int kg = 3; };\n", "struct Jar { Jar() = default; int kg = 3; };\n"),
    rewrites(
      "template <class T> class Box { public: virtual ~Box() {} T* at; };\n",
      "template <class T> class Box { public: virtual ~Box() = default; T* at; };\n",
    ),
    rewrites(
      "struct Jar { ~Jar() {} std::vector<int>::size_type kg; };\n",
      "struct Jar { ~Jar() = default; std::vector<int>::size_type kg; };\n",
      "likely",
    ),
    // A constant must have a value, and a plain object may travel in a register.
    rewrites("struct Jar { Jar() {} int kg; };\n", "struct Jar { Jar() = default; int kg; };\n", "likely"),
    rewrites("struct Jar { ~Jar() {} int kg; };\n", "struct Jar { ~Jar() = default; int kg; };\n", "likely"),
    rewrites(
      "struct Jar { Jar() {} union { int kg; std::string name; }; };\n",
      "struct Jar { Jar() = default; union { int kg; std::string name; }; };\n",
      "likely",
    ),
    // The parser takes the new form for an assignment, outside of a class.
    ignores("struct Jar { Jar(); };\nJar::Jar() {}\n"),
    ignores("struct Jar { Jar() : kg(3) {} int kg; };\n"),
    ignores("struct Jar { Jar() { /* nothing */ } };\n"),
    ignores("struct Jar { Jar(int kg) {} };\n"),
    ignores("struct Jar { ~Jar() noexcept(false) {} };\n"),
    ignores("union Jar { Jar() {} int kg; std::string name; };\n"),
    ignores("struct Jar { void open() {} };\n"),
    ignores("struct Jar { Jar() { kg = 3; } int kg; };\n"),
    trialsIn("cpp", "98").ignores("struct Jar { ~Jar() {} int kg; };\n"),
  ],
});
