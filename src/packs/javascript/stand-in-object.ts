import {
  caution,
  condition,
  holes,
  isOnPrimitives,
  javascript,
  rule,
  shortened,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match } from "../../core.js";
import { withParentheses } from "../family/parentheses.js";

const { subject, name, position } = holes({
  subject: "expression",
  name: "name",
  position: { kind: "expression", text: /^\d+$/ },
});

/** A read by itself: not called or gone on from, where `?.` would leave out more, and nothing that is written to. */
function isEndOfRead(match: Match): boolean {
  if (match.has(name) && !match.the(name).is("property_identifier")) return false;
  const { parent, field, tree } = withParentheses(match.node);
  if (!parent) return true;
  const { calls, memberReads, indexReads, flow } = tree.language;
  if (parent.is(calls)) return field === "arguments";
  if (parent.is([...memberReads, ...indexReads])) return field !== "object";
  if (parent.is(["non_null_expression", "array_pattern", "pair_pattern", "rest_pattern"])) return false;
  if (parent.is("update_expression") || (parent.is("unary_expression") && parent.has("delete"))) return false;
  const isWriting =
    flow.assignments[parent.kind] !== undefined || parent.is(["for_in_statement", "assignment_pattern"]);
  return !isWriting || field !== "left";
}

const isOnEmptyObjects = (match: Match): boolean => match.has(name) && isOnPrimitives(match.textOf(name));

function givesNothing(match: Match): Answer {
  if (!match.has(name)) return yes("value.result", "an empty list has no items");
  const property = match.the(name);
  return isOnEmptyObjects(match)
    ? unknown("value.result", `an empty object has \`${property.text}\` too, and undefined has not`, property)
    : yes("value.result", `an empty object, 0, "" and false have no \`${property.text}\``, property);
}

const { rewrites, ignores } = trialsIn("javascript");

export const standInObject = rule({
  id: "javascript/stand-in-object",
  kind: "idiom",
  title: "Use ?. instead of an empty object as a stand-in",
  why: "An object is made only so that there is something to read from, and the reader has to see that it is empty.",
  target: "2020",
  was: [
    javascript.expression`(${subject} || {}).${name}`,
    javascript.expression`(${subject} ?? {}).${name}`,
    javascript.expression`(${subject} || [])[${position}]`,
    javascript.expression`(${subject} ?? [])[${position}]`,
  ],
  where: [isEndOfRead],
  given: [condition("what stands in has nothing of the name", givesNothing, { unknownIs: "possible" })],
  cautions: (match) =>
    isOnEmptyObjects(match)
      ? [
          caution(
            "value.result",
            `when \`${shortened(match.textOf(subject))}\` is missing, the old result was that of an empty object and the new one is undefined`,
          ),
        ]
      : [],
  becomes: (match) =>
    match.has(name)
      ? javascript.expression`${subject}?.${name}`
      : javascript.expression`${subject}?.[${position}]`,
  trials: [
    rewrites("const n = (hive || {}).name;", "const n = hive?.name;"),
    rewrites("const n = (hive.queen ?? {}).name || 'none';", "const n = hive.queen?.name || 'none';"),
    rewrites("const n = (find(xs, 1) || {}).name;", "const n = find(xs, 1)?.name;"),
    rewrites("const n = (xs || [])[0];", "const n = xs?.[0];"),
    rewrites("const n = ((hive || {}).queen || {}).name;", "const n = hive?.queen?.name;"),
    rewrites("const n = (a || b || {}).name;", "const n = (a || b)?.name;"),
    rewrites("const n = (await load() || {}).name;", "const n = (await load())?.name;"),
    rewrites("const n = (/* maybe */ hive || {}).name;", "const n = /* maybe */ hive?.name;"),
    rewrites("const n = (hive || {}).constructor;", "const n = hive?.constructor;", "possible"),
    rewrites("if ((hive || {}).length > 3) swarm();", "if (hive?.length > 3) swarm();", "possible"),
    // What goes on from there failed where there was nothing, and would not.
    ignores("const n = (hive || {}).queen.name;"),
    ignores("const n = (hive || {}).weigh();"),
    ignores("const n = new (hive || {}).Maker();"),
    ignores("((hive || {}).name) = 1;"),
    ignores("((hive || {}).weigh)();"),
    ignores("class A { #p; f(hive) { return (hive || {}).#p; } }"),
    trialsIn("typescript").ignores("const n = (hive || {}).queen!.name;"),
    ignores("(hive || {}).name = 1;"),
    ignores("delete (hive || {}).name;"),
    ignores("(hive || {}).n++;"),
    ignores("const n = (hive || { name: 1 }).name;"),
    ignores("const n = (hive && {}).name;"),
    ignores("const n = (xs || []).length;"),
    ignores("[(hive || {}).name] = xs;"),
    ignores("for ((hive || {}).name of xs) mark();"),
    ignores("({ a: (hive || {}).name } = xs);"),
  ],
});
