import { jumpOf, parse, type Language, type SyntaxNode } from "uvran/core";
import { isStatement, pick, spliced } from "./mutate.js";
import type { Random } from "./random.js";

/** A name that no seed has, of a function that nothing knows. */
const PROBE = "probezz";

/** What is evaluated only when something fails, must be a constant, or is a type. */
const NO_CALLS = ["except_clause", "property_element", "type"];
const IN_LINES = ["python", "ruby", "powershell"];
const BODIES = ["consequence", "body", "alternative"];

/** What may be said of a declaration, and the declarations ahead of which it may stand. */
const ANNOTATIONS: Readonly<Record<string, { readonly code: string; readonly ahead: readonly string[] }>> = {
  python: { code: `@${PROBE}`, ahead: ["function_definition", "class_definition"] },
  java: {
    code: `@${PROBE}`,
    ahead: ["method_declaration", "class_declaration", "field_declaration", "formal_parameter"],
  },
  csharp: {
    code: `[${PROBE}]`,
    ahead: [
      "method_declaration",
      "class_declaration",
      "field_declaration",
      "property_declaration",
      "parameter",
    ],
  },
  php: {
    code: `#[${PROBE}]`,
    ahead: [
      "method_declaration",
      "class_declaration",
      "property_declaration",
      "simple_parameter",
      "function_definition",
    ],
  },
  typescript: {
    code: `@${PROBE}`,
    ahead: ["class_declaration", "method_definition", "public_field_definition"],
  },
  cpp: {
    code: `[[${PROBE}]]`,
    ahead: ["declaration", "function_definition", "field_declaration", "parameter_declaration"],
  },
};

/**
 * Code with a call put into it that no rule can know to be needless: as a statement of its own, in a branch that had no braces or
 * was not there, around an expression; or with an annotation put ahead of a declaration.
 */
export function probed(text: string, language: Language, random: Random): string | undefined {
  const tree = parse(text, language);
  const isPowerShell = language.id === "powershell";
  const end = IN_LINES.includes(language.id) ? "" : ";";
  const call = isPowerShell ? PROBE : `${PROBE}()${end}`;
  const isBare = (one: SyntaxNode): boolean =>
    one.named &&
    BODIES.includes(one.field ?? "") &&
    /statement$/.test(one.kind) &&
    !/block|compound/.test(one.kind);
  const asStatement = (): string | undefined => {
    const node = pick(tree, random, isStatement);
    if (!node) return undefined;
    const indent = tree.indentAt(node.start);
    // What follows a jump is never run, and may go.
    return random.below(2) === 0 || jumpOf(node) !== undefined
      ? spliced(tree, node.start, node.start, `${call}\n${indent}`)
      : spliced(tree, node.end, node.end, `\n${indent}${call}`);
  };
  const inBranch = (): string | undefined => {
    const node = pick(tree, random, isBare);
    if (!node) return asStatement();
    const lines = random.below(2) === 0 ? [call, node.text] : [node.text, call];
    return spliced(tree, node.start, node.end, `{ ${lines.join(" ")} }`);
  };
  const otherwise = (): string | undefined => {
    const node = pick(tree, random, (one) => one.is("if_statement") && !one.child("alternative"));
    return node ? spliced(tree, node.end, node.end, ` else { ${call} }`) : asStatement();
  };
  const around = (): string | undefined => {
    const node = pick(
      tree,
      random,
      (one) => one.named && !isStatement(one) && !one.closest(NO_CALLS) && one.end - one.start < 80,
    );
    const code = isPowerShell ? `(${PROBE} ${node?.text})` : `${PROBE}(${node?.text})`;
    return node && spliced(tree, node.start, node.end, code);
  };
  const ways = [asStatement, around];
  const annotation = ANNOTATIONS[language.id];
  const annotated = (): string | undefined => {
    const node = pick(
      tree,
      random,
      (one) => annotation !== undefined && one.is(annotation.ahead) && !one.parent!.is("for_statement"),
    );
    const gap = language.id === "python" ? `\n${tree.indentAt(node?.start ?? 0)}` : " ";
    return node ? spliced(tree, node.start, node.start, annotation!.code + gap) : asStatement();
  };
  if (annotation) ways.push(annotated);
  return random.of(IN_LINES.includes(language.id) ? ways : [...ways, inBranch, otherwise])();
}

/** How often that call stands in code. */
export const probesIn = (text: string): number => text.split(PROBE).length - 1;
