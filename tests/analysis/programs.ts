import { readFileSync } from "node:fs";
import {
  canBeMissingHere,
  canLeaveEarly,
  canThrow,
  doesEscape,
  everyWayReaches,
  isCertainlyAssigned,
  isUsedAfter,
  isWrittenBetween,
  languageOfFile,
  nameInFile,
  parse,
  type Answer,
  type Reference,
  type SyntaxNode,
  type SyntaxTree,
} from "uvran/core";

/** One small program, and what its comments expect of it. */
export interface Program {
  readonly title: string;
  readonly tree: SyntaxTree;
  readonly expectations: readonly Expectation[];
}

/** What a comment says of a line of its program; lines are counted from the program's first. */
export interface Expectation {
  readonly line: number;
  readonly says: string;
}

/**
 * Reads a file of programs. Each begins with a comment line `=== title`; what is expected stands behind `?` in a
 * comment at the end of a line, several with `;` between them:
 *
 *     x declares · x reads 3 · x writes 3 · x updates, addresses, passes 3 · x captures 3 · x is unknown · x is outside
 *     x assigned yes · x missing no · x unchanged since 3 · x after no · x escapes unknown
 *     throws yes · leaves no · reaches 7
 *
 * `x#2` is the second x of the line. The last three speak of the first statement that begins on the line.
 */
export function programsIn(path: string): Program[] {
  const language = languageOfFile(path)!;
  const prefix = language.id === "php" ? "<?php " : "";
  const text = readFileSync(new URL(path, import.meta.url), "utf8");
  const [head = "", ...parts] = text.split(/^(?:\/\/|#) === /m);
  if (head.trim() !== "") throw new Error(`${path}: a program must begin with a line "=== title"`);
  return parts.map((part) => {
    const end = part.indexOf("\n");
    const code = prefix + part.slice(end + 1);
    const expectations = code.split("\n").flatMap((line, i) => {
      const comment = /(?:\/\/|#)\? (.*)$/.exec(line);
      return comment ? comment[1]!.split(";").map((says) => ({ line: i + 1, says: says.trim() })) : [];
    });
    return { title: part.slice(0, end), tree: parse(code, language), expectations };
  });
}

/** What analysis says where a comment expects something, in the comment's own words. */
export function told({ tree }: Program, { line, says }: Expectation): string {
  const flow = /^(throws|leaves|reaches) (\d+|yes|no|unknown)(?:: (\w+))?$/.exec(says);
  if (flow) return toldOfStatement(tree, line, flow[1]!, flow[2]!);
  const [, name, nth, verb, rest] = /^(\S+?)(?:#(\d))? (\w+) ?(.*)$/.exec(says) ?? [];
  if (!name || !verb) throw new Error(`line ${line}: "${says}" is not understood`);
  const here = nameInFile(keyOf(tree, name), tree).references.filter(({ node }) => node.line === line);
  const places = [...new Set(here.map(({ node }) => node.start))];
  const place = places[Number(nth ?? 1) - 1];
  const at = here.filter(({ node }) => node.start === place);
  const [reference] = at;
  if (!reference) return `${name} is not a name here`;
  const shown = `${name}${nth ? `#${nth}` : ""} ${verb}`;
  const { node } = reference;
  const answer = (is: Answer): string => `${shown} ${is.is}`;
  switch (verb) {
    case "declares":
      return at.some(({ node: one, to }) => to?.at.some((declared) => declared.same(one)))
        ? says
        : `${shown} not`;
    case "assigned":
      return answer(isCertainlyAssigned(reference.to!, node));
    case "missing":
      return answer(canBeMissingHere(node));
    case "escapes":
      return answer(doesEscape(reference.to!));
    case "after":
      return answer(isUsedAfter(reference.to!, statementOn(tree, line)));
    case "unchanged": {
      const since = Number(/\d+/.exec(rest!)![0]);
      const is = isWrittenBetween(reference.to!, statementOn(tree, since), node).is;
      return is === "no" ? says : `${name} changed since ${since}: ${is}`;
    }
    case "changed": {
      const since = Number(/\d+/.exec(rest!)![0]);
      const { is } = isWrittenBetween(reference.to!, statementOn(tree, since), node);
      return `${shown} since ${since} ${is}`;
    }
    default:
      return at.some((one) => matches(one, verb, rest!))
        ? says
        : at.map((one) => describe(name, one)).join(" / ");
  }
}

function keyOf(tree: SyntaxTree, name: string): string {
  const found = tree.names.find((key) => key === name || key === name.replace(/^\$/, ""));
  return found ?? tree.names.find((key) => key === name.replace(/^\$/, "").toLowerCase()) ?? name;
}

const DOES: Readonly<Record<string, Reference["does"]>> = {
  reads: "read",
  writes: "write",
  updates: "update",
  addresses: "address",
  passes: "passed",
};

function matches(reference: Reference, verb: string, rest: string): boolean {
  const { to, does, captured, unknown } = reference;
  if (verb === "is") return rest === "unknown" ? unknown !== undefined : !to && unknown === undefined;
  const isThere = rest === "" || to?.at[0]!.line === Number(rest);
  if (!isThere) return false;
  if (verb === "means") return true;
  return verb === "captures" ? captured : does === DOES[verb] && !captured;
}

function describe(name: string, { to, does, captured, unknown }: Reference): string {
  if (unknown !== undefined) return `${name} is unknown: ${unknown}`;
  if (!to) return `${name} is outside`;
  return `${name} ${captured ? "captures" : `does ${does} of`} ${to.at[0]!.line}`;
}

function toldOfStatement(tree: SyntaxTree, line: number, verb: string, rest: string): string {
  const statement = statementOn(tree, line);
  if (verb === "throws") return `throws ${canThrow(statement).is}`;
  if (verb === "leaves") return `leaves ${canLeaveEarly(statement).is}`;
  const { is } = everyWayReaches(statement, statementOn(tree, Number(rest)));
  return is === "yes" ? `reaches ${rest}` : `reaches ${rest}: ${is}`;
}

/** The outermost node that begins on a line and is not the whole program. */
function statementOn(tree: SyntaxTree, line: number): SyntaxNode {
  const lists = [...tree.language.statementLists, "statement_block", "compound_statement", "then", "do"];
  for (let n = 1; n < tree.size; n++) {
    const node = tree.node(n);
    if (node.line === line && node.named && !node.is(lists) && !node.is(tree.language.comments)) return node;
  }
  throw new Error(`no statement begins on line ${line}`);
}
