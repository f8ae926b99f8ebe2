import {
  applyEdits,
  need,
  referencesOf,
  removal,
  shifted,
  textAt,
  type Edit,
  type Match,
  type Need,
  type SyntaxNode,
} from "../../../core.js";
import { startWithComments } from "../comments.js";
import { isBranch, sortOver, type Cell } from "./cells.js";
import { testAround } from "./element-use.js";
import { attributesOf, type Element } from "./markup.js";
import { NoState } from "./no-state.js";
import { eventOf, type Plan } from "./plan.js";
import type { EffectParts, Helper, Listener, LookedUp } from "./reader.js";
import { attributeEdits, contentEdit, elementType, piecesOf, type Showing } from "./shown-code.js";
import { branchCode, firstShown, functionCode, isDoneWith, typeOf } from "./state-code.js";
import { stateEdits, without, type Named } from "./unit-edits.js";
import { callsOf, helperOf, unitAround, type Unit } from "./units.js";
import { isSteady, valueOfCode } from "./values.js";

const useState = need("react", "useState");
const useRef = need("react", "useRef");
const upper = (name: string): string => name[0]!.toUpperCase() + name.slice(1);

/** Writes the new code of a component. */
export class ComponentWriter {
  readonly #named = new Map<Cell, Named>();
  readonly #refs = new Map<string, string>();
  /** Helpers of which nothing is left. */
  readonly #empty = new Set<Helper>();
  /** What is no longer set by code: it follows from state, or is the first value of one. */
  readonly #unset: readonly SyntaxNode[];
  readonly #firsts = new Map<Cell, string>();

  constructor(
    readonly plan: Plan,
    readonly match: Match,
    readonly keepsId: (element: Element) => boolean,
  ) {
    const { states, derived, kept } = plan;
    const firstWrites = states.flatMap((cell) => this.#firstWrite(cell) ?? []);
    this.#unset = [...derived.flatMap(({ writes }) => writes.map(({ at }) => at)), ...firstWrites];
    for (const cell of states) this.#named.set(cell, this.#nameOf(cell));
    for (const { element, name } of kept)
      if (!this.#refs.has(element.id)) this.#refs.set(element.id, this.#new(`${name?.text ?? "element"}Ref`));
    this.#findEmpty();
  }

  /** The edits from the first effect to the end of the markup. */
  edits(): Edit[] {
    const { parts } = this.plan;
    return [...parts.map((one) => this.#effectEdit(one)), ...this.#markupEdits()].sort(
      (a, b) => a.start - b.start,
    );
  }

  /** What the file calls a hook: as it calls its effects. */
  #hook(wanted: Need): string {
    const callee = this.plan.parts[0]!.effect.statement.firstPart!.child("function")!;
    const object = callee.is("member_expression") ? callee.child("object") : undefined;
    return object ? `${object.text}.${wanted.wanted.name}` : this.match.nameOf(wanted);
  }

  #new(wish: string): string {
    const { start, end } = this.plan.component;
    return this.match.names.choose([wish], start, end);
  }

  #nameOf(cell: Cell): Named {
    const { parts, component } = this.plan;
    const { wish, local } = cell;
    const isTaken = component
      .mentions(wish)
      .some((node) => !local || !parts.some(({ effect }) => effect.statement.holds(node)));
    const again = [...this.#named.values()].some(({ name }) => name === wish);
    const name = local && !isTaken && !again ? wish : this.#new(wish);
    let next: string | undefined;
    return {
      cell,
      name,
      setter: this.#new(`set${upper(name)}`),
      next: () => (next ??= this.#new(`next${upper(name)}`)),
    };
  }

  #states(): readonly Named[] {
    return [...this.#named.values()];
  }

  /** The only write of a shown cell that the effect itself makes, where its value is known: the first value of the state. */
  #firstWrite(cell: Cell): SyntaxNode | undefined {
    if (!cell.shown) return undefined;
    const statements = this.plan.parts.flatMap((one) => [...one.statements]);
    const list = cell.writes.filter(({ at }) => statements.some((one) => one.same(at.parent)));
    const [only, more] = list;
    if (!only || more) return undefined;
    const value = only.value;
    const isKnown =
      typeof value === "boolean" ||
      (typeof value === "object" && valueOfCode(value, () => undefined) !== undefined);
    if (!isKnown) return undefined;
    this.#firsts.set(cell, typeof value === "boolean" ? String(value) : value.text);
    return only.at;
  }

  #findEmpty(): void {
    const helpers = this.plan.parts.flatMap((one) => one.helpers);
    const isGone = (node: SyntaxNode): boolean =>
      this.#unset.some((at) => at.same(node)) ||
      [...this.#empty].some((helper) => callsOf(helper).some((call) => call.same(node)));
    const isEmpty = ({ fn }: Helper): boolean => {
      const body = fn.child("body")!;
      return body.is("statement_block")
        ? body.parts.every(
            (one) => this.#isEmptied(one) || (one.is("expression_statement") && isGone(one.firstPart!)),
          ) && !fn.has("async")
        : isGone(body);
    };
    for (let size = -1; size !== this.#empty.size;) {
      size = this.#empty.size;
      for (const helper of helpers) if (isEmpty(helper)) this.#empty.add(helper);
    }
  }

  #isEmptied(statement: SyntaxNode): boolean {
    return this.plan.emptied.some((one) => one.same(statement));
  }

