import { z } from "zod";
import {
  condition,
  copy,
  holes,
  indentUnit,
  no,
  ofKind,
  options,
  referencesAt,
  referencesOf,
  rule,
} from "../../../index.js";
import { textAt, trialsIn, unknown, weakest, yes } from "../../../index.js";
import type { Answer, Edit, Match, Rule, Segment, SyntaxNode } from "../../../index.js";
import { isNoGlobal } from "../variables/global.js";
import { isUsedBehind } from "../variables/order.js";
import { memberName, methodText, noMethod, ownNodes } from "./method.js";
import { isStrict } from "./strict.js";

const settings = z.object({
  calls: z
    .array(
      z
        .string()
        .regex(
          /^(\*\.|[\p{L}_$][\p{L}\p{N}_$.]*\.)?[\p{L}_$][\p{L}\p{N}_$]*$/u,
          "must be a name, or a member such as `Hive.extend` or `*.extend`",
        ),
    )
    .default([])
    .describe(
      "The calls that make a class of an object: `Hive.extend`, `*.extend` for a method of any class, `makeClass`. What a method is called on is the parent.",
    ),
  starts: z
    .string()
    .default("")
    .describe("The method that is to be the constructor; none where it is empty."),
  supers: z.string().default("this._super").describe("How a method calls the one that it overrides."),
  name: z.string().default("").describe("The property whose text names a class that nothing else names."),
  values: z
    .enum(["accessor", "field"])
    .default("accessor")
    .describe(
      "What a property with a plain value becomes: a getter, or a field that each object has of its own.",
    ),
});
type Settings = z.output<typeof settings>;

const { call } = holes({ call: { kind: "expression", node: "call_expression" } });

/** A call that makes a class, by its parts. */
interface Made {
  readonly call: SyntaxNode;
  readonly base: SyntaxNode | undefined;
  readonly object: SyntaxNode;
  /** Is it one of the calls in the config word for word? */
  readonly isNamed: boolean;
}

/** Values that are the same however often they are written down. */
const PLAIN = ["string", "number", "true", "false", "null", "unary_expression", "template_string"];

function madeBy(node: SyntaxNode, { calls }: Settings): Made | undefined {
  const callee = node.child("function");
  const [object, ...more] = node.child("arguments")?.parts ?? [];
  if (!callee || !object?.is("object") || more.length > 0) return undefined;
  const isMethod = callee.is("member_expression");
  const base = isMethod ? callee.child("object") : undefined;
  if (base && !base.is(["identifier", "member_expression"])) return undefined;
  const method = isMethod ? callee.child("property")!.text : undefined;
  const isNamed =
    calls.includes(callee.text.replace(/\s/g, "")) || (base && derives(base, method!, calls)) === true;
  const isAny = method !== undefined && calls.includes(`*.${method}`);
  return isNamed || isAny ? { call: node, base, object, isNamed } : undefined;
}

const MOST_PARENTS = 8;

/** Is a name that of a class which the same call made, or which is derived from one that the config names? */
function derives(base: SyntaxNode, method: string, calls: readonly string[], depth = 0): boolean {
  const to = base.is("identifier") ? referencesAt(base).find((one) => one.to)?.to : undefined;
  const holder = to?.at.length === 1 ? to.at[0]!.parent : undefined;
  const value = holder?.is("variable_declarator") ? holder.child("value") : undefined;
  const callee = value?.is("call_expression") ? value.child("function") : undefined;
  const isMade = callee?.is("member_expression") === true && callee.child("property")!.text === method;
  const heritage = holder?.is("class_declaration")
    ? holder.parts.find((part) => part.is("class_heritage"))?.firstPart
    : undefined;
  const parent = isMade ? callee.child("object")! : heritage;
  if (!parent || depth >= MOST_PARENTS) return false;
  return calls.includes(`${parent.text}.${method}`) || derives(parent, method, calls, depth + 1);
}

