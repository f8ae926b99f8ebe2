import { z } from "zod";
import { condition, copy, holes, isBuiltin, isMissing, need, no, ofKind, options } from "../../../core.js";
import { referencesAt, referencesOf, rule, text, trialsIn, typeOf, unknown, yes } from "../../../core.js";
import type { Edit, Match, Rule, Segment, SyntaxNode } from "../../../core.js";

const { whole } = holes({ whole: { kind: "statement", node: "class_definition" } });

/** A value that each object of a class has. */
interface FieldFacts {
  readonly name: string;
  readonly type: string;
  readonly value: SyntaxNode | undefined;
  /** Is it given when the object is made? */
  readonly isGiven: boolean;
  readonly at: SyntaxNode;
}

/** Why a class is no plain collection of values. */
interface Refused {
  readonly at: SyntaxNode;
  readonly why: string;
}

const SPECIAL = /^__\w+__$/;
const HANDMADE = /^__(new|slots|init_subclass|post_init|setattr|delattr|getattribute)__$/;
/** Types by the kind of a literal. */
const LITERALS: Readonly<Record<string, string>> = {
  integer: "int",
  float: "float",
  string: "str",
  concatenated_string: "str",
  true: "bool",
  false: "bool",
};
const EMPTY: Readonly<Record<string, string>> = {
  "[]": "list",
  "{}": "dict",
  "set()": "set",
  "list()": "list",
  "dict()": "dict",
};

const membersOf = (node: SyntaxNode): SyntaxNode[] =>
  node
    .child("body")!
    .parts.map((part) => (part.is("decorated_definition") ? part.child("definition")! : part));

const nameOf = (member: SyntaxNode): string | undefined =>
  member.is("function_definition") ? member.child("name")!.text : undefined;

const constructorOf = (node: SyntaxNode): SyntaxNode | undefined =>
  membersOf(node).find((member) => nameOf(member) === "__init__");

/** A class without bases in which there is nothing but values, what the language asks of them, and properties. */
function isPlain(node: SyntaxNode): boolean {
  const bases = node.child("superclasses")?.parts ?? [];
  const isObject = (base: SyntaxNode): boolean =>
    base.text === "object" && isBuiltin("object", base).is === "yes";
  if (!bases.every(isObject) || node.parent?.is("decorated_definition")) return false;
  const constructor = constructorOf(node);
  if (!constructor || constructor.parent?.is("decorated_definition") || constructor.has("async"))
    return false;
  const given = constructor.child("parameters")!.parts.length;
  return (
    given > 2 &&
    membersOf(node).every((member) => {
      const name = nameOf(member);
      if (name === undefined) return member.is("expression_statement") && member.firstPart!.is("string");
      return (
        SPECIAL.test(name) || /^@(\w+\.)?(property|setter|getter)\b/m.test(member.parent!.text.slice(0, 40))
      );
    })
  );
}

/** The values of a class in the order in which they are given, then those that it begins with. */
function fieldsOf(node: SyntaxNode): FieldFacts[] | Refused {
  const constructor = constructorOf(node)!;
  const [self, ...parameters] = constructor.child("parameters")!.parts;
  const names = membersOf(node).map(nameOf);
  const handmade = membersOf(node).find((member) => HANDMADE.test(nameOf(member) ?? ""));
  if (handmade) return { at: handmade, why: `\`${nameOf(handmade)}\` decides how objects are made` };
  const set = new Map<string, { value: SyntaxNode; type: string | undefined; at: SyntaxNode }>();
  for (const statement of constructor.child("body")!.parts) {
    const assignment = statement.is("expression_statement") ? statement.firstPart : undefined;
    const left = assignment?.is("assignment") ? assignment.child("left")! : undefined;
    const value = assignment?.child("right");
    const isOwn = left?.is("attribute") && left.child("object")!.text === self?.text;
    if (!left || !isOwn || !value)
      return { at: statement, why: "the constructor does more than keep values" };
    const name = left.child("attribute")!.text;
    if (name.startsWith("__"))
      return { at: statement, why: `\`${name}\` has another name outside of the class` };
    if (set.has(name)) return { at: statement, why: `\`${name}\` is set twice` };
    if (names.includes(name)) return { at: statement, why: `\`${name}\` is a member of the class as well` };
    set.set(name, { value, type: assignment!.child("type")?.text, at: statement });
  }
  const fields: FieldFacts[] = [];
  for (const parameter of parameters) {
    const name = (parameter.child("name") ?? parameter.firstPart ?? parameter).text;
    const value = parameter.child("value");
    if (
      !parameter.is(["identifier", "typed_parameter", "default_parameter", "typed_default_parameter"]) ||
      /^\*/.test(name)
    )
      return { at: parameter, why: `\`${parameter.text}\` is no plain parameter` };
    const kept = set.get(name);
    if (!kept || kept.value.text !== name)
      return { at: parameter, why: `\`${name}\` is not kept under its own name` };
    if (value && !isMissing(value) && LITERALS[value.kind] === undefined)
      return { at: value, why: `\`${value.text}\` is made once, and may not be the default of a field` };
    const type =
      kept.type ??
      parameter.child("type")?.text ??
      (value && LITERALS[value.kind]) ??
      typeGiven(node, fields.length);
    if (type === undefined) return { at: parameter, why: `the type of \`${name}\` is written nowhere` };
    fields.push({ name, type, value, isGiven: true, at: kept.at });
    set.delete(name);
  }
  for (const [name, { value, type, at }] of set) {
    const factory = EMPTY[value.text];
    if (factory !== undefined && isBuiltin(factory, node).is !== "yes")
      return { at, why: `\`${factory}\` is not the built-in one` };
    const known = type ?? LITERALS[value.kind] ?? factory;
    if (known === undefined || (LITERALS[value.kind] === undefined && EMPTY[value.text] === undefined))
      return { at, why: `\`${name}\` is worked out when the object is made` };
    fields.push({ name, type: known, value, isGiven: false, at });
  }
  return fields;
}

