import fc from "fast-check";
import { applyEdits, compose, type Edit } from "uvran/core";

/** Edits that do not overlap, for a text of this length. */
const editsFor = (length: number): fc.Arbitrary<Edit[]> =>
  fc
    .array(
      fc.tuple(fc.nat({ max: 3 }), fc.nat({ max: 4 }), fc.string({ maxLength: 4, unit: "grapheme-ascii" })),
    )
    .map((steps) => {
      const edits: Edit[] = [];
      let at = 0;
      for (const [skip, size, text] of steps) {
        const start = at + skip + (edits.length > 0 ? 1 : 0);
        if (start + size > length) break;
        edits.push({ start, end: start + size, text });
        at = start + size;
      }
      return edits;
    });

test("two sets of edits, one after the other, are the same as their composition", () => {
  const cases = fc.string({ minLength: 1, maxLength: 30 }).chain((text) =>
    editsFor(text.length).chain((first) => {
      const middle = applyEdits(text, first);
      return editsFor(middle.length).map((second) => ({ text, first, middle, second }));
    }),
  );
  fc.assert(
    fc.property(cases, ({ text, first, middle, second }) => {
      expect(applyEdits(text, compose(text, first, second))).toBe(applyEdits(middle, second));
    }),
    { numRuns: 2000, seed: 7 },
  );
});

test("what both sets leave alone is not part of the composition", () => {
  const text = "keep old keep old keep";
  const first = [{ start: 5, end: 8, text: "new" }];
  const second = [{ start: 14, end: 17, text: "NEW" }];
  expect(compose(text, first, second)).toEqual([...first, ...second]);
});

test("edits that overlap or leave the text are refused", () => {
  const overlapping = [
    { start: 0, end: 3, text: "" },
    { start: 2, end: 4, text: "" },
  ];
  expect(() => applyEdits("abcdef", overlapping)).toThrow(RangeError);
  expect(() => applyEdits("abc", [{ start: 2, end: 9, text: "" }])).toThrow(RangeError);
});
