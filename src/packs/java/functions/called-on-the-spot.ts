import {
  condition,
  copy,
  holes,
  isSideEffectFree,
  no,
  ofKind,
  reindent,
  rule,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { withoutParentheses } from "../../family/parentheses.js";
import { namesOf } from "./parameter-types.js";
import { onlyExpression } from "./only-expression.js";
import { isFunctional, singleMethodAt } from "./single-method.js";
import { saysNoMore, speaksOfItself } from "./lambda.js";

const { call } = holes({ call: { kind: "expression", node: "method_invocation" } });

/** A function that is made and called at once. */
interface Called {
  readonly function: SyntaxNode;
  readonly names: readonly string[];
  readonly given: readonly SyntaxNode[];
  /** What the function comes to. */
  readonly value: SyntaxNode;
  /** The type that it is said to give, where it is said. */
  readonly gives: string | undefined;
}

function calledAt(node: SyntaxNode): Called | undefined {
  const receiver = node.child("object");
  const object = receiver && withoutParentheses(receiver);
  const given = node.child("arguments")?.parts ?? [];
  const isPlain = given.every(
    (one) => one.is(["identifier", "this"]) || /literal$|^(true|false)$/.test(one.kind),
  );
  if (!object || !isPlain) return undefined;
  if (object.is("object_creation_expression")) {
    const read = singleMethodAt(object);
    if (!read || read.name !== node.child("name")?.text || isFunctional(read).is !== "yes") return undefined;
    const value = onlyExpression(read.body, isStatement(node));
    const names = read.parameters.map((one) => one.child("name")?.text ?? "");
    return value && names.length === given.length
      ? { function: object, names, given, value, gives: read.method.child("type")?.text }
      : undefined;
  }
  const inner = object.is("cast_expression") ? object.child("value") : undefined;
  const body = inner?.is("lambda_expression") ? inner.child("body") : undefined;
  const value = body?.is("block") ? onlyExpression(body, isStatement(node)) : body;
  const names = inner && value && namesOf(inner);
  return inner && value && names?.length === given.length
    ? { function: inner, names, given, value, gives: undefined }
    : undefined;
}

const isStatement = (node: SyntaxNode): boolean => node.parent?.is("expression_statement") === true;

/** As a statement only what may be one can stand. */
function fits(node: SyntaxNode): boolean {
  const found = calledAt(node);
  return (
    found !== undefined &&
    (!isStatement(node) ||
      found.value.is([
        "method_invocation",
        "object_creation_expression",
        "assignment_expression",
        "update_expression",
      ]))
  );
}

/** A function hands its value on as what it is said to give: a number in a box, an object of a class further up. */
function givesTheSame(match: Match): Answer {
  const node = match.the(call);
  const { value, gives } = calledAt(node)!;
  if (isStatement(node)) return yes("type.same", "the value is not used", node);
  const type = typeOf(value);
  return type && gives === type.name
    ? yes("type.same", type.why, value)
    : unknown("type.same", "the value could be of another type than the function was said to give", value);
}

function saysNothingElse(match: Match): Answer {
  const { function: fn } = calledAt(match.the(call))!;
  const read = fn.is("object_creation_expression") ? singleMethodAt(fn) : undefined;
  return read ? saysNoMore(read, "the code itself") : yes("form.fits", "a lambda has no head of its own");
}

function itself(match: Match): Answer {
  const { function: fn, value, names } = calledAt(match.the(call))!;
  const read = fn.is("object_creation_expression") ? singleMethodAt(fn) : undefined;
  const said = read ? speaksOfItself(read) : yes("name.scope", "a lambda has nothing of its own");
  if (said.is !== "yes") return said;
  const written = [...value.descendants()].find(
    (one) => one.is(["assignment_expression", "update_expression"]) && names.includes(one.firstPart!.text),
  );
  if (written)
    return no("flow.written", `\`${written.text}\` gives what was handed in another value`, written);
  return names.length === 0 || isSideEffectFree(value).is === "yes"
    ? said
    : unknown("flow.order", "what is handed in could be changed before it is read", value);
}

function value(match: Match): Segment[] {
  const node = match.the(call);
  const { value: inner, names, given } = calledAt(node)!;
  const { tree } = node;
  const edits = [...inner.descendants()].flatMap((one) => {
    const place =
      one.is("identifier") && one.field !== "field" && one.field !== "name" ? names.indexOf(one.text) : -1;
    return place < 0 ? [] : [{ start: one.start, end: one.end, text: given[place]!.text }];
  });
  const lines = reindent(tree, inner.start, inner.end, tree.indentAt(inner.start), tree.indentAt(node.start));
  return [
    copy(
      inner.start,
      inner.end,
      [...edits, ...lines].sort((a, b) => a.start - b.start),
    ),
  ];
}

const { rewrites, ignores, holds } = trialsIn("java");
const inMethod = (code: string): string =>
  `import java.util.function.*;\n\nclass A {\n    void f(String jar) {\n        ${code}\n    }\n    void go() {}\n}\n`;

export const calledOnTheSpot = rule({
  id: "java/called-on-the-spot",
  kind: "idiom",
  title: "Inline a function that is called where it is made",
  why: "A function that is made and called in one place is a detour: what it gives can stand there.",
  was: ofKind(call, { when: fits }),
  mentions: ["new", "->"],
  given: [
    condition("the function does not speak of itself", itself),
    condition("the value is of the same type", givesTheSame),
    condition("the head of the function says nothing else", saysNothingElse),
  ],
  becomes: value,
  trials: [
    rewrites(
      inMethod(
        'String s = new Supplier<String>() {\n            public String get() {\n                return "a";\n            }\n        }.get();',
      ),
      inMethod('String s = "a";'),
    ),
    rewrites(
      inMethod("String s = ((Supplier<String>) () -> jar.trim()).get();"),
      inMethod("String s = jar.trim();"),
      "likely",
    ),
    rewrites(
      inMethod(
        "String s = new Function<String, String>() { public String apply(String x) { return x + x; } }.apply(jar);",
      ),
      inMethod("String s = jar + jar;"),
      "likely",
    ),
    rewrites(inMethod("new Runnable() { public void run() { go(); } }.run();"), inMethod("go();")),
    rewrites(
      inMethod(
        "int n = 2 * new Supplier<Integer>() { public Integer get() { return 1 + jar.length(); } }.get();",
      ),
      inMethod("int n = 2 * (1 + jar.length());"),
      "likely",
    ),
    holds(inMethod("new Runnable() { public void run() { use(this); } }.run();"), "anonymous object"),
    holds(
      inMethod("new Runnable() { @Measured public void run() { use(a); } }.run();"),
      "no place in the code itself",
    ),
    ignores(inMethod("new Runnable() { public void run() { go(); go(); } }.run();")),
    // Making it may do something.
    ignores(inMethod("String s = new Box() { public String get() { return jar; } }.get();")),
    ignores(inMethod("new Thread() { public void run() { go(); } }.run();")),
    ignores(
      inMethod(
        "new Function<String, String>() { public String apply(String x) { return x; } }.apply(find());",
      ),
    ),
    ignores(inMethod("new Supplier<String>() { public String get() { return jar; } }.get();")),
  ],
});
