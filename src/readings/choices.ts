import {
  functionAround,
  isMember,
  isSideEffectFree,
  referencesAt,
  referencesOf,
  shortened,
  unknown,
  yes,
  type Answer,
} from "../analysis/index.js";
import { jumpOf, oncePerNode, sameCode, type SyntaxNode } from "../syntax/index.js";
import { casesAt } from "./cases.js";
import { caughtAt } from "./caught.js";
import { bare, itemRead, presenceOf, type PresenceTest } from "./presence-test.js";
import { assignedBy, differenceOf, isValuePlace, type Frame } from "./frame.js";
import { isUsedOnlyIn } from "./used-once.js";
import { expressionOf, isGiven, isStatement, neighbour, waysOf, type Ways } from "./ways.js";

/** A choice between two values by a condition, however it is spelt. */
export interface Choice {
  readonly test: SyntaxNode;
  /** The value where the test is true, and where it is false. */
  readonly yes: SyntaxNode;
  readonly no: SyntaxNode;
  /** All that spells the choice: a conditional expression, or statements side by side. */
  readonly nodes: readonly SyntaxNode[];
  /** The statement that the value goes to; none where the choice is an expression itself. */
  readonly frame?: Frame;
  /** A name that has the value of another piece of code when the test is made. */
  readonly alias?: { readonly name: SyntaxNode; readonly value: SyntaxNode };
  /** What is asked, where it is no condition that asks but what is caught. */
  readonly asked?: PresenceTest;
  /** Whether the alias can be read while the other value is worked out, when it has no value yet in the new code. */
  readonly hidden?: () => Answer;
  /** What was evaluated in any case, and is evaluated only where it is needed when the choice is one expression. */
  readonly always?: SyntaxNode;
}

function choicesOf(node: SyntaxNode): Choice[] {
  const ways = waysOf(node);
  if (!ways) return [...byException(node), ...byCases(node)];
  const { test, yes, no } = ways;
  if (yes.length > 1 || no.length > 1) return [];
  const [a, b] = [yes[0], no[0]];
  if (a && b) {
    if (sameCode(a, b)) return [];
    // `t ? a : b` is never a mere statement where every statement has a value.
    const isValue = !isStatement(node) || (node.tree.language.flow.lastIsGiven && a.parent?.same(node));
    if (isValue) return [{ test, yes: a, no: b, nodes: [node] }];
    return [...bothWays(node, test, a, b), ...givenAtTheEnd(node, test, a, b)];
  }
  return [...guarded(node, ways), ...overridden(node, ways)];
}

/** `try { y = d[k]; } catch { y = b; }`. */
function byException(node: SyntaxNode): Choice[] {
  const caught = caughtAt(node);
  if (!caught) return [];
  const { test: asked, read, otherwise, statement } = caught;
  return [{ test: node, asked, yes: read, no: otherwise, nodes: [node], frame: { statement, value: read } }];
}

/** `switch (x) { case null: y = d; break; default: y = x; }`, `x switch { null => d, _ => x }`. */
function byCases(node: SyntaxNode): Choice[] {
  const cases = casesAt(node);
  if (!cases || cases.there.length !== 1 || cases.gone.length !== 1) return [];
  const { test: asked } = cases;
  const [there, gone] = [cases.there[0]!, cases.gone[0]!];
  if (!isStatement(node))
    return [{ test: node, asked, yes: expressionOf(there), no: expressionOf(gone), nodes: [node] }];
  const choices = [...bothWays(node, node, there, gone), ...givenAtTheEnd(node, node, there, gone)];
  return choices.map((one) => ({ ...one, asked }));
}

/** `if (t) y = a; else y = b;`, `if (t) return a; else return b;`. */
function bothWays(node: SyntaxNode, test: SyntaxNode, a: SyntaxNode, b: SyntaxNode): Choice[] {
  const apart = differenceOf(a, b);
  // What a block declares is gone behind it, unless it is a `var`.
  const isOfBlock = assignedBy(a)?.declares === true && !a.is("variable_declaration");
  if (!apart || isOfBlock) return [];
  const { one, other } = apart;
  return [{ test, yes: one, no: other, nodes: [node], frame: { statement: a, value: one } }];
}

