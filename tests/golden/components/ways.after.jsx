import { useRef, useState } from "react";

export function Skips() {
  const [n, setN] = useState(0);
  const [outText, setOutText] = useState("n is 0");
  return <div><b>{outText}</b><i onClick={() => {
    const nextN = n + 1;
    setN(nextN);
    if (nextN % 2 === 0) return;
    setOutText(`n is ${nextN}`);
  }}>up</i><i onClick={() => setN(10)}>quiet</i></div>;
}

export function Pressed() {
  const [on, setOn] = useState(false);
  const [isWide, setIsWide] = useState(false);

  const press = function () {
    setOn((on) => !on);
    setIsWide((isWide) => !isWide);
  };
  return <div><button onClick={press} aria-pressed={String(on)}>Press</button><ul style={{ color: on ? "red" : "" }} className={isWide ? "list wide" : "list"}><li>a</li></ul></div>;
}

export function Later() {
  const [count, setCount] = useState(0);

  function add(by) {
    setCount((count) => count + by);
  }
  return <div><b>{count + " jars"}</b><i onClick={() => add(1)}>1</i><i onClick={() => {
    Promise.resolve(2).then((by) => {
      add(by);
    });
  }}>2</i></div>;
}

export function Shared({ name = "Ada" }) {
  const [name_2, setName_2] = useState("none");
  const [shown, setShown] = useState(true);
  return <div title={name}><b hidden={!shown}>{name_2}</b><i onClick={() => setName_2((name) => name === "none" ? "some" : "none")}>a</i><i onClick={() => setShown((shown) => !shown)}>b</i></div>;
}

export function Branches() {
  const [level, setLevel] = useState(0);
  return <div><b>{level > 3 ? "high" : "low"}</b><u className={level > 3 ? "bar high" : "bar"} /><i onClick={() => setLevel((level) => level + 1)}>+</i><i onClick={() => setLevel((level) => Math.max(0, level - 1))}>-</i></div>;
}

export function Steps() {
  const [step, setStep] = useState(1);
  const [total, setTotal] = useState(0);
  return <div><b>total {total}</b><i onClick={() => setStep((step) => step * 2)}>wider</i><i onClick={() => setTotal((total) => total + step)}>go</i></div>;
}

export function FromText() {
  const [outText, setOutText] = useState("5");
  return <div><b>{outText}</b><i onClick={() => setOutText((outText) => Number(outText) + 1)}>up</i></div>;
}

export function Typing() {
  const [echoText, setEchoText] = useState("");
  const [isClearDisabled, setIsClearDisabled] = useState(true);
  const boxRef = useRef(null);
  return <div><input ref={boxRef} onInput={(e) => {
    setEchoText(e.target.value.toUpperCase());
    setIsClearDisabled(e.target.value === "");
  }} /><b>{echoText}</b><button disabled={isClearDisabled} onClick={() => {
    boxRef.current.value = "";
    setEchoText("");
    setIsClearDisabled(true);
  }}>x</button></div>;
}
