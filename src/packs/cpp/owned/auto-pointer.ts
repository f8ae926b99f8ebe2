import {
  classesNamed,
  condition,
  copy,
  cpp,
  everyUseOf,
  holes,
  no,
  ofKind,
  placeOf,
  rule,
  shortened,
  textFound,
  trialsIn,
  unknown,
  use,
  yes,
} from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { classOf, isComplete, isNotCopied } from "./member-facts.js";
import { isInFunction } from "../pointers.js";
import { writtenType } from "../written-type.js";

const { variable, p } = holes({
  variable: { kind: "statement", node: ["declaration", "field_declaration"] },
  p: "name",
});

/** The one variable or member that is declared, its type, and what it is made of. */
function declaredBy(
  node: SyntaxNode,
):
  { readonly name: SyntaxNode; readonly type: SyntaxNode; readonly made: readonly SyntaxNode[] } | undefined {
  const type = node.child("type");
  const [only, ...more] = node.parts.filter((part) => part.field === "declarator");
  if (!type || !only || more.length > 0 || !/^(?:std::)?auto_ptr\s*</.test(type.text)) return undefined;
  // In a function the parser takes `jar(given)` for the declaration of another function.
  if (only.is("function_declarator")) {
    const list = only.child("parameters")?.parts ?? [];
    const [given, ...others] = list.map((one) => (one.parts.length === 1 ? one.child("type") : undefined));
    const isName = given?.is("type_identifier") === true && others.length === 0;
    const named = only.child("declarator");
    return isName && named?.is("identifier") ? { name: named, type, made: [given] } : undefined;
  }
  const name = only.is("init_declarator") ? only.child("declarator") : only;
  const value = only.is("init_declarator") ? only.child("value") : undefined;
  if (!name?.is(["identifier", "field_identifier"])) return undefined;
  if (value && !value.is("argument_list")) return undefined;
  return { name, type, made: value?.parts ?? [] };
}

/** What is owned: `Jar` of `std::auto_ptr<Jar>`. */
const ownedBy = ({ text }: SyntaxNode): string => /<(.*)>$/s.exec(text)?.[1]?.trim() ?? text;

/** A method of the owner is called, which both kinds of owners have. */
const callsMethod = ({ node }: Match): boolean => {
  const { parent } = node;
  const isOwner = parent?.is("field_expression") === true && node.field === "argument" && !parent.has("->");
  return (
    isOwner &&
    /^(get|reset|release)$/.test(parent.child("field")!.text) &&
    parent.parent!.is("call_expression")
  );
};

/** The member is given its first value in the head of a constructor. */
const isMadeWith = ({ node }: Match): boolean => {
  const { parent } = node;
  const list = parent?.is("field_initializer") ? parent.parts[1] : undefined;
  const [made, ...more] = list?.parts ?? [];
  return (
    list !== undefined &&
    more.length === 0 &&
    node.same(parent!.firstPart) &&
    (!made || isRaw(made).is === "yes")
  );
};

/** Is a value a pointer, and no owner that hands on what it owns? */
function isRaw(node: SyntaxNode): Answer {
  const shown = shortened(node.text);
  if (node.is(["new_expression", "null"]) || node.text === "0")
    return yes("type.is", `\`${shown}\` is a pointer`, node);
  const callee = node.is("call_expression") ? node.child("function") : undefined;
  const owner =
    callee?.child("field")?.text === "release" ? writtenType(callee.child("argument")!) : undefined;
  if (owner && /^std::(?:auto|unique)_ptr\s*</.test(owner.text))
    return yes("type.is", `\`${shown}\` is a pointer`, node);
  const declared = writtenType(node);
  if (!declared)
    return unknown("type.not-known", `\`${shown}\` could be an owner that hands on what it owns`, node);
  return declared.isPointer
    ? yes("type.is", `\`${shown}\` is a pointer`, declared.at)
    : no("type.is", `${declared.why}, which is no pointer`, declared.at);
}

const uses = everyUseOf(
  p,
  [cpp`${p}`, cpp`this->${p}`].flatMap((read) => [
    use(read)
      .as("dereferenced")
      .when(({ node }) => !node.parent!.is("field_expression") || node.parent!.has("->"))
      .stays(),
    use(read).when(callsMethod).stays(),
    use(read).when(isMadeWith).stays(),
  ]),
);

/** Without its namespace it could be a class of the project. */
function isOfLibrary({ node, tree }: Match): Answer {
  const { type } = declaredBy(node)!;
  const own = /^std::/.test(type.text) ? [] : classesNamed(tree, "auto_ptr").classes;
  if (own[0])
    return no("name.library", `the project has an \`auto_ptr\` of its own (${placeOf(own[0])})`, type);
  return /^std::/.test(type.text) ||
    textFound(tree, /\busing\s+(?:namespace\s+std\b|std::auto_ptr\b)/) !== undefined
    ? yes("name.library", "it is the `auto_ptr` of the library", type)
    : unknown("name.library", "nothing says that it is the `auto_ptr` of the library", type);
}

const isMember = ({ node }: Match): boolean => node.is("field_declaration");

