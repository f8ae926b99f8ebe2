import { useEffect, useState } from "react";
import type { Range, Sample, Template } from "./engine/protocol";
import type { Spot } from "./parts/HerePanel";
import type { FileParts } from "./typing/protocol";
import type { Workers } from "./useWorkers";

/** Where the caret stands: in a sample, or in the rule file. */
export type Caret =
  | {
      readonly in: "sample";
      readonly path: string;
      readonly offset: number;
      readonly selection: Range | undefined;
    }
  | { readonly in: "rule"; readonly offset: number; readonly selection: Range | undefined };

/** The snippet of some rule's old code that an offset of the rule file stands in. */
export function templateAt({ rules }: FileParts, offset: number): Template | undefined {
  return rules.flatMap(({ was }) => was).find(({ start, end }) => offset >= start && offset <= end);
}

/** What is known of the place of the caret; asked again when the code or the rules have changed. */
export function useSpot(
  workers: Workers | undefined,
  caret: Caret | undefined,
  samples: readonly Sample[],
  parts: FileParts,
  ran: unknown,
): Spot | undefined {
  const [spot, setSpot] = useState<Spot>();
  useEffect(() => {
    if (!workers || !caret) return;
    let isHere = true;
    const show = (next: Spot): void => {
      if (isHere) setSpot(next);
    };
    const timer = setTimeout(() => {
      const { selection, offset } = caret;
      if (caret.in === "sample") {
        const sample = samples.find(({ path }) => path === caret.path);
        if (!sample) return setSpot(undefined);
        const at = selection ? selection.start : offset;
        workers
          .engine()
          .here(sample, at)
          .then((here) => show({ in: "sample", here, selection }))
          .catch(() => undefined); // a new engine is on its way
      } else {
        const template = templateAt(parts, offset);
        if (!template) return show({ in: "rule", trail: [], selection });
        workers
          .engine()
          .steps(template, selection?.start ?? offset)
          .then((trail) => show({ in: "rule", trail, selection }))
          .catch(() => undefined);
      }
    }, 90);
    return () => {
      isHere = false;
      clearTimeout(timer);
    };
  }, [workers, caret, samples, parts, ran]);
  return spot;
}
