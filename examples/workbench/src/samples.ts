/** A piece of the co-operative's code to begin with. */
export interface Sample {
  readonly title: string;
  /** Its ending decides the language. */
  readonly file: string;
  readonly code: string;
}

export const SAMPLES: readonly Sample[] = [
  {
    title: "Orders (TypeScript)",
    file: "orders.ts",
    code: `interface Keeper { name: string; village?: string }
interface Order { number: number; jars?: string[]; keeper?: Keeper; discount?: number }

export function recipient(order: Order | undefined): string {
  // collected orders have no keeper
  if (order && order.keeper && order.keeper.village) {
    return order.keeper.village;
  }
  return "collected";
}

export function numberOf(order: Order | undefined): number {
  const found = order && order.number;
  return found !== null && found !== undefined ? found : 0;
}

export function jars(order: Order, spare: string[] | undefined) {
  const all = spare || [];
  const discount = order.discount || 5; // per cent
  return { all, discount, label: labelOf(order) || "no label" };
}

declare function labelOf(order: Order): string | null;
`,
  },
  {
    title: "Inspections (Python)",
    file: "inspections.py",
    code: `def moods(rows: list, scores):
    found = []
    for i in range(len(rows)):  # numbered for the minutes
        # hive and mood
        found = found + [(i, rows[i][2])]
    for i in range(len(scores)):
        scores[i] = scores[i] * 2
    return found


def read(path, title=None):
    f = open(path, encoding="utf-8")  # kept by hand

    lines = f.readlines()
    f.close()
    if title:
        head = title
    else:
        head = "Inspections"
    return [head] + lines
`,
  },
  {
    title: "Shelf (JavaScript with JSX)",
    file: "shelf.jsx",
    code: `export function Shelf({ shelf, onPick }) {
  const jars = (shelf && shelf.jars) || [];
  if (shelf && shelf.keeper) onPick && onPick(shelf.keeper);
  return <ul>{jars.map((jar) => <li key={jar.id}>{jar.name != null ? jar.name : "no name"}</li>)}</ul>;
}
`,
  },
];
