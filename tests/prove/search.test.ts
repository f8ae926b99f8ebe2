import fc from "fast-check";
import { largestPassing, type Found, type Trial } from "uvran/workspace";

/** Sets of items that fail where all of them are together. */
type Faults = readonly (readonly number[])[];

interface Told {
  readonly atOnce?: number;
  /** How many items are in one file; its messages name the file. */
  readonly perFile?: number;
  /** Do messages name the line too? */
  readonly hasLines?: boolean;
}

async function searched(
  count: number,
  faults: Faults,
  { atOnce = 1, perFile, hasLines = false }: Told = {},
): Promise<{ found: Found<unknown>; attempts: number }> {
  let attempts = 0;
  const cellOf = (item: number): number => (perFile === undefined ? 0 : Math.floor(item / perFile));
  const attempt = async (items: readonly number[]): Promise<Trial> => {
    attempts++;
    await Promise.resolve();
    const failing = faults.filter((fault) => fault.every((item) => items.includes(item)));
    const named = failing.map((fault) => fault.at(-1)!);
    return {
      passes: failing.length === 0,
      blamed: new Set(hasLines ? named : []),
      exact: new Set(hasLines ? named : []),
      ...(perFile === undefined ? {} : { cells: new Set(named.map(cellOf)) }),
    };
  };
  const found = await largestPassing({ count, cellOf, attempt, atOnce });
  return { found, attempts };
}

const passes = (items: readonly number[], faults: Faults): boolean =>
  !faults.some((fault) => fault.every((item) => items.includes(item)));

const told = fc.record(
  { atOnce: fc.integer({ min: 1, max: 4 }), perFile: fc.integer({ min: 1, max: 9 }), hasLines: fc.boolean() },
  { requiredKeys: ["atOnce", "hasLines"] },
) as fc.Arbitrary<Told>;

test("each culprit that fails by itself is set aside, and nothing else is", async () => {
  await fc.assert(
    fc.asyncProperty(fc.uniqueArray(fc.nat(119), { maxLength: 40 }), told, async (culprits, how) => {
      const { found } = await searched(
        120,
        culprits.map((one) => [one]),
        how,
      );
      expect([...found.setAside.keys()].sort((a, b) => a - b)).toEqual([...culprits].sort((a, b) => a - b));
      expect(found.kept.length).toBe(120 - culprits.length);
    }),
    { numRuns: 300 },
  );
});

test("whatever fails together: what is kept passes, and nothing that is set aside could be added", async () => {
  const fault = fc.uniqueArray(fc.nat(29), { minLength: 1, maxLength: 4 });
  await fc.assert(
    fc.asyncProperty(fc.array(fault, { maxLength: 8 }), told, async (faults, how) => {
      const { found } = await searched(30, faults, how);
      expect(passes(found.kept, faults)).toBe(true);
      expect(found.kept.length + found.setAside.size).toBe(30);
      for (const item of found.setAside.keys()) expect(passes([...found.kept, item], faults)).toBe(false);
    }),
    { numRuns: 2000 },
  );
});

test("it costs few attempts: about the logarithm for each culprit, and one more to make sure; fewer where messages help", async () => {
  const culprits = [3, 57, 111, 160, 222, 290, 333, 401, 449, 498].map((one) => [one]);
  const bits = (10 * Math.log(500 / 10)) / Math.log(2) + 10 * Math.LOG2E;
  expect((await searched(500, culprits)).attempts).toBeLessThan(bits * 1.6);
  expect((await searched(500, culprits, { perFile: 10 })).attempts).toBeLessThan(25);
  expect((await searched(500, culprits, { perFile: 10, hasLines: true })).attempts).toBeLessThan(16);
  expect((await searched(500, [])).attempts).toBe(1);
});

test("what messages name wrongly costs attempts, and nothing else", async () => {
  let attempts = 0;
  const attempt = async (items: readonly number[]): Promise<Trial> => {
    attempts++;
    // 7 is wrong, and what it breaks is in another file.
    return { passes: !items.includes(7), blamed: new Set(items.filter((i) => i >= 20)), cells: new Set([2]) };
  };
  const { kept, setAside } = await largestPassing({
    count: 30,
    cellOf: (item) => Math.floor(item / 10),
    attempt,
    atOnce: 1,
  });
  expect([[...setAside.keys()], kept.length]).toEqual([[7], 29]);
  expect(attempts).toBeLessThan(40);
});
