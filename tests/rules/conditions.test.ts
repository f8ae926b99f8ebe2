import "uvran/node";
import {
  all,
  condition,
  Engine,
  holes,
  isTarget,
  no,
  none,
  python,
  rule,
  unchangedDuring,
  unknown,
  yes,
  type Condition,
} from "uvran/core";
import { isBuiltin, neverWritten } from "uvran/core";
import { treeOf } from "../languages.js";

const { index, items, body } = holes({ index: "name", items: "expression", body: "statements" });

/** How a change fares with these conditions: its trust, or the reason why it is held back. */
async function fate(given: readonly Condition[], loop: string): Promise<string | undefined> {
  const tried = rule({
    id: "test/loop",
    kind: "idiom",
    title: "loop",
    why: "to try conditions",
    was: python`
      for ${index} in each(${items}):
          ${body}
    `,
    given,
    becomes: python`
      for ${index} in same(${items}):
          ${body}
    `,
    trials: [],
  });
  const result = await new Engine([tried]).file(
    "a.py",
    `def f():\n    for i in each(xs):\n        ${loop}\n`,
  );
  return result!.changes[0]?.trust ?? result!.heldBack[0]?.reason;
}

test.each([
  ["print(i, xs[i])", "certain"],
  ["y = xs[i] + len(xs)", "certain"],
  ["count = count + 1", "certain"],
  ["xs = []", "`xs` is written"],
  ["xs[0] = 1", "`xs` is changed here"],
  ["xs[i] += 1", "`xs` is changed here"],
  ["del xs[0]", "`xs` is changed here"],
  ["xs.append(1)", "`xs` is changed here"],
  ["xs, y = y, xs", "`xs` is written"],
  ["for xs[0] in y: pass", "`xs` is changed here"],
  ["with y as xs[0]: pass", "`xs` is changed here"],
  ["g(xs)", "likely"],
  ["g()", "likely"],
  ["ys[0] = 1", "likely"],
  ["ys += [1]", "likely"],
  ["yield i", "likely"],
  ["print = g; print(1)", "likely"],
])("what is looped over, while `%s` runs: %s", async (loop, expected) => {
  expect(await fate([unchangedDuring(items, { during: body })], loop)).toBe(expected);
});

test("a running total is no list in disguise, unless it is given one", async () => {
  const total = "total = 0\n        total += xs[i]";
  const given = [unchangedDuring(items, { during: body })];
  expect(await fate(given, total)).toBe("certain");
  expect(await fate(given, `${total}\n    total = xs`)).toBe("likely");
});

test("trust falls with the answers, and no holds back whatever the others say", async () => {
  const says = {
    y: condition("y", () => yes("own.y", "aye")),
    u: condition("u", () => unknown("own.u", "who knows")),
  };
  const n = condition("n", () => no("own.n", "nay"));
  const p = condition("p", () => unknown("own.p", "no idea"), { unknownIs: "possible" });
  expect(await fate([], "pass")).toBe("certain");
  expect(await fate([says.y, says.u], "pass")).toBe("likely");
  expect(await fate([p, says.u], "pass")).toBe("possible");
  expect(await fate([p, says.u, n], "pass")).toBe("nay");
  expect(await fate([all(says.y, says.u)], "pass")).toBe("likely");
  expect(await fate([all(says.u, n)], "pass")).toBe("nay");
  expect(all(says.y, says.u).must).toBe("y, and u");
});

test("ready conditions say what must hold in the names of the holes", () => {
  expect(neverWritten(index, { in: body }).must).toBe("`index` is not written in `body`");
  expect(unchangedDuring(items, { during: body }).must).toBe("`items` does not change in `body`");
});

test.each([
  ["x[0] = 1", true],
  ["(a, x[0]) = 1, 2", true],
  ["for x[0] in l: pass", true],
  ["del x[0]", true],
  ["y = x[0]", false],
  ["x[0].y = 1", false],
])("is x[0] a target in `%s`? %s", (code, expected) => {
  const { root } = treeOf("python", code);
  expect(isTarget([...root.descendants()].find((node) => node.is("subscript"))!)).toBe(expected);
  expect(isBuiltin("x", root).is).toBe("yes");
});

test("a condition that looks for code finds it by its structure, with the holes of the rule, and names the place", async () => {
  const { x } = holes({ x: "expression" });
  const stops = none([python`stop(${index})`, python`yield ${x}`], {
    in: body,
    must: "nothing stops",
    because: "it may stop here",
  });
  expect(await fate([stops], "stop(other)  # yield 1")).toBe("certain");
  expect(await fate([stops], "if f(i): stop( i )")).toBe("it may stop here");
  expect(await fate([stops], "yield (1)")).toBe("it may stop here");
  const never = condition("never asked", () => no("own.never", "asked"), { when: () => false });
  expect(await fate([never], "f(i)")).toBe("certain");
});
