import { indentUnit, textAt, type Edit, type SyntaxNode } from "../../../core.js";
import { nodeForm } from "./node-form.js";
import { isErrorFirst } from "./promisified.js";
import {
  byError,
  calledBy,
  codeOf,
  expressionOf,
  FUNCTIONS,
  parametersOf,
  useOfParameter,
  withoutReturn,
} from "./settled.js";

/** Why code cannot be written as steps. */
export class NoSteps extends Error {
  constructor(
    readonly at: SyntaxNode,
    readonly why: string,
  ) {
    super(why);
  }
}

/** A function whose last parameter is a callback that gets an error or a value. */
export interface Source {
  readonly fn: SyntaxNode;
  readonly callback: SyntaxNode;
}

const first = (node: SyntaxNode): string => node.text.split("\n")[0]!;

/** Writes the code of a function with a callback as steps that are awaited. Throws a NoSteps where it cannot. */
export class StepWriter {
  readonly #done: string;
  /** Names that steps declare in the one block that all of them come to stand in. */
  readonly #declared = new Map<string, SyntaxNode>();

  constructor(
    readonly source: Source,
    /** What the file calls `promisify`. */
    readonly promisify: () => string,
  ) {
    this.#done = source.callback.text;
  }

  /** The statements of the function as deep as `indent`, one text for each. */
  write(indent: string): string[] {
    const body = this.source.fn.child("body")!;
    if (!body.is("statement_block")) throw new NoSteps(body, "the function is one expression");
    return this.#block(body.parts, body, indent);
  }

