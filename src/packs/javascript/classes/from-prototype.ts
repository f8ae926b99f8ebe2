import {
  condition,
  copy,
  holes,
  indentUnit,
  no,
  ofKind,
  referencesAt,
  referencesOf,
  rule,
  textAt,
} from "../../../core.js";
import { trialsIn, unknown, usesOf, weakest, yes } from "../../../core.js";
import type { Answer, Edit, Match, Segment, SyntaxNode } from "../../../core.js";
import { startWithComments } from "../comments.js";
import { isNoGlobal } from "../variables/global.js";
import { isUsedBehind } from "../variables/order.js";
import { memberName, methodText, ownNodes } from "./method.js";
import { familyOf, oldClassAt, placeOf, type OldClass, type OldMethod } from "./old-class.js";
import { isNotWalked, isStrict } from "./strict.js";

const { fn } = holes({ fn: { kind: "statement", node: ["function_declaration", "function_expression"] } });

/** The class that a function makes, with those derived from it. */
const familyIn = (match: Match): readonly OldClass[] => familyOf(oldClassAt(match.the(fn))!)!;

/** The statements from the first function to the last that speaks of a prototype. */
function together(node: SyntaxNode): SyntaxNode[] | undefined {
  const root = oldClassAt(node);
  const family = root && familyOf(root);
  if (!family) return undefined;
  const { parts } = placeOf(root).parent!;
  const at = (statement: SyntaxNode): number => parts.findIndex((part) => part.same(statement));
  const all = family.flatMap((one) => [placeOf(one), ...one.goes]).map(at);
  return parts.slice(Math.min(...all), Math.max(...all) + 1);
}

/** The call of the parent's constructor: `Base.call(this, …)`. */
function parentCall({
  fn: constructor,
  base,
  name,
}: OldClass): { statement: SyntaxNode; call: SyntaxNode; list: boolean } | undefined {
  for (const statement of constructor.child("body")?.parts ?? []) {
    const call = statement.is("expression_statement") ? statement.firstPart : undefined;
    const callee = call?.is("call_expression") ? call.child("function")?.text : undefined;
    const [, of, how] = /^(.*)\.(call|apply)$/s.exec(callee ?? "") ?? [];
    if (!call || (of !== base?.text && of !== `${name.text}.super_`)) continue;
    if (call.child("arguments")?.firstPart?.text === "this")
      return { statement, call, list: how === "apply" };
  }
  return undefined;
}

/** Everything else that the name is used for, where a function could do what a class cannot. */
function isOnlyConstructed({ name, others, fn: constructor }: OldClass, family: readonly OldClass[]): Answer {
  const code = "name.other-uses";
  let doubt: Answer | undefined;
  for (const { node, does } of others) {
    const { parent, field } = node;
    if (family.some((one) => parentCall(one)?.call.holds(node))) continue;
    if (does !== "read") return no(code, `\`${name.text}\` is given another value`, node);
    if (parent?.is("call_expression") && field === "function")
      return no(code, `\`${name.text}\` is called without \`new\``, node);
    if (parent?.is("member_expression") && field === "object") {
      const member = parent.child("property")!.text;
      if (["call", "apply", "bind"].includes(member) && parent.parent?.is("call_expression"))
        return no(code, `\`${parent.text}\` runs the constructor for another object`, node);
      continue;
    }
    if (parent?.is("new_expression") && field === "constructor") {
      const guard =
        constructor.holds(node) &&
        /instanceof/.test(parent.closest(["if_statement"])?.child("condition")?.text ?? "");
      if (guard) return no(code, `\`${name.text}\` may be called without \`new\``, node);
      continue;
    }
    if (parent?.is("binary_expression") && parent.child("operator")?.text === "instanceof") {
      if (constructor.holds(node) && field === "right")
        return no(code, `\`${name.text}\` asks whether it is called with \`new\``, node);
      continue;
    }
    doubt ??= unknown(code, `what gets \`${name.text}\` here could call it without \`new\``, node);
  }
  return doubt ?? yes(code, `\`${name.text}\` is only used with \`new\``, name);
}

