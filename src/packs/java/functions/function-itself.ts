import {
  classesNamed,
  condition,
  holes,
  isCreation,
  no,
  ofKind,
  referencesAt,
  rule,
  shortened,
  text,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { declaredType } from "../types.js";
import { namesOf } from "./parameter-types.js";
import { isSettled, wantedAt } from "./wanted.js";

const { fn } = holes({ fn: { kind: "expression", node: ["method_reference", "lambda_expression"] } });

/** The interfaces of the platform with one method, by what it is called. */
const METHODS: Readonly<Record<string, string>> = {
  Runnable: "run",
  Callable: "call",
  Comparator: "compare",
  Supplier: "get",
  Consumer: "accept",
  BiConsumer: "accept",
  Function: "apply",
  BiFunction: "apply",
  UnaryOperator: "apply",
  BinaryOperator: "apply",
  Predicate: "test",
  BiPredicate: "test",
};

/** The variable whose only method is handed on: `action` in `action::run` and `() -> action.run()`. */
function behind(node: SyntaxNode): SyntaxNode | undefined {
  const found = node.is("method_reference") ? referred(node) : called(node);
  const type = found?.object.is("identifier") ? typeOf(found.object) : undefined;
  const isOwn = type && classesNamed(node.tree, type.name).classes.length > 0;
  return type && !isOwn && METHODS[type.name] === found!.method ? found!.object : undefined;
}

interface Found {
  readonly object: SyntaxNode;
  readonly method: string;
}

function referred(node: SyntaxNode): Found | undefined {
  const [object, method] = node.parts;
  return object && method ? { object, method: method.text } : undefined;
}

function called(node: SyntaxNode): Found | undefined {
  const names = namesOf(node);
  const body = node.child("body");
  const given = body?.is("method_invocation")
    ? body.child("arguments")!.parts.map((one) => one.text)
    : undefined;
  const object = body?.child("object");
  if (!names || !object || given?.length !== names.length || given.some((one, n) => one !== names[n]))
    return undefined;
  return names.includes(object.text) ? undefined : { object, method: body!.child("name")!.text };
}

/** Only an object of the very type that is wanted can stand there itself. */
function isWanted(match: Match): Answer {
  const node = match.the(fn);
  const object = behind(node)!;
  const own = declaredType(object)?.text.replace(/\s/g, "");
  const wanted = wantedAt(node);
  const type = wanted.as === "anything" ? undefined : wanted.type?.replace(/\s/g, "");
  if (type !== undefined && own !== undefined) {
    const plain = type.replace(/\?(super|extends)/g, "");
    return plain === own
      ? yes("type.same", `a \`${type}\` is wanted, which \`${object.text}\` is`, object)
      : no("type.same", `a \`${type}\` is wanted, and \`${object.text}\` is a \`${own}\``, object);
  }
  if (isSettled(wanted) && own !== undefined && /^(Runnable|Comparator)/.test(own))
    return yes("type.same", `a \`${own}\` is taken here`, object);
  return unknown("type.same", `another interface than that of \`${object.text}\` could be wanted`, object);
}

/** A variable that is read again each time may be another one then. */
function isTheSame(match: Match): Answer {
  const object = behind(match.the(fn))!;
  const shown = shortened(object.text);
  const to = referencesAt(object).find((one) => one.to)?.to;
  const field = to?.as === "field" ? to.at[0]!.closest(["field_declaration"]) : undefined;
  const isFinal = field?.parts.some((part) => part.is("modifiers") && part.has("final")) === true;
  if (!to || (field && !isFinal && match.the(fn).is("lambda_expression")))
    return no("flow.written", `\`${shown}\` is read each time, and once from now on`, object);
  const value = to.at[0]!.parent?.child("value");
  return value && (isCreation(value) || value.is("lambda_expression"))
    ? yes("value.null", `\`${shown}\` is never null`, value)
    : unknown("value.null", `\`${shown}\` could be null, which fails later now`, object);
}

const { rewrites, ignores, holds } = trialsIn("java");
const inClass = (code: string): string =>
  `import java.util.*;\nimport java.util.function.*;\n\nclass A {\n    void f(List<String> jars, Runnable done, Consumer<String> each) {\n        ${code}\n    }\n    void on(Runnable r) {}\n    void with(Consumer<String> c) {}\n}\n`;

export const functionItself = rule({
  id: "java/function-itself",
  kind: "idiom",
  title: "Pass a function itself instead of one that only calls it",
  why: "What only calls another function of the same kind is that function.",
  target: "8",
  was: ofKind(fn, { when: (node) => behind(node) !== undefined }),
  mentions: ["->", "::"],
  given: [
    condition("just this kind of function is wanted", isWanted),
    condition("it is the same function later, and is there", isTheSame),
  ],
  becomes: (match) => [text(behind(match.the(fn))!.text)],
  trials: [
    rewrites(inClass("on(() -> done.run());"), inClass("on(done);"), "likely"),
    rewrites(inClass("on(done::run);"), inClass("on(done);"), "likely"),
    rewrites(
      inClass("Runnable all = () -> System.gc();\n        on(all::run);"),
      inClass("Runnable all = () -> System.gc();\n        on(all);"),
    ),
    rewrites(inClass("with(s -> each.accept(s));"), inClass("with(each);"), "likely"),
    rewrites(inClass("jars.forEach(each::accept);"), inClass("jars.forEach(each);"), "likely"),
    rewrites(
      inClass(
        "Comparator<String> c = (a, b) -> 0;\n        Collections.sort(jars, (x, y) -> c.compare(x, y));",
      ),
      inClass("Comparator<String> c = (a, b) -> 0;\n        Collections.sort(jars, c);"),
    ),
    holds(inClass("Callable<String> c = done::run;"), "a `Callable<String>` is wanted"),
    holds(inClass("on(() -> go.run());\n    }\n    Runnable go;\n    void x() {"), "read each time"),
    ignores(inClass("on(() -> done.other());")),
    ignores(inClass("with(s -> each.accept(s + 1));")),
    ignores(inClass("on(() -> unknown.run());")),
    ignores(inClass("on(String::new);")),
  ],
});
