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
} from "../../../core.js";
import { trialsIn, unknown, weakest, yes } from "../../../core.js";
import type { Answer, Edit, Match, Rule, Segment, SyntaxNode } from "../../../core.js";
import { isNoGlobal } from "../variables/global.js";
import { settings, type Settings } from "./call-settings.js";
import { familyOf, madeBy, placeOf, type Made } from "./made-class.js";
import { membersOf, PLAIN } from "./made-members.js";
import { memberName } from "./method.js";
import { isNotWalked, isStrict } from "./strict.js";

const { call } = holes({ call: { kind: "expression", node: "call_expression" } });

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
      about("nothing walks its objects with for…in", (made) =>
        isNotWalked(made.object, made.object.parts.length),
      ),
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
    "likely",
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
