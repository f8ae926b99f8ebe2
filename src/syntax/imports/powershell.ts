import { modulesOnly, topLevel, type ImportFacts, type ImportStatement } from "../import-facts.js";
import type { SyntaxNode } from "../node.js";

/** `using module M`, `using namespace N` and `Import-Module M`, which is the other way to write the first. */
export const powershellImports: ImportFacts = {
  ...modulesOnly,
  read: (tree) => topLevel(tree).flatMap((node) => fromStatement(node) ?? []),
  write([first], { isOther }) {
    const { module, form } = first!;
    if (form === "namespace") return `using namespace ${module}`;
    return isOther ? `Import-Module ${module}` : `using module ${module}`;
  },
};

const FORM = /^(using\s+(module|namespace)|Import-Module)\s+([^\s;]+)\s*$/i;

function fromStatement(node: SyntaxNode): ImportStatement | undefined {
  const match = node.is("command") ? FORM.exec(node.text) : null;
  if (!match) return undefined;
  const [, start = "", kind, module = ""] = match;
  const form = kind?.toLowerCase() === "namespace" ? "namespace" : undefined;
  const isOther = start.toLowerCase() === "import-module";
  return { node, module, form, imports: [{ module, form, node }], takesMore: false, isOther };
}
