import { collected, Engine, holes, rule, text, type LanguageId } from "uvran";
import "uvran/node";

const { list, items, value } = holes({ list: "name", items: "expression", value: "expression" });

const ENDINGS: Partial<Record<LanguageId, string>> = { python: "py", ruby: "rb" };

const applied = (code: string, edits: readonly { start: number; end: number; text: string }[]): string =>
  edits.reduceRight((now, { start, end, text }) => now.slice(0, start) + text + now.slice(end), code);

/** What is read of a list that a loop fills, part by part. */
async function read(language: LanguageId, code: string): Promise<string | undefined> {
  const found = rule({
    id: `${language}/collected`,
    kind: "idiom",
    title: "a list that is collected",
    why: "to see what is read",
    was: collected({ list, items, value, gathers: ["list", "set", "map", "total"] }),
    becomes: ({ collecting }) => {
      const sieves = collecting.sieves.map(({ test, isTrue }) => `${isTrue ? "if" : "unless"} ${test.text}`);
      const added = [...(collecting.key ? [collecting.key] : []), collecting.value];
      const of = `${added.map(({ text }) => text).join(" = ")} of ${collecting.item?.text ?? "-"} in ${collecting.items.text}`;
      const kind = collecting.gathers === "list" ? [] : [collecting.gathers];
      return [text(`"${[...kind, collecting.list.text, of, ...sieves].join("; ")}"`)];
    },
    trials: [],
  });
  const result = await new Engine([found]).file(`a.${ENDINGS[language]!}`, code);
  const after = result && applied(code, result.changes[0]?.edits ?? []);
  return /"(.*)"/.exec(after ?? "")?.[0];
}

test.each<[LanguageId, string, string]>([
  ["python", "r = []\nfor x in xs:\n    r.append(x.a)\n", '"r; x.a of x in xs"'],
  ["python", "r = []\nfor x in xs:\n    if x:\n        r.append(x)\n", '"r; x of x in xs; if x"'],
  [
    "python",
    "r = []\nfor x in xs:\n    if x:\n        continue\n    else:\n        r.append(x)\n",
    '"r; x of x in xs; unless x"',
  ],
  [
    "python",
    "r = []\nfor x in xs:\n    if x:\n        continue\n    if y:\n        if z:\n            r.append(x)\n",
    '"r; x of x in xs; unless x; if y; if z"',
  ],
  ["python", "r = set()\nfor x in xs:\n    r.add(x)\n", '"set; r; x of x in xs"'],
  ["python", "r = dict()\nfor x in xs:\n    r[x.a] = x\n", '"map; r; x.a = x of x in xs"'],
  ["python", "r = 0\nfor x in xs:\n    r += x.a\n", '"total; r; x.a of x in xs"'],
  ["python", "r = 0\nfor x in xs:\n    r = r + x\n", '"total; r; x of x in xs"'],
  // What stands in between has nothing to do with it.
  ["python", "r = []\nys = f()\nif ys:\n    g()\nfor x in xs:\n    r.append(x.r)\n", '"r; x.r of x in xs"'],
  ["ruby", "r = {}\nxs.each { |x| r[x] = 1 }\n", '"map; r; x = 1 of |x| in xs"'],
  ["ruby", "r = 0\nxs.each { |x| r += 1 if x }\n", '"total; r; 1 of |x| in xs; if x"'],
  ["ruby", "r = []\nxs.each { |x| r << x.a }\n", '"r; x.a of |x| in xs"'],
  ["ruby", "r = []\nxs.each do |x|\n  r.push(x.a)\nend\n", '"r; x.a of |x| in xs"'],
  ["ruby", "r = []\nxs.each { r << _1 }\n", '"r; _1 of - in xs"'],
  ["ruby", "r = []\nfor x in xs\n  r << x\nend\n", '"r; x of x in xs"'],
  ["ruby", "r = []\nxs.each do |x|\n  next if x\n  r << x\nend\n", '"r; x of |x| in xs; unless x"'],
  ["ruby", "r = []\nxs.each { |x| r << x unless x }\n", '"r; x of |x| in xs; unless x"'],
])("%s: %j is read as %s", async (language, code, said) => {
  expect(await read(language, code)).toBe(said);
});

test.each<[LanguageId, string]>([
  ["python", "r = []\nf(r)\nfor x in xs:\n    r.append(x)\n"],
  ["python", "r = []\nr = 0\nfor x in xs:\n    r.append(x)\n"],
  ["python", "r = set()\nfor x in xs:\n    r.append(x)\n"],
  ["python", "r = []\nfor x in xs:\n    r[x] = x\n"],
  ["python", "r = {}\nfor x in xs:\n    r[x] += x\n"],
  ["python", "r = 0\nfor x in xs:\n    r -= x\n"],
  ["ruby", "r = Hash.new(0)\nxs.each { |x| r[x] = 1 }\n"],
  ["python", "r = []\nfor x in xs:\n    r.append(x)\n    f(x)\n"],
  ["python", "r = []\nfor x in xs:\n    if x:\n        r.append(x)\n    else:\n        f(x)\n"],
  ["python", "r = []\nfor x in xs:\n    if x:\n        break\n    r.append(x)\n"],
  ["python", "r = []\nfor x in xs:\n    s.append(x)\n"],
  ["python", "r = []\nfor x in xs:\n    r.append(x)\nelse:\n    f()\n"],
  ["python", "r = []\nfor x in xs:\n    r.append(x for x in y)\n"],
  ["ruby", "r = []\nxs.each_slice { |x| r << x }\n"],
  ["ruby", "r = []\nxs.each { |x| r << x; f(x) }\n"],
  ["ruby", "r = []\nxs.each { |x| r.push(a: x) }\n"],
  ["ruby", "r = []\ny = xs.each { |x| r << x }\n"],
  ["ruby", "r = []\nxs.each { |x| r.push(&x) }\n"],
])("%s: %j is read as something else", async (language, code) => {
  expect(await read(language, code)).toBeUndefined();
});
