import {
  assignmentOf,
  condition,
  copy,
  exitsOf,
  holes,
  need,
  no,
  ofKind,
  referencesAt,
  referencesOf,
} from "../../../core.js";
import { rule, surroundingsOf, trialsIn, unknown, usesElsewhere, valueOf, yes } from "../../../core.js";
import type { Declaration, Edit, Match, Segment, SyntaxNode } from "../../../core.js";
import { kindsOf, typeFor, union, type Assumed } from "./evidence.js";

const { fn } = holes({ fn: { kind: "statement", node: "function_definition" } });
const Optional = need("typing", "Optional");

/** Decorators that give back a function with the same parameters, and read no types. */
const PLAIN =
  /^@(staticmethod|classmethod|property|(functools\.)?(lru_cache|cache|cached_property)|abstractmethod|abc\.abstractmethod|override)\b/;

/** Something in a signature that has no type yet. */
interface Open {
  readonly name: SyntaxNode;
  readonly parameter: SyntaxNode;
  readonly value: SyntaxNode | undefined;
  /** Its place among the arguments of a call. */
  readonly place: number;
}

const isMethod = (node: SyntaxNode): boolean => {
  const holder = node.parent?.is("decorated_definition") ? node.parent : node;
  return holder.parent?.parent?.is("class_definition") === true;
};

const decoratorsOf = (node: SyntaxNode): SyntaxNode[] =>
  node.parent?.is("decorated_definition") ? node.parent.parts.filter((part) => part.is("decorator")) : [];

const isStatic = (node: SyntaxNode): boolean =>
  decoratorsOf(node).some((one) => one.text === "@staticmethod");

/** The parameters without a type, but for the object of a method. */
function openIn(node: SyntaxNode): Open[] {
  const skipped = isMethod(node) && !isStatic(node) ? 1 : 0;
  const list = node.child("parameters")!.parts;
  return list.slice(skipped).flatMap((parameter, place): Open[] => {
    if (parameter.is("identifier")) return [{ name: parameter, parameter, value: undefined, place }];
    const name = parameter.is("default_parameter") ? parameter.child("name") : undefined;
    return name?.is("identifier") ? [{ name, parameter, value: parameter.child("value"), place }] : [];
  });
}

const declarationOf = (node: SyntaxNode): Declaration | undefined =>
  referencesAt(node.child("name")!).find((one) => one.to)?.to;

/** The calls of a function, in its own file and, for one that others can name, in theirs. */
function callsOf(node: SyntaxNode, isEverywhere: boolean): SyntaxNode[] {
  const isConstructor = node.child("name")!.text === "__init__" && isMethod(node);
  const holder = isConstructor ? node.closest(["class_definition"])! : node;
  const to = declarationOf(holder);
  if (!to) return [];
  const own = referencesOf(to).map((one) => one.node);
  const { files, path } = surroundingsOf(node.tree);
  const others =
    files && isEverywhere
      ? usesElsewhere(to, { path, tree: node.tree }, files).uses.map((one) => one.node)
      : [];
  return [...own, ...others].flatMap((name) => {
    const callee = name.parent?.is("attribute") && name.field === "attribute" ? name.parent : name;
    const isCall = callee.parent?.is("call") && callee.field === "function";
    return isCall && !isOfClass(callee) ? [callee.parent!] : [];
  });
}

/** Is a method called through its class, with the object as an argument? */
function isOfClass(callee: SyntaxNode): boolean {
  const object = callee.is("attribute") ? callee.child("object") : undefined;
  return object?.is("identifier") === true && referencesAt(object).some(({ to }) => to?.as === "class");
}

/** What a call gives a parameter: nothing, where it leaves it to the default. */
function givenTo({ name, place }: Open, call: SyntaxNode): SyntaxNode | "default" | undefined {
  const list = call.child("arguments")?.parts ?? [];
  if (list.some((one) => one.is(["list_splat", "dictionary_splat"]))) return undefined;
  const named = list.find((one) => one.is("keyword_argument") && one.child("name")!.text === name.text);
  if (named) return named.child("value");
  const one = list[place];
  return one && !one.is("keyword_argument") ? one : "default";
}

const nothing: Assumed = () => undefined;

/** The types of what calls give a parameter, and of its default. */
function kindsGiven(open: Open, calls: readonly SyntaxNode[]): ReadonlySet<string> | undefined {
  const values = calls.map((call) => givenTo(open, call)).filter((one) => one !== "default");
  const given = values.map((value) => value && kindsOf(value, nothing));
  const first = open.value && kindsOf(open.value, nothing);
  const says = first && [...first].some((one) => one !== "None");
  // A default says enough; without one each call must.
  const known = says ? given.filter((one) => one !== undefined) : given;
  if (known.length === 0 && !first) return undefined;
  return union([...known, ...(first ? [first] : [])]);
}