/**
 * A class with those of the same block that are made of it in the same way: one of the old kind cannot be derived from a
 * class, so they go together. Undefined for one that belongs to the family of another.
 */
function familyOf(root: Made, set: Settings): readonly Made[] | undefined {
  const blockOf = ({ call: node }: Made): SyntaxNode | undefined =>
    node.closest(["statement_block", "program"]);
  const nameOf = ({ call: node }: Made): SyntaxNode | undefined =>
    node.parent?.is("variable_declarator") ? node.parent.child("name") : undefined;
  const block = blockOf(root);
  const all = [...(block?.descendants() ?? [])].flatMap((node) => {
    const made = node.is("call_expression") ? madeBy(node, set) : undefined;
    return made && blockOf(made)?.same(block) ? [made] : [];
  });
  const parentOf = ({ base }: Made): Made | undefined => {
    const to = base?.is("identifier") ? referencesAt(base).find((one) => one.to)?.to : undefined;
    return to && all.find((one) => nameOf(one) && to.at.some((at) => at.same(nameOf(one))));
  };
  if (parentOf(root)) return undefined;
  const family = [root];
  for (let i = 0; i < family.length; i++)
    family.push(...all.filter((one) => parentOf(one)?.call.same(family[i]!.call)));
  return family;
}

/** Where the class goes, and what it is called there. */
interface Place {
  /** What the class takes the place of: the statement that declares a variable, or the call alone. */
  readonly node: SyntaxNode;
  readonly name: string;
  readonly isStatement: boolean;
}

const IDENTIFIER = /^[\p{L}_$][\p{L}\p{N}_$]*$/u;

/** `hive-card` as the name of a class. */
function classNameFrom(tag: string): string {
  const words = tag.split(/[^\p{L}\p{N}]+/u).filter((word) => word !== "");
  return words.map((word) => word[0]!.toUpperCase() + word.slice(1)).join("");
}

/** The name that a property of the object gives. */
function nameInside({ object }: Made, { name }: Settings): string {
  if (name === "") return "";
  const pair = object.parts.find((part) => part.is("pair") && memberName(part.child("key")!) === name);
  const value = pair?.child("value");
  const found = value?.is("string") ? classNameFrom(value.text.slice(1, -1)) : "";
  return IDENTIFIER.test(found) ? found : "";
}

function placeOf(made: Made, set: Settings): Place {
  const { call: node, object } = made;
  const { parent } = node;
  const declaration = parent?.is("variable_declarator") ? parent.parent! : undefined;
  const variable = declaration && parent!.child("name");
  if (
    declaration &&
    variable?.is("identifier") &&
    declaration.parts.length === 1 &&
    isClassLike(declaration, variable)
  )
    return { node: declaration, name: variable.text, isStatement: true };
  const inside = nameInside(made, set);
  if (parent?.is("expression_statement")) return { node: parent, name: inside, isStatement: true };
  const target = parent?.is("assignment_expression")
    ? parent.child("left")?.text.split(".").at(-1)
    : undefined;
  const wished =
    inside !== ""
      ? inside
      : target !== undefined && IDENTIFIER.test(target) && target !== "exports"
        ? target
        : "";
  // Inside the class its own name would hide another of the same name; a variable gives its name by itself.
  const isFree = object.mentions(wished).length === 0 && !parent?.is("variable_declarator");
  return { node, name: isFree ? wished : "", isStatement: false };
}

/** Can a variable be declared as a class: given no other value, used behind its declaration, in its block only? */
function isClassLike(declaration: SyntaxNode, name: SyntaxNode): boolean {
  const statement = declaration.parent?.is("export_statement") ? declaration.parent : declaration;
  const block = statement.parent;
  const to = referencesAt(name).find((one) => one.to)?.to;
  if (!to || to.at.length !== 1 || !block?.is(["program", "statement_block"])) return false;
  const uses = referencesOf(to).filter(({ node }) => !node.same(name));
  if (uses.some(({ does, node }) => does !== "read" || !block.holds(node))) return false;
  return isUsedBehind({ name, uses, block, from: declaration.end }).is === "yes";
}

