import { shortened } from "../../analysis/index.js";
import type { PatternMatch } from "../../pattern/index.js";
import { CannotRewrite, FreshNames, type Edit } from "../../rewrite/index.js";
import { type EveryUse, Match, type Coverage } from "../../rules/index.js";
import type { Ground } from "../change.js";
import { rewriteTo } from "../rewritten.js";
import { type Piece, groundsOf } from "./piece.js";

/** What a rule makes of each use of a name. Throws CannotRewrite for a use that no clause covers. */
export function rewriteUses(uses: EveryUse, match: Match): Piece[] {
  const coverage = uses.coverage(match);
  if (!coverage)
    throw new CannotRewrite("name.not-resolved", `what declares \`${match.textOf(uses.name)}\` is not known`);
  return piecesOf(coverage, match);
}

function piecesOf(coverage: Coverage, match: Match): Piece[] {
  const unknownUse = coverage.uncovered?.evidence;
  if (unknownUse) throw new CannotRewrite("name.other-uses", unknownUse.says, unknownUse);
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
    const { edits, needs } = rewriteTo(becomes, one);
    return { path, text, edits, needs: [...needs, ...one.needed] };
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