/** The type of the values that all calls in the file give in one place. */
function typeGiven(node: SyntaxNode, place: number): string | undefined {
  const to = referencesAt(node.child("name")!).find((one) => one.to)?.to;
  const calls = (to ? referencesOf(to) : []).flatMap(({ node: name }) =>
    name.parent?.is("call") && name.field === "function" ? [name.parent] : [],
  );
  const types = new Set(
    calls.map((call) => {
      const value = call.child("arguments")!.parts[place];
      const type = value && !value.is(["keyword_argument", "list_splat"]) ? typeOf(value) : undefined;
      return type && type.module === undefined && !type.declared ? type.name : undefined;
    }),
  );
  const [type] = types;
  return types.size === 1 && type !== undefined && /^(str|int|float|bool)$/.test(type) ? type : undefined;
}

const dataclass = need("dataclasses", "dataclass");
const field = need("dataclasses", "field");

function fieldCode({ name, type, value, isGiven }: FieldFacts, match: Match): string {
  if (isGiven) return `${name}: ${type}${value ? ` = ${value.text}` : ""}`;
  const factory = EMPTY[value!.text];
  const first = factory === undefined ? `default=${value!.text}` : `default_factory=${factory}`;
  return `${name}: ${type} = ${match.nameOf(field)}(${first}, init=False)`;
}

/** The class with its fields in the place of its constructor. */
function withFields(match: Match, { compared }: Settings): Segment[] {
  const node = match.the(whole);
  const { tree } = node;
  const constructor = constructorOf(node)!;
  const indent = tree.indentAt(constructor.start);
  const fields = fieldsOf(node) as FieldFacts[];
  const said = (at: SyntaxNode): string => {
    const rest = /^[^\n]*/.exec(tree.text.slice(at.end))![0];
    return /^\s*#/.test(rest) ? rest.trimEnd() : "";
  };
  const lines = fields.map((one) => `${fieldCode(one, match)}${said(one.at)}`);
  const edit: Edit = { start: constructor.start, end: constructor.end, text: lines.join(`\n${indent}`) };
  const end = Math.max(edit.end, edit.end + said(fields.at(-1)!.at).length);
  const how = compared === "identity" ? "(eq=False)" : "";
  return [
    text(`@${match.nameOf(dataclass)}${how}\n${tree.indentAt(node.start)}`),
    copy(node.start, node.end, [{ ...edit, end: Math.min(end, node.end) }]),
  ];
}

const settings = z.object({
  compared: z
    .enum(["identity", "value"])
    .default("identity")
    .describe(
      "Whether two objects with equal values are equal from now on; a class with `__eq__` keeps its own.",
    ),
});
type Settings = z.output<typeof settings>;

const make = (set: Settings): Rule =>
  rule({
    id: "python/data-class",
    kind: "idiom",
    title: "Declare the values of a plain class as fields of a data class",
    why: "Each value is written three times, and the class does not say which types they have.",
    was: ofKind(whole, { when: isPlain }),
    mentions: ["__init__"],
    target: "3.7",
    given: [
      condition("the constructor only keeps what it is given", (match) => {
        const fields = fieldsOf(match.the(whole));
        return "why" in fields
          ? no("form.fits", fields.why, fields.at)
          : yes("form.fits", "the constructor only keeps what it is given");
      }),
      condition("nobody depends on how an object is printed", (match) => {
        const own = membersOf(match.the(whole)).find((member) => nameOf(member) === "__repr__");
        return own
          ? yes("value.result", "the class says how its objects are printed", own)
          : unknown(
              "value.result",
              "an object is printed with its values from now on",
              match.the(whole).child("name"),
            );
      }),
      condition("nobody depends on who compares objects", (match) => {
        const own = membersOf(match.the(whole)).find((member) => nameOf(member) === "__eq__");
        return set.compared === "identity" || own
          ? yes("value.result", "objects are compared as before", own)
          : unknown(
              "value.result",
              "two objects with equal values are equal from now on, and have no hash",
              match.the(whole).child("name"),
            );
      }),
    ],
    becomes: (match) => withFields(match, set),
    options: options(settings, make),
    trials,
  });

