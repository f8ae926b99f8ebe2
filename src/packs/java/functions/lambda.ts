import {
  condition,
  copy,
  holes,
  indentUnit,
  nameInFile,
  no,
  ofKind,
  referencesAt,
  reindent,
  rule,
  scopesAround,
  shortened,
  text,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Declaration, Match, Segment, SyntaxNode } from "../../../core.js";
import { mostInLine } from "../../family/limits.js";
import { typeArguments } from "../types.js";
import { isFunctional, ownNames, singleMethodAt, type SingleMethod } from "./single-method.js";
import { onlyExpression } from "./only-expression.js";
import { hasSeveral, holderOf, onlyRuns, wantedAt, type Wanted } from "./wanted.js";

const { made } = holes({ made: { kind: "expression", node: "object_creation_expression" } });

const readOf = (match: Match): SingleMethod => singleMethodAt(match.the(made))!;

/** Of a class that is known to be no interface of this kind nothing is said. */
function fits(node: SyntaxNode): boolean {
  const read = singleMethodAt(node);
  return read !== undefined && !node.parent?.is("method_invocation") && isFunctional(read).is !== "no";
}

/** The nodes of a body that belong to the object itself, and not to a class in it. */
function* ownNodes(code: SyntaxNode): Generator<SyntaxNode> {
  yield code;
  for (const part of code.children) if (!part.is(["class_body", "class_declaration"])) yield* ownNodes(part);
}

/** Does the body speak of the object that it belongs to, which a lambda is not? */
export function speaksOfItself(read: SingleMethod): Answer {
  for (const node of ownNodes(read.body)) {
    if (node.is("super") || (node.is("this") && node.parent?.is("field_access") !== true) || isThisRead(node))
      return no(
        "name.scope",
        `\`${node.text}\` is the anonymous object here, and would be the object around it in a lambda`,
        node,
      );
  }
  const names = ownNames(read);
  for (const node of read.body.descendants()) {
    const name = node.is("method_invocation") && !node.child("object") ? node.child("name") : undefined;
    if (name && names.has(name.text))
      return no(
        "name.scope",
        `\`${name.text}\` is a method of the anonymous class, and a lambda has no methods of its own`,
        name,
      );
    if (node.is("type_identifier") && names.has(node.text))
      return no("name.scope", `\`${node.text}\` is a type that \`${read.type.text}\` brings with it`, node);
    const isField =
      node.is("identifier") &&
      names.has(node.text) &&
      referencesAt(node).every(({ to, member }) => !to && !member);
    if (isField && node.parent?.is("method_invocation") !== true)
      return no(
        "name.scope",
        `\`${node.text}\` is a constant that \`${read.type.text}\` brings with it`,
        node,
      );
  }
  return yes("name.scope", "the body does not speak of the object that it belongs to");
}

/** `this.x`, where `Outer.this` names the object around it. */
const isThisRead = (node: SyntaxNode): boolean =>
  node.is("this") && node.parent?.is("field_access") === true && node.field === "object";

/** A lambda may not declare what the method around it has declared. */
function declaresNothingAgain({ whole, method }: SingleMethod): Answer {
  const scopes = [...scopesAround(whole)];
  const end = scopes.findIndex(({ facts }) => facts.is === "class" || facts.is === "file");
  const around = end < 0 ? scopes : scopes.slice(0, end);
  for (const node of ownNodes(method)) {
    if (!node.is("identifier")) continue;
    const own = referencesAt(node).find(
      ({ does, to }) => to && does !== "read" && to.at.some((at) => at.same(node)),
    )?.to;
    if (!own || own.as === "field" || own.as === "method") continue;
    const known = nameInFile(node.text, node.tree).declarations.find(
      (one) =>
        one !== own &&
        around.some(({ node: scope }) => scope.same(one.scope)) &&
        one.at.some((at) => at.start < whole.start),
    );
    if (known)
      return no("name.free", `\`${node.text}\` is a variable of the method around it too`, known.at[0]);
  }
  return yes("name.free", "its variables have names of their own");
}

const CONSTRUCTORS = ["constructor_declaration", "compact_constructor_declaration"];

/** The field whose first value holds a node, or the constructor around it: where fields may not have their values yet. */
function beforeFieldsAreSet(node: SyntaxNode): SyntaxNode | undefined {
  const around = node.closest([
    "method_declaration",
    ...CONSTRUCTORS,
    "static_initializer",
    "field_declaration",
    "class_body",
  ]);
  return around?.is("method_declaration") ? undefined : around;
}

