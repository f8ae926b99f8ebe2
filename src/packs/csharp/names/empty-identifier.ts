import { classesNamed, holes, ofKind, rule, trialsIn } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";

const { made } = holes({
  made: { kind: "expression", node: ["object_creation_expression", "implicit_object_creation_expression"] },
});

/** `new Guid()`, which is the empty one, or the same with the type left out. */
function isEmpty(node: SyntaxNode): boolean {
  const list = node.child("arguments") ?? node.parts.find((part) => part.is("argument_list"));
  if ((list?.parts.length ?? 0) > 0 || classesNamed(node.tree, "Guid").classes.length > 0) return false;
  const type = node.is("object_creation_expression")
    ? node.child("type")
    : node.closest(["variable_declaration", "property_declaration"])?.child("type");
  const isDirect =
    node.is("object_creation_expression") ||
    node.parent?.is(["variable_declarator", "property_declaration"]) === true;
  return isDirect && /^(System\.)?Guid$/.test(type?.text ?? "");
}

const { reports, ignores } = trialsIn("csharp");

export const emptyIdentifier = rule({
  id: "csharp/empty-identifier",
  kind: "smell",
  title: "GUID made by a bare constructor",
  why: "`new Guid()` reads like a new identifier, and is the empty one each time.",
  was: ofKind(made, { when: isEmpty }),
  mentions: ["Guid"],
  advice:
    "say which one is meant: `Guid.Empty` is the same as now, and `Guid.NewGuid()` is one that nobody else has",
  trials: [
    reports("class A { void F() { var id = new Guid(); } }", "Guid.Empty"),
    reports("class A { System.Guid id = new System.Guid(); }", "Guid.NewGuid()"),
    reports("class A { void F() { Guid id = new(); } }", "Guid.Empty"),
    ignores("class A { void F() { var id = new Guid(text); } }"),
    ignores("class A { void F() { var id = Guid.NewGuid(); } }"),
    ignores("class Guid { } class A { void F() { var id = new Guid(); } }"),
    ignores("class A { void F() { Box id = new(); } }"),
  ],
});