/** The constructor of a class that is derived calls its parent's before all else. */
function callsParent(found: OldClass): Answer {
  const { base, fn: constructor } = found;
  const code = "value.result";
  if (!base) return yes(code, "it is derived from no other class");
  const call = parentCall(found);
  const isEmpty = constructor.child("body")!.parts.length === 0;
  if (!call && isEmpty)
    return no(code, `the constructor of \`${base.text}\` is not called so far`, constructor);
  if (!call) return no(code, `the constructor does not call that of \`${base.text}\` first`, constructor);
  for (const node of ownNodes(constructor.child("body")!)) {
    if (node.is("this") && node.start < call.statement.start)
      return no(code, "the object is used before the parent's constructor is called", node);
    if (node.is("return_statement") && node.parts.length > 0)
      return no(code, "the constructor gives a value of its own", node);
  }
  const others = call.call.child("arguments")!.parts.slice(1);
  if (call.list && others.length !== 1)
    return no(code, "the parent's constructor is given no list", call.call);
  return unknown(
    code,
    `what \`${base.text}\` has itself is seen in \`${found.name.text}\` as well from now on`,
    base,
  );
}

/** Is the parent there when the class is made? */
function parentIsThere({ base, statement }: OldClass): Answer {
  const code = "flow.order";
  const first = base && [...base.descendants()].find((node) => node.is("identifier"));
  const to = first && referencesAt(first).find((one) => one.to)?.to;
  if (!first) return yes(code, "it is derived from no other class");
  if (!to) return unknown(code, `where \`${first.text}\` is declared is not known`, first);
  const late = to.at.find((at) => at.start > statement.start);
  return late
    ? no(code, `\`${first.text}\` is declared behind the class (line ${late.line})`, late)
    : yes(code, `\`${first.text}\` is declared ahead of the class`, to.at[0]);
}

/** Calls of a method of the parent: `Base.prototype.weigh.call(this, 1)`. */
function superCalls(method: SyntaxNode, { base, name }: OldClass): Edit[] {
  const edits: Edit[] = [];
  for (const node of ownNodes(method)) {
    const callee = node.is("call_expression") ? node.child("function") : undefined;
    const [, of, member, how] =
      /^([\w$.]+)\.prototype\.([\w$]+)\.(call|apply)$/.exec(callee?.text.replace(/\s/g, "") ?? "") ?? [];
    if (!callee || !base || (of !== base.text && of !== `${name.text}.super_`)) continue;
    const [self, ...rest] = node.child("arguments")!.parts;
    if (self?.text !== "this" || (how === "apply" && rest.length !== 1)) continue;
    edits.push({ start: callee.start, end: callee.end, text: `super.${member}` });
    const start = self.start;
    const end = rest[0]?.start ?? self.end;
    edits.push({ start, end, text: how === "apply" ? "..." : "" });
  }
  return edits.sort((a, b) => a.start - b.start);
}

/** The comment behind a statement, on its line. */
function commentBehind({ tree, end }: SyntaxNode): string {
  const rest = /^[^\n]*/.exec(tree.text.slice(end))![0];
  return /^[ \t]*;?[ \t]*(\/\/.*|\/\*.*\*\/[ \t]*)$/.exec(rest.replace(/\r$/, ""))?.[1] ?? "";
}

function memberCode({ key, fn: method, isStatic, at }: OldMethod, found: OldClass, indent: string): string {
  const { tree } = at;
  const from = startWithComments(at);
  const comments =
    from < at.start ? `${textAt(tree, { start: from, end: at.start }, indent).trimEnd()}\n${indent}` : "";
  const edits = isStatic ? [] : superCalls(method, found);
  const word = isStatic ? "static " : "";
  const behind = at.is("expression_statement") ? commentBehind(at) : "";
  const code = method.is("method_definition")
    ? textAt(tree, method, indent, edits)
    : methodText(`${word}${memberName(key)}`, method, indent, edits);
  return `${indent}${comments}${code}${behind === "" ? "" : ` ${behind}`}`;
}

function constructorCode(found: OldClass, indent: string): string[] {
  const { fn: constructor } = found;
  const body = constructor.child("body")!;
  const list = constructor.child("parameters")!;
  const hasCode = body.parts.length > 0 || found.fn.tree.commentsIn(body.start, body.end).length > 0;
  if (!hasCode) return [];
  const call = parentCall(found);
  const edits: Edit[] = [];
  if (call) {
    const callee = call.call.child("function")!;
    const [self, ...rest] = call.call.child("arguments")!.parts;
    edits.push({ start: callee.start, end: callee.end, text: "super" });
    edits.push({ start: self!.start, end: rest[0]?.start ?? self!.end, text: call.list ? "..." : "" });
  }
  edits.push(...superCalls(body, found));
  const code = textAt(
    constructor.tree,
    { start: list.start, end: constructor.end },
    indent,
    edits.sort((a, b) => a.start - b.start),
  );
  return [`${indent}constructor${code}`];
}

