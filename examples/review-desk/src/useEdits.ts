import { useEffect, useState } from "react";
import type { PlanChange } from "uvran/core";
import type { Source } from "./source.js";

type Edits = PlanChange["edits"];

/** What a change does to its own file: its own edits at first, and with its imports as soon as these are known. */
export function useEdits(source: Source, { id, edits }: PlanChange): Edits {
  const [known, setKnown] = useState<{ readonly own: Edits; readonly whole: Edits }>();
  useEffect(() => {
    let isHere = true;
    source
      .edits(id)
      .then((whole) => {
        if (isHere && whole && JSON.stringify(whole) !== JSON.stringify(edits))
          setKnown({ own: edits, whole });
      })
      .catch(() => undefined); // a server that is gone is said elsewhere
    return () => {
      isHere = false;
    };
  }, [source, id, edits]);
  // A plan that was made anew has other edits under the same id.
  return known?.own === edits ? known.whole : edits;
}