/** The field of a class that a name means, unless a class in between has inherited one of that name. */
function fieldOf(node: SyntaxNode, holder: SyntaxNode | undefined): Declaration | undefined {
  if (
    node.parent?.is(["field_access", "method_invocation"]) &&
    node.field !== "object" &&
    node.field !== undefined
  )
    return undefined;
  return nameInFile(node.text, node.tree).declarations.find(
    ({ as, at }) => as === "field" && at[0]!.closest(["field_declaration"])?.parent?.same(holder) === true,
  );
}

/** A lambda is part of the code around it, which may not read a field by its name alone before it has its value. */
function readsSetFields({ whole, body }: SingleMethod): Answer {
  const around = beforeFieldsAreSet(whole);
  const fine = yes("flow.assigned", "it reads no field that may not have its value yet");
  if (!around) return fine;
  const holder = around.is("class_body") ? around : around.closest(["class_body", "enum_body"]);
  for (const node of body.descendants()) {
    if (!node.is("identifier") || node.field === "field") continue;
    const to = referencesAt(node).find((one) => one.to)?.to ?? fieldOf(node, holder);
    const at = to?.as === "field" ? to.at[0] : undefined;
    const field = at?.closest(["field_declaration"]);
    if (!at || !field?.parent?.same(holder)) continue;
    const declarator = whole.closest(["variable_declarator"]);
    const isLater =
      !around.is(CONSTRUCTORS) && at.start >= (around.is("field_declaration") ? declarator! : whole).start;
    const isOpen =
      field.parts.some((part) => part.is("modifiers") && part.has("final")) && !at.parent?.child("value");
    if (isLater || isOpen)
      return no(
        "flow.assigned",
        `\`${node.text}\` may not have its value yet, and a lambda cannot name it there`,
        node,
      );
  }
  return fine;
}

/** What else the head of the method says, which other code in its place cannot say. */
export function saysNoMore({ method, parameters }: SingleMethod, place = "a lambda"): Answer {
  const modifiers = method.parts.find((part) => part.is("modifiers"));
  const odd =
    modifiers?.children.find((one) => !/^(public|@Override)$/.test(one.text)) ??
    parameters.find((one) =>
      /@/.test(one.child("name") ? one.tree.text.slice(one.start, one.child("name")!.start) : ""),
    ) ??
    parameters.find((one) => !one.is("formal_parameter") || one.child("dimensions"));
  return odd
    ? no("form.fits", `\`${shortened(odd.text)}\` has no place in ${place}`, odd)
    : yes("form.fits", `the head says nothing that ${place} cannot say`);
}

const bare = (type: string): string => type.replace(/<.*$/s, "").replace(/^.*\./, "").trim();
const argumentsOf = (type: string): string =>
  /<(.*)>/s.exec(type)?.[1]?.replace(/\s|\?\s*(?:super|extends)\b/g, "") ?? "";
/** Does the code around it say which interface a lambda is, and which types its parameters have? */
function isWanted({ whole, type }: SingleMethod): Answer {
  const wanted = wantedAt(whole);
  const shown = shortened(type.text);
  if (wanted.as === "anything")
    return no("type.same", `nothing here says that a \`${shown}\` is wanted`, wanted.at);
  if (wanted.as === "declared") {
    if (bare(wanted.type) !== bare(type.text))
      return no(
        "type.same",
        `a \`${shortened(wanted.type)}\` is wanted here, which a lambda cannot be`,
        wanted.at,
      );
    const [given, asked] = [argumentsOf(type.text), argumentsOf(wanted.type)];
    const isSame = given === asked || /<\s*>/.test(type.text);
    return isSame
      ? yes("type.same", `a \`${shortened(wanted.type)}\` is wanted here`, wanted.at)
      : no("type.same", `\`${shown}\` and \`${shortened(wanted.type)}\` have other types in them`, wanted.at);
  }
  if (onlyRuns(wanted.call))
    return yes("type.same", `\`${wanted.name}\` takes one in this way only`, wanted.call);
  if (wanted.type !== undefined)
    return bare(wanted.type) === bare(type.text)
      ? yes("type.same", `\`${wanted.name}\` takes a \`${shortened(wanted.type)}\``, wanted.call)
      : no(
          "type.same",
          `\`${wanted.name}\` takes a \`${shortened(wanted.type)}\`, which a lambda cannot be`,
          wanted.call,
        );
  const says = `another \`${wanted.name}\` could take a lambda too`;
  return wanted.isOverloaded ? no("type.same", says, wanted.call) : unknown("type.same", says, wanted.call);
}