function classCode(found: OldClass): Edit[] {
  const { name, base, methods, goes, statement } = found;
  const { tree } = statement;
  const own = tree.indentAt(statement.start);
  const indent = `${own}${indentUnit(tree, own)}`;
  const members = [
    ...constructorCode(found, indent),
    ...methods.map((method) => memberCode(method, found, indent)),
  ];
  const head = `class ${name.text}${base ? ` extends ${base.text}` : ""} {`;
  const place = placeOf(found);
  // What is said of a statement that makes no method is said of the class.
  const said = goes.filter((one) => !methods.some(({ at }) => one.holds(at))).map((one) => commentsOf(one));
  const comments = place.same(statement)
    ? said.filter((one) => one !== "").map((one) => `${one}\n${own}`)
    : [];
  const code = `${comments.join("")}${head}\n${members.join("\n\n")}\n${own}}`;
  return [{ start: statement.start, end: statement.end, text: code }, ...goes.map(withoutStatement)];
}

/** The comments above a statement and behind it. */
function commentsOf(statement: SyntaxNode): string {
  const start = startWithComments(statement);
  const above = statement.tree.text.slice(start, statement.start).trim();
  return [above, commentBehind(statement)].filter((one) => one !== "").join("\n");
}

function classesCode(match: Match): Segment[] {
  const edits = familyIn(match)
    .flatMap(classCode)
    .sort((a, b) => a.start - b.start);
  const [first, last] = [match.nodes[0]!, match.nodes.at(-1)!];
  return [copy(first.start, last.end, merged(edits, last.end))];
}

/** A statement that goes, with its comments and the blank lines ahead of it. */
function withoutStatement(statement: SyntaxNode): Edit {
  const { tree } = statement;
  const start = startWithComments(statement);
  const line = tree.lineStart(tree.lineAt(start));
  const blank = /(?:[ \t]*\r?\n)*$/.exec(tree.text.slice(0, line))![0];
  const behind = /^[^\n]*/.exec(tree.text.slice(statement.end))![0];
  const isAlone =
    tree.text.slice(line, start).trim() === "" &&
    (behind.trim() === "" || commentBehind(statement) !== "" || behind.trim() === ";");
  return isAlone
    ? {
        start: line - blank.length,
        end: statement.end + behind.replace(/\r$/, "").length,
        text: "",
      }
    : { start: statement.start, end: statement.end, text: "" };
}

/** Edits that touch become one; none goes beyond what is rewritten. */
function merged(edits: readonly Edit[], end: number): Edit[] {
  const result: Edit[] = [];
  for (const edit of edits) {
    const last = result.at(-1);
    const cut = { ...edit, end: Math.min(edit.end, end) };
    if (last && cut.start < last.end) cut.start = last.end;
    if (cut.start < cut.end || cut.text !== "") result.push(cut);
  }
  return result;
}

const about = (must: string, ask: (found: OldClass, family: readonly OldClass[]) => Answer) =>
  condition(must, (match) => {
    const family = familyIn(match);
    const [first, ...rest] = family.map((found) => ask(found, family));
    return weakest([first!, ...rest]);
  });

const js = trialsIn("javascript");

