import { isMissing, operatorOf } from "../analysis/index.js";
import { oncePerNode, sameCode, shapeOf, unwrapped, type SyntaxNode } from "../syntax/index.js";

/**
 * What a test asks for: all missing values of the language, one of several, those and a name that nothing declares
 * (`isset`), what a loose comparison takes for missing, the value in a wrapper (`HasValue`), a key of a collection, a
 * member of an object by its name as text (`hasattr`), whether the value counts as true, or can be called.
 */
export type Asks =
  "missing" | "null" | "undefined" | "set" | "loose" | "value" | "key" | "member" | "truth" | "callable";

/** How a test asks: by an operator that a class may define, by one that it may not, by a call, by the value itself. */
export type AskedBy = "operator" | "identity" | "question" | "truth";

/** A test of something being there, however it is spelt. */
export interface PresenceTest {
  readonly test: SyntaxNode;
  /** What is asked for; the collection where a key is. */
  readonly subject: SyntaxNode;
  readonly key?: SyntaxNode;
  /** Is the test true for what is there, or for what is missing? */
  readonly isThere: boolean;
  readonly asks: Asks;
  readonly by: AskedBy;
  /** The functions that are called to ask, as the file writes them. */
  readonly words: readonly string[];
  /** May the name be declared nowhere, for which this test alone does not fail (`typeof`)? */
  readonly allowsUndeclared: boolean;
  /** Does the new code ask the same, so that nothing hangs on what is asked? */
  readonly staysAsked?: boolean;
  /** How often the test evaluates its subject. */
  readonly times: number;
}

/** What a condition asks of something being there; whether it counts as true where nothing else is asked. */
export const presenceOf = oncePerNode<PresenceTest>(readTest);

function readTest(condition: SyntaxNode): PresenceTest {
  const test = bare(condition);
  if (test.isLeaf) return byTruth(test);
  const shape = shapeOf(test);
  if (shape?.is === "negation") {
    const inner = test.lastPart;
    if (inner) {
      const { isThere, ...rest } = presenceOf(inner);
      return { ...rest, test, isThere: !isThere };
    }
  }
  return joinedTest(test) ?? compared(test) ?? asked(test) ?? byTruth(test);
}

/** Does a test ask for this very value? */
export function asksFor({ subject, key, asks }: PresenceTest, value: SyntaxNode): boolean {
  if (asks === "value") return isUnwrapped(bare(value), subject);
  if (asks === "member") return isMemberNamed(bare(value), subject, key!);
  if (!key) return sameCode(subject, bare(value));
  const item = itemRead(bare(value));
  return item !== undefined && sameCode(item.collection, subject) && sameCode(item.key, key);
}