  /** Expressions that go with their statements. */
  #goneIn(unit: Unit): SyntaxNode[] {
    const calls = [...this.#empty].flatMap(callsOf);
    return [...this.#unset, ...calls].filter((at) => unitAround(at, this.plan.units) === unit);
  }

  /** The edits in a function whose first line stands this deep from now on. */
  #unitEdits(unit: Unit, indent: string): Edit[] {
    const { units } = this.plan;
    const { tree } = unit.fn;
    const own = tree.indentAt((unit.helper?.statement ?? unit.fn).start);
    const indentOf = ({ start }: SyntaxNode): string => shifted(tree.indentAt(start), own, indent);
    const gone = this.#goneIn(unit);
    const state = stateEdits(unit, this.#states(), units, indentOf);
    const branches = this.plan.emptied.filter((one) => unitAround(one, units) === unit);
    const single = gone.filter((at) => !branches.some((one) => one.holds(at)));
    const all = [
      ...single.map(without),
      ...branches.map(removal),
      ...this.#testEdits(unit),
      ...state,
      ...this.#refEdits(unit),
    ];
    const outer = all.filter(
      (one) =>
        !all.some(
          (other) => other !== one && other.text === "" && other.start <= one.start && one.end <= other.end,
        ),
    );
    return outer.sort((a, b) => a.start - b.start || a.end - b.end);
  }

  /** Tests in a listener that only asked whether the elements are there. */
  #testEdits(unit: Unit): Edit[] {
    if (!unit.isMoved) return [];
    const tests = unit.parts.lookedUp.flatMap(({ uses }) =>
      uses.flatMap((use) =>
        use.is === "tested" && unitAround(use.at, this.plan.units) === unit ? [testAround(use.at)!] : [],
      ),
    );
    return [...new Map(tests.map((one) => [one.id, one])).values()].map(removal);
  }

