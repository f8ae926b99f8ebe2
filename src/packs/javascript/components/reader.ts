import { referencesAt, referencesOf, sameCode, type Declaration, type SyntaxNode } from "../../../core.js";
import { bare, testAround, useOfElement, type ElementUse } from "./element-use.js";
import { EVENTS } from "./events.js";
import { attributesOf, elementWithId, plainText, type Element } from "./markup.js";
import { NoState } from "./no-state.js";
import type { Effect } from "./react.js";

/** An element that an effect looks up, and what is done with it. */
export interface LookedUp {
  readonly element: Element;
  /** The call that looks it up. */
  readonly call: SyntaxNode;
  /** The name that it is given. */
  readonly name: SyntaxNode | undefined;
  readonly uses: readonly ElementUse[];
}

/** A function that is called when something happens to an element. */
export interface Listener {
  readonly element: Element;
  readonly event: string;
  readonly prop: string;
  readonly isFlood: boolean;
  /** The function, or what names it. */
  readonly handler: SyntaxNode;
  readonly at: SyntaxNode;
  readonly isProperty: boolean;
}

/** A function of an effect, by its name. */
export interface Helper {
  readonly name: SyntaxNode;
  readonly to: Declaration;
  readonly fn: SyntaxNode;
  readonly statement: SyntaxNode;
}

/** A variable of an effect. */
export interface Local {
  readonly name: SyntaxNode;
  readonly to: Declaration;
  readonly first: SyntaxNode | undefined;
  readonly type: string | undefined;
  readonly statement: SyntaxNode;
}

/** What an effect consists of, as far as the document is concerned. */
export interface EffectParts {
  readonly effect: Effect;
  /** Its statements, those behind a test for the elements as well. */
  readonly statements: readonly SyntaxNode[];
  readonly lookedUp: readonly LookedUp[];
  readonly listeners: readonly Listener[];
  readonly helpers: readonly Helper[];
  readonly locals: readonly Local[];
  /** Statements that are gone with the look-ups and listeners. */
  readonly gone: readonly SyntaxNode[];
  /** The statement that says how to clean up. */
  readonly cleanup: SyntaxNode | undefined;
  readonly isNested: boolean;
}

const FUNCTIONS = ["arrow_function", "function_expression"];
const DECLARATIONS = ["lexical_declaration", "variable_declaration"];

export const declarationAt = (name: SyntaxNode): Declaration | undefined =>
  referencesAt(name).find((one) => one.to && !one.member)?.to;

/** The look-up of an element by its id: `document.getElementById("lid")`, `document.querySelector("#lid")`. */
function idLookedUp(node: SyntaxNode): string | undefined {
  if (!node.is("call_expression")) return undefined;
  const callee = node.child("function")!;
  const method = callee.is("member_expression") ? callee.child("property")!.text : "";
  const object = callee.child("object");
  const [given, ...more] = node.child("arguments")?.parts ?? [];
  const text = plainText(given);
  if (object?.text !== "document" || declarationAt(object) || text === undefined || more.length > 0)
    return undefined;
  if (method === "getElementById") return text;
  return method === "querySelector" ? /^#([\w-]+)$/.exec(text)?.[1] : undefined;
}

export function partsOf(effect: Effect, component: SyntaxNode): EffectParts {
  const { body } = effect;
  const found = [...body.descendants()].flatMap((node) => {
    const id = idLookedUp(node);
    const element = id === undefined ? undefined : elementWithId(component, id);
    return element ? [lookUpAt(node, element)] : [];
  });
  const { statements, test } = statementsOf(body, found);
  const lookedUp = found.map((one) => ({
    ...one,
    uses: one.uses.filter(({ at }) => test?.holds(at) !== true),
  }));
  const cleanup = statements.find((one) => one.is("return_statement"));
  const parts = { effect, statements, lookedUp, cleanup, isNested: test !== undefined };
  const listeners = lookedUp.flatMap((one) => listenersOf(one, statements));
  const stopped = stoppedIn(lookedUp, listeners, cleanup);
  const tests = lookedUp.flatMap(({ uses }) =>
    uses.flatMap((use) => (use.is === "tested" ? [testAround(use.at)!] : [])),
  );
  const gone = [...listeners.map(({ at }) => at.parent!), ...stopped, ...tests];
  return {
    ...parts,
    listeners,
    gone,
    helpers: helpersIn(statements),
    locals: localsIn(statements, lookedUp),
  };
}

function lookUpAt(call: SyntaxNode, element: Element): LookedUp {
  let value = call;
  while (value.parent && bare(value.parent).same(call)) value = value.parent;
  const holder = value.parent?.is("variable_declarator") ? value.parent.child("name") : undefined;
  if (!holder?.is("identifier"))
    return { element, call, name: undefined, uses: [inReact(useOfElement(call), element)] };
  const to = declarationAt(holder);
  const all = to ? referencesOf(to).filter(({ node }) => !node.same(holder)) : [];
  const written = all.find(({ does }) => does !== "read");
  if (!to || written)
    throw new NoState(
      written?.node ?? holder,
      `\`${holder.text}\` does not always stand for the same element`,
    );
  return { element, call, name: holder, uses: all.map(({ node }) => inReact(useOfElement(node), element)) };
}

