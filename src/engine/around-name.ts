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
  type Answer,
  type ForeignUse,
} from "../analysis/index.js";
import type { PatternMatch } from "../pattern/index.js";
import { applyEdits, CannotRewrite, clash, FreshNames, type Edit } from "../rewrite/index.js";
import {
  declarationOfHole,
  foreignUses,
  type EveryUse,
  lower,
  Match,
  Renaming,
  type Coverage,
  type Rule,
  type Trust,
} from "../rules/index.js";
import {
  countErrors,
  languageOfFile,
  type Import,
  type SyntaxNode,
  type SyntaxTree,
} from "../syntax/index.js";
import type { FileEdits, Ground } from "./change.js";
import { rewriteTo } from "./rewritten.js";

/** What a rule does to the uses of a name, beside what it does to the match itself. */
export interface AroundName {
  readonly edits: readonly Edit[];
  readonly needs: readonly Import[];
  readonly elsewhere: readonly FileEdits[];
  readonly evidence: readonly Ground[];
  readonly trust: Trust;
}

/** Works out what becomes of the uses of a name. Throws CannotRewrite where one of them is not understood. */
export function aroundName(rule: Rule, match: Match): AroundName {
  const uses = typeof rule.uses === "function" ? rule.uses(match) : rule.uses;
  if (!uses) return { edits: [], needs: [], elsewhere: [], evidence: [], trust: "certain" };
  const parts = uses instanceof Renaming ? renameEverywhere(uses, match) : rewriteUses(uses, match);
  const own = parts.filter(({ path }) => path === undefined).flatMap(({ edits }) => edits);
  const others = new Map<string, { text: string; edits: Edit[] }>();
  for (const { path, text, edits } of parts) {
    if (path === undefined) continue;
    const file = others.get(path) ?? { text, edits: [] };
    file.edits.push(...edits);
    others.set(path, file);
  }
  const elsewhere = [...others].map(([path, { text, edits }]): FileEdits => {
    const sound = soundEdits(path, text, edits);
    return { path, edits: sound };
  });
  return {
    edits: ordered(own, match.tree.text),
    needs: parts.flatMap(({ needs }) => needs ?? []),
    elsewhere: elsewhere.filter(({ edits }) => edits.length > 0).sort((a, b) => (a.path < b.path ? -1 : 1)),
    evidence: parts.flatMap(({ evidence }) => evidence ?? []),
    trust: parts.map(({ trust }) => trust ?? "certain").reduce(lower, "certain"),
  };
}

interface Piece {
  /** Undefined for the file of the match. */
  readonly path: string | undefined;
  readonly text: string;
  readonly edits: readonly Edit[];
  readonly needs?: readonly Import[];
  readonly evidence?: readonly Ground[];
  readonly trust?: Trust;
}

function rewriteUses(uses: EveryUse, match: Match): Piece[] {
  const coverage = uses.coverage(match);
  if (!coverage)
    throw new CannotRewrite("name.not-resolved", `what declares \`${match.textOf(uses.name)}\` is not known`);
  return piecesOf(coverage, match);
}

function piecesOf(coverage: Coverage, match: Match): Piece[] {
  if (coverage.uncovered) throw new CannotRewrite("name.other-uses", coverage.uncovered.evidence.says);
  const { covered, doubts } = coverage;
  const names = new Map<string | undefined, FreshNames>();
  const pieces = covered.map(({ clause, found, path }): Piece => {
    const { text } = found.tree;
    if (clause.outcome === "stays") return { path, text, edits: [] };
    if (clause.outcome === "goes") {
      refuseLoneStatement(found);
      return { path, text, edits: [withLine(text, found.start, found.end)] };
    }
    let fresh = path === undefined ? match.names : names.get(path);
    if (!fresh) names.set(path, (fresh = new FreshNames(found.tree)));
    const captures = new Map([...match.found.captures, ...found.captures]);
    const one = new Match({ ...found, captures }, fresh, 0, match.around);
    const becomes = typeof clause.outcome === "function" ? clause.outcome(one) : clause.outcome;
    return { path, text, ...rewriteTo(becomes, one) };
  });
  const count = covered.length;
  const evidence: Ground[] = [
    {
      answer: "yes",
      code: "name.other-uses",
      says:
        count < 2
          ? ["nothing else uses it", "the one other use is known"][count]!
          : `all ${count} other uses are known`,
    },
    ...groundsOf(doubts),
  ];
  const trust = doubts.length > 0 ? "possible" : "certain";
  return [...distinctPieces(pieces), { path: undefined, text: "", edits: [], evidence, trust }];
}

