import { condition, holes, python, rule, sideEffectFree, trialsIn, type Match, yes } from "../../index.js";
import { LINE_LIMIT } from "./limits.js";

const { value, target, fallback } = holes({
  value: "expression",
  target: "expression",
  fallback: "expression",
});

/** Old branch form and new expression form, pair by pair. */
const FORMS = [
  {
    was: python`
      if ${value}:
          ${target} = ${value}
      else:
          ${target} = ${fallback}
    `,
    becomes: python`${target} = ${value} or ${fallback}`,
  },
  {
    was: python`
      if not ${value}:
          ${target} = ${fallback}
      else:
          ${target} = ${value}
    `,
    becomes: python`${target} = ${value} or ${fallback}`,
  },
  {
    was: python`
      if ${value} is not None:
          ${target} = ${value}
      else:
          ${target} = ${fallback}
    `,
    becomes: python`${target} = ${value} if ${value} is not None else ${fallback}`,
  },
  {
    was: python`
      if ${value} is None:
          ${target} = ${fallback}
      else:
          ${target} = ${value}
    `,
    becomes: python`${target} = ${fallback} if ${value} is None else ${value}`,
  },
];
const BY_TRUTH = [0, 1];

function fitsOneLine(match: Match): boolean {
  const pieces = [target, value, fallback].map((hole) => match.textOf(hole));
  const twice = BY_TRUTH.includes(match.alternative) ? 0 : pieces[1]!.length + " is not None".length;
  const indent = match.tree.indentAt(match.found.start).length;
  const length = indent + pieces.join("").length + twice + " = ".length + " if  else ".length;
  return length <= LINE_LIMIT && !pieces.some((piece) => piece.includes("\n"));
}

const once = sideEffectFree(value);
const { rewrites, ignores, holds } = trialsIn("python");

export const branchToValue = rule({
  id: "python/branch-to-value",
  kind: "idiom",
  title: "Choose between a value and its default in one expression",
  why: "Four lines that assign the same variable twice hide that only its value is being chosen.",
  was: FORMS.map((form) => form.was),
  where: [fitsOneLine, (match) => !/ if | else |\blambda\b|\byield\b|\bawait\b/.test(match.textOf(fallback))],
  given: [
    condition(once.must + ", where it is evaluated once instead of twice", (match) =>
      BY_TRUTH.includes(match.alternative)
        ? once.ask(match)
        : yes("effect.evaluated", `\`${match.textOf(value)}\` is evaluated as often as before`),
    ),
  ],
  becomes: (match) => FORMS[match.alternative]!.becomes,
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
    ignores(`
      if a:
          x = a
          log(x)
      else:
          x = 0
    `),
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
  ],
});
