import {
  languageOfFile,
  oncePerTree,
  otherBranches,
  type LanguageId,
  type SyntaxTree,
} from "../../syntax/index.js";
import { tellOwnNames } from "../../rewrite/index.js";
import { areKin } from "../names/kin.js";
import type { NamingFile, SourceFiles } from "../names/source-files.js";
import { treeOfOther } from "../other-trees.js";
import { surroundingsOf, type Surroundings } from "../project.js";
import { textFound } from "../text-found.js";
import { ownClassAt, type OwnClass, type OwnMember } from "./own-class.js";

/** Classes of a project, and whether all of its files could be looked at. */
export interface FoundClasses {
  readonly classes: readonly OwnClass[];
  /** Is this all? Not where only the file itself is known. */
  readonly isWhole: boolean;
  /** Text that declares something of the name in a way that is no class: an alias, a macro. */
  readonly otherwise: string | undefined;
}

interface Read {
  readonly classes: readonly OwnClass[];
  /** Texts that declare the name otherwise, with their files. */
  readonly otherwise: readonly { readonly path: string; readonly text: string }[];
}

/** What the other files of a project declare, by language and name. */
const declared = new WeakMap<SourceFiles, Map<string, Read>>();
const derived = new WeakMap<SourceFiles, Map<string, readonly OwnClass[]>>();
const perFile = new WeakMap<SourceFiles, Map<string, readonly OwnClass[]>>();
/** The classes that a file declares or adds to. */
export const classesIn = oncePerTree((tree): readonly OwnClass[] => readAll(tree, surroundingsOf(tree).path));

/** The classes of a file with the members of all branches of its conditionals. */
function readAll(tree: SyntaxTree, path: string): OwnClass[] {
  const result = new Map<string, OwnClass>();
  for (const one of [tree, ...otherBranches(tree)].flatMap((branch) => readClasses(branch, path))) {
    const key = `${one.name ?? ""} ${one.line}`;
    const known = result.get(key);
    if (!known) result.set(key, one);
    else {
      const isNew = (member: OwnMember): boolean =>
        !known.members.some(({ name, line }) => name === member.name && line === member.line);
      const parents = [...new Set([...known.parents, ...one.parents])];
      result.set(key, { ...known, parents, members: [...known.members, ...one.members.filter(isNew)] });
    }
  }
  return [...result.values()];
}

function readClasses(tree: SyntaxTree, path: string): OwnClass[] {
  const { kinds } = tree.language.classFacts;
  const result: OwnClass[] = [];
  for (let n = 0; n < tree.size; n++) {
    if (!kinds.includes(tree.kind(n))) continue;
    const own = ownClassAt(tree.node(n), path);
    if (own) result.push(own);
  }
  return result;
}

/** The classes of another file; read once, since only what they declare is kept. */
function classesOf(
  files: SourceFiles,
  { path, text }: NamingFile,
  around: Surroundings,
): readonly OwnClass[] {
  let known = perFile.get(files);
  if (!known) perFile.set(files, (known = new Map()));
  let found = known.get(path);
  if (!found) {
    const tree = treeOfOther(path, text, around);
    known.set(path, (found = tree ? readAll(tree, path) : []));
  }
  return found;
}

/** The files of a project in the same language in which a word stands, the tree's own too. */
export function filesWith(tree: SyntaxTree, word: string): NamingFile[] {
  return [...(surroundingsOf(tree).files?.naming(word) ?? [])].filter((file) => {
    const language = languageOfFile(file.path, file.text);
    return language !== undefined && areKin(language, tree.language);
  });
}

const keyOf = (language: LanguageId, name: string): string => `${language} ${name}`;

/** The classes of this name in a project, those of the file itself first. */
export function classesNamed(tree: SyntaxTree, name: string): FoundClasses {
  const { classFacts, id } = tree.language;
  const { files } = surroundingsOf(tree);
  const form = classFacts.declaring(name);
  const own = classesIn(tree).filter((one) => one.name === name);
  const ownText = own.length === 0 ? textFound(tree, form) : undefined;
  if (!files) return { classes: own, isWhole: false, otherwise: ownText };
  let known = declared.get(files);
  if (!known) declared.set(files, (known = new Map()));
  files.restsOn?.(name);
  let rest = known.get(keyOf(id, name));
  if (!rest) {
    const hits = filesWith(tree, name).filter(({ text }) => form.test(text));
    const classes = hits.flatMap((file) =>
      classesOf(files, file, surroundingsOf(tree)).filter((one) => one.name === name),
    );
    const otherwise = hits
      .filter((file) => !classes.some((one) => one.path === file.path))
      .map((file) => ({ path: file.path, text: form.exec(file.text)![0] }));
    known.set(keyOf(id, name), (rest = { classes, otherwise }));
  }
  const { path } = surroundingsOf(tree);
  const others = rest.classes.filter((one) => one.path !== path);
  const text = ownText ?? rest.otherwise.find((one) => one.path !== path)?.text;
  return { classes: [...own, ...others], isWhole: true, otherwise: text };
}

/** A class of the project is nearer than one that an import of a whole package brings in. */
tellOwnNames((tree, name, { module }) => {
  const folder = module.split(/[.:\\/]+/).join("/");
  return classesNamed(tree, name).classes.some(({ path }) => !dirname(path).endsWith(folder));
});

const dirname = (path: string): string => path.slice(0, Math.max(path.lastIndexOf("/"), 0));

/** The classes of a project that are derived from one of these, by whatever steps; those made on the spot too. */
export function classesDerivedFrom(tree: SyntaxTree, names: readonly string[]): FoundClasses {
  const { files } = surroundingsOf(tree);
  const found: OwnClass[] = [];
  const seen = new Set<string>();
  const waiting = [...names];
  for (let name = waiting.pop(); name !== undefined; name = waiting.pop()) {
    if (seen.has(name)) continue;
    seen.add(name);
    for (const one of directlyDerived(tree, name)) {
      found.push(one);
      if (one.name !== undefined) waiting.push(one.name);
    }
  }
  return { classes: found, isWhole: files !== undefined, otherwise: undefined };
}

function directlyDerived(tree: SyntaxTree, name: string): readonly OwnClass[] {
  const { classFacts, id } = tree.language;
  const { files, path } = surroundingsOf(tree);
  const own = classesIn(tree).filter(({ parents }) => parents.includes(name));
  if (!files) return own;
  let known = derived.get(files);
  if (!known) derived.set(files, (known = new Map()));
  files.restsOn?.(name);
  let rest = known.get(keyOf(id, name));
  if (!rest) {
    const form = classFacts.deriving(name);
    const hits = filesWith(tree, name).filter(({ text }) => form.test(text));
    rest = hits.flatMap((file) =>
      classesOf(files, file, surroundingsOf(tree)).filter(({ parents }) => parents.includes(name)),
    );
    known.set(keyOf(id, name), rest);
  }
  return [...own, ...rest.filter((one) => one.path !== path)];
}
