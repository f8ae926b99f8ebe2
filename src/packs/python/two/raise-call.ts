import {
  condition,
  copy,
  holes,
  no,
  ofKind,
  rule,
  text,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";

const { statement } = holes({ statement: { kind: "statement", node: "raise_statement" } });

/** The class, its value, and perhaps a traceback: `raise ValueError, "no queen"`. */
function partsOf(node: SyntaxNode): SyntaxNode[] | undefined {
  const list = node.firstPart?.is("expression_list") ? node.firstPart.parts : [];
  const isOld = list[0]?.is(["identifier", "attribute"]) === true && list.length >= 2 && list.length <= 3;
  return isOld ? list : undefined;
}

/** A value that is a tuple was taken for several, None for none, and an exception for the one to raise. */
function isOneValue(match: Match): Answer {
  const value = partsOf(match.the(statement))![1]!;
  const code = "value.kind";
  const shown = `\`${value.text.split("\n")[0]!}\``;
  if (value.is("none")) return no(code, `${shown} stands for no value at all`, value);
  if (value.is("tuple")) return no(code, `what ${shown} holds would have to become the arguments`, value);
  const type = typeOf(value)?.name;
  const isText =
    value.is(["string", "concatenated_string", "integer", "float"]) ||
    (value.is("binary_operator") && value.firstPart!.is(["string", "concatenated_string"])) ||
    (type !== undefined && ["str", "int", "float", "bytes"].includes(type));
  return isText
    ? yes(code, `${shown} is what the exception is made with`, value)
    : unknown(code, `${shown} could be a tuple, None, or an exception already`, value);
}

function called(match: Match): Segment[] {
  const [type, value, traceback] = partsOf(match.the(statement))!;
  const node = match.the(statement);
  const rest = traceback ? [text(".with_traceback("), copy(traceback.start, traceback.end), text(")")] : [];
  return [copy(node.start, type!.end), text("("), copy(value!.start, value!.end), text(")"), ...rest];
}

const { rewrites, ignores, holds } = trialsIn("python");

export const raiseCall = rule({
  id: "python/raise-call",
  kind: "breaks",
  title: "Raise an exception that is made by a call",
  why: "Python 3 has no other form, and takes the comma for a mistake.",
  was: ofKind(statement, { when: (node) => partsOf(node) !== undefined, together: (node) => [node] }),
  mentions: ["raise"],
  target: "3",
  given: [condition("the exception is made with that value", isOneValue)],
  becomes: called,
  trials: [
    rewrites('raise ValueError, "no queen"\n', 'raise ValueError("no queen")\n'),
    rewrites('raise hive.Lost, "at %s" % place  # found\n', 'raise hive.Lost("at %s" % place)  # found\n'),
    holds("raise Lost, (1, 2)\n", "become the arguments"),
    rewrites("raise Lost, why\n", "raise Lost(why)\n", "likely"),
    rewrites("raise Lost, why, trace\n", "raise Lost(why).with_traceback(trace)\n", "likely"),
    holds("raise Lost, None, trace\n", "no value at all"),
    ignores("raise Lost\n"),
    ignores('raise Lost("at home")\n'),
    ignores("raise Lost from error\n"),
  ],
});
