import { classesNamed, importsIn, shortened } from "../../../../core.js";
import type { Edit, SyntaxNode, SyntaxTree } from "../../../../core.js";
import { kindOf } from "./kind-of.js";
import { callsItOptional, FULL_NAME, holdsIt, namesIt, PACKAGE } from "./library-optional.js";
import { givesIt, parameterTypes } from "./members.js";
import { callMoved, referenceMoved, type Moving } from "./moved-calls.js";
import { argumentsMoved, valueMoved } from "./moved-values.js";
import { Refusal } from "./refusal.js";

const OWN_NAME = "java.util.Optional";

/** The edits with which a file uses the type of the standard library. Throws a Refusal. */
export function fileMoved(tree: SyntaxTree, moving: Moving): Edit[] {
  const edits = importsMoved(tree);
  for (const node of tree.root.descendants()) edits.push(...nodeMoved(node, moving));
  return edits;
}

function importsMoved(tree: SyntaxTree): Edit[] {
  return importsIn(tree).flatMap(({ node, module, form, imports }) => {
    if (module === FULL_NAME) throw new Refusal("its methods are imported by their names", node);
    const isWhole = module === PACKAGE && form === undefined && imports.some(({ name }) => name === "*");
    if (isWhole && /\bOptional\b/.test(tree.text) && !callsItOptional(tree))
      throw new Refusal("the whole package is imported, and `Optional` may be of it", node);
    if (module !== PACKAGE || form !== undefined || imports[0]?.name !== "Optional") return [];
    const path = node.parts.find((part) => part.is("scoped_identifier"))!;
    return [{ start: path.start, end: path.end, text: OWN_NAME }];
  });
}

function nodeMoved(node: SyntaxNode, moving: Moving): Edit[] {
  const { members, doubts } = moving;
  switch (node.kind) {
    case "scoped_type_identifier":
    case "field_access":
      return isInFull(node) ? [{ start: node.start, end: node.end, text: OWN_NAME }] : [];
    case "method_invocation":
      return callMoved(node, moving);
    case "method_reference":
      return referenceMoved(node);
    case "argument_list":
      return argumentsMoved(node, moving);
    case "variable_declarator": {
      const value = node.child("value");
      const type = node.parent?.child("type");
      return value && type && namesIt(type) ? valueMoved(value, moving) : [];
    }
    case "assignment_expression":
      return kindOf(node.child("left")!, members) === "moved" ? valueMoved(node.child("right")!, moving) : [];
    case "return_statement": {
      const around = node.closest(["method_declaration", "lambda_expression"]);
      const [value] = node.parts;
      return value && around?.is("method_declaration") && givesIt(around) ? valueMoved(value, moving) : [];
    }
    case "method_declaration":
    case "constructor_declaration":
      lookAtMember(node, moving);
      return [];
    case "field_declaration":
      if (holdsIt(node.child("type")!)) lookAtField(node, moving);
      return [];
    case "binary_expression":
      if (node.child("operator")?.text === "+")
        for (const part of node.parts) if (kindOf(part, members) === "moved") doubts.isShown(part);
      return [];
    case "catch_type":
    case "class_literal":
      if (/\bIllegalStateException\b/.test(node.text)) doubts.catches(node);
      return [];
    default:
      return [];
  }
}

const isInFull = (node: SyntaxNode): boolean => node.text.replace(/\s/g, "") === FULL_NAME;

/** A method with the type in its head. */
function lookAtMember(method: SyntaxNode, { members, doubts }: Moving): void {
  const type = method.child("type");
  if (!(type && holdsIt(type)) && !parameterTypes(method).some(holdsIt)) return;
  if (!isPrivate(method)) doubts.isPublic(method);
  const name = method.child("name")!.text;
  if (!standsIn(method) || members.methodsNamed(name).some((other) => !standsIn(other))) return;
  throw new Refusal(`\`${name}\` stands in for a method of another library`, method, "type.stand-in");
}

function lookAtField(field: SyntaxNode, { doubts }: Moving): void {
  if (!isPrivate(field)) doubts.isPublic(field.child("declarator") ?? field);
  if (/\b(static|transient)\b/.test(modifiersOf(field))) return;
  const around = field.closest(["class_declaration", "enum_declaration"]);
  const parents = around?.child("interfaces")?.text ?? "";
  if (/\bSerializable\b/.test(parents) || parentsOf(around, field).some((one) => one === "Serializable"))
    throw new Refusal(
      `\`${shortened(field.text)}\` is written with its object, which the standard library's type does not allow`,
      field,
    );
}

const parentsOf = (around: SyntaxNode | undefined, { tree }: SyntaxNode): readonly string[] => {
  const own = around?.child("superclass")?.lastPart?.text.replace(/<.*$/s, "");
  return own === undefined ? [] : classesNamed(tree, own).classes.flatMap(({ parents }) => parents);
};

const modifiersOf = (member: SyntaxNode): string =>
  member.parts.find((part) => part.is("modifiers"))?.text ?? "";

const standsIn = (method: SyntaxNode): boolean => /@Override\b/.test(modifiersOf(method));

const isPrivate = (member: SyntaxNode): boolean => /\bprivate\b/.test(modifiersOf(member));
