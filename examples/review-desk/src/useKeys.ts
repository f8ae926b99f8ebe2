import { useEffect, useRef } from "react";

/** Keys that were pressed outside of fields and without modifiers; the handler tells whether it took one. */
export function useKeys(handle: (key: string) => boolean): void {
  const latest = useRef(handle);
  latest.current = handle;
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return;
      if (isTypedInto(event.target) || (event.target as Element).closest?.("dialog")) return;
      if (isPressed(event)) return;
      if (latest.current(event.key.length === 1 ? event.key.toLowerCase() : event.key))
        event.preventDefault();
    };
    addEventListener("keydown", press);
    return () => removeEventListener("keydown", press);
  }, []);
}

function isTypedInto(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName))
  );
}

/** Enter and space press the button that has the focus. */
function isPressed({ key, target }: KeyboardEvent): boolean {
  return (
    (key === "Enter" || key === " ") &&
    target instanceof HTMLElement &&
    target.closest("button, a, summary") !== null
  );
}
