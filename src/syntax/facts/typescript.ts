import type { Language } from "../language.js";
import { ecmascript } from "./ecmascript.js";

export const typescript: Language = {
  ...ecmascript,
  contexts: [
    ...ecmascript.contexts,
    { name: "member", before: "interface Uvran {\n", after: "\n}" },
    { name: "type", before: "let uvran: ", after: ";" },
  ],
  misreads: {
    non_null_expression: ["binary_expression", "unary_expression", "as_expression", "satisfies_expression"],
  },
  holes: { ...ecmascript.holes, type: ["Hole"], members: ["hole() {}", "hole"] },
  id: "typescript",
  title: "TypeScript",
  grammar: "tree-sitter-typescript",
  extensions: [".ts", ".mts", ".cts"],
  fences: ["ts", "typescript", "mts", "cts"],
  speaks: ["typescript", "javascript"],
};

/** TypeScript with JSX: another grammar, the same facts. */
export const tsx: Language = {
  ...typescript,
  id: "tsx",
  title: "TypeScript with JSX",
  grammar: "tree-sitter-tsx",
  extensions: [".tsx"],
  fences: ["tsx"],
  speaks: ["tsx", "typescript", "javascript"],
};
