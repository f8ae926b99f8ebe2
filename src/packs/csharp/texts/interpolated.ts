import {
  condition,
  holes,
  isSideEffectFree,
  no,
  ofKind,
  rule,
  shortened,
  text,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { isOfNamespace } from "../system.js";

const { call } = holes({ call: { kind: "expression", node: "invocation_expression" } });

/** A text with places for values, and the values. */
interface Formatted {
  readonly format: SyntaxNode;
  readonly values: readonly SyntaxNode[];
  /** Is it the text itself, or what a call prints? */
  readonly callee: string;
}

const CALLEES = /^(?:(?:System\.)?[Ss]tring\.Format|(?:System\.)?Console\.(?:Write|WriteLine))$/;

function formattedAt(node: SyntaxNode): Formatted | undefined {
  const callee = node.child("function")?.text.replace(/\s/g, "") ?? "";
  const [format, ...values] = node.child("arguments")?.parts ?? [];
  if (!CALLEES.test(callee) || !format || values.length === 0) return undefined;
  const isLiteral = format.is(["string_literal", "verbatim_string_literal"]);
  return isLiteral && [format, ...values].every((one) => !one.is("argument"))
    ? { format, values, callee }
    : undefined;
}

const PLACE = /\{\{|\}\}|\{(\d+)((?:\s*,\s*-?\d+)?)((?::[^{}]*)?)\}|[{}]/g;

/** The number of the value at each place; undefined where the text is not one that the library takes. */
function placesIn({ format, values }: Formatted): number[] | undefined {
  const places: number[] = [];
  for (const [whole, number] of format.text.matchAll(PLACE)) {
    if (whole === "{" || whole === "}") return undefined;
    if (number !== undefined) places.push(Number(number));
  }
  return places.length > 0 && places.every((one) => one < values.length) ? places : undefined;
}

const fits = (node: SyntaxNode): boolean => {
  const read = formattedAt(node);
  return read !== undefined && placesIn(read) !== undefined;
};

/** Values are worked out once and in their order, and each has its place. */
function isWorkedOutAlike(match: Match): Answer {
  const read = formattedAt(match.the(call))!;
  const places = placesIn(read)!;
  for (const [n, value] of read.values.entries()) {
    const times = places.filter((one) => one === n).length;
    if (times === 1) continue;
    const free = isSideEffectFree(value);
    if (free.is === "no")
      return no(
        "effect.evaluated",
        `\`${shortened(value.text)}\` would be worked out ${times === 0 ? "no more" : `${times} times`}`,
        value,
      );
    if (free.is === "unknown") return free;
  }
  const first = places.filter((one, n) => places.indexOf(one) === n);
  const isInOrder = first.every((one, n) => n === 0 || one > first[n - 1]!);
  const called = read.values.find((value) => isSideEffectFree(value).is !== "yes");
  return isInOrder || !called
    ? yes("effect.evaluated", "every value is worked out as before")
    : unknown("flow.order", `\`${shortened(called.text)}\` is worked out in another order`, called);
}

/** One value that is a list of objects stands for all places. */
function isOneValue(match: Match): Answer {
  const { values } = formattedAt(match.the(call))!;
  const [only, ...more] = values;
  if (more.length > 0 || !only) return yes("value.kind", "there are several values");
  const type = typeOf(only);
  const isPlain =
    type !== undefined ||
    only.is([
      "binary_expression",
      "string_literal",
      "interpolated_string_expression",
      "integer_literal",
      "conditional_expression",
    ]);
  if (type?.name.endsWith("[]"))
    return no("value.kind", `\`${shortened(only.text)}\` is a list, which stands for all places`, only);
  return isPlain
    ? yes("value.kind", `\`${shortened(only.text)}\` is one value`, only)
    : unknown(
        "value.kind",
        `\`${shortened(only.text)}\` could be a list of objects, which stands for all places`,
        only,
      );
}

/** Some code cannot stand in a text. */
function mayStand(match: Match): Answer {
  const { format, values } = formattedAt(match.the(call))!;
  const odd = values.find(
    (one) =>
      /[\n{}]|\/\/|\/\*/.test(one.text) ||
      one.is([
        "null_literal",
        "lambda_expression",
        "assignment_expression",
        "anonymous_method_expression",
        "default_expression",
      ]) ||
      (format.is("verbatim_string_literal") && one.text.includes('"')),
  );
  return odd
    ? no("form.fits", `\`${shortened(odd.text)}\` cannot stand in a text`, odd)
    : yes("form.fits", "all values can stand in the text");
}

function isLibrary(match: Match): Answer {
  const { callee } = formattedAt(match.the(call))!;
  const owner = callee.replace(/\.\w+$/, "").replace(/^System\./, "");
  return owner === "string"
    ? yes("name.library", "`string` is the language's")
    : isOfNamespace(owner, "System", match.the(call).child("function")!);
}

function interpolated(match: Match): string {
  const { format, values, callee } = formattedAt(match.the(call))!;
  const body = format.text.replace(
    PLACE,
    (whole, number: string | undefined, width: string, spec: string) => {
      if (number === undefined) return whole;
      const value = values[Number(number)]!;
      const needs =
        value.is([
          "conditional_expression",
          "switch_expression",
          "query_expression",
          "is_pattern_expression",
        ]) || value.text.includes("::");
      return `{${needs ? `(${value.text})` : value.text}${width}${spec}}`;
    },
  );
  const whole = `$${body}`;
  return /ormat$/.test(callee) ? whole : `${match.the(call).child("function")!.text}(${whole})`;
}

const { rewrites, ignores, holds } = trialsIn("csharp");
const inMethod = (code: string): string =>
  `using System;\n\nclass A\n{\n    int n;\n    string F(string jar, int age, object[] all)\n    {\n        ${code}\n    }\n}\n`;

export const interpolatedText = rule({
  id: "csharp/interpolated",
  kind: "idiom",
  title: "Use an interpolated string instead of a format call",
  why: "Numbers in braces must be counted against a list, and the compiler does not count.",
  target: "6.0",
  was: ofKind(call, { when: fits }),
  mentions: ["Format", "Console"],
  given: [
    condition("it is the library's", isLibrary),
    condition("values are worked out as before", isWorkedOutAlike),
    condition("one value is no list of values", isOneValue),
    condition("all values can stand in the text", mayStand),
  ],
  becomes: (match) => [text(interpolated(match))],
  trials: [
    rewrites(
      inMethod('return string.Format("{0} is {1:N2}, {{x}}", jar, age);'),
      inMethod('return $"{jar} is {age:N2}, {{x}}";'),
    ),
    rewrites(
      inMethod('return String.Format("{1,-5}|{0}|{1}", jar, age);'),
      inMethod('return $"{age,-5}|{jar}|{age}";'),
    ),
    rewrites(
      inMethod('Console.WriteLine("{0} jars", age > 1 ? age : 0);\n        return "";'),
      inMethod('Console.WriteLine($"{(age > 1 ? age : 0)} jars");\n        return "";'),
    ),
    rewrites(inMethod('return string.Format(@"C:\\{0}", jar);'), inMethod('return $@"C:\\{jar}";')),
    rewrites(inMethod('return string.Format("{0}", Find());'), inMethod('return $"{Find()}";'), "likely"),
    rewrites(
      'class A { void F(int n) { Console.WriteLine("{0}", n); } }',
      'class A { void F(int n) { Console.WriteLine($"{n}"); } }',
      "likely",
    ),
    holds(
      inMethod('string[] jars = { "a" };\n        return string.Format("{0}", jars);'),
      "stands for all places",
    ),
    holds(inMethod('return string.Format("{0}", all);'), "stands for all places"),
    holds(inMethod('return string.Format("{0} {0}", n++, jar);'), "worked out"),
    holds(inMethod('return string.Format("{0} {1}", jar, new[] { 1 });'), "cannot stand"),
    ignores(inMethod('return string.Format("{0", jar);')),
    ignores(inMethod('return string.Format("{1}", jar);')),
    ignores(inMethod("return string.Format(jar, age);")),
    ignores(inMethod('return string.Format(CultureInfo.InvariantCulture, "{0}", jar);')),
    ignores(inMethod('return Log.Format("{0}", jar);')),
  ],
});