/** An anonymous object is another one each time, and a lambda need not be. */
function isNotCompared({ whole }: SingleMethod): Answer {
  const wanted = wantedAt(whole);
  const field = whole.closest([
    "field_declaration",
    ...CONSTRUCTORS,
    "method_declaration",
    "lambda_expression",
  ]);
  const says = (word: string): boolean =>
    field?.is("field_declaration") === true &&
    field.parts.some((part) => part.is("modifiers") && part.has(word));
  if (says("static")) return yes("value.result", "the field gets one object", field);
  if (wanted.as === "argument" && onlyRuns(wanted.call))
    return yes("value.result", `\`${wanted.name}\` only runs it`, wanted.call);
  // Each object has its own in a field, and a lambda may be one for all of them.
  const isOwn = !field?.is("field_declaration") || says("private");
  const local = whole.parent?.is("variable_declarator") && isOwn ? whole.parent.child("name") : undefined;
  const to = local && referencesAt(local).find((one) => one.to)?.to;
  const uses =
    to && nameInFile(to.name, whole.tree).references.filter((one) => one.to === to && one.does === "read");
  const isOnlyRun = (node: SyntaxNode): boolean => {
    const call = node.parent?.is("argument_list") ? node.parent.parent : node.parent;
    if (node.parent?.is("argument_list")) return onlyRuns(call!);
    return (
      call?.is("method_invocation") === true &&
      node.field === "object" &&
      !/^(equals|hashCode|getClass|toString|wait|notify|notifyAll)$/.test(call.child("name")?.text ?? "")
    );
  };
  return uses?.every(({ node }) => isOnlyRun(node)) === true
    ? yes("value.result", `\`${to!.name}\` is only run`, local)
    : unknown("value.result", "what gets it could compare it with another one, or ask for its class", whole);
}

/** Are the types of the parameters needed, so that the compiler can work out the rest, and means the same by it? */
function needsTypes(wanted: Wanted, { type }: SingleMethod): boolean {
  if (wanted.as !== "argument") return false;
  if (onlyRuns(wanted.call)) {
    const list = holderOf(wanted.call);
    const item = list && (typeArguments(list)[0] ?? typeOf(list)?.name.replace(/\[\]$/, ""));
    return item?.replace(/\s/g, "") !== argumentsOf(type.text);
  }
  return wanted.type === undefined || wanted.isGeneric || argumentsOf(wanted.type) !== argumentsOf(type.text);
}

function parametersOf(read: SingleMethod, wanted: Wanted): string {
  const names = read.parameters.map((one) => one.child("name")!.text);
  if (names.length > 0 && needsTypes(wanted, read))
    return `(${read.parameters.map((one, n) => `${one.child("type")!.text} ${names[n]}`).join(", ")})`;
  return names.length === 1 ? names[0]! : `(${names.join(", ")})`;
}

function lambda(match: Match): Segment[] {
  const read = readOf(match);
  const { whole, method, type } = read;
  const { tree } = whole;
  const wanted = wantedAt(whole);
  const isAmbiguous = hasSeveral(wanted);
  const value = onlyExpression(read.body, !isAmbiguous) ?? read.body;
  const cast = isAmbiguous && wanted.name === "doPrivileged" ? `(${type.text}) ` : "";
  const head = `${cast}${parametersOf(read, wanted)} ->`;
  const indent = tree.indentAt(whole.start);
  const body = copy(
    value.start,
    value.end,
    reindent(tree, value.start, value.end, tree.indentAt(method.start), indent),
  );
  const line = tree.text.slice(tree.text.lastIndexOf("\n", whole.start) + 1, whole.start) + head;
  const [first = ""] = value.text.split("\n");
  const isLong = !value.is("block") && line.length + first.length + 3 > mostInLine(match);
  const unit = indentUnit(tree, indent);
  return [text(head), text(isLong ? `\n${indent}${unit}${unit}` : " "), body];
}

const { rewrites, ignores, holds } = trialsIn("java");
const IMPORTS = "import java.util.*;\nimport java.util.concurrent.*;\n\n";
const inMethod = (code: string): string =>
  `${IMPORTS}class A {\n    int limit;\n    void f(List<String> jars) {\n        ${code}\n    }\n    void go() {}\n}\n`;
const inClass = (code: string): string => `${IMPORTS}class A {\n    ${code}\n}\n`;

