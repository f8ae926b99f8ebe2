import { isBuiltin, presenceOf, referencesAt, waysOf } from "../../../core.js";
import type { SyntaxNode, Ways } from "../../../core.js";

export const FUNCTIONS = ["function_expression", "arrow_function"];

export function parametersOf(fn: SyntaxNode): SyntaxNode[] {
  const alone = fn.child("parameter");
  return alone ? [alone] : (fn.child("parameters")?.parts ?? []);
}

/** The statements of a function; an arrow that is one expression has that. */
export function codeOf(fn: SyntaxNode): SyntaxNode[] {
  const body = fn.child("body")!;
  return body.is("statement_block") ? body.parts : [body];
}

const bare = (node: SyntaxNode | undefined): SyntaxNode | undefined =>
  node?.is("parenthesized_expression") ? bare(node.firstPart) : node;

/** The expression that a statement is, or gives back. */
export function expressionOf(statement: SyntaxNode): SyntaxNode | undefined {
  return bare(statement.is(["expression_statement", "return_statement"]) ? statement.firstPart : statement);
}

/** A call of a function by its name. */
export interface Called {
  readonly name: string;
  readonly values: readonly SyntaxNode[];
  /** Is it left with a `return`? */
  readonly leaves: boolean;
}

export function calledBy(statement: SyntaxNode | undefined): Called | undefined {
  const call = statement && expressionOf(statement);
  const callee = call?.is("call_expression") ? call.child("function") : undefined;
  if (!callee?.is("identifier")) return undefined;
  return {
    name: callee.text,
    values: call!.child("arguments")?.parts ?? [],
    leaves: statement!.is("return_statement"),
  };
}

/** The two ways of a branch, of a conditional, or of a guard and what follows it. */
function waysIn(code: readonly SyntaxNode[]): Ways | undefined {
  const [first, ...rest] = code;
  const ways = first && waysOf(expressionOf(first) ?? first);
  if (!ways || rest.length === 0) return ways;
  return ways.no.length > 0 || !first.is("if_statement") ? undefined : { ...ways, no: rest };
}

/** A use of a parameter in some code; a name of an inner function that hides it is none. */
export function useOfParameter(parameter: SyntaxNode, code: readonly SyntaxNode[]): SyntaxNode | undefined {
  const to = referencesAt(parameter).find((one) => one.to)?.to;
  return code
    .flatMap((one) => one.mentions(parameter.text))
    .find((use) => !to || referencesAt(use).some((one) => one.to === to || one.unknown !== undefined));
}

/** Without a bare `return` at the end, which says nothing more. */
export function withoutReturn(way: readonly SyntaxNode[]): { code: readonly SyntaxNode[]; leaves: boolean } {
  const last = way.at(-1);
  const isBare = last?.is("return_statement") === true && last.parts.length === 0;
  return { code: isBare ? way.slice(0, -1) : way, leaves: last?.is("return_statement") ?? false };
}

/** Does the work end with a statement: by an error that nobody waits for, or with the whole program? */
export function endsWork(statement: SyntaxNode | undefined): boolean {
  if (statement?.is("throw_statement")) return true;
  const call = statement && expressionOf(statement);
  const callee = call?.is("call_expression") ? call.child("function") : undefined;
  return callee?.text === "process.exit" && isBuiltin("process", callee).is === "yes";
}

/**
 * What the code of an error-first callback does for an error, and what for a value: `if (error) …; …`, in any spelling. Where
 * both ways run, which only the first of two settlements of a promise allows, it is not `apart`.
 */
export function byError(
  code: readonly SyntaxNode[],
  error: string,
): { failed: readonly SyntaxNode[]; done: readonly SyntaxNode[]; apart: boolean } | undefined {
  const ways = waysIn(code);
  const test = ways && presenceOf(ways.test);
  if (!test || test.subject.text !== error || !["truth", "missing", "null"].includes(test.asks))
    return undefined;
  const isGuard = code[0]!.is("if_statement") && code.length > 1;
  const [failed, done] = test.isThere ? [ways.yes, ways.no] : [ways.no, ways.yes];
  if (isGuard && !test.isThere) return undefined;
  const guard = withoutReturn(failed);
  return {
    failed: guard.code,
    done: withoutReturn(done).code,
    apart: !isGuard || guard.leaves || endsWork(failed.at(-1)),
  };
}
