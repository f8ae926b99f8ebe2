import type { Language } from "../language.js";
import { ecmascript } from "./ecmascript.js";

export const javascript: Language = {
  ...ecmascript,
  id: "javascript",
  title: "JavaScript",
  grammar: "tree-sitter-javascript",
  extensions: [".js", ".jsx", ".mjs", ".cjs"],
  interpreters: ["node", "nodejs"],
  fences: ["js", "javascript", "jsx", "mjs", "cjs", "node"],
  speaks: ["javascript"],
};
