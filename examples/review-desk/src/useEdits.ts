import { useEffect, useState } from "react";
import type { PlanChange } from "uvran";
import type { Source } from "./source.js";

/** What a change does to its own file: its own edits at first, and with its imports as soon as these are known. */
export function useEdits(source: Source, { id, edits }: PlanChange): PlanChange["edits"] {
  const [whole, setWhole] = useState<PlanChange["edits"]>();
  useEffect(() => {
    let isHere = true;
    source
      .edits(id)
      .then((found) => isHere && found && found.length !== edits.length && setWhole(found))
      .catch(() => undefined); // a server that is gone is said elsewhere
    return () => {
      isHere = false;
    };
  }, [source, id, edits]);
  return whole ?? edits;
}
