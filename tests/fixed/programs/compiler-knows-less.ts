//! target 2022
// What compiled before, and would not any more: `!` that answers whether a variable has been given a value, tests that
// TypeScript sees through a constant, types that are worked out from plain assignments, and items that a test narrows.
interface Hive {
  readonly parts: readonly Hive[];
  isOpen(): boolean;
  close(): void;
  age: number;
}

export function asked(ask: (give: (name: string) => void) => void): number {
  let name: string;
  ask((given) => {
    name = given;
  });
  return name!.length; //! held: given no value
}

export function shut(hive?: Hive): void {
  const open = hive && hive.isOpen(); //! held: would no longer know that `hive` is there
  if (open) hive.close();
}

declare function pair(a: Hive, b: Hive): { both: boolean } | undefined;
export function ages(a?: Hive, b?: Hive): number {
  const joined = a && b && pair(a, b);
  if (!joined || !joined.both) return 0; //! held: stands for a test
  return a.age + b.age;
}

export function upTo(rows: string[][], end: string) {
  let found;
  for (const row of rows) {
    if (row[0] === end) break;
    if (!found) found = row.slice(1); //! held: declared without a type
  }
  return found;
}

export function whole(jars: (Hive | null)[]): Hive | undefined {
  for (const jar of jars) { //! held: makes narrower
    if (jar !== null && jar.age > 1) return jar;
  }
  return undefined;
}

function isDeep(hives: readonly Hive[]) {
  for (const hive of hives) { //! held: worked out from itself
    if (!isDeep(hive.parts)) return false;
  }
  return true;
}
export const deep = (hives: readonly Hive[]): boolean => isDeep(hives);
