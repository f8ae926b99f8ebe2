import {
  after,
  choice,
  condition,
  Engine,
  holes,
  inside,
  java,
  javascript,
  maybe,
  need,
  neverWritten,
  present,
  python,
  rule,
  sideEffectFree,
  typescript,
  type RuleSpec,
} from "../../src/core.js";
import "../../src/node/index.js";

const { a, b, body, some, more } = holes({
  a: "expression",
  b: "expression",
  body: "statements",
  some: "arguments",
  more: "arguments",
});

const make = (spec: Partial<RuleSpec>) =>
  rule({
    id: "javascript/own",
    kind: "idiom",
    title: "Try",
    why: "For the test.",
    was: javascript`f(${a})`,
    becomes: javascript`g(${a})`,
    trials: [],
    ...spec,
  });

test.each<[string, Partial<RuleSpec>]>([
  ["the new code has the hole `b`, which the old code has not: it has `a`", { becomes: javascript`g(${b})` }],
  [
    '"evaluating `b` has no side effect" asks about the hole `b`, which the old code has not: it has `a`',
    { given: [sideEffectFree(b)] },
  ],
  ["asks about the hole `body`", { given: [neverWritten(a, { in: body })] }],
  ["the old code is JavaScript and the new code Python: no file holds both", { becomes: python`g(${a})` }],
  ["the old code is nothing but the hole `a`", { was: javascript`${a}` }],
  ["write `named(…)` for every use of it", { was: javascript`${need("hive", "old")}` }],
  ["the lists `some` and `more` stand side by side", { was: javascript`f(${some}, ${more})` }],
  [
    "which the old code has not: it has `a`, `body`",
    {
      was: choice(present(a), a, body),
      becomes: javascript.expression`${a} ?? ${b}`,
    },
  ],
  ["`trials` must be there", { trials: undefined as never }],
])("a rule that cannot work is told when it is made: %s", (says, spec) => {
  expect(() => make(spec)).toThrow(says);
  expect(() => make(spec)).toThrow('rule "javascript/own": ');
});

test("what may be filled by what is around, or in one of several ways, is no fault", () => {
  const around = inside(javascript`while (${b}) { ${body} }`);
  expect(() => make({ where: [around], becomes: javascript`g(${a}, ${b})` })).not.toThrow();
  expect(() => make({ where: [after(javascript`h(${b});`)], given: [sideEffectFree(b)] })).not.toThrow();
  expect(() => make({ where: [(match) => match], becomes: javascript`g(${b})` })).not.toThrow();
  expect(() =>
    make({
      was: [javascript`f(${a})`, javascript`f(${a}, ${b})`],
      becomes: javascript`g(${a}${maybe(javascript`, ${b}`)})`,
    }),
  ).not.toThrow();
  expect(() =>
    make({ was: javascript`f(${some}, 1, ${more})`, becomes: javascript`g(${some})` }),
  ).not.toThrow();
  expect(() => make({ becomes: typescript`g(${a})` })).not.toThrow();
  expect(() => make({ id: "java/own", was: java`f(${a})`, becomes: java`g(${a})` })).not.toThrow();
});

test("new code that does not parse is shown, and said to have a syntax error", async () => {
  const broken = make({ becomes: javascript`g(${a}` });
  const { heldBack } = (await new Engine([broken]).file("a.js", "f(1);\n"))!;
  expect(heldBack).toMatchObject([
    { code: "edit.syntax-error", reason: "the new code `g(1` has a syntax error" },
  ]);
});

test("two rules that undo one another are both named", async () => {
  const there = make({});
  const back = make({ id: "javascript/back", was: javascript`g(${a})`, becomes: javascript`f(${a})` });
  const { heldBack } = (await new Engine([there, back]).file("a.js", "f(1);\n"))!;
  expect(heldBack[0]!.reason).toBe(
    "the rules javascript/back and javascript/own find work in what the other has written, without end",
  );
  const own = make({ becomes: javascript`g(f(${a}))` });
  const alone = (await new Engine([own]).file("a.js", "f(1);\n"))!.heldBack;
  expect(alone[0]!.reason).toContain("finds its own result again and again");
});

test("of several rules only the one that throws falls out", async () => {
  const broken = make({
    id: "javascript/broken",
    given: [
      condition("it can be asked", () => {
        throw new Error("no such thing");
      }),
    ],
  });
  const good = make({ was: javascript`h(${a})` });
  const { changes, failures } = (await new Engine([broken, good]).file("a.js", "f(1);\nh(2);\n"))!;
  expect(changes.map(({ rules }) => rules)).toEqual([["javascript/own"]]);
  expect(failures).toEqual([{ path: "a.js", rule: "javascript/broken", line: 1, says: "no such thing" }]);
});
