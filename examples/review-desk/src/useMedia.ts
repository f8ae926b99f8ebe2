import { useCallback, useSyncExternalStore } from "react";

/** Does a media query hold now? */
export function useMedia(query: string): boolean {
  const listen = useCallback(
    (changed: () => void) => {
      const list = matchMedia(query);
      list.addEventListener("change", changed);
      return () => list.removeEventListener("change", changed);
    },
    [query],
  );
  return useSyncExternalStore(listen, () => matchMedia(query).matches);
}