/** What stands under an `if` without braces would leave the next statement in its place. */
function refuseLoneStatement({ tree, nodes }: PatternMatch): void {
  const { statementLists, expressionStatement } = tree.language;
  const node = tree.node(nodes[0]!);
  const statement = node.parent?.is(expressionStatement) ? node.parent : node;
  if (statement.parent && !statement.parent.is(statementLists)) {
    throw new CannotRewrite(
      "edit.no-room",
      `\`${shortened(statement.text)}\` cannot go from where it stands`,
    );
  }
}

/** Uses that share a match make one rewrite. */
function distinctPieces(pieces: readonly Piece[]): Piece[] {
  const seen = new Set<string>();
  return pieces.filter(({ path, edits }) => {
    const key = `${path} ${JSON.stringify(edits)}`;
    return edits.length > 0 && !seen.has(key) && seen.add(key);
  });
}

function renameEverywhere({ name, to, options }: Renaming, match: Match): Piece[] {
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

function piece(path: string | undefined, node: SyntaxNode, text: string): Piece {
  return { path, text: node.tree.text, edits: [{ start: node.start, end: node.end, text }] };
}

/** More doubts than these say nothing new. */
const MOST_DOUBTS = 5;

function groundsOf(doubts: readonly Answer[]): Ground[] {
  const rest = doubts.length - MOST_DOUBTS;
  const more: Ground[] =
    rest > 0
      ? [{ answer: "unknown", code: "name.other-uses", says: `and ${rest} more places like these` }]
      : [];
  return [...doubts.slice(0, MOST_DOUBTS).map(ground), ...more];
}

function ground({ is, evidence }: Answer): Ground {
  return { answer: is, ...evidence };
}

/** A name is taken where it names anything else in the file, even something that it might not hide. */
function refuseTaken(name: string, tree: SyntaxTree, forMember: boolean, path: string | undefined): void {
  const taken = nameInFile(name, tree).references.find(({ member }) => forMember || !member);
  if (!taken && !tree.language.builtins.includes(name)) return;
  const where = `${path === undefined ? "" : ` in ${path}`}${taken ? `, at line ${taken.node.line}` : ""}`;
  throw new CannotRewrite("name.free", `\`${name}\` is taken${where}`);
}

/** A range with the whole line it stands on, where nothing else stands there. */
function withLine(text: string, start: number, end: number): Edit {
  let from = start;
  while (from > 0 && /[ \t]/.test(text[from - 1]!)) from--;
  const rest = /^[ \t]*(\r?\n|$)/.exec(text.slice(end));
  const isFirst = from === 0 || text[from - 1] === "\n";
  if (rest && isFirst) return { start: from, end: end + rest[0].length, text: "" };
  const isApart = isFirst || /[ \t]/.test(text[start - 1] ?? "");
  while (isApart && /[ \t]/.test(text[end] ?? "")) end++;
  return { start, end, text: "" };
}

/** The edits without repeats. Throws CannotRewrite where two want the same text. */
function ordered(edits: readonly Edit[], text: string): Edit[] {
  const result: Edit[] = [];
  for (const edit of [...edits].sort((a, b) => a.start - b.start || a.end - b.end)) {
    const last = result.at(-1);
    if (last && last.start === edit.start && last.end === edit.end && last.text === edit.text) continue;
    if (clash([edit], result)) {
      const line = text.slice(0, edit.start).split("\n").length;
      throw new CannotRewrite("edit.clash", `two uses on line ${line} cannot be rewritten together`);
    }
    result.push(edit);
  }
  return result;
}

function soundEdits(path: string, text: string, edits: readonly Edit[]): Edit[] {
  const sorted = ordered(edits, text);
  const language = languageOfFile(path)!;
  if (countErrors(applyEdits(text, sorted), language) > countErrors(text, language)) {
    throw new CannotRewrite("edit.syntax-error", `${path} would not parse any more`);
  }
  return sorted;
}
