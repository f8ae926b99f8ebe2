import {
  functionAround,
  importsIn,
  isSeenElsewhere,
  namesWanted,
  no,
  referencesAt,
  unknown,
  usesOf,
  yes,
  type Answer,
  type Declaration,
} from "../../analysis/index.js";
import { compile, matchOneAt, type Hole, type PatternMatch, type Snippet } from "../../pattern/index.js";
import type { SyntaxNode } from "../../syntax/index.js";
import type { Condition } from "../condition.js";
import { Match } from "../match.js";
import type { UseClause } from "./clause.js";
import { declarationOfHole, foreignUses } from "./foreign.js";
import { standsIn } from "./place.js";

/** One use of the name, and the clause that covers it. */
export interface CoveredUse extends NamedPlace {
  readonly clause: UseClause;
  readonly found: PatternMatch;
}

/** A name where it is written. */
export interface NamedPlace {
  readonly node: SyntaxNode;
  /** The file it stands in, where that is another one. */
  readonly path: string | undefined;
}

/** All uses of what a hole names, and what the rule's clauses say to them. */
export interface Coverage {
  readonly declaration: Declaration;
  readonly covered: readonly CoveredUse[];
  /** Every place at which the covered uses name it; a clause may cover several at once. */
  readonly places: readonly NamedPlace[];
  /** A use that no clause covers, with the place as a sentence. */
  readonly uncovered: Answer | undefined;
  readonly doubts: readonly Answer[];
}

/**
 * Every use of what a hole names, in all files, each with what it becomes. A use that no clause covers holds the
 * change back. The uses inside the matched code are left to the rule's `becomes`. It is a condition as well.
 */
export class EveryUse implements Condition {
  readonly must: string;
  readonly unknownIs = "possible";
  readonly about: readonly Hole[];

  constructor(
    readonly name: Hole,
    readonly clauses: readonly UseClause[],
  ) {
    this.about = [name];
    this.must = `every use of \`${name.name}\` is one that the rule knows`;
  }

  ask(match: Match): Answer {
    const coverage = this.coverage(match);
    if (!coverage)
      return unknown(
        "name.not-resolved",
        `what declares \`${match.textOf(this.name)}\` is not known`,
        match.node,
      );
    const { uncovered, doubts, covered } = coverage;
    if (uncovered) return uncovered;
    return (
      doubts[0] ??
      yes("name.other-uses", `all ${covered.length} uses of \`${match.textOf(this.name)}\` are known`)
    );
  }

  /** Which clause covers which use; undefined where nothing in the file declares the name. */
  coverage(match: Match): Coverage | undefined {
    const declaration = declarationOfHole(match, this.name);
    if (!declaration) return undefined;
    const fits: CoveredUse[] = [];
    const open: NamedPlace[] = [];
    const inside = (node: SyntaxNode): boolean =>
      match.nodes.some((one) => one.tree === node.tree && one.holds(node));
    const cover = (node: SyntaxNode, path: string | undefined): void => {
      if (inside(node) || isBroughtIn(node)) return;
      const fit = this.#clauseFor(match, node);
      if (fit) fits.push({ node, path, ...fit });
      else open.push({ node, path });
    };
    const own = usesOf(declaration);
    for (const { node } of own.references) cover(node, undefined);
    const foreign = isSeenElsewhere(declaration) ? foreignUses(match, declaration) : undefined;
    for (const { node, file, imports } of foreign?.uses ?? []) if (!imports) cover(node, file.path);
    const doubts = [...own.doubts, ...(foreign?.doubts ?? []), ...fits.flatMap(({ found }) => unsure(found))];
    // Of two clauses around a use the larger one covers it: `if (p) { delete p; }`, and not `delete p;` in it.
    const several = fits.filter(({ found }) => found.captures.get(this.name)?.again !== undefined);
    const isTaken = (node: SyntaxNode): boolean => several.some((other) => this.#takes(other, node));
    const covered = fits.filter(
      ({ node, found }) => !several.some((other) => isWider(other.found, found) && this.#takes(other, node)),
    );
    const missing = open.find(({ node }) => !isTaken(node));
    const uncovered = missing && this.#unknownUse(match, missing.node, missing.path);
    return { declaration, covered, places: [...fits, ...open], uncovered, doubts };
  }

  /** Is a use one of the places at which the code of a clause names it? */
  #takes({ found, node: own }: CoveredUse, node: SyntaxNode): boolean {
    const name = found.captures.get(this.name);
    if (own.same(node) || found.tree !== node.tree || !name) return false;
    return [name, ...(name.again ?? [])].some(({ start, end }) => start <= node.start && node.end <= end);
  }

  #unknownUse(match: Match, node: SyntaxNode, path: string | undefined): Answer {
    const code = statementAround(node).text.split("\n")[0]!.trim();
    const where = path === undefined ? "" : ` in ${path}, line ${node.line}`;
    const says = `\`${match.textOf(this.name)}\` is used in \`${code}\`${where}, which the rule does not know`;
    return no("name.other-uses", says, path === undefined ? node : undefined);
  }

