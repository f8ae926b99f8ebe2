import { modulesOnly, type ImportFacts, type ImportStatement } from "../import-facts.js";
import { escaped } from "../class-facts.js";
import type { SyntaxNode } from "../node.js";

/** `#include <a>` and `#include "a.h"`; modules are written with their brackets or quotes. */
export const cppImports: ImportFacts = {
  ...modulesOnly,
  read: (tree) =>
    includesBelow(tree.root).flatMap((node): ImportStatement[] => {
      const module = node.child("path")?.text;
      return module === undefined ? [] : [{ node, module, imports: [{ module, node }], takesMore: false }];
    }),
  isFullName: (code) => code.includes("::"),
  wholeImports: {
    hide: false,
    defines: (name) => new RegExp(`\\b${escaped(name)}\\s*\\([^;{}]*\\)[\\w\\s]*\\{`),
  },
  isOfPlatform: (module) => /^<[a-z_]+(\/\w+)?(\.h)?>$/.test(module) || module.startsWith('"'),
  write: ([first]) => `#include ${first!.module}`,
  isHeader: (node) =>
    (node.is("preproc_call") && /^#\s*pragma\s+once/.test(node.text)) ||
    (node.parent?.is("preproc_ifdef") === true && (node.is("identifier") || isGuard(node))),
  body: (tree) => guarded(tree.root) ?? tree.root,
};

/** The guard around all of a header. */
function guarded(root: SyntaxNode): SyntaxNode | undefined {
  const [only, more] = root.parts;
  return !more && only?.is("preproc_ifdef") ? only : undefined;
}

function isGuard(node: SyntaxNode): boolean {
  return node.is("preproc_def") && node.child("name")?.text === node.parent?.child("name")?.text;
}

/** Includes of the file itself and of the guard around all of it, but of no other condition. */
function includesBelow(root: SyntaxNode): SyntaxNode[] {
  return (guarded(root) ?? root).parts.filter((part) => part.is("preproc_include"));
}
