import {
  classesNamed,
  condition,
  holes,
  rule,
  shortened,
  switched,
  targetAllows,
  text,
  trialsIn,
  typeOf,
} from "../../../core.js";
import { unknown, yes } from "../../../core.js";
import type { Answer, Match } from "../../../core.js";
import { asExpression } from "../../family/switch-values.js";
import { areOfOneType } from "./one-type.js";
import { asSubject } from "./subject.js";

const { subject } = holes({ subject: "expression" });

const PLAIN = /^(?:int|string|char|bool|long|byte|short|uint|ulong|ushort|sbyte)\??$/;

/** A `switch` statement converts what it asks by the operators of its class; the expression takes it as it is. */
function isAskedAsItIs(match: Match): Answer {
  const code = "type.operator";
  const node = match.the(subject);
  const type = typeOf(node)?.name;
  const isPlain = type !== undefined && (PLAIN.test(type) || isEnum(type, match));
  if (isPlain) return yes(code, `\`${shortened(node.text)}\` is a \`${type}\``, node);
  const says = `\`${shortened(node.text)}\` could be of a class that is converted to what the constants are`;
  return unknown(code, says, node);
}

/** Is a type an enum of the project, and nothing else? */
function isEnum(type: string, { tree }: Match): boolean {
  const { classes, otherwise } = classesNamed(tree, type);
  return (
    otherwise === undefined && classes.length > 0 && classes.every((one) => one.kind === "enum_declaration")
  );
}

function isOfOneType(match: Match): Answer {
  const { node, switched: found } = match;
  const { arms, declared, target } = found;
  const values = arms.flatMap(({ gives, throws }) => (throws ? [] : [gives]));
  const empty = values.find((one) => one.is("null_literal"));
  // Null and a number have no type in common, and older compilers ask for one.
  if (
    empty &&
    !targetAllows("9.0", match) &&
    !values.every((one) => one.is(["null_literal", "string_literal"]))
  )
    return unknown("type.same", "`null` may have no type in common with the values beside it", empty);
  const statement = declared ?? (target ? undefined : arms.find(({ throws }) => !throws)!.gives.parent);
  return areOfOneType(values, statement, node);
}

const { rewrites, ignores } = trialsIn("csharp", "9.0");
const inMethod = (code: string): string =>
  `enum Taste { Sweet, Sour }\nclass A\n{\n    string F(int a, Taste t, object o)\n    {\n        ${code.replaceAll("\n", "\n        ")}\n    }\n}\n`;

export const switchValue = rule({
  id: "csharp/switch-value",
  kind: "idiom",
  title: "Use a switch expression for a switch that only gives a value",
  why: "Each case repeats where its value goes, and half of the lines only say that it ends.",
  target: "8.0",
  was: switched(subject),
  given: [
    condition("constants are compared as the language compares them", isAskedAsItIs),
    condition("all values are of one type", isOfOneType),
  ],
  becomes: (match) =>
    asExpression(match, {
      head: (asked) => [...asSubject(asked), text(" switch")],
      label: { before: "", between: " or ", otherwise: "_" },
      arrow: " => ",
      end: ",",
      lastEnd: "",
      throwsAsStatement: false,
    }),
  trials: [
    rewrites(
      inMethod(
        'switch (a)\n{\n    case 1:\n    case 2:\n        return "x";\n    case 3:\n        return "y";\n    default:\n        throw new E();\n}',
      ),
      inMethod('return a switch\n{\n    1 or 2 => "x",\n    3 => "y",\n    _ => throw new E()\n};'),
    ),
    rewrites(
      inMethod(
        'switch (t)\n{\n    case Taste.Sweet: return "x"; // clover\n    case Taste.Sour: return G(a);\n}\nreturn null;',
      ),
      inMethod(
        'return t switch\n{\n    Taste.Sweet => "x", // clover\n    Taste.Sour => G(a),\n    _ => null\n};',
      ),
    ),
    rewrites(
      inMethod(
        'string y;\nswitch (a + 1) {\n    default:\n        y = "d";\n        break;\n    case 1:\n        y = "x";\n        break;\n    case 2:\n        y = "z";\n        break;\n}\nreturn y;',
      ),
      inMethod('string y = (a + 1) switch {\n    1 => "x",\n    2 => "z",\n    _ => "d"\n};\nreturn y;'),
      "likely",
    ),
    rewrites(
      "class A { void F(int a) { char y; switch (a) { case 1: y = 'x'; break; case 2: y = 'z'; break; default: y = 'd'; break; } G(y); } }",
      "class A { void F(int a) { char y = a switch { 1 => 'x', 2 => 'z', _ => 'd' }; G(y); } }",
    ),
    rewrites(
      'class A { string F(Taste t) { switch (t) { case Taste.Sweet: return "x"; case Taste.Sour: return "y"; default: return null; } } }',
      'class A { string F(Taste t) { return t switch { Taste.Sweet => "x", Taste.Sour => "y", _ => null }; } }',
      "likely",
    ),
    rewrites(
      'class A { string F(Tone t) { switch (t) { case Tone.Low: return "x"; case Tone.High: return "y"; default: return null; } } }\nclass Tone { public const int Low = 1, High = 2; public static implicit operator int(Tone t) { return 1; } }',
      'class A { string F(Tone t) { return t switch { Tone.Low => "x", Tone.High => "y", _ => null }; } }\nclass Tone { public const int Low = 1, High = 2; public static implicit operator int(Tone t) { return 1; } }',
      "likely",
    ),
    // The values are made one type, or the constants are not those of the language.
    rewrites(
      "class A { object F(int a) { switch (a) { case 1: return 1; case 2: return 2.5; default: return null; } } }",
      "class A { object F(int a) { return a switch { 1 => 1, 2 => 2.5, _ => null }; } }",
      "likely",
    ),
    rewrites(
      inMethod('switch (o) { case 1: return "x"; case 2: return "z"; default: return "d"; }'),
      inMethod('return o switch { 1 => "x", 2 => "z", _ => "d" };'),
      "likely",
    ),
    trialsIn("csharp", "8.0").rewrites(
      "class A { int? F(int a) { switch (a) { case 1: return 1; case 2: return 2; default: return null; } } }",
      "class A { int? F(int a) { return a switch { 1 => 1, 2 => 2, _ => null }; } }",
      "likely",
    ),
    trialsIn("csharp", "8.0").ignores(
      inMethod('switch (a) { case 1: case 2: return "x"; case 3: return "z"; default: return "d"; }'),
    ),
    ignores(inMethod('switch (o) { case int n: return "x"; case 2: return "z"; default: return "d"; }')),
    ignores(
      inMethod('switch (a) { case 1 when G(a): return "x"; case 2: return "z"; default: return "d"; }'),
    ),
    ignores(
      inMethod(
        'switch (a) { case 1: goto case 2; case 2: return "z"; case 3: return "x"; default: return "d"; }',
      ),
    ),
    ignores(inMethod('switch (a) { case 1: return "x"; case 2: return "z"; }\nG(a);\nreturn null;')),
    ignores(
      inMethod(
        'switch (a) { case 1: x.Y = "x"; break; case 2: x.Y = "z"; break; default: x.Y = "d"; break; }',
      ),
    ),
    trialsIn("csharp", "7.3").ignores(
      inMethod('switch (a) { case 1: return "x"; case 2: return "z"; default: return "d"; }'),
    ),
  ],
});