  /** An element that code still needs, through its ref. */
  #refEdits(unit: Unit): Edit[] {
    if (!unit.isMoved) return [];
    const isTyped = unit.fn.tree.language.id !== "javascript";
    return this.plan.kept.flatMap(({ element, name, uses, call }) => {
      const ref = this.#refs.get(element.id)!;
      const places = name ? uses.flatMap((use) => (use.is === "other" ? [use.at] : [])) : [call];
      return places
        .filter((node) => unitAround(node, this.plan.units) === unit)
        .map(({ start, end, parent }) => {
          const isSure = !isTyped || parent?.is("non_null_expression") || parent?.has("optional_chain");
          return { start, end, text: `${ref}.current${isSure ? "" : "!"}` };
        });
    });
  }

  /** An effect as it is from now on: its state, its functions, and what is left of it. */
  #effectEdit(parts: EffectParts): Edit {
    const { statement } = parts.effect;
    const { tree } = statement;
    const indent = tree.indentAt(statement.start);
    const left = this.#leftOf(parts, indent);
    const lines = this.#declarations(parts, indent);
    const blocks = [
      ...(lines.length > 0 ? [lines.join(`\n${indent}`)] : []),
      ...this.#helpers(parts, indent),
      ...(left === undefined ? [] : [left]),
    ];
    const text = blocks.join(`\n\n${indent}`);
    const said = left === undefined ? this.#comments(parts).map((one) => `${one}\n${indent}`) : [];
    return blocks.length > 0
      ? { start: statement.start, end: statement.end, text: said.join("") + text }
      : {
          ...this.#wholeStatement(statement),
          text: said.length > 0 ? `${indent}${said.join("").trimEnd()}\n` : "",
        };
  }

  /** A statement with its line, and a blank line behind it. */
  #wholeStatement(statement: SyntaxNode): { start: number; end: number } {
    const { start, end } = removal(statement);
    const blank = /^[ \t]*\r?\n/.exec(statement.tree.text.slice(end))?.[0] ?? "";
    return { start, end: end + blank.length };
  }

  /** Comments of an effect that goes, but for those in code that moves. */
  #comments({ effect, locals, helpers }: EffectParts): string[] {
    const { tree, start, end } = effect.statement;
    const moved = [
      ...this.plan.units.filter((unit) => unit.isMoved && !unit.helper).map(({ fn }) => fn),
      ...locals.map(({ statement }) => ({ start: startWithComments(statement), end: statement.end })),
      ...helpers
        .filter((one) => !this.#empty.has(one))
        .map(({ statement }) => ({ start: startWithComments(statement), end: statement.end })),
    ];
    return tree
      .commentsIn(start, end)
      .filter((n) => !moved.some((one) => one.start <= tree.starts[n]! && tree.ends[n]! <= one.end))
      .map((n) => tree.text.slice(tree.starts[n], tree.ends[n]));
  }

  #declarations({ effect, locals, lookedUp }: EffectParts, indent: string): string[] {
    const { tree } = effect.statement;
    const isTyped = tree.language.id !== "javascript";
    const lines: string[] = [];
    for (const local of locals) {
      const isConstant = this.plan.constants.includes(local);
      const named = this.#states().find(({ cell }) => cell.local === local);
      if (!isConstant && !named) continue;
      const { statement } = local;
      const said = textAt(tree, { start: startWithComments(statement), end: statement.start }, indent);
      const first = local.first ? textAt(tree, local.first, indent) : "";
      if (isConstant) {
        const kind = statement.firstPart?.same(local.name.parent) && statement.parts.length === 1;
        if (!kind) throw new NoState(statement, "several variables are declared together");
        this.#checkFree(local.name);
        lines.push(`${said}${textAt(tree, statement, indent)}`);
        continue;
      }
      lines.push(`${said}${this.#stateLine(named!, first, isTyped ? typeOf(named!.cell) : "")}`);
    }
    const ids = lookedUp.map(({ element }) => element.id);
    for (const named of this.#states()) {
      const { shown } = named.cell;
      if (!shown || !ids.includes(shown.element.id) || !this.#isFirstAt(named.cell, effect.statement))
        continue;
      const first = this.#firsts.get(named.cell) ?? firstShown(named.cell);
      lines.push(this.#stateLine(named, first, isTyped && first === "" ? "<string>" : ""));
    }
    for (const one of this.plan.kept) {
      if (
        !lookedUp.includes(one) ||
        this.plan.kept.find((other) => other.element.id === one.element.id) !== one
      )
        continue;
      const type = isTyped ? `<${elementType(one.element.name)}>` : "";
      lines.push(`const ${this.#refs.get(one.element.id)!} = ${this.#hook(useRef)}${type}(null);`);
    }
    return lines;
  }

  #isFirstAt({ writes }: Cell, statement: SyntaxNode): boolean {
    return statement.holds(writes[0]!.at);
  }

  #stateLine({ name, setter, cell }: Named, first: string, type: string): string {
    const { local } = cell;
    if (local?.first && !isSteady(local.first))
      throw new NoState(
        local.first,
        `\`${name}\` begins with what is worked out when the component is in the document`,
      );
    const lazy = local?.first && [...local.first.descendants()].some((node) => node.is("call_expression"));
    return `const [${name}, ${setter}] = ${this.#hook(useState)}${type}(${lazy ? "() => " : ""}${first});`;
  }

  /** Functions of the effect that listeners call, as functions of the component. */
  #helpers({ helpers }: EffectParts, indent: string): string[] {
    return helpers.flatMap((helper) => {
      const unit = this.#unitOf(helper);
      if (!unit.isMoved || this.#empty.has(helper) || this.#isInlined(helper)) return [];
      const { statement } = helper;
      const { tree } = statement;
      this.#checkFree(helper.name);
      return [
        textAt(
          tree,
          { start: startWithComments(statement), end: statement.end },
          indent,
          this.#unitEdits(unit, indent),
        ),
      ];
    });
  }

  #unitOf(helper: Helper): Unit {
    return this.plan.units.find((unit) => unit.helper === helper)!;
  }

  /** A name that moves out of an effect must be free in the component. */
  #checkFree(name: SyntaxNode): void {
    const { component, parts } = this.plan;
    const other = component
      .mentions(name.text)
      .find((node) => !parts.some(({ effect }) => effect.statement.holds(node)));
    if (other) throw new NoState(other, `\`${name.text}\` is something else in the component`);
  }

  /** A listener whose event has a type must stand in the markup, where React says the type. */
  #isInlined({ fn, to, name }: Helper): boolean {
    const event = eventOf(fn);
    const isTyped = event?.parent?.child("type") !== undefined;
    if (!isTyped) return false;
    const listeners = this.plan.parts.flatMap((one) =>
      one.listeners.filter((listener) => helperOf(listener, one.helpers)?.to === to),
    );
    const calls = referencesOf(to).filter(({ node }) => node.field === "function");
    if (listeners.length !== 1 || calls.length > 0)
      throw new NoState(name, `the event that \`${name.text}\` gets has another type in React`);
    return true;
  }

  /** What is left of an effect; undefined where nothing is. */
  #leftOf(parts: EffectParts, indent: string): string | undefined {
    const { effect, statements, cleanup, isNested } = parts;
    const { tree } = effect.statement;
    const unit = this.plan.units.find(({ fn }) => fn.same(effect.fn))!;
    const gone = statements.filter((one) => this.#isGone(one, parts, unit));
    const left = statements.filter((one) => !gone.includes(one));
    const inside = parts.gone.filter(
      (one) => cleanup?.holds(one) && !gone.some((statement) => statement.holds(one)),
    );
    if (left.length === 0) return undefined;
    if (isNested) throw new NoState(left[0]!, "the effect does more, behind a test for its elements");
    const edits = [
      ...besideEachOther(gone).map(([first, last]) => ({
        ...removal({ tree, start: first.start, end: last.end }),
        start: this.#startOf(first, parts),
      })),
      ...inside.map(without),
      ...this.#lookUpEdits(parts),
      ...this.#leftTests(parts, unit, left),
      ...this.#unitEdits(unit, indent),
      ...parts.helpers
        .filter((one) => !this.#unitOf(one).isMoved)
        .flatMap((one) => this.#unitEdits(this.#unitOf(one), tree.indentAt(one.statement.start))),
    ];
    const outer = edits.filter(
      (one, i) =>
        !edits.some(
          (other, j) =>
            i !== j &&
            other.start <= one.start &&
            one.end <= other.end &&
            (other.start !== one.start || other.end !== one.end || j < i),
        ),
    );
    return textAt(
      tree,
      effect.statement,
      indent,
      outer.sort((a, b) => a.start - b.start),
    );
  }

  /** A test for elements of which only some are needed still. */
  #leftTests({ lookedUp }: EffectParts, unit: Unit, left: readonly SyntaxNode[]): Edit[] {
    return left.flatMap((statement) => {
      const tested = lookedUp.flatMap((one) =>
        one.uses.flatMap((use) =>
          use.is === "tested" && statement.same(testAround(use.at)) ? [{ one, test: use.at.parent! }] : [],
        ),
      );
      const needed = tested.filter(({ one }) => this.#staysIn(one, unit));
      if (needed.length === tested.length) return [];
      const { start, end } = statement.child("condition")!;
      return [{ start, end, text: `(${needed.map(({ test }) => test.text).join(" || ")})` }];
    });
  }

  /** What moves takes its comments along. */
  #startOf(statement: SyntaxNode, { locals, helpers }: EffectParts): number {
    const isMoved = [...locals, ...helpers].some((one) => one.statement.same(statement));
    const start = isMoved ? startWithComments(statement) : statement.start;
    const { tree } = statement;
    const line = tree.lineStart(tree.lineAt(start));
    // Another statement may stand on the line.
    return tree.text.slice(line, start).trim() === "" ? line : start;
  }

  #isGone(statement: SyntaxNode, parts: EffectParts, unit: Unit): boolean {
    const { cleanup, helpers, locals, lookedUp, gone } = parts;
    if (statement.same(cleanup)) return isDoneWith(statement, gone);
    if (gone.some((one) => one.same(statement))) {
      const tested = lookedUp.filter(({ uses }) =>
        uses.some((use) => use.is === "tested" && statement.holds(use.at)),
      );
      return !tested.some((one) => this.#staysIn(one, unit));
    }
    const expression = statement.is("expression_statement") ? statement.firstPart! : undefined;
    if (expression && this.#goneIn(unit).some((at) => at.same(expression))) return true;
    if (this.#isEmptied(statement)) return true;
    const helper = helpers.find((one) => one.statement.same(statement));
    if (helper) return this.#empty.has(helper) || this.#unitOf(helper).isMoved;
    const names = statement.parts.flatMap((part) => part.child("name") ?? []);
    if (names.length === 0) return false;
    const going = names.filter(
      (name) =>
        lookedUp.some((one) => one.name?.same(name) && !this.#staysIn(one, unit)) ||
        locals.some(
          (one) =>
            one.name.same(name) &&
            (this.plan.constants.includes(one) || this.#states().some(({ cell }) => cell.local === one)),
        ),
    );
    if (going.length > 0 && going.length < names.length)
      throw new NoState(statement, "several variables are declared together");
    return going.length > 0;
  }

  /** Is an element needed in what stays in the effect? */
  #staysIn({ uses, name, call }: LookedUp, unit: Unit): boolean {
    const isHere = (node: SyntaxNode): boolean =>
      !unitAround(node, this.plan.units).isMoved && unit.fn.holds(node);
    return name ? uses.some((use) => use.is === "other" && isHere(use.at)) : isHere(call);
  }

  #lookUpEdits({ lookedUp, effect }: EffectParts): Edit[] {
    const unit = this.plan.units.find(({ fn }) => fn.same(effect.fn))!;
    return lookedUp.flatMap((one) => {
      const ref = this.#refs.get(one.element.id);
      const { start, end } = one.call;
      return ref !== undefined && this.#staysIn(one, unit) ? [{ start, end, text: `${ref}.current` }] : [];
    });
  }

  #markupEdits(): Edit[] {
    const { parts, derived } = this.plan;
    const elements = new Map(
      parts.flatMap(({ lookedUp }) => lookedUp.map(({ element }) => [element.id, element] as const)),
    );
    return [...elements.values()].flatMap((element) => {
      const cells = [...derived, ...this.plan.states].filter(({ shown }) => shown?.element.id === element.id);
      const showings = cells.map((cell) => this.#showing(cell));
      const content = showings
        .filter(({ aspect }) => aspect.is === "text")
        .map((one) => contentEdit(element, one));
      const ref = this.#refs.get(element.id);
      const props = [...(ref === undefined ? [] : [`ref={${ref}}`]), ...this.#props(element)];
      return [...attributeEdits(element, showings, props, this.keepsId(element)), ...content];
    });
  }

  #showing(cell: Cell): Showing {
    const shown = cell.shown!;
    const named = this.#named.get(cell);
    if (named) return { aspect: shown.aspect, code: named.name };
    const value = shown.value!;
    const codeOf = (node: SyntaxNode): string => this.#valueCode(node);
    if (isBranch(value)) return { aspect: shown.aspect, code: branchCode(value, codeOf) };
    const pieces =
      shown.aspect.is === "text"
        ? piecesOf(value, codeOf, (node) => sortOver(node, this.#cells()))
        : undefined;
    return { aspect: shown.aspect, code: codeOf(value), pieces };
  }

  #cells(): Cell[] {
    return this.#states().map(({ cell }) => cell);
  }

  /** An expression with the names that its variables have as state. */
  #valueCode({ tree, start, end }: SyntaxNode): string {
    const edits = this.#states().flatMap(({ cell, name }) =>
      (cell.local ? referencesOf(cell.local.to).map(({ node }) => node) : [])
        .filter((node) => start <= node.start && node.end <= end && node.text !== name)
        .map((node) => ({ start: node.start - start, end: node.end - start, text: name })),
    );
    return applyEdits(tree.text.slice(start, end), edits);
  }

  /** The listeners of an element as props. */
  #props(element: Element): string[] {
    return this.plan.parts.flatMap((parts) =>
      parts.listeners
        .filter((one) => one.element.id === element.id)
        .flatMap((listener) => {
          const code = this.#listenerCode(listener, parts);
          return code === undefined ? [] : [`${listener.prop}={${code}}`];
        }),
    );
  }

  #listenerCode(listener: Listener, { helpers }: EffectParts): string | undefined {
    const { handler, element } = listener;
    const helper = helperOf(listener, helpers);
    if (helper && this.#empty.has(helper)) return undefined;
    if (helper && !this.#isInlined(helper)) return helper.name.text;
    const fn = helper?.fn ?? handler;
    if (!fn.child("body")) return fn.text;
    const unit = this.plan.units.find((one) => one.fn.same(fn))!;
    const { tree } = element.tag;
    const indent = tree.indentAt(attributesOf(element.tag).get("id")!.start);
    return functionCode(fn, this.#unitEdits(unit, indent), indent);
  }
}

/** Statements that stand on one line with nothing between them, by the first and the last of them. */
function besideEachOther(statements: readonly SyntaxNode[]): [first: SyntaxNode, last: SyntaxNode][] {
  const runs: [first: SyntaxNode, last: SyntaxNode][] = [];
  for (const statement of statements) {
    const run = runs.at(-1);
    const gap = run && statement.tree.text.slice(run[1].end, statement.start);
    if (run && /^[ \t]*$/.test(gap!)) run[1] = statement;
    else runs.push([statement, statement]);
  }
  return runs;
}
