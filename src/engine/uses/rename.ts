import {
  isMember,
  isNamedAtRunTime,
  shortened,
  isPublicByItself,
  publicNames,
  nameInFile,
  renamings,
  spelledOut,
  usesOf,
  type ForeignUse,
} from "../../analysis/index.js";
import { CannotRewrite } from "../../rewrite/index.js";
import { declarationOfHole, foreignUses, lower, Match, Renaming, type Trust } from "../../rules/index.js";
import type { SyntaxTree } from "../../syntax/index.js";
import type { Ground } from "../change.js";
import { type Piece, piece, groundsOf } from "./piece.js";

/** Gives a name another one at all its uses, in all files. Throws CannotRewrite where one of them cannot be written so. */
export function renameEverywhere({ name, to, options }: Renaming, match: Match): Piece[] {
  const declaration = declarationOfHole(match, name);
  if (!declaration)
    throw new CannotRewrite("name.not-resolved", `what declares \`${match.textOf(name)}\` is not known`);
  const { tree, around } = match;
  const newName = typeof to === "function" ? to(match) : to;
  const old = declaration.at[0]!.text;
  if (newName === old) return [];
  const ofClass = isMember(declaration) && !declaration.scope.same(tree.root);
  refuseTaken(newName, tree, ofClass, undefined);
  const { links } = tree.language;
  if (declaration.at.some((at) => links.namesFile(at, around.path))) {
    throw new CannotRewrite("name.rename", `the file is named after \`${old}\``);
  }
  const exported = options.publicName === "changes";
  const isSeen = isPublicByItself(declaration) || (exported && publicNames(declaration).length > 0);
  const own = renamings(declaration, newName, exported);
  if (!own)
    throw new CannotRewrite("name.rename", `one use of \`${old}\` cannot be written with another name`);
  const pieces: Piece[] = own.map(({ node, text }) => piece(undefined, node, text));
  const doubts = [...usesOf(declaration).doubts];
  if (isSeen) {
    const foreign = foreignUses(match, declaration, { exported });
    // What has another name there keeps it.
    for (const one of foreign.uses.filter((each) => !each.renamed))
      pieces.push(renamedThere(one, old, newName, ofClass));
    doubts.push(...foreign.doubts);
  }
  const files = new Set(pieces.map(({ path }) => path)).size;
  const says = `all ${pieces.length} uses in ${files === 1 ? "this file" : `${files} files`} are renamed`;
  const evidence: Ground[] = [{ answer: "yes", code: "name.rename", says }, ...groundsOf(doubts)];
  const isOpen = isMember(declaration) || isSeen;
  let trust: Trust = doubts.length > 0 ? "possible" : "certain";
  if (isSeen) {
    trust = lower(trust, "likely");
    evidence.push({
      answer: "unknown",
      code: "name.other-uses",
      says: `code outside of this project may use \`${old}\``,
    });
  }
  if (isNamedAtRunTime(declaration)) {
    trust = lower(trust, "likely");
    evidence.push({
      answer: "unknown",
      code: "name.reflection",
      says: `code that asks for names while it runs no longer finds \`${old}\``,
    });
  }
  for (const node of spelledOut(declaration)) {
    const mayMean = isOpen && isPath(node.text);
    if (mayMean) trust = lower(trust, "likely");
    const looks = mayMean
      ? "may mean the name, and stays as it is"
      : "only looks like the name, and stays as it is";
    evidence.push({
      answer: mayMean ? "unknown" : "yes",
      code: "name.reflection",
      says: `${shortened(node.text)} ${looks}`,
      line: node.line,
      range: node.range,
    });
  }
  return [...pieces, { path: undefined, text: "", edits: [], evidence, trust }];
}

function renamedThere(
  { file, node, imports }: ForeignUse,
  old: string,
  newName: string,
  isMember: boolean,
): Piece {
  refuseTaken(newName, file.tree, isMember, file.path);
  const { binding, links } = file.tree.language;
  // What is handed on under the same name is followed under the new one.
  const keepsForm = imports || links.exposedBy(node) === node.text;
  const written = keepsForm ? { node, text: newName } : binding.renamed(node, newName);
  if (!written)
    throw new CannotRewrite(
      "name.rename",
      `a use of \`${old}\` in ${file.path} cannot be written with another name`,
    );
  return piece(file.path, written.node, written.text);
}

/** Is a string nothing but a name, or names with dots between them, as reflection and configuration have them? */
function isPath(text: string): boolean {
  return /^\W*[\p{L}\p{N}_$]+([.:/\\#]+[\p{L}\p{N}_$]+)*\W*$/u.test(text);
}

/** A name is taken where it names anything else in the file, even something that it might not hide. */
function refuseTaken(name: string, tree: SyntaxTree, forMember: boolean, path: string | undefined): void {
  const taken = nameInFile(name, tree).references.find(({ member }) => forMember || !member);
  if (!taken && !tree.language.builtins.includes(name)) return;
  const where = `${path === undefined ? "" : ` in ${path}`}${taken ? `, at line ${taken.node.line}` : ""}`;
  throw new CannotRewrite("name.free", `\`${name}\` is taken${where}`);
}
