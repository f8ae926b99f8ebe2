import {
  caution,
  condition,
  filled,
  filledItem,
  item,
  isValueSeen,
  holes,
  no,
  rule,
  ruby,
  shortened,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match, SyntaxNode } from "../../core.js";
import { asksForNilAlone, isNeverFalse, isReadTwice, readOnce } from "./values.js";

const { place, value } = holes({
  place: {
    kind: "expression",
    node: [
      "identifier",
      "instance_variable",
      "class_variable",
      "global_variable",
      "call",
      "element_reference",
    ],
  },
  value: "expression",
});

const { table, key } = holes({ table: "expression", key: "expression" });

const byTruth = (match: Match): boolean => match.tests[0]!.asks === "truth";

/** Is an item put where its key is not there? */
const asksForKey = (match: Match): boolean => match.tests[0]!.asks === "key";

/** The place that is filled, or the collection that it is an item of. */
const placeOf = (match: Match): SyntaxNode => match.the(asksForKey(match) ? table : place);

/** An assignment that is left out gives nil, and ||= gives the value that is there. */
function givesTheSame({ node, tests }: Match): Answer {
  if (!isValueSeen(node) || tests[0]!.test.parent?.is(["binary", "assignment"]))
    return yes("value.result", "the value of the assignment is not used, or the same");
  const says = `\`${shortened(node.text)}\` gives nil where nothing is filled in, and would give what is there`;
  return unknown("value.result", says, node);
}

const COMPARES = /^(==|!=|<|>|<=|>=|=~|!~|===|&&|\|\||and|or|not|!)$/;

const CLAUSES = [
  "begin",
  "rescue",
  "then",
  "else",
  "elsif",
  "if",
  "unless",
  "case",
  "when",
  "body_statement",
];

/** Does an expression come to true or false, so that the variable that is given it can be false and not nil? */
function isTruth(node: SyntaxNode): boolean {
  if (node.is(["true", "false"])) return true;
  if (node.is("call")) return /\?$/.test(node.child("method")?.text ?? "");
  if (node.is(node.tree.language.parenthesized) || node.parts.length === 1) {
    const inner = node.firstPart;
    if (inner && node.is(node.tree.language.parenthesized)) return isTruth(inner);
  }
  // What a block of statements comes to is what its last one does, or that of one of its clauses.
  if (node.is(CLAUSES)) {
    const clauses = node.parts.filter((part) => part.is(CLAUSES));
    const last = node.parts.findLast((part) => !part.is(CLAUSES));
    return [...clauses, ...(last ? [last] : [])].some(isTruth);
  }
  const operator = node.child("operator")?.text ?? "";
  if (!COMPARES.test(operator)) return false;
  // `a || b` gives one of the two, and only a comparison in it makes it a truth.
  return /^(&&|\|\||and|or)$/.test(operator) ? node.parts.some(isTruth) : true;
}

const { rewrites, ignores, holds } = trialsIn("ruby");