/** What becomes of a property of the object; or why nothing can. */
type Member = { readonly code: string } | { readonly at: SyntaxNode; readonly why: string };

function memberFrom(part: SyntaxNode, made: Made, set: Settings, indent: string): Member {
  const { tree } = part;
  if (part.is("method_definition")) return method(memberName(part.child("name")!), part, made, set, indent);
  if (part.is("spread_element")) return { at: part, why: "what is mixed in is not listed here" };
  if (!part.is("pair")) return { at: part, why: `\`${part.text}\` is no method that is written here` };
  const [key, value] = [part.child("key")!, part.child("value")!];
  const name = memberName(key);
  if (value.is(["function_expression", "generator_function", "arrow_function"])) {
    const why = noMethod(value);
    return why === undefined ? method(name, value, made, set, indent) : { at: value, why };
  }
  if (!value.is(PLAIN) || (value.is("template_string") && value.text.includes("${")))
    return { at: part, why: `\`${part.text.split("\n")[0]}\` is one value for all objects of the class` };
  const code = textAt(tree, value, indent);
  return { code: set.values === "field" ? `${name} = ${code};` : `get ${name}() { return ${code}; }` };
}

function method(name: string, fn: SyntaxNode, made: Made, set: Settings, indent: string): Member {
  const isConstructor = set.starts !== "" && name === set.starts;
  const { tree } = fn;
  const edits: Edit[] = [];
  let isSuperCalled = false;
  for (const node of ownNodes(fn)) {
    if (node.is("this") && isConstructor && !isSuperCalled && made.base && !isSuperAround(node, set))
      return { at: node, why: "the object is used before the parent's constructor is called" };
    const callee = node.is("call_expression") ? node.child("function") : undefined;
    const code = callee?.text.replace(/\s/g, "");
    if (!callee || (code !== set.supers && code !== `${set.supers}.apply` && code !== `${set.supers}.call`))
      continue;
    isSuperCalled = true;
    const [self, ...rest] = node.child("arguments")!.parts;
    const isApplied = code !== set.supers;
    if (isApplied && (self?.text !== "this" || (code.endsWith(".apply") && rest.length !== 1)))
      return { at: node, why: "the parent's method is called for another object" };
    edits.push({ start: callee.start, end: callee.end, text: isConstructor ? "super" : `super.${name}` });
    if (isApplied)
      edits.push({
        start: self!.start,
        end: rest[0]?.start ?? self!.end,
        text: code.endsWith(".apply") ? "..." : "",
      });
  }
  const inside = fn.text.split(set.supers).length - 1;
  if (inside > edits.filter(({ text: put }) => put.startsWith("super")).length)
    return { at: fn, why: `\`${set.supers}\` is used in another way than being called` };
  if (isConstructor && made.base && !isSuperCalled)
    return { at: fn, why: `\`${name}\` does not call that of the parent` };
  if (!isConstructor && isSuperCalled && !made.base) return { at: fn, why: "there is no parent" };
  if (isConstructor && (fn.has("async") || fn.is("generator_function")))
    return { at: fn, why: "a constructor cannot wait" };
  const is = isConstructor ? "constructor" : name;
  if (!fn.is("method_definition")) return { code: methodText(is, fn, indent, edits) };
  const start = fn.child("name")!;
  if (isConstructor) edits.push({ start: start.start, end: start.end, text: is });
  return {
    code: textAt(
      tree,
      fn,
      indent,
      edits.sort((a, b) => a.start - b.start),
    ),
  };
}

/** Is this the object in the call of the parent's method? */
function isSuperAround(node: SyntaxNode, { supers }: Settings): boolean {
  for (const above of node.ancestors()) {
    if (above.is("call_expression") && above.child("function")!.text.startsWith(supers)) return true;
    if (above.is("statement_block")) return false;
  }
  return false;
}

