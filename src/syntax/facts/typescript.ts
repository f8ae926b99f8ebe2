import type { Language } from "../language.js";
import { ecmascript } from "./ecmascript.js";

export const typescript: Language = {
  ...ecmascript,
  id: "typescript",
  title: "TypeScript",
  grammar: "tree-sitter-typescript",
  extensions: [".ts", ".mts", ".cts"],
  speaks: ["typescript", "javascript"],
};

/** TypeScript with JSX: another grammar, the same facts. */
export const tsx: Language = {
  ...typescript,
  id: "tsx",
  title: "TypeScript with JSX",
  grammar: "tree-sitter-tsx",
  extensions: [".tsx"],
  speaks: ["tsx", "typescript", "javascript"],
};