/** A listener that React would not call as often stays as it is. */
function inReact(use: ElementUse, { name }: Element): ElementUse {
  if (use.is !== "listens" && use.is !== "stops") return use;
  const facts = EVENTS[use.event];
  return facts && facts.only?.includes(name) !== false ? use : { is: "other", at: use.element };
}

/** The statements of an effect; where all of them stand behind a test for the elements, those behind it. */
function statementsOf(
  body: SyntaxNode,
  lookedUp: readonly LookedUp[],
): { statements: SyntaxNode[]; test: SyntaxNode | undefined } {
  const list = body.parts;
  const last = list.at(-1);
  if (!last?.is("if_statement") || last.child("alternative")) return { statements: list, test: undefined };
  const way = last.child("consequence")!;
  const operands = operandsOf(last.child("condition")!);
  const areElements = operands.every((one) =>
    lookedUp.some(({ name, uses }) => name?.text === one.text && uses.length > 0),
  );
  if (!areElements || !way.is("statement_block")) return { statements: list, test: undefined };
  return { statements: [...list.slice(0, -1), ...way.parts], test: last.child("condition")! };
}

function operandsOf(test: SyntaxNode): SyntaxNode[] {
  if (test.is("parenthesized_expression")) return operandsOf(test.firstPart!);
  const isBoth = test.is("binary_expression") && test.child("operator")!.text === "&&";
  return isBoth ? [...operandsOf(test.child("left")!), ...operandsOf(test.child("right")!)] : [test];
}

function listenersOf({ element, uses }: LookedUp, statements: readonly SyntaxNode[]): Listener[] {
  return uses.flatMap((use) => {
    if (use.is !== "listens") return [];
    const facts = EVENTS[use.event]!;
    if (!statements.some((one) => one.same(use.at.parent)))
      throw new NoState(use.at, "whether the listener is there depends on what happened before");
    if (attributesOf(element.tag).has(facts.prop))
      throw new NoState(use.at, `the element has another listener for \`${use.event}\` in the markup`);
    const listener = { element, event: use.event, prop: facts.prop, isFlood: facts.isFlood === true };
    return [
      { ...listener, handler: bare(use.handler), at: use.at, isProperty: use.at.is("assignment_expression") },
    ];
  });
}

/** The statements that take the listeners away when the component goes. */
function stoppedIn(
  lookedUp: readonly LookedUp[],
  listeners: readonly Listener[],
  cleanup: SyntaxNode | undefined,
): SyntaxNode[] {
  return lookedUp.flatMap(({ element, uses }) =>
    uses.flatMap((use) => {
      if (use.is !== "stops") return [];
      const isKnown = listeners.some(
        (one) =>
          one.element.id === element.id &&
          one.event === use.event &&
          (use.handler.is("null") || sameCode(one.handler, bare(use.handler))),
      );
      if (!isKnown || !cleanup?.holds(use.at))
        throw new NoState(use.at, "the listener is taken away before the component goes");
      return [use.at.parent!.is("expression_statement") ? use.at.parent! : use.at];
    }),
  );
}

function helpersIn(statements: readonly SyntaxNode[]): Helper[] {
  return statements.flatMap((statement) => {
    const declarator =
      statement.is(DECLARATIONS) && statement.parts.length === 1 ? statement.firstPart : undefined;
    const value = declarator?.child("value");
    const fn = statement.is("function_declaration") ? statement : value?.is(FUNCTIONS) ? value : undefined;
    const name = statement.is("function_declaration") ? statement.child("name") : declarator?.child("name");
    const to = name?.is("identifier") ? declarationAt(name) : undefined;
    if (!fn || !name || !to) return [];
    const isFixed = referencesOf(to).every(({ node, does }) => node.same(name) || does === "read");
    return isFixed ? [{ name, to, fn, statement }] : [];
  });
}

function localsIn(statements: readonly SyntaxNode[], lookedUp: readonly LookedUp[]): Local[] {
  return statements.flatMap((statement) => {
    if (!statement.is(DECLARATIONS)) return [];
    return statement.parts.flatMap((declarator) => {
      const name = declarator.child("name");
      const first = declarator.child("value");
      const to = name?.is("identifier") ? declarationAt(name) : undefined;
      if (!name || !to || first?.is(FUNCTIONS) || lookedUp.some((one) => one.name?.same(name))) return [];
      const type = declarator.child("type")?.text.replace(/^:\s*/, "");
      return [{ name, to, first, type, statement }];
    });
  });
}
