import type { ContextName, LanguageId } from "../syntax/index.js";
import { Snippet, type Part } from "./hole.js";

/** Parts may be snippets themselves, whose code then stands there. */
type Template = (texts: TemplateStringsArray, ...parts: (Part | Snippet)[]) => Snippet;

/**
 * Makes snippets of one language. By itself it finds out by parsing where a snippet stands; `tag.type`,
 * `tag.member` and so on say it.
 */
export type Tag = Template & Readonly<Record<ContextName, Template>>;

function tag(language: LanguageId): Tag {
  const within =
    (context?: ContextName): Template =>
    (texts, ...parts) =>
      flattened(language, texts.raw.map(asWritten), parts, context);
  return Object.assign(within(), {
    file: within("file"),
    statement: within("statement"),
    member: within("member"),
    expression: within("expression"),
    type: within("type"),
    parameter: within("parameter"),
    import: within("import"),
  });
}

/** One snippet out of texts and parts, of which some are snippets. */
function flattened(
  language: LanguageId,
  texts: readonly string[],
  parts: readonly (Part | Snippet)[],
  context: ContextName | undefined,
): Snippet {
  const flatTexts = [texts[0]!];
  const flatParts: Part[] = [];
  parts.forEach((part, i) => {
    const inner = part instanceof Snippet ? part : undefined;
    if (inner) {
      flatTexts[flatTexts.length - 1] += inner.texts[0]!;
      flatTexts.push(...inner.texts.slice(1));
      flatParts.push(...inner.parts);
      flatTexts[flatTexts.length - 1] += texts[i + 1]!;
    } else {
      flatParts.push(part as Part);
      flatTexts.push(texts[i + 1]!);
    }
  });
  return new Snippet(language, flatTexts, flatParts, context);
}

/** Backslashes are the snippet's own; only those that TypeScript asks for before a backtick or `${` go. */
function asWritten(raw: string): string {
  return raw.replace(/\\(`|\$\{)/g, "$1");
}

/** A snippet of JavaScript, which TypeScript and TSX files understand too. */
export const javascript = tag("javascript");
/** A snippet of TypeScript. */
export const typescript = tag("typescript");
/** A snippet of Python. */
export const python = tag("python");
/** A snippet of Java. */
export const java = tag("java");
/** A snippet of C++. */
export const cpp = tag("cpp");
/** A snippet of C#. */
export const csharp = tag("csharp");
/** A snippet of PHP, without the opening tag. */
export const php = tag("php");
/** A snippet of Ruby. */
export const ruby = tag("ruby");
/** A snippet of PowerShell. */
export const powershell = tag("powershell");
