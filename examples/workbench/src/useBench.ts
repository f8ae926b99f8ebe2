import { useCallback, useMemo, useState } from "react";
import type { Sample } from "./engine/protocol";
import type { BenchState, HandEdit } from "./state";

/** A sample on the page. What comes from elsewhere than its own editor gets another id, and so another editor. */
export interface SheetSample extends Sample {
  readonly id: number;
}

interface Held {
  readonly sheets: readonly SheetSample[];
  readonly rule: string;
  /** Counts the times that something other than typing has changed the rule file. */
  readonly revision: number;
  readonly edit: HandEdit | undefined;
}

let lastId = 0;
const sheet = ({ path, text }: Sample): SheetSample => ({ id: ++lastId, path, text });

/** All that the page holds, and everything that changes it; undefined until it is known what to begin with. */
export function useBench() {
  const [held, setHeld] = useState<Held>();
  const state = useMemo<BenchState | undefined>(
    () =>
      held && {
        samples: held.sheets.map(({ path, text }) => ({ path, text })),
        rule: held.rule,
        edit: held.edit,
      },
    [held],
  );
  const update = useCallback((change: (last: Held) => Partial<Held>): void => {
    setHeld((last) => (last ? { ...last, ...change(last) } : last));
  }, []);
  const actions = useMemo(
    () => ({
      load: ({ samples, rule, edit }: BenchState): void =>
        setHeld((last) => ({
          sheets: samples.map(sheet),
          rule,
          revision: (last?.revision ?? 0) + 1,
          edit,
        })),
      /** What a person has typed into the editor of a sample, or its path. */
      typeSample: (id: number, typed: Partial<Sample>): void =>
        update(({ sheets }) => ({
          sheets: sheets.map((one) => (one.id === id ? { ...one, ...typed } : one)),
        })),
      removeSample: (id: number): void =>
        update(({ sheets }) => ({ sheets: sheets.filter((one) => one.id !== id) })),
      setSamples: (samples: readonly Sample[]): void => update(() => ({ sheets: samples.map(sheet) })),
      /** Puts a sample ahead of the others, under a path that none of them has. */
      addSample: ({ path, text }: Sample): void =>
        update(({ sheets }) => ({ sheets: [sheet({ path: freePath(path, sheets), text }), ...sheets] })),
      /** Puts a sample in the place of the one with its path. */
      putSample: (sample: Sample): void =>
        update(({ sheets }) =>
          sheets.some(({ path, text }) => path === sample.path && text === sample.text)
            ? {}
            : { sheets: [sheet(sample), ...sheets.filter(({ path }) => path !== sample.path)] },
        ),
      typeRule: (rule: string): void => update(() => ({ rule })),
      setRule: (rule: string): void => update(({ revision }) => ({ rule, revision: revision + 1 })),
      setEdit: (edit: HandEdit | undefined): void => update(() => ({ edit })),
    }),
    [update],
  );
  return { held, state, actions };
}

/** A path that no sample has yet. */
function freePath(path: string, sheets: readonly SheetSample[]): string {
  const isFree = (wish: string): boolean => sheets.every((one) => one.path !== wish);
  const dot = path.lastIndexOf(".");
  const [stem, ending] = dot < 0 ? [path, ""] : [path.slice(0, dot), path.slice(dot)];
  let wish = path;
  for (let i = 2; !isFree(wish); i++) wish = `${stem}-${i}${ending}`;
  return wish;
}