/** Does every way through the function end with a `return` or an exception? */
function alwaysEnds(block: SyntaxNode | undefined): boolean {
  const last = block?.lastPart;
  if (!last) return false;
  if (last.is(["return_statement", "raise_statement"])) return true;
  if (last.is("with_statement")) return alwaysEnds(last.child("body"));
  if (last.is("try_statement")) {
    const handlers = last.parts.filter((part) => part.is("except_clause"));
    const ends = (part: SyntaxNode): boolean => alwaysEnds(part.parts.findLast((one) => one.is("block")));
    return alwaysEnds(last.child("body")) && handlers.every(ends);
  }
  if (!last.is("if_statement")) return false;
  const ways = last.parts.filter((part) => part.is(["elif_clause", "else_clause"]));
  return (
    ways.some((way) => way.is("else_clause")) &&
    alwaysEnds(last.child("consequence")) &&
    ways.every((way) => alwaysEnds(way.child("consequence") ?? way.child("body")))
  );
}

/** The types of what a function gives back; undefined where the code does not say. */
function kindsReturned(node: SyntaxNode, assumed: Assumed): ReadonlySet<string> | undefined {
  const body = node.child("body")!;
  const exits = exitsOf(body.parts);
  if (exits.some((one) => one.is("yield"))) return undefined;
  const returns = exits.filter((one) => one.is("return_statement"));
  const given = returns.map((one) => (one.firstPart ? kindsOf(one.firstPart, assumed) : new Set(["None"])));
  if (!alwaysEnds(body)) given.push(new Set(["None"]));
  return given.length === 0 ? undefined : union(given);
}

interface Signature {
  readonly types: readonly { readonly open: Open; readonly type: string; readonly mayBeMissing: boolean }[];
  /** The type of the result, where it is not written. */
  readonly result: { readonly type: string; readonly mayBeMissing: boolean } | undefined;
}

/** The whole signature, or the part of which nothing shows the type. */
function signatureOf(node: SyntaxNode): Signature | { at: SyntaxNode; why: string } {
  const open = openIn(node);
  const near = callsOf(node, false);
  let calls = near;
  if (open.some((one) => kindsGiven(one, near) === undefined)) calls = callsOf(node, true);
  const types: { open: Open; type: string; mayBeMissing: boolean }[] = [];
  for (const one of open) {
    const kinds = kindsGiven(one, calls);
    const type = kinds && typeFor(kinds);
    const why =
      kinds && !type
        ? `\`${one.name.text}\` is given values of several types`
        : `nothing shows which type \`${one.name.text}\` has`;
    if (!type || type.name === "None") return { at: one.name, why };
    const hidden = hiddenBy(type.name, node);
    if (hidden) return { at: hidden, why: `\`${type.name}\` is a method of the class` };
    types.push({ open: one, type: named(type.name, node), mayBeMissing: type.mayBeMissing });
  }
  if (node.child("return_type")) return { types, result: undefined };
  const assumed: Assumed = (name) => {
    const to = referencesAt(name).find((one) => one.to)?.to;
    const found = types.find(({ open: { name: own } }) => to?.at[0]!.same(own));
    if (!to || !found) return undefined;
    const written = referencesOf(to)
      .filter(({ node: other, does }) => does !== "read" && !to.at[0]!.same(other))
      .map(({ node: other, does }) => {
        const assignment = does === "write" ? assignmentOf(other) : undefined;
        const value = assignment && valueOf(assignment);
        return value && !value.holds(other) ? kindsOf(value, nothing) : undefined;
      });
    return union([new Set([found.type, ...(found.mayBeMissing ? ["None"] : [])]), ...written]);
  };
  const kinds = kindsReturned(node, assumed);
  const result = kinds && typeFor(kinds);
  if (!result) return { at: node.child("name")!, why: "nothing shows which type the result has" };
  const hidden = hiddenBy(result.name, node);
  if (hidden) return { at: hidden, why: `\`${result.name}\` is a method of the class` };
  return { types, result: { type: named(result.name, node), mayBeMissing: result.mayBeMissing } };
}

/** A class that is declared further down is named in quotes. */
function named(type: string, node: SyntaxNode): string {
  const own = node.tree.root
    .mentions(type)
    .find((one) => one.parent?.is("class_definition") && one.field === "name");
  return own && own.parent!.end > node.start ? `"${type}"` : type;
}

/** A member of the class that has the name of a type. */
function hiddenBy(type: string, node: SyntaxNode): SyntaxNode | undefined {
  const members = isMethod(node) ? node.closest(["class_definition"])!.child("body")!.parts : [];
  return members
    .map((one) => (one.is("decorated_definition") ? one.child("definition")! : one))
    .find((one) => one.child("name")?.text === type || one.firstPart?.child("left")?.text === type);
}

function isOpen(node: SyntaxNode): boolean {
  return openIn(node).length > 0 || node.child("return_type") === undefined;
}

