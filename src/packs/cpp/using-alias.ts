import { copy, holes, ofKind, rule, text, trialsIn } from "../../core.js";
import type { Match, Segment, SyntaxNode } from "../../core.js";
import { onlyCppReads } from "./read-by-c.js";

const { named } = holes({ named: { kind: "statement", node: "type_definition" } });

/** The name that a definition gives, and the code around it that makes up the type. */
function partsOf(node: SyntaxNode): { name: SyntaxNode; from: number; to: number } | undefined {
  const declarators = node.parts.filter((part) => part.field === "declarator");
  const [only, ...more] = declarators;
  const type = node.child("type");
  if (!only || !type || more.length > 0 || type.child("body") || only.text.includes("\n")) return undefined;
  let at: SyntaxNode | undefined = only;
  while (at && !at.is("type_identifier")) {
    if (
      !at.is([
        "pointer_declarator",
        "reference_declarator",
        "function_declarator",
        "array_declarator",
        "parenthesized_declarator",
      ])
    )
      return undefined;
    at = at.child("declarator") ?? at.parts.find((part) => /declarator$|^type_identifier$/.test(part.kind));
  }
  const first = node.parts[0]!;
  return at && { name: at, from: first.start, to: only.end };
}

function alias(match: Match): Segment[] {
  const { name, from, to } = partsOf(match.the(named))!;
  const { tree } = match;
  const before = /\s*$/.exec(tree.text.slice(from, name.start))![0].length;
  const isLast = name.end === to;
  return [
    text(`using ${name.text} = `),
    copy(from, isLast ? name.start - before : name.start),
    copy(name.end, to),
    text(";"),
  ];
}

const { rewrites, ignores, holds } = trialsIn("cpp", "11");

export const usingAlias = rule({
  id: "cpp/using-alias",
  kind: "idiom",
  title: "Use using instead of typedef",
  why: "In a typedef the new name hides in the middle of the type, and a template cannot have one.",
  target: "11",
  was: ofKind(named, { when: (node) => partsOf(node) !== undefined, together: (node) => [node] }),
  mentions: ["typedef"],
  given: [onlyCppReads()],
  becomes: alias,
  trials: [
    rewrites("typedef std::vector<int> Ints;\n", "using Ints = std::vector<int>;\n"),
    rewrites("typedef unsigned long Size; // bytes\n", "using Size = unsigned long; // bytes\n"),
    rewrites("typedef const Hive *HivePtr;\n", "using HivePtr = const Hive *;\n"),
    rewrites("typedef void (*Callback)(int, void *);\n", "using Callback = void (*)(int, void *);\n"),
    rewrites("typedef char Name[16];\n", "using Name = char [16];\n"),
    rewrites(
      "class A {\n  typedef std::map<int, Hive> Hives;\n};\n",
      "class A {\n  using Hives = std::map<int, Hive>;\n};\n",
    ),
    holds('extern "C" {\ntypedef int Size;\n}\n', "C may read"),
    ignores("typedef struct { int n; } Hive;\n"),
    ignores("typedef int Size, *SizePtr;\n"),
    ignores("using Size = int;\n"),
    trialsIn("cpp", "98").ignores("typedef int Size;\n"),
  ],
});
