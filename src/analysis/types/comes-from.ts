import { tellOrigins } from "../../pattern/index.js";
import type { Import, SyntaxNode } from "../../syntax/index.js";
import { escaped } from "../../syntax/index.js";
import type { Answer } from "../answer.js";
import { typeWritten } from "./known.js";
import { isLibraryType } from "./library.js";
import { comesFromModule } from "./origin.js";

/**
 * Does a name, or a chain of members, come from where something is wanted from? By an import, under whatever name, through the
 * module, or in full; for a type also by what the project and the imports of whole namespaces leave open.
 */
export function namesWanted(node: SyntaxNode, { module, name }: Import): Answer {
  const { id } = node.tree.language;
  const isScript = ["javascript", "typescript", "tsx"].includes(id);
  const bare = module.replace(/^node:/, "");
  const modules = isScript ? [bare, `node:${bare}`] : [module];
  const names = name === undefined || !isScript ? [name] : [name, `default.${name}`];
  const answers = modules.flatMap((from) =>
    names.map((member) =>
      comesFromModule(node, member === undefined ? { module: from } : { module: from, name: member }),
    ),
  );
  const sure = answers.find(({ is }) => is === "yes") ?? answers.find(({ is }) => is === "unknown");
  if (!sure) return answers[0]!;
  const type = sure.is === "unknown" && name !== undefined && id === "java" ? typeWritten(node) : undefined;
  return type
    ? isLibraryType(type, { names: [name!], module: new RegExp(`^${escaped(module)}$`), what: name! }, node)
    : sure;
}

tellOrigins((node, wanted) => namesWanted(node, wanted).is);