const membersOf = (made: Made, set: Settings, indent = ""): Member[] =>
  made.object.parts.map((part) => memberFrom(part, made, set, indent));

/** The class, with what stands between its members in the object as it is, but for the commas. */
function classEdits(made: Made, set: Settings): Edit[] {
  const { object, base } = made;
  const { tree } = object;
  const place = placeOf(made, set);
  const own = tree.indentAt(place.node.start);
  const first = object.firstPart;
  const isOneLine = !first || first.line === object.line;
  const indent = isOneLine ? `${own}${indentUnit(tree, own)}` : tree.indentAt(first.start);
  const members = membersOf(made, set, indent).map((member, i): Edit => {
    const part = object.parts[i]!;
    const comma = /^\s*,/.exec(tree.text.slice(part.end, object.end));
    const next = object.parts[i + 1];
    const between = next && tree.text.slice(part.end, next.start);
    const { code } = member as { code: string };
    // Members of several lines are set apart by a blank line.
    const isTight =
      between !== undefined && /\n/.test(between) && !/\n[ \t]*\r?\n/.test(between) && /\n/.test(code);
    return {
      start: part.start,
      end: part.end + (comma?.[0].length ?? 0),
      text: isTight ? `${code}\n` : code,
    };
  });
  const head = `class${place.name === "" ? "" : ` ${place.name}`}${base ? ` extends ${base.text}` : ""} `;
  return [
    { start: place.node.start, end: object.start, text: head },
    ...members,
    { start: object.end, end: place.node.end, text: "" },
  ];
}

/** A getter without a setter refuses to be written. */
function isNeverWritten({ object }: Made): Answer {
  const plain = object.parts.filter((part) => part.is("pair") && part.child("value")!.is(PLAIN));
  for (const node of object.descendants()) {
    const left = node.is(["assignment_expression", "augmented_assignment_expression"])
      ? node.child("left")
      : undefined;
    const name = left?.is("member_expression") ? left.child("property")!.text : undefined;
    if (name !== undefined && plain.some((part) => memberName(part.child("key")!) === name))
      return no("flow.written", `\`${left!.text}\` is written`, node);
  }
  return plain.length === 0
    ? yes("flow.written", "no plain value becomes a member")
    : unknown(
        "flow.written",
        `\`${memberName(plain[0]!.child("key")!)}\` could be written by other code`,
        plain[0],
      );
}

/** Is the class neither called without `new`, nor made the parent of one of the old kind? */
function isOnlyMade(made: Made, set: Settings): Answer {
  const code = "name.other-uses";
  const { node, name } = placeOf(made, set);
  const declared = node.firstPart?.child("name");
  const to = declared && referencesAt(declared).find((one) => one.to)?.to;
  const handed =
    "other code that gets the class could make another of it in the old way, or call it without `new`";
  if (!to || node.parent?.is("export_statement")) return unknown(code, handed, node);
  let doubt: SyntaxNode | undefined;
  for (const { node: use } of referencesOf(to)) {
    if (use.same(declared) || (use.parent?.is("new_expression") && use.field === "constructor")) continue;
    const read = use.parent?.is("member_expression") && use.field === "object" ? use.parent : use;
    const call = read.parent?.is("call_expression") && read.field === "function" ? read.parent : undefined;
    if (call && madeBy(call, set)) continue;
    if (call && read === use)
      return no(code, `\`${call.text.split("\n")[0]}\` calls it without \`new\``, use);
    if (!use.parent?.text.includes("instanceof")) doubt ??= use;
  }
  return doubt ? unknown(code, handed, doubt) : yes(code, `\`${name}\` is only used with \`new\``);
}

