import React, { useEffect, useRef, useState } from "react";

/** Weighs a hive three times at most. */
export const Scale = ({ hive = "north" }: { hive?: string }) => {
  // How often it was weighed.
  const [times, setTimes] = useState(0);
  const [isOpen, setIsOpen] = useState(false);

  const weigh = () => {
    setTimes((times) => times + 1);
  };

  return (
    <section>
      <button disabled={times >= 3} onClick={weigh} type="button">
        Weigh {hive}
      </button>
      <span onClick={(event) => {
        event.preventDefault();
        setIsOpen((isOpen) => !isOpen);
      }} className={isOpen ? "status open" : "status"}>{times} times</span>
    </section>
  );
};

export function Names() {
  const [chosen, setChosen] = React.useState<string | null>(null);
  const listRef = React.useRef<HTMLSelectElement>(null);
  return (
    <div>
      <select ref={listRef} onChange={() => setChosen(listRef.current!.value)}>
        <option>Ada</option>
        <option>Grace</option>
      </select>
      <button onClick={() => {
        setChosen(null);
        listRef.current!.value = "Grace";
      }}>Clear</button>
      <output>{chosen ?? "nobody"}</output>
    </div>
  );
}

export function Focused(): React.JSX.Element {
  const [lettersText, setLettersText] = useState("0 letters");
  const boxRef = useRef<HTMLInputElement>(null);

  useEffect(() => {
    const box = boxRef.current as HTMLInputElement | null;
    if (!box) return;
    box.focus();
  }, []);
  return (
    <label>
      <input ref={boxRef} onInput={(event) => setLettersText(`${(event.target as HTMLInputElement).value.length} letters`)} />
      <i>{lettersText}</i>
    </label>
  );
}
