import { isDefinedInProject } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";

/** Commands that put nothing into the pipeline, unless they are asked to with `-PassThru`. */
const SILENT = new Set(
  (
    "write-host write-verbose write-warning write-debug write-error write-information write-progress start-sleep out-null " +
    "out-file out-host out-printer set-content add-content clear-content export-csv export-clixml set-variable remove-variable " +
    "remove-item copy-item move-item rename-item set-item set-itemproperty remove-itemproperty clear-variable stop-process " +
    "set-location push-location pop-location import-module add-type set-strictmode clear-host add-member"
  ).split(" "),
);

const BRANCHES = [
  "if_statement",
  "elseif_clause",
  "elseif_clauses",
  "else_clause",
  "switch_statement",
  "switch_body",
  "switch_clauses",
  "switch_clause",
  "foreach_statement",
  "for_statement",
  "while_statement",
  "do_statement",
  "try_statement",
  "catch_clauses",
  "catch_clause",
  "finally_clause",
  "statement_block",
  "statement_list",
];

/** The name of a command, in lower case. */
export const commandName = (node: SyntaxNode): string => node.child("command_name")?.text.toLowerCase() ?? "";

/** The statements in which a piece of code comes to an end, through branches and loops in it. */
export function* statementsIn(block: SyntaxNode): Generator<SyntaxNode> {
  for (const part of block.parts) {
    if (part.is("statement_list")) yield* statementsIn(part);
    else if (block.is("statement_list") && part.is(BRANCHES)) yield* innerOf(part);
    else if (block.is("statement_list")) yield part;
    else if (part.is(BRANCHES)) yield* statementsIn(part);
  }
}

function* innerOf(node: SyntaxNode): Generator<SyntaxNode> {
  for (const part of node.parts)
    if (part.is(BRANCHES)) yield* part.is("statement_list") ? statementsIn(part) : innerOf(part);
}

/** What a statement puts into the pipeline: nothing, something, or what nobody knows. */
export function outputOf(statement: SyntaxNode): "nothing" | "something" | "unknown" {
  if (
    statement.is([
      "assignment_expression",
      "post_increment_expression",
      "post_decrement_expression",
      "pre_increment_expression",
      "pre_decrement_expression",
      "empty_statement",
      "flow_control_statement",
      "function_statement",
      "comment",
    ])
  )
    return "nothing";
  if (statement.is("pipeline_chain")) return outputOf(statement.lastPart!);
  if (statement.is("command")) {
    const isPassed = /-passthru\b/i.test(statement.text);
    const name = commandName(statement);
    // The project may have a command of that name.
    const isOwn = isDefinedInProject(name, statement.tree) !== undefined;
    return SILENT.has(name) && !isPassed && !isOwn ? "nothing" : "unknown";
  }
  if (/^\[void\]/i.test(statement.text)) return "nothing";
  if (statement.is("invocation_expression")) return "unknown";
  return "something";
}
