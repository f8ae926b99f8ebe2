import { classesNamed, condition, copy, holes, ofKind, rule, trialsIn, yes } from "../../core.js";
import type {
  Answer,
  Edit,
  Match,
  OwnClass,
  OwnMember,
  Segment,
  SyntaxNode,
  SyntaxTree,
} from "../../core.js";
import { commaParts } from "../family/comma-parts.js";

const { method } = holes({
  method: { kind: "statement", node: ["field_declaration", "function_definition"] },
});

/** The head of a method in its class, by its parts. */
interface Head {
  readonly declarator: SyntaxNode;
  readonly name: string;
  readonly key: string;
}

function headAt(node: SyntaxNode): Head | undefined {
  const list = node.parent?.is("field_declaration_list") ? node.parent.parent : undefined;
  let declarator = node.child("declarator");
  while (declarator?.is(["pointer_declarator", "reference_declarator"]))
    declarator = declarator.child("declarator") ?? declarator.parts.at(-1);
  if (!list?.is(["class_specifier", "struct_specifier"]) || !declarator?.is("function_declarator"))
    return undefined;
  const name = declarator.child("declarator")?.text;
  const isMarked =
    /\b(override|final|static)\b/.test(node.tree.text.slice(node.start, declarator.end)) ||
    /\b(override|final)\b/.test(declarator.text);
  if (
    name === undefined ||
    name.startsWith("~") ||
    isMarked ||
    /=\s*(0|delete|default)\s*;?\s*$/.test(node.text.split("{")[0]!)
  )
    return undefined;
  return { declarator, name, key: keyOf(declarator.text) };
}

/** A method's parameters by their types, and whether it leaves the object alone. */
function keyOf(head: string): string {
  const open = head.indexOf("(");
  const close = head.lastIndexOf(")");
  const types = commaParts(head.slice(open + 1, close))
    .filter((one) => one !== "void")
    .map(typeOf);
  return `${types.join(",")}|${/^\s*const\b/.test(head.slice(close + 1)) ? "const" : ""}`;
}

const WORDS = "int char bool float double long short unsigned signed auto const size_t".split(" ");

/** The type of a parameter, without its name and default; a constant that is handed over by its value is like any other. */
function typeOf(parameter: string): string {
  const plain = parameter
    .replace(/\s*=.*$/s, "")
    .replace(/\/\*.*?\*\//gs, "")
    .trim();
  const last = /[\s*&]([A-Za-z_]\w*)$/.exec(plain)?.[1];
  const rest = last !== undefined && !WORDS.includes(last) ? plain.slice(0, -last.length) : plain;
  const isType = rest.replace(/\bconst\b/g, "").trim() === "";
  const type = (isType ? plain : rest).replace(/\bstd::/g, "").replace(/\s+/g, "");
  return /[*&]/.test(type) ? type : type.replace(/^const/, "");
}

/** The virtual method of a class further up that a method stands in for. */
function overridden(node: SyntaxNode): { of: OwnClass; member: OwnMember } | undefined {
  const head = headAt(node);
  const around = node.parent?.parent;
  return head && around ? searched(node.tree, parentsOf(around), head, 0) : undefined;
}

function parentsOf(around: SyntaxNode): string[] {
  const clause = around.parts.find((part) => part.is("base_class_clause"));
  return (
    clause?.parts.flatMap((part) =>
      part.is(["type_identifier", "qualified_identifier"]) ? part.text.replace(/^.*::/, "") : [],
    ) ?? []
  );
}

function searched(
  tree: SyntaxTree,
  names: readonly string[],
  head: Head,
  depth: number,
): { of: OwnClass; member: OwnMember } | undefined {
  if (depth > 6) return undefined;
  for (const name of names) {
    const { classes } = classesNamed(tree, name);
    const [of, ...more] = classes;
    if (!of || more.length > 0) continue;
    const member = of.members.find(
      (one) =>
        one.name === head.name &&
        /\bvirtual\b/.test(one.text) &&
        keyOf(one.text.split(/[{;]/)[0]!.replace(/^.*?\b(?=[\w~]+\s*\()/s, "")) === head.key,
    );
    if (member) return { of, member };
    const above = searched(tree, of.parents, head, depth + 1);
    if (above) return above;
  }
  return undefined;
}

function isVirtual(match: Match): Answer {
  const { of, member } = overridden(match.the(method))!;
  return yes(
    "type.stand-in",
    `\`${member.name}\` of \`${of.name}\` is virtual (${of.path === "" ? `line ${member.line}` : `${of.path}, line ${member.line}`})`,
  );
}

function marked(match: Match): Segment[] {
  const node = match.the(method);
  const { declarator } = headAt(node)!;
  const word =
    node.parts.find((part) => part.text === "virtual") ??
    node.children.find((part) => part.text === "virtual");
  const edits: Edit[] = [];
  if (word) {
    const gap = /^\s*/.exec(node.tree.text.slice(word.end))![0].length;
    edits.push({ start: word.start, end: word.end + gap, text: "" });
  }
  edits.push({ start: declarator.end, end: declarator.end, text: " override" });
  return [copy(node.start, node.end, edits)];
}

const { rewrites, ignores } = trialsIn("cpp", "11");
const BASE =
  "class Box {\npublic:\n  virtual ~Box();\n  virtual int size(const std::string &name, int n = 1) const;\n  virtual void open() = 0;\n  void close();\n};\n";

export const overrideMark = rule({
  id: "cpp/override",
  kind: "idiom",
  title: "Mark overriding methods with override",
  why: "Without the mark a changed signature above makes a new method of it, and nobody is told.",
  target: "11",
  was: ofKind(method, { when: (node) => overridden(node) !== undefined, together: (node) => [node] }),
  given: [condition("it stands in for a virtual method", isVirtual)],
  becomes: marked,
  trials: [
    rewrites(
      `${BASE}class Hive : public Box {\n  virtual void open();\n};\n`,
      `${BASE}class Hive : public Box {\n  void open() override;\n};\n`,
    ),
    rewrites(
      `${BASE}class Hive : public Box {\n  int size(const std::string& other, int) const { return 1; }\n};\n`,
      `${BASE}class Hive : public Box {\n  int size(const std::string& other, int) const override { return 1; }\n};\n`,
    ),
    rewrites(
      `${BASE}class Hive : public Box {};\nclass Tall : public Hive {\n  virtual void open();\n};\n`,
      `${BASE}class Hive : public Box {};\nclass Tall : public Hive {\n  void open() override;\n};\n`,
    ),
    ignores(`${BASE}class Hive : public Box {\n  void close();\n};\n`),
    ignores(`${BASE}class Hive : public Box {\n  int size(const std::string& other, int);\n};\n`),
    ignores(`${BASE}class Hive : public Box {\n  int size(std::string other, int) const;\n};\n`),
    ignores(`${BASE}class Hive : public Box {\n  void open() override;\n};\n`),
    ignores(`${BASE}class Hive : public Elsewhere {\n  virtual void open();\n};\n`),
    ignores(`${BASE}class Hive {\n  virtual void open();\n};\n`),
    trialsIn("cpp", "98").ignores(`${BASE}class Hive : public Box {\n  virtual void open();\n};\n`),
  ],
});