const { rewrites, holds, ignores } = trialsIn("cpp", "11");

export const autoPointer = rule({
  id: "cpp/auto-pointer",
  kind: "breaks",
  title: "Use unique_ptr instead of auto_ptr",
  why: "A copy of an auto_ptr takes away what the original owns; C++17 has it no longer.",
  link: "https://en.cppreference.com/w/cpp/memory/auto_ptr",
  target: "11",
  was: ofKind(variable, {
    when: (node) => declaredBy(node) !== undefined,
    together: (node) => [node],
    fills: (node) => [[p, [declaredBy(node)!.name]]],
  }),
  mentions: ["auto_ptr"],
  where: [(match) => (isMember(match) ? classOf(match.node) !== undefined : isInFunction(match.node))],
  given: [
    condition("it is the auto_ptr of the library", isOfLibrary, { unknownIs: "possible" }),
    condition("it is made of a pointer", (match) => {
      const [given] = declaredBy(match.node)!.made;
      return given ? isRaw(given) : yes("type.is", "it owns nothing at first", match.node);
    }),
    condition("its type is known where it is deleted", (match) =>
      isComplete(match, ownedBy(declaredBy(match.node)!.type)),
    ),
    condition("the class is not copied", (match) =>
      isMember(match) ? isNotCopied(match) : yes("resource.owner", "it belongs to the function", match.node),
    ),
  ],
  uses,
  becomes: ({ node }) => {
    const { start } = declaredBy(node)!.type;
    const end = start + node.tree.text.slice(start).indexOf("<");
    return [copy(node.start, node.end, [{ start, end, text: "std::unique_ptr" }])];
  },
  trials: [
    rewrites(
      "#include <memory>\nvoid f() {\n  std::auto_ptr<Jar> jar(new Jar(3));\n  jar->fill();\n  use(*jar, jar.get());\n  jar.reset(new Jar(4));\n  keep(jar.release());\n}\n",
      "#include <memory>\nvoid f() {\n  std::unique_ptr<Jar> jar(new Jar(3));\n  jar->fill();\n  use(*jar, jar.get());\n  jar.reset(new Jar(4));\n  keep(jar.release());\n}\n",
    ),
    // An owner of what is only announced cannot delete it.
    rewrites(
      "void f(Jar* given) {\n  std::auto_ptr<Jar> jar(given);\n  if (jar.get() != 0) jar->fill();\n}\n",
      "void f(Jar* given) {\n  std::unique_ptr<Jar> jar(given);\n  if (jar.get() != 0) jar->fill();\n}\n",
      "likely",
    ),
    rewrites(
      "void f() {\n  std::auto_ptr<Jar> jar;\n  jar.reset(make());\n}\n",
      "void f() {\n  std::unique_ptr<Jar> jar;\n  jar.reset(make());\n}\n",
      "likely",
    ),
    rewrites(
      "class Shelf {\n public:\n  Shelf() : jar_(new Jar(3)) {}\n  Shelf(const Shelf&) = delete;\n  void fill() { jar_->fill(); }\n private:\n  std::auto_ptr<Jar> jar_;\n};\n",
      "class Shelf {\n public:\n  Shelf() : jar_(new Jar(3)) {}\n  Shelf(const Shelf&) = delete;\n  void fill() { jar_->fill(); }\n private:\n  std::unique_ptr<Jar> jar_;\n};\n",
    ),
    rewrites(
      "void f() {\n  std::auto_ptr<Jar> jar(make());\n  jar->fill();\n}\n",
      "void f() {\n  std::unique_ptr<Jar> jar(make());\n  jar->fill();\n}\n",
      "likely",
    ),
    rewrites(
      "void f() {\n  auto_ptr<Jar> jar(new Jar(3));\n}\n",
      "void f() {\n  std::unique_ptr<Jar> jar(new Jar(3));\n}\n",
      "possible",
    ),
    holds(
      "template <class T> class auto_ptr { T* at; };\nvoid f() {\n  auto_ptr<Jar> jar(new Jar(3));\n}\n",
      "of its own",
    ),
    // A copy takes away what the original owns, and must say so then.
    holds("void f() {\n  std::auto_ptr<Jar> jar(new Jar(3));\n  take(jar);\n}\n", "does not know"),
    holds("void f() {\n  std::auto_ptr<Jar> jar(new Jar(3));\n  std::auto_ptr<Jar> other(jar);\n}\n", ""),
    holds(
      "std::auto_ptr<Jar> f() {\n  std::auto_ptr<Jar> jar(new Jar(3));\n  return jar;\n}\n",
      "does not know",
    ),
    holds("void f() {\n  std::auto_ptr<Jar> jar;\n  jar = make();\n}\n", "does not know"),
    ignores("void f() {\n  std::unique_ptr<Jar> jar(new Jar(3));\n}\n"),
    ignores("void f(std::auto_ptr<Jar> jar) {\n  jar->fill();\n}\n"),
    trialsIn("cpp", "98").ignores("void f() {\n  std::auto_ptr<Jar> jar(new Jar(3));\n}\n"),
  ],
});
