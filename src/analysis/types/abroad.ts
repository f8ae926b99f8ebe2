import { languageOfFile, type SyntaxNode } from "../../syntax/index.js";
import { nameInFile } from "../names/declarations.js";
import { areKin } from "../names/kin.js";
import { treeOfOther } from "../other-trees.js";
import { surroundingsOf } from "../project.js";
import type { SourceFiles } from "../names/source-files.js";
import { returnTypeOf, type KnownType } from "./known.js";
import { originOf } from "./origin.js";

/** What a call of a function gives that another file of the project declares with its type; undefined where none does. */
export function returnedFromElsewhere(
  call: SyntaxNode,
  path: string,
  files: SourceFiles,
): KnownType | undefined {
  const called = call.child("function") ?? call.child("name") ?? call.child("method");
  const origin = called && originOf(called);
  const name = origin?.name;
  if (!origin || name === undefined || !/^[\p{L}\p{N}_$]+$/u.test(name)) return undefined;
  for (const file of files.naming(name)) {
    const language = languageOfFile(file.path, file.text);
    if (!language || !areKin(language, call.tree.language)) continue;
    if (language.links.imports(origin.module, path, file.path) !== "yes") continue;
    const tree = treeOfOther(file.path, file.text, surroundingsOf(call.tree))!;
    const found = nameInFile(name, tree).declarations.filter(({ scope }) => scope.same(tree.root));
    const type = tree.errors.length === 0 && found.length === 1 ? returnTypeOf(found[0]!) : undefined;
    return (
      type && {
        name: type.name,
        module: type.module,
        at: call,
        why: `${type.why} in ${file.path}`,
      }
    );
  }
  return undefined;
}