const { rewrites, holds, ignores } = trialsIn("python");

const trials = [
  rewrites(
    `
    class Jar(object):
        """A jar of honey."""

        def __init__(self, kind: str, grams: int = 500, note="", lot: "Lot" = None) -> None:
            self.kind = kind
            self.grams = grams  # when full
            self.note = note
            self.lot = lot
            self.sold = False
            self.buyers: list[str] = []

        @property
        def kilos(self):
            return self.grams / 1000

        def __repr__(self):
            return self.kind
    `,
    `
    from dataclasses import dataclass, field

    @dataclass(eq=False)
    class Jar(object):
        """A jar of honey."""

        kind: str
        grams: int = 500  # when full
        note: str = ""
        lot: "Lot" = None
        sold: bool = field(default=False, init=False)
        buyers: list[str] = field(default_factory=list, init=False)

        @property
        def kilos(self):
            return self.grams / 1000

        def __repr__(self):
            return self.kind
    `,
  ),
  rewrites(
    `
    class Point:
        def __init__(self, x, y):
            self.x = x
            self.y = y

    a = Point(1, 2.5)
    b = Point(3, 0.5)
    `,
    `
    from dataclasses import dataclass

    @dataclass(eq=False)
    class Point:
        x: int
        y: float

    a = Point(1, 2.5)
    b = Point(3, 0.5)
    `,
    "likely",
  ),
  trialsIn("python", undefined, { compared: "value" }).rewrites(
    "class P:\n    def __init__(self, x: int, y: int):\n        self.x = x\n        self.y = y\n",
    "from dataclasses import dataclass\n\n@dataclass\nclass P:\n    x: int\n    y: int\n",
    "likely",
  ),
  holds(
    "class P:\n    def __init__(self, x, y):\n        self.x = x\n        self.y = y\n",
    "written nowhere",
  ),
  holds(
    "class P:\n    def __init__(self, x: int, y: int):\n        self.x = x\n        self._y = y\n",
    "under its own name",
  ),
  holds(
    "class P:\n    def __init__(self, x: int, y: int):\n        self.x = x\n        self.y = y + 1\n",
    "under its own name",
  ),
  holds(
    "class P:\n    def __init__(self, x: int, y=[]):\n        self.x = x\n        self.y = y\n",
    "made once",
  ),
  holds(
    "class P:\n    def __init__(self, x: int, *y):\n        self.x = x\n        self.y = y\n",
    "no plain parameter",
  ),
  holds(
    "class P:\n    def __init__(self, x: int, *, y: int):\n        self.x = x\n        self.y = y\n",
    "no plain parameter",
  ),
  holds(
    "class P:\n    def __init__(self, x: int, y: int):\n        self.x = x\n        self.y = y\n        log(self)\n",
    "more than keep",
  ),
  holds(
    "class P:\n    def __init__(self, x: int, y: int):\n        self.x = x\n        self.y = y\n        self.z = x + y\n",
    "worked out",
  ),
  holds(
    "class P:\n    def __init__(self, x: int, y: int):\n        self.x = x\n        self.y = y\n    @property\n    def x(self):\n        return 1\n",
    "member of the class",
  ),
  holds(
    "class P:\n    def __init__(self, x: int, y: int):\n        self.x = x\n        self.y = y\n    def __new__(cls, *a):\n        return 1\n",
    "how objects are made",
  ),
  holds(
    "list = load()\nclass P:\n    def __init__(self, x: int, y: int):\n        self.x = x\n        self.y = y\n        self.z = []\n",
    "not the built-in one",
  ),
  ignores("class P(Q):\n    def __init__(self, x: int, y: int):\n        self.x = x\n        self.y = y\n"),
  ignores("@q\nclass P:\n    def __init__(self, x: int, y: int):\n        self.x = x\n        self.y = y\n"),
  ignores(
    "class P:\n    def __init__(self, x: int, y: int):\n        self.x = x\n        self.y = y\n    def sell(self):\n        pass\n",
  ),
  ignores("class P:\n    def __init__(self, x: int):\n        self.x = x\n"),
  ignores(
    "class P:\n    z = 1\n    def __init__(self, x: int, y: int):\n        self.x = x\n        self.y = y\n",
  ),
  trialsIn("python", "3.6").ignores(
    "class P:\n    def __init__(self, x: int, y: int):\n        self.x = x\n        self.y = y\n",
  ),
];

export const dataClass = make(settings.parse({}));
