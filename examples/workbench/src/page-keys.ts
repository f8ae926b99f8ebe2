import { useEffect, useRef } from "react";
import { EditorView } from "@codemirror/view";
import type { Range } from "./engine/protocol";

/** Keys that work everywhere on the page: letters with Ctrl and Alt, and function keys. */
export function useShortcuts(shortcuts: Readonly<Record<string, () => void>>): void {
  const latest = useRef(shortcuts);
  latest.current = shortcuts;
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (document.querySelector("dialog[open]")) return;
      const isFunction = /^F\d+$/.test(event.key);
      if (!isFunction && !(event.ctrlKey && event.altKey)) return;
      const letter = /^Key([A-Z])$/.exec(event.code)?.[1]?.toLowerCase();
      const name = isFunction ? `${event.shiftKey ? "Shift+" : ""}${event.key}` : letter;
      const does = name === undefined ? undefined : latest.current[name];
      if (!does) return;
      event.preventDefault();
      event.stopPropagation();
      does();
    };
    addEventListener("keydown", press, true);
    return () => removeEventListener("keydown", press, true);
  }, []);
}

/** Goes to the next part of the page, or to the one before. */
export function nextPane(step: 1 | -1): void {
  const panes = [...document.querySelectorAll<HTMLElement>("[data-pane]")];
  const now = panes.findIndex((pane) => pane.contains(document.activeElement));
  for (let i = 1; i <= panes.length; i++) {
    const pane = panes[(now + step * i + panes.length * 2) % panes.length]!;
    const first = pane.querySelector<HTMLElement>(".cm-content, button, input, select, summary");
    if (!first) continue;
    first.focus();
    return;
  }
}

/** Selects a range in the editor that an element belongs to, and goes there. */
export function selectIn(element: HTMLElement, { start, end }: Range): void {
  const view = EditorView.findFromDOM(element);
  if (!view || end > view.state.doc.length) return;
  view.dispatch({ selection: { anchor: start, head: end }, scrollIntoView: true });
  view.focus();
}
