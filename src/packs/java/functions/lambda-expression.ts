import {
  condition,
  copy,
  holes,
  no,
  ofKind,
  reindent,
  rule,
  text,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { onlyExpression } from "./only-expression.js";
import { hasSeveral, isSettled, wantedAt } from "./wanted.js";

const { fn } = holes({ fn: { kind: "expression", node: "lambda_expression" } });

const blockOf = (node: SyntaxNode): SyntaxNode | undefined => {
  const body = node.child("body");
  return body?.is("block") ? body : undefined;
};

const fits = (node: SyntaxNode): boolean => {
  const block = blockOf(node);
  return block !== undefined && onlyExpression(block, true) !== undefined;
};

/** Expressions that may stand as a statement, so that a lambda with one may or may not give its value. */
const EITHER = [
  "method_invocation",
  "object_creation_expression",
  "assignment_expression",
  "update_expression",
];

/** A block says whether something is given; an expression leaves that open where several methods could be meant. */
function isMeant(match: Match): Answer {
  const node = match.the(fn);
  const block = blockOf(node)!;
  const value = onlyExpression(block, true)!;
  const gives = block.firstPart!.is("return_statement");
  if (gives && !value.is(EITHER))
    return yes("form.fits", "the expression is a value, and no statement", value);
  const wanted = wantedAt(node);
  if (isSettled(wanted)) return yes("form.fits", "only one kind of function is wanted here", node);
  if (wanted.as === "argument" && wanted.isOverloaded)
    return no(
      "form.fits",
      `another \`${wanted.name}\` could take a function that gives something, or none`,
      wanted.call,
    );
  if (!gives && hasSeveral(wanted))
    return no("form.fits", `\`${wanted.name}\` takes functions that give something too`, wanted.call);
  return unknown("form.fits", "functions that give something could be wanted here, and others too", node);
}

function short(match: Match): Segment[] {
  const node = match.the(fn);
  const { tree } = node;
  const block = blockOf(node)!;
  const value = onlyExpression(block, true)!;
  const [from, to] = [tree.indentAt(block.firstPart!.start), tree.indentAt(node.start)];
  return [
    copy(node.start, block.start),
    ...(/\s$/.test(tree.text.slice(node.start, block.start)) ? [] : [text(" ")]),
    copy(value.start, value.end, reindent(tree, value.start, value.end, from, to)),
  ];
}

const { rewrites, ignores, holds } = trialsIn("java");
const inMethod = (code: string): string =>
  `import java.util.*;\nimport java.util.function.*;\n\nclass A {\n    void f(List<String> jars) {\n        ${code}\n    }\n    void go() {}\n}\n`;

export const lambdaExpression = rule({
  id: "java/lambda-expression",
  kind: "idiom",
  title: "Use an expression as the body of a lambda",
  why: "Braces, `return` and a semicolon around one expression say nothing.",
  target: "8",
  was: ofKind(fn, { when: fits }),
  mentions: ["->"],
  given: [condition("the same method is meant by an expression", isMeant)],
  becomes: short,
  trials: [
    rewrites(
      inMethod("Comparator<String> c = (a, b) -> { return a.length() - b.length(); };"),
      inMethod("Comparator<String> c = (a, b) -> a.length() - b.length();"),
    ),
    rewrites(
      inMethod("Runnable r = () -> {\n            go();\n        };"),
      inMethod("Runnable r = () -> go();"),
    ),
    rewrites(
      inMethod(
        "Collections.sort(jars, (a, b) -> {\n            return a\n                .compareTo(b);\n        });",
      ),
      inMethod("Collections.sort(jars, (a, b) -> a\n            .compareTo(b));"),
    ),
    rewrites(
      inMethod("jars.removeIf(jar -> { return jar.isEmpty() || jar.isBlank(); });"),
      inMethod("jars.removeIf(jar -> jar.isEmpty() || jar.isBlank());"),
    ),
    rewrites(inMethod("jars.forEach(jar -> { go(); });"), inMethod("jars.forEach(jar -> go());"), "likely"),
    rewrites(
      inMethod("pool.submit(() -> { return go(); });"),
      inMethod("pool.submit(() -> go());"),
      "likely",
    ),
    holds(inMethod("pool.submit(() -> { go(); });"), "that give something too"),
    holds(
      inMethod("on(() -> { go(); });\n    }\n    void on(Runnable r) {}\n    void on(Supplier<Integer> r) {"),
      "another `on`",
    ),
    ignores(inMethod("Runnable r = () -> { };")),
    ignores(inMethod("Runnable r = () -> { go(); go(); };")),
    ignores(inMethod("Runnable r = () -> { throw new IllegalStateException(); };")),
    ignores(inMethod("Runnable r = () -> { if (true) go(); };")),
    ignores(inMethod("Runnable r = () -> { go(); /* done */ };")),
    ignores(inMethod("Runnable r = () -> { return; };")),
  ],
});
