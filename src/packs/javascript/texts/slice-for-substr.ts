import {
  condition,
  holes,
  isSideEffectFree,
  javascript,
  no,
  rule,
  shortened,
  text as written,
} from "../../../core.js";
import { copy, trialsIn, unknown, weakest, yes } from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { isCount, calledOn } from "../kinds.js";

const { text, from, length } = holes({ text: "expression", from: "expression", length: "expression" });

/** A whole number as it is written, with its sign. */
function wholeNumber(node: SyntaxNode): number | undefined {
  return /^-?\d+$/.test(node.text) ? Number(node.text) : undefined;
}

/** `substr` counts characters from a place, `slice` goes up to a place: they part where either could be negative. */
function endsAlike(match: Match): Answer {
  if (!match.has(length)) return yes("value.result", "both take all that follows");
  const [start, much] = [match.the(from), match.the(length)];
  const begin = wholeNumber(start);
  const isLong = isCount(match, much);
  if (isLong === false)
    return no("value.result", `\`${much.text}\` is negative, for which \`substr\` gives nothing`, much);
  const long: Answer =
    isLong === true
      ? yes("value.result", `\`${shortened(much.text)}\` is not negative`, much)
      : unknown("value.result", `\`${shortened(much.text)}\` could be negative, or no number`, much);
  if (begin === 0) return long;
  if (begin !== undefined && begin < 0)
    return wholeNumber(much) === undefined
      ? no(
          "value.result",
          `whether \`${shortened(much.text)}\` reaches the end of the text is not known`,
          much,
        )
      : long;
  if (begin !== undefined) return long;
  const once = isSideEffectFree(start);
  if (once.is === "no") return once;
  const starts: Answer =
    isCount(match, start) === true
      ? yes("value.result", `\`${shortened(start.text)}\` is not negative`, start)
      : unknown("value.result", `\`${shortened(start.text)}\` could be negative, or no number`, start);
  return weakest([long, starts, once]);
}

/** The place up to which `slice` goes; undefined for the end of the text. */
function endOf(match: Match): Segment[] | undefined {
  if (!match.has(length)) return undefined;
  const [start, much] = [match.the(from), match.the(length)];
  const [begin, long] = [wholeNumber(start), wholeNumber(much)];
  if (begin !== undefined && long !== undefined) {
    const end = begin + long;
    return begin < 0 && end >= 0 ? undefined : [written(String(end))];
  }
  if (begin === 0) return [copy(much.start, much.end)];
  const bracketed = (node: SyntaxNode): Segment[] =>
    node.is(["identifier", "number", "member_expression", "call_expression"])
      ? [copy(node.start, node.end)]
      : [written("("), copy(node.start, node.end), written(")")];
  return [...bracketed(start), written(" + "), ...bracketed(much)];
}

const js = trialsIn("javascript");

export const sliceForSubstr = rule({
  id: "javascript/slice-for-substr",
  kind: "deprecated",
  title: "Use slice in place of substr",
  why: "substr is kept for old pages only, and takes a length where its neighbours take an end.",
  was: [javascript`${text}.substr(${from})`, javascript`${text}.substr(${from}, ${length})`],
  given: [...calledOn(text, ["string"]), condition("both end in the same place", endsAlike)],
  becomes: (match) => {
    const [object, start] = [match.the(text), match.the(from)];
    const end = endOf(match);
    return [
      copy(object.start, object.end),
      written(".slice("),
      copy(start.start, start.end),
      ...(end ? [written(", "), ...end] : []),
      written(")"),
    ];
  },
  trials: [
    js.rewrites('"abc".substr(1);', '"abc".slice(1);'),
    js.rewrites('"abc".substr(-2);', '"abc".slice(-2);'),
    js.rewrites('"abc".substr(0, 2);', '"abc".slice(0, 2);'),
    js.rewrites('"abc".substr(1, 2);', '"abc".slice(1, 3);'),
    js.rewrites('"abc".substr(-3, 2);', '"abc".slice(-3, -1);'),
    js.rewrites('"abc".substr(-3, 3);', '"abc".slice(-3);'),
    js.rewrites('"abc".substr(-3, 9);', '"abc".slice(-3);'),
    js.rewrites(
      'const s = "abc"; s.substr(0, p.length);',
      'const s = "abc"; s.slice(0, p.length);',
      "likely",
    ),
    js.rewrites('const s = "abc"; s.substr(2, s.length);', 'const s = "abc"; s.slice(2, 2 + s.length);'),
    // What has no length leaves the number out.
    js.rewrites(
      'const s = "abc"; s.substr(2, p.length);',
      'const s = "abc"; s.slice(2, 2 + p.length);',
      "likely",
    ),
    js.rewrites(
      'const s = "abc"; s.substr(p.length, 2);',
      'const s = "abc"; s.slice(p.length, p.length + 2);',
      "likely",
    ),
    js.rewrites('const s = "abc"; s.substr(i, 2);', 'const s = "abc"; s.slice(i, i + 2);', "likely"),
    js.rewrites(
      'const s = "abc"; s.substr(i + 1, a - b);',
      'const s = "abc"; s.slice(i + 1, (i + 1) + (a - b));',
      "likely",
    ),
    js.rewrites('const s = "abc"; s.substr(0, n);', 'const s = "abc"; s.slice(0, n);', "likely"),
    js.rewrites("x.substr(1);", "x.slice(1);", "likely"),
    js.holds('const s = "abc"; s.substr(-2, n);', "reaches the end"),
    js.holds('const s = "abc"; s.substr(0, -1);', "negative"),
    js.holds('const s = "abc"; s.substr(next(), 2);', "calls something"),
    js.holds("class Tape { substr() {} }\nnew Tape().substr(1);", "not a string"),
    js.ignores('"abc".substring(1);'),
    js.ignores('"abc".substr();'),
  ],
});
