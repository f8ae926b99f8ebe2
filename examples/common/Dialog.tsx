import { useEffect, useRef, type ReactNode } from "react";

interface Props {
  readonly title: string;
  readonly onClose: () => void;
  /** What keys do while it is open. */
  readonly keys?: Readonly<Record<string, () => void>>;
  readonly children: ReactNode;
}

/** Something that lies over the page until it is closed, with Esc too. */
export function Dialog({ title, onClose, keys = {}, children }: Props) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const opened = dialog.current!;
    opened.showModal();
    return () => opened.close();
  }, []);
  return (
    <dialog
      ref={dialog}
      aria-labelledby="dialog-title"
      onCancel={(event) => {
        event.preventDefault();
        onClose();
      }}
      onKeyDown={(event) => {
        const { key, ctrlKey, metaKey, altKey } = event;
        const does = key === "Escape" ? onClose : keys[key.toLowerCase()];
        if (ctrlKey || metaKey || altKey || !does) return;
        event.preventDefault();
        does();
      }}
    >
      <header>
        <h2 id="dialog-title">{title}</h2>
        <button type="button" onClick={onClose} aria-label="Close">
          ×
        </button>
      </header>
      <div className="dialog-body">{children}</div>
    </dialog>
  );
}