  /** The statements of a block, or those at its end; every way through them calls the callback in the end. */
  #block(statements: readonly SyntaxNode[], around: SyntaxNode, indent: string): string[] {
    const { code } = withoutReturn(statements);
    const out: string[] = [];
    const comment = (from: number, to: number): void => {
      const comments = this.#comments(from, to, indent);
      const isBehind =
        out.length > 0 &&
        !around.tree.text
          .slice(from, to)
          .split(/\/[/*]/)[0]!
          .includes("\n");
      if (comments !== "" && isBehind) out.push(`${out.pop()!} ${comments.trimStart()}`);
      else if (comments !== "") out.push(comments);
    };
    const isBlock = around.is("statement_block");
    let start = code[0] ? startOfBlock(code[0]) : around.start;
    for (const [i, statement] of code.entries()) {
      comment(start, statement.start);
      start = statement.end;
      const step = i === code.length - 1 ? this.#lastStep(statement, indent) : undefined;
      if (step) out.push(...step);
      else out.push(this.#plain(statement, indent, i === code.length - 1));
      if (i === code.length - 1 && !step) this.#mustSettle(statement);
    }
    if (code.length === 0) this.#mustSettle(around);
    if (isBlock) comment(start, around.end - 1);
    return out;
  }

  /** Code that could end without a call of the callback ended the work there; the new function goes on with no value. */
  #mustSettle(code: SyntaxNode): void {
    const open = this.#open(code);
    if (open) throw new NoSteps(open, `the code ends here without calling \`${this.#done}\``);
  }

  /** Where a statement may be left at its end without a call of the callback. */
  #open(statement: SyntaxNode): SyntaxNode | undefined {
    if (statement.is("throw_statement") || calledBy(statement)?.name === this.#done) return undefined;
    if (statement.is("if_statement")) {
      const otherwise = statement.child("alternative")?.firstPart;
      return this.#open(statement.child("consequence")!) ?? (otherwise ? this.#open(otherwise) : statement);
    }
    if (statement.is("statement_block")) {
      const last = withoutReturn(statement.parts).code.at(-1);
      return last ? this.#open(last) : statement;
    }
    if (statement.is("try_statement")) {
      const handler = statement.child("handler")?.child("body");
      const ways = [statement.child("body")!, ...(handler ? [handler] : [])];
      const ends = statement.child("finalizer")?.child("body");
      if (ends && !this.#open(ends)) return undefined;
      return ways.map((way) => this.#open(way)).find((way) => way !== undefined);
    }
    return statement;
  }

  #comments(start: number, end: number, indent: string): string {
    const { tree } = this.source.fn;
    const found = tree.commentsIn(start, end);
    if (found.length === 0) return "";
    const range = { start: tree.starts[found[0]!]!, end: tree.ends[found.at(-1)!]! };
    return `${indent}${textAt(tree, range, indent)}`;
  }

  /** A statement that hands nothing to a later one; ways out of it that call the callback leave the function instead. */
  #plain(statement: SyntaxNode, indent: string, isLast: boolean): string {
    const edits: Edit[] = [];
    for (const use of statement.mentions(this.#done)) edits.push(...this.#left(use, statement, isLast));
    for (const left of statement.descendants()) {
      if (!left.is("return_statement") || !isOwn(left, statement) || calledBy(left)?.name === this.#done)
        continue;
      const before = left.previousPart;
      if (left.parts.length === 0 && before && calledBy(before)?.name === this.#done) continue;
      throw new NoSteps(left, `\`${first(left)}\` leaves without calling \`${this.#done}\``);
    }
    return `${indent}${textAt(
      statement.tree,
      statement,
      indent,
      edits.sort((a, b) => a.start - b.start),
    )}`;
  }

  /** A call of the callback, as the function leaves with it: `return done(error)` becomes `throw error`. */
  #left(use: SyntaxNode, within: SyntaxNode, isLast: boolean): Edit[] {
    for (const above of use.ancestors()) {
      if (above.is([...FUNCTIONS, "function_declaration", "method_definition"]) && !above.holds(within))
        throw new NoSteps(use, `\`${this.#done}\` is used in a function that may run later`);
      if (above.same(within.parent)) break;
    }
    const call = use.parent?.is("call_expression") && use.field === "function" ? use.parent : undefined;
    const statement = call?.parent;
    if (!call || !statement?.is(["return_statement", "expression_statement"]))
      throw new NoSteps(use, `\`${this.#done}\` is used in another way than being called`);
    const next = statement.nextPart;
    const leaves =
      statement.is("return_statement") ||
      (next !== undefined && isBareReturn(next, next.nextPart === undefined));
    const isTail = isLast && isInTail(statement, within);
    if (!leaves && !isTail) throw new NoSteps(use, `the code goes on behind \`${first(statement)}\``);
    const end =
      !statement.is("return_statement") && leaves && !statement.same(within) ? next!.end : statement.end;
    const { keyword, value } = this.#settled(call);
    if (!value) return [{ start: statement.start, end, text: `${keyword};` }];
    return [
      { start: statement.start, end: value.start, text: `${keyword} ` },
      { start: value.end, end, text: ";" },
    ];
  }

  /** What the function does in place of a call of its callback. */
  #settled(call: SyntaxNode): { keyword: "return" | "throw"; value?: SyntaxNode } {
    const [error, value, ...more] = call.child("arguments")!.parts;
    if (more.length > 0) throw new NoSteps(call, `\`${this.#done}\` is given more than one value`);
    if (!error || ["null", "undefined"].includes(error.text))
      return { keyword: "return", ...(value ? { value } : {}) };
    if (value) throw new NoSteps(call, `\`${first(call)}\` gives an error or a value`);
    if (!error.is("new_expression") && !isGuarded(error))
      throw new NoSteps(error, `whether \`${first(error)}\` is an error is not known`);
    return { keyword: "throw", value: error };
  }

  /** The last statement of a block: the call whose callback goes on, or whose value is that of the function. */
  #lastStep(statement: SyntaxNode, indent: string): string[] | undefined {
    const call = statement.is(["expression_statement", "return_statement"])
      ? expressionOf(statement)
      : undefined;
    if (!call?.is("call_expression")) return undefined;
    const chained = this.#chained(call, indent);
    if (chained) return chained;
    const callback = call.child("arguments")?.lastPart;
    if (callback?.text === this.#done && callback.is("identifier"))
      return [`${indent}return ${this.#awaited(call, callback, indent)};`];
    if (!callback?.is(FUNCTIONS) || callback.mentions(this.#done).length === 0) return undefined;
    if (callback.has("async")) throw new NoSteps(callback, "the callback waits itself");
    const [error, value, ...more] = parametersOf(callback);
    if (!error?.is("identifier") || more.length > 0)
      throw new NoSteps(callback, "the callback does not get an error and one value");
    const ways = byError(codeOf(callback), error.text);
    if (!ways || !ways.apart || !this.#isPassedOn(ways.failed, error.text))
      throw new NoSteps(callback, `\`${error.text}\` is not simply handed to \`${this.#done}\``);
    const again = useOfParameter(error, ways.done);
    if (again) throw new NoSteps(again, `\`${error.text}\` is used although there is no error`);
    return this.#step(`await ${this.#awaited(call, callback, indent)}`, value, callback, ways.done, indent);
  }

  /** `weigh(x).then((weight) => { … }, done)`, as callers of what was turned into steps before are written. */
  #chained(call: SyntaxNode, indent: string): string[] | undefined {
    const callee = call.child("function");
    const [done, failed, ...more] = call.child("arguments")?.parts ?? [];
    if (callee?.child("property")?.text !== "then" || !done?.is(FUNCTIONS) || !failed || more.length > 0)
      return undefined;
    const isHandedOn =
      failed.text === this.#done ||
      (failed.is(FUNCTIONS) && this.#isPassedOn(codeOf(failed), parametersOf(failed)[0]?.text ?? ""));
    if (!isHandedOn) return undefined;
    const [value] = parametersOf(done);
    const { code } = withoutReturn(codeOf(done));
    const called = code.length === 1 ? calledBy(code[0]) : undefined;
    const isWhole =
      called?.name === this.#done && called.values.length === 2 && called.values[1]!.text === value?.text;
    if (isWhole && called.values[0]!.text === "null")
      return [`${indent}return ${callee!.child("object")!.text};`];
    return this.#step(
      `await ${callee.child("object")!.text}`,
      value,
      done,
      withoutReturn(codeOf(done)).code,
      indent,
    );
  }

  #isPassedOn(failed: readonly SyntaxNode[], error: string): boolean {
    const called = failed.length === 1 ? calledBy(failed[0]) : undefined;
    return called?.name === this.#done && called.values.length === 1 && called.values[0]!.text === error;
  }

  #step(
    awaited: string,
    value: SyntaxNode | undefined,
    callback: SyntaxNode,
    rest: readonly SyntaxNode[],
    indent: string,
  ): string[] {
    this.#keepsThis(callback);
    const isUsed =
      value !== undefined && rest.some((one) => names(value).some((name) => one.mentions(name).length > 0));
    if (value && isUsed) this.#declare(value, callback);
    const isWritten = isUsed && names(value).some((name) => rest.some((one) => writes(one, name)));
    const head = `${indent}${isUsed ? `${isWritten ? "let" : "const"} ${value.text} = ` : ""}${awaited};`;
    for (const statement of rest) this.#declareAll(statement, callback);
    return [head, ...this.#block(rest, rest[0]?.parent ?? callback.child("body")!, indent)];
  }

  /** A callback that is no arrow has a `this` and `arguments` of its own. */
  #keepsThis(callback: SyntaxNode): void {
    if (callback.is("arrow_function")) return;
    const own = [...callback.descendants()].find((node) => node.is("this") || node.text === "arguments");
    if (own) throw new NoSteps(own, `\`${own.text}\` is that of the callback`);
  }

  #declareAll(statement: SyntaxNode, callback: SyntaxNode): void {
    if (statement.is(["function_declaration", "class_declaration"]))
      this.#declare(statement.child("name")!, callback);
    if (!statement.is(["variable_declaration", "lexical_declaration"])) return;
    for (const declarator of statement.parts) {
      const name = declarator.child("name");
      if (name) this.#declare(name, callback);
    }
  }

  /** A name that comes to stand in the block of all steps may mean nothing else there. */
  #declare(target: SyntaxNode, callback: SyntaxNode): void {
    for (const name of names(target)) {
      const before = this.#declared.get(name);
      if (before) throw new NoSteps(target, `two steps call something \`${name}\` (line ${before.line})`);
      this.#declared.set(name, target);
      const outside = this.source.fn.mentions(name).find((use) => !callback.holds(use));
      if (outside) throw new NoSteps(outside, `\`${name}\` means something else here`);
    }
  }

  /** The promise that a call gives once it has no callback. */
  #awaited(call: SyntaxNode, callback: SyntaxNode, indent: string): string {
    const callee = call.child("function")!;
    const list = call.child("arguments")!;
    const last = callback.previousPart;
    const valuesAt = (depth: string): string =>
      last ? textAt(list.tree, { start: list.firstPart!.start, end: last.end }, depth) : "";
    if (list.mentions(this.#done).some((use) => !callback.holds(use)))
      throw new NoSteps(list, `\`${this.#done}\` is handed on more than once`);
    const form = nodeForm(callee);
    if (form) return `${form.of.text}.${form.in}.${form.name}(${valuesAt(indent)})`;
    if (callee.is("identifier")) {
      const { is, evidence } = isErrorFirst(callee);
      if (is === "no") throw new NoSteps(callee, evidence.says);
      return `${this.promisify()}(${callee.text})(${valuesAt(indent)})`;
    }
    if (!callee.is("member_expression")) throw new NoSteps(callee, "what is called is worked out here");
    const deeper = `${indent}${indentUnit(call.tree, indent)}`;
    const values = valuesAt(deeper);
    const lead = values === "" ? "" : `${values}, `;
    const settles = "(error, value) => (error ? reject(error) : resolve(value))";
    return `new Promise((resolve, reject) => {\n${deeper}${callee.text}(${lead}${settles});\n${indent}})`;
  }
}

const isBareReturn = (statement: SyntaxNode, isLast: boolean): boolean =>
  isLast && statement.is("return_statement") && statement.parts.length === 0;

/** Does a statement belong to the function that code around it belongs to? */
function isOwn(statement: SyntaxNode, code: SyntaxNode): boolean {
  if (statement.same(code)) return true;
  const fn = statement.closest([...FUNCTIONS, "function_declaration", "method_definition"]);
  return !fn || !code.holds(fn);
}

/** Where the text of a block of statements begins, for the comments ahead of the first. */
function startOfBlock(statement: SyntaxNode): number {
  const before = statement.previousPart;
  return before ? before.end : statement.parent!.start + 1;
}

/** Is a statement the last that is run in the one around? */
function isInTail(statement: SyntaxNode, within: SyntaxNode): boolean {
  let at = statement;
  for (const above of statement.ancestors()) {
    if (at.same(within)) return true;
    if (above.is("statement_block") && !at.same(above.lastPart)) return false;
    if (
      above.is([
        "for_statement",
        "for_in_statement",
        "while_statement",
        "do_statement",
        "try_statement",
        "switch_statement",
      ])
    )
      return false;
    at = above;
  }
  return at.same(within);
}

/** Is this the error that a test around found? */
function isGuarded(error: SyntaxNode): boolean {
  for (const above of error.ancestors()) {
    if (above.is("if_statement") && above.child("consequence")!.holds(error))
      return above.child("condition")!.mentions(error.text).length > 0;
    if (above.is("catch_clause")) return above.child("parameter")?.text === error.text;
    if (above.is(FUNCTIONS)) return false;
  }
  return false;
}

const names = (target: SyntaxNode): string[] =>
  [...target.descendants()]
    .filter((node) => node.is(["identifier", "shorthand_property_identifier_pattern"]))
    .map(({ text }) => text);

function writes(code: SyntaxNode, name: string): boolean {
  return code.mentions(name).some(({ parent, field }) => {
    if (parent?.is(["assignment_expression", "augmented_assignment_expression"])) return field === "left";
    return parent?.is("update_expression") ?? false;
  });
}
