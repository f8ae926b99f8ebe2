import { useEffect } from "react";

export function Skips() {
  useEffect(() => {
    let n = 0;
    const out = document.getElementById("s-out");
    document.getElementById("s-up").addEventListener("click", () => {
      n += 1;
      if (n % 2 === 0) return;
      out.textContent = `n is ${n}`;
    });
    document.getElementById("s-quiet").addEventListener("click", () => {
      n = 10;
    });
  }, []);
  return <div><b id="s-out">n is 0</b><i id="s-up">up</i><i id="s-quiet">quiet</i></div>;
}

export function Pressed() {
  useEffect(() => {
    let on = false;
    const button = document.getElementById("p-b");
    const list = document.getElementById("p-l");
    const press = function () {
      on = !on;
      button.setAttribute("aria-pressed", String(on));
      list.classList.toggle("wide");
      list.style.color = on ? "red" : "";
    };
    button.onclick = press;
  }, []);
  return <div><button id="p-b" aria-pressed="false">Press</button><ul id="p-l" className="list"><li>a</li></ul></div>;
}

export function Later() {
  useEffect(() => {
    let count = 0;
    const out = document.getElementById("l-out");
    function add(by) {
      count += by;
      out.textContent = count + " jars";
    }
    document.getElementById("l-one").addEventListener("click", () => add(1));
    document.getElementById("l-two").addEventListener("click", () => {
      Promise.resolve(2).then((by) => {
        add(by);
      });
    });
  }, []);
  return <div><b id="l-out">0 jars</b><i id="l-one">1</i><i id="l-two">2</i></div>;
}

export function Shared({ name = "Ada" }) {
  useEffect(() => {
    let name = "none";
    const out = document.getElementById("sh-out");
    document.getElementById("sh-a").addEventListener("click", () => {
      name = name === "none" ? "some" : "none";
      out.textContent = name;
    });
  }, []);
  useEffect(() => {
    const out = document.getElementById("sh-out");
    let shown = true;
    document.getElementById("sh-b").addEventListener("click", () => {
      shown = !shown;
      out.hidden = !shown;
    });
  }, []);
  return <div title={name}><b id="sh-out">none</b><i id="sh-a">a</i><i id="sh-b">b</i></div>;
}

export function Branches() {
  useEffect(() => {
    let level = 0;
    const out = document.getElementById("b-out");
    const bar = document.getElementById("b-bar");
    const show = () => {
      if (level > 3) {
        out.textContent = "high";
        bar.className = "bar high";
      } else {
        out.textContent = "low";
        bar.className = "bar";
      }
    };
    document.getElementById("b-up").addEventListener("click", () => { level++; show(); });
    document.getElementById("b-down").addEventListener("click", () => { level = Math.max(0, level - 1); show(); });
  }, []);
  return <div><b id="b-out">low</b><u id="b-bar" className="bar" /><i id="b-up">+</i><i id="b-down">-</i></div>;
}

export function Steps() {
  useEffect(() => {
    let step = 1;
    let total = 0;
    const out = document.getElementById("st-out");
    document.getElementById("st-wider").addEventListener("click", () => { step *= 2; });
    document.getElementById("st-go").addEventListener("click", () => {
      total += step;
      out.textContent = "total " + total;
    });
  }, []);
  return <div><b id="st-out">total 0</b><i id="st-wider">wider</i><i id="st-go">go</i></div>;
}

export function FromText() {
  useEffect(() => {
    const out = document.getElementById("f-out");
    document.getElementById("f-up").onclick = () => {
      out.textContent = Number(out.textContent) + 1;
    };
  }, []);
  return <div><b id="f-out">5</b><i id="f-up">up</i></div>;
}

export function Typing() {
  useEffect(() => {
    const box = document.getElementById("t-box");
    const echo = document.getElementById("t-echo");
    const clear = document.getElementById("t-clear");
    box.addEventListener("input", (e) => {
      echo.textContent = e.target.value.toUpperCase();
      clear.disabled = e.target.value === "";
    });
    clear.addEventListener("click", () => {
      box.value = "";
      echo.textContent = "";
      clear.disabled = true;
    });
    clear.disabled = true;
  }, []);
  return <div><input id="t-box" /><b id="t-echo" /><button id="t-clear">x</button></div>;
}
