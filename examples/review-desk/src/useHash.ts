import { useCallback, useSyncExternalStore } from "react";

const CHANGED = "hashchange";

function listen(changed: () => void): () => void {
  addEventListener(CHANGED, changed);
  return () => removeEventListener(CHANGED, changed);
}

/** What stands behind `#` in the address, and a function that changes parts of it; undefined takes a part away. */
export function useHash(): [
  string,
  (change: Readonly<Record<string, string | readonly string[] | undefined>>) => void,
] {
  const hash = useSyncExternalStore(listen, () => location.hash.slice(1));
  const change = useCallback((parts: Readonly<Record<string, string | readonly string[] | undefined>>) => {
    const next = new URLSearchParams(location.hash.slice(1));
    for (const [name, value] of Object.entries(parts)) {
      next.delete(name);
      for (const one of typeof value === "string" ? [value] : (value ?? []))
        if (one !== "") next.append(name, one);
    }
    history.replaceState(null, "", `#${next}`);
    dispatchEvent(new HashChangeEvent(CHANGED));
  }, []);
  return [hash, change];
}
