import {
  classesNamed,
  condition,
  holes,
  isCreation,
  nameInFile,
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
import type { Answer, Match, SyntaxNode, SyntaxTree } from "../../../core.js";
import { headOf, type Head } from "./heads.js";
import { namesOf, parameterTypes } from "./parameter-types.js";
import { wantedAt } from "./wanted.js";

const { fn } = holes({ fn: { kind: "expression", node: "lambda_expression" } });

/** A lambda that does nothing but call something with what it is given. */
interface PassedOn {
  /** The code in front of `::`. */
  readonly of: string;
  readonly method: string;
  readonly call: SyntaxNode;
  /** The class that has the method, where it is known. */
  readonly owner: string | undefined;
  /** The object that it is called on, which is worked out once from now on. */
  readonly object?: SyntaxNode;
  /** Is the method called on the first of what the lambda is given? */
  readonly onFirst?: boolean;
}

const isUpper = (node: SyntaxNode): boolean =>
  /^(?:[a-z]\w*\.)*[A-Z][\w$]*(?:\.[A-Z][\w$]*)*$/.test(node.text);

/** Does a name stand for a class, and for no variable? */
const isClassName = (node: SyntaxNode): boolean =>
  node.is(["identifier", "field_access"]) &&
  isUpper(node) &&
  !referencesAt(node).some(({ to }) => to && to.as !== "class" && to.as !== "import");

function passedOn(node: SyntaxNode): PassedOn | undefined {
  const names = namesOf(node);
  const call = node.child("body");
  if (!names || !call) return undefined;
  const given = call.child("arguments")?.parts.map((part) => part.text) ?? [];
  const isSame = (wanted: readonly string[]): boolean =>
    given.length === wanted.length && given.every((one, n) => one === wanted[n]);
  if (call.is("object_creation_expression")) {
    const type = call.child("type");
    const isPlain = call.parts.every((part) => part.same(type) || part.is("argument_list"));
    if (!type || !isPlain || !isSame(names)) return undefined;
    const bare = type.text.replace(/<.*$/s, "");
    const of = /<\s*>/.test(type.text) ? bare : type.text;
    return { of, method: "new", call, owner: bare };
  }
  if (!call.is("method_invocation") || call.parts.some((part) => part.is("type_arguments"))) return undefined;
  const method = call.child("name")!.text;
  const object = call.child("object");
  if (!object) return isSame(names) ? ofOwnClass(call, method) : undefined;
  const [first, ...rest] = names;
  if (object.is("identifier") && object.text === first) {
    const type =
      isSame(rest) && !rest.includes(first) ? parameterTypes(node)?.[0]?.replace(/<.*$/s, "") : undefined;
    return type === undefined ? undefined : { of: type, method, call, owner: type, onFirst: true };
  }
  if (!isSame(names) || names.some((name) => object.mentions(name).length > 0)) return undefined;
  if (object.is(["this", "super"]))
    return { of: object.text, method, call, owner: object.is("this") ? classAround(call) : undefined };
  if (isClassName(object)) return { of: object.text, method, call, owner: object.text };
  if (!object.is(["identifier", "field_access"])) return undefined;
  return { of: object.text, method, call, owner: typeOf(object)?.name, object };
}

/** The name of the class whose code a node is; undefined in an anonymous class. */
function classAround(node: SyntaxNode): string | undefined {
  const body = node.closest(["class_body", "enum_body", "interface_body"]);
  return body?.parent?.is("object_creation_expression") ? undefined : body?.parent?.child("name")?.text;
}

/** A method of the class itself, or of one around it. */
function ofOwnClass(call: SyntaxNode, method: string): PassedOn | undefined {
  const owner = classAround(call);
  const to = referencesAt(call.child("name")!).find((one) => one.to)?.to;
  const declared = to?.as === "method" ? to.at[0]!.closest(["method_declaration"]) : undefined;
  if (owner === undefined || !declared || classAround(declared.child("name")!) !== owner) return undefined;
  const isStatic = declared.parts.some((part) => part.is("modifiers") && part.has("static"));
  return { of: isStatic ? owner : "this", method, call, owner };
}

/** The methods that a class of the project has by a name; undefined where others could be inherited. */
function methodsOf(owner: string, method: string, tree: SyntaxTree, depth = 0): Head[] | undefined {
  const { classes } = classesNamed(tree, owner.replace(/^.*\./, ""));
  const [only, ...more] = classes;
  if (!only || more.length > 0 || depth > 6) return undefined;
  const isNew = method === "new";
  const own = only.members
    .filter((one) => (isNew ? one.as === "constructor" : one.as === "method" && one.name === method))
    .map((one) => headOf(one.text));
  if (isNew) return own;
  const above = only.parents.map((parent) => methodsOf(parent, method, tree, depth + 1));
  const known = above.flatMap((heads) => heads ?? []);
  return above.includes(undefined)
    ? undefined
    : [...own, ...known.filter((head) => !own.some((one) => String(one.types) === String(head.types)))];
}

/** Classes whose objects turn into text and numbers in two ways, with the object in front and without. */
const BOXES = ["Integer", "Long", "Short", "Byte", "Character", "Boolean", "Float", "Double"];

/** Of a method that there is several times the compiler must choose one by what is wanted. */
function isOneMethod(match: Match): Answer {
  const { owner, method, call, onFirst } = passedOn(match.the(fn))!;
  if (onFirst && BOXES.includes(owner!) && /^(toString|hashCode|compare)$/.test(method))
    return no("form.fits", `\`${owner}\` has two methods \`${method}\` that could be meant`, call);
  const known = owner === undefined ? undefined : methodsOf(owner, method, match.tree);
  if (!known || (known.length === 0 && method !== "new"))
    return unknown(
      "form.fits",
      `\`${method}\` could be there several times, so that the reference does not say which`,
      call,
    );
  if (known.some(({ throwsParameter }) => throwsParameter))
    return no(
      "form.fits",
      `\`${method}\` throws what a type parameter of its own stands for, which is not worked out for a reference`,
      call,
    );
  if (known.length <= 1 && known[0]?.types.at(-1)?.endsWith("...") !== true)
    return yes("form.fits", `there is one \`${method}\` only`, call);
  return unknown("form.fits", `\`${owner}\` has several methods that \`${method}\` could be`, call);
}

/** The object in front of `::` is worked out once, and must be there already. */
function isSameObject(match: Match): Answer {
  const { object } = passedOn(match.the(fn))!;
  if (!object) return yes("effect.evaluated", "there is no object to be worked out");
  const shown = shortened(object.text);
  if (!object.is("identifier"))
    return shown === "System.out" || shown === "System.err"
      ? unknown("flow.written", `\`${shown}\` could be set to another one meanwhile`, object)
      : no("flow.written", `\`${shown}\` is read each time, and once from now on`, object);
  const to = referencesAt(object).find((one) => one.to)?.to;
  const isLocal = to !== undefined && (to.as === "local" || to.as === "parameter");
  const field = to?.as === "field" ? to.at[0]!.closest(["field_declaration"]) : undefined;
  const isFinal = field?.parts.some((part) => part.is("modifiers") && part.has("final")) === true;
  if (!to || (!isLocal && !isFinal))
    return no("flow.written", `\`${shown}\` is read each time, and once from now on`, object);
  const value = to.at[0]!.parent?.child("value");
  const writes = nameInFile(to.name, match.tree).references.filter(
    (one) => one.to === to && one.does === "write",
  );
  return value && isCreation(value) && writes.length <= 1
    ? yes("value.null", `\`${shown}\` is never null`, value)
    : unknown("value.null", `\`${shown}\` could be null, for which the new code fails sooner`, object);
}

const { rewrites, ignores, holds } = trialsIn("java");
const HIVE =
  'class Hive {\n    String name() { return ""; }\n    static boolean full(Hive h) { return true; }\n    Hive(String s) {}\n}\n';
const inMethod = (code: string): string =>
  `import java.util.*;\nimport java.util.function.*;\n\nclass A {\n    void f(List<Hive> hives, List<String> names) {\n        ${code}\n    }\n    void feed(Hive hive) {}\n    static void count(Hive hive) {}\n}\n${HIVE}`;

export const methodReference = rule({
  id: "java/method-reference",
  kind: "idiom",
  title: "Use a method reference for a lambda that only calls a method",
  why: "The lambda gives names to what it only passes on, and the reader must check that it does.",
  target: "8",
  was: ofKind(fn, { when: (node) => passedOn(node) !== undefined }),
  mentions: ["->"],
  given: [
    condition("it is clear which method is meant", isOneMethod),
    condition("what takes it takes it in one way only", (match) => {
      const wanted = wantedAt(match.the(fn));
      return wanted.as === "argument" && wanted.isOverloaded
        ? no("type.same", `another \`${wanted.name}\` could take the reference too`, wanted.call)
        : yes("type.same", "nothing else is known that could take it");
    }),
    condition("the object in front is there, and stays the same", isSameObject),
  ],
  becomes: (match) => {
    const { of, method } = passedOn(match.the(fn))!;
    return [text(`${of}::${method}`)];
  },
  trials: [
    holds(
      "class A {\n    static <E, X extends Exception> List<E> listOf(Frames<E, X> frames) throws X { return null; }\n    Object f = run(frames -> A.listOf(frames));\n}\n",
      "throws what a type parameter",
    ),
    rewrites(
      "class A {\n    static <E> List<E> listOf(Frames<E> frames) throws IOException { return null; }\n    Object f = run(frames -> A.listOf(frames));\n}\n",
      "class A {\n    static <E> List<E> listOf(Frames<E> frames) throws IOException { return null; }\n    Object f = run(A::listOf);\n}\n",
    ),
    rewrites(
      inMethod("Function<Hive, String> g = h -> h.name();"),
      inMethod("Function<Hive, String> g = Hive::name;"),
    ),
    rewrites(inMethod("hives.stream().map(h -> h.name());"), inMethod("hives.stream().map(Hive::name);")),
    rewrites(
      inMethod("hives.stream().filter(h -> Hive.full(h)).map((Hive h) -> h.name());"),
      inMethod("hives.stream().filter(Hive::full).map(Hive::name);"),
    ),
    rewrites(inMethod("names.stream().map(s -> new Hive(s));"), inMethod("names.stream().map(Hive::new);")),
    rewrites(inMethod("hives.forEach(h -> this.feed(h));"), inMethod("hives.forEach(this::feed);")),
    rewrites(inMethod("hives.forEach(h -> feed(h));"), inMethod("hives.forEach(this::feed);")),
    rewrites(inMethod("hives.forEach(h -> count(h));"), inMethod("hives.forEach(A::count);")),
    rewrites(
      inMethod("names.forEach(s -> System.out.println(s));"),
      inMethod("names.forEach(System.out::println);"),
      "likely",
    ),
    rewrites(
      inMethod("Supplier<List<String>> s = () -> new ArrayList<>();"),
      inMethod("Supplier<List<String>> s = ArrayList::new;"),
      "likely",
    ),
    rewrites(
      inMethod("names.stream().map(s -> s.trim());"),
      inMethod("names.stream().map(String::trim);"),
      "likely",
    ),
    rewrites(
      inMethod("A a = new A();\n        hives.forEach(h -> a.feed(h));"),
      inMethod("A a = new A();\n        hives.forEach(a::feed);"),
    ),
    rewrites(
      inMethod("A a = find();\n        hives.forEach(h -> a.feed(h));"),
      inMethod("A a = find();\n        hives.forEach(a::feed);"),
      "likely",
    ),
    holds(inMethod("Function<Integer, String> g = n -> n.toString();"), "two methods"),
    holds(inMethod("hives.forEach(h -> a.b.feed(h));"), "read each time"),
    holds(
      inMethod(
        "on(() -> go());\n    }\n    int go() { return 1; }\n    void on(Runnable r) {}\n    void on(Supplier<Integer> r) {",
      ),
      "another `on`",
    ),
    // The key would become the size of the list.
    ignores(inMethod("map.computeIfAbsent(key, k -> new ArrayList<>());")),
    ignores(inMethod("hives.forEach(h -> find().feed(h));")),
    ignores(inMethod("hives.forEach(h -> feed(h, 1));")),
    ignores(inMethod("other.each(h -> h.name());")),
    ignores(inMethod("other.each((a, b) -> Hive.of(b, a));")),
    ignores(inMethod("hives.forEach(h -> h.feed(h));")),
    ignores(inMethod("hives.forEach(h -> elsewhere(h));")),
  ],
});