/** Does code read the member that a text names: `o.x` of `hasattr(o, "x")`? */
function isMemberNamed(value: SyntaxNode, subject: SyntaxNode, name: SyntaxNode): boolean {
  const [object, member] = value.parts;
  if (!value.is(value.tree.language.memberReads) || !object || !member) return false;
  return sameCode(bare(object), subject) && /^(["'])(\w+)\1$/.exec(name.text)?.[2] === member.text;
}

/** Does code take the value out of a wrapper: `x.Value` of `x`? */
function isUnwrapped(value: SyntaxNode, subject: SyntaxNode): boolean {
  const call = callOf(value);
  const { unwraps } = value.tree.language.flow.missing;
  if (!call?.receiver || call.args.length > 0 || !unwraps.includes(call.method)) return false;
  return sameCode(call.receiver, subject);
}

/** A node without the brackets around it, those of a condition too. */
export function bare(node: SyntaxNode): SyntaxNode {
  const { tree } = node;
  let at = tree.node(unwrapped(tree, node.id));
  while (at.is(CONDITION_BRACKETS) && at.parts.length === 1)
    at = tree.node(unwrapped(tree, at.firstPart!.id));
  return at;
}

/** A condition, and how it must come out. */
export interface Demand {
  readonly test: SyntaxNode;
  readonly isTrue: boolean;
}

/** A condition without its brackets and negations, and how it must come out for the whole to come out as wanted. */
export function unnegated(condition: SyntaxNode, wanted = true): Demand {
  const test = bare(condition);
  const inner = shapeOf(test)?.is === "negation" ? test.lastPart : undefined;
  return inner ? unnegated(inner, !wanted) : { test, isTrue: wanted };
}

const CONDITION_BRACKETS = ["condition_clause", "while_condition"];

const NO_WORDS: readonly string[] = [];
const ordinary = { words: NO_WORDS, allowsUndeclared: false, times: 1 };

function byTruth(test: SyntaxNode): PresenceTest {
  return {
    test,
    subject: test,
    isThere: true,
    asks: "truth",
    by: "truth",
    words: NO_WORDS,
    allowsUndeclared: false,
    times: 1,
  };
}

/** Several tests of the same thing: `x !== null && x !== undefined`. */
function joinedTest(test: SyntaxNode): PresenceTest | undefined {
  const shape = shapeOf(test);
  if (shape?.is !== "shortCircuit") return undefined;
  const runsIf = shape.runsIf[operatorOf(test)];
  const [left, right] = [test.firstPart, test.lastPart];
  if (runsIf === "missing" || runsIf === undefined || !left || !right) return undefined;
  const [a, b] = [presenceOf(left), presenceOf(right)];
  const isThere = runsIf === "true";
  return a.isThere === isThere && b.isThere === isThere ? bothTests(test, a, b) : undefined;
}

/** Two tests of the same thing that must both say the same, as one; undefined where they are of different things. */
export function bothTests(test: SyntaxNode, a: PresenceTest, b: PresenceTest): PresenceTest | undefined {
  const { isThere } = a;
  const isSame = a.key === undefined && b.key === undefined && b.isThere === isThere;
  if (!isSame || !sameCode(a.subject, b.subject)) return undefined;
  const asks = together(a.asks, b.asks);
  if (asks === undefined) return undefined;
  const by = a.by === "operator" || b.by === "operator" ? "operator" : a.by === b.by ? a.by : "question";
  return {
    test,
    subject: a.subject,
    isThere,
    asks,
    by,
    words: [...a.words, ...b.words],
    // Only the first test keeps the second from failing.
    allowsUndeclared: a.allowsUndeclared,
    times: a.times + b.times,
  };
}

/** What two tests ask for that must both hold. */
function together(a: Asks, b: Asks): Asks | undefined {
  if (a === b) return a;
  const both = [a, b];
  if (both.includes("key") || both.includes("value") || both.includes("member")) return undefined;
  // What asks for more asks for less as well.
  return (["callable", "truth", "loose", "set"] as const).find((asks) => both.includes(asks)) ?? "missing";
}

/** `x != null`, `x is not None`, `typeof x === "undefined"`, `k in d`. */
function compared(test: SyntaxNode): PresenceTest | undefined {
  const { language, text } = test.tree;
  const { missing, identityTests } = language.flow;
  const sides = test.parts.filter((part) => !part.is(language.operators));
  const [left, right] = sides;
  if (!left || !right || sides.length !== 2 || test.is(language.argumentLists)) return undefined;
  const operator = text.slice(left.end, right.start).trim().replace(/\s+/g, " ").toLowerCase();
  const keys = keyAsked(test, left, right, operator);
  if (keys) return keys;
  if (test.is(missing.patterns.tests)) return matched(test, left, right);
  const isExact = missing.exactly.equal.includes(operator) || missing.exactly.unequal.includes(operator);
  const isThere = missing.unequal.includes(operator) || missing.exactly.unequal.includes(operator);
  const isGone = missing.equal.includes(operator) || missing.exactly.equal.includes(operator);
  if (isThere === isGone) return undefined;
  const isLoose = missing.loose.includes(operator);
  const [subject, literal] = saysMissing(right) ? [left, right] : saysMissing(left) ? [right, left] : [];
  if (!subject || !literal) return isLoose ? undefined : ofKind(test, left, right, isThere);
  const second = missing.second.includes(bare(literal).text);
  const exact = missing.second.length === 0 ? "missing" : second ? "undefined" : "null";
  const asks: Asks = isLoose ? "loose" : isExact ? exact : "missing";
  const isFirst = missing.leftDecides && literal.same(left);
  const by = isExact || isFirst || identityTests.includes(operator) ? "identity" : "operator";
  return { ...ordinary, test, subject: bare(subject), isThere, asks, by };
}

/** Is this a literal for a missing value, and not its name in quotes? */
function saysMissing(node: SyntaxNode): boolean {
  const inner = bare(node);
  return isMissing(inner) && !inner.is(inner.tree.language.strings) && inner.text !== "0";
}

/** `typeof x === "undefined"`. */
function ofKind(
  test: SyntaxNode,
  left: SyntaxNode,
  right: SyntaxNode,
  isThere: boolean,
): PresenceTest | undefined {
  const { kindWord } = test.tree.language.flow.missing;
  if (kindWord === undefined) return undefined;
  const isKind = (node: SyntaxNode): boolean => node.parts.length === 1 && operatorOf(node) === kindWord;
  const [kind, name] = isKind(left) ? [left, right] : isKind(right) ? [right, left] : [];
  const asks = /^["'`](undefined|function)["'`]$/.exec(name?.text ?? "")?.[1];
  if (!kind || asks === undefined) return undefined;
  const subject = bare(kind.firstPart!);
  return {
    ...ordinary,
    test,
    subject,
    isThere: asks === "undefined" ? isThere : !isThere,
    asks: asks === "undefined" ? "undefined" : "callable",
    by: "identity",
    allowsUndeclared: true,
  };
}

/** `x is not null`, `x is { }`. */
function matched(test: SyntaxNode, subject: SyntaxNode, pattern: SyntaxNode): PresenceTest | undefined {
  const { negated, constants, anything } = test.tree.language.flow.missing.patterns;
  const isNegated = pattern.is(negated);
  const inner = isNegated ? pattern.firstPart : pattern;
  const constant = inner?.is(constants) ? inner.firstPart : inner;
  if (!constant) return undefined;
  const isNull = isMissing(constant);
  if (!isNull && !anything.includes(constant.text)) return undefined;
  return {
    ...ordinary,
    test,
    subject: bare(subject),
    isThere: isNull === isNegated,
    asks: "missing",
    by: "identity",
  };
}

function keyAsked(
  test: SyntaxNode,
  left: SyntaxNode,
  right: SyntaxNode,
  operator: string,
): PresenceTest | undefined {
  const { keys } = test.tree.language.flow.missing;
  const word = operator.replace(/^not /, "");
  const places = /^\w/.test(word) && Object.hasOwn(keys, word) ? keys[word] : undefined;
  if (!places || places.collection === "receiver") return undefined;
  const [collection, key] = places.collection === 0 ? [left, right] : [right, left];
  return ofKey(test, collection, key, operator === word, []);
}

function ofKey(
  test: SyntaxNode,
  collection: SyntaxNode,
  key: SyntaxNode,
  isThere: boolean,
  words: readonly string[],
): PresenceTest {
  const [subject, wanted] = [bare(collection), bare(key)];
  return { ...ordinary, test, subject, key: wanted, isThere, asks: "key", by: "question", words };
}

/** `isset($x)`, `x.nil?`, `w.HasValue`, `map.containsKey(k)`. */
function asked(test: SyntaxNode): PresenceTest | undefined {
  const { questions, keys, members } = test.tree.language.flow.missing;
  const call = callOf(test);
  if (!call) return undefined;
  const { whole, method, receiver, args } = call;
  const anyCase = test.tree.language.ignoresCase !== "nowhere";
  const find = <T>(table: Readonly<Record<string, T>>, word: string): T | undefined =>
    own(table, word, anyCase);
  const question = find(questions, whole) ?? find(questions, method);
  if (question) {
    const subject = subjectOf(question.of, receiver, args);
    const { isThere, asks } = question;
    const isAskedWhole = question.of === "receiver" || method === whole || find(questions, whole);
    if (subject && isAskedWhole)
      return { ...ordinary, test, subject: bare(subject), isThere, asks, by: "question", words: [whole] };
  }
  const named = members.includes(whole) ? args : [];
  if (named.length === 2) return { ...ofKey(test, named[0]!, named[1]!, true, [whole]), asks: "member" };
  const places = find(keys, whole) ?? find(keys, method);
  const key = places && args[places.key];
  const collection = places && (places.collection === "receiver" ? receiver : args[places.collection]);
  const count = places?.collection === "receiver" ? 1 : 2;
  if (!key || !collection || args.length !== count) return undefined;
  return ofKey(test, collection, key, true, [whole]);
}

function own<T>(table: Readonly<Record<string, T>>, word: string, anyCase: boolean): T | undefined {
  if (Object.hasOwn(table, word)) return table[word];
  const lower = word.toLowerCase();
  return anyCase ? Object.entries(table).find(([name]) => name.toLowerCase() === lower)?.[1] : undefined;
}

function subjectOf(
  of: "argument" | "other argument" | "receiver",
  receiver: SyntaxNode | undefined,
  args: readonly SyntaxNode[],
): SyntaxNode | undefined {
  if (of === "receiver") return args.length === 0 ? receiver : undefined;
  if (of === "argument") return args.length === 1 ? args[0] : undefined;
  const rest = args.filter((arg) => !saysMissing(arg));
  return args.length === 2 && rest.length === 1 ? rest[0] : undefined;
}

interface Called {
  /** All that stands before the brackets, without a leading `\`. */
  readonly whole: string;
  /** The last name of it. */
  readonly method: string;
  readonly receiver: SyntaxNode | undefined;
  readonly args: readonly SyntaxNode[];
}

/** A call, or a member that is read, by its parts. */
export function callOf(node: SyntaxNode): Called | undefined {
  const { language, text } = node.tree;
  const list = node.parts.find((part) => part.is(language.argumentLists) || part.is("argument_list"));
  const isCall = node.is(language.calls);
  if (!isCall && !node.is(language.memberReads)) return undefined;
  const callee = text.slice(node.start, (list ?? node.child("block"))?.start ?? node.end).trim();
  if (/\?\.|\?->|&\./.test(callee)) return undefined;
  const whole = callee.replace(/^\\/, "").replace(/\s+/g, "");
  const method = /[\p{L}\p{N}_$?!]+$/u.exec(whole)?.[0] ?? whole;
  const args = (
    list?.is("argument_list") && list.firstPart?.is(language.argumentLists) ? list.firstPart : list
  )?.parts;
  const called = isCall ? node.child("function") : undefined;
  const holder = called?.is(language.memberReads) ? called : called ? undefined : node;
  const receiver = whole === method ? undefined : holder?.firstPart;
  return { whole, method, receiver, args: args ?? [] };
}

/** `list[key]`, `map.get(key)`: the collection and the key; undefined for what reads no item. */
export function itemRead(
  node: SyntaxNode,
): { readonly collection: SyntaxNode; readonly key: SyntaxNode } | undefined {
  const { language } = node.tree;
  if (node.is(language.indexReads)) {
    const [collection, index] = node.parts;
    const isList = index?.is([...language.argumentLists, ...language.indexLists]) === true;
    const key = isList ? index!.firstPart : index;
    const isOne = !isList || index!.parts.length === 1;
    return collection && key && isOne && node.parts.length === 2
      ? { collection: bare(collection), key: bare(key) }
      : undefined;
  }
  const call = callOf(node);
  if (!call?.receiver || call.args.length !== 1) return undefined;
  if (!language.flow.missing.itemReads.includes(call.method)) return undefined;
  return { collection: bare(call.receiver), key: bare(call.args[0]!) };
}
