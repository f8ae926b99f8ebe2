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
      onClose={onClose}
      onKeyDown={({ key, ctrlKey, metaKey, altKey }) => {
        if (!ctrlKey && !metaKey && !altKey && Object.hasOwn(keys, key.toLowerCase()))
          keys[key.toLowerCase()]!();
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
