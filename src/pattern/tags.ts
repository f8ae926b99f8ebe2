import type { LanguageId } from "../syntax/index.js";
import { Snippet, type Part } from "./hole.js";

type Tag = (texts: TemplateStringsArray, ...parts: Part[]) => Snippet;
const tag =
  (language: LanguageId): Tag =>
  (texts, ...parts) =>
    new Snippet(language, texts, parts);

/** A snippet of JavaScript, which TypeScript and TSX files understand too. */
export const javascript = tag("javascript");
/** A snippet of TypeScript. */
export const typescript = tag("typescript");
/** A snippet of Python. */
export const python = tag("python");
