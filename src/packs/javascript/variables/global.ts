import { nameInFile, unknown, yes } from "../../../core.js";
import type { Answer, Declaration, SyntaxNode } from "../../../core.js";

/** Why a file is a module that has no `import` and no `export`. */
export const NODE = "the file is a module of Node";

/** Why a file is a module, whose names no other script sees; undefined for a script. */
export function moduleKind({ tree }: SyntaxNode): string | undefined {
  const { root } = tree;
  if (root.parts.some((part) => part.is(["import_statement", "export_statement"])))
    return "the file is a module";
  const isCommonJs = ["require", "module", "exports"].some((word) =>
    nameInFile(word, tree).references.some((one) => one.to === undefined && !one.member),
  );
  return isCommonJs ? NODE : undefined;
}

/** At the top of a script a name is a property of the global object, and other scripts may declare it as well. */
export function isNoGlobal(to: Declaration, name: SyntaxNode): Answer {
  const code = "name.other-uses";
  if (!to.scope.same(name.tree.root)) return yes(code, `\`${name.text}\` is a local variable`, name);
  const kind = moduleKind(name);
  return kind === undefined
    ? unknown(code, `other scripts may use \`${name.text}\` as a property of the global object`, name)
    : yes(code, kind, name);
}
