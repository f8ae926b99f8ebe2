import { useEffect, useMemo, useRef, type ReactNode } from "react";
import { useVirtualizer } from "@tanstack/react-virtual";

/** One line of the list. */
export interface Item {
  readonly id: string;
  readonly group?: string | undefined;
  readonly sign: string;
  readonly kind: string;
  readonly mark: string;
  /** What is decided, in a word, for those who do not see the colour. */
  readonly said: string;
  readonly first: string;
  readonly second: string;
}

type Row =
  { readonly heading: string; readonly count: number } | { readonly item: Item; readonly index: number };

interface Props {
  readonly label: string;
  readonly items: readonly Item[];
  readonly current: string | undefined;
  readonly onChoose: (id: string) => void;
  readonly empty: ReactNode;
}

const HEADING_HEIGHT = 34;
const ITEM_HEIGHT = 48;

/** A list of which only what is in sight is drawn. */
export function List({ label, items, current, onChoose, empty }: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useMemo(() => rowsOf(items), [items]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => ("heading" in rows[i]! ? HEADING_HEIGHT : ITEM_HEIGHT),
    overscan: 8,
  });
  const at = rows.findIndex((row) => "item" in row && row.item.id === current);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: "auto" });
  }, [at, virtual]);
  if (items.length === 0) return <div className="list empty">{empty}</div>;
  return (
    <div className="list" ref={scroller} role="region" aria-label={label} tabIndex={0}>
      <ol style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index, start, size, key }) => {
          const row = rows[index]!;
          const style = { transform: `translateY(${start}px)`, height: size };
          if ("heading" in row)
            return (
              <li key={key} className="heading" style={style}>
                <span>{row.heading}</span> <span className="quiet">{row.count}</span>
              </li>
            );
          const { item } = row;
          const isCurrent = item.id === current;
          return (
            <li key={key} style={style} aria-setsize={items.length} aria-posinset={row.index + 1}>
              <button
                type="button"
                className={`item ${item.mark}`}
                aria-current={isCurrent ? "true" : undefined}
                onClick={() => onChoose(item.id)}
              >
                <span className={`sign ${item.kind}`} aria-hidden="true">
                  {item.sign}
                </span>
                <span className="first">{item.first}</span>
                <span className="second">{item.second}</span>
                <span className="said">{item.said}</span>
              </button>
            </li>
          );
        })}
      </ol>
    </div>
  );
}

function rowsOf(items: readonly Item[]): Row[] {
  const counts = new Map<string | undefined, number>();
  for (const { group } of items) counts.set(group, (counts.get(group) ?? 0) + 1);
  return items.flatMap((item, index): Row[] => {
    const row = { item, index };
    if (item.group === undefined || item.group === items[index - 1]?.group) return [row];
    return [{ heading: item.group, count: counts.get(item.group)! }, row];
  });
}