export const lambdaForClass = rule({
  id: "java/lambda",
  kind: "idiom",
  title: "Use a lambda instead of an anonymous class",
  why: "Of five lines one says what happens, and the others repeat what the interface says already.",
  target: "8",
  was: ofKind(made, { when: fits }),
  mentions: ["new"],
  given: [
    condition("it is an interface with one method", (match) => isFunctional(readOf(match)), {
      unknownIs: "possible",
    }),
    condition("the body does not speak of the object itself", (match) => speaksOfItself(readOf(match))),
    condition("its variables have names of their own", (match) => declaresNothingAgain(readOf(match))),
    condition("it reads no field that may not have its value yet", (match) => readsSetFields(readOf(match))),
    condition("the head says nothing that a lambda cannot say", (match) => saysNoMore(readOf(match))),
    condition("the code around it says which interface is wanted", (match) => isWanted(readOf(match))),
    condition("nobody asks whether it is another object", (match) => isNotCompared(readOf(match))),
  ],
  becomes: lambda,
  trials: [
    rewrites(
      inMethod(
        "Collections.sort(jars, new Comparator<String>() {\n            @Override\n            public int compare(final String a, String b) {\n                return a.length() - b.length();\n            }\n        });",
      ),
      inMethod("Collections.sort(jars, (a, b) -> a.length() - b.length());"),
    ),
    rewrites(
      inMethod(
        "new Thread(new Runnable() {\n            public void run() {\n                // Both.\n                go();\n                go();\n            }\n        }).start();",
      ),
      inMethod(
        "new Thread(() -> {\n            // Both.\n            go();\n            go();\n        }).start();",
      ),
    ),
    rewrites(
      inMethod(
        "Runnable r = new Runnable() {\n            public void run() { A.this.go(); }\n        };\n        r.run();",
      ),
      inMethod("Runnable r = () -> A.this.go();\n        r.run();"),
    ),
    rewrites(
      inClass(
        "static final Comparator<String> BY_LENGTH = new Comparator<>() {\n        public int compare(String a, String b) {\n            return a.length() - b.length();\n        }\n    };",
      ),
      inClass("static final Comparator<String> BY_LENGTH = (a, b) -> a.length() - b.length();"),
    ),
    // Who gets it could put it into a set.
    rewrites(
      inMethod("on(new Runnable() { public void run() { go(); } });\n    }\n    void on(Runnable r) {"),
      inMethod("on(() -> go());\n    }\n    void on(Runnable r) {"),
      "likely",
    ),
    // The list holds something else than the order is for.
    rewrites(
      inMethod(
        "jars.sort(new Comparator<String>() { public int compare(String a, String b) { return a.length(); } });",
      ),
      inMethod("jars.sort((a, b) -> a.length());"),
    ),
    rewrites(
      inMethod(
        "Collections.sort(jars, new Comparator<Object>() { public int compare(Object a, Object b) { return 0; } });",
      ),
      inMethod("Collections.sort(jars, (Object a, Object b) -> 0);"),
    ),
    // Which types the parameters have must be written where the method is not known.
    rewrites(
      inMethod(
        "other.each(new Comparator<String>() { public int compare(String a, String b) { return 0; } });",
      ),
      inMethod("other.each((String a, String b) -> 0);"),
      "likely",
    ),
    rewrites(
      inMethod(
        "Collections.sort(jars, new Comparator<String>() { public int compare(String theFirstOfTheTwo, String theSecondOfTheTwo) { return theFirstOfTheTwo.length() - theSecondOfTheTwo.length(); } });",
      ),
      inMethod(
        "Collections.sort(jars, (theFirstOfTheTwo, theSecondOfTheTwo) ->\n                theFirstOfTheTwo.length() - theSecondOfTheTwo.length());",
      ),
    ),
    holds(
      inMethod(
        "on(new Runnable() { public void run() { go(); } });\n    }\n    void on(Runnable r) {}\n    void on(Supplier<String> r) {",
      ),
      "another `on`",
    ),
    // A block that gives nothing is no Callable, and an expression could be one.
    rewrites(
      inMethod("pool.submit(new Runnable() { public void run() { go(); } });"),
      inMethod("pool.submit(() -> { go(); });"),
      "likely",
    ),
    rewrites(
      "import org.example.Task;\n\nclass A {\n    Task t = new Task() { public void done() { go(); } };\n    void go() {}\n}\n",
      "import org.example.Task;\n\nclass A {\n    Task t = () -> go();\n    void go() {}\n}\n",
      "possible",
    ),
    rewrites(
      "interface Taste { int of(String jar); default int none() { return 0; } }\nclass A {\n    Taste t = new Taste() { public int of(String jar) { return 1; } };\n}\n",
      "interface Taste { int of(String jar); default int none() { return 0; } }\nclass A {\n    Taste t = jar -> 1;\n}\n",
      "likely",
    ),
    holds(
      "interface Taste { int of(String jar); default int none() { return 0; } }\nclass A {\n    Taste t = new Taste() { public int of(String jar) { return none(); } };\n}\n",
      "method of the anonymous class",
    ),
    ignores(
      "interface Taste { int of(String jar); int none(); }\nclass A {\n    Taste t = new Taste() { public int of(String jar) { return 1; } };\n}\n",
    ),
    holds(
      "interface Taste {\n    record Note(int n) {}\n    Object of(String jar);\n}\nclass A {\n    Taste t = new Taste() { public Object of(String jar) { return new Note(1); } };\n}\n",
      "brings with it",
    ),
    rewrites(
      inMethod(
        "jars.wait();\n        Thread t = new Thread(new Runnable() { public void run() { f(null); } });",
      ),
      inMethod("jars.wait();\n        Thread t = new Thread(() -> f(null));"),
    ),
    ignores("class A {\n    Task t = new Task() { void done() { go(); } };\n}\n"),
    ignores(
      "interface Taste { <T> T of(T jar); }\nclass A {\n    Taste t = new Taste() { public Object of(Object jar) { return 1; } };\n}\n",
    ),
    ignores(
      "abstract class Taste { abstract int of(String jar); }\nclass A {\n    Taste t = new Taste() { public int of(String jar) { return 1; } };\n}\n",
    ),
    holds(
      inMethod("Runnable r = new Runnable() { public void run() { pool.add(this); } };"),
      "anonymous object",
    ),
    holds(
      inMethod("Runnable r = new Runnable() { public void run() { System.out.println(hashCode()); } };"),
      "method of the anonymous class",
    ),
    holds(
      inMethod(
        "int n = 1;\n        Runnable r = new Runnable() { public void run() { int n = 2; use(n); } };",
      ),
      "a variable of the method around it",
    ),
    holds(
      inMethod(
        "for (String a : jars) Collections.sort(jars, new Comparator<String>() { public int compare(String a, String b) { return 0; } });",
      ),
      "a variable of the method around it",
    ),
    rewrites(
      inMethod(
        "for (String a : jars) use(a);\n        Collections.sort(jars, new Comparator<String>() { public int compare(String a, String b) { return 0; } });",
      ),
      inMethod("for (String a : jars) use(a);\n        Collections.sort(jars, (a, b) -> 0);"),
    ),
    holds(
      inClass(
        "final int n;\n    Runnable r = new Runnable() { public void run() { use(n); } };\n    A() { n = 1; }",
      ),
      "may not have its value yet",
    ),
    holds(
      inClass("Runnable r = new Runnable() { public void run() { use(r); } };"),
      "may not have its value yet",
    ),
    holds(
      inClass("static { new Thread(new Runnable() { public void run() { use(n); } }); }\n    static int n;"),
      "may not have its value yet",
    ),
    rewrites(
      inClass("int n;\n    Runnable r = new Runnable() { public void run() { use(n); } };"),
      inClass("int n;\n    Runnable r = () -> use(n);"),
      "likely",
    ),
    // A private field says what is done with it.
    rewrites(
      inClass(
        "private final Runnable r = new Runnable() { public void run() { use(1); } };\n    void g() { r.run(); }",
      ),
      inClass("private final Runnable r = () -> use(1);\n    void g() { r.run(); }"),
    ),
    holds(inMethod("Object r = new Runnable() { public void run() { go(); } };"), "a `Object` is wanted"),
    holds(inMethod("var r = new Runnable() { public void run() { go(); } };"), "nothing here says"),
    holds(
      inMethod(
        "Comparator r = new Comparator<String>() { public int compare(String a, String b) { return a.length(); } };",
      ),
      "other types in them",
    ),
    holds(
      inMethod("Runnable r = new Runnable() { public synchronized void run() { go(); } };"),
      "no place in a lambda",
    ),
    ignores(inMethod("new Runnable() { public void run() { go(); } }.run();")),
    ignores(inMethod("Thread t = new Thread() { public void run() { go(); } };")),
    ignores(inMethod("Runnable r = new Runnable() { int n; public void run() { go(); } };")),
    ignores(
      inMethod("Timer t = new Timer(); t.schedule(new TimerTask() { public void run() { go(); } }, 1);"),
    ),
    trialsIn("java", "7").ignores(
      inMethod("new Thread(new Runnable() { public void run() { go(); } }).start();"),
    ),
  ],
});
