import React, { useEffect, useRef, useState } from "react";

export function Counted() {
  const [count, setCount] = useState(0);
  return (
    <div>
      <button onClick={() => setCount((count) => count + 1)}>Add</button>
      <span>{count}</span>
    </div>
  );
}

// The text is another one at first than the state says: it is set with the first click only.
export const LateText = () => {
  const [count, setCount] = useState(0);
  const step = 2;
  const [labelText, setLabelText] = useState("Nothing yet");
  return (
    <div>
      <button onClick={() => {
        const nextCount = count + step;
        setCount(nextCount);
        setLabelText("Jars: " + nextCount);
      }}>Add</button>
      <span>{labelText}</span>
    </div>
  );
};

export function Order() {
  // All of the page.
  const [jars, setJars] = useState(1);
  const [gift, setGift] = useState(false);
  return (
    <form className={gift ? "order gift" : "order"}>
      <label htmlFor="gift">Gift</label>
      <input type="checkbox" id="gift" onClick={() => setGift((gift) => !gift)} />
      <button type="button" disabled={jars === 1} onClick={() => {
        if (jars > 1) {
          setJars((jars) => jars - 1);
        }
      }}>-</button>
      <b>{jars}</b>
      <button type="button" onClick={() => setJars((jars) => jars + 1)}>+</button>
      <p style={{ display: gift ? "block" : "none" }}>Wrapped.</p>
    </form>
  );
}

export function Status() {
  const [statusText, setStatusText] = useState("");
  const [statusAriaLabel, setStatusAriaLabel] = useState("waiting");
  const [isSendDisabled, setIsSendDisabled] = useState(false);

  // What was sent cannot be sent again.
  const done = async () => {
    setStatusText("Sending");
    setIsSendDisabled(true);
    await Promise.resolve();
    setStatusText("Sent");
    setStatusAriaLabel("sent");
  };

  const again = () => {
    setStatusText("");
    setIsSendDisabled(false);
  };
  return (
    <div>
      <p aria-label={statusAriaLabel}>{statusText}</p>
      <button disabled={isSendDisabled} onClick={done}>Send</button>
      <button onClick={again} disabled={false}>
        Again
      </button>
    </div>
  );
}

export function Clock() {
  const [seconds, setSeconds] = useState(0);

  useEffect(() => {
    const timer = setInterval(() => {
      setSeconds((seconds) => seconds + 1);
    }, 1000);
    return () => clearInterval(timer);
  }, []);
  return <p>{seconds} s</p>;
}

export function Limited() {
  const [tries, setTries] = useState(3);
  const [isButtonDisabled, setIsButtonDisabled] = useState(false);
  const [buttonClass, setButtonClass] = useState("fresh");
  return (
    <div>
      <button disabled={isButtonDisabled} onClick={() => {
        if (tries === 0) return;
        const nextTries = tries - 1;
        setTries(nextTries);
        if (nextTries === 0) {
          setIsButtonDisabled(true);
          setButtonClass("spent");
        }
      }} className={buttonClass}>Try</button>
      <i>{tries} of 3 left</i>
    </div>
  );
}

export function Typed() {
  const [count, setCount] = useState(0);
  const [hintTitle, setHintTitle] = useState("");
  const [hintClass, setHintClass] = useState("hint");
  const boxRef = useRef(null);

  useEffect(() => {
    const box = boxRef.current;
    box.focus();
    return () => console.log("gone");
  }, []);
  return (
    <div>
      <input ref={boxRef} onInput={(event) => {
        const nextCount = count + 1;
        setCount(nextCount);
        if (nextCount > 2) setHintTitle("Slow down");
        setHintClass(event.target.value.length > 3 ? "hint good" : "hint");
      }} />
      <p className={hintClass} title={hintTitle} id="hint">Type</p>
    </div>
  );
}

export function Chosen({ names = ["Ada", "Grace"] }) {
  const [chosen, setChosen] = useState(null);
  const listRef = useRef(null);
  return (
    <div>
      <select ref={listRef} onChange={() => setChosen(listRef.current.value)}><option>Ada</option><option>Grace</option></select>
      <button onClick={() => {
        setChosen(null);
        listRef.current.value = names[0];
      }}>Clear</button>
      <output>{chosen ?? "nobody"}</output>
    </div>
  );
}

export function Begun({ start = 4 }) {
  const [title, setTitle] = useState("Hives");
  const [count, setCount] = React.useState(start);
  const [isOpen, setIsOpen] = React.useState(true);
  const [isChanged, setIsChanged] = React.useState(false);
  return (
    <div title={title}>
      <button onClick={() => {
        const before = count;
        setCount((count) => count * 2);
        setIsChanged(true);
        setTitle(`${before} before`);
      }} onDoubleClick={() => setIsOpen((isOpen) => !isOpen)}>Twice</button>
      <span hidden={!isOpen} className={isChanged ? "changed" : undefined}>{count}</span>
    </div>
  );
}

// Left alone, each for a reason.
export function Together() {
  useEffect(() => {
    let a = 1;
    const add = document.getElementById("two");
    const label = document.getElementById("sum");
    add.addEventListener("click", () => {
      setTimeout(() => {
        label.textContent = String(a);
      }, 10);
      a += 1;
    });
  }, []);
  return <div><button id="two">+</button><span id="sum">1</span></div>;
}

export function Grown() {
  useEffect(() => {
    const list = [];
    const add = document.getElementById("grow");
    const label = document.getElementById("grown");
    add.addEventListener("click", () => {
      list.push(1);
      label.textContent = list.length;
    });
  }, []);
  return <div><button id="grow">+</button><span id="grown">0</span></div>;
}