  /** The use itself, as a pattern of nothing but the hole finds it. */
  #bareMatch(match: Match, node: SyntaxNode, { part, isWide }: UseClause): PatternMatch | undefined {
    if (part !== undefined) {
      const around = node.closest([part]);
      if (!around || !(isWide || statementAround(node).holds(around))) return undefined;
      const { tree, id, start, end } = around;
      const name = { tree, nodes: [node.id], start: node.start, end: node.end };
      const captures = new Map([...match.found.captures, [this.name, name]]);
      return { ...match.found, isStatements: false, tree, nodes: [id], start, end, captures };
    }
    let whole = node;
    // `$hive` is a node with the name in it.
    while (
      whole.parent &&
      whole.parent.text === match.textOf(this.name) &&
      whole.text !== whole.parent.text
    ) {
      whole = whole.parent;
    }
    const { tree, id, start, end } = whole;
    const captures = new Map([...match.found.captures, [this.name, { tree, nodes: [id], start, end }]]);
    return { ...match.found, isStatements: false, tree, nodes: [id], start, end, captures };
  }

  #withCaptures(match: Match, found: PatternMatch): Match {
    const captures = new Map([...match.found.captures, ...found.captures]);
    return new Match({ ...found, captures }, match.names, 0, match.around);
  }

  /** The first clause that fits around a use, with the code that it fits. */
  #clauseFor(match: Match, node: SyntaxNode): { clause: UseClause; found: PatternMatch } | undefined {
    const { tree } = node;
    const captures = new Map([...match.found.captures].filter(([hole]) => hole !== this.name));
    const holds = (clause: UseClause, found: PatternMatch): boolean =>
      standsIn(clause.place, tree.node(found.nodes[0]!), node) &&
      (!clause.test || clause.test(this.#withCaptures(match, found)));
    for (const clause of this.clauses) {
      if (isBare(clause.pattern)) {
        const found = this.#bareMatch(match, node, clause);
        if (found && holds(clause, found)) return { clause, found };
        continue;
      }
      const patterns = compile(clause.pattern, tree.language.id);
      const last = clause.isWide ? outermost(node) : statementAround(node);
      for (let at: SyntaxNode | undefined = node; at; at = at.same(last) ? undefined : at.parent) {
        const found = matchOneAt(patterns, tree, at.id, captures);
        const caught = found?.captures.get(this.name)?.nodes[0];
        const isIt =
          caught !== undefined &&
          (tree.node(caught).holds(node) || clause.isWide) &&
          isNamed(tree.textOf(caught), node);
        if (found && isIt && holds(clause, found)) return { clause, found };
      }
    }
    return undefined;
  }
}

/** What a clause names by `need`, and may come from elsewhere. */
function unsure({ captures }: PatternMatch): Answer[] {
  return [...captures].flatMap(([{ limits }, { tree, nodes }]) => {
    const answer = limits.origin && nodes[0] !== undefined && namesWanted(tree.node(nodes[0]), limits.origin);
    return answer && answer.is !== "yes" ? [answer] : [];
  });
}

function isWider(a: PatternMatch, b: PatternMatch): boolean {
  return a.tree === b.tree && a.start <= b.start && b.end <= a.end && a.end - a.start > b.end - b.start;
}

/** Does code name what a use names, with the mark that a language puts before variables or without it? */
function isNamed(code: string, { text }: SyntaxNode): boolean {
  return code === text || code.replace(/^[$@]+/, "") === text;
}

/** Does a name stand in an import, or in what only makes it public? Neither is a use: they stay as they are. */
function isBroughtIn(node: SyntaxNode): boolean {
  const { links } = node.tree.language;
  if (links.exposedBy(node) !== undefined && node.parent?.is("export_specifier")) return true;
  return importsIn(node.tree).some((statement) =>
    statement.imports.some((item) => item.node.holds(node) && !isRead(node)),
  );
}

/** Is the name read where it stands, as the value of a declaration that imports is? */
function isRead(node: SyntaxNode): boolean {
  return referencesAt(node).some(({ does, to }) => does === "read" && to?.as !== "import");
}

/** Is a pattern nothing but a hole? */
function isBare({ texts, parts }: Snippet): boolean {
  return parts.length === 1 && texts.every((text) => text.trim() === "");
}

/** The statement that a node is part of, else the outermost code that is not a list of statements. */
function statementAround(node: SyntaxNode): SyntaxNode {
  const { statementLists, memberLists } = node.tree.language;
  let at = node;
  while (at.parent && !at.parent.is(statementLists) && !at.parent.is(memberLists) && at.parent.parent)
    at = at.parent;
  return at;
}

/** The function that a node is part of, or the file. */
function outermost(node: SyntaxNode): SyntaxNode {
  return functionAround(node) ?? node.tree.root;
}

/** Every use of what a hole names, with what each becomes: a rule's `uses`, and a condition. */
export function everyUseOf(name: Hole, clauses: readonly UseClause[]): EveryUse {
  return new EveryUse(name, clauses);
}