/** The last statement of a function, where its value is what the function gives. */
function givenAtTheEnd(node: SyntaxNode, test: SyntaxNode, a: SyntaxNode, b: SyntaxNode): Choice[] {
  if (!isGiven(node) || jumpOf(a) || jumpOf(b) || assignedBy(a) || assignedBy(b)) return [];
  return [{ test, yes: a, no: b, nodes: [node] }];
}

/** `if (t) return a; return b;`: a way that leaves, and what follows it. */
function guarded(node: SyntaxNode, { test, yes, no }: Ways): Choice[] {
  const leaving = yes[0] ?? no[0];
  const next = neighbour(node, "after");
  const jump = leaving && jumpOf(leaving);
  if (!next || !leaving || (jump !== "return" && jump !== "throw")) return [];
  const isYes = yes.length > 0;
  const apart = differenceOf(leaving, next);
  if (apart) {
    const values = isYes ? { yes: apart.one, no: apart.other } : { yes: apart.other, no: apart.one };
    const frame = { statement: next, value: apart.other };
    return [{ test, ...values, nodes: [node, next], frame }];
  }
  // `return a if t` with the value of the function behind it.
  const [value] = leaving.parts.length === 1 ? valuesOf(leaving) : [];
  if (jump !== "return" || !value || !isGiven(next) || jumpOf(next) || assignedBy(next)) return [];
  const values = isYes ? { yes: value, no: next } : { yes: next, no: value };
  return [{ test, ...values, nodes: [node, next], frame: { statement: next, value: next } }];
}

/** What a `return` gives, where it is one value. */
function valuesOf(leaving: SyntaxNode): readonly SyntaxNode[] {
  const [only] = leaving.parts;
  const values = only?.is(leaving.tree.language.argumentLists) ? only.parts : leaving.parts;
  return values.length === 1 ? values : [];
}

/** `y = a; if (t) y = b;`: assigned first, and overridden where the test says so. */
function overridden(node: SyntaxNode, { test, yes, no }: Ways): Choice[] {
  const way = yes[0] ?? no[0];
  const first = neighbour(node, "before");
  const start = first && assignedBy(first);
  const then = way && assignedBy(way);
  if (!start || !then || then.declares || !sameCode(start.target, then.target)) return [];
  const { target } = start;
  // What is more than a name may be read or written by the code in between.
  if (!isName(target) || mentions(start.value, target)) return [];
  const isYes = yes.length > 0;
  const values = isYes ? { yes: then.value, no: start.value } : { yes: start.value, no: then.value };
  const frame = { statement: first, value: start.value };
  const common = { test, ...values, nodes: [first, node], frame };
  if (mentions(test, target))
    return mentions(then.value, target)
      ? []
      : [
          {
            ...common,
            alias: { name: target, value: start.value },
            hidden: () => isHiddenFrom(target, then.value),
          },
        ];
  return mentions(then.value, target) ? [] : [{ ...common, always: start.value }];
}

/** Can nothing that a piece of code calls read a variable? */
function isHiddenFrom(target: SyntaxNode, code: SyntaxNode): Answer {
  const shown = target.text;
  const free = isSideEffectFree(code);
  if (free.is === "yes") return free;
  const leaf = target.isLeaf ? target : target.firstPart!;
  const to = referencesAt(leaf).find(({ member }) => !member)?.to;
  const around = functionAround(target);
  const isLocal = to !== undefined && !isMember(to) && around?.holds(to.at[0]!) === true;
  // Blocks and lambdas that run later count as well.
  const { functions, delayed } = target.tree.language;
  const bodyOf = (node: SyntaxNode): number | undefined => node.closest([...functions, ...delayed])?.id;
  const captured = isLocal && referencesOf(to).some(({ node }) => bodyOf(node) !== bodyOf(target));
  return isLocal && !captured
    ? yes("flow.written", `\`${shown}\` is seen in this function only`, target)
    : unknown(
        "flow.written",
        `\`${shortened(code.text)}\` could read \`${shown}\` before it is given its value`,
        code,
      );
}

