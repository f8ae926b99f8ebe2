import "uvran/node";
import { Engine, textAfter } from "uvran";
import javascriptPack from "uvran/packs/javascript";

const engine = new Engine(javascriptPack.rules);

const TWICE = `export function mark(hive, other) {
  if (hive && hive.queen) note();
  count();
  if (hive && hive.queen) note();
  if (hive && hive.queen) note();
}
function again(hive) {
  if (hive && hive.queen) note();
}
`;

test("ids are the same whichever of several equal changes is applied, and are never shared", async () => {
  const { changes } = (await engine.file("a.js", TWICE))!;
  const ids = changes.map(({ id }) => id);
  expect(new Set(ids).size).toBe(4);
  for (const id of ids) expect(id).toMatch(/^[0-9a-f]{16}$/);
  for (const one of changes) {
    const left = (await engine.file("a.js", await textAfter("a.js", TWICE, [one])))!.changes;
    expect(left.map(({ id }) => id)).toEqual(ids.filter((id) => id !== one.id));
  }
});

test("ids stay when lines are put before the code, also in the same function", async () => {
  const ids = async (text: string): Promise<string[]> =>
    (await engine.file("a.js", text))!.changes.map(({ id }) => id);
  const before = await ids(TWICE);
  expect(await ids(`// a note\n\n${TWICE}`)).toEqual(before);
  expect(await ids(TWICE.replace("  count();\n", "  count();\n  rest(1);\n"))).toEqual(before);
});

test("changes, what is held back and evidence say from where to where they go", async () => {
  const text = "function f(a) {\n  if (a && a.b) g();\n  return a() && a().b;\n}\n";
  const { changes, heldBack } = (await engine.file("a.js", text))!;
  expect(changes[0]!.range).toEqual({ start: { line: 2, column: 7 }, end: { line: 2, column: 15 } });
  expect(heldBack[0]).toMatchObject({
    id: expect.stringMatching(/^[0-9a-f]{16}$/),
    range: { start: { line: 3, column: 10 }, end: { line: 3, column: 22 } },
  });
});

test("in a notebook or a page the places are those of the file", async () => {
  const page = "<p>Hives</p>\n<script>if (hive && hive.queen) mark(hive);</script>\n";
  const [change] = (await engine.file("a.html", page))!.changes;
  expect(change!.range.start).toEqual({ line: 2, column: 13 });
});