export const assignedIfMissing = rule({
  id: "ruby/assigned-if-missing",
  kind: "idiom",
  title: "Use ||= to assign a missing value",
  why: "What is filled in is written twice, and the reader must check that both are the same.",
  was: [filled(place, value, { or: ["truth"] }), filledItem(item(table, key), value)],
  given: [
    readOnce(),
    condition("the key is worked out once instead of twice", (match) => isReadTwice(match.the(key)), {
      when: asksForKey,
    }),
    asksForNilAlone(),
    condition("no method gives what it did not give before", givesTheSame),
    condition("it has a value, or may be asked for without one", (match) => {
      const node = placeOf(match);
      return node.is("class_variable")
        ? unknown(
            "flow.assigned",
            `reading \`${node.text}\` fails where it has no value yet, and ||= does not`,
            node,
          )
        : yes("flow.assigned", "reading it never fails");
    }),
    condition(
      "false is not a value that somebody meant",
      (match) =>
        byTruth(match)
          ? yes("value.falsy", "the old code replaced false too")
          : isTruth(match.the(value))
            ? no(
                "value.falsy",
                `\`${shortened(match.textOf(value))}\` can be false, which would be worked out again`,
                match.the(value),
              )
            : asksForKey(match)
              ? unknown(
                  "value.null",
                  `\`${shortened(match.textOf(table))}\` could hold nil or false for the key`,
                  match.the(table),
                )
              : isNeverFalse(match.the(place)),
      { unknownIs: "possible" },
    ),
  ],
  cautions: (match) =>
    asksForKey(match)
      ? [
          caution(
            "value.null",
            `when \`${shortened(match.textOf(table))}\` holds nil or false for the key, the old code kept it and the new one replaces it`,
          ),
        ]
      : byTruth(match) || isNeverFalse(match.the(place)).is === "yes"
        ? []
        : [
            caution(
              "value.falsy",
              `when \`${shortened(match.textOf(place))}\` is false, the old code kept it and the new one replaces it`,
            ),
          ],
  becomes: (match) =>
    asksForKey(match)
      ? ruby.expression`${table}[${key}] ||= ${value}`
      : ruby.expression`${place} ||= ${value}`,
  trials: [
    rewrites("def f\n  @hives = read unless @hives\nend\n", "def f\n  @hives ||= read\nend\n", "likely"),
    holds(
      "def f\n  return @fresh unless @fresh.nil?\n  @fresh = begin\n    age == 1\n  rescue IOError\n    nil\n  end\nend\n",
      "can be false",
    ),
    rewrites(
      "def f(h, k)\n  h[k] = [] unless h.key?(k)\nend\n",
      "def f(h, k)\n  h[k] ||= []\nend\n",
      "possible",
    ),
    holds("def f(h, k)\n  h[k] = k == 1 unless h.key?(k)\nend\n", "can be false"),
    rewrites(
      "def hives\n  return @hives unless @hives.nil?\n  @hives = read\nend\n",
      "def hives\n  @hives ||= read\nend\n",
      "possible",
    ),
    rewrites(
      "def hives\n  return @hives if @hives\n  @hives = read\nend\n",
      "def hives\n  @hives ||= read\nend\n",
    ),
    // What is false is not missing, and would be worked out each time.
    holds("def f(x)\n  x = true if x.nil?\nend\n", "can be false"),
    holds("def f\n  @valid = a == 0 || probe.replies?(self) if @valid.nil?\nend\n", "can be false"),
    holds("def f\n  if @open.nil?\n    @open = !lid.shut?\n  end\nend\n", "can be false"),
    rewrites("def f(hive)\n  hive = hive || 1\nend\n", "def f(hive)\n  hive ||= 1\nend\n"),
    rewrites("def f\n  @hives = read if @hives.nil?\nend\n", "def f\n  @hives ||= read\nend\n", "possible"),
    rewrites("h[:a] = [] if !h[:a]\n", "h[:a] ||= []\n", "likely"),
    rewrites(
      `
      if @all.nil?
        # read once
        @all = read
      end
      `,
      `
      # read once
      @all ||= read
      `,
      "possible",
    ),
    rewrites("h.queen = find unless h.queen\n", "h.queen ||= find\n", "likely"),
    holds("h[take] = [] if h[take()].nil?\nh[take()] = [] unless h[take()]\n", "once instead of twice"),
    ignores("@a = 1 if @b.nil?\n"),
    ignores("@a = 1 if @a\n"),
    ignores("@a = 1 unless @a.nil?\n"),
    ignores("@a += 1 unless @a\n"),
    ignores("@a = @b || @a\n"),
    holds("if @a.nil?\n  @a = 1\nelse\n  @b = 1\nend\n", "is done as well"),
    holds("if @a.nil?\n  @a = 1\n  @b = 1\nend\n", "is done as well"),
    // What is there is not what the method gave.
    ignores("def f\n  return if @a\n  @a = 1\nend\n"),
  ],
});