function annotated(match: Match): Segment[] {
  const node = match.the(fn);
  const { types, result } = signatureOf(node) as Signature;
  const code = (type: string, mayBeMissing: boolean): string =>
    mayBeMissing ? `${match.nameOf(Optional)}[${type}]` : type;
  const edits: Edit[] = types.map(({ open: { name, value }, type, mayBeMissing }) => ({
    start: name.end,
    end: value?.start ?? name.end,
    text: `: ${code(type, mayBeMissing)}${value ? " = " : ""}`,
  }));
  const { end } = node.child("parameters")!;
  if (result) edits.push({ start: end, end, text: ` -> ${code(result.type, result.mayBeMissing)}` });
  return [copy(node.start, node.end, edits)];
}

const { rewrites, holds, ignores } = trialsIn("python");

export const signature = rule({
  id: "python/signature",
  kind: "idiom",
  title: "Write the types of a function that its defaults, callers and results show",
  why: "The next reader has to find out from callers what the function takes and gives.",
  taste: true,
  was: ofKind(fn, { when: isOpen }),
  mentions: ["def"],
  target: "3.5",
  given: [
    condition("defaults, calls and results show all types", (match) => {
      const found = signatureOf(match.the(fn));
      return "why" in found
        ? no("value.kind", found.why, found.at)
        : yes("value.kind", "defaults, calls and results show all types");
    }),
    condition("nothing reads the types while the program runs", (match) => {
      const other = decoratorsOf(match.the(fn)).find((one) => !PLAIN.test(one.text));
      return other
        ? no("name.reflection", `\`${other.text}\` may read the types of the function`, other)
        : yes("name.reflection", "no decorator reads the types of the function");
    }),
    condition("callers give nothing else", (match) =>
      unknown(
        "value.kind",
        "callers that are not seen may give values of other types",
        match.the(fn).child("name"),
      ),
    ),
  ],
  becomes: annotated,
  trials: [
    rewrites(
      `
      def label(jar, times=1, note=None):
          if note is None:
              note = ""
          return jar + note * times

      print(label("heather", note="new"))
      label("clover", 2)
      `,
      `
      from typing import Optional

      def label(jar: str, times: int = 1, note: Optional[str] = None) -> str:
          if note is None:
              note = ""
          return jar + note * times

      print(label("heather", note="new"))
      label("clover", 2)
      `,
      "likely",
    ),
    rewrites(
      "def f(x):\n    return x / 2\nf(1)\nf(2.5)\n",
      "def f(x: float) -> float:\n    return x / 2\nf(1)\nf(2.5)\n",
      "likely",
    ),
    rewrites(
      "class Hive:\n    def __init__(self, age=1):\n        self.age = age\n    def is_old(self, limit=3):\n        return self.age > limit\n    @staticmethod\n    def make():\n        return Hive(2)\n",
      'class Hive:\n    def __init__(self, age: int = 1) -> None:\n        self.age = age\n    def is_old(self, limit: int = 3) -> bool:\n        return self.age > limit\n    @staticmethod\n    def make() -> "Hive":\n        return Hive(2)\n',
      "likely",
    ),
    rewrites(
      "def find(name):\n    if name == 'a':\n        return 1\nfind('x')\n",
      "from typing import Optional\n\ndef find(name: str) -> Optional[int]:\n    if name == 'a':\n        return 1\nfind('x')\n",
      "likely",
    ),
    rewrites(
      "def f(a: int, b=True):\n    g(a)\n",
      "def f(a: int, b: bool = True) -> None:\n    g(a)\n",
      "likely",
    ),
    rewrites(
      "class Jar:\n    def __init__(self, kind):\n        self.kind = kind\nJar('a')\nclass Big(Jar):\n    def __init__(self, n=1):\n        Jar.__init__(self, 'b')\n",
      "class Jar:\n    def __init__(self, kind: str) -> None:\n        self.kind = kind\nJar('a')\nclass Big(Jar):\n    def __init__(self, n: int = 1) -> None:\n        Jar.__init__(self, 'b')\n",
      "likely",
    ),
    holds(
      "class A:\n    def str(self) -> None:\n        pass\n    def f(self, x='a') -> None:\n        pass\n",
      "method of the class",
    ),
    holds("def f(x):\n    return 1\n", "which type `x` has"),
    holds("def f(x=None):\n    return 1\n", "which type `x` has"),
    holds("def f(x):\n    return 1\nf(1)\nf('a')\n", "several types"),
    holds("def f(x=1):\n    return g(x)\n", "which type the result has"),
    holds("def f(x=1):\n    yield x\n", "which type the result has"),
    holds("@app.route('/')\ndef f(x=1):\n    return 1\n", "may read the types"),
    holds("def f(x=1):\n    x = g()\n    return x\n", "which type the result has"),
    ignores("def f(x: int) -> int:\n    return x\n"),
    ignores("def f(x: int, *a, **k) -> int:\n    return x\n"),
    trialsIn("python", "2.7").ignores("def f(x=1):\n    return 1\n"),
  ],
});
