import { isBuiltin, textAt, type Edit, type SyntaxNode } from "../../../core.js";
import { countedEnd, countedLoop, type CountedEnd, type CountedLoop } from "./counted-loop.js";
import { nodeForm } from "./node-form.js";
import {
  WAITERS,
  TIMERS,
  deeper,
  isApart,
  withoutItem,
  ownNameIn,
  isBareReturn,
  isOwn,
  startOfBlock,
  isInTail,
  isGuarded,
  names,
  writes,
} from "./step-code.js";
import { isErrorFirst } from "./promisified.js";
import {
  byError,
  calledBy,
  codeOf,
  endsWork,
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
  /** The lists that are walked by loops of steps: where one is empty, the callback was never called. */
  readonly emptied: SyntaxNode[] = [];
  /** The errors that have a handler of their own. */
  readonly handled: SyntaxNode[] = [];
  /** The loop that is being written. */
  #loop: { end?: CountedEnd } | undefined;
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
    const end = this.#loop && countedEnd(statements, this.#done);
    if (end) this.#loop!.end = end;
    const code = end?.rest ?? withoutReturn(statements).code;
    const loop = end ? undefined : countedLoop(statements, this.#done);
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
      if (out.length > 0 && isApart(statement, start)) out.push("");
      comment(start, statement.start);
      start = statement.end;
      const isLast = i === code.length - 1 && !end;
      const step = isLast ? (loop ? this.#each(loop, indent) : this.#lastStep(statement, indent)) : undefined;
      if (step) out.push(...step);
      else if (!loop || !statement.holds(loop.declared)) out.push(this.#plain(statement, indent, isLast));
      else if (statement.parts.length > 1)
        out.push(`${indent}${textAt(statement.tree, statement, indent, [withoutItem(loop.declared)])}`);
      if (isLast && !step) this.#mustSettle(statement);
    }
    if (code.length === 0 && !end) this.#mustSettle(around);
    if (isBlock) comment(start, around.end - 1);
    return out;
  }

  /** Works that are begun for each item and counted: all of them are awaited, and then the function gives its value. */
  #each(loop: CountedLoop, indent: string): string[] {
    if (this.#loop) throw new NoSteps(loop.statement, "a loop of steps stands in another one");
    this.#keepsThis(loop.each);
    const inner = deeper(loop.statement, indent);
    const state: { end?: CountedEnd } = {};
    this.#loop = state;
    const first = loop.code[0];
    const lines = this.#block(loop.code, first?.parent ?? loop.each, inner);
    this.#loop = undefined;
    const { end } = state;
    if (!end) throw new NoSteps(loop.statement, "the works of the loop are not counted where they end");
    const { keyword, value } = this.#settled(end.call);
    if (keyword === "throw") throw new NoSteps(end.call, "the last work gives an error");
    const own = value && ownNameIn(value, loop.each);
    if (own) throw new NoSteps(own, `\`${own.text}\` is of one work, and not of all`);
    this.emptied.push(loop.list);
    return [
      `${indent}await Promise.all(${loop.list.text}.map(async (${loop.parameters}) => {`,
      ...lines,
      `${indent}}));`,
      ...(value ? [`${indent}return ${textAt(value.tree, value, indent)};`] : []),
    ];
  }

  /** Code that could end without a call of the callback ended the work there; the new function goes on with no value. */
  #mustSettle(code: SyntaxNode): void {
    const open = this.#open(code);
    if (open) throw new NoSteps(open, `the code ends here without calling \`${this.#done}\``);
  }

  /** Where a statement may be left at its end without a call of the callback. */
  #open(statement: SyntaxNode): SyntaxNode | undefined {
    if (endsWork(statement) || this.#settles(statement)) return undefined;
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

  /** Is the callback called by a statement, or handed to the call that it is? */
  #settles(statement: SyntaxNode): boolean {
    return calledBy(statement)?.name === this.#done || this.#handedOn(statement) !== undefined;
  }

  /** The call that a statement is, where it gets the callback as its last argument. */
  #handedOn(statement: SyntaxNode): SyntaxNode | undefined {
    const call = statement.is(["return_statement", "expression_statement"])
      ? expressionOf(statement)
      : undefined;
    const last = call?.is("call_expression") ? call.child("arguments")?.lastPart : undefined;
    return last?.is("identifier") && last.text === this.#done ? call : undefined;
  }

  #comments(start: number, end: number, indent: string): string {
    const { tree } = this.source.fn;
    const found = tree.commentsIn(start, end).map((n) => ({ start: tree.starts[n]!, end: tree.ends[n]! }));
    const runs: { start: number; end: number }[] = [];
    for (const one of found) {
      const last = runs.at(-1);
      // What stood between two comments may be gone.
      if (last && tree.text.slice(last.end, one.start).trim() === "") last.end = one.end;
      else runs.push({ ...one });
    }
    return runs.map((one) => `${indent}${textAt(tree, one, indent)}`).join("\n");
  }

  /** A statement that hands nothing to a later one; ways out of it that call the callback leave the function instead. */
  #plain(statement: SyntaxNode, indent: string, isLast: boolean): string {
    const edits: Edit[] = [];
    for (const use of statement.mentions(this.#done)) edits.push(...this.#left(use, statement, isLast));
    for (const left of statement.descendants()) {
      if (!left.is("return_statement") || !isOwn(left, statement) || this.#settles(left)) continue;
      const before = left.previousPart;
      if (left.parts.length === 0 && before && this.#settles(before)) continue;
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
    const called = use.parent?.is("call_expression") && use.field === "function" ? use.parent : undefined;
    const taker = use.parent?.is("arguments") ? use.parent.parent : undefined;
    const call = called ?? taker;
    const statement = call?.parent;
    if (
      !call ||
      !statement?.is(["return_statement", "expression_statement"]) ||
      (taker && !this.#handedOn(statement))
    )
      throw new NoSteps(use, `\`${this.#done}\` is used in another way than being called`);
    const next = statement.nextPart;
    const leaves =
      statement.is("return_statement") ||
      (next !== undefined && isBareReturn(next, next.nextPart === undefined));
    const isTail = isLast && isInTail(statement, within);
    if (!leaves && !isTail) throw new NoSteps(use, `the code goes on behind \`${first(statement)}\``);
    const end =
      !statement.is("return_statement") && leaves && !statement.same(within) ? next!.end : statement.end;
    if (taker) {
      if (this.#loop)
        throw new NoSteps(use, `one of many works calls \`${this.#done}\` without waiting for the others`);
      if (call.text.includes("\n")) throw new NoSteps(use, `\`${first(call)}\` stands on several lines`);
      const awaited = this.#awaited(call, use, "");
      if (awaited.includes("\n")) throw new NoSteps(use, `\`${first(call)}\` gives no promise`);
      return [{ start: statement.start, end, text: `return ${awaited};` }];
    }
    const { keyword, value } = this.#settled(call);
    if (this.#loop && keyword === "return")
      throw new NoSteps(call, `one of many works calls \`${this.#done}\` without waiting for the others`);
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
    const known = this.#chained(call, indent) ?? this.#laterStep(call, indent);
    if (known) return known;
    const callback = call.child("arguments")?.lastPart;
    if (this.#loop && callback?.text === this.#done)
      throw new NoSteps(callback, `one of many works calls \`${this.#done}\` without waiting for the others`);
    if (callback?.text === this.#done && callback.is("identifier"))
      return [`${indent}return ${this.#awaited(call, callback, indent)};`];
    if (!callback?.is(FUNCTIONS) || callback.mentions(this.#done).length === 0) return undefined;
    if (callback.has("async")) throw new NoSteps(callback, "the callback waits itself");
    const [error, value, ...more] = parametersOf(callback);
    if (!error?.is("identifier") || more.length > 0)
      throw new NoSteps(callback, "the callback does not get an error and one value");
    const ways = byError(codeOf(callback), error.text);
    if (!ways || !ways.apart)
      throw new NoSteps(callback, `what is done for \`${error.text}\` and for a value stands together`);
    const again = useOfParameter(error, ways.done);
    if (again) throw new NoSteps(again, `\`${error.text}\` is used although there is no error`);
    const isPassedOn = this.#isPassedOn(ways.failed, error.text);
    const handler = isPassedOn ? undefined : { error, code: ways.failed };
    const depth = handler ? deeper(call, indent) : indent;
    return this.#step(
      `await ${this.#awaited(call, callback, depth)}`,
      value,
      callback,
      ways.done,
      indent,
      handler,
    );
  }

  /** What runs a function later and gives it nothing: `setTimeout(() => { … }, 100)`. */
  #laterStep(call: SyntaxNode, indent: string): string[] | undefined {
    const callee = call.child("function")!;
    const [later, ...more] = call.child("arguments")?.parts ?? [];
    if (!TIMERS.includes(callee.text) || !later?.is(FUNCTIONS) || later.mentions(this.#done).length === 0)
      return undefined;
    const [name] = callee.text.split(".");
    const most = callee.text === "setTimeout" ? 1 : 0;
    if (isBuiltin(name!, callee).is !== "yes" || more.length > most || parametersOf(later).length > 0)
      return undefined;
    const waits = [`${callee.text}(resolve`, ...more.map((one) => one.text)].join(", ");
    const { code } = withoutReturn(codeOf(later));
    return this.#step(`await new Promise((resolve) => ${waits}))`, undefined, later, code, indent);
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
    handler?: { readonly error: SyntaxNode; readonly code: readonly SyntaxNode[] },
  ): string[] {
    this.#keepsThis(callback);
    const isUsed =
      value !== undefined && rest.some((one) => names(value).some((name) => one.mentions(name).length > 0));
    if (value && isUsed) this.#declare(value, callback);
    const isWritten = isUsed && names(value).some((name) => rest.some((one) => writes(one, name)));
    const gives = isUsed ? `${value.text} = ` : "";
    const word = isWritten ? "let" : "const";
    for (const statement of rest) this.#declareAll(statement, callback);
    const head = handler
      ? this.#caught({ value: isUsed ? value : undefined, awaited, callback }, handler, indent)
      : [`${indent}${isUsed ? `${word} ` : ""}${gives}${awaited};`];
    return [...head, ...this.#block(rest, rest[0]?.parent ?? callback.child("body")!, indent)];
  }

  /** A step whose error is not simply passed on: what is done for it stands in a handler, and leaves the function. */
  #caught(
    step: { value: SyntaxNode | undefined; awaited: string; callback: SyntaxNode },
    handler: { readonly error: SyntaxNode; readonly code: readonly SyntaxNode[] },
    indent: string,
  ): string[] {
    const { value, awaited, callback } = step;
    if (value && !value.is("identifier"))
      throw new NoSteps(value, "the value is taken apart, and the error is not simply passed on");
    const { error, code } = handler;
    if (value?.text === error.text) throw new NoSteps(error, "the error and the value have one name");
    this.handled.push(error);
    const inner = deeper(callback, indent);
    const done = this.#block(code, code[0]?.parent ?? callback.child("body")!, inner);
    const isNamed = code.some((one) => one.mentions(error.text).length > 0);
    return [
      ...(value ? [`${indent}let ${value.text};`] : []),
      `${indent}try {`,
      `${inner}${value ? `${value.text} = ` : ""}${awaited};`,
      `${indent}} catch ${isNamed ? `(${error.text}) ` : ""}{`,
      ...done,
      `${indent}}`,
    ];
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
    if (WAITERS.includes(callee.child("property")!.text))
      throw new NoSteps(
        callee,
        `\`${first(callee)}\` waits for an event, which may never come, or come twice`,
      );
    const inner = deeper(call, indent);
    const values = valuesAt(inner);
    const lead = values === "" ? "" : `${values}, `;
    const settles = "(error, value) => (error ? reject(error) : resolve(value))";
    return `new Promise((resolve, reject) => {\n${inner}${callee.text}(${lead}${settles});\n${indent}})`;
  }
}