export const classFromPrototype = rule({
  id: "javascript/class-from-prototype",
  kind: "idiom",
  title: "Write a class in place of a constructor function and its prototype",
  why: "What belongs together is scattered over many statements, and inheritance is set up by hand.",
  was: ofKind(fn, { together }),
  mentions: ["prototype"],
  target: "2015",
  given: [
    about("all that is done to the prototype is understood", ({ refused }) =>
      refused
        ? no("form.fits", refused.why, refused.at)
        : yes("form.fits", "all that is done to the prototype is understood"),
    ),
    about("it is only used with `new`", isOnlyConstructed),
    about("it is declared before it is used", (found) =>
      isUsedBehind({
        name: found.name,
        uses: referencesOf(found.to).filter(({ node }) => !found.statement.holds(node)),
        block: placeOf(found).parent!,
        from: found.statement.end,
      }),
    ),
    about("the parent's constructor is called first", callsParent),
    about("the parent is there", parentIsThere),
    about("nothing walks its objects with for…in", ({ methods, name }) => isNotWalked(name, methods.length)),
    about("the code is strict", ({ fn: constructor }) => isStrict(constructor)),
    about("no other script uses it", ({ to, name }) => isNoGlobal(to, name)),
    about(
      "all its uses are known",
      ({ to, name }) =>
        usesOf(to).doubts[0] ?? yes("name.other-uses", `all uses of \`${name.text}\` are known`, name),
    ),
  ],
  becomes: classesCode,
  trials: [
    js.rewrites(
      `
      "use strict";
      require("fs");
      function Hive(age) {
        this.age = age;
      }

      // In kilograms.
      Hive.prototype.weigh = function (box) {
        return this.age + box;
      };

      Hive.prototype.name = function name() { return "hive"; };

      f(new Hive(1));
      `,
      `
      "use strict";
      require("fs");
      class Hive {
        constructor(age) {
          this.age = age;
        }

        // In kilograms.
        weigh(box) {
          return this.age + box;
        }

        name() { return "hive"; }
      }

      f(new Hive(1));
      `,
      "likely",
    ),
    js.rewrites(
      `
      import util from "util";
      import { Box } from "./box.js";
      var Hive = function (age) {
        Box.call(this, age, 2);
        this.age = age;
      };
      util.inherits(Hive, Box);
      Hive.prototype.weigh = function () {
        return Box.prototype.weigh.apply(this, arguments) + Box.prototype.lid.call(this);
      };
      Hive.make = function () { return new Hive(1); };
      Hive.count = 3;
      `,
      `
      import { Box } from "./box.js";
      class Hive extends Box {
        constructor(age) {
          super(age, 2);
          this.age = age;
        }

        weigh() {
          return super.weigh(...arguments) + super.lid();
        }

        static make() { return new Hive(1); }
      }
      Hive.count = 3;
      `,
      "likely",
    ),
    js.rewrites(
      `
      export function Hive() {}
      Hive.prototype = {
        constructor: Hive,
        weigh: function () { return 1; },
        get age() { return 2; },
      };
      `,
      `
      export class Hive {
        weigh() { return 1; }

        get age() { return 2; }
      }
      `,
      "likely",
    ),
    js.rewrites(
      `
      import { Box } from "./box.js";
      function Hive() {
        Box.apply(this, arguments);
      }
      Hive.prototype = Object.create(Box.prototype);
      Hive.prototype.constructor = Hive;
      Hive.prototype.weigh = async function () {};
      export { Hive };
      `,
      `
      import { Box } from "./box.js";
      class Hive extends Box {
        constructor() {
          super(...arguments);
        }

        async weigh() {}
      }
      export { Hive };
      `,
      "likely",
    ),
    js.rewrites(
      `
      import { inherits } from "util";
      function Box() {
        this.a = 1;
      }
      Box.prototype.lid = function () {};
      function Hive() {
        Box.call(this);
      }
      // A hive is a box.
      inherits(Hive, Box);
      Hive.prototype.lid = function () { Box.prototype.lid.call(this); };
      `,
      `
      class Box {
        constructor() {
          this.a = 1;
        }

        lid() {}
      }
      // A hive is a box.
      class Hive extends Box {
        constructor() {
          super();
        }

        lid() { super.lid(); }
      }
      `,
      "likely",
    ),
    // What stays would come behind what moves up.
    js.holds(
      '"use strict";\nrequire("fs");\nfunction A() {}\nA.prototype.k = other;\nA.prototype.k = function () { return 1; };',
      "would come before",
    ),
    js.holds(
      '"use strict";\nrequire("fs");\nfunction A() {}\nObject.assign(A.prototype, mixin);\nA.prototype.k = function () { return 1; };',
      "would come before",
    ),
    js.holds(
      '"use strict";\nrequire("fs");\nfunction A() {}\nA.made = 0;\nA.prototype.n = 1;\nA.prototype = { k: function () { return 1; } };',
      "would come before",
    ),
    js.holds("function Hive() {}\nHive.prototype.a = function () {};\nHive();", "without `new`"),
    js.holds(
      "function Hive() { if (!(this instanceof Hive)) return new Hive(); }\nHive.prototype.a = function () {};",
      "new",
    ),
    js.holds("new Hive();\nfunction Hive() {}\nHive.prototype.a = function () {};", "before it is declared"),
    js.holds(
      "function Hive() {}\nHive.prototype = Object.create(Box.prototype);\nHive.prototype.a = function () {};",
      "not called so far",
    ),
    js.holds(
      "function Hive() { this.a = 1; Box.call(this); }\nHive.prototype = Object.create(Box.prototype);\nHive.prototype.a = function () {};",
      "used before",
    ),
    js.holds("function Hive() {}\nHive.prototype.a = function () {};\nHive.call(x);", "for another object"),
    js.holds("function Hive() {}\nHive.prototype.a = function () {};\nHive.name = 1;", "is given a value"),
    js.ignores("function Hive() {}\nHive.prototype.a = 1;"),
    js.ignores("function Hive() {}\nHive.prototype.a = () => this.b;"),
    js.ignores("function Hive() {}\nif (x) { Hive.prototype.a = function () {}; }"),
    js.ignores("function Hive() {}\nHive.a = 1;"),
    trialsIn("javascript", "5").ignores("function Hive() {}\nHive.prototype.a = function () {};"),
  ],
});