/** A name, also where the grammar wraps it: `$x`. */
function isName({ isLeaf, parts }: SyntaxNode): boolean {
  return isLeaf || (parts.length === 1 && parts[0]!.isLeaf);
}

function mentions(code: SyntaxNode, name: SyntaxNode): boolean {
  return [...code.descendants()].some(
    (node) => node.kind === name.kind && node.text === name.text && !isMemberName(node),
  );
}

/** The name of a member of something else: `name` of `hive.name`. */
function isMemberName(node: SyntaxNode): boolean {
  const references = node.isLeaf ? referencesAt(node) : [];
  return references.length > 0 && references.every(({ member }) => member);
}

/**
 * The choices that a branch spells, with the statements beside it where they belong to it; those that look at an item through a
 * local come last.
 */
export const choicesAt = oncePerNode<readonly Choice[]>((node) => {
  const choices = choicesOf(node);
  return [...choices, ...choices.flatMap(throughLocal)];
});

/** `v = m.get(k); return v != null ? v : d;`, with nothing else that uses the local: the choice between the item and a default. */
function throughLocal(choice: Choice): Choice[] {
  const { test, yes, no, nodes, frame, alias, always, asked } = choice;
  if (alias || always || asked) return [];
  const name = presenceOf(test).subject;
  const kept = [yes, no].filter((value) => sameCode(bare(value), name));
  const whole = frame ? nodes[0]! : statementWith(nodes[0]!);
  const first = whole && neighbour(whole, "before");
  const given = first && assignedBy(first);
  if (!first || !given || kept.length !== 1 || !sameCode(given.target, name)) return [];
  const { target, value } = given;
  if (!itemRead(bare(value)) || !isUsedOnlyIn(target, [test, kept[0]!])) return [];
  const item = (one: SyntaxNode): SyntaxNode => (one === kept[0] ? value : one);
  const goes = frame ?? { statement: whole!, value: nodes[0]! };
  const rest = frame ? nodes : [whole!];
  return [
    {
      test,
      yes: item(yes),
      no: item(no),
      nodes: [first, ...rest],
      frame: goes,
      alias: { name: target, value },
    },
  ];
}

/** The statement that an expression gives its value to, where any other expression could stand. */
function statementWith(value: SyntaxNode): SyntaxNode | undefined {
  let at = value;
  while (at.parent && !isStatement(at)) at = at.parent;
  return isValuePlace(value, at) ? at : undefined;
}

/** A choice that is made where several branches, one in the other, all come out true. */
export interface NestedChoice {
  readonly choice: Choice;
  /** The conditions of the branches around it, from the outside. */
  readonly around: readonly SyntaxNode[];
}

/** `if (t) { if (u) y = a; }` with `y = b;` ahead of it, `if (t) { if (u) return a; } return b;`. */
export const nestedChoicesAt = oncePerNode<readonly NestedChoice[]>((node) => {
  const around: SyntaxNode[] = [];
  let ways = isStatement(node) ? waysOf(node) : undefined;
  for (let inner = ways && onlyBranchIn(ways); inner; inner = onlyBranchIn(inner)) {
    around.push(ways!.test);
    ways = inner;
  }
  if (!ways || around.length === 0 || ways.yes.length !== 1 || ways.no.length > 0) return [];
  return [...guarded(node, ways), ...overridden(node, ways)]
    .filter(({ alias, always, frame }) => {
      const written = always && frame && assignedBy(frame.statement)?.target;
      return !alias && !(written && around.some((test) => mentions(test, written)));
    })
    .map((choice) => ({ choice, around }));
});

/** The branch that is all there is in the one way of another. */
function onlyBranchIn({ yes, no }: Ways): Ways | undefined {
  const [only] = yes;
  if (!only || yes.length > 1 || no.length > 0 || !isStatement(only)) return undefined;
  return waysOf(only);
}
