import {
  choice,
  condition,
  copy,
  holes,
  jumpOf,
  no,
  present,
  rule,
  text,
  trialsIn,
  truthy,
  yes,
} from "../../core.js";
import type { Answer, Match, Segment } from "../../core.js";
import { testedOnce } from "../family/conditions.js";
import { mostInLine } from "../family/limits.js";

const { value, fallback } = holes({
  value: "expression",
  fallback: { kind: "expression", text: /^(?!.*( if | else |\blambda\b|\byield\b|\bawait\b))/ },
});

const byTruth = (match: Match): boolean => match.tests[0]!.asks === "truth";

/** The old test with both values in one expression; by truth the value says it all. */
function inOneExpression(match: Match): Segment[] {
  const { test, yes: then, no: otherwise } = match.choice;
  const whole = ({ start, end }: { start: number; end: number }): Segment => copy(start, end);
  if (byTruth(match)) return [whole(match.the(value)), text(" or "), whole(match.the(fallback))];
  return [whole(then), text(" if "), whole(test), text(" else "), whole(otherwise)];
}

function fitsOneLine(match: Match): Answer {
  const { tree, found, place } = match;
  const pieces = inOneExpression(match).map((piece) =>
    "text" in piece ? piece.text : tree.text.slice(piece.start, piece.end),
  );
  const length =
    tree.indentAt(found.start).length + place.start - tree.firstOnLine(place.start) + pieces.join("").length;
  if (pieces.some((piece) => piece.includes("\n")))
    return no("form.fits", "one of the values stands on several lines", match.node);
  const most = mostInLine(match);
  return length <= most
    ? yes("form.fits", "it fits on one line")
    : no("form.fits", `the line would be ${length} characters long, of ${most} at most`, match.node);
}

const once = testedOnce();
const { rewrites, ignores, holds } = trialsIn("python");

export const branchToValue = rule({
  id: "python/branch-to-value",
  kind: "idiom",
  title: "Use one expression for a value and its default",
  why: "Four lines that assign the same variable twice hide that only its value is being chosen.",
  was: [choice(truthy(value), value, fallback), choice(present(value), value, fallback)],
  where: [
    (match) => match.found.isStatements || byTruth(match),
    // The test is written anew: of a name that was just given the value it would speak too early, and a guard that returns
    // reads as well as what would come of it.
    (match) =>
      byTruth(match) ||
      (!match.choice.alias && !match.choice.asked && jumpOf(match.choice.frame!.statement) === undefined),
  ],
  given: [
    condition("it fits on a line", fitsOneLine),
    condition(`${once.must}, where it is evaluated once`, (match) =>
      byTruth(match)
        ? once.ask(match)
        : yes("effect.evaluated", `\`${match.textOf(value)}\` is evaluated as often as before`),
    ),
  ],
  becomes: inOneExpression,
  trials: [
    rewrites(
      `
      if keeper:
          name = keeper
      else:
          name = "unknown"
      `,
      `
      name = keeper or "unknown"
      `,
    ),
    rewrites(
      `
      if weight is not None:  # zero is a weight
          shown = weight
      else:
          shown = 1
      `,
      `
      # zero is a weight
      shown = weight if weight is not None else 1
      `,
    ),
    rewrites(
      `
      if find(1) is None:
          self.queen = None
      else:
          self.queen = find(1)
      `,
      `
      self.queen = None if find(1) is None else find(1)
      `,
    ),
    rewrites(
      `
      if not self.note:
          note = "-"
      else:
          note = self.note
      `,
      `
      note = self.note or "-"
      `,
      "likely",
    ),
    rewrites(
      `
      if a and b:
          c = a and b
      else:
          c = d
      `,
      `
      c = a and b or d
      `,
      "likely",
    ),
    holds(
      `
      if take():
          x = take()
      else:
          x = 0
      `,
      "calls something",
    ),
    ignores("n = weigh()\nif n is None:\n    n = 0\n"),
    rewrites("n = weigh()\nif not n:\n    n = 0\n", "n = weigh() or 0\n"),
    rewrites("def f(a):\n    if a:\n        return a\n    return 1\n", "def f(a):\n    return a or 1\n"),
    ignores("def f(a):\n    if a is not None:\n        return a\n    return 1\n"),
    ignores(`
      if a:
          x = a
      elif b:
          x = b
      else:
          x = 0
    `),
    ignores(`
      if a:
          x = a
      else:
          y = 0
    `),
    holds(
      `
      if a:
          x = a
          log(x)
      else:
          x = 0
    `,
      "is done as well",
    ),
    ignores(`
      if a:
          x = a
      else:
          x = 1, 2
    `),
    ignores(`
      if a:
          x = a
      else:
          x = y = 2
    `),
    ignores(`
      match a:
          case None:
              x = 1
          case _:
              x = a
    `),
  ],
});
