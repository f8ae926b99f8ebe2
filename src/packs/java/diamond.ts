import { copy, holes, ofKind, rule, trialsIn } from "../../core.js";
import type { SyntaxNode } from "../../core.js";
import { wantedAt } from "./functions/wanted.js";

const { made } = holes({ made: { kind: "expression", node: "object_creation_expression" } });

/** The type arguments that are written twice: where a variable is declared, and where its object is made. */
function repeated(node: SyntaxNode): SyntaxNode | undefined {
  const type = node.child("type");
  const list = type?.is("generic_type") ? type.parts.find((part) => part.is("type_arguments")) : undefined;
  if (!list || list.parts.length === 0 || node.parts.some((part) => part.is("class_body"))) return undefined;
  if (node.parent?.is(["ternary_expression", "parenthesized_expression", "cast_expression"]))
    return undefined;
  const wanted = wantedAt(node);
  const known = wanted.as === "declared" ? /<(.*)>$/s.exec(wanted.type)?.[1] : undefined;
  return known !== undefined && known.replace(/\s/g, "") === list.text.slice(1, -1).replace(/\s/g, "")
    ? list
    : undefined;
}

const { rewrites, ignores } = trialsIn("java");
const inClass = (code: string): string => `class A {\n    ${code}\n}\n`;

export const diamond = rule({
  id: "java/diamond",
  kind: "idiom",
  title: "Use a diamond for type arguments that are already declared",
  why: "The same types stand on both sides, and one of them is forgotten when they change.",
  target: "8",
  was: ofKind(made, { when: (node) => repeated(node) !== undefined }),
  mentions: ["new"],
  becomes: (match) => {
    const node = match.the(made);
    const list = repeated(node)!;
    return [copy(node.start, node.end, [{ start: list.start + 1, end: list.end - 1, text: "" }])];
  },
  trials: [
    rewrites(
      inClass("Map<String, List<Hive>> hives = new HashMap<String, List<Hive>>();"),
      inClass("Map<String, List<Hive>> hives = new HashMap<>();"),
    ),
    rewrites(
      inClass("List<String> f() { return new ArrayList<String>(8); }"),
      inClass("List<String> f() { return new ArrayList<>(8); }"),
    ),
    rewrites(
      inClass("void f() { List<String> a; a = new ArrayList< String >(); }"),
      inClass("void f() { List<String> a; a = new ArrayList<>(); }"),
    ),
    // What is handed over could decide between two methods.
    ignores(inClass("void f() { g(new ArrayList<String>()); }")),
    ignores(inClass("List<?> a = new ArrayList<String>();")),
    ignores(inClass("List a = new ArrayList<String>();")),
    ignores(inClass("List<String> a = new ArrayList<String>() { };")),
    ignores(inClass("void f() { var a = new ArrayList<String>(); }")),
    ignores(inClass("List<String> a = new ArrayList<>();")),
    trialsIn("java", "6").ignores(inClass("List<String> a = new ArrayList<String>();")),
  ],
});