const make = (set: Settings): Rule => {
  const familyIn = (match: Match): readonly Made[] => familyOf(madeBy(match.the(call), set)!, set)!;
  const about = (must: string, ask: (made: Made) => Answer, unknownIs: "likely" | "possible" = "likely") =>
    condition(
      must,
      (match) => {
        const [first, ...rest] = familyIn(match).map(ask);
        return weakest([first!, ...rest]);
      },
      { unknownIs },
    );
  const last = set.calls.map((one) => one.split(".").at(-1)!);
  return rule({
    id: "javascript/class-from-call",
    kind: "idiom",
    title: "Write a class in place of a call that makes one",
    why: "Editors, checkers and readers know what a class is; what a call makes of an object, only its library knows.",
    was: ofKind(call, {
      together: (node) => {
        const made = madeBy(node, set);
        const family = made && familyOf(made, set);
        if (!family) return undefined;
        const places = family.map((one) => placeOf(one, set).node);
        if (places.length === 1) return places;
        const { parts } = made.call.closest(["statement_block", "program"])!;
        const at = places.map((place) => parts.findIndex((part) => part.holds(place)));
        return parts.slice(Math.min(...at), Math.max(...at) + 1);
      },
    }),
    mentions: last.length === 0 ? ["extend"] : last,
    target: set.values === "field" ? "2022" : "2015",
    options: options(settings, make),
    given: [
      about(
        "the call makes a class",
        ({ isNamed, base }) =>
          isNamed
            ? yes("name.library", "the config says that the call makes a class")
            : unknown("name.library", `whether \`${base?.text}\` is a class is not known`, base),
        "possible",
      ),
      about("every member can stand in a class", (made) => {
        const bad = membersOf(made, set).find((member) => "why" in member);
        return bad && "why" in bad
          ? no("form.fits", bad.why, bad.at)
          : yes("form.fits", "every member can stand in a class");
      }),
      about("the class has a name where it needs one", (made) => {
        const { isStatement, name, node } = placeOf(made, set);
        return isStatement && name === ""
          ? no("name.free", "nothing says what the class is called", node)
          : yes(
              "name.free",
              name === "" ? "the class needs no name here" : `the class is called \`${name}\``,
            );
      }),
      about("no value is written that becomes a getter", isNeverWritten),
      about("it is only used with `new`", (made) => isOnlyMade(made, set)),
      about("the code is strict", (made) => isStrict(made.call)),
      about("no other script uses it", (made) => {
        const { node } = placeOf(made, set);
        const declared = node.is("variable_declaration") ? node.firstPart!.child("name")! : undefined;
        const to = declared && referencesAt(declared).find((one) => one.to)?.to;
        return to ? isNoGlobal(to, declared) : yes("name.other-uses", "it is no global variable");
      }),
    ],
    becomes: (match): Segment[] => {
      const edits = familyIn(match)
        .flatMap((made) => classEdits(made, set))
        .sort((a, b) => a.start - b.start);
      return [copy(match.nodes[0]!.start, match.nodes.at(-1)!.end, edits)];
    },
    trials,
  });
};

const js = trialsIn("javascript", undefined, { calls: ["Hive.extend"], starts: "init" });
const any = trialsIn("javascript", undefined, { calls: ["*.extend", "makeClass"], name: "tag" });
const fields = trialsIn("javascript", undefined, { calls: ["Hive.extend"], values: "field" });

