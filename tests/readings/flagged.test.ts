import { Engine, flagged, holes, rule, text, type LanguageId } from "uvran";
import "uvran/node";

const { items } = holes({ items: "expression" });

const ENDINGS: Partial<Record<LanguageId, string>> = { python: "py", ruby: "rb" };

/** The code with what a loop asks of its items in the place of the loop. */
async function read(language: LanguageId, code: string): Promise<string> {
  const found = rule({
    id: `${language}/flagged`,
    kind: "idiom",
    title: "a question about items",
    why: "to see what is read",
    was: flagged(items),
    becomes: ({ flagged: one }) => {
      const sieves = one.sieves.map(({ test, isTrue }) => `${isTrue ? "if" : "unless"} ${test.text}`);
      const how = `${one.isFound ? "some" : "none"}${one.stops ? "" : " of all"}`;
      return [text(`"${how} of ${one.items.text} ${sieves.join(" and ")}"`)];
    },
    trials: [],
  });
  const result = await new Engine([found]).file(`a.${ENDINGS[language]!}`, code);
  const edits = result?.changes[0]?.edits ?? [];
  return edits.reduceRight((now, { start, end, text }) => now.slice(0, start) + text + now.slice(end), code);
}

test.each<[LanguageId, string, string]>([
  ["python", "r = False\nfor x in xs:\n    if x:\n        r = True\n", 'r = "some of all of xs if x"\n'],
  [
    "python",
    "r = False\nfor x in xs:\n    if x:\n        r = True\n        break\n",
    'r = "some of xs if x"\n',
  ],
  [
    "python",
    "r = True\nys = f()\nfor x in ys:\n    if x:\n        continue\n    r = False\n    break\n",
    'ys = f()\nr = "none of ys unless x"\n',
  ],
  [
    "python",
    "def f():\n    for x in xs:\n        if x:\n            if y:\n                return True\n    return False\n",
    'def f():\n    return "some of xs if x and if y"\n',
  ],
  [
    "ruby",
    "def f\n  xs.each { |x| return false unless x }\n  true\nend\n",
    'def f\n  "none of xs unless x"\nend\n',
  ],
  [
    "ruby",
    "def f\n  r = false\n  xs.each do |x|\n    if x\n      r = true\n      break\n    end\n  end\n  r\nend\n",
    'def f\n  r = "some of xs if x"\n  r\nend\n',
  ],
])("%s: %j is read as %j", async (language, code, after) => {
  expect(await read(language, code)).toBe(after);
});

test.each<[LanguageId, string]>([
  // The same either way, or something else than true and false.
  ["python", "def f():\n    for x in xs:\n        if x:\n            return True\n    return True\n"],
  ["python", "def f():\n    for x in xs:\n        if x:\n            return x\n    return False\n"],
  ["python", "r = 0\nfor x in xs:\n    if x:\n        r = True\n"],
  ["python", "r = False\nfor x in xs:\n    if x:\n        r = False\n"],
  // More is done.
  ["python", "r = False\nfor x in xs:\n    if x:\n        r = True\n        f(x)\n"],
  ["python", "r = False\nfor x in xs:\n    if x:\n        r = True\n    else:\n        f(x)\n"],
  ["python", "r = False\nfor x in xs:\n    if x:\n        r = True\n        break\nelse:\n    f()\n"],
  // Nothing is asked.
  ["python", "r = False\nfor x in xs:\n    r = True\n"],
  // It may be read by another way.
  ["python", "a.r = False\nfor x in xs:\n    if x:\n        a.r = True\n"],
  ["ruby", "def f\n  @r = false\n  xs.each { |x| @r = true if x }\n  @r\nend\n"],
])("%s: %j is read as something else", async (language, code) => {
  expect(await read(language, code)).toBe(code);
});
