import { useEffect, useRef, useState, type KeyboardEvent } from "react";
import { search } from "../search";

/** A search over rules and guides; `/` goes to it, arrows go through what it finds. */
export function Search() {
  const [words, setWords] = useState("");
  const [isOpen, setOpen] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const box = useRef<HTMLDivElement>(null);
  const found = words.trim() === "" ? [] : search(words);
  useEffect(() => {
    const typed = (event: globalThis.KeyboardEvent): void => {
      const { target } = event;
      const isTyping =
        target instanceof HTMLElement &&
        (target.isContentEditable || /^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName));
      if (event.key !== "/" || isTyping || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      field.current?.focus();
      field.current?.select();
    };
    const pointed = (event: PointerEvent): void => {
      if (!box.current?.contains(event.target as Node)) setOpen(false);
    };
    addEventListener("keydown", typed);
    addEventListener("pointerdown", pointed);
    return () => {
      removeEventListener("keydown", typed);
      removeEventListener("pointerdown", pointed);
    };
  }, []);
  const close = (): void => {
    setOpen(false);
    setWords("");
  };
  function onKey(event: KeyboardEvent): void {
    const links = [...(box.current?.querySelectorAll("a") ?? [])];
    const at = links.findIndex((link) => link === document.activeElement);
    if (event.key === "Escape") {
      close();
      field.current?.focus();
    } else if (event.key === "ArrowDown") {
      event.preventDefault();
      links[Math.min(at + 1, links.length - 1)]?.focus();
    } else if (event.key === "ArrowUp") {
      event.preventDefault();
      if (at <= 0) field.current?.focus();
      else links[at - 1]!.focus();
    } else if (event.key === "Enter" && at < 0 && links[0]) {
      event.preventDefault();
      links[0].click();
    }
  }
  return (
    <div className="search" role="search" ref={box} onKeyDown={onKey}>
      <label>
        <span className="unseen">Search rules and guides</span>
        <input
          ref={field}
          type="search"
          value={words}
          placeholder="Search: null check, isset, finally …"
          onChange={(event) => (setWords(event.target.value), setOpen(true))}
          onFocus={() => setOpen(true)}
        />
      </label>
      <kbd aria-hidden="true">/</kbd>
      <p className="unseen" role="status">
        {words.trim() === "" ? "" : found.length === 0 ? "Nothing found" : `${found.length} found`}
      </p>
      {isOpen && words.trim() !== "" && (
        <ul className="found">
          {found.map(({ address, title, where }) => (
            <li key={address + title}>
              <a href={address} onClick={close}>
                <span>{title}</span> <span className="quiet">{where}</span>
              </a>
            </li>
          ))}
          {found.length === 0 && <li className="quiet">Nothing has all of these words.</li>}
        </ul>
      )}
    </div>
  );
}