const trials = [
  js.rewrites(
    `
    import { Hive } from "./hive.js";
    export const Scale = Hive.extend({
      // Where it stands.
      init: function (place) {
        this._super(place, 1);
        this.place = place;
      },
      weigh: function (box) {
        return this._super.apply(this, arguments) + box;
      },
      get unit() { return "kg"; },
      async tare() {},
      "net-weight": function () { return 1; }, // in kilograms
    });
    `,
    `
    import { Hive } from "./hive.js";
    export class Scale extends Hive {
      // Where it stands.
      constructor(place) {
        super(place, 1);
        this.place = place;
      }

      weigh(box) {
        return super.weigh(...arguments) + box;
      }

      get unit() { return "kg"; }
      async tare() {}
      "net-weight"() { return 1; } // in kilograms
    }
    `,
    "likely",
  ),
  js.rewrites(
    "export default Hive.extend({ a() {} });",
    "export default class extends Hive { a() {} };",
    "likely",
  ),
  js.rewrites(
    '"use strict";\nmodule.exports = Hive.extend({ a() {} });',
    '"use strict";\nmodule.exports = class extends Hive { a() {} };',
    "likely",
  ),
  js.rewrites(
    '"use strict";\nexports.Scale = Hive.extend({ a() {} });',
    '"use strict";\nexports.Scale = class Scale extends Hive { a() {} };',
    "likely",
  ),
  js.rewrites(
    '"use strict";\nvar Scale = Hive.extend({ a() {} });\nmodule.exports = Scale;',
    '"use strict";\nclass Scale extends Hive { a() {} }\nmodule.exports = Scale;',
    "likely",
  ),
  js.rewrites(
    '"use strict";\nexports.a = 1;\nlet Scale = Hive.extend({ a() {} });\nScale = wrapped(Scale);',
    '"use strict";\nexports.a = 1;\nlet Scale = class extends Hive { a() {} };\nScale = wrapped(Scale);',
    "likely",
  ),
  js.rewrites(
    'import "x";\nconst Scale = Hive.extend({ color: "red" });',
    'import "x";\nclass Scale extends Hive { get color() { return "red"; } }',
    "likely",
  ),
  fields.rewrites(
    'import "x";\nconst Scale = Hive.extend({ color: "red" });',
    'import "x";\nclass Scale extends Hive { color = "red"; }',
    "likely",
  ),
  any.rewrites(
    'import "x";\nScale.extend({ tag: "hive-card" });',
    'import "x";\nclass HiveCard extends Scale { get tag() { return "hive-card"; } }',
    "possible",
  ),
  any.rewrites(
    'import "x";\nexport const Scale = makeClass({ a() {} });',
    'import "x";\nexport class Scale { a() {} }',
    "likely",
  ),
  js.rewrites("const Scale = Hive.extend({ a() {} });", "class Scale extends Hive { a() {} }", "likely"),
  js.rewrites(
    'import "x";\nconst Scale = Hive.extend({ a() {} });\nf(new Scale());',
    'import "x";\nclass Scale extends Hive { a() {} }\nf(new Scale());',
  ),
  js.holds("const Scale = Hive.extend({ list: [] });", "one value for all"),
  js.holds("const Scale = Hive.extend({ ...mixin });", "mixed in"),
  js.holds("const Scale = Hive.extend({ a: 1, set(b) { this.a = b; } });", "is written"),
  js.holds("const Scale = Hive.extend({ init() { this.a = 1; this._super(); } });", "used before"),
  js.holds("const Scale = Hive.extend({ init() {} });", "does not call"),
  js.holds(
    "const Scale = Hive.extend({ a() { return [1].map(function () { return this._super(); }); } });",
    "in another way",
  ),
  js.holds("const Scale = Hive.extend({ a: () => this.b });", "arrow function"),
  js.holds("Hive.extend({ a() {} });", "what the class is called"),
  js.holds("const Scale = Hive.extend({ a() {} }); Scale();", "without `new`"),
  js.rewrites(
    `
    "use strict";
    const Hive = require("./hive");
    const Scale = Hive.extend({ weigh: function () { return 1; } });
    const Fine = Scale.extend({ weigh: function () { return this._super() + 1; } });
    module.exports = { Scale, Fine };
    `,
    `
    "use strict";
    const Hive = require("./hive");
    class Scale extends Hive { weigh() { return 1; } }
    class Fine extends Scale { weigh() { return super.weigh() + 1; } }
    module.exports = { Scale, Fine };
    `,
    "likely",
  ),
  js.ignores("const Scale = Box.extend({ a() {} });"),
  js.ignores("const Scale = Hive.extend(members);"),
  js.ignores("const Scale = Hive.extend({ a() {} }, { b() {} });"),
  trialsIn("javascript").ignores("const Scale = Hive.extend({ a() {} });"),
];

export const classFromCall = make(settings.parse({}));
